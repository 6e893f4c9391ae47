"""Drop tests through HTTP: what teaches, what cannot be, what is withdrawn."""

from __future__ import annotations

import re
from urllib.parse import parse_qsl

import pytest
from fastapi.testclient import TestClient

from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
from heathdrop.store.observations import DropRecord
from heathdrop.web.tackle.drops import weighed
from tests.web.shown import HX
from tests.web.shown import token as token_of


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"times_s": ""}, "Times is empty; it must be 1 to 12 times of 0.3 to 120 s."),
        ({"times_s": "4.1 fast"}, "Times “4.1 fast” cannot be; it must be 1 to 12 times of 0.3 to 120 s."),
        ({"times_s": "400"}, "it must be 1 to 12 times of 0.3 to 120 s."),
        ({"depth_ft": "-3"}, "Depth -3 ft cannot be; it must be from 1 to 60 ft."),
        ({"depth_ft": ""}, "Depth is empty; it must be from 1 to 60 ft."),
        ({"head_oz": "3/0"}, "Head weight “3/0” cannot be; it must be from 1/32 to 4 oz."),
        ({"family": "toad"}, "The lure “toad” cannot be; it must be one of swim-jig"),
        ({"test_lb": "3"}, "Test 3 lb cannot be; it must be from 4 to 25 lb for fluorocarbon."),
        ({"times_s": "14 15"}, "Was the depth in metres?"),
        ({"times_s": "1.87 4.5 5.2"}, "Was a drop spoilt? 1.87 s beside 4.50, 5.20. Scrap it"),
        ({"times_s": "1.2 1.3"}, "only 0.3 of what the model gives"),
    ],
)
def test_a_drop_that_cannot_be_is_refused_in_one_sentence(
    visitor: TestClient, change: dict[str, str], words: str
) -> None:
    token = token_of(visitor)
    form = {
        "token": token,
        "kind": "drop",
        "family": "swim-jig",
        "head_oz": "3/8",
        "trailer": "paddle-tail",
        "trailer_length_in": "3.5",
        "line_material": "fluorocarbon",
        "test_lb": "15",
        "depth_ft": "10",
        "times_s": "4.1 4.2",
    }
    refused = visitor.post("/drops", data={**form, **change}, headers=HX)
    assert refused.status_code == 422
    assert words in refused.text
    assert visitor.get("/drops").text.count("withdraw</button>") == 2


@pytest.mark.slow
def test_a_rig_is_timed_as_it_is_dressed_and_teaches_the_whole_skirt_too(
    client: TestClient, token: str
) -> None:
    water = (
        "/?water_temp_f=74&cover=rock&bottom_depth_ft=14&fish_depth_ft=14&family=football-jig&box=standard"
    )
    page = client.get(f"{water}&forage=bluegill").text
    assert "fall known to" in page
    link = re.search(r'href="(/drops\?[^"]+skirt=trimmed[^"]*)"', page)
    assert link
    at = link[1].replace("&amp;", "&")
    assert re.search(r'value="trimmed"\s+selected', client.get(at).text)
    form = {"token": token, "kind": "drop", "depth_ft": "10", "times_s": "4.1 4.2 4.3"}
    said = client.post("/drops", data={**dict(parse_qsl(at.split("?")[1])), **form}, headers=HX).text
    assert re.search(r"oz football jig, [\w -]+ in, trimmed skirt", said)
    for forage in ("bluegill", "baitfish"):
        assert "fall known to" not in client.get(f"{water}&forage={forage}").text


