"""What people lost trust over, each as they did it: promises kept, water kept, words in their own terms."""

import base64
import re
import threading
import zlib
from pathlib import Path

import httpx2
import pytest
import uvicorn
from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from heathdrop.web.app import create_app
from tests.browser.helpers import press, read, reads, text, wait

FOUR = "water_temp_f=58&bottom_depth_ft=9&fish_depth_ft=6&cover=submerged-grass"


def typed(browser: webdriver.Chrome, name: str, value: str) -> None:
    field = browser.find_element(By.ID, name)
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys(value)


def value(browser: webdriver.Chrome, name: str) -> str:
    return read(browser, f"#{name}", "value")


def test_try_it_keeps_its_promise(browser: webdriver.Chrome, site: str) -> None:
    browser.get(f"{site}/?view=rig&wrong=ran-high&{FOUR}")
    tries = [li for li in browser.find_elements(By.CSS_SELECTOR, ".changes li") if "try it" in li.text]
    assert tries
    promised = []
    for li in tries:
        found = re.search(r"brings it to ([\d.]+) ft", li.text)
        if found is None and "another lure" in li.text:
            continue
        assert found, li.text
        promised.append((li.find_element(By.TAG_NAME, "a").get_attribute("href"), float(found[1])))
    for at, depth in promised:
        browser.get(at)
        said = re.search(r"Runs at\s+([\d.]+) ft", text(browser, ".figures"))
        assert said, at
        assert abs(float(said[1]) - depth) <= 0.15, at
        reads(browser, ".what", "bladed jig")


def test_each_tab_goes_back_to_its_own_water(browser: webdriver.Chrome, site: str) -> None:
    """From the box to the sheet, and from the sheet to a plan, while another tab showed another water."""
    first = browser.current_window_handle
    browser.get(site + "/?water_temp_f=51&bottom_depth_ft=14&fish_depth_ft=12")
    wait(browser, lambda: browser.find_elements(By.CSS_SELECTOR, ".strip"))
    browser.switch_to.new_window("tab")
    try:
        browser.get(site + "/?water_temp_f=77")
        wait(browser, lambda: browser.find_elements(By.CSS_SELECTOR, ".strip"))
    finally:
        browser.close()
        browser.switch_to.window(first)
    browser.get(site + "/box")
    box = browser.find_element(By.CSS_SELECTOR, ".pages [data-sheet]")
    wait(browser, lambda: "water_temp_f=51" in box.get_attribute("href"))
    cookie = browser.get_cookie("heathdrop-water")
    assert cookie is not None
    assert "water_temp_f=51" in cookie["value"]
    press(browser, ".pages [data-sheet]")
    wait(browser, lambda: browser.find_element(By.NAME, "water_temp_f").get_attribute("value") == "51")
    assert browser.find_element(By.NAME, "bottom_depth_ft").get_attribute("value") == "14"


def test_without_scripts_save_keeps_what_is_typed(browser: webdriver.Chrome, site: str) -> None:
    browser.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": True})
    try:
        browser.get(f"{site}/?{FOUR}")
        typed(browser, "water_temp_f", "81")
        browser.find_element(By.ID, "plain-name").send_keys("By hand")
        browser.find_element(By.CSS_SELECTOR, "noscript [formaction='/scenarios']").send_keys(Keys.ENTER)
        assert browser.find_element(By.ID, "water_temp_f").get_attribute("value") == "81"
        assert browser.find_element(By.ID, "opened").text == "By hand"
        assert "token" not in browser.current_url
    finally:
        browser.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": False})


def test_an_open_scenario_is_named_and_never_overwritten_in_silence(
    browser: webdriver.Chrome, site: str
) -> None:
    browser.get(f"{site}/?{FOUR}")
    press(browser, "#shelf summary")
    browser.find_element(By.ID, "save-name").send_keys("Peat inlet", Keys.ENTER)
    reads(browser, "#saved", "Saved “Peat inlet”")
    wait(browser, lambda: text(browser, "#opened") == "Peat inlet")  # saved is open: no second step
    wait(browser, lambda: browser.title.startswith("Peat inlet: "))
    typed(browser, "water_temp_f", "49")
    reads(browser, "#opened", "changed since it was saved")
    browser.find_element(By.ID, "save-name").send_keys(Keys.ENTER)  # the name still stands there
    reads(browser, "#saved", "named “Peat inlet” already")
    press(browser, "//button[text()='Replace it']", By.XPATH)
    reads(browser, "#saved", "Saved “Peat inlet”")
    press(browser, "Peat inlet", By.PARTIAL_LINK_TEXT)
    wait(browser, lambda: value(browser, "water_temp_f") == "49")


