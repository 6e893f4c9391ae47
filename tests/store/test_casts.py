"""Casts, answers, drops and the angler's own fish as kept: once, in order, withdrawn and back."""

import uuid
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from sqlalchemy.orm import Session

from heathdrop.answers.drill.question import Named
from heathdrop.answers.shifts import Shift
from heathdrop.answers.trials import Trial
from heathdrop.catalog import Catalog
from heathdrop.conditions.drilled import Drilled
from heathdrop.conditions.made import OUTCOMES, MadeCast
from heathdrop.conditions.trip import TripBody
from heathdrop.errors import BadInput
from heathdrop.sizing.knowledge import AS_TABLED, OwnFish
from heathdrop.store import casts, drills, fish, observations, settings, trips
from heathdrop.store.database import Database
from heathdrop.store.files.jsonfile import read_drills
from heathdrop.store.files.registry import BY_NAME
from heathdrop.store.models import DrillDone
from heathdrop.store.own import own_of
from tests.golden_file import holds_to
from tests.said import all_said
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


@pytest.fixture
def session(tmp_path: Path) -> Iterator[Session]:
    database = Database(tmp_path / "own.sqlite")
    with database.session() as session:
        yield session
    database.close()


def counted(k: int, share: float = 1.1, days_ago: int = 0) -> Drilled:
    return Drilled(
        id=uuid.UUID(int=k + 1),
        question=f"count.middle.{k}",
        time=datetime.now(UTC) - timedelta(days=days_ago, minutes=100 - k),
        mark=0.5,
        off=0.7,
        asked_s=7.0,
        tapped_s=round(7.0 * share, 3),
    )


def test_kept_once_in_the_order_given(session: Session) -> None:
    rows = [counted(2), counted(1)]
    assert len(drills.keep(session, rows)) == 2
    assert drills.keep(session, rows) == []
    assert [d.question for d in drills.listed(session)] == ["count.middle.1", "count.middle.2"]
    assert [m.topic for m in drills.marked(drills.listed(session))] == ["count.middle"] * 2


def test_the_hand_is_used_when_agreed_enough_and_fresh(session: Session) -> None:
    drills.keep(session, [counted(k) for k in range(9)])
    drills.use(session, True)
    assert drills.hand_used(session) is None
    drills.keep(session, [counted(9)])
    hand = drills.hand_used(session)
    assert hand is not None
    assert hand.whole.bias == pytest.approx(0.1, abs=0.01)
    own = own_of(session).learned
    assert own.count_error() == pytest.approx(hand.error, abs=1e-4)
    drills.use(session, False)
    assert own_of(session).learned.count_error() is None


def test_a_repair_kept_under_an_older_name_is_read_under_today_s(session: Session) -> None:
    row = DrillDone(uid=str(uuid.UUID(int=9)), version=1, body={
        "question": "repair.ran-too-high.4", "time": "2026-03-01T08:00:00+00:00", "mark": 1.0,
    })  # fmt: skip
    session.add(row)
    session.flush()
    assert [d.question for d in drills.listed(session)] == ["repair.ran-high.4"]
    assert Named.parse("repair.hung-up.2").text == "repair.hung.2"


def test_out_and_back_and_hostile_files(session: Session, tmp_path: Path) -> None:
    drills.keep(session, [counted(k) for k in range(3)])
    drills.use(session, True)
    entry, setting = BY_NAME["drills.json"], BY_NAME["settings.json"]
    raw = entry.written(entry.rows(session)).encode()
    other = Database(tmp_path / "other.sqlite")
    with other.session() as there:
        assert len(entry.keep(there, read_drills(raw).rows)) == 3
        setting.keep(there, setting.read(setting.written(setting.rows(session)).encode()).rows)
        assert drills.in_use(there)
        assert entry.written(entry.rows(there)).encode() == raw
    other.close()
    for wrong in (raw.replace(b"count.middle.1", b"count.endless.1"), raw.replace(b"7.7", b"0.9")):
        with pytest.raises(BadInput, match=r"drills.json|drills\["):
            read_drills(wrong)
    with pytest.raises(BadInput, match="hand"):
        setting.read(b'{"version": 1, "schools": {}, "hand": "yes"}')


