"""What the trade knows of depth, fall, line, cover and ledges must fall out of the model."""

import numpy as np
import pytest

from bench.ladders import RUNGS, compared, runs_at
from bench.ledges import beside_reference, measured, stepped
from heathdrop.catalog import Catalog
from heathdrop.physics.cast import Cast, fly
from heathdrop.physics.cover import Stand, cover_odds
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.physics.kernels import ground, state
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure, lure_of, rig_by_name
from heathdrop.physics.touch import touch_of
from heathdrop.physics.water import water_at
from tests.golden_file import holds_to


def test_the_ladders_fall_out_of_the_model(cat: Catalog) -> None:
    """Sum of squared misfits under 5 ft²; only three spinnerbaits run deeper than practice says."""
    rows, total = compared(lambda rung: runs_at(cat, rung))
    assert total < 5.0
    outside = [(rung.family, rung.head_oz) for rung, _, off in rows if off > 0.0]
    assert outside == [("spinnerbait", 0.75), ("spinnerbait", 0.375), ("spinnerbait", 0.25)]


def test_taking_up_the_slack_brings_deep_starts_nearer_to_practice(cat: Catalog) -> None:
    deep = [rung for rung in RUNGS if rung.count_ft == 14.0]
    for rung in deep:
        assert runs_at(cat, rung) < runs_at(cat, rung, take_up=False) - 0.5
    _, without = compared(lambda rung: runs_at(cat, rung, take_up=False))
    _, with_it = compared(lambda rung: runs_at(cat, rung))
    assert with_it < 0.4 * without


FT = 0.3048


WATER = water_at(58.0)


@pytest.fixture
def fluoro(cat: Catalog) -> Line:
    return line_by_test(cat, "fluorocarbon", 15)


def lure(cat: Catalog, family: str, oz: float, trailer: str, **named: str) -> Lure:
    return lure_of(cat, rig_by_name(cat, family, oz, trailer, **named), WATER.density_kg_m3, 60.0)  # type: ignore[arg-type]


def fall_ft_s(it: Lure, line: Line) -> float:
    return 3.0 / time_to_depth_s(it, 3.0, line, WATER) / FT


def runs_at_ft(
    it: Lure, line: Line, pace_ft_s: float, count_ft: float, tip_m: float = 0.6, cast_m: float = 30.0
) -> float:
    """Mean depth (ft) over the useful retrieve, bottom out of reach."""
    cast = Cast(cast_m, tip_m, ((0.0, 60.0), (300.0, 60.0)))
    program = [
        Phase("fall", slack=True, to_depth_m=count_ft * FT),
        Phase("retrieve", speed_m_s=pace_ft_s * FT),
    ]
    return float(fly(it, line, WATER, cast, program).useful().mean() / FT)


def test_resistance_not_mass_sets_the_fall(cat: Catalog, fluoro: Line) -> None:
    """Bigger claws fall slower; a small craw costs a head under a fifth of its own fall, a chunk a third."""
    falls = {
        t: fall_ft_s(lure(cat, "flipping-jig", 0.5, t), fluoro)
        for t in ("none", "flat-tail", "small-craw", "craw", "chunk")
    }
    assert falls["none"] > falls["flat-tail"] > falls["small-craw"] > falls["craw"] > falls["chunk"]
    assert falls["small-craw"] / falls["none"] > 0.80
    assert 0.55 < falls["chunk"] / falls["none"] < 0.75
    salted = fall_ft_s(lure(cat, "flipping-jig", 0.5, "craw", plastic="salted"), fluoro)
    assert salted / falls["craw"] < 1.06  # twice the sinking weight of the plastic hardly shows


def test_plastic_lifts_and_two_spread_claws_lift_most(cat: Catalog, fluoro: Line) -> None:
    order = ("flat-tail", "paddle-tail", "craw", "chunk")
    depths = [runs_at_ft(lure(cat, "swim-jig", 0.375, t), fluoro, 2.0, 4.0) for t in order]
    assert depths == sorted(depths, reverse=True)
    on_edge = runs_at_ft(lure(cat, "swim-jig", 0.375, "craw", orientation="vertical"), fluoro, 2.0, 4.0)
    assert on_edge > depths[2]


