"""Answers kept: once each, by the clock; the hand in use only when agreed, enough and fresh."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from sqlalchemy.orm import Session

from heathdrop.answers.drill.question import Named
from heathdrop.conditions.drilled import Drilled
from heathdrop.errors import BadInput
from heathdrop.store import drills
from heathdrop.store.database import Database
from heathdrop.store.files.jsonfile import read_drills
from heathdrop.store.files.registry import BY_NAME
from heathdrop.store.models import DrillDone
from heathdrop.store.own import own_of


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


def test_turns_are_used_as_counts_are(session: Session) -> None:
    """Ten rounds of turns a tenth slow: the handle is known, the count stays as assumed."""
    rounds = [
        counted(k).model_copy(update={"question": f"pace.middle.{k}", "asked_s": 10.0, "tapped_s": 11.0})
        for k in range(10)
    ]
    drills.keep(session, rounds)
    assert own_of(session).learned.handle() is None
    drills.use(session, True)
    own = own_of(session).learned
    handle = own.handle()
    assert handle is not None
    assert handle == drills.hand(session, "pace").turning  # type: ignore[union-attr]
    assert -0.1 < handle.quicker < -0.07
    assert own.count_error() is None


def test_a_repair_kept_under_an_older_name_is_read_under_today_s(session: Session) -> None:
    row = DrillDone(uid=str(uuid.UUID(int=9)), version=1, body={
        "question": "repair.ran-too-high.4", "time": "2026-03-01T08:00:00+00:00", "mark": 1.0,
    })  # fmt: skip
    session.add(row)
    session.flush()
    assert [d.question for d in drills.listed(session)] == ["repair.ran-high.4"]
    assert Named.parse("repair.hung-up.2").text == "repair.hung.2"


def test_a_season_later_it_has_grown_stale(session: Session) -> None:
    drills.keep(session, [counted(k, days_ago=130) for k in range(12)])
    drills.use(session, True)
    assert drills.stale(session)
    assert drills.hand_used(session) is None
    assert not drills.stale(session, datetime.now(UTC) - timedelta(days=100))


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
