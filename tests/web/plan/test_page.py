"""The plan page's changes: each is made whole or refused in a sentence, nothing half-done."""

import html
import json
import re
import time
from types import SimpleNamespace
from typing import Any
from urllib.parse import parse_qsl, urlsplit

import pytest
from fastapi.testclient import TestClient

from heathdrop.conditions.gear import Rod
from heathdrop.store import plans
from heathdrop.web.plan.page import _stop_address
from tests.web.shown import token
from tests.web.small_plan import BODY


def body(client: TestClient, id_: int = 1) -> dict[str, Any]:
    with client.app.state.database.session() as session:  # type: ignore[attr-defined]
        row = plans.fetch(session, id_)
        assert row is not None
        return json.loads(json.dumps({"name": row.name, **plans.body_of(row)}))


def send(client: TestClient, at: str = "/plan/1", **fields: str) -> Any:
    return client.post(at, data={"token": token(client), **fields}, follow_redirects=False)


def test_a_stops_water_goes_to_the_sheet_with_rod_box_and_schools() -> None:
    told = {**BODY, "schools": {"mat-entry": "lobbed"}, "box": "mine"}
    line = {"material": "braid", "test_lb": 30}
    tied = SimpleNamespace(line=line, inches_per_turn=24.0, rod=Rod(power="heavy", low_oz=0.5, high_oz=1.5))
    asked = dict(parse_qsl(urlsplit(_stop_address(told, 0, "swim-jig:0.5:craw", tied)).query))  # type: ignore[arg-type]
    assert asked == {
        "water_temp_f": "58", "bottom_depth_ft": "9", "fish_depth_ft": "6", "cover": "submerged-grass",
        "box": "mine", "pick": "swim-jig:0.5:craw", "line": "braid", "test_lb": "30",
        "inches_per_turn": "24", "rod": "casting", "rod_power": "heavy",
        "rod_low_oz": "0.5", "rod_high_oz": "1.5", "s_mat-entry": "lobbed",
    }  # fmt: skip


def test_typed_rods_stay_while_their_number_does(client: TestClient) -> None:
    day = {"do": "day", "date": "2027-09-26", "name": "Ashmoor"}
    send(client, **day, rods="5", each="A: 15 lb fluoro\nB: 50 lb braid, heavy casting")
    typed = body(client)["rods"]
    assert [r["line"]["test_lb"] for r in typed] == [15.0, 50.0]
    shown = html.unescape(re.search(r'name="each"[^>]*>([^<]*)</textarea>', client.get("/plan/1").text)[1])  # type: ignore[index]
    send(client, **day, rods="2", each=shown)
    assert body(client)["rods"] == typed
    send(client, **day, rods="3", each=shown)
    assert body(client)["rods"] == 3
    send(client, **day, rods="4", each="A: 12 lb nylon")
    send(client, **day, rods="1", each="")
    assert body(client)["rods"] == 1


def test_stops_are_moved_copied_and_taken_out(client: TestClient) -> None:
    names = [s["name"] for s in body(client)["stops"]]
    assert send(client, do="down", stop="0").status_code == 303
    assert [s["name"] for s in body(client)["stops"]][:2] == [names[1], names[0]]
    send(client, do="up", stop="1")
    send(client, do="up", stop="0")  # the first stays the first
    send(client, do="move", stop="0", to="3")
    assert [s["name"] for s in body(client)["stops"]] == [*names[1:4], names[0], *names[4:]]
    send(client, do="move", stop="3", to="0")
    assert [s["name"] for s in body(client)["stops"]] == names
    send(client, do="twice", stop="2")
    assert [s["name"] for s in body(client)["stops"]][2:4] == [names[2], names[2]]
    send(client, do="off", stop="3")
    send(client, do="stop", stop="1", minutes="90", importance="2.5", stop_name="Lane")
    changed = body(client)["stops"][1]
    assert (changed["name"], changed["minutes"], changed["importance"]) == ("Lane", 90.0, 2.5)
    send(client, do="add", scenario="1")
    added = body(client)["stops"][-1]
    assert added["conditions"]["bottom_depth_ft"] == 9
    assert added["cast_ft"] == 80


