"""The deck behind its screen: a trip from a plan or the sheet, its water, its rigs, its casts mended."""

import html
import json
import re
import uuid
from typing import Any

import pytest
import sqlalchemy as sa
from fastapi.testclient import TestClient

from heathdrop.store import casts, trips
from heathdrop.web.shell.rendering import KEPT_WATER
from tests.store.test_casts import kept, made
from tests.web.shown import token

Json = dict[str, Any]


def begun(client: TestClient, **more: str) -> Json:
    """A trip from the sheet's water (or a plan), and what the deck's script is given."""
    answer = client.post("/deck", data={"token": token(client), **more})
    assert answer.status_code == 200, answer.text
    return data_of(client)


def data_of(client: TestClient) -> Json:
    found = re.search(r'id="deck">(.*?)</script>', client.get("/deck").text, re.S)
    assert found
    told: Json = json.loads(found[1])
    return told


def cast_of(data: Json, k: int, outcome: str, **more: Any) -> Json:
    """A cast as the deck's script sends it."""
    here, stop = data["stops"][0]["next"]["casts"][0], data["stops"][0]["name"]
    fields = {f: here[f] for f in ("countdown_s", "pace_ft_s", "turns_per_s", "rod_tip_height_ft", "work")}
    own = {"trip": data["trip"], "stop": stop, "line": here["line"], "outcome": outcome}
    return made(k, **fields, **here["rig"], **own, **more)


def next_of(client: TestClient, data: Json, **more: str) -> Json:
    asked = {"stop": data["stops"][0]["name"], **more}
    answer = client.get("/api/v1/next", params=asked)
    assert answer.status_code == 200, answer.text
    found: Json = answer.json()
    return found


@pytest.mark.slow
def test_a_plan_goes_along_with_its_rods_and_stops(client: TestClient) -> None:
    assert "Take a plan along" in client.get("/deck").text
    data = begun(client, plan="1")
    assert "A day on Ashmoor Water" in data["trip"]
    assert len(data["stops"]) == 6
    assert [r["name"] for r in data["rods"]] == ["A", "B", "C", "D", "E"]
    tied = {r["rig"]: r["name"] for r in data["rods"]}
    for stop in data["stops"]:
        first = stop["next"]["casts"][0]
        assert tied[first["name"]] == first["rod"]
        assert first["said"]["line"] == next(r["line"] for r in data["rods"] if r["name"] == first["rod"])
        assert first["lands"] == (first["work"] != "swim")
    again = client.post("/deck", data={"token": token(client), "plan": "1"})
    assert again.status_code == 200
    assert data_of(client)["trip"].endswith("(2)")
    for wrong in ("99", "²", "9" * 5000, "-1"):
        refused = client.post("/deck", data={"token": token(client), "plan": wrong})
        assert refused.status_code == 422, wrong[:9]


@pytest.mark.slow
def test_the_sheets_water_goes_along_where_there_is_no_plan(client: TestClient) -> None:
    form = {"token": token(client)}
    client.get(
        "/?water_temp_f=52&bottom_depth_ft=12&fish_depth_ft=9&cover=open&test_lb=12&rod_tip_height_ft=3"
    )
    assert client.post("/deck", data=form).status_code == 200
    data = data_of(client)
    stop = data["stops"][0]
    assert stop["name"] == "This water"
    assert stop["conditions"]["water_temp_f"] == 52.0
    assert len(data["rods"]) == 4
    assert {r["line"] for r in data["rods"]} == {"12 lb fluorocarbon"}
    assert stop["next"]["casts"][0]["rod_tip_height_ft"] == 3.0
    assert client.post("/deck/end", data={"token": token(client)}).status_code == 200
    assert "Take a plan along" in client.get("/deck").text


def test_a_sheet_that_is_wrong_is_mended_first(client: TestClient) -> None:
    client.cookies.set(KEPT_WATER, "bottom_depth_ft=4&fish_depth_ft=90")
    refused = client.post("/deck", data={"token": token(client)})
    assert refused.status_code == 422
    said = html.unescape(refused.text)
    assert "The sheet's water" in said
    assert "Fish at" in said
    assert "mended on the sheet first" in said


