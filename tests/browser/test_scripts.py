"""Scripts part by part: clock, timers, tones and the line to the laptop are the test's."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium import webdriver

from tests.browser.helpers import screen
from tests.browser.laptop import Laptop
from tests.browser.test_deck import begin

HERE = Path(__file__).parent
LAB, DECK = ((HERE / name).read_text("utf-8") for name in ("lab.js", "deck_cases.js"))
NAMES = re.findall(r'^  "(.+?)": ', DECK, re.M)


@pytest.fixture(scope="module")
def deck(browser: webdriver.Chrome, tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """The address of a deck on which a trip is under way."""
    laptop = Laptop(tmp_path_factory.mktemp("lab") / "boat.sqlite")
    laptop.start()
    browser.get(laptop.address + "/deck")
    begin(browser, 2)
    yield laptop.address + "/deck"
    browser.get("about:blank")
    laptop.stop()


@pytest.mark.parametrize("name", NAMES)
def test_deck(browser: webdriver.Chrome, deck: str, name: str) -> None:
    assert len(NAMES) >= 30
    screen(browser, 390, 844)
    named = f"window.lab = {{ name: {json.dumps(name)} }};"
    given = f"if (location.pathname === '/deck') {{ {named}\n{DECK}\n{LAB} }}"
    hook = browser.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": given})
    try:
        browser.get(deck)
        said = browser.execute_async_script(
            "const done = arguments[0];window.lab.run().then(() => done(null), (e) => done(String(e.stack)));"
        )
        assert said is None
    finally:
        browser.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", hook)
        browser.get("about:blank")
