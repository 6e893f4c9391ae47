"""The box and the drop test in the real browser: ten heads in a minute, a thumb on the stopwatch, bands that
tighten."""

import re

from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.helpers import press, reads, screen, text, wait


def heads(browser: webdriver.Chrome) -> int:
    return int(text(browser, ".counts").split()[0])


def test_tackle_goes_in_by_keyboard_and_is_put_right_where_it_stands(
    browser: webdriver.Chrome, site: str
) -> None:
    browser.get(site + "/box")
    before = heads(browser)
    entry = browser.switch_to.active_element
    assert entry.get_attribute("id") == "entry"
    for oz in ("3/16", "1/4", "5/16"):
        entry.send_keys(f"{oz} grass jig green x2", Keys.ENTER)
        wait(browser, lambda oz=oz: f"{oz} oz grass jig" in text(browser, ".said"))
        wait(browser, lambda: entry.get_attribute("value") == "")
    assert heads(browser) == before + 3
    entry.send_keys("toad 3 in", Keys.ENTER)
    reads(browser, "#entry-problem", "Which shape of trailer?")
    assert entry.get_attribute("value") == "toad 3 in"  # nothing typed is lost
    browser.find_element(By.ID, "q").send_keys("grass green 5/16")
    wait(browser, lambda: len(browser.find_elements(By.CSS_SELECTOR, ".items tbody tr")) == 1)
    mass = browser.find_element(By.CSS_SELECTOR, ".items input[name=mass_g]")
    mass.send_keys("9,1 g", Keys.TAB)
    reads(browser, ".items", "weighs 9.1 g")
    mass = browser.find_element(By.CSS_SELECTOR, ".items input[name=mass_g]")
    mass.send_keys(Keys.CONTROL, "a")
    mass.send_keys("heavy", Keys.TAB)
    reads(browser, ".items", "Weight on the scale must be from 0.2 to 200 g, not “heavy”.")
    press(browser, "[aria-label^='Delete 5/16 oz grass jig']")
    reads(browser, ".said", "Deleted: 5/16 oz grass jig")
    wait(browser, lambda: browser.switch_to.active_element.text == "Undo")  # the piece is gone, not the place
    browser.switch_to.active_element.send_keys(Keys.ENTER)
    reads(browser, ".said", "Back in the box")
    reads(browser, "#missing", "What am I missing?")


def test_a_column_is_weighed_by_enter_and_tab(browser: webdriver.Chrome, site: str) -> None:
    browser.get(site + "/box")
    masses = browser.find_elements(By.CSS_SELECTOR, ".items input[name=mass_g]")
    ids = [m.get_attribute("id") for m in masses[:3]]
    masses[0].send_keys(Keys.CONTROL, "a")
    masses[0].send_keys("7.2", Keys.ENTER)
    assert browser.switch_to.active_element.get_attribute("id") == ids[1]  # down the column
    wait(browser, lambda: "weighs 7.2 g" in text(browser, ".items tbody tr:nth-child(1)"))
    assert browser.switch_to.active_element.get_attribute("id") == ids[1]
    browser.switch_to.active_element.send_keys("10.8", Keys.TAB)
    reads(browser, ".items tbody tr:nth-child(2)", "weighs 10.8 g")
    assert browser.switch_to.active_element.tag_name == "input"  # along the row, though the row came anew


def test_lines_are_put_right_at_a_touch_and_many_go_in_parts(browser: webdriver.Chrome, site: str) -> None:
    browser.get(site + "/box")
    entry = browser.find_element(By.ID, "entry")
    entry.send_keys("3/8 swim jog")
    reads(browser, "#understood", "1 line is not whole yet")
    press(browser, "#understood [data-write]")
    assert entry.get_attribute("value") == "3/8 swim jig"
    reads(browser, "#understood", "Understood, not kept yet")
    before = heads(browser)
    lines = "\n".join(f"1/2 swim jig red{k}" for k in range(410)) + "\ntoad 3 in\n1/2 swim jig last"
    browser.execute_script("arguments[0].value = arguments[1]", entry, lines)
    press(browser, "#entry-form button")
    reads(browser, "#parts", "411 of 412 lines added; the rest is not kept.")
    assert entry.get_attribute("value") == "toad 3 in"
    wait(browser, lambda: heads(browser) == before + 411)


def test_a_drop_is_timed_kept_and_tightens_the_bands(browser: webdriver.Chrome, site: str) -> None:
    """From the rig on the sheet to the stopwatch and back: the count's band is narrower, then wide again
    when withdrawn."""
    screen(browser, 390, 844)
    rig = site + "/?family=swim-jig&pick=swim-jig:0.5:chunk&activity=2"

    def band() -> float:
        browser.get(rig)
        found = re.findall(r"[\d.]+", text(browser, ".figures div:first-child small"))
        return float(found[1]) / float(found[0])

    before = band()
    press(browser, ".verdict a[href^='/drops']")
    wait(browser, lambda: browser.find_elements(By.ID, "watch"))
    assert browser.find_element(By.NAME, "head_oz").get_attribute("value") == "1/2"
    press(browser, "#watch")
    wait(browser, lambda: float(text(browser, "#watch-now")) > 0.4)
    browser.find_element(By.TAG_NAME, "body").send_keys(" ")  # the space bar stops it as well as the thumb
    wait(browser, lambda: browser.find_element(By.ID, "times").get_attribute("value") != "")
    assert text(browser, "#tries") != ""  # in figures over the button, each scrapped at a touch
    press(browser, "#scrap")
    wait(browser, lambda: browser.find_element(By.ID, "times").get_attribute("value") == "")
    times = browser.find_element(By.ID, "times")
    times.send_keys("5.4 5.5 1.9")
    assert [b.text for b in browser.find_elements(By.CSS_SELECTOR, "#tries .far")] == ["1.9 ×"]
    reads(browser, "#far", "1.9 s: far from the rest")
    press(browser, "#drop-form button.wide")
    reads(browser, "#drop-problem", "Was a drop spoilt? 1.90 s beside 5.40, 5.50")
    press(browser, "#tries .far")
    assert browser.find_element(By.ID, "times").get_attribute("value") == "5.4 5.5"
    times.send_keys(Keys.CONTROL, "a")
    times.send_keys("14.9 15.1 15.0")
    press(browser, "#drop-form button.wide")
    reads(browser, "#drop-problem", "Check depth, rig and seconds")
    times.send_keys(Keys.CONTROL, "a")
    times.send_keys("5.4 5.5 5.45 5.5")
    press(browser, "#keep-tries")
    reads(browser, ".said", "You timed 5.5 s", "counts now")
    reads(browser, ".lessons", "chunk on a swim jig")
    after = band()
    assert after < before
    browser.get(site + "/drops")
    press(browser, ".tests tbody tr:first-child button")
    reads(browser, ".said", "Withdrawn")
    assert abs(band() - before) < 1e-6
