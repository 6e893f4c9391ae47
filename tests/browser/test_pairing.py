"""A phone is let in by its code, in the real browser, over the address that stands in for the network."""

import re
import socket
import subprocess
import sys
from pathlib import Path

from selenium import webdriver
from selenium.webdriver.common.by import By

from tests.browser.helpers import press, reads, screen, wait


def test_a_phone_is_let_in_by_its_code(browser: webdriver.Chrome, tmp_path: Path) -> None:
    with socket.socket() as probe:
        probe.bind(("127.0.0.2", 0))
        port = probe.getsockname()[1]
    command = ["serve", "--demo", "--lan", "--host", "127.0.0.2", "--port", str(port)]
    command += ["--data", str(tmp_path / "boat.sqlite")]
    serve = subprocess.Popen(
        [sys.executable, "-u", "-m", "heathdrop.cli", *command], stdout=subprocess.PIPE, encoding="utf-8"
    )
    assert serve.stdout is not None
    try:
        said = ""
        while "It lasts five minutes" not in said:
            line = serve.stdout.readline()
            assert line, said
            said += line
        found = re.search(r"(http://127\.0\.0\.2:\d+)/pair with the code (\d{3}) (\d{3})", said)
        assert found, said
        assert said.count("\n") > 12  # the picture for the camera
        address = found[1]
        screen(browser, 390, 844)
        browser.get("about:blank")
        wait(browser, lambda: socket.create_connection(("127.0.0.2", port), 1).close() is None)
        browser.get(f"{address}/deck")
        reads(browser, "main", "not paired")
        browser.find_element(By.NAME, "code").send_keys("12")
        press(browser, "button")
        reads(browser, "[role=alert]", "not the code")
        browser.get(f"{address}/pair?code={found[2]}{found[3]}")
        browser.find_element(By.NAME, "name").send_keys("boat phone")
        press(browser, "button")
        reads(browser, "main", "Take a plan along")
        press(browser, "form:nth-of-type(2) .begin")
        wait(browser, lambda: browser.find_elements(By.CSS_SELECTOR, "#go"))
        press(browser, "[data-outcome=nothing]")
        reads(browser, "#kept", "1 cast, all on the laptop")
        assert browser.get_cookie("heathdrop-device")["httpOnly"]  # type: ignore[index]
        browser.delete_all_cookies()
        # Past the guard against double taps.
        browser.execute_script("setTimeout(() => document.querySelector('[data-outcome=bump]').click(), 900)")
        reads(browser, "#kept", "not paired with the laptop any more", "1 kept on this phone")
    finally:
        browser.get("about:blank")
        serve.terminate()
        serve.wait(20)
        serve.stdout.close()