def test_the_four_corners_of_a_swim_jig(cat: Catalog, fluoro: Line) -> None:
    """High and slow: 1/4 with bulk. High and fast: 3/8 to 1/2. Low and slow: 3/8. Low and fast: 3/4."""
    assert runs_at_ft(lure(cat, "swim-jig", 0.25, "chunk"), fluoro, 2.0, 2.0) < 3.5
    assert 1.0 < runs_at_ft(lure(cat, "swim-jig", 0.375, "paddle-tail"), fluoro, 3.2, 2.5) < 3.0
    assert 2.0 < runs_at_ft(lure(cat, "swim-jig", 0.5, "paddle-tail"), fluoro, 3.2, 2.5) < 4.0
    assert 5.0 < runs_at_ft(lure(cat, "swim-jig", 0.375, "paddle-tail"), fluoro, 2.2, 6.0) < 8.0
    assert 5.0 < runs_at_ft(lure(cat, "swim-jig", 0.75, "paddle-tail"), fluoro, 3.0, 6.0) < 7.0


def test_a_bladed_jig_wants_to_rise(cat: Catalog, fluoro: Line) -> None:
    """Counted to 14 ft at a pace that makes it kick it leaves 12 ft; a slow-rolled spinnerbait stays
    there."""
    for oz in (0.375, 0.5):
        assert runs_at_ft(lure(cat, "bladed-jig", oz, "flat-tail"), fluoro, 2.3, 14.0) < 10.0
    assert runs_at_ft(lure(cat, "spinnerbait", 0.75, "twin-tail"), fluoro, 1.6, 14.0) > 14.0


def test_an_underspin_reaches_ten_to_twenty_five_feet(cat: Catalog, fluoro: Line) -> None:
    it = lure(cat, "underspin", 0.375, "paddle-tail")
    assert 10.0 < runs_at_ft(it, fluoro, 1.6, 12.0) < 25.0
    assert 10.0 < runs_at_ft(it, fluoro, 1.2, 20.0) < 25.0
    quarter = lure(cat, "underspin", 0.25, "paddle-tail")
    assert runs_at_ft(quarter, fluoro, 1.6, 12.0) < runs_at_ft(it, fluoro, 1.6, 12.0) - 1.0


def test_line_holds_up_and_hides_the_bottom(cat: Catalog) -> None:
    it = lure(cat, "swim-jig", 0.375, "paddle-tail")
    lines = (("braid", 30), ("fluorocarbon", 10), ("fluorocarbon", 20), ("nylon", 20))
    depth = {(m, lb): runs_at_ft(it, line_by_test(cat, m, lb), 1.8, 6.0) for m, lb in lines}
    assert depth["fluorocarbon", 10] > depth["fluorocarbon", 20] > depth["nylon", 20]
    assert depth["braid", 30] < depth["fluorocarbon", 10]  # thin, but it floats
    light = lure(cat, "casting-jig", 0.1875, "craw")
    heavy = lure(cat, "casting-jig", 0.75, "craw")
    windy = {
        (oz, lb): touch_of(cat, line_by_test(cat, "fluorocarbon", lb), WATER, 6.0, 12.0, 12.0).felt(
            it.net_weight_n
        )
        for oz, it in ((0.1875, light), (0.75, heavy))
        for lb in (10, 20)
    }
    assert windy[0.1875, 20] < windy[0.1875, 10] < windy[0.75, 10]


def test_the_rod_tip_lifts_and_a_dead_stop_swings_back(cat: Catalog, fluoro: Line) -> None:
    it = lure(cat, "swim-jig", 0.375, "paddle-tail")
    low, high = (runs_at_ft(it, fluoro, 1.8, 6.0, tip, 25.0) for tip in (0.3, 2.4))
    assert 1.0 < low - high < 4.0
    cast = Cast(25.0, 0.6, ((0.0, 9.0), (300.0, 9.0)))
    program = [
        Phase("fall", slack=True, to_depth_m=1.5),
        Phase("retrieve", speed_m_s=0.7, for_s=20.0),
        Phase("swing", for_s=8.0),
    ]
    r = fly(it, fluoro, WATER, cast, program)
    stop = int(np.flatnonzero(r.samples.phase == 2)[0])
    assert r.depth_m[-1] > r.depth_m[stop] + 1.0
    assert r.distance_m[-1] < r.distance_m[stop] - 0.5


