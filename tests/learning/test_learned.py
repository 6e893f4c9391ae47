"""What was learned, put to a rig, to a line and into a sentence."""

from __future__ import annotations

import pytest

from heathdrop.catalog import Catalog
from heathdrop.learning.checks import OneFactor
from heathdrop.learning.learned import NOTHING, Learned, before_after, fall_area_cm2, learn
from heathdrop.physics.line import line_by_test
from heathdrop.physics.rig import rig_by_name
from tests.golden_file import holds_to
from tests.learning.seen import depths, drops, mats


def test_each_kind_teaches_its_own(cat: Catalog) -> None:
    all_of_it = learn(cat, [*drops(cat), *depths(cat), *mats()])
    craw = rig_by_name(cat, "swim-jig", 0.375, "craw")
    own = all_of_it.applied(craw).measured
    assert own.lift == all_of_it.lifts["swim-jig/craw/4"].factor != 1.0
    assert own.lift_spread == all_of_it.lifts["swim-jig/craw/4"].spread
    assert own.trailer_fall == all_of_it.falls.factor("trailer:craw/4") != 1.0
    assert set(all_of_it.lifts) == {"swim-jig/craw/4", "bladed-jig/pin-tail/4"}
    assert set(all_of_it.mats) == {"milfoil", "duckweed"}
    assert learn(cat, []) is NOTHING


def test_a_line_and_a_mat_take_their_factor() -> None:
    from heathdrop import catalog

    cat = catalog.load()
    line, known = line_by_test(cat, "nylon", 12), learn(cat, drops(cat))
    factor = known.falls.factor("line:nylon")
    assert factor != 1.0
    assert known.line(line, "nylon").friction == pytest.approx(line.friction * factor)
    assert known.line(line, "braid") is line
    said = Learned(mats={"milfoil": OneFactor(1.3, 0.2, 4)})
    assert (said.mat_factor("milfoil"), said.mat_factor("algae")) == (1.3, 1.0)


def test_the_sentences_to_the_letter(cat: Catalog) -> None:
    known = learn(cat, [*drops(cat), *depths(cat)])
    told = []
    for family, oz, trailer in (
        ("swim-jig", 0.375, "craw"),
        ("casting-jig", 0.5, "chunk"),
        ("football-jig", 0.75, "none"),
        ("swim-jig", 0.5, "paddle-tail"),
    ):
        rig = rig_by_name(cat, family, oz, trailer)
        told.append(
            [before_after(cat, known, rig, "rig", 58.0), fall_area_cm2(cat, known.applied(rig), 58.0)]
        )
    holds_to("learning.learned", told)
