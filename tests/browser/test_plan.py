"""The evening's plan in the browser, and the deck card from a phone's files with no network."""

import json
from pathlib import Path
from typing import Any

import pytest
from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from heathdrop.api.planning import plan_answer
from heathdrop.conditions.plan import PlanRequest
from heathdrop.demo import ashmoor
from heathdrop.web.plan.deckcard import deck_card
from tests.browser.helpers import press, reads, screen, text, wait


def test_a_plan_is_worked_out_changed_and_carried(browser: webdriver.Chrome, site: str) -> None:
    browser.get(site + "/plan")
    wait(browser, lambda: browser.find_elements(By.CSS_SELECTOR, ".planboard"))
    assert len(browser.find_elements(By.CSS_SELECTOR, ".planboard tbody tr")) == 6
    assert len(browser.find_elements(By.CSS_SELECTOR, ".planboard .best")) == 6
    reads(browser, ".stopcard summary", "Rod")
    browser.execute_script("document.body.dataset.stays = 'yes'")  # gone when the page is left
    entries = browser.execute_script("return history.length")
    press(browser, "#fold-stop-3 summary")
    press(browser, "[aria-label='Matted pocket earlier']")
    reads(browser, ".planboard tbody tr:nth-child(2)", "Matted pocket")
    press(browser, "#fold-stop-4 summary")
    press(browser, "[aria-label='Delete Mill pond pads']")
    wait(browser, lambda: len(browser.find_elements(By.CSS_SELECTOR, ".planboard tbody tr")) == 5)
    # A saved water by a part of its name; a grip by its arrow key.
    browser.find_element(By.ID, "add-which").send_keys("causeway", Keys.ENTER)
    wait(browser, lambda: len(browser.find_elements(By.CSS_SELECTOR, ".planboard tbody tr")) == 6)
    grip = browser.find_element(By.CSS_SELECTOR, ".stops li:nth-child(2) .grip")
    grip.send_keys(Keys.ARROW_DOWN)
    reads(browser, ".planboard tbody tr:nth-child(3)", "Matted pocket")
    for text_, said in (("no", "Rods to tie on must be a number from 1 to 12, not “no”."), ("3", "")):
        rods = browser.find_element(By.NAME, "rods")
        rods.clear()
        rods.send_keys(text_, Keys.ENTER)
        if said:
            reads(browser, "#plan-refusal", said)
            assert browser.find_element(By.NAME, "rods").get_attribute("value") == text_
    wait(browser, lambda: len(browser.find_elements(By.CSS_SELECTOR, ".planboard thead th")) == 4)
    assert browser.switch_to.active_element.get_attribute("name") == "rods"
    assert browser.execute_script("return document.body.dataset.stays") == "yes"
    assert browser.execute_script("return history.length") == entries  # one step Back leaves the plan
    press(browser, ".planboard .best")
    wait(browser, lambda: browser.find_elements(By.CSS_SELECTOR, ".strip"))


@pytest.fixture(scope="module")
def card(tmp_path_factory: pytest.TempPathFactory) -> str:
    day = {**ashmoor.day(), "box": "standard"}
    made = deck_card(plan_answer(PlanRequest.model_validate(day)))
    file = tmp_path_factory.mktemp("phone") / "deck-card.html"
    file.write_text(made, "utf-8")
    assert file.stat().st_size < 300_000
    return file.as_uri()


def offline(browser: webdriver.Chrome, off: bool) -> None:
    browser.execute_cdp_cmd("Network.enable", {})
    still = {"offline": off, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}
    browser.execute_cdp_cmd("Network.emulateNetworkConditions", still)


def tap(browser: webdriver.Chrome, css: str) -> None:
    """Press, well after the press before: the card takes a double tap for one."""
    browser.execute_script(
        "window.even ??= performance.now.bind(performance); window.off = (window.off ?? 0) + 800;"
        " performance.now = () => window.even() + window.off"
    )
    press(browser, css)


def kept(browser: webdriver.Chrome) -> list[Any]:
    found: list[Any] = browser.execute_script(
        "return JSON.parse(localStorage.getItem(Object.keys(localStorage).find("
        "k => /^heathdrop-deck-[0-9a-f]{12}$/.test(k)))).casts"
    )
    return found


def test_the_deck_card_counts_and_keeps_with_no_network(
    browser: webdriver.Chrome, card: str, tmp_path: Path
) -> None:
    """Counted, answered, reloaded in the middle of a count, closed and opened again: nothing is lost."""
    screen(browser, 390, 844)
    browser.get("about:blank")
    offline(browser, True)
    browser.execute_cdp_cmd(
        "Browser.setDownloadBehavior", {"behavior": "allow", "downloadPath": str(tmp_path)}
    )
    try:
        browser.get(card)
        browser.execute_script("localStorage.clear()")
        browser.get(card)
        reads(browser, "#stop", "Mill bay milfoil")
        assert browser.execute_script("return document.documentElement.scrollWidth") <= 390
        low = browser.execute_script(
            "return [...document.querySelectorAll('button')].filter(b => b.offsetParent &&"
            " b.getBoundingClientRect().height < 63.5).map(b => b.textContent)"
        )
        assert low == []
        answers = browser.find_element(By.ID, "answers")
        assert answers.rect["y"] + answers.rect["height"] < 844  # the main loop needs no scrolling
        press(browser, "#go")
        wait(browser, lambda: text(browser, "#what") == "Now" or text(browser, "#what") == "In")
        browser.refresh()
        wait(browser, lambda: text(browser, "#what") == "In")
        tap(browser, "[data-outcome=nothing]")
        before = text(browser, "#count")
        tap(browser, "[data-outcome=fish]")
        assert text(browser, "#count") == before  # what bit is thrown again
        assert [c["outcome"] for c in kept(browser)] == ["nothing", "fish"]
        tap(browser, "[data-outcome=hung]")
        tap(browser, "#undo")
        press(browser, "#after")
        reads(browser, "#stop", "2 of 6")
        tap(browser, "[data-outcome=bump]")
        browser.get("about:blank")
        browser.get(card)
        reads(browser, "#stop", "2 of 6")
        casts = kept(browser)
        assert [c["outcome"] for c in casts] == ["nothing", "fish", "bump"]
        assert len({c["id"] for c in casts}) == 3
        assert casts[0]["at_s"] is not None
        assert casts[0]["time"][23] in "+-"
        press(browser, "#save")
        wait(browser, (tmp_path / "deck-record.json").exists)
        record = json.loads((tmp_path / "deck-record.json").read_text())
        assert record["version"] == 1
        assert record["casts"] == casts
        assert set(record["casts"][0]) >= {
            "id",
            "time",
            "stop",
            "family",
            "countdown_s",
            "pace_ft_s",
            "outcome",
        }
    finally:
        offline(browser, False)
