"""axe-core over every state that matters, in light, dark, Sun and on the phone; text size; forced colours."""

from pathlib import Path
from typing import Any

import pytest
from selenium import webdriver
from selenium.webdriver.common.by import By

from tests.browser.helpers import press, reads, screen, wait

AXE = (Path(__file__).parent.parent / "vendor" / "axe-4.10.3.min.js").read_text()
STATES = (
    "/",
    "/?view=water",
    "/?view=rig&wrong=ran-high",
    "/?view=rig&family=punch-rig&cover=matted-grass",
    "/?view=cast&way=hop",
    "/?view=size&family=flipping-jig&cover=matted-grass",
    "/?fish_depth_ft=20",
    "/card",
    "/plan",
    "/?view=search&fish_depth_ft=%3F",
    "/box",
    "/drops",
    "/data",
    "/log",
    "/log/day/2026-04-11",
    "/log/taught",
    "/log/year/2026",
    "/train",
    "/train/eye?topic=nylon&seed=4",
    "/train/call?topic=wood&seed=1",
    "/nowhere",
)
LOOKS = ("light", "dark", "sun")
#: The rules that hang on colours, in which the looks differ; the others are asked once a page.
COLOURS = ("color-contrast", "link-in-text-block")


def look(browser: webdriver.Chrome, name: str) -> None:
    wanted = [{"name": "prefers-color-scheme", "value": "dark" if name == "dark" else "light"}]
    browser.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": wanted})
    if name == "sun":
        browser.execute_script("document.documentElement.classList.add('sun')")


def violations(browser: webdriver.Chrome, rules: tuple[str, ...] = ()) -> list[Any]:
    """What axe finds by all its rules, or by these."""
    if not browser.execute_script("return 'axe' in window"):
        browser.execute_script(AXE)
    return browser.execute_async_script(
        "const [rules, done] = arguments; const only = rules.length ? {runOnly: rules} : {};"
        "axe.run(document, {resultTypes: ['violations'], ...only}).then(r => done(r.violations.map("
        "v => [v.id, v.nodes.map(n => n.html.slice(0, 160))])))",
        rules,
    )


#: Everything that a phone folds, opened.
UNFOLD = (
    "document.querySelectorAll('details[data-roomy]').forEach(part => { part.open = true; });"
    "document.querySelectorAll('[data-short]').forEach(list => list.classList.add('unfolded'))"
)


@pytest.mark.long
@pytest.mark.parametrize("half", [0, 1])
@pytest.mark.parametrize("width", [1280, 390])
def test_axe_finds_nothing(browser: webdriver.Chrome, site: str, width: int, half: int) -> None:
    """Twenty states, three looks, two widths: 120 in all."""
    screen(browser, width, 844)
    found = {}
    try:
        for state in STATES[half::2]:
            browser.get(site + state)
            for name in LOOKS:
                look(browser, name)
                if wrong := violations(browser, () if name == "light" else COLOURS):
                    found[state, name] = wrong
    finally:
        browser.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": []})
    assert found == {}


def test_every_page_is_narrow_enough_and_big_enough_for_a_thumb(browser: webdriver.Chrome, site: str) -> None:
    """320 px without a sideways scroll; at 390 px nothing to press is lower than 44 px, no text below 14, no
    lettering of a drawing below 11 as it stands there."""
    for state in STATES:
        screen(browser, 320, 700)
        browser.get(site + state)
        assert browser.execute_script("return document.documentElement.scrollWidth") <= 320, state
        screen(browser, 390, 844)
        browser.execute_script(UNFOLD)
        low = browser.execute_script(
            "return [...document.querySelectorAll('a, button, summary, select, input:not([type=hidden])"
            ":not([type=radio]):not([type=checkbox]), textarea, .cell, .views label')]"
            ".filter(e => e.checkVisibility({visibilityProperty: true}) && !e.closest('.skip'))"
            ".map(e => [e.getBoundingClientRect(), e])"
            ".filter(([r]) => r.width > 0 && r.height < 43.5)"
            ".map(([r, e]) => e.tagName + '.' + e.className + ' ' + e.textContent.trim().slice(0, 20) + ' '"
            " + r.height)"
        )
        assert low == [], state
        tiny = browser.execute_script(
            "return [...document.querySelectorAll('main *')].filter(e => [...e.childNodes].some(n => "
            "n.nodeType === 3 && n.textContent.trim()) && e.checkVisibility() && !e.closest('svg')"
            " && !e.closest('.visually-hidden') && parseFloat(getComputedStyle(e).fontSize) < 13.9"
            " && parseFloat(getComputedStyle(e).fontSize) > 0)"
            ".map(e => e.tagName + '.' + e.className + ' ' + e.textContent.trim().slice(0, 20))"
        )
        assert tiny == [], state
        lettered = browser.execute_script(
            "return [...document.querySelectorAll('svg text')].filter(e => e.checkVisibility())"
            ".map(e => [parseFloat(getComputedStyle(e).fontSize) * Math.hypot(e.getScreenCTM().a,"
            " e.getScreenCTM().b), e.textContent.trim()]).filter(([px, t]) => t && px < 11)"
        )
        assert lettered == [], state


def test_text_at_twice_its_size_is_not_cut(browser: webdriver.Chrome, site: str) -> None:
    browser.get(site)
    browser.execute_script("document.documentElement.style.fontSize = '32px'")
    cut = browser.execute_script(
        "return [...document.querySelectorAll('#state input.num, #state select, .cell')]"
        ".filter(e => e.offsetParent && e.scrollHeight > e.clientHeight + 2).map(e => e.id || e.className)"
    )
    assert cut == []


def test_the_answer_stays_in_sight_on_the_phone(browser: webdriver.Chrome, site: str) -> None:
    screen(browser, 390, 844)
    browser.get(site + "/?water_temp_f=58&bottom_depth_ft=9&fish_depth_ft=6&cover=submerged-grass")
    assert not browser.find_element(By.ID, "slim").is_displayed()
    browser.execute_script("window.scrollTo(0, 700)")
    wait(browser, lambda: browser.find_element(By.ID, "slim").is_displayed())
    reads(browser, "#slim", "1/2 oz bladed jig")
    tops = [
        browser.execute_script(f"return document.querySelector('{css}').getBoundingClientRect().top")
        for css in ("#fold-water", "#board")
    ]
    assert tops[0] < tops[1]


def test_one_live_region_says_the_answer(browser: webdriver.Chrome, site: str) -> None:
    browser.get(site)
    browser.execute_script("window.spoken = document.getElementById('spoken')")
    before = browser.execute_script("return window.spoken.textContent")
    press(browser, "[data-to=fish_depth_ft][data-step^='-']")
    wait(browser, lambda: browser.execute_script("return window.spoken.textContent") != before)
    assert browser.execute_script("return window.spoken === document.getElementById('spoken')")
    assert "turns in 20 s" in browser.execute_script("return window.spoken.textContent")