@pytest.mark.slow
def test_a_stop_takes_the_water_that_the_sheet_shows(client: TestClient) -> None:
    form = {"token": token(client)}
    client.get(
        "/?water_temp_f=49&bottom_depth_ft=20&fish_depth_ft=4+to+12&cover=open&cast_ft=95&rod_tip_height_ft=3"
    )
    for do, stop in (("water", 2), ("sheet", -1)):
        assert client.post("/plan/1", data={**form, "do": do, "stop": "2"}).status_code == 200
        taken = body(client)["stops"][stop]
        assert taken["conditions"]["water_temp_f"] == 49.0
        assert taken["conditions"]["fish_depth_ft"] == {"low": 4.0, "high": 12.0}
        assert (taken["cast_ft"], taken["rod_tip_height_ft"]) == (95.0, 3.0)
    assert body(client)["stops"][2]["name"] == "Matted pocket"
    assert body(client)["stops"][-1]["name"] == "Stop 7"
    page = client.get("/plan/1").text
    assert "water_temp_f=49" in page  # the way to its water on the sheet
    client.cookies.clear()
    client.cookies.set("heathdrop-water", "water_temp_f=hot")
    before = body(client)
    refused = client.post("/plan/1", data={**form, "do": "water", "stop": "2"})
    assert refused.status_code == 422
    assert body(client) == before


@pytest.mark.slow
def test_a_stop_has_a_position_or_none(client: TestClient) -> None:
    sent = {"do": "stop", "stop": "1", "minutes": "60", "importance": "1"}
    for text, wanted in (
        ("50.1012, -4.0031", {"lat": 50.1012, "lon": -4.0031}),
        ("50.2 -4", {"lat": 50.2, "lon": -4.0}),
        ("", None),
    ):
        assert send(client, **sent, position=text).status_code == 303
        assert body(client)["stops"][1]["position"] == wanted
    send(client, **sent, position="50.2 -4")
    send(client, **sent)  # a form without the field leaves it
    assert body(client)["stops"][1]["position"] == {"lat": 50.2, "lon": -4.0}
    for wrong in ("here", "1, 2, 3", "95, 0", "0, 900"):
        assert send(client, **sent, position=wrong).status_code == 422
    assert body(client)["stops"][1]["position"] == {"lat": 50.2, "lon": -4.0}
    assert '<wpt lat="50.2" lon="-4.0">' in client.get("/plan/1/spots.gpx").text


@pytest.mark.slow
@pytest.mark.parametrize(
    ("fields", "said"),
    [
        (
            {"do": "day", "rods": "many", "name": "Other"},
            "Rods to tie on must be a number from 1 to 12, not “many”.",
        ),
        ({"do": "day", "rods": "2.5"}, "a whole number from 1 to 12"),
        ({"do": "day", "rods": "40"}, "from 1 to 12"),
        ({"do": "day", "rods": "3", "date": "soon"}, "a day such as 2027-04-03"),
        ({"do": "day", "rods": "3", "name": "x" * 90}, "1 to 80 characters"),
        ({"do": "day", "rods": "3", "name": "\0lake"}, "made of characters that can be shown"),
        (
            {"do": "stop", "stop": "0", "minutes": "60", "importance": "1", "stop_name": "\u202eyab"},
            "made of characters that can be shown",
        ),
        ({"do": "stop", "stop": "0", "minutes": "0", "importance": "1"}, "from 5 to 720"),
        ({"do": "stop", "stop": "99", "minutes": "60", "importance": "1"}, "from 0 to 5"),
        ({"do": "move", "stop": "0", "to": "6"}, "from 0 to 5"),
        ({"do": "add", "scenario": "99"}, "one of those saved on the sheet"),
        ({"do": "add", "scenario": "a"}, "must be one of "),
        ({"do": "dance"}, "one of day, add, sheet, stop"),
    ],
)
def test_a_change_that_cannot_be_changes_nothing(
    client: TestClient, fields: dict[str, str], said: str
) -> None:
    before = body(client)
    refused = send(client, **fields)
    assert refused.status_code == 422
    assert said in refused.text
    assert body(client) == before


@pytest.mark.slow
def test_a_refusal_stays_on_the_page_with_what_was_typed(client: TestClient) -> None:
    sent = {"do": "day", "rods": "5", "each": "A: 15 lb rope"}
    alone = send(client, **sent)
    assert alone.status_code == 422
    assert 'class="planpage"' in alone.text
    assert ">A: 15 lb rope</textarea>" in alone.text
    beside = client.post("/plan/1", data={"token": token(client), **sent}, headers={"hx-request": "true"})
    assert beside.text.startswith('<p class="error" role="alert">')
    place = ("#plan-refusal", "innerHTML", "unset")
    assert tuple(beside.headers[f"hx-{k}"] for k in ("retarget", "reswap", "reselect")) == place


