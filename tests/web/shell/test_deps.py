"""No write without this installation's token, by the router."""

from __future__ import annotations

import re
from typing import Any

import pytest
from fastapi.routing import APIRoute
from fastapi.testclient import TestClient

from heathdrop.web.shell.deps import checked_form
from tests.web.shown import HX
from tests.web.shown import token as token_of

WRITES = (
    "/scenarios",
    "/scenarios/1/delete",
    "/scenarios/1/undelete",
    "/schools",
    "/units",
    "/plan",
    "/plan/1",
    "/plan/1/cancel",
    "/deck",
    "/deck/end",
    "/deck/water",
    "/deck/record/5f0c6a52-0000-4000-8000-000000000001",
    "/bottom",
    "/devices/code",
    "/devices/1/off",
    "/box",
    "/box/1",
    "/box/1/delete",
    "/drops",
    "/drops/1/withdraw",
    "/import",
    "/import/undo",
    "/train/answer",
    "/train/hand",
    "/log/away",
    "/log/back",
    "/log/taught",
    "/log/typed",
)


@pytest.mark.parametrize("path", WRITES)
def test_no_write_without_the_token_or_from_elsewhere(visitor: TestClient, path: str) -> None:
    token = token_of(visitor)
    assert visitor.post(path, data={"token": "wrong"}, headers=HX).status_code == 403
    foreign = {"origin": "http://evil.example", **HX}
    assert visitor.post(path, data={"token": token}, headers=foreign).status_code == 403


def test_the_routes_that_write_are_those(client: TestClient) -> None:
    """By the router, not by file names: every page route that writes checks the form, and is tried above."""
    app: Any = client.app
    routers = [given.original_router for given in app.routes if hasattr(given, "original_router")]
    inner = [r for router in routers for r in router.routes]
    routes = [r for r in inner if isinstance(r, APIRoute) and "/api/" not in r.path]
    assert len(routes) > 15
    posts = [r for r in routes if r.methods - {"GET", "HEAD"}]
    assert all(any(d.call is checked_form for d in r.dependant.dependencies) for r in posts)
    tried = {re.sub(r"/(\d+|[\da-f-]{36}|delete|withdraw|undelete)(?=/|$)", "/*", path) for path in WRITES}
    named = {re.sub(r"\{\w+\}", "*", r.path) for r in posts}
    assert {re.sub(r"/(delete|undelete)$", "/*", p) for p in named} == tried
