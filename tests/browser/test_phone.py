"""What a phone folds: pages half as long as they were, and nothing lost."""

import pytest
from selenium import webdriver
from selenium.webdriver.common.by import By

from tests.browser.helpers import press, reads, screen, text, wait

ANSWERED = "water_temp_f=58&bottom_depth_ft=9&fish_depth_ft=6&cover=submerged-grass"
HEIGHT = "return document.documentElement.scrollHeight"


def shown(browser: webdriver.Chrome, css: str) -> bool:
    return browser.find_element(By.CSS_SELECTOR, css).is_displayed()


@pytest.mark.parametrize(
    ("view", "most"), [("size", 1180), ("cast", 1110), ("rig", 1200), ("water", 1280), ("search", 1250)]
)
def test_a_view_is_a_screen_and_a_half(browser: webdriver.Chrome, site: str, view: str, most: int) -> None:
    screen(browser, 390, 844)
    browser.get(f"{site}/?view={view}&{ANSWERED}")
    wait(browser, lambda: not shown(browser, "#field-cover"))
    assert browser.execute_script(HEIGHT) <= most
    reads(browser, "#fold-water > summary", "58 °F, fish 6 of 9 ft, submerged grass")


def test_the_four_answers_stand_open_until_they_are_given(browser: webdriver.Chrome, site: str) -> None:
    screen(browser, 390, 844)
    browser.get(f"{site}/")
    assert shown(browser, "#field-cover")
    browser.get(f"{site}/?view=cast")
    assert not shown(browser, "#field-cover")
    press(browser, "#fold-water > summary")
    wait(browser, lambda: shown(browser, "#field-cover"))
    press(browser, "[data-to=water_temp_f][data-step='1']")
    wait(browser, lambda: "water_temp_f=59" in browser.current_url)
    assert shown(browser, "#field-cover")
    reads(browser, "#fold-water > summary", "59 °F")


def test_a_refusal_opens_the_water(browser: webdriver.Chrome, site: str) -> None:
    screen(browser, 390, 844)
    browser.get(f"{site}/?{ANSWERED}&wind_mph=99")
    wait(browser, lambda: shown(browser, "#fold-water .error:not(:empty)"))


def test_the_rest_of_a_list_comes_at_a_touch_and_stays(browser: webdriver.Chrome, site: str) -> None:
    screen(browser, 390, 844)
    browser.get(f"{site}/?{ANSWERED}")
    rows = browser.find_elements(By.CSS_SELECTOR, "#board tbody tr")
    assert 3 <= sum(r.is_displayed() for r in rows) <= 4
    press(browser, "[data-whole=board]")
    wait(browser, lambda: all(r.is_displayed() for r in rows))
    assert text(browser, "[data-whole=board]") == "Fewer"
    press(browser, "#board tbody tr:first-child td:nth-child(3) .cell")
    wait(browser, lambda: "pick=" in browser.current_url)
    rows = browser.find_elements(By.CSS_SELECTOR, "#board tbody tr")
    wait(browser, lambda: all(r.is_displayed() for r in rows))
    press(browser, "[data-whole=board]")
    wait(browser, lambda: sum(r.is_displayed() for r in rows) <= 4)
    assert any(r.find_elements(By.CSS_SELECTOR, ":checked") for r in rows if r.is_displayed())


def test_nothing_is_folded_on_a_wide_screen(browser: webdriver.Chrome, site: str) -> None:
    """Nor after a phone was turned into one; reasons after the second are asked for on any."""
    screen(browser, 390, 844)
    for view, css in (
        ("size", "#more-wanted .grid"),
        ("cast", "#pace-go"),
        ("rig", ".faults"),
        ("water", ".moods"),
    ):
        browser.get(f"{site}/?view={view}&{ANSWERED}")
        wait(browser, lambda c=css: not shown(browser, c))
        screen(browser, 1280, 800)
        wait(browser, lambda c=css: shown(browser, c) and shown(browser, "#field-cover"))
        assert all(
            r.is_displayed()
            for r in browser.find_elements(By.CSS_SELECTOR, "[data-short]:not(#reasons) .rest")
        )
        screen(browser, 390, 844)


def test_long_lists_are_folded_on_a_phone(browser: webdriver.Chrome, site: str) -> None:
    """A piece opens at a touch and stays open; pages are at most half of what they were."""
    screen(browser, 390, 844)
    browser.get(f"{site}/box")
    high = browser.execute_script(HEIGHT)
    rows = len(browser.find_elements(By.CSS_SELECTOR, ".items tbody tr"))
    assert high < 1000 + 62 * rows
    assert not shown(browser, ".items .edit")
    press(browser, ".unfold")
    wait(browser, lambda: shown(browser, ".items .edit"))
    assert browser.find_element(By.CSS_SELECTOR, ".unfold").get_attribute("aria-expanded") == "true"
    press(browser, ".unfold")
    wait(browser, lambda: not shown(browser, ".items .edit"))
    browser.get(f"{site}/?view=water")
    assert browser.execute_script(HEIGHT) < 1850
    assert not shown(browser, ".dispute")
    browser.execute_script("document.querySelector('#differ > summary').click()")
    wait(browser, lambda: shown(browser, ".dispute"))
    screen(browser, 1280, 800)
    browser.get(f"{site}/?view=water")
    assert shown(browser, ".dispute")
    browser.get(f"{site}/box")
    assert shown(browser, ".items .edit")


@pytest.mark.parametrize("page", ["?view=rig", "?view=cast", "box", "drops", "plan", "files"])
def test_the_last_line_is_not_under_the_pages(browser: webdriver.Chrome, site: str, page: str) -> None:
    """Scrolled to its end, nothing of a page is hidden by the row of pages under the thumb."""
    screen(browser, 390, 844)
    browser.get(f"{site}/{page}")
    hidden = browser.execute_script(
        "document.documentElement.style.scrollBehavior = 'auto'; window.scrollTo(0, 99999);"
        "const bar = document.querySelector('.pages').getBoundingClientRect().top;"
        "return [...document.querySelectorAll('main :is(a, button, p, li, td, th)')]"
        ".filter(e => e.checkVisibility() && e.getBoundingClientRect().bottom > bar + 1 && e.offsetHeight)"
        ".map(e => e.outerHTML.slice(0, 80))"
    )
    assert hidden == []
