"""One cast told, charted, compared and put on the board's lenses: each figure is the simulation's own."""

import math
import os
import random
from collections.abc import Iterator
from dataclasses import replace

import pytest

from heathdrop.answers.cast import NEAR_FT, WorkedCast, count_window, worked_of
from heathdrop.answers.chart import chart_of
from heathdrop.answers.compare import compared_with
from heathdrop.answers.lens import LENS, Sight, lenses_for, sights, wanted_through
from heathdrop.answers.water import at_setting, sizing_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.conditions.wanted import Wanted
from heathdrop.errors import BadInput
from heathdrop.physics.cast import CastResult
from heathdrop.physics.fall import depth_after_s
from heathdrop.sizing.bands import bands_for
from heathdrop.sizing.program import WAYS, play
from heathdrop.sizing.size import Rated, Sizing, size
from heathdrop.units import feet
from tests.waters import BAIT, BEDS, GRASS, WINTER_ROCK


def answered(conditions: object, family: str = "swim-jig", **gear: object) -> tuple[Sizing, Rated]:
    sizing = sizing_of(Scenario(conditions, Gear(**gear), families=(family,)))  # type: ignore[arg-type]
    return sizing, sizing.rigs[0]


def worked(cat: Catalog, sizing: Sizing, rated: Rated, way: str) -> tuple[WorkedCast, CastResult]:
    cast = play(sizing, rated, way)
    return worked_of(sizing, rated, bands_for(cat, sizing, [rated])[0], cast, way), cast


@pytest.mark.parametrize("way", [w.id for w in WAYS])
def test_every_way_has_its_own_count_depth_and_band(cat: Catalog, way: str) -> None:
    """The count is the first fall of the cast played; ways that are let land count to the bottom."""
    sizing, rated = answered(BAIT)
    found, cast = worked(cat, sizing, rated, way)
    assert (
        found.count_s == cast.fall_s == pytest.approx(cast.time_s[cast.time_s < cast.fall_s].max(), abs=0.11)
    )
    landed = feet(cast.start_depth_m) == pytest.approx(30.0, abs=0.01)
    assert (
        found.to_bottom
        == landed
        == (way in ("slow-roll", "yo-yo", "hop", "drag", "shake", "lift-and-drop", "stroke", "step-down"))
    )
    assert found.count_band_s[0] < found.count_s < found.count_band_s[1]
    low, high = found.mean_band_ft
    assert low <= found.mean_ft <= high
    after = cast.depth_m[cast.time_s >= cast.fall_s]
    assert feet(float(after.min())) - 1e-6 <= found.mean_ft <= feet(float(after.max())) + 1e-6


def test_a_hop_stays_near_the_floor_and_a_yo_yo_leaves_it(cat: Catalog) -> None:
    sizing, rated = answered(WINTER_ROCK, "football-jig")
    means = {way: worked(cat, sizing, rated, way)[0].mean_ft for way in ("drag", "yo-yo", "shake")}
    assert means["drag"] == pytest.approx(22.0, abs=0.1)
    assert means["shake"] == pytest.approx(22.0, abs=0.1)
    hop = play(sizing, rated, "hop", lift_m=0.6)
    hopped = worked_of(sizing, rated, bands_for(cat, sizing, [rated])[0], hop, "hop", lift_m=0.6).mean_ft
    assert means["yo-yo"] + 0.5 < hopped < 21.96


@pytest.mark.parametrize("conditions", [GRASS, BAIT, BEDS, WINTER_ROCK])
@pytest.mark.parametrize("family", ["swim-jig", "bladed-jig", "spinnerbait"])
def test_the_window_holds_the_count_and_its_ends_meet_the_band(
    cat: Catalog, conditions: object, family: str
) -> None:
    sizing, rated = answered(conditions, family)
    if rated.along_floor:
        assert rated.cadence is not None
        assert worked(cat, sizing, rated, rated.cadence.way)[0].to_bottom
        return
    window = count_window(sizing, rated)
    assert window.early_s <= rated.countdown_s <= window.late_s
    top, low = sizing.targets.depth_ft
    best = feet(rated.tuned.mean_m)
    if top <= best <= low:
        assert (window.top_ft, window.low_ft) == (top, low)
    else:
        assert (window.top_ft, window.low_ft) == (max(0.0, best - NEAR_FT), best + NEAR_FT)
    # No count of it lets the lure fall into the cover below, or onto the bottom.
    c = sizing.scenario.conditions
    falls_to = feet(depth_after_s(rated.lure, window.late_s, sizing.line, sizing.water))
    floor = c.bottom_depth_ft
    begun = feet(depth_after_s(rated.lure, rated.countdown_s, sizing.line, sizing.water))
    if c.cover.top_depth_ft and begun <= c.cover.top_depth_ft:
        floor = c.cover.top_depth_ft
    assert falls_to <= floor + 0.05
    for count in (window.early_s, window.late_s):
        ran = feet(at_setting(sizing, rated, count, None).tuned.mean_m)
        assert window.top_ft - 0.4 <= ran <= window.low_ft + 0.4


