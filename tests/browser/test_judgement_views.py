"""Water and Rig: the call, the schools, the finish and the one change, in the real browser."""

from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import Select

from tests.browser.helpers import press, reads, screen, text, wait


def choose(browser: webdriver.Chrome, id_: str, words: str) -> None:
    Select(browser.find_element(By.ID, id_)).select_by_visible_text(words)


def test_four_answers_make_a_call_and_the_reasons_follow(browser: webdriver.Chrome, site: str) -> None:
    browser.get(site + "/?fish_depth_ft=8")
    choose(browser, "cover", "wood")
    reads(browser, ".what", "flipping jig")
    assert not browser.find_element(By.ID, "field-top_depth_ft").is_displayed()
    assert browser.find_element(By.ID, "field-wood").is_displayed()
    press(browser, "#assumes")
    reads(browser, "#field-season", "assumed")
    press(browser, "#assumes")
    press(browser, "#view-water + span")
    reads(browser, ".called", "In wood, a guarded jig")
    reads(browser, ".aside", "bladed jig (in wood, a guarded jig)")
    reads(browser, "#last", "Last time")
    assert browser.execute_script("return document.documentElement.scrollHeight") <= 800
    press(browser, "dormant", By.LINK_TEXT)
    reads(browser, ".because", "your own word")
    wait(browser, lambda: browser.find_element(By.ID, "activity").get_attribute("value") == "0")
    press(browser, "Judge it again", By.LINK_TEXT)
    reads(browser, ".because", "Judged")
    press(browser, "casting jig", By.LINK_TEXT)
    wait(
        browser,
        lambda: "family=casting-jig" in browser.current_url and "casting jig" in text(browser, ".what"),
    )


def test_a_school_is_chosen_kept_and_shown_beside_the_other(browser: webdriver.Chrome, site: str) -> None:
    browser.get(site + "/?view=water&family=bladed-jig")
    press(browser, ".dispute:nth-child(2) button")
    reads(browser, "#both", "heavy and fast", "Against the first")
    choose(browser, "s_bladed-ladder", "one size")
    wait(browser, lambda: "s_bladed-ladder=one" in browser.current_url)
    browser.get(site + "/?view=water&family=bladed-jig")
    wait(
        browser,
        lambda: (
            Select(browser.find_element(By.ID, "s_bladed-ladder")).first_selected_option.text == "one size"
        ),
    )
    choose(browser, "s_bladed-ladder", "step by depth")
    wait(browser, lambda: "s_bladed-ladder" not in browser.current_url)

    def let_go() -> bool:
        # The choice is kept by a request of its own, which may still be on its way.
        browser.get(site + "/?view=water&family=bladed-jig")
        return not browser.find_elements(By.CSS_SELECTOR, ".held")

    wait(browser, let_go)


def test_the_rig_is_drawn_and_one_change_is_tried(browser: webdriver.Chrome, site: str) -> None:
    screen(browser, 390, 844)
    browser.get(site + "/?view=rig&family=bladed-jig")
    assert browser.execute_script("return document.documentElement.scrollWidth") <= 390
    reads(browser, ".rigfig figcaption", "To scale")
    assert browser.find_elements(By.CSS_SELECTOR, ".rigfig .blade")
    press(browser, "[data-whole=settled]")
    reads(browser, ".settled", "Line")
    press(browser, "#fold-wrong > summary")
    press(browser, "It ran too low", By.LINK_TEXT)
    reads(browser, ".changes li:first-child", "Speed up", "this brings it to")
    press(browser, ".changes li a")
    wait(browser, lambda: "wrong" not in browser.current_url and "view" not in browser.current_url)