@pytest.mark.slow
def test_answers_move_the_next_cast_and_are_those_of_this_trip(client: TestClient) -> None:
    data = begun(client, plan="1")
    here = data["stops"][0]["next"]["casts"][0]
    assert next_of(client, data)["made"] == 0
    old = cast_of(data, 9, "nothing") | {"trip": "another day"}
    client.post("/api/v1/casts", json=[old, cast_of(data, 1, "ran-high")])
    after = next_of(client, data)
    assert after["made"] == 1
    assert after["thrown"] == here["name"]
    assert after["mend"]["symptom"] == "It ran too high"
    assert after["casts"][0]["runs_ft"] != here["runs_ft"]
    client.post("/api/v1/casts", json=[cast_of(data, 2, "fish", at_s=9.0)])
    bitten = next_of(client, data)
    assert bitten["mend"] is None
    assert (bitten["casts"][0]["change"], bitten["casts"][0]["name"]) == ("none", here["name"])
    assert "a fish took it there" in bitten["casts"][0]["said"]["why"]


@pytest.mark.slow
def test_each_rod_counts_turns_by_its_own_reel(client: TestClient) -> None:
    data = begun(client, plan="1")
    with client.app.state.database.session() as session:  # type: ignore[attr-defined]
        row, body = trips.current(session)  # type: ignore[misc]
        rods = [r.model_copy(update={"inches_per_turn": 20.0}) for r in body.rods]
        trips.write(row, body.model_copy(update={"rods": rods}))
    before, after = data["stops"][0]["next"]["casts"][0], next_of(client, data)["casts"][0]
    assert after["turns_per_s"] == pytest.approx(after["pace_ft_s"] * 12.0 / 20.0, abs=0.01)
    assert before["turns_per_s"] == pytest.approx(before["pace_ft_s"] * 12.0 / 29.0, abs=0.01)


@pytest.mark.slow
def test_water_changes_on_the_deck_or_not_at_all(client: TestClient) -> None:
    data = begun(client, plan="1")
    stop = data["stops"][0]

    def change(name: str, value: str, **more: str) -> Any:
        form = {"token": token(client), "stop": stop["name"], "name": name, "value": value, **more}
        return client.post("/deck/water", data=form)

    alone = change("wind_mph", "8 mph", rig=data["rods"][2]["rig"]).json()
    assert {c["name"] for c in alone["next"]["casts"]} == {data["rods"][2]["rig"]}
    warm = change("water_temp_f", "15 °C").json()
    assert warm["conditions"]["water_temp_f"] == 59.0
    assert next(w for w in warm["water"] if w["name"] == "water_temp_f")["by"] == "typed"
    assert change("wind_mph", "9 mph", by="sounder").json()["conditions"]["wind_mph"] == 9.0
    by = {w["name"]: w["by"] for w in data_of(client)["stops"][0]["water"]}
    assert (by["wind_mph"], by["clarity_ft"]) == ("sounder", "")
    shallow = change("bottom_depth_ft", "4").json()
    assert shallow["conditions"]["fish_depth_ft"] == 4.0
    assert shallow["conditions"]["cover"]["top_depth_ft"] == 4.0
    metric = change("bottom_depth_ft", "3", units="metric").json()
    assert metric["conditions"]["bottom_depth_ft"] == pytest.approx(9.84, abs=0.2)
    assert (
        metric["conditions"]["fish_depth_ft"] == metric["conditions"]["bottom_depth_ft"]
    )  # on it, and stays
    for name, value in (("water_temp_f", "20"), ("fish_depth_ft", "90"), ("season", "fall"), ("light", "x")):
        refused = change(name, value)
        assert refused.status_code == 422, name
        assert refused.json()["detail"].endswith(".")
    assert data_of(client)["stops"][0]["conditions"] == metric["conditions"]
    assert client.post("/deck/water", data={"token": token(client), "stop": "nowhere"}).status_code == 404
    assert client.post("/deck/water", data={"token": "x", "stop": stop["name"]}).status_code == 403


@pytest.mark.slow
def test_rigs_from_the_box_and_typed(client: TestClient) -> None:
    begun(client, plan="1")
    mine = client.get("/deck/box", params={"stop": "Mill bay milfoil"}).json()
    assert 1 <= len(mine) <= 6
    assert all(re.match(r"[\d/ ]+ oz ", r["said"]) for r in mine)
    assert client.get("/deck/typed", params={"rig": "3/8 swim jig"}).json() == [
        {"rig": "swim-jig:0.375:none", "said": "3/8 oz swim jig"}
    ]
    refused = client.get("/deck/typed", params={"rig": "toad"})
    assert refused.status_code == 422
    assert refused.json()["detail"].endswith(".")


