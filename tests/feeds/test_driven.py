"""The bottom as driven: distance run, outliers, the profile under a cast, GPX there and back, applied."""

from typing import Any

import numpy as np
import pytest

from heathdrop import catalog as catalogue
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Conditions, Scenario, check
from heathdrop.errors import BadInput
from heathdrop.feeds.driven import (
    Sounding,
    Track,
    driven_of,
    from_gpx,
    to_gpx,
)
from heathdrop.feeds.feed import Feed
from heathdrop.feeds.simulated import BOTTOM_FT, Boat
from heathdrop.sizing.cast import cast_of
from heathdrop.sizing.size import size
from heathdrop.units import feet
from heathdrop.web.shell.fields import body_from, profile_text, values_from, values_of


def straight(depths: list[float], step_ft: float = 4.0) -> list[Sounding]:
    return [Sounding(step_ft * k, d, 50.0 + k * 1e-5, -4.0) for k, d in enumerate(depths)]


def driven_by_boat(seconds: int, faults: bool = False) -> Track:
    """A run of the simulated boat, through its sentences."""
    clock = [0.0]
    feed = Feed(clock=lambda: clock[0])
    feed.track.begin()
    boat = Boat(seed=5, speed_mph=3.0, faults=faults)
    for second in range(seconds):
        clock[0] = float(second)
        for line in boat.sentences(float(second)):
            feed.hear(line)
    feed.track.end()
    return feed.track


@pytest.mark.parametrize("faults", [False, True])
def test_the_simulated_lake_is_found_as_it_is(faults: bool) -> None:
    """Driven over the drop at 420 to 460 ft: the smoothed bottom is the lake's own to half a foot."""
    run = driven_of(driven_by_boat(160, faults).soundings)
    assert run.ran_ft[-1] == pytest.approx(160 * 4.4, rel=0.05)
    start, deep = (np.array(v) for v in zip(*BOTTOM_FT, strict=True))
    true = np.interp(run.ran_ft, start, deep)
    keep = ~run.off
    assert np.abs(run.smooth_ft - true)[keep].max() < 1.0
    assert np.median(np.abs(run.smooth_ft - true)[keep]) < 0.3


def test_what_is_out_of_line_is_marked_and_left_out() -> None:
    depths = [9.0 + 0.05 * k for k in range(40)]
    depths[12], depths[25] = 2.0, 60.0
    run = driven_of(straight(depths))
    assert np.flatnonzero(run.off).tolist() == [12, 25]
    assert run.smooth_ft.max() < 12.0
    profile = run.profile(100.0)
    assert all(8.9 <= deep <= 11.1 for _, deep in profile)


def test_the_profile_lies_under_the_cast_from_either_end() -> None:
    run = driven_of(straight([5.0] * 20 + [15.0] * 21))
    from_end, from_start = run.profile(60.0, "end"), run.profile(60.0, "start")
    assert from_end[0] == (0.0, 15.0)
    assert from_start[0] == (0.0, 5.0)
    assert from_end[-1][0] <= 72.0
    assert {d for _, d in from_end} == {15.0}
    assert run.profile(160.0, "end")[-1] == (160.0, 5.0)
    with pytest.raises(BadInput, match="at least"):
        driven_of(straight([5.0] * 4)).profile(80.0)
    with pytest.raises(BadInput, match="soundings"):
        driven_of(straight([5.0, 5.0]))


def test_a_run_goes_out_as_gpx_and_comes_back() -> None:
    run = driven_by_boat(60).soundings
    back = from_gpx(to_gpx(run))
    assert len(back) == len(run)
    assert [s.depth_ft for s in back] == pytest.approx([s.depth_ft for s in run], abs=0.03)
    assert [s.ran_ft for s in back] == pytest.approx([s.ran_ft for s in run], abs=3.0)
    for wrong in ("", "<gpx/>", "no", to_gpx([Sounding(0.0, 3.0)])):
        with pytest.raises(BadInput):
            from_gpx(wrong)


WATER = {"water_temp_f": 58.0, "bottom_depth_ft": 15.0, "fish_depth_ft": 6.0}
PROFILE = ((0.0, 15.0), (40.0, 14.0), (48.0, 7.0), (90.0, 7.0))


def test_the_cast_is_made_over_it() -> None:
    scenario = Scenario(Conditions(**WATER, bottom_ft=PROFILE), Gear(cast_ft=80.0))
    cast = cast_of(catalogue.load(), scenario)
    assert [feet(cast.bottom_at(x / 3.28084)) for x in (0, 40, 44, 80, 150)] == pytest.approx(
        [15.0, 14.0, 10.5, 7.0, 7.0], abs=0.01
    )
    level = size(catalogue.load(), Scenario(Conditions(**WATER)))
    driven = size(catalogue.load(), scenario)
    assert driven.cast.bottom != level.cast.bottom
    body = {"conditions": {**WATER, "bottom_ft": [list(p) for p in PROFILE]}}
    values = values_of(body)
    assert values["driven"] == "0:15 40:14 48:7 90:7" == profile_text(PROFILE)
    assert body_from(values_from(values))["conditions"]["bottom_ft"] == [list(p) for p in PROFILE]


@pytest.mark.parametrize(
    "profile",
    [((0.0, 5.0),), ((5.0, 5.0), (5.0, 6.0)), ((9.0, 5.0), (5.0, 6.0)), ((0.0, 5.0), (9.0, 16.0)),
     ((0.0, 0.0), (9.0, 6.0)), ((0.0, 5.0), (900.0, 6.0)), ((-1.0, 5.0), (9.0, 6.0))],
)  # fmt: skip
def test_a_bottom_that_cannot_be_is_refused(profile: Any) -> None:
    with pytest.raises(BadInput, match="bottom_ft"):
        check(Scenario(Conditions(**WATER, bottom_ft=profile)))
