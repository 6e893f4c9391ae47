"""What the log told and the angler agreed to: in use, out and back, withdrawn."""

from __future__ import annotations

from pathlib import Path

import pytest
from sqlalchemy.orm import Session

from heathdrop.answers.shifts import Shift
from heathdrop.answers.trials import Trial
from heathdrop.errors import BadInput
from heathdrop.sizing.known import AS_TABLED, TRAIT, OwnFish
from heathdrop.store import fish, settings
from heathdrop.store.database import Database
from heathdrop.store.files.registry import BY_NAME
from heathdrop.store.own import own_of

SLOWER = Shift("pace", 0.86, 0.8, 0.93, 41, told=True)
LIGHTER = Shift("head weight", 0.7, 0.6, 0.8, 120, told=True)
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


def test_every_trait_comes_out_as_it_was_agreed(session: Session) -> None:
    """Each by its own field; what lies beyond its ends is held to them; an older file's word is read."""
    for k, trait in enumerate(TRAIT.values()):
        fish.agree(session, Shift(trait.name, 99.0, 0.0, 1.0, 10 + k, unit=trait.unit))
    found = fish.fish_of(session)
    assert {t.field: getattr(found, t.field) for t in TRAIT.values()} == {
        t.field: t.high for t in TRAIT.values()
    }
    assert found.casts_of("tires") == 10 + list(TRAIT).index("the same cast again")
    settings.keep(session, fish.FISH, {"pace": {"factor": 0.8, "casts": 3}})
    assert fish.fish_of(session) == OwnFish(pace=0.8, casts=(("pace", 3),))


def test_a_school_that_the_log_chose_says_so_until_another_is_held_to(session: Session) -> None:
    fish.hold(session, SPOKEN)
    assert own_of(session).schools == (("weight-lean", "lighter"),)
    assert own_of(session).spoken == (("weight-lean", 3.4),)
    settings.keep(session, settings.SCHOOLS, {"weight-lean": "heavier"})
    assert own_of(session).spoken == ()


def test_out_and_back_and_hostile_files(session: Session, tmp_path: Path) -> None:
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
