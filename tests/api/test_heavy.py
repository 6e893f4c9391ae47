"""The queue for heavy work stands before the doors that need it."""

from __future__ import annotations

import pytest
from fastapi.testclient import TestClient

from heathdrop.api import heavy


@pytest.mark.parametrize(("path", "queue"), [("/api/v1/plan", heavy.heavy), ("/api/v1/size", heavy.quick)])
def test_a_full_queue_is_said(
    visitor: TestClient, monkeypatch: pytest.MonkeyPatch, path: str, queue: heavy.Queue
) -> None:
    monkeypatch.setattr(queue, "waiting", -queue.at_once)
    refused = visitor.post(path, json={})
    assert (refused.status_code, refused.json()["detail"]) == (503, heavy.FULL)
    assert refused.headers["retry-after"] == "5"
    monkeypatch.undo()
    assert visitor.post(path, json={}).status_code == 422
