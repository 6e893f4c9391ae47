"""Real flows in the real browser."""

from selenium import webdriver
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.helpers import press, reads, screen, text, wait


def path_height(browser: webdriver.Chrome) -> float:
    points = browser.find_element(By.CSS_SELECTOR, "svg.wide .path").get_attribute("points") or ""
    depths = [float(p.split(",")[1]) for p in points.split()]
    return sum(depths) / len(depths)


def test_an_angler_sizes_a_rig(browser: webdriver.Chrome, site: str) -> None:
    """From the first look to a deeper fish and a bulkier trailer, without a reload, focus kept."""
    browser.get(site)
    assert browser.execute_script("return document.documentElement.scrollHeight") <= 800
    reads(browser, ".figures", "turns in 20 s")
    browser.execute_script("window.sameDocument = true")
    before = text(browser, ".strip")
    fish = browser.find_element(By.ID, "fish_depth_ft")
    fish.click()
    fish.send_keys(Keys.CONTROL, "a")
    fish.send_keys("3")
    reads(browser, "svg.wide", "target 1–3 ft")
    reads(browser, ".verdict", "1 of 4 answers yours")
    wait(browser, lambda: "fish_depth_ft=3" in browser.current_url)
    assert browser.switch_to.active_element.get_attribute("id") == "fish_depth_ft"
    assert text(browser, ".strip") != before
    fish.send_keys(Keys.ARROW_UP)
    wait(browser, lambda: "fish_depth_ft=3.5" in browser.current_url)

    def choose(cell: str) -> float:
        browser.find_element(By.ID, cell).click()
        wait(browser, lambda: browser.find_element(By.ID, cell).is_selected())
        wait(browser, lambda: cell.split("-")[1] in text(browser, ".what"))
        return path_height(browser)

    browser.get(site + "/?activity=2")
    slim = choose("cell-flat-tail-3750")
    reads(browser, ".what", "flat-tail")
    pace = float(text(browser, ".figures div:nth-child(2) b"))
    # Each pair is drawn at its own pace: more lift is brought along more slowly to hold the band.
    assert choose("cell-chunk-3750") != slim
    assert float(text(browser, ".figures div:nth-child(2) b")) < pace
    press(browser, "#to-best")
    reads(browser, ".verdict", "An example")
    browser.back()
    reads(browser, ".what", "chunk")


def test_bad_input_is_said_beside_the_field_and_the_answer_stays(
    browser: webdriver.Chrome, site: str
) -> None:
    browser.get(site)
    box = browser.find_element(By.ID, "water_temp_f")
    box.send_keys(Keys.CONTROL, "a")
    box.send_keys("400")
    reads(browser, "#err-water_temp_f", "Water must be from 32 to 100 °F, not 400 °F.")
    assert box.get_attribute("value") == "400"
    assert browser.find_elements(By.CSS_SELECTOR, ".board")
    box.send_keys(Keys.CONTROL, "a")
    box.send_keys("60")
    wait(browser, lambda: text(browser, "#err-water_temp_f") == "")
    wait(browser, lambda: text(browser, "#halt") == "")


def test_a_scenario_is_saved_reopened_deleted_and_brought_back(browser: webdriver.Chrome, site: str) -> None:
    browser.get(site + "/?fish_depth_ft=4.5&family=swim-jig")
    press(browser, "#shelf summary")
    assert len(browser.find_elements(By.CSS_SELECTOR, "#saved li")) == 3
    browser.find_element(By.ID, "save-name").send_keys("Orchard wall", Keys.ENTER)
    reads(browser, "#saved", "Saved “Orchard wall”")
    browser.get(site)
    press(browser, "#shelf summary")
    press(browser, "Orchard wall", By.PARTIAL_LINK_TEXT)
    wait(browser, lambda: browser.find_element(By.ID, "fish_depth_ft").get_attribute("value") == "4.5")
    press(browser, "#shelf summary")
    press(browser, "[aria-label='Delete Orchard wall']")
    reads(browser, "#saved", "Deleted")
    press(browser, "//button[text()='Undo']", By.XPATH)
    reads(browser, "#saved", "is back")


def test_the_phone_shows_the_answer_and_the_water_first(browser: webdriver.Chrome, site: str) -> None:
    screen(browser, 390, 844)
    browser.get(site)
    assert browser.execute_script("return document.documentElement.scrollWidth") <= 390
    bottom = browser.execute_script(
        "return document.querySelector('svg.narrow').getBoundingClientRect().bottom"
    )
    assert 0 < bottom < 844
    small = browser.execute_script(
        "return [...document.querySelectorAll('#state button, #state select, #state input.num, .cell')]"
        ".filter(e => e.offsetParent && e.getBoundingClientRect().height < 43.5).map(e => e.className)"
    )
    assert small == []


