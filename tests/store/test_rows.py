"""Rows as they are kept: named, changed, put away and taken back; the box they make."""

import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from sqlalchemy.orm import Session

from heathdrop.conditions.trip import TripBody
from heathdrop.errors import BadInput
from heathdrop.sizing.box import OwnedTrailer
from heathdrop.store import devices, items, plans, rows, scenarios, settings, trips, versions
from heathdrop.store.models import SavedScenario, new_uid, now
from heathdrop.store.own import trailer_of

BODY = {"conditions": {"water_temp_f": 58}}


def test_rows_are_put_away_and_taken_back(session: Session) -> None:
    one, two = (scenarios.save(session, n, BODY) for n in "ab")
    assert rows.put_away(session, SavedScenario, one.id) is one
    assert rows.put_away(session, SavedScenario, one.id) is None
    assert rows.fetch(session, SavedScenario, one.id) is None
    assert [r.name for r in rows.listed(session, SavedScenario)] == ["b"]
    assert [r.name for r in rows.listed(session, SavedScenario, with_gone=True)] == ["a", "b"]
    assert rows.uids(session, SavedScenario) == {one.uid, two.uid}
    assert rows.take_back(session, SavedScenario, one.id) is one
    assert rows.fetch(session, SavedScenario, one.id) is one
    for id_ in (0, -1, rows.MOST_ID + 1, 99):
        assert rows.fetch(session, SavedScenario, id_) is None
        assert rows.take_back(session, SavedScenario, id_) is None


def test_a_new_row_counts_and_has_a_name_for_good(session: Session) -> None:
    row = SavedScenario(name="Bay", body={"a": 1})
    session.add(row)
    session.flush()
    assert uuid.UUID(row.uid).version == 4
    assert (row.version, row.gone_at, row.note, row.pick) == (1, None, "", "")
    assert abs((datetime.now(UTC).replace(tzinfo=None) - row.created_at).total_seconds()) < 60
    assert new_uid() != new_uid()