STANDS = (
    Stand("submerged-grass", "sparse"),
    Stand("submerged-grass", "thick"),
    Stand("pads"),
    Stand("reeds", "thick"),
    Stand("matted-grass", texture="hyacinth", thickness_in=3.0),
    Stand("wood", "thick", detail="brush"),
    Stand("rock", detail="riprap"),
    Stand("docks", "sparse"),
    Stand("open"),
)


def test_families_in_every_cover(cat: Catalog) -> None:
    found = {}
    for family in (*list(cat.families)[::2], "swim-jig", "punch-rig"):
        for trailer in ("flat-tail", "craw", "beaver") if family in ("swim-jig", "punch-rig") else ("craw",):
            rig = rig_by_name(cat, family, 0.75, trailer)
            odds = [cover_odds(cat, rig, 0.12, stand, 2.0, 14.0) for stand in STANDS]
            found[f"{family} {trailer}"] = [(o.passes, o.fouls, o.hangs) for o in odds]
    holds_to("physics.cover", found)


SEEDS = range(30)


#: A ledge whose deep side is away from the angler, and one whose deep side is nearer.
AWAY = np.array([[0.0, 2.0], [10.0, 2.0], [10.2, 6.0], [100.0, 6.0]])


@pytest.mark.slow
def test_thirty_stepped_bottoms_neither_stretch_nor_pop() -> None:
    """Line within 0.5 % of its length, lure never in the rock. Along its line the lure keeps to the reel's
    pace; a heavy one that swings under a lip is a little faster across it, as in the reference."""
    found = [measured(case, case.played()) for case in map(stepped, SEEDS)]
    assert max(f["stretch"] for f in found) <= 0.005
    assert max(f["in_rock"] for f in found) <= 1e-6
    along = sorted(f["along"] for f in found)
    assert along[26] <= 1.1
    assert along[-1] <= 1.2
    assert max(f["speed"] for f in found) <= 1.45


@pytest.mark.slow
@pytest.mark.parametrize("seed", [2, 4])
def test_the_reference_agrees_over_ledges(seed: int) -> None:
    theirs, ours = beside_reference(seed)
    assert ours == pytest.approx(theirs, abs=0.06)


def two_segments(nodes: list[tuple[float, float]]) -> np.ndarray:
    s = state.state_room(len(nodes))
    s[state.X, :], s[state.Z, :] = np.array(nodes).T
    return s


def test_a_segment_runs_over_the_lip_in_its_way() -> None:
    s = two_segments([(7.0, 1.0), (10.4, 5.0), (11.0, 5.5)])
    ground.over_lips(s, 2, ground.ledges_of(AWAY))
    assert s[state.LENGTH, 0] == pytest.approx(np.hypot(3, 1) + np.hypot(0.4, 3))
    assert (s[state.NX, 0], s[state.NZ, 0]) == pytest.approx((3 / np.hypot(3, 1), 1 / np.hypot(3, 1)))
    assert (s[state.DX, 0], s[state.DZ, 0]) == pytest.approx((0.4 / np.hypot(0.4, 3), 3 / np.hypot(0.4, 3)))
    assert s[state.LIP, :2].tolist() == [1.0, 0.0]
    clear = two_segments([(7.0, 1.0), (10.4, 2.05), (11.0, 5.5)])
    ground.over_lips(clear, 2, ground.ledges_of(AWAY))
    assert clear[state.LIP, 0] == 0.0


def test_a_node_at_the_lip_goes_round_it_and_keeps_its_speed() -> None:
    ledges = ground.ledges_of(AWAY)
    s = two_segments([(7.0, 2.0), (10.001, 2.02), (10.1, 3.0)])
    ground.over_lips(s, 2, ledges)
    s[state.Z, 1] -= 0.05
    s[state.W, 1] = -0.7
    assert not ground.round_lips(s, 2, ledges)
    past = np.hypot(0.001, 0.03)
    assert (s[state.X, 1], s[state.Z, 1]) == pytest.approx((10.0 - past, 2.0))
    assert (s[state.U, 1], s[state.W, 1]) == pytest.approx((-0.7, 0.0))
