"""Cadence: played, measured, chosen where it is better; each against a cast of its own."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Cover, Scenario
from heathdrop.physics.cast import fly
from heathdrop.sizing.program import play, program_of, usual_way
from heathdrop.sizing.rated import rated_one
from heathdrop.sizing.size import Rated, Sizing, size
from heathdrop.sizing.tune import SEARCH
from heathdrop.units import feet
from tests.waters import BAIT

OPEN = replace(BAIT, cover=Cover(), bottom_depth_ft=15.0, fish_depth_ft=14.0, bottom_shape="level")


def first(cat: Catalog, family: str, **changed: object) -> tuple[Sizing, Rated]:
    found = size(cat, Scenario(replace(OPEN, **changed), families=(family,)))
    return found, found.rigs[0]


@pytest.mark.parametrize(
    ("family", "temp_f", "fish_ft", "bottom_ft", "way"),
    [
        ("spinnerbait", 50.0, 14.0, 15.0, "slow-roll"),
        ("swim-jig", 50.0, 14.0, 15.0, "slow-roll"),
        ("bladed-jig", 45.0, 11.5, 12.0, "yo-yo"),
        ("spinnerbait", 50.0, 6.0, 20.0, None),
        ("swim-jig", 79.0, 1.5, 5.0, "twitch"),
        ("swim-jig", 79.0, 9.0, 15.0, None),
    ],
)
def test_the_water_and_the_mood_choose(
    cat: Catalog, family: str, temp_f: float, fish_ft: float, bottom_ft: float, way: str | None
) -> None:
    mood = 3.5 if temp_f > 70.0 else 1.0
    sizing, best = first(
        cat, family, water_temp_f=temp_f, fish_depth_ft=fish_ft, bottom_depth_ft=bottom_ft, activity=mood
    )
    assert (best.cadence.way if best.cadence else None) == way
    if way:
        assert usual_way(cat, sizing, best) == way


def test_a_floor_roll_keeps_touching_and_turns_slower_close_in(cat: Catalog) -> None:
    sizing, best = first(cat, "spinnerbait", water_temp_f=50.0, activity=1.0)
    assert best.cadence is not None
    assert best.along_floor
    cast = play(sizing, best, "slow-roll")
    assert float(np.mean(cast.on_bottom[cast.time_s > cast.fall_s])) > 0.03
    assert feet(float(cast.useful().mean())) == pytest.approx(feet(best.tuned.mean_m), abs=0.3)
    assert feet(float(cast.useful().min())) > 14.0
    assert best.cadence.near_ft_s < best.cadence.far_ft_s
    # The pace told is the one at which the line comes in, not what the hand turns at its quickest.
    assert best.cadence.near_ft_s <= feet(best.tuned.pace_m_s) <= best.cadence.far_ft_s


def test_it_is_told_only_where_it_scores_better(cat: Catalog) -> None:
    """The same rig at its steady best stands below itself in the cadence."""
    from heathdrop.sizing.setting import setting_of
    from heathdrop.sizing.size import rated_at

    sizing, best = first(cat, "bladed-jig", water_temp_f=45.0, fish_depth_ft=14.5, activity=1.0)
    assert best.cadence is not None
    steady = rated_at(setting_of(cat, sizing.scenario), best.rig, None, None)
    assert steady.cadence is None
    assert steady.fits.score < best.fits.score


def test_in_the_cold_a_body_that_glides_is_wanted(cat: Catalog) -> None:
    """It floats behind the first blade and glides on the pause; without it its action is worth less."""
    from heathdrop.sizing.setting import setting_of

    cold = {"water_temp_f": 45.0, "fish_depth_ft": 11.5, "bottom_depth_ft": 12.0, "activity": 1.0}
    sizing, best = first(cat, "bladed-jig", **cold)
    assert best.cadence is not None
    assert (best.rig.plastic.id, best.cadence.glides_ft > 0.1) == ("floating", True)
    setting = setting_of(cat, sizing.scenario)
    still = replace(best.cadence, glides_ft=0.0)
    stiff = rated_one(setting, best.rig, best.lure, best.tuned, best.countdown_s, still)
    glide = 0.85 + 0.15 * best.cadence.glides_ft / best.cadence.cadence.glide_ft
    assert stiff.fits.parts["action"] / best.fits.parts["action"] == pytest.approx(0.85 / glide)


def test_the_share_that_falls_is_the_path_s_own(cat: Catalog) -> None:
    sizing, best = first(
        cat, "swim-jig", water_temp_f=79.0, fish_depth_ft=1.5, bottom_depth_ft=5.0, activity=3.5
    )
    assert best.cadence is not None
    program = program_of(sizing, best, "twitch")
    cast = fly(best.lure, sizing.line, sizing.water, sizing.cast, program, fidelity=SEARCH, sample_s=0.25)
    after = cast.time_s >= cast.fall_s
    seconds = np.diff(cast.time_s[after])
    sinks = np.diff(cast.depth_m[after]) / seconds > 0.08
    assert best.cadence.falling == pytest.approx(float(seconds[sinks].sum() / seconds.sum()), abs=0.03)
    assert 0.1 < best.cadence.falling < 0.6


def test_every_cadence_names_a_way_and_a_family(cat: Catalog) -> None:
    from heathdrop.sizing.ways import WAY

    for cadence in cat.cadences.values():
        assert cadence.id in WAY
        assert any(c.fact == "family" and c.words for c in cadence.when)
        assert 0.5 <= cadence.action <= 1.5
