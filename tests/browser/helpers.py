"""What every browser test does."""

from __future__ import annotations

from collections.abc import Callable

from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait


def screen(browser: webdriver.Chrome, width: int, height: int) -> None:
    metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 500}
    browser.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)


def wait(browser: webdriver.Chrome, until: Callable[[], object]) -> None:
    def settled(_: object) -> bool:
        return bool(until())

    WebDriverWait(browser, 20, ignored_exceptions=[Exception]).until(settled)


def text(browser: webdriver.Chrome, css: str) -> str:
    return browser.find_element(By.CSS_SELECTOR, css).text


def press(browser: webdriver.Chrome, css: str) -> None:
    """Click an element once it can be clicked, after bringing it into the middle of the screen."""

    def clicked() -> bool:
        found = browser.find_element(By.CSS_SELECTOR, css)
        browser.execute_script("arguments[0].scrollIntoView({block: 'center', behavior: 'instant'})", found)
        found.click()
        return True

    wait(browser, clicked)
