"""Sizing from the box, what it is missing, and a box too large to try every pair."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.advice.missing import missing
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig import lure_of
from heathdrop.sizing.box import MOST_PAIRS, OwnedHead, OwnedTrailer, Tackle, box_rigs, pair, tackle_of
from heathdrop.sizing.size import setting_of, size

DAY = Conditions(water_temp_f=60, bottom_depth_ft=10, fish_depth_ft=6)
SMALL = tackle_of(
    [OwnedHead("swim-jig", 0.375, mass_g=10.9), OwnedHead("swim-jig", 0.25)], [OwnedTrailer("craw", 4.0, 9.8)]
)


def test_my_box_both_and_what_is_owned(cat: Catalog) -> None:
    mine = size(cat, Scenario(DAY, box="mine"), tackle=SMALL)
    named = {"swim-jig:0.375:craw:head_g=10.9:trailer_g=9.8", "swim-jig:0.25:craw:trailer_g=9.8"}
    assert {r.key for r in mine.rigs} == named
    assert mine.rigs[0].rig.measured.trailer_g == 9.8
    both = size(cat, Scenario(DAY, families=("swim-jig",), box="both"), tackle=SMALL)
    standard = len(size(cat, Scenario(DAY, families=("swim-jig",))).rigs)
    # Of the two owned pairs one or both stand in the standard set too, by the craw's best length.
    assert standard <= len(both.rigs) <= standard + 2
    assert sum(SMALL.owns(r.rig) for r in both.rigs) == 2
    with pytest.raises(
        BadInput,
        match="box was “mine”; it must be standard or both until your box holds a head for a bladed jig",
    ):
        size(cat, Scenario(DAY, families=("bladed-jig",), box="mine"), tackle=SMALL)


def test_measured_mass_beats_the_nominal_ounce_and_width_adds_bulk(cat: Catalog) -> None:
    nominal = pair(cat, OwnedHead("swim-jig", 0.375), OwnedTrailer("craw", 4.0))
    heavy = pair(cat, OwnedHead("swim-jig", 0.375, mass_g=14.0), OwnedTrailer("craw", 4.0, 9.0))
    assert heavy.head_kg == pytest.approx(0.014)
    assert nominal.head_kg == pytest.approx(0.01063, rel=1e-3)
    wide = pair(cat, OwnedHead("swim-jig", 0.375), OwnedTrailer("craw", 4.0, None, 3.0))
    assert wide.measured.width == pytest.approx(3.0 / (0.5 * 4.0))


def test_a_fused_trailer_glides_and_stirs_less(cat: Catalog) -> None:
    head = OwnedHead("weighted-plastic", 0.25)
    split, fused = (pair(cat, head, OwnedTrailer("craw", 4.0, fused=f)) for f in (False, True))
    slow, quick = (lure_of(cat, r, 999.0, 60.0) for r in (fused, split))
    assert slow.glide_ratio > 3 * quick.glide_ratio
    assert fused.trailer.action < split.trailer.action
    assert fused.trailer.id == "craw"
    paddle = pair(cat, head, OwnedTrailer("paddle-tail", 3.5, fused=True))
    assert paddle == pair(cat, head, OwnedTrailer("paddle-tail", 3.5))  # one tail cannot be joined to another


@pytest.mark.slow
def test_a_large_box_keeps_every_weight_and_loses_little(cat: Catalog) -> None:
    """Against trying every distinct pair: the best rig is within 0.03, with a fraction of the casts."""
    shapes = [t for t in cat.trailers.values() if t.standard]
    heads = [
        OwnedHead("swim-jig", oz, mass_g=round(oz * 28.35 + 0.1 * k, 2))
        for k in range(5)
        for oz in cat.families["swim-jig"].weights_oz
    ]
    trailers = [
        OwnedTrailer(s.id, round(s.length_in * (0.7 + 0.06 * k), 2)) for s in shapes for k in range(12)
    ]
    tackle = tackle_of(heads, trailers)
    scenario = Scenario(DAY, Gear(), ("swim-jig",), box="mine")
    picked = box_rigs(setting_of(cat, scenario), tackle)
    assert len(picked) <= MOST_PAIRS
    assert {r.head_oz for r in picked} == set(cat.families["swim-jig"].weights_oz)
    every = [pair(cat, h, t) for h in heads[:8] for t in trailers]
    assert len(every) > 4 * len(picked)
    best = size(cat, scenario, every).rigs[0].fits.score
    assert size(cat, scenario, picked).rigs[0].fits.score > best - 0.03


@pytest.mark.slow
def test_the_purchase_named_raises_the_worst_fit(cat: Catalog) -> None:
    deep = Scenario(replace(DAY, fish_depth_ft=9.0, bottom_depth_ft=20.0))
    light = Tackle((OwnedHead("swim-jig", 0.1875),), (OwnedTrailer("chunk", 4.0),))
    found = missing(cat, light, [("deep", deep), ("day", Scenario(DAY))])
    assert found.purchases
    for purchase in found.purchases:
        assert all(after > before for _, before, after in purchase.gains)
    assert dict(found.now)["deep"] < 0.9
    whole = tackle_of(
        [OwnedHead(f.id, oz) for f in cat.families.values() for oz in f.weights_oz],
        [OwnedTrailer(t.id, t.length_in) for t in cat.trailers.values() if t.standard],
    )
    assert missing(cat, whole, [("day", Scenario(DAY))]).purchases == ()