def covered(count: int, seed: int) -> Iterator[tuple[Sizing, Rated]]:
    """The first swum rig of random waters with grass, brush or stones, fish anywhere in them."""
    rng, families = random.Random(seed), ("swim-jig", "bladed-jig", "spinnerbait", "underspin")
    while count:
        bottom = round(rng.uniform(5, 18), 1)
        top, fish = round(rng.uniform(1.5, bottom - 1.0), 1), round(rng.uniform(1.0, bottom), 1)
        cover = rng.choice(
            [
                Cover(kind="submerged-grass", top_depth_ft=top, density=rng.choice(["sparse", "thick"])),
                Cover(kind="wood", top_depth_ft=top, detail="brush"),
                Cover(kind="rock", detail="chunk"),
            ]
        )
        water = Conditions(
            water_temp_f=rng.randint(45, 82), bottom_depth_ft=bottom, fish_depth_ft=fish, cover=cover
        )
        sizing = sizing_of(Scenario(water, families=(rng.choice(families),)))
        if not sizing.rigs[0].along_floor:
            count -= 1
            yield sizing, sizing.rigs[0]


#: Waters that the two tests below draw; more of them by hand (``COUNTS=300``).
DRAWN = int(os.environ.get("COUNTS", "40"))


@pytest.mark.slow
@pytest.mark.long
def test_no_count_of_a_range_touches_what_its_way_keeps_off() -> None:
    """Both ends played to the end: over the cover nothing of the path is in it, and none is on the bottom,
    whatever count was typed; only where the rig's own count begins on it."""
    touched = []
    for sizing, rated in covered(DRAWN, 17):
        c, own = sizing.scenario.conditions, play(sizing, rated, "steady")
        window = count_window(sizing, rated)
        typed = at_setting(sizing, rated, 1.8 * rated.countdown_s + 0.5, feet(rated.tuned.pace_m_s))
        again = count_window(sizing, typed)
        assert (again.early_s, again.late_s) == pytest.approx((window.early_s, window.late_s), abs=0.02)
        for count in (window.early_s, window.late_s):
            cast = play(sizing, replace(rated, countdown_s=count, cadence=None), "steady")
            deepest = feet(float(cast.depth_m.max()))
            if cast.bottom_s > 0.15 and own.bottom_s == 0.0:
                touched.append((c, rated.key, count, "bottom"))
            top = c.cover.top_depth_ft
            if rated.way == "over" and top and deepest > top + 0.1:
                touched.append((c, rated.key, count, deepest))
    assert touched == []


@pytest.mark.slow
def test_a_cadence_is_told_as_screens_play_it(cat: Catalog) -> None:
    """Twitched, stopped, burnt and rolled rigs: the told mean is the played one's, to a tenth of a foot."""
    told = 0
    for family, mood, fish, bottom in (
        ("swim-jig", 3.5, 1.5, 5.0), ("swim-jig", 3.4, 3.0, 8.0), ("bladed-jig", 1.0, 9.0, 12.0),
        ("spinnerbait", 3.6, 5.0, 20.0), ("underspin", 3.4, 8.0, 18.0), ("underspin", 1.0, 6.0, 15.0),
        ("spinnerbait", 1.0, 14.0, 15.0), ("swim-jig", 1.0, 6.0, 14.0),
    ):  # fmt: skip
        water = replace(BAIT, activity=mood, fish_depth_ft=fish, bottom_depth_ft=bottom, bottom_shape="level")
        sizing = sizing_of(Scenario(water, families=(family,)))
        for rated in (r for r in sizing.rigs if r.cadence is not None):
            assert rated.cadence is not None
            cast = play(sizing, rated, rated.cadence.way)
            assert feet(float(cast.useful().mean())) == pytest.approx(feet(rated.tuned.mean_m), abs=0.1)
            told += 1
    assert told >= 4


