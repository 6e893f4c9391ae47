"""Rounds of the trainer in the browser: taps, a touch in the water, keys, ten questions and back."""

import re

from selenium import webdriver
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.helpers import reads, wait


def test_a_count_is_tapped_by_thumb_and_by_the_space_bar(browser: webdriver.Chrome, site: str) -> None:
    for way in ("thumb", "keys"):
        browser.get(f"{site}/train/count?topic=short&seed=2")
        tap = browser.find_element(By.ID, "tap")
        press = tap.click if way == "thumb" else lambda tap=tap: tap.send_keys(Keys.SPACE)
        press()
        assert tap.text == "Count is up"
        asked = float(re.search(r"count ([\d.]+) s", browser.find_element(By.TAG_NAME, "h1").text).group(1))  # type: ignore[union-attr]
        ActionChains(browser).pause(asked).perform()
        press()
        reads(browser, "main.marked h1", " of 100. ", f"for {asked:g}:")
        browser.find_element(By.ID, "next").click()
        reads(browser, ".stand", "2 of 10")


def test_a_touch_in_the_water_sets_the_depth_and_the_cast_is_drawn(
    browser: webdriver.Chrome, site: str
) -> None:
    browser.get(f"{site}/train/eye?topic=nylon&seed=4")
    drawing = next(d for d in browser.find_elements(By.CSS_SELECTOR, "figure.asked svg") if d.is_displayed())
    ActionChains(browser).move_to_element(drawing).click().perform()
    depth = browser.find_element(By.ID, "depth")
    assert 1.0 < float(depth.get_attribute("value") or 0) < 14.0
    depth.clear()
    depth.send_keys("4.5")
    guess = drawing.find_element(By.CSS_SELECTOR, ".guess")
    assert guess.get_attribute("hidden") is None
    depth.send_keys(Keys.ENTER)
    reads(browser, "main.marked h1", "It runs at")
    assert browser.find_element(By.CSS_SELECTOR, "figure.asked svg .path").get_attribute("points")
    # The cast plays, and comes to its end.
    wait(browser, lambda: browser.find_elements(By.CSS_SELECTOR, "figure.asked svg[data-played] .playing"))


def test_a_round_of_ten_goes_back_to_the_overview(browser: webdriver.Chrome, site: str) -> None:
    browser.get(f"{site}/train/repair")
    for n in range(1, 11):
        reads(browser, ".stand", f"{n} of 10")
        browser.find_element(By.CSS_SELECTOR, ".options button").click()
        reads(browser, "main.marked h1", "of 100")
        browser.find_element(By.ID, "next").click()
    reads(browser, ".kinds", "10 answered")
    reads(browser, ".over", "Ten repairs: done", "of 100 on average")