@pytest.mark.slow
def test_depth_and_mat_checks_teach_and_can_be_withdrawn(client: TestClient, token: str) -> None:
    rig = {
        "token": token,
        "family": "punch-rig",
        "head_oz": "1",
        "trailer": "beaver",
        "trailer_length_in": "4",
        "test_lb": "15",
    }
    mat = {**rig, "kind": "mat", "texture": "hydrilla", "thickness_in": "4", "through": "no"}
    for _ in range(3):
        said = client.post("/drops", data=mat, headers=HX).text
    assert "Hydrilla mats need 1." in said
    water = "/?cover=matted-grass&texture=hydrilla&thickness_in=4&family=punch-rig&pick=punch-rig:1:beaver"
    half = re.search(r"half the time from ([\d.]+) oz on", client.get(water).text)
    assert half
    assert float(half[1]) > 0.87 * 1.1
    depth = {
        **rig,
        "kind": "depth",
        "family": "swim-jig",
        "head_oz": "3/8",
        "pace_ft_s": "2",
        "count_s": "3",
        "depth_ft": "3",
    }
    assert "times the lift assumed" in client.post("/drops", data=depth, headers=HX).text
    ids = re.findall(r"/drops/(\d+)/withdraw", client.get("/drops").text)
    for id_ in ids:
        client.post(f"/drops/{id_}/withdraw", data={"token": token}, headers=HX)
    assert "Nothing yet" in client.get("/drops").text
    assert client.post(f"/drops/{ids[0]}/back", data={"token": token}, headers=HX).status_code == 200
    assert client.post("/drops/999/withdraw", data={"token": token}, headers=HX).status_code == 404


@pytest.mark.slow
def test_a_bottom_found_on_the_water_teaches_and_its_place_is_told(client: TestClient, token: str) -> None:
    """A cast on record moves the fall that the sheet counts with; taken back, it moves nothing."""
    plain = client.get("/drops").text
    made = {
        "time": "2027-04-03T06:12:00+00:00",
        "stop": "Mill <bay>",
        "family": "swim-jig",
        "head_oz": 0.375,
        "trailer": "craw",
        "line": {"material": "fluorocarbon", "test_lb": 15},
        "countdown_s": 9.0,
        "pace_ft_s": 2.0,
        "outcome": "found-bottom",
        "at_s": 8.0,
        "conditions": {"bottom_depth_ft": 14.0, "water_temp_f": 60.0},
    }
    ids = [f"00000000-0000-4000-8000-00000000000{k}" for k in range(3)]
    for id_ in ids:
        assert client.post("/api/v1/casts", json={**made, "id": id_}).status_code < 300
    shown = client.get("/drops").text
    assert "On the water: 3 bottoms found teach too" not in plain
    assert "On the water: 3 bottoms found teach too" in shown
    told = re.search(r"2027-04-03 Mill &lt;bay&gt;:\s+14\.0 ft on record, (\d+\.\d) ft ± \d\.\d ft by", shown)
    assert told
    assert 14.0 < float(told[1]) < 16.0
    ran = "00000000-0000-4000-8000-000000000009"
    high = {**made, "id": ran, "outcome": "ran-high", "at_s": None}
    assert client.post("/api/v1/casts", json=high).status_code < 300
    shown = client.get("/drops").text
    assert "On the water: 3 bottoms found and 1 run high or low teach too" in shown
    for id_ in [*ids, ran]:
        client.delete(f"/api/v1/casts/{id_}")
    assert "On the water" not in client.get("/drops").text


def test_masses_are_those_of_the_box_where_none_were_given() -> None:
    """By family and weight of the head, by shape and length of the trailer; what was weighed here stays."""
    record = DropRecord(
        family="swim-jig", head_oz=0.375, trailer="craw", trailer_length_in=4.0, depth_ft=9.0, times_s=[4.0]
    )
    heads = [OwnedHead("bladed-jig", 0.375, "lead", 12.0), OwnedHead("swim-jig", 0.5, "lead", 15.0)]
    mine = [*heads, OwnedHead("swim-jig", 0.375, "lead", 11.1)]
    tails = [OwnedTrailer("chunk", 4.0, 9.0), OwnedTrailer("craw", 3.0, 7.0), OwnedTrailer("craw", 4.0, 9.9)]
    known = weighed(record, tackle_of(mine, tails))
    assert (known.head_g, known.trailer_g) == (11.1, 9.9)
    other = weighed(record, tackle_of(heads, tails[:2]))
    assert (other.head_g, other.trailer_g) == (None, None)
    given = record.model_copy(update={"head_g": 10.0, "trailer_g": 8.0})
    assert weighed(given, tackle_of(mine, tails)) == given