@pytest.mark.slow
def test_plan_sheet_and_print_say_one_thing(client: TestClient) -> None:
    """The seam: a stop's rig and count on the page, on the print and on the sheet it opens."""
    for _ in range(600):
        page = client.get("/plan/1").text
        if "planboard" in page:
            break
        time.sleep(0.1)
    paper = client.get("/plan/1/print.html").text
    assert "<h1>A day on Ashmoor Water</h1>" in paper
    assert "plancard.css" in paper  # not within it: the page's policy takes no style of its own
    cards = re.findall(r'<details class="stopcard".*?</details>', page, re.S)
    assert len(cards) == 6
    for card in cards:
        fished = re.search(r"Rod (\w).*?: (.+?), (?:count|lands in|reel) ([\d.]+|at once)", card)
        assert fished, card
        at = re.search(r'href="(/\?[^"]+)">Open this water', card)
        assert at
        sheet = html.unescape(client.get(html.unescape(at[1])).text)
        figures = sheet[sheet.index('class="figures"') :]
        strip = figures[: figures.index("</dl>")]
        assert f"<b>{fished[3]}</b>" in strip, card
        assert f"<dd>{fished[3]}</dd>" in paper
        assert html.unescape(fished[2]) in html.unescape(paper)


@pytest.mark.slow
def test_a_plan_is_made_copied_from_a_file_and_deleted(client: TestClient) -> None:
    assert send(client, "/plan", name="Sunday").headers["location"] == "/plan/2"
    assert "No stops yet" in client.get("/plan/2").text
    assert send(client, do="copy").headers["location"] == "/plan/3"
    assert body(client, 3)["name"] == "A day on Ashmoor Water again"
    file = client.get("/plan/1/plan.json").content
    sent = {"token": token(client), "name": "From a file"}
    made = client.post("/plan", data=sent, files={"file": ("p.json", file)}, follow_redirects=False)
    assert made.headers["location"] == "/plan/4"
    assert body(client, 4)["stops"] == body(client)["stops"]
    for wrong in (b"{", b'{"version": 1, "stops": []}', b'{"version": 9, "stops": [{}]}'):
        refused = client.post("/plan", data=sent, files={"file": ("p.json", wrong)})
        assert refused.status_code == 422
    send(client, "/plan/2", do="delete")
    assert client.get("/plan/2").status_code == 404


def test_positions_go_out_as_waypoints(client: TestClient) -> None:
    gpx = client.get("/plan/1/spots.gpx").text
    assert gpx.count("<wpt") == 6
    assert "<name>Stone causeway</name>" in gpx
    assert client.get("/plan/1/nothing.txt").status_code == 404
    assert client.get("/plan/77/plan.json").status_code == 404


def test_the_section_of_a_stop(client: TestClient) -> None:
    found = client.get("/plan/1/stop/0", params={"rig": "swim-jig:0.5:craw", "line": "braid:30"})
    assert found.status_code == 200
    assert "Mill bay milfoil" in found.text
    assert found.text.count("<svg") == 2
    for wrong in ({"rig": "toad"}, {"rig": "toad:0.5:craw"}, {"rig": "swim-jig:0.5:craw", "line": "braid:1"}):
        assert client.get("/plan/1/stop/0", params=wrong).status_code == 422, wrong
    assert client.get("/plan/1/stop/9", params={"rig": "swim-jig:0.5:craw"}).status_code == 404


def test_everything_planned_goes_out_and_comes_back(client: TestClient) -> None:
    raw = client.get("/export/plans.json").content
    assert json.loads(raw)["plans"][0]["name"] == "A day on Ashmoor Water"
    sent = {"token": token(client), "sure": "yes"}
    there = client.post("/import", data=sent, files={"file": ("plans.json", raw)})
    assert "already here" in there.text
    send(client, do="delete")
    fresh = json.loads(raw)
    fresh["plans"][0].pop("id")
    came = client.post("/import", data=sent, files={"file": ("plans.json", json.dumps(fresh).encode())})
    assert "1 plan" in came.text
    fresh["plans"][0]["body"]["rods"] = 99
    bad = client.post("/import", data=sent, files={"file": ("plans.json", json.dumps(fresh).encode())})
    assert "plans.json, plans[0]: Rods to tie on must be" in bad.text