def test_what_is_typed_goes_with_a_link(browser: webdriver.Chrome, site: str) -> None:
    browser.get(f"{site}/?view=water&{FOUR}")
    typed(browser, "fish_depth_ft", "3")
    browser.execute_script("document.querySelector('.moods a:not(.chosen)').click()")
    wait(browser, lambda: "activity=" in browser.current_url)
    wait(browser, lambda: value(browser, "fish_depth_ft") == "3")
    wait(browser, lambda: "fish_depth_ft=3" in browser.current_url)
    typed(browser, "fish_depth_ft", "20")
    reads(browser, "#err-fish_depth_ft", "is deeper than the bottom")
    browser.execute_script("document.querySelector('.moods a:not(.chosen)').click()")
    reads(browser, "#err-fish_depth_ft", "is deeper than the bottom")
    wait(browser, lambda: value(browser, "fish_depth_ft") == "20")


def test_the_first_minute_asks_four_things_and_refuses_none(browser: webdriver.Chrome, site: str) -> None:
    """In any order, with the defaults for company: fish and grass tops follow the bottom up and down."""
    browser.get(site + "/")
    assert text(browser, "#ask") == "Four answers make it yours. First: water"
    reads(browser, ".verdict", "An example")
    assert len(browser.find_elements(By.CSS_SELECTOR, "#field-test_lb.assumed")) == 1
    typed(browser, "bottom_depth_ft", "4")
    wait(browser, lambda: "bottom_depth_ft=4" in browser.current_url)
    wait(browser, lambda: (value(browser, "fish_depth_ft"), value(browser, "top_depth_ft")) == ("4", "4"))
    assert text(browser, "#halt") == ""
    typed(browser, "bottom_depth_ft", "18")
    wait(browser, lambda: "bottom_depth_ft=18" in browser.current_url)
    wait(browser, lambda: (value(browser, "fish_depth_ft"), value(browser, "top_depth_ft")) == ("6", "7"))
    press(browser, "#assumes")
    reads(browser, "#assumes", "hide")
    press(browser, "[data-confirm=water_temp_f]")
    press(browser, "[data-confirm=fish_depth_ft]")
    reads(browser, "#ask", "next: cover")
    press(browser, "[data-confirm=cover]")
    reads(browser, ".verdict", "Called for this water")
    wait(browser, lambda: text(browser, "#ask") == "")
    wait(browser, lambda: "cover=submerged-grass" in browser.current_url)


def test_a_server_that_stops_is_said_and_asked_again(browser: webdriver.Chrome, tmp_path: Path) -> None:
    app = create_app(tmp_path / "lake.sqlite", demo=True)

    def served(port: int) -> tuple[uvicorn.Server, threading.Thread]:
        # What a page is still being given, its icon say, is given to the end.
        graceful = uvicorn.Config(app, port=port, log_level="warning", timeout_graceful_shutdown=20)
        server = uvicorn.Server(graceful)
        thread = threading.Thread(target=server.run, daemon=True)
        thread.start()
        wait(browser, lambda: server.started)
        return server, thread

    server, thread = served(0)
    port = server.servers[0].sockets[0].getsockname()[1]
    browser.get(f"http://127.0.0.1:{port}/?{FOUR}")
    server.should_exit = True
    thread.join(30)
    typed(browser, "fish_depth_ft", "4")
    reads(browser, "#lost", "does not answer")
    assert "stale" in (browser.find_element(By.ID, "answer").get_attribute("class") or "")
    press(browser, "#shelf summary")
    browser.find_element(By.ID, "save-name").send_keys("Lost", Keys.ENTER)
    reads(browser, "#lost", "was not kept")
    server, thread = served(port)
    try:
        wait(browser, lambda: text(browser, "#lost") == "")
        reads(browser, "svg.wide", "target 2–4 ft")
        assert "stale" not in (browser.find_element(By.ID, "answer").get_attribute("class") or "")
    finally:
        browser.get("about:blank")
        server.should_exit = True
        thread.join(10)
        app.state.database.close()


def test_the_card_is_one_page_with_all_on_it(browser: webdriver.Chrome, site: str) -> None:
    browser.get(f"{site}/?{FOUR}")
    press(browser, "print", By.LINK_TEXT)
    page = text(browser, ".printed")
    for part in (
        "58 °F",
        "9 ft",
        "submerged grass",
        "29 in/turn",
        "Countdown",
        "It ran too high",
        "Take care",
    ):
        assert part in page
    printed = browser.execute_cdp_cmd("Page.printToPDF", {"paperWidth": 8.27, "paperHeight": 11.69})
    assert len(re.findall(rb"/Type\s*/Page[^s]", base64.b64decode(printed["data"]))) == 1
    browser.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": "print"})
    try:
        shown = [e for e in browser.find_elements(By.CSS_SELECTOR, "button, a, nav") if e.is_displayed()]
        assert shown == []
    finally:
        browser.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": ""})


