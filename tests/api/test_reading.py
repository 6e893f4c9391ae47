"""What was typed, read at the door."""

from __future__ import annotations

from fastapi.testclient import TestClient


def test_a_line_is_told_with_what_it_lacks(visitor: TestClient) -> None:
    asked = {"what": "tackle", "text": "3/8 swim jig black x4\ncraw 5/0 hook"}
    whole, lacking = visitor.post("/api/v1/read", json=asked).json()["lines"]
    assert whole == {
        "line": "3/8 swim jig black x4",
        "items": [
            {"kind": "head", "family": "swim-jig", "weight_oz": 0.375, "colour": "black", "quantity": 4}
        ],
        "missing": [],
        "unused": [],
        "ask": None,
        "ready": True,
    }
    assert (lacking["missing"], lacking["unused"], lacking["ready"]) == (["length_in"], ["5/0 hook"], False)
    assert lacking["ask"] == "How long?"
    assert visitor.post("/api/v1/read", json={**asked, "what": "boats"}).status_code == 422
