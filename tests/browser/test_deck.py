"""The deck on the phone: the loop by one thumb; nothing lost through cuts, kills, reloads, double taps and a
wrong clock."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium import webdriver
from selenium.webdriver.common.by import By

from heathdrop.conditions.made import OUTCOMES
from heathdrop.feeds.simulated import Boat, Sounder
from tests.browser.helpers import press, reads, screen, text, wait
from tests.browser.laptop import Laptop
from tests.browser.test_access import violations
from tests.browser.test_plan import offline

#: The page's clock can be put wrong, and forward past the guard against double taps.
CLOCK = (
    "(() => { const real = Date.now; const even = performance.now.bind(performance);"
    " const off = (key) => parseInt(sessionStorage.getItem(key) || '0', 10);"
    " Date.now = () => real() + off('jump'); performance.now = () => even() + off('even'); })()"
)


@pytest.fixture
def laptop(tmp_path: Path, browser: webdriver.Chrome) -> Iterator[Laptop]:
    laptop = Laptop(tmp_path / "boat.sqlite")
    laptop.start()
    screen(browser, 390, 844)
    hook = browser.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": CLOCK})
    browser.get(laptop.address + "/deck")
    browser.execute_script("localStorage.clear(); sessionStorage.clear()")
    yield laptop
    browser.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", hook)
    browser.get("about:blank")
    laptop.stop()


def begin(browser: webdriver.Chrome, which: int = 1) -> None:
    press(browser, f"form:nth-of-type({which}) .begin")
    wait(browser, lambda: browser.find_elements(By.CSS_SELECTOR, "#go #now"))


def jump(browser: webdriver.Chrome, ms: int = 800, key: str = "even") -> None:
    """Put the page's even clock on; ``jump`` is the one on the wall, which may go back."""
    browser.execute_script(
        "const [by, key] = arguments; const at = parseInt(sessionStorage.getItem(key) || '0', 10);"
        " sessionStorage.setItem(key, String(at + by))",
        ms,
        key,
    )


def tap(browser: webdriver.Chrome, outcome: str, twice: bool = False) -> None:
    """An answer, with a double tap where wanted; the clock goes on past the guard."""
    jump(browser)
    browser.execute_script(
        "const b = document.querySelector(`[data-outcome=${arguments[0]}]`); b.click();"
        " if (arguments[1]) { b.click(); } document.getElementById('panel').close();",
        outcome,
        twice,
    )


def test_the_loop_by_one_thumb(browser: webdriver.Chrome, laptop: Laptop) -> None:
    begin(browser)
    reads(browser, "#stop", "Mill bay milfoil")
    assert browser.execute_script(
        "return [document.documentElement.scrollWidth <= 390, document.documentElement.scrollHeight <= 844]"
    ) == [True, True]
    small = browser.execute_script(
        "return [...document.querySelectorAll('main button')].filter(b => b.checkVisibility())"
        ".map(b => [b.textContent, b.getBoundingClientRect()])"
        ".filter(([, r]) => r.height < 64 || r.width < 64).map(([t]) => t)"
    )
    assert small == []
    screen(browser, 844, 390)  # on its side nothing scrolls either
    assert browser.execute_script("return document.documentElement.scrollHeight") <= 390
    screen(browser, 390, 844)
    planned = text(browser, "#count")
    press(browser, "#go")
    wait(browser, lambda: text(browser, "#what") == "Now" or text(browser, "#what") == "In")
    browser.refresh()  # in the middle of a count
    wait(browser, lambda: text(browser, "#what") == "In")
    assert "reeling" in (browser.find_element(By.ID, "go").get_attribute("class") or "")
    press(browser, "[data-outcome=bump]")
    reads(browser, "#kept", "1 cast, all on the laptop")
    reads(browser, "#why", "a fish took it")
    browser.refresh()
    reads(browser, "#kept", "1 cast, all on the laptop")  # said again by a page that was loaded again
    assert text(browser, "#count") == planned
    jump(browser)
    press(browser, "[data-outcome=ran-high]")
    reads(browser, "#why", "It ran too high. Smallest change: ")
    reads(browser, "#last li", "Ran high")
    jump(browser)
    press(browser, "#undo")
    reads(browser, "#kept", "1 cast, all")
    reads(browser, "#last li", "Bump")
    jump(browser)
    press(browser, "[data-outcome=fish]")
    press(browser, "[aria-label='Length more']")
    browser.find_element(By.CSS_SELECTOR, "[aria-label='Weight, lb']").send_keys("5 lb 3 oz")
    press(browser, "#inside > button")
    wait(browser, lambda: any(c.get("fish") for c in laptop.casts()))
    bump, fish = laptop.casts()
    assert (bump["outcome"], fish["outcome"]) == ("bump", "fish")
    assert bump["at_s"] > 0
    assert fish["fish"] == {"length_in": 14.5, "weight_lb": 5.19}
    assert fish["trip"].endswith("A day on Ashmoor Water")
    assert bump["conditions"]["bottom_depth_ft"] == 9.0


