"""The Box through HTTP: what goes in, what is refused, and in which words."""

from __future__ import annotations

import re

import pytest
from fastapi.testclient import TestClient

from tests.web.shown import HX, rows


def test_what_is_whole_is_added_and_the_rest_stays_in_the_field(client: TestClient, token: str) -> None:
    before = rows(client)
    good = client.post(
        "/box", data={"token": token, "entry": "3/8 swim jig\n1/2 swim jig x2\ncraw 3.5 in"}, headers=HX
    )
    assert (
        "Added: 3/8 oz swim jig, lead, 10.6 g nominal; 1/2 oz swim jig, lead, 14.2 g nominal ×2" in good.text
    )
    assert rows(client) == before + 3
    bad = client.post("/box", data={"token": token, "entry": "3/8 swim jig\nswim jig\ncraw 3"}, headers=HX)
    assert bad.status_code == 200
    assert 'data-left="swim jig"' in bad.text
    assert "“swim jig”: How heavy?" in bad.text
    assert rows(client) == before + 5
    alone = client.post("/box", data={"token": token, "entry": "swim jig\nx1000 3/8 swim jig"}, headers=HX)
    assert alone.status_code == 422
    assert "How many 1000 cannot be" in alone.text
    assert rows(client) == before + 5
    empty = client.post("/box", data={"token": token, "entry": "  "}, headers=HX)
    assert "Nothing to add yet." in empty.text
    assert (
        "&lt;b&gt;"
        in client.post("/box", data={"token": token, "entry": "3/8 swim jig <b>"}, headers=HX).text
    )


@pytest.mark.parametrize(
    ("field", "text", "status", "words"),
    [
        ("mass_g", "10,9 g", 200, "weighs 10.9 g"),
        ("mass_g", "", 200, "nominal"),
        ("mass_g", "0.01", 422, "Weight on the scale 0.01 g cannot be; it must be from 0.2 to 200 g."),
        ("mass_g", "1/0", 422, "Weight on the scale “1/0” cannot be; it must be from 0.2 to 200 g."),
        ("quantity", "7", 200, 'value="7"'),
        ("quantity", "-1", 422, "How many -1 cannot be; it must be a whole number from 0 to 999."),
        ("quantity", "many", 422, "How many “many” cannot be; it must be a whole number from 0 to 999."),
        ("colour", "x" * 90, 422, "it must be a text of at most 80 characters."),
        ("length_in", "4", 422, "A head has no such field."),
    ],
)
def test_one_field_is_changed_or_refused(
    client: TestClient, token: str, field: str, text: str, status: int, words: str
) -> None:
    answer = client.post("/box/1", data={"token": token, field: text}, headers=HX)
    assert answer.status_code == status
    assert words in answer.text


def test_copy_delete_and_back(client: TestClient, token: str) -> None:
    before = rows(client)
    assert (
        "Copied: 1/4 oz swim jig" in client.post("/box/1/duplicate", data={"token": token}, headers=HX).text
    )
    assert rows(client) == before + 1
    gone = client.post("/box/1/delete", data={"token": token}, headers=HX).text
    assert "/box/1/undelete" in gone
    assert rows(client) == before
    assert client.post("/box/1/delete", data={"token": token}, headers=HX).status_code == 404
    assert client.post("/box/1", data={"token": token, "quantity": "2"}, headers=HX).status_code == 404
    client.post("/box/1/undelete", data={"token": token}, headers=HX)
    assert rows(client) == before + 1
    assert client.post("/box/1/burn", data={"token": token}, headers=HX).status_code == 404


def test_the_filter_and_the_shelf(client: TestClient) -> None:
    found = client.get("/box", params={"q": "swim 3/8"}, headers={**HX, "hx-target": "boxlist"}).text
    assert found.count("<tr id=") == 1
    assert "Add tackle" not in found
    page = client.get("/box").text
    bulks = [float(v) for v in re.findall(r"adds ([\d.]+) cm²", page)]
    assert len(bulks) == 10
    assert bulks == sorted(bulks)
