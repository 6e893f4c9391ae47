"""Timed drops to log factors: the times reckoned, the posterior to its digits, the questions asked."""

import math
from dataclasses import replace

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.learning.drops import (
    Factors,
    falls_of,
    far_tries,
    learn_drops,
    measured_fall,
    names_of,
    predicted_s,
    prior_spreads,
    suspicion,
    times_of,
)
from heathdrop.learning.observations import DropTest, body_key
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.physics.line import line_by_test
from heathdrop.physics.rig import UNMEASURED, lure_of, rig_by_name
from heathdrop.physics.water import water_at
from tests.golden_file import holds_to
from tests.learning.seen import drops


def test_the_times_are_those_of_the_closed_form_fall(cat: Catalog) -> None:
    """Packed for all tests at once, or one by one through the physics: the same seconds."""
    for test in drops(cat):
        water = water_at(test.temperature_f)
        lure = lure_of(cat, test.rig, water.density_kg_m3, test.temperature_f)
        alone = time_to_depth_s(lure, test.depth_m, test.line, water, test.surface_line_m)
        assert predicted_s(cat, test, 1.0, 1.0, 1.0) == pytest.approx(alone, rel=1e-9)


def told(known: Factors, shared: np.ndarray) -> dict[str, object]:
    """A posterior without the catalogue's own numbers, which stand in its table."""
    said = ("names", "mean", "cov", "error", "outliers")
    return {name: getattr(known, name) for name in said} | {"shared": shared}


def test_what_is_reckoned_and_learned_to_the_digit(cat: Catalog) -> None:
    seen = drops(cat)
    falls, learned = falls_of(cat, seen), learn_drops(cat, seen)
    odd = np.linspace(0.6, 1.5, len(seen))
    holds_to(
        "learning.drops",
        {
            "falls": falls,
            "times": times_of(falls, odd, odd[::-1], 1.3),
            "priors": [prior_spreads(cat, t) for t in seen],
            "posterior": told(learned, learned.shared[:1]),
            "one": told(learn_drops(cat, seen[:1]), np.zeros(0)),
        },
    )


def test_a_lateness_is_told_from_two_depths(cat: Catalog) -> None:
    """The same half second on every drop is the hand's, not the lure's."""
    base = drops(cat)[0]
    late = [
        replace(base, depth_m=d, times_s=(predicted_s(cat, replace(base, depth_m=d), 1, 1, 1) + 0.4,) * 3)
        for d in (1.0, 2.0, 4.0, 9.0)
    ]
    learned = learn_drops(cat, late)
    assert 0.15 < learned.mean[-1] < 0.45
    assert learned.factor("trailer:craw/4") == pytest.approx(1.0, abs=0.1)


@pytest.mark.parametrize(
    ("times", "says"),
    [
        (1.0, None),
        (1.8, None),
        (0.25, "only 0.2 of what the model gives"),
        (3.3, "3.3 times as long as the model gives for 9.8 ft. Was the depth in metres? Check"),
        (4.6, "4.6 times as long as the model gives for 9.8 ft. Check depth, rig and seconds."),
    ],
)
def test_times_far_off_are_asked_about(cat: Catalog, times: float, says: str | None) -> None:
    test = drops(cat)[0]
    right = predicted_s(cat, test, 1.0, 1.0, 1.0)
    asked = suspicion(cat, replace(test, times_s=(right * times,) * 3))
    assert (asked is None) if says is None else (asked is not None and says in asked)


@pytest.mark.parametrize(
    ("times", "far"),
    [
        ((4.4, 4.6, 4.5), []),
        ((1.87, 4.54, 5.19), [1.87]),
        ((4.4, 4.6, 8.2), [8.2]),
        ((4.4, 4.6, 7.0), []),
        ((2.0, 4.0), [2.0, 4.0]),  # of two nobody can say which
        ((4.0,), []),
        ((4.0, 6.0, 4.0, 6.0), []),
    ],
)
def test_a_drop_far_from_the_others_is_named(
    cat: Catalog, times: tuple[float, ...], far: list[float]
) -> None:
    assert far_tries(cat, times) == far
    asked = suspicion(cat, replace(drops(cat)[0], times_s=times)) or ""
    assert ("Was a drop spoilt?" in asked) is bool(far)


def test_a_hand_that_is_known_weighs_the_drops(cat: Catalog) -> None:
    """An even hand narrows the fall more than the one assumed, an uneven one less."""
    tests = [replace(t, times_s=t.times_s[:1]) for t in drops(cat)[:1]]
    name = names_of(tests[0])[1]
    even, assumed, uneven = (learn_drops(cat, tests, hand) for hand in (0.03, None, 0.25))
    assert even.error < assumed.error < uneven.error
    spreads = [known.spread(name) or 0.0 for known in (even, assumed, uneven)]
    assert spreads == sorted(spreads)
    assert spreads[0] < spreads[2]
    same = learn_drops(cat, tests, cat.model.count_error)
    assert same.error == assumed.error


def test_a_length_teaches_the_others_of_its_shape(cat: Catalog) -> None:
    """By Gauss: a craw of 3 in is moved by .7 of what one of 4 in was, and stays as doubtful as the rest of
    its prior leaves it; another shape learns nothing."""
    rig = rig_by_name(cat, "swim-jig", 0.375, "craw", trailer_length_in=4.0)
    like = DropTest(rig, line_by_test(cat, "fluorocarbon", 15), "fluorocarbon", 3.0, (5.0,))
    seconds = predicted_s(cat, like, 1.0, 1.6, 1.0)
    known = learn_drops(
        cat, [replace(like, depth_m=d, times_s=(seconds * d / 3.0,) * 3) for d in (3.0, 3.3, 2.7)]
    )
    body, prior = body_key(rig), cat.spread("trailers", "fall_drag_area_cm2")
    alike = cat.judgement.learning.lengths_alike
    timed, short, other = (measured_fall(known, body, t, UNMEASURED) for t in ("craw/4", "craw/3", "chunk/4"))
    assert timed.trailer_fall > 1.05
    assert math.log(short.trailer_fall) == pytest.approx(alike * math.log(timed.trailer_fall))
    assert timed.trailer_fall_spread is not None
    wanted = math.hypot(alike * timed.trailer_fall_spread, math.sqrt(1.0 - alike**2) * prior)
    assert short.trailer_fall_spread == pytest.approx(wanted)
    assert timed.trailer_fall_spread < wanted < prior
    assert short.fall_joint == pytest.approx(alike * timed.fall_joint)
    assert (other.trailer_fall, other.trailer_fall_spread) == (1.0, None)
    both = replace(like, rig=replace(rig, trailer_length_in=3.0))
    slow = predicted_s(cat, both, 1.0, 1.6, 1.0)
    joined = learn_drops(cat, [like, replace(both, times_s=(slow, slow, slow))])
    assert joined.joint("trailer:craw/4", "trailer:craw/3") > 0.0
