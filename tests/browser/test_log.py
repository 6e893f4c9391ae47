"""The log in the browser: a day typed in, read back, kept, opened; what bit last time, on the deck."""

from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.helpers import press, reads, screen, wait


def test_a_day_typed_in_is_read_back_and_kept(browser: webdriver.Chrome, site: str) -> None:
    browser.get(f"{site}/log")
    reads(browser, "h1", "83 bites in 468 casts on record")
    reads(browser, ".first", "What differs", "What does not, yet", "What to try next")
    # A year is worked out for seconds, and says so.
    browser.execute_script(
        "const a = document.querySelector('[data-slow]'); a.onclick = () => false; a.click()"
    )
    assert browser.find_elements(By.CSS_SELECTOR, "[data-slow][aria-busy=true]")
    press(browser, ".looksfold > summary")
    reads(browser, ".looks", "By temperature", "By head")
    field = browser.find_element(By.ID, "dayline")
    field.send_keys("three fish, Mill bay", Keys.ENTER)
    reads(browser, "#daywrong", "the words of a rig")
    field = browser.find_element(By.ID, "dayline")
    assert field.get_attribute("value") == "three fish, Mill bay"
    field.clear()
    field.send_keys("three fish, swim jig 3/8 craw, Mill bay, morning, 61F", Keys.ENTER)
    reads(browser, ".readback", "Mill bay: 3 fish on 3/8 oz swim jig, craw 4 in; water 61 °F")
    browser.find_element(By.CSS_SELECTOR, "button[value=keep]").click()
    reads(browser, ".dayofstop h2", "Mill bay", "3 bites in 3 casts")
    browser.find_element(By.LINK_TEXT, "All days").click()
    reads(browser, "h1", "86 bites in 471 casts on record")
    # A touch in a day's drawing opens the cast nearest to it; what is corrected leads back to the day.
    browser.get(f"{site}/log/day/2026-04-11")
    browser.find_element(By.CSS_SELECTOR, "svg.depths").click()
    wait(browser, lambda: browser.find_elements(By.CSS_SELECTOR, "svg.depths .chosen"))
    shown = browser.find_element(By.ID, "the-cast").get_attribute("data-shown")
    press(browser, "#the-cast a:last-of-type")
    wait(browser, lambda: browser.find_element(By.ID, "the-cast").get_attribute("data-shown") != shown)
    browser.find_element(By.NAME, "note").send_keys("by the post", Keys.ENTER)
    reads(browser, ".dayofstop", "by the post")


def test_what_bit_last_time_is_taken_on_the_deck(browser: webdriver.Chrome, site: str) -> None:
    screen(browser, 390, 844)
    browser.get(f"{site}/deck")
    browser.find_element(By.CSS_SELECTOR, ".begin").click()
    wait(browser, lambda: browser.find_element(By.ID, "go").is_displayed())
    reads(browser, "#stop", "Mill bay milfoil")
    browser.find_element(By.ID, "rig").click()
    last = next(
        b for b in browser.find_elements(By.CSS_SELECTOR, "#inside button") if b.text == "What bit last time"
    )
    last.click()
    reads(browser, "#inside", "3/8 oz swim jig, craw 4 in", "2026-04-25, Mill bay: 4 bites in 26 casts")
    offered = browser.find_elements(By.XPATH, "//*[@id='inside']//button[contains(., 'Mill bay: 4 bites')]")
    offered[0].click()
    reads(browser, "#rig", "3/8 oz swim jig, craw 4 in")