def test_old_bodies_are_brought_up_to_date(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setitem(versions.CURRENT, "item", 3)
    monkeypatch.setitem(versions.UPGRADES, ("item", "head", 1), lambda b: {**b, "first": "head"})
    monkeypatch.setitem(versions.UPGRADES, ("item", "*", 1), lambda b: {**b, "first": "any"})
    monkeypatch.setitem(versions.UPGRADES, ("item", "*", 2), lambda b: {**b, "second": True})
    assert versions.upgraded("item", "head", 1, {}) == {"first": "head", "second": True}
    assert versions.upgraded("item", "rod", 1, {}) == {"first": "any", "second": True}
    assert versions.upgraded("item", "rod", 2, {}) == {"second": True}
    assert versions.upgraded("item", "rod", 3, {"a": 1}) == {"a": 1}
    with pytest.raises(versions.NewerBody, match="item of version 4"):
        versions.upgraded("item", "rod", 4, {})


def test_settings_are_read_with_care(session: Session) -> None:
    assert (settings.schools(session), settings.measures(session)) == ({}, "imperial")
    assert settings.read(session, "other", 3) == 3
    settings.keep(session, settings.SCHOOLS, {"a": "b", "c": 4})
    settings.keep(session, settings.MEASURES, "metric")
    session.flush()
    assert (settings.schools(session), settings.measures(session)) == ({"a": "b"}, "metric")
    settings.keep(session, settings.SCHOOLS, [1])
    settings.keep(session, settings.MEASURES, "furlongs")
    session.flush()
    assert (settings.schools(session), settings.measures(session)) == ({}, "imperial")


def test_a_scenario_of_the_same_name_is_replaced(session: Session) -> None:
    first = scenarios.save(session, "  Mill   bay ", BODY, "swim-jig:0.375:craw", "a note", "c" * 36)
    assert (first.name, first.pick, first.note, first.uid) == (
        "Mill bay",
        "swim-jig:0.375:craw",
        "a note",
        "c" * 36,
    )
    again = scenarios.save(session, "Mill bay", {"conditions": {}}, "", "other note")
    assert again is first
    assert (scenarios.body_of(first), first.pick, first.note) == ({"conditions": {}}, "", "a note")
    assert scenarios.named(session, " Mill  bay") is first
    assert scenarios.named(session, "mill") is None
    with pytest.raises(BadInput):
        scenarios.save(session, "x" * 81, BODY)
    assert scenarios.delete(session, first.id) is first
    assert (scenarios.named(session, "Mill bay"), scenarios.listed(session)) == (None, [])
    assert scenarios.undelete(session, first.id) is first
    assert [s.id for s in scenarios.listed(session)] == [first.id]


STOP = {"name": "Bay", "conditions": {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 6}}


def test_a_plan_is_kept_and_changed(session: Session) -> None:
    row = plans.keep(session, " A  day", {"stops": [STOP], "rods": 2}, "d" * 36)
    assert (row.name, row.uid, row.version) == ("A day", "d" * 36, 1)
    assert plans.request_of(row).rods == 2
    assert plans.change(session, row.id, {"stops": [STOP], "rods": 3}) is row
    assert (row.name, plans.body_of(row)["rods"]) == ("A day", 3)
    plans.change(session, row.id, {"stops": []}, "Another")
    assert (row.name, plans.fetch(session, row.id)) == ("Another", row)
    with pytest.raises(BadInput):
        plans.change(session, row.id, {}, "")
    assert plans.delete(session, row.id) is row
    assert (plans.fetch(session, row.id), plans.change(session, row.id, {})) == (None, None)
    assert plans.undelete(session, row.id) is row
    assert [p.id for p in plans.listed(session)] == [row.id]


def test_trips_are_named_apart_and_the_newest_under_way_counts(session: Session) -> None:
    body = TripBody.model_validate({"date": "2027-09-25", "stops": [STOP]})
    assert trips.current(session) is None
    names = [trips.begin(session, "  A  day ", body).name for _ in range(3)]
    assert names == ["A day", "A day (2)", "A day (3)"]
    assert trips.begin(session, " ", body).name == "A day (4)"
    last = trips.begin(session, "y" * 200, body, "e" * 36)
    assert (len(last.name), last.uid) == (120, "e" * 36)
    found = trips.current(session)
    assert found is not None
    assert found[0] is last
    trips.write(last, body.model_copy(update={"ended": True}))
    found = trips.current(session)
    assert found is not None
    assert found[0].name == "A day (4)"
    last.body = {"date": "never"}
    assert trips.current(session) is not None
    assert [t.name for t in trips.listed(session)][:2] == names[:2]


HEAD: dict[str, Any] = {"family": "swim-jig", "weight_oz": 0.375, "colour": "black", "quantity": 4}


CRAW: dict[str, Any] = {
    "shape": "craw",
    "length_in": 4.0,
    "mass_g": 9.8,
    "width_in": 0.9,
}


def test_a_trailer_left_joined_has_a_shape_of_its_own() -> None:
    def owned(**more: Any) -> OwnedTrailer:
        return trailer_of(items.TrailerItem.model_validate({**CRAW, **more}))

    assert owned() == OwnedTrailer("craw", 4.0, 9.8, 0.9, "neutral", "soft", False)
    assert owned(split=False) == OwnedTrailer("craw", 4.0, 9.8, 0.9, "neutral", "soft", True)
    assert owned(shape="creature", split=False).shape == "creature-fused"
    assert owned(shape="creature", split=False).fused is False
    assert owned(shape="creature").shape == "creature"


@pytest.mark.parametrize(
    ("minutes", "said"),
    [
        (0, "just now"),
        (1.9, "just now"),
        (2.1, "2 minutes ago"),
        (119, "119 minutes ago"),
        (121, "2 hours ago"),
        (2879, "47 hours ago"),
        (2881, "2 days ago"),
    ],
)
def test_how_long_ago(minutes: float, said: str) -> None:
    assert devices.ago(now() - timedelta(minutes=minutes)) == said


def test_kept_edited_copied_and_deleted(session: Session) -> None:
    row = items.add(session, "head", HEAD, "b" * 36)
    assert (row.uid, row.kind, row.version) == ("b" * 36, "head", 1)
    copy = items.duplicate(session, row.id)
    assert copy is not None
    assert (items.body_of(copy), copy.uid != row.uid) == (items.body_of(row), True)
    edited = items.edit(session, copy.id, {"colour": "", "weight_oz": 0.5})
    assert edited is copy
    assert items.body_of(copy) == {"name": "", "colour": "", "quantity": 4, "family": "swim-jig"} | {
        "weight_oz": 0.5,
        "material": "lead",
    }
    with pytest.raises(BadInput, match="weight_oz was 9"):
        items.edit(session, row.id, {"weight_oz": 9})
    assert items.delete(session, row.id) is row
    assert (items.duplicate(session, row.id), items.edit(session, row.id, {})) == (None, None)
    assert [i.id for i in items.listed(session)] == [copy.id]
    session.flush()
    assert [(k.id, k.kind) for k in items.light_items(session)] == [(copy.id, "head")]
    assert items.undelete(session, row.id) is row
    assert items.light(row).body == items.checked("head", HEAD)