@pytest.mark.slow
def test_the_record_is_read_mended_and_taken_back(client: TestClient) -> None:
    assert "Nothing is kept of a trip yet" in client.get("/deck/record").text
    data = begun(client, plan="1")
    one = cast_of(data, 1, "nothing")
    client.post("/api/v1/casts", json=[one, cast_of(data, 2, "bump")])
    assert "2 casts" in client.get("/deck/record").text
    at = f"/deck/record/{one['id']}"
    form = {
        "token": token(client),
        "outcome": "fish",
        "length_in": "40 cm",
        "weight_lb": "",
        "note": "off the <b>stump",
    }
    shown = client.post(at, data=form)
    assert "off the &lt;b&gt;stump" in shown.text
    found = next(c for c in kept(client) if str(c.id) == one["id"])
    assert found.outcome == "fish"
    assert found.fish.length_in == pytest.approx(15.75, abs=0.01)  # type: ignore[union-attr]
    for wrong in ({"length_in": "long"}, {"outcome": "eaten"}, {"length_in": "900"}):
        assert client.post(at, data=form | wrong).status_code == 422
    assert client.post(f"/deck/record/{uuid.uuid4()}", data=form).status_code == 404
    gone = client.post(at, data={"token": token(client), "do": "back"})
    assert [c.outcome for c in kept(client)] == ["bump"]
    assert f'action="{at}" role="status"' in gone.text
    back = client.post(at, data={"token": token(client), "do": "undo"})
    assert sorted(c.outcome for c in kept(client)) == ["bump", "fish"]
    assert "is deleted" not in back.text


def test_a_cast_whose_trailer_is_none_that_there_is_stops_no_page(client: TestClient) -> None:
    one = cast_of(begun(client), 1, "fish")
    client.post("/api/v1/casts", json=[one])
    with client.app.state.database.session() as session:  # type: ignore[attr-defined]
        session.execute(
            sa.text("update cast_made set body = replace(body, :was, 'gone')"), {"was": one["trailer"]}
        )
    for page in ("/deck/record", "/deck", "/log"):
        assert client.get(page).status_code == 200, page
    assert f" oz {one['family'].replace('-', ' ')}" in client.get("/deck/record").text


@pytest.mark.slow
def test_a_trip_that_cannot_be_read_is_passed_over(client: TestClient) -> None:
    begun(client, plan="1")
    with client.app.state.database.session() as session:  # type: ignore[attr-defined]
        row, body = trips.current(session)  # type: ignore[misc]
        trips.begin(session, "broken", body).body = {"version": 1}
        session.flush()
        found = trips.current(session)
        assert found is not None
        assert found[0].name == row.name
        assert casts.listed(session, trip="broken") == []


def test_what_bit_last_time_is_offered_with_what_it_came_to(client: TestClient) -> None:
    data = begun(client)
    at = data["stops"][0]["name"]
    nothing = client.get("/deck/last", params={"stop": at})
    assert (nothing.status_code, nothing.json()["detail"]) == (
        422,
        "Nothing on record that bit was in water like this.",
    )
    sent = [
        cast_of(data, k, "fish" if k in (2, 5) else "nothing", time=f"2026-04-11T08:{10 + k}:00Z")
        for k in range(1, 7)
    ]
    assert client.post("/api/v1/casts", json=sent).status_code == 200
    (found,) = client.get("/deck/last", params={"stop": at}).json()
    rig = data["stops"][0]["next"]["casts"][0]["rig"]
    assert found["rig"].startswith(f"{rig['family']}:{rig['head_oz']:g}:{rig['trailer']}")
    assert found["small"].startswith(f"2026-04-11, {at}: 2 bites in 6 casts")
    assert client.get("/deck/last", params={"stop": "Nowhere"}).status_code == 404


@pytest.mark.slow
def test_a_long_record_comes_in_pages_and_the_trips_end_is_its_day(client: TestClient) -> None:
    data = begun(client)
    sent = [cast_of(data, k, "nothing", time=f"2026-04-11T08:{k:02}:00Z") for k in range(50)]
    sent[7] |= {"outcome": "fish", "fish": {"length_in": 21.5}}
    assert client.post("/api/v1/casts", json=sent).status_code == 200
    first, second = client.get("/deck/record").text, client.get("/deck/record?after=40").text
    assert (first.count("Change it"), second.count("Change it")) == (40, 10)
    assert "1 to 40 of 50, the newest first" in first
    assert "41 to 50 of 50, the newest first" in second
    assert "21.5 in" in second
    assert 'href="?after=40"' in first
    assert 'href="?after=0"' in second
    ended = client.post("/deck/end", data={"token": token(client)})
    assert ended.url.path == "/log/day/2026-04-11"
    again = re.search(r'href="(/\?[^"]+)">Fish this again', ended.text)
    assert again
    sheet = client.get(html.unescape(again[1]))
    assert sheet.status_code == 200
    rig = data["stops"][0]["next"]["casts"][0]["rig"]
    assert f"pick={rig['family']}" in html.unescape(again[1]).replace("%3A", ":")
    assert client.post("/deck/end", data={"token": token(client)}).url.path == "/deck"