def test_sun_mode_keys_and_the_print_card(browser: webdriver.Chrome, site: str) -> None:
    browser.get(site)
    body = browser.find_element(By.TAG_NAME, "body")
    body.send_keys("s")
    wait(browser, lambda: "sun" in (browser.find_element(By.TAG_NAME, "html").get_attribute("class") or ""))
    browser.get(site)
    assert "sun" in (browser.find_element(By.TAG_NAME, "html").get_attribute("class") or "")
    press(browser, "#sun")
    browser.find_element(By.TAG_NAME, "body").send_keys("?")
    wait(browser, lambda: browser.find_element(By.ID, "keysheet").is_displayed())
    browser.find_element(By.ID, "keysheet").send_keys(Keys.ESCAPE)
    browser.find_element(By.TAG_NAME, "body").send_keys("3")
    wait(browser, lambda: "view=rig" in browser.current_url)
    browser.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": "print"})
    try:
        assert not browser.find_element(By.CSS_SELECTOR, ".controls").is_displayed()
        assert browser.find_element(By.CSS_SELECTOR, ".strip").is_displayed()
    finally:
        browser.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": ""})


def test_the_page_reads_aloud(browser: webdriver.Chrome, site: str) -> None:
    """What a screen reader needs: one main, labels on every control, the section's words and table, the
    board's cells named."""
    for view in ("water", "size", "rig", "cast"):
        browser.get(f"{site}/?view={view}")
        unnamed = browser.execute_script(
            "return [...document.querySelectorAll('main input:not([type=hidden]), main select, main button')]"
            ".filter(e => e.offsetParent && !(e.labels && e.labels.length) && !e.getAttribute('aria-label')"
            " && !e.textContent.trim()).map(e => e.outerHTML)"
        )
        assert unnamed == []
        ids = browser.execute_script("return [...document.querySelectorAll('[id]')].map(e => e.id)")
        assert len(ids) == len(set(ids)), [i for i in ids if ids.count(i) > 1]
        found = "[...document.querySelectorAll('main svg[role=img]')]"
        named = f"return {found}.map(e => e.getAttribute('aria-label'))"
        pictures = browser.execute_script(named)
        assert all(pictures)
        rows = browser.find_elements(By.CSS_SELECTOR, ".section figcaption tbody tr")
        assert len(rows) > 8
    browser.get(site)
    cell = browser.find_element(By.CSS_SELECTOR, ".cell input").get_attribute("aria-label") or ""
    assert " of 100." in cell


def test_a_band_is_set_in_the_section_and_pairs_are_compared_through_a_lens(
    browser: webdriver.Chrome, site: str
) -> None:
    """The edge is dragged and stepped, is the angler's own, and is given back by one touch."""
    browser.get(site + "/?lens=depth")
    band = "document.querySelector('.edges.wide .{}').getAttribute('aria-valuetext')"
    edge = browser.find_element(By.CSS_SELECTOR, ".edges.wide .lower")
    assert browser.execute_script("return " + band.format("lower")) == "6 ft"
    foot = float(browser.execute_script("return arguments[0].parentElement.dataset.per", edge))
    scale = browser.execute_script("return document.querySelector('svg.wide').clientWidth") / 900
    ActionChains(browser).drag_and_drop_by_offset(edge, 0, round(-0.6 * foot * scale)).perform()
    reads(browser, ".figures", "your 4 to 5.5")
    wait(browser, lambda: "want_depth=4+to+5.5" in browser.current_url)
    assert len(browser.find_elements(By.CSS_SELECTOR, ".lensed td.er, .lensed td.eb")) > 5
    browser.find_element(By.CSS_SELECTOR, ".edges.wide .upper").send_keys(Keys.ARROW_DOWN)
    reads(browser, ".figures", "your 4.5 to 5.5")
    press(browser, ".figures .own .link")
    wait(browser, lambda: "want_depth" not in browser.current_url)
    assert browser.execute_script("return " + band.format("lower")) == "6 ft"
    press(browser, "#comparing")
    press(browser, "label:has(#cell-chunk-3750)")
    reads(browser, "#compared", "B", "chunk", "Turns")
    assert browser.find_elements(By.CSS_SELECTOR, "svg.wide .rivalpath.rival0")
    browser.find_element(By.ID, "cell-flat-tail-3750").send_keys("c")
    reads(browser, "#compared", "C", "flat-tail")
    assert "pick=" not in browser.current_url
    press(browser, "#compared th:nth-child(3) .link")
    wait(browser, lambda: "chunk" not in text(browser, "#compared"))