def test_stop_rig_and_water_in_two_taps(browser: webdriver.Chrome, laptop: Laptop) -> None:
    begin(browser)
    press(browser, "#after")
    reads(browser, "#stop", "2 of 6")
    for nth, ends in ((6, [False, True]), (5, [False, False]), (1, [True, False])):
        press(browser, "#stop")
        press(browser, f"#inside > button:nth-child({nth})")
        reads(browser, "#stop", f"{nth} of 6")
        shut = "return ['before', 'after'].map(id => document.getElementById(id).disabled)"
        assert browser.execute_script(shut) == ends
    press(browser, "#rig")
    press(browser, "#inside > button:nth-child(1)")
    wait(browser, lambda: text(browser, "#rig").startswith("Rod A"))
    press(browser, "#rig")
    browser.find_element(By.CSS_SELECTOR, ".typedrig input").send_keys("toad")
    press(browser, ".typedrig button")
    reads(browser, "#inside [role=alert]", "needs a weight")
    field = browser.find_element(By.CSS_SELECTOR, ".typedrig input")
    field.clear()
    field.send_keys("1/4 underspin, paddle-tail 3 in")
    press(browser, ".typedrig button")
    wait(browser, lambda: browser.find_elements(By.XPATH, "//button[contains(., 'tie it on')]"))
    press(browser, "//button[contains(., 'tie it on')]", By.XPATH)
    wait(browser, lambda: text(browser, "#rig").startswith("1/4 oz underspin"))
    press(browser, "#water")
    press(browser, "[aria-label='Water less']")
    reads(browser, "#inside", "typed here", "60 °F")
    press(browser, "[aria-label='Water more']")
    reads(browser, "#inside", "61 °F")
    press(browser, "[aria-label='Water less']")
    reads(browser, "#inside", "60 °F")
    press(browser, "[aria-label='Bottom less']")
    reads(browser, "#inside", "8 ft")
    press(browser, "#close")
    press(browser, "[data-outcome=nothing]")
    wait(browser, lambda: len(laptop.casts()) == 1)
    cast = laptop.casts()[0]
    assert (cast["family"], cast["head_oz"]) == ("underspin", 0.25)
    assert (cast["conditions"]["water_temp_f"], cast["conditions"]["bottom_depth_ft"]) == (60.0, 8.0)
    press(browser, "#more")
    wait(browser, lambda: any(w in text(browser, "#inside") for w in ("Hooks", "Lead")))
    assert violations(browser) == []
    press(browser, "#inside a")
    reads(browser, "h1", "1 cast")
    browser.get(laptop.address + "/deck")
    press(browser, "#more")
    ending = browser.find_element(By.XPATH, "//button[contains(., 'End the trip')]")
    ending.click()
    wait(browser, lambda: "Tap again" in ending.text)
    ending.click()
    reads(browser, ".dayofstop h2", "1 cast")  # the day at a glance


def test_a_rod_that_is_picked_is_the_one_on_record(browser: webdriver.Chrome, laptop: Laptop) -> None:
    """Right after a fish on another rod, and with no line to the laptop at all."""
    begin(browser)
    wait(browser, lambda: text(browser, "#rig").startswith("Rod A"))
    press(browser, "[data-outcome=bump]")
    press(browser, "#rig")
    press(browser, "#inside > button:nth-child(2)")
    wait(browser, lambda: text(browser, "#rig").startswith("Rod B"))
    reads(browser, "#kept", "1 cast, all on the laptop")
    assert text(browser, "#rig").startswith("Rod B")
    offline(browser, True)
    for letter, child in (("C", 3), ("B", 2)):
        press(browser, "#rig")
        press(browser, f"#inside > button:nth-child({child})")
        wait(browser, lambda letter=letter: text(browser, "#rig").startswith(f"Rod {letter}"))  # type: ignore[misc]
        jump(browser)
        press(browser, "[data-outcome=nothing]")
        wait(browser, lambda letter=letter: text(browser, "#rig").startswith(f"Rod {letter}"))  # type: ignore[misc]
    offline(browser, False)
    browser.execute_script("window.dispatchEvent(new Event('online'))")
    wait(browser, lambda: len(laptop.casts()) == 3)
    rods = browser.execute_script(
        "return JSON.parse(document.getElementById('deck').textContent).rods"
        ".map(r => r.rig.split(':').slice(0, 3).join(':'))"
    )
    thrown = [f"{c['family']}:{c['head_oz']:g}:{c['trailer']}" for c in laptop.casts()]
    assert thrown == [rods[0], rods[2], rods[1]]


def test_it_installs_to_the_home_screen(browser: webdriver.Chrome, laptop: Laptop) -> None:
    browser.get(laptop.address + "/deck")
    found = browser.execute_cdp_cmd("Page.getAppManifest", {})
    assert found["errors"] == []
    assert '"start_url": "/deck"' in found["data"]
    assert browser.execute_cdp_cmd("Page.getInstallabilityErrors", {})["installabilityErrors"] == []