def test_the_board_is_one_stop_and_arrows_move_as_they_point(browser: webdriver.Chrome, site: str) -> None:
    browser.get(f"{site}/?{FOUR}")
    stops = browser.execute_script(
        "return [...document.querySelectorAll('.board input')].filter(i => i.tabIndex === 0).map(i => i.id)"
    )
    assert len(stops) == 1
    best = browser.find_element(By.CSS_SELECTOR, ".cell.best input").get_attribute("id")
    assert stops == [best]
    browser.execute_script("document.getElementById(arguments[0]).focus()", best)
    at = browser.current_url
    here = browser.switch_to.active_element
    place = browser.execute_script(
        "const c = arguments[0].closest('td'); return [c.parentElement.rowIndex, c.cellIndex]", here
    )
    here.send_keys(Keys.ARROW_UP)
    up = browser.switch_to.active_element
    assert browser.execute_script(
        "const c = arguments[0].closest('td'); return [c.parentElement.rowIndex, c.cellIndex]", up
    ) == [place[0] - 1, place[1]]
    assert browser.current_url == at  # moving asks for nothing; choosing does
    up.send_keys(Keys.SPACE)
    wait(browser, lambda: "pick=" in browser.current_url)
    browser.find_element(By.TAG_NAME, "body").send_keys("4")
    wait(browser, lambda: "view=cast" in browser.current_url)


def test_without_scripts_every_change_is_a_whole_page(site: str) -> None:
    with httpx2.Client(base_url=site, follow_redirects=True) as client:
        page = client.get(f"/?{FOUR}").text
        token = re.search(r'name="token" value="(\w+)"', page)
        assert token
        own = {"token": token[1]}
        form = {"name": "No scripts", "water_temp_f": "47", "bottom_depth_ft": "9", "fish_depth_ft": "6"}
        assert "Scenarios" in client.post("/scenarios", data=own | form).text
        assert "water_temp_f=47" in client.get("/box").text
        for at, sent in (("/box", {"entry": "3/8 swim jig"}), ("/drops", {"kind": "drop"}), ("/import", {})):
            answer = client.post(at, data=own | sent)
            assert "<nav" in answer.text, at
            assert "<h1" in answer.text, at


def test_what_a_control_means_is_said_beside_it(browser: webdriver.Chrome, site: str) -> None:
    browser.get(f"{site}/?view=rig")
    press(browser, "#assumes")
    for name, word in (("activity", "Judged from temperature"), ("clarity_ft", "murky water asks")):
        browser.find_element(By.TAG_NAME, "body").send_keys(Keys.ESCAPE)
        press(browser, f"#field-{name} .about summary")
        reads(browser, f"#field-{name} .about", word)
        assert len(browser.find_elements(By.CSS_SELECTOR, ".about[open]")) == 1
    browser.find_element(By.TAG_NAME, "body").send_keys(Keys.ESCAPE)
    wait(browser, lambda: not browser.find_elements(By.CSS_SELECTOR, ".about[open]"))
    press(browser, ".settled .about summary")
    wait(browser, lambda: len(text(browser, ".settled .about[open] p")) > 10)


@pytest.mark.parametrize("at", ["/drops", "/plan", "/?view=search", "/log/year/2026", "/?view=cast"])
def test_no_page_of_paper_is_empty(browser: webdriver.Chrome, site: str, at: str) -> None:
    """Every sheet that comes out of the printer has something on it."""
    browser.get(site + at)
    printed = browser.execute_cdp_cmd("Page.printToPDF", {"paperWidth": 8.27, "paperHeight": 11.69})
    sheets = drawn_on(base64.b64decode(printed["data"]))
    assert sheets
    assert all(b" Tf" in sheet or b"Tj" in sheet for sheet in sheets)


def drawn_on(pdf: bytes) -> list[bytes]:
    """What is drawn on each page of a PDF: its content stream, unpacked."""
    found = []
    for page in re.finditer(rb"/Type\s*/Page[^s].*?/Contents (\d+) 0 R", pdf, re.S):
        at = re.search(rb"\n" + page[1] + rb" 0 obj\b(.*?)stream\r?\n", pdf, re.S)
        assert at is not None
        stream = pdf[at.end() :]
        found.append(zlib.decompressobj().decompress(stream) if b"Flate" in at[1] else b"")
    return found
