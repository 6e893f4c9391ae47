"""The Cast view: played, scrubbed and compared in the real browser."""

import json

from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.helpers import press, reads, text, wait


def lure_x(browser: webdriver.Chrome) -> float:
    moved = browser.find_element(By.CSS_SELECTOR, "svg.wide .lure-at").get_attribute("transform") or ""
    return float(moved.removeprefix("translate(").split()[0])


def test_the_cast_is_played_scrubbed_and_compared(browser: webdriver.Chrome, site: str) -> None:
    browser.get(site)
    press(browser, "#view-cast + span")
    wait(browser, lambda: browser.find_elements(By.ID, "play"))
    wait(browser, lambda: "view=cast" in browser.current_url)
    assert browser.execute_script("return document.documentElement.scrollHeight") <= 800
    start = lure_x(browser)
    press(browser, "#play")
    wait(browser, lambda: lure_x(browser) < start - 5)  # the lure comes home, toward the left
    press(browser, "#play")
    scrub = browser.find_element(By.ID, "scrub")
    before = text(browser, "#where")
    scrub.send_keys(Keys.END)
    wait(browser, lambda: text(browser, "#where") != before)
    assert "ft out" in (scrub.get_attribute("aria-valuetext") or "")
    browser.find_element(By.ID, "touched").send_keys("20 lb nylon")
    reads(browser, ".rival-said.rival0", "in higher")
    wait(browser, lambda: "compare=line" in browser.current_url)
    frames = json.loads(browser.find_element(By.ID, "cast-data").get_attribute("textContent") or "{}")
    assert len(frames["line"]) == len(frames["t"]) == len(frames["lure"])
    assert len(frames["rivals"]) == 1
    browser.find_element(By.ID, "way").send_keys("drag")
    reads(browser, ".worked", "on the bottom")
