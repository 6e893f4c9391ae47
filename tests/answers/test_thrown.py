"""A cast looked at again: the rig, the depth it ran at, seconds among the fish."""

from __future__ import annotations

import pytest

from heathdrop.answers.thrown import LEAST_S, hours_among, rig_of, run_of
from heathdrop.api.planning import rig_written
from heathdrop.catalog import load
from heathdrop.conditions.made import MadeCast
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import RigName, name_of
from tests.answers.logged import cast

WATER = {
    "water_temp_f": 64,
    "bottom_depth_ft": 9,
    "fish_depth_ft": 5,
    "cover": {"kind": "open"},
}


def test_a_longer_count_runs_deeper() -> None:
    runs = [run_of(cast(0, conditions=WATER, countdown_s=count)) for count in (0.5, 2.0, 4.0)]
    depths = [r.depth_ft for r in runs if r is not None]
    assert len(depths) == 3
    assert depths == sorted(depths)
    assert depths[-1] - depths[0] > 1.0


def test_seconds_among_the_fish_are_those_of_the_band() -> None:
    well = run_of(cast(0, conditions=WATER, countdown_s=2.0))
    deep = run_of(cast(0, conditions={**WATER, "bottom_depth_ft": 30, "fish_depth_ft": 28}, countdown_s=0.0))
    assert well is not None
    assert deep is not None
    assert well.among_s > 5.0
    assert deep.among_s < 1.0
    assert hours_among([run_of(cast(0, conditions={**WATER, "bottom_depth_ft": 30, "fish_depth_ft": 28}))])[
        0
    ] * 3600 == (  # type: ignore[index]
        pytest.approx(LEAST_S)
    )


def test_a_water_that_is_not_known_counts_as_the_others_do() -> None:
    known, unknown = cast(0, conditions=WATER, countdown_s=2.0), cast(1, conditions=None)
    assert run_of(unknown) is None
    assert run_of(cast(0, conditions={**WATER, "fish_depth_ft": 50})) is None
    hours = hours_among([run_of(known), run_of(unknown)])
    assert hours is not None
    assert hours[0] == hours[1] == pytest.approx(run_of(known).among_s / 3600.0)  # type: ignore[union-attr]
    assert hours_among([run_of(unknown)]) is None


def test_the_count_that_was_thrown_counts() -> None:
    asked, thrown = (cast(0, conditions=WATER, countdown_s=1.0, count_s=c) for c in (None, 4.0))
    assert run_of(thrown) == run_of(cast(0, conditions=WATER, countdown_s=4.0))
    assert run_of(asked) != run_of(thrown)


def test_a_rig_that_there_is_none_of_is_named() -> None:
    assert rig_of(cast(0, family="swim-jig", head_oz=0.5)).head_oz == 0.5
    with pytest.raises(BadInput) as refusal:
        rig_of(cast(0, trailer="toad"), "casts[0].")
    assert refusal.value.field == "casts[0].trailer"
    assert run_of(cast(0, trailer="toad", conditions=WATER)) is None


def test_the_record_of_a_cast_keeps_what_was_on_the_line_whole() -> None:
    """A weighed, measured, fused or dense rig is the same rig after its cast."""
    text = "swim-jig:0.375:craw:shape=football:softness=dense:fused=yes:head_g=11.2:trailer_g=9.5:width=1.2"
    rig = RigName.parse(text).rig(load())
    kept = cast(0, **rig_written(rig).model_dump())
    assert name_of(rig_of(MadeCast.model_validate(kept.model_dump(mode="json")))).text() == text
