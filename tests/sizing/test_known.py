"""Nothing learned leaves everything as the catalogue has it."""

from __future__ import annotations

from dataclasses import fields

import pytest

from heathdrop.catalog import Catalog
from heathdrop.physics.line import line_by_test
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.known import AS_TABLED, TRAIT, UNTAUGHT, OwnFish, Untaught


def test_a_stranger_knows_what_the_catalogue_knows(cat: Catalog) -> None:
    rig = rig_by_name(cat, "swim-jig", 0.5, "craw")
    line = line_by_test(cat, "nylon", 12)
    assert UNTAUGHT.applied(rig) is rig
    assert UNTAUGHT.line(line, "nylon") is line
    assert UNTAUGHT.mat_factor("hydrilla") == 1.0
    assert isinstance(UNTAUGHT, Untaught)


def test_a_mood_differs_by_the_water_with_a_ramp_between() -> None:
    own = OwnFish(cold=-0.6, warm=0.4, casts=(("cold", 40),))
    at = [own.mood_at(f) for f in (40.0, 52.0, 55.0, 58.0, 80.0)]
    assert at == pytest.approx([-0.6, -0.6, -0.1, 0.4, 0.4])
    assert (own.casts_of("cold"), own.casts_of("warm")) == (40, 0)
    assert AS_TABLED.mood_at(50.0) == 0.0


def test_each_trait_has_its_field_its_ends_and_its_words() -> None:
    assert {t.field for t in TRAIT.values()} == {f.name for f in fields(OwnFish)} - {"casts"}
    table = {"factor": 1.0, "steps": 0.0, "share": 0.5}
    for trait in TRAIT.values():
        assert trait.low < table[trait.unit] < trait.high
    assert TRAIT["pace"].said(0.86, 1.0) == "14 % slower"
    assert TRAIT["pace"].against(1.2, 1.0) == "20 % quicker than the tables have it"
    assert TRAIT["mood in cold water"].against(0.5, 0.0) == "0.5 steps livelier than the tables have it"
    assert TRAIT["empty stops"].against(0.3, 0.5) == "30 % instead of 50 %, fewer of them"