RIG = {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw", "trailer_length_in": 4}


DROP = {**RIG, "depth_ft": 10, "times_s": [5.0, 5.2], "off_reel": True, "diameter_mm": 0.3, "head_g": 11}


DEPTH = {**RIG, "pace_ft_s": 2, "count_s": 3, "depth_ft": 4, "line_material": "braid", "test_lb": 30}


MAT = {**RIG, "family": "punch-rig", "thickness_in": 4, "through": False, "texture": "hyacinth"}


def test_each_kind_or_its_refusal(cat: Catalog) -> None:
    given = [
        ("drop", DROP),
        ("depth", DEPTH),
        ("mat", MAT),
        ("splash", DROP),
        ("drop", {**DROP, "times_s": []}),
        ("drop", {**DROP, "times_s": [0.1, 300]}),
        ("drop", {**DROP, "depth_ft": 0.5}),
        ("drop", {**DROP, "trailer": "toad"}),
        ("drop", {**DROP, "line_material": "hemp"}),
        ("drop", {**DROP, "colour": "red"}),
        ("drop", RIG),
        ("depth", {**DEPTH, "pace_ft_s": 9}),
        ("depth", {**DEPTH, "test_lb": 200}),
        ("depth", {**DEPTH, "head_material": "gold"}),
        ("mat", {**MAT, "texture": "snow"}),
        ("mat", {**MAT, "note": "x" * 201}),
        ("mat", {**MAT, "through": "perhaps"}),
    ]
    holds_to(
        "store.observations", all_said(lambda g: observations.checked(cat, g[0], g[1], "row 3, "), given)
    )


SLOWER = Shift("pace", 0.86, 0.8, 0.93, 41, sure=True)


LIGHTER = Shift("head weight", 0.7, 0.6, 0.8, 120, sure=True)


SPOKEN = Trial("weight-lean", "lighter", 3.4, "strongly for it", 150)


def test_a_shift_is_in_use_from_agreeing_to_withdrawing(session: Session) -> None:
    assert fish.fish_of(session) == AS_TABLED
    assert own_of(session).learned.own_fish() == AS_TABLED
    fish.agree(session, SLOWER)
    fish.agree(session, LIGHTER)
    wanted = OwnFish(head=0.7, pace=0.86, casts=(("head", 120), ("pace", 41)))
    assert fish.fish_of(session) == own_of(session).learned.own_fish() == wanted
    fish.withdraw(session, "pace")
    assert own_of(session).learned.own_fish() == OwnFish(head=0.7, casts=(("head", 120),))
    fish.withdraw(session, "head weight")
    assert own_of(session).learned.own_fish() == AS_TABLED


def test_a_school_that_the_log_chose_says_so_until_another_is_held_to(session: Session) -> None:
    fish.hold(session, SPOKEN)
    assert own_of(session).schools == (("weight-lean", "lighter"),)
    assert own_of(session).spoken == (("weight-lean", 3.4),)
    settings.keep(session, settings.SCHOOLS, {"weight-lean": "heavier"})
    assert own_of(session).spoken == ()


def test_fish_out_and_back_and_hostile_files(session: Session, tmp_path: Path) -> None:
    fish.agree(session, SLOWER)
    fish.hold(session, SPOKEN)
    setting = BY_NAME["settings.json"]
    text = setting.written(setting.rows(session))
    other = Database(tmp_path / "other.sqlite")
    with other.session() as there:
        setting.keep(there, setting.read(text.encode()).rows)
        assert setting.written(setting.rows(there)) == text
        assert own_of(there).learned.own_fish().pace == 0.86
        assert own_of(there).spoken == (("weight-lean", 3.4),)
    other.close()
    for wrong in (
        b'{"version": 1, "schools": {}, "fish": {"pace": {"factor": 40, "casts": 1}}}',
        b'{"version": 1, "schools": {}, "fish": {"empty stops": {"value": 1.5, "casts": 1}}}',
        b'{"version": 1, "schools": {}, "fish": [1]}',
        b'{"version": 1, "schools": {}, "spoken": {"weight-lean": {"school": 1}}}',
    ):
        with pytest.raises(BadInput, match=r"settings.json, (fish|spoken)"):
            setting.read(wrong)


@pytest.mark.parametrize(
    "kept",
    [
        [],
        "x",
        {"pace": {"factor": "slow"}},
        {"pace": 3},
        {"mood": {"factor": 1.0}},
        {"pace": {"value": 7.0, "casts": 3}},
    ],
)
def test_what_cannot_be_read_is_in_use_by_nobody(session: Session, kept: object) -> None:
    settings.keep(session, fish.FISH, kept)
    settings.keep(session, fish.SPOKEN, kept)
    assert own_of(session).learned.own_fish() == AS_TABLED
    assert fish.spoken(session) == {}


def test_as_the_learning_sees_them(cat: Catalog) -> None:
    drop = observations.DropRecord.model_validate(DROP).seen(cat)
    assert (drop.depth_m, drop.surface_line_m) == pytest.approx((3.048, 1.524))
    assert drop.line.diameter_m == pytest.approx(0.3e-3)
    assert (drop.rig.measured.head_g, drop.times_s, drop.line_material) == (11.0, (5.0, 5.2), "fluorocarbon")
    thrown = observations.DropRecord.model_validate({**DROP, "off_reel": False}).seen(cat)
    assert thrown.surface_line_m == 0.0
    depth = observations.DepthRecord.model_validate(DEPTH).seen(cat)
    seen = (depth.pace_m_s, depth.count_s, depth.cast_m, depth.depth_m, depth.rod_tip_m, depth.temperature_f)
    assert seen == pytest.approx((0.6096, 3.0, 24.384, 1.2192, 0.6096, 60.0))
    assert depth.line.density_kg_m3 == 970
    mat = observations.MatRecord.model_validate(MAT).seen(cat)
    assert (mat.texture, mat.through) == ("hyacinth", False)
    assert (mat.weight_oz, mat.halfway_oz) == pytest.approx((0.28125, 1.2))