def test_what_is_not_swum_has_its_count_alone(cat: Catalog) -> None:
    deep = replace(GRASS, bottom_depth_ft=30.0)
    sizing = size(cat, Scenario(deep, families=("football-jig",)))
    chart = chart_of(sizing, sizing.rigs[0])
    assert chart.turns == ()
    assert len(chart.counts_s) <= 11
    sunk = depth_after_s(sizing.rigs[0].lure, chart.counts_s[1], sizing.line, sizing.water)
    assert chart.cells[1][0].depth_ft == round(feet(sunk), 1)
    assert chart.cells[-1][0].place == "floor"


def test_rigs_lines_and_lures(cat: Catalog) -> None:
    sizing = size(cat, Scenario(GRASS, families=("swim-jig",)))
    chosen, other = sizing.rigs[0], next(r for r in sizing.rigs if r.rig.head_oz == 1.0)
    hand = "steady", None, None
    own = play(sizing, chosen)
    line, rig = compared_with(sizing, chosen, ["line:nylon:20", other.key], hand)
    assert [(c.mark, c.kind, c.together) for c in (line, rig)] == [("B", "line", True), ("C", "rig", True)]
    assert feet(line.result.useful().mean()) < feet(own.useful().mean()) < feet(rig.result.useful().mean())
    (sized,) = compared_with(sizing, chosen, ["", other.key])
    assert (sized.mark, sized.together, sized.rated) == ("B", False, other)
    assert feet(sized.result.useful().mean()) == pytest.approx(feet(other.tuned.mean_m), abs=0.1)
    (lure,) = compared_with(sizing, chosen, ["lure:football-jig"])
    assert (lure.kind, lure.rated.rig.family.id) == ("lure", "football-jig")
    assert len(compared_with(sizing, chosen, [other.key] * 3)) == 2
    for bad in ("line:steel:20", "line:nylon:", "swim-jig:9:toad", "lure:toad"):
        with pytest.raises(BadInput):
            compared_with(sizing, chosen, [bad])


@pytest.mark.parametrize("family", ["swim-jig", "football-jig", "flipping-jig"])
def test_the_other_lenses_show_each_rig_as_it_is_sized(cat: Catalog, family: str) -> None:
    sizing = size(cat, Scenario(WINTER_ROCK, families=(family,)))
    chosen = sizing.rigs[0]
    offered = [lens.id for lens in lenses_for(sizing, chosen)]
    swum = family == "swim-jig"
    assert offered == [
        "fit",
        "depth",
        *(["pace"] if swum else []),
        "fall",
        "through",
        *([] if swum else ["felt"]),
    ]
    for r in sizing.rigs[:3]:
        clean = 100.0 * r.cover.passes * (1.0 - r.cover.fouls) * (1.0 - r.cover.hangs)
        wanted = {"fit": 100.0 * r.fits.score, "fall": r.fall_ft_s, "through": clean, "felt": 100.0 * r.felt}
        wanted["pace"] = feet(r.tuned.pace_m_s)
        for lens, value in wanted.items():
            assert sights(sizing, chosen, lens, [r])[r.key].value == round(value, LENS[lens].digits)
    if not swum:  # the depth that the chosen rig's count brings
        assert sights(sizing, chosen, "depth", [chosen])[chosen.key].value == pytest.approx(
            sizing.scenario.conditions.bottom_depth_ft, abs=0.1
        )


def test_what_is_wanted_is_the_anglers_where_he_set_it(cat: Catalog) -> None:
    water = replace(BAIT, cover=Cover())
    own = Wanted(depth_ft=(3.0, 4.0), passes=0.5)
    sizing = size(cat, Scenario(water, families=("underspin",), wanted=own))
    assert "through" not in [lens.id for lens in lenses_for(sizing, sizing.rigs[0])]
    assert wanted_through(sizing, "depth") == (3.0, 4.0)
    assert wanted_through(sizing, "through") == (50.0, math.inf)
    assert wanted_through(sizing, "fit") == (-math.inf, math.inf)
    assert sights(sizing, sizing.rigs[0], "fit", sizing.rigs[:1])[sizing.rigs[0].key] == Sight(
        round(100 * sizing.rigs[0].fits.score), 0
    )
