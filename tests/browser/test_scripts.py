"""Scripts part by part: clock, timers, tones and the line to the laptop are the test's."""

import json
import re
import shutil
import subprocess
from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium import webdriver

from tests.browser.helpers import fresh, screen
from tests.browser.laptop import Laptop
from tests.browser.test_deck import begin

HERE = Path(__file__).parent
LAB, DECK, SHEET = (
    (HERE / name).read_text("utf-8") for name in ("lab.js", "deck_cases.js", "sheet_cases.js")
)
#: Each case and, of the sheet's, the address that it begins at.
DECKS, SHEETS = (re.findall(r'^  "(.+?)": \{(?: at: "(.+?)")?', text, re.M) for text in (DECK, SHEET))


@pytest.fixture(scope="module")
def deck(browser: webdriver.Chrome, tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """The address of a deck on which a trip is under way."""
    laptop = Laptop(tmp_path_factory.mktemp("lab") / "boat.sqlite")
    laptop.start()
    fresh(browser)
    browser.get(laptop.address + "/deck")
    begin(browser, 2)
    yield laptop.address + "/deck"
    browser.get("about:blank")
    laptop.stop()


def played(browser: webdriver.Chrome, address: str, name: str, cases: str) -> None:
    """Open the address with the case's clock and line, and let the case run."""
    named = f"window.lab = {{ name: {json.dumps(name)} }};"
    given = f"if (location.protocol === 'http:') {{ {named}\n{cases}\n{LAB} }}"
    hook = browser.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": given})
    try:
        browser.get(address)
        said = browser.execute_async_script(
            "const done = arguments[0];window.lab.run().then(() => done(null), (e) => done(String(e.stack)));"
        )
        assert said is None, said
    finally:
        browser.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", hook)
        browser.get("about:blank")


@pytest.mark.parametrize("name", [name for name, _ in DECKS])
def test_deck(browser: webdriver.Chrome, deck: str, name: str) -> None:
    assert len(DECKS) >= 30
    screen(browser, 390, 844)
    played(browser, deck, name, DECK)


@pytest.mark.parametrize(("name", "at"), SHEETS, ids=[name for name, _ in SHEETS])
def test_sheet(browser: webdriver.Chrome, site: str, name: str, at: str) -> None:
    assert len(SHEETS) >= 5
    played(browser, site + at, name, SHEET)


@pytest.mark.skipif(shutil.which("node") is None, reason="needs Node")
def test_the_outbox_strikes_nothing_off_for_a_stranger(tmp_path: Path) -> None:
    """Against a server that is not the laptop: portals, redirects, refusals of its own, half answers."""
    web = Path(__file__).parents[2] / "src" / "heathdrop" / "web"
    for wing, name in (("deck", "outbox.js"), ("shell", "dom.js"), ("shell", "clock.js")):
        (tmp_path / wing).mkdir(exist_ok=True)
        shutil.copy(web / wing / "static" / name, tmp_path / wing / name)
    (tmp_path / "package.json").write_text('{"type": "module"}')
    script = Path(__file__).with_name("outbox_node.mjs")
    command = ["node", str(script), str(tmp_path / "deck" / "outbox.js")]
    done = subprocess.run(command, capture_output=True, text=True, timeout=60, check=False)
    assert done.stdout.strip() == "held", done.stderr[-1500:]
