"""The change panel says what the strip says, and its links lead to the rig that they name."""

from __future__ import annotations

from dataclasses import dataclass, replace

import pytest

from heathdrop.advice.change import COMPLAINTS, changes_for
from heathdrop.answers.water import with_rig
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
from heathdrop.sizing.known import Untaught
from heathdrop.sizing.size import size
from tests.waters import BAIT, GRASS, MAT, WOOD


@dataclass(frozen=True, eq=False)
class HardMat(Untaught):
    """Entries that stalled have taught that this mat needs 1.8 times the weight assumed."""

    def mat_factor(self, texture: str) -> float:
        return 1.8


def test_the_panel_counts_what_was_learned_of_the_mat(cat: Catalog) -> None:
    sizing = size(cat, Scenario(MAT, families=("punch-rig",)), known=HardMat())
    rated = min(sizing.rigs, key=lambda r: abs(r.cover.passes - 0.5))
    changes = changes_for(cat, sizing, rated, "will-not-go-through")
    said = [c.effect for c in changes if c.effect.startswith("goes through")]
    assert said
    assert all(f"instead of {rated.cover.passes * 100:.0f} of 100" in effect for effect in said)


BOX = tackle_of(
    [OwnedHead("swim-jig", 0.375, mass_g=10.9), OwnedHead("swim-jig", 0.5)],
    [
        OwnedTrailer("craw", 4.0, 9.8, 3.0),
        OwnedTrailer("craw", 4.0, softness="dense"),
        OwnedTrailer("craw", 4.0, fused=True),
        OwnedTrailer("paddle-tail", 3.8),
        OwnedTrailer("chunk", 3.0, plastic="salted"),
    ],
)


def test_no_two_rigs_of_a_box_share_a_name(cat: Catalog) -> None:
    sizing = size(cat, Scenario(GRASS, families=("swim-jig",), box="mine"), tackle=BOX)
    assert len(sizing.rigs) == 10
    assert len({r.key for r in sizing.rigs}) == 10


@pytest.mark.slow
@pytest.mark.parametrize("complaint", [c for c in COMPLAINTS if c not in ("nothing", "hung-up")])
def test_each_link_of_the_panel_leads_to_the_rig_it_names(cat: Catalog, complaint: str) -> None:
    """From one's own box too, where most of these links named a rig that was not on the board."""
    sizing, picks = size(cat, Scenario(GRASS, families=("swim-jig",), box="mine"), tackle=BOX), 0
    for rated in sizing.rigs:
        for change in changes_for(cat, sizing, rated, complaint):
            pick = dict(change.tries).get("pick")
            if not pick:
                continue
            picks += 1
            whole, found = with_rig(sizing, RigName.parse(pick))
            assert found.key == pick
            assert found in whole.rigs
    assert picks == 0 if complaint == "will-not-go-through" else picks >= len(sizing.rigs)


def test_bulk_is_one_number(cat: Catalog) -> None:
    """A wide craw: the same square centimetres on the shelf, in the drag and in the fit."""
    clear = replace(GRASS, clarity_ft=10.0)
    wide = OwnedTrailer("craw", 4.0, None, 3.0)
    assert wide.bulk_cm2(cat) == pytest.approx(7.5)
    sizing = size(
        cat,
        Scenario(clear, families=("swim-jig",), box="mine"),
        tackle=tackle_of([OwnedHead("swim-jig", 0.5)], [wide]),
    )
    assert sizing.rigs[0].rig.bulk_cm2 == pytest.approx(7.5)
    plain = size(
        cat,
        Scenario(clear, families=("swim-jig",), box="mine"),
        tackle=tackle_of([OwnedHead("swim-jig", 0.5)], [replace(wide, width_in=None)]),
    )
    assert plain.rigs[0].rig.bulk_cm2 == pytest.approx(5.0)
    assert plain.rigs[0].fits.parts["profile"] > sizing.rigs[0].fits.parts["profile"]


def test_complaints(cat: Catalog) -> None:
    sizing = size(cat, Scenario(BAIT, families=("underspin",)))
    with pytest.raises(BadInput, match="wrong was “bored”; it must be one of ran-too-high"):
        changes_for(cat, sizing, sizing.rigs[0], "bored")
    high = changes_for(cat, sizing, sizing.rigs[0], "ran-too-high")
    assert [c.mends for c in high] == sorted((c.mends for c in high), reverse=True)
    assert all("deeper" in c.effect for c in high if c.mends)
    bladed = size(cat, Scenario(WOOD, families=("bladed-jig",)))
    one_tail = next(r for r in bladed.rigs if r.rig.trailer.appendages < 2)
    assert "Two arms behind it: small craw" in [c.what for c in changes_for(cat, bladed, one_tail, "hung-up")]
