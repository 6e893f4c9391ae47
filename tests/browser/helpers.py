"""What every browser test does."""

from collections.abc import Callable

from selenium import webdriver
from selenium.common.exceptions import TimeoutException
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

#: Longer than anything takes on a machine that is busy with other work.
SECONDS = 45


def screen(browser: webdriver.Chrome, width: int, height: int) -> None:
    metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 500}
    browser.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)


def fresh(browser: webdriver.Chrome) -> None:
    """A laptop's screen without a page, and without the cookies of the test before: those know no port."""
    browser.get("about:blank")
    browser.execute_cdp_cmd("Network.clearBrowserCookies", {})
    screen(browser, 1280, 800)


def wait(browser: webdriver.Chrome, until: Callable[[], object]) -> None:
    def settled(_: object) -> bool:
        return bool(until())

    WebDriverWait(browser, SECONDS, ignored_exceptions=[Exception]).until(settled)


def read(browser: webdriver.Chrome, css: str, name: str) -> str:
    """A property of an element as it stands: read in the page at once, so that no swap falls in between."""
    found = browser.execute_script(f"return document.querySelector(arguments[0]).{name}", css)
    return str(found)


def text(browser: webdriver.Chrome, css: str) -> str:
    return browser.find_element(By.CSS_SELECTOR, css).text


def reads(browser: webdriver.Chrome, css: str, *words: str) -> None:
    """Wait until an element's text has all the words; if it never does, say what stands there.

    Nothing that follows a touch is read at once: a page may still be on its way.
    """
    found = "nothing"

    def there() -> bool:
        nonlocal found
        found = text(browser, css)
        return all(w in found for w in words)

    try:
        wait(browser, there)
    except TimeoutException:
        raise AssertionError(f"{css} never had {words}: {found!r}") from None


def press(browser: webdriver.Chrome, css: str, by: str = By.CSS_SELECTOR) -> None:
    """Click an element once it can be clicked, after bringing it into the middle of the screen."""

    def clicked() -> bool:
        found = browser.find_element(by, css)
        browser.execute_script("arguments[0].scrollIntoView({block: 'center', behavior: 'instant'})", found)
        found.click()
        return True

    wait(browser, clicked)
