"""Every browser test also checks that the console stays silent."""

from pathlib import Path

import pytest
from selenium import webdriver

from tests.browser.helpers import fresh


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Every test of this folder needs the browser."""
    for item in items:
        if Path(__file__).parent in item.path.parents:
            item.add_marker("browser")


@pytest.fixture(autouse=True)
def quiet(browser: webdriver.Chrome, request: pytest.FixtureRequest):  # type: ignore[no-untyped-def]
    """Nothing may be written to the console: no script error, no policy violation. Each test begins on a
    laptop's screen, without what the one before kept in the browser."""
    fresh(browser)
    browser.get_log("browser")
    yield
    # A refusal is a 422 (403, 404 and 409 too), htmx names a request that a newer one replaced, some tests
    # stop the server or take the network away, when a page may still ask for its icon: all are meant.
    meant = (
        "422",
        "404",
        "409",
        "ERR_CONNECTION_REFUSED",
        "ERR_CONNECTION_RESET",
        "403",
        "ERR_INTERNET_DISCONNECTED",
        "htmx:sendError",
        "htmx:afterRequest",
        "htmx:sendAbort",
        "icon from the Manifest",
    )
    if "laptop" in request.fixturenames:
        # A laptop is killed, or the line is cut: what was under way then fails as the network fails.
        meant += ("net::ERR_",)
    assert [
        e["message"] for e in browser.get_log("browser") if not any(m in e["message"] for m in meant)
    ] == []
