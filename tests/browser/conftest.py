"""Every browser test also checks that the console stays silent."""

from __future__ import annotations

import pytest
from selenium import webdriver


@pytest.fixture(autouse=True)
def quiet(browser: webdriver.Chrome):  # type: ignore[no-untyped-def]
    """Nothing may be written to the console: no script error, no policy violation."""
    browser.get_log("browser")
    yield
    # A refusal is a 422, and htmx names a request that a newer one replaced: both are meant.
    meant = (
        "422",
        "404",
        "409",
        "ERR_CONNECTION_REFUSED",
        "htmx:sendError",
        "htmx:afterRequest",
        "htmx:sendAbort",
    )
    assert [
        e["message"] for e in browser.get_log("browser") if not any(m in e["message"] for m in meant)
    ] == []
