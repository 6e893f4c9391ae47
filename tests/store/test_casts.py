"""Casts from the water: kept once, in order, there and back, refused whole."""

from __future__ import annotations

import json
import uuid
from typing import Any

import pytest
from fastapi.testclient import TestClient

from heathdrop.conditions.made import OUTCOMES, MadeCast
from heathdrop.conditions.trip import TripBody
from heathdrop.store import casts, trips
from tests.web.shown import token

STOP = "Mill bay milfoil"


def made(k: int = 0, **more: Any) -> dict[str, Any]:
    return {
        "id": str(uuid.uuid5(uuid.NAMESPACE_URL, f"cast {k}")),
        "time": f"2027-09-25T06:{k % 60:02}:00+01:00",
        "stop": STOP,
        "family": "swim-jig",
        "head_oz": 0.375,
        "trailer": "craw",
        "trailer_length_in": 4.0,
        "line": {"material": "fluorocarbon", "test_lb": 15},
        "countdown_s": 2.0,
        "pace_ft_s": 2.2,
        "outcome": OUTCOMES[k % len(OUTCOMES)],
    } | more


def kept(client: TestClient) -> list[MadeCast]:
    with client.app.state.database.session() as session:  # type: ignore[attr-defined]
        return casts.listed(session)


def test_sent_twice_it_is_kept_once_and_answered_alike(client: TestClient) -> None:
    one = made(1, fish={"length_in": 16.5}, at_s=9.5, outcome="fish", note="off the stump")
    first = client.post("/api/v1/casts", json=one)
    assert first.status_code == 200, first.text
    assert first.json() == {"kept": [one["id"]]}
    assert client.post("/api/v1/casts", json=one).json() == first.json()
    both = client.post("/api/v1/casts", json=[one, made(2), made(2)])
    assert both.json()["kept"] == [one["id"], made(2)["id"], made(2)["id"]]
    found = kept(client)
    assert [c.outcome for c in found] == ["fish", OUTCOMES[2]]
    assert found[0].fish is not None
    assert found[0].fish.length_in == 16.5


def test_two_hundred_out_of_order_are_there_once_and_in_order(client: TestClient) -> None:
    rows = [made(k, time=f"2027-09-25T{6 + k // 60:02}:{k % 60:02}:00+01:00") for k in range(200)]
    for start in (150, 100, 50, 0, 100):
        assert client.post("/api/v1/casts", json=rows[start : start + 50]).status_code == 200
    found = kept(client)
    assert [str(c.id) for c in found] == [r["id"] for r in rows]


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"time": "2027-09-25T06:12:00"}, "offset"),
        ({"outcome": "eaten"}, "outcome"),
        ({"id": "7"}, "id"),
        ({"family": "toad"}, "family"),
        ({"trailer": "worm"}, "trailer"),
        ({"countdown_s": -1}, "countdown_s"),
        ({"fish": {"length_in": 900}}, "length_in"),
        ({"conditions": {"a": "x" * 3000}}, "conditions"),
        ({"note": "\u202e"}, "note"),
        ({"tide": 1}, "tide"),
    ],
)
def test_one_bad_cast_keeps_none(client: TestClient, change: dict[str, Any], said: str) -> None:
    refused = client.post("/api/v1/casts", json=[made(1), made(2) | change])
    assert refused.status_code == 422
    assert said in refused.json()["detail"]
    assert kept(client) == []


@pytest.mark.slow
def test_what_is_next_follows_from_what_was_thrown(client: TestClient) -> None:
    before = client.get("/api/v1/next", params={"stop": STOP}).json()
    assert before["tried"] == 0.0
    cast = before["casts"][0]
    rows = [
        made(
            k,
            outcome="nothing",
            countdown_s=cast["countdown_s"],
            pace_ft_s=cast["pace_ft_s"],
            family=cast["family"],
            head_oz=cast["head_oz"],
            trailer=cast["trailer"],
            trailer_length_in=cast["trailer_length_in"],
        )
        for k in range(3)
    ]
    client.post("/api/v1/casts", json=rows)
    after = client.get("/api/v1/next", params={"stop": STOP}).json()
    assert after["tried"] > 0.2
    assert after["casts"][0]["so_far"] < before["casts"][0]["so_far"]
    assert client.get("/api/v1/next", params={"stop": "nowhere"}).status_code == 422


def test_there_and_back(client: TestClient) -> None:
    rows = [made(1), made(2, fish={"length_in": 14.0}, conditions={"water_temp_f": 58}, note="=cmd")]
    client.post("/api/v1/casts", json=rows)
    text = client.get("/export/casts.csv").text
    assert text.splitlines()[0].startswith("time,trip,stop,lat,lon,family")
    with client.app.state.database.session() as session:  # type: ignore[attr-defined]
        for row in rows:
            assert casts.withdraw(session, row["id"])
        assert not casts.withdraw(session, "nobody")
    assert kept(client) == []
    again = text.replace(rows[0]["id"], str(uuid.uuid4())).replace(rows[1]["id"], str(uuid.uuid4()))
    sent = {"token": token(client), "sure": "yes"}
    came = client.post("/import", data=sent, files={"file": ("casts.csv", again.encode())})
    assert "2 casts" in came.text
    assert [c.note for c in kept(client)] == ["", "=cmd"]
    assert kept(client)[1].conditions == {"water_temp_f": 58}
    wrong = again.replace("nothing", "eaten").replace(OUTCOMES[1], "eaten")
    refused = client.post("/import", data=sent, files={"file": ("casts.csv", wrong.encode())})
    assert "line 2, column outcome" in refused.text


def test_a_deck_record_comes_in_once(client: TestClient) -> None:
    record = json.dumps({"version": 1, "date": "2027-09-25", "casts": [made(1, line="15 lb fluorocarbon")]})
    sent = {"token": token(client), "sure": "yes"}
    for said in ("1 cast", "already here"):
        came = client.post("/import", data=sent, files={"file": ("deck-record.json", record.encode())})
        assert said in came.text
    assert len(kept(client)) == 1
    bad = record.replace('"swim-jig"', '"toad"')
    refused = client.post("/import", data=sent, files={"file": ("deck-record.json", bad.encode())})
    assert "deck-record.json, casts[0]: The lure" in refused.text


def test_what_ran_off_on_the_trip_under_way_is_the_searchs_and_teaches_once_it_is_over(
    client: TestClient,
) -> None:
    stop = {"name": STOP, "conditions": {"water_temp_f": 60, "bottom_depth_ft": 9, "fish_depth_ft": 6}}
    rod = {"name": "A", "line": {"material": "fluorocarbon", "test_lb": 15}, "rig": "swim-jig:0.375:craw"}
    body = TripBody.model_validate({"date": "2027-09-25", "stops": [stop], "rods": [rod]})
    with client.app.state.database.session() as session:  # type: ignore[attr-defined]
        row = trips.begin(session, "Today", body)
        for k, (trip, outcome) in enumerate(
            [("Today", "ran-high"), ("Before", "ran-low"), ("", "ran-high"), ("Today", "found-bottom")]
        ):
            one = made(k, trip=trip, outcome=outcome, at_s=6.0)
            casts.keep(session, [MadeCast.model_validate(one)])
        shown = [(c.trip, c.outcome) for c in casts.read(casts.contacts(session))]
        assert shown == [("Before", "ran-low"), ("", "ran-high"), ("Today", "found-bottom")]
        trips.write(row, body.model_copy(update={"ended": True}))
        assert len(casts.contacts(session)) == 4
