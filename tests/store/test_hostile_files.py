"""Sixty files as a stranger would make them, by the door that people use."""

from __future__ import annotations

import random

import pytest
from fastapi.testclient import TestClient

from bench.hostile_files import sixty
from tests.store.test_casts import made
from tests.web.shown import token

PAGES = ("/box", "/drops", "/plan", "/deck", "/deck/record")


@pytest.mark.slow
@pytest.mark.long
@pytest.mark.parametrize("seed", [1, 2])
def test_no_file_breaks_anything_or_is_kept_in_part(client: TestClient, seed: int) -> None:
    """Each is refused in one sentence and nothing changed, or it is kept whole; every page stands."""
    sent = {"token": token(client), "sure": "yes"}
    client.post("/api/v1/casts", json=[made(1), made(2, fish={"length_in": 14.0})])
    client.post("/deck", data={"token": sent["token"]})
    export, refused = client.get("/export.zip").content, 0
    own = client.post("/import", data=sent, files={"file": ("x.zip", export)})
    assert own.status_code == 200
    for name, content in sixty(export, random.Random(seed)):
        answer = client.post("/import", data=sent, files={"file": ("x.zip", content)})
        assert answer.status_code in (200, 422, 413), (name, answer.text[:300])
        assert "<img src=x" not in answer.text, name
        now = client.get("/export.zip").content
        if answer.status_code == 200:
            export = now
        else:
            refused += 1
            assert now == export, name
        for page in PAGES if answer.status_code == 200 or refused % 10 == 0 else ():
            assert client.get(page).status_code == 200, (name, page)
    assert refused >= 40