@pytest.mark.parametrize("width", [390, 1280])
def test_axe_finds_nothing_on_deck(browser: webdriver.Chrome, laptop: Laptop, width: int) -> None:
    begin(browser, 2)
    screen(browser, width, 844)
    assert violations(browser) == []
    browser.execute_script("document.documentElement.classList.add('sun')")
    assert violations(browser) == []
    for button in ("#rig", "#water", "#stop"):
        press(browser, button)
        assert violations(browser) == []
        press(browser, "#close")


def test_a_reload_without_the_laptop_brings_the_page_back(browser: webdriver.Chrome, laptop: Laptop) -> None:
    begin(browser)
    names = "return caches.open('heathdrop-deck').then(c => c.keys()).then(k => k.length)"
    wait(browser, lambda: browser.execute_script(names) > 8)
    tap(browser, "bump")
    reads(browser, "#kept", "1 cast, all on the laptop")
    laptop.kill()
    tap(browser, "ran-high")
    reads(browser, "#kept", "1 kept on this phone")
    browser.refresh()
    reads(browser, "#kept", "1 kept on this phone")
    assert text(browser, "#what") == "Splash"
    jump(browser)
    tap(browser, "nothing")
    reads(browser, "#kept", "2 kept on this phone")
    laptop.start()
    browser.execute_script("window.dispatchEvent(new Event('online'))")
    reads(browser, "#kept", "all on the laptop")
    assert [c["outcome"] for c in laptop.casts()] == ["bump", "ran-high", "nothing"]


@pytest.mark.long
def test_two_hundred_records_through_twenty_cuts_and_kills(browser: webdriver.Chrome, laptop: Laptop) -> None:
    """Ten casts around each cut: in flight, while the line is dead, after it; double taps, reloads in the
    midst of sending, the phone's clock three hours off and back. All are there once, in order."""
    begin(browser)
    plain = [o for o in OUTCOMES if o not in ("ticked-top", "found-bottom")]
    wanted: list[str] = []

    def ten(first: int, last: int) -> None:
        for k in range(first, last):
            wanted.append(plain[len(wanted) % len(plain)])
            tap(browser, wanted[-1], twice=k % 2 == 0)

    for cut in range(20):
        ten(0, 3)
        killed = cut % 3 == 0
        if killed:
            laptop.kill()
        else:
            offline(browser, True)
        ten(3, 7)
        reads(browser, "#kept", "kept on this phone")
        if cut == 5:
            jump(browser, 3 * 3600 * 1000, "jump")
        if cut == 11:
            jump(browser, -6 * 3600 * 1000, "jump")
        if killed:
            laptop.start()
        else:
            offline(browser, False)
        if cut % 4 == 1:
            browser.refresh()
        ten(7, 10)
    browser.execute_script("window.dispatchEvent(new Event('online'))")
    reads(browser, "#kept", "all on the laptop", "200 casts")
    kept = laptop.casts()
    assert len(kept) == 200
    assert len({c["id"] for c in kept}) == 200
    assert [c["outcome"] for c in kept] == wanted
    assert (
        browser.execute_script(
            "return Object.keys(localStorage).filter(k => k.startsWith('heathdrop-out-0')).length"
        )
        == 0
    )


def test_the_sounder_fills_what_was_not_typed(browser: webdriver.Chrome, tmp_path: Path) -> None:
    sounder = Sounder(Boat(seed=3), 0)
    sounder.start()
    laptop = Laptop(tmp_path / "boat.sqlite", f"tcp://127.0.0.1:{sounder.port}")
    laptop.start()
    try:
        screen(browser, 390, 844)
        browser.get(laptop.address + "/deck")
        browser.execute_script("localStorage.clear(); sessionStorage.clear()")
        begin(browser)
        wait(browser, lambda: "Depth" in text(browser, "#sounder") and "live" in text(browser, "#sounder"))
        press(browser, "#water")
        reads(browser, "#inside", "from the sounder")
        press(browser, "#close")
        press(browser, "[data-outcome=nothing]")
        wait(browser, lambda: len(laptop.casts()) == 1)
        cast = laptop.casts()[0]
        assert cast["lat"] == pytest.approx(50.10, abs=0.01)
        assert cast["conditions"]["wind_mph"] == pytest.approx(8, abs=3)
        screen(browser, 1280, 800)
        browser.get(laptop.address + "/")
        wait(browser, lambda: browser.find_elements(By.CSS_SELECTOR, "[data-fill=water_temp_f].live"))
        press(browser, "[data-fill=water_temp_f]")
        reads(browser, "#field-water_temp_f", "from the sounder")
        taken = browser.find_element(By.ID, "water_temp_f").get_attribute("value")
        assert taken in ("60", "61")  # the boat is under way
        wait(browser, lambda: f"water_temp_f={taken}" in browser.current_url)
        press(browser, "[data-to=water_temp_f][aria-label$=up]")
        wait(browser, lambda: "from the sounder" not in text(browser, "#field-water_temp_f"))
        screen(browser, 390, 844)
        browser.get(laptop.address + "/deck")
        sounder.stop()
        wait(browser, lambda: "stale" in text(browser, "#sounder") or "lost" in text(browser, "#sounder"))
    finally:
        browser.get("about:blank")
        sounder.stop()
        laptop.stop()
