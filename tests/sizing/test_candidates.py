"""Which rigs are tried, from the shop and from the box, and how their settings are searched."""

import os
from dataclasses import replace

import pytest

from heathdrop.advice.missing import missing
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.cast import Cast
from heathdrop.physics.kernels.march import run_chain
from heathdrop.physics.kernels.records import Limits, Scene
from heathdrop.physics.kernels.search import search
from heathdrop.physics.line import line_by_test
from heathdrop.physics.rig import Lure, lure_of, rig_by_name
from heathdrop.physics.water import water_at
from heathdrop.sizing.box import MOST_PAIRS, OwnedHead, OwnedTrailer, Tackle, box_rigs, pair, tackle_of
from heathdrop.sizing.candidates import (
    dressed,
    lengths_of,
    standard_rigs,
    standard_trailers,
)
from heathdrop.sizing.dress import Dress, dresses_of, worn_by
from heathdrop.sizing.schools import Leaning
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import setting_of as setting_of_box
from heathdrop.sizing.size import size
from heathdrop.sizing.tune import TUNED, scene_of, tune
from heathdrop.sizing.warmth import warm_up
from tests.waters import GRASS


@pytest.mark.parametrize("family", ["swim-jig", "football-jig", "micro-jig"])
def test_every_head_with_every_trailer_once(cat: Catalog, family: str) -> None:
    setting = setting_of(cat, Scenario(GRASS, families=(family,)))
    rigs = standard_rigs(setting)
    pairs = [(r.head_oz, r.trailer.id) for r in rigs]
    kind = cat.families[family]
    tails = standard_trailers(cat, setting.leaning.bare or kind.bare_too)
    assert len(pairs) == len(set(pairs)) == len(kind.weights_oz) * len(tails)
    for rig in rigs:
        assert rig.trailer_length_in in lengths_of(kind, rig.trailer)


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
    picked = box_rigs(setting_of_box(cat, scenario), tackle)
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


BAIT = Conditions(
    water_temp_f=64, bottom_depth_ft=12, fish_depth_ft=6, forage="baitfish", clarity_ft=4, season="fall"
)


BLUEGILL, CRAWS = replace(BAIT, forage="bluegill"), replace(BAIT, forage="crawfish", fish_depth_ft=12)


EDGE, THIN, FLOATS = {"orientation": "vertical"}, {"skirt": "trimmed"}, {"plastic": "floating"}


@pytest.mark.parametrize(
    ("water", "family", "trailer", "schools", "wanted"),
    [
        (BAIT, "swim-jig", "craw", (), {}),
        (BLUEGILL, "swim-jig", "craw", (), EDGE | THIN),
        (BLUEGILL, "swim-jig", "pin-tail", (), THIN),  # one tail cannot be turned
        (BLUEGILL, "flipping-jig", "craw", (), {}),  # dropped: left whole
        (BLUEGILL, "finesse-jig", "twin-tail", (), EDGE | FLOATS),  # thin already
        (BLUEGILL, "underspin", "craw", (), {}),  # no skirt to trim
        (CRAWS, "football-jig", "craw", (), FLOATS),
        (CRAWS, "football-jig", "chunk", (), {}),
        (CRAWS, "football-jig", "none", (), {}),
        (CRAWS, "swim-jig", "craw", (), {}),  # swum: nothing stands up at rest
        (BAIT, "spinnerbait", "twin-tail", (("spinnerbait-trailer", "steadies"),), {"plastic": "salted"}),
        (BAIT, "spinnerbait", "none", (("spinnerbait-trailer", "steadies"),), {}),
    ],
)
def test_what_is_settled(
    cat: Catalog,
    water: Conditions,
    family: str,
    trailer: str,
    schools: tuple[tuple[str, str], ...],
    wanted: dict[str, str],
) -> None:
    setting = setting_of(cat, Scenario(water, families=(family,), schools=schools))
    tail = cat.trailers[trailer]
    assert setting.dresses[trailer] == wanted
    rig = dressed(setting, setting.family.weights_oz[0], tail, max(1.0, tail.length_in))
    usual = {"orientation": "flat", "plastic": "neutral", "skirt": setting.family.skirt}
    usual |= {"blades": setting.family.blades, "head_material": "lead"}
    assert worn_by(rig) == usual | wanted


def test_a_school_goes_before_the_rules_and_the_strongest_rule_first(cat: Catalog) -> None:
    setting = setting_of(cat, Scenario(BLUEGILL, families=("swim-jig",)))
    held = replace(setting.leaning, dress={"orientation": "flat", "skirt": "thin"})
    rules = {**cat.rules, "all-flat": replace(cat.rules["bluegill-on-edge"], dress={"orientation": "flat"})}

    def craw(leaning: Leaning, catalog: Catalog = cat) -> Dress:
        return dresses_of(catalog, setting.facts, setting.family, leaning)["craw"]

    assert craw(held) == {"orientation": "flat", "skirt": "thin"}
    for strength, wanted in ((3, "flat"), (1, "vertical")):
        rules["all-flat"] = replace(rules["all-flat"], strength=strength)
        assert craw(setting.leaning, replace(cat, rules=rules))["orientation"] == wanted


WATER = water_at(58)


LIMITS = Limits(0.4, 1.2, 2.6, 0.3, 0.5, 0.9, 0.45, 0.35, 24.0)


@pytest.fixture
def scene(cat: Catalog) -> Scene:
    flat = Cast(24.0, 0.6, ((0.0, 4.0), (300.0, 4.0)))
    return scene_of(line_by_test(cat, "fluorocarbon", 15), WATER, flat, (1.2, 1.8), 1e6)


def lures(cat: Catalog) -> list[Lure]:
    rigs = [rig_by_name(cat, "swim-jig", oz, "craw") for oz in (0.25, 0.5, 1.0)]
    return [lure_of(cat, rig, WATER.density_kg_m3, 58.0) for rig in rigs]


def test_lures_do_not_influence_one_another(cat: Catalog, scene: Scene) -> None:
    some = lures(cat)
    TUNED.clear()
    together = tune(some, [LIMITS] * 3, scene)
    TUNED.clear()
    alone = [tune([lure], [LIMITS], scene)[0] for lure in some]
    assert together == alone
    assert tune([], [], scene) == []
    for found in together:
        assert LIMITS.slowest_m_s <= found.pace_m_s <= LIMITS.fastest_m_s
        assert 0.0 < found.start_depth_m <= LIMITS.deepest_start_m
        assert 0.0 <= found.soft_share <= 1.0
        assert found.shallowest_m <= found.mean_m <= found.deepest_m


def test_a_forked_process_searches_too(cat: Catalog, scene: Scene) -> None:
    some = lures(cat)
    TUNED.clear()
    here = tune(some, [LIMITS] * 3, scene)
    TUNED.clear()
    child = os.fork()
    if child == 0:
        os._exit(0 if tune(some, [LIMITS] * 3, scene) == here else 1)
    _, status = os.waitpid(child, 0)
    assert os.waitstatus_to_exitcode(status) == 0


@pytest.mark.slow
def test_a_warm_program_compiles_nothing_more() -> None:
    assert warm_up() > 0.0
    before = [len(k.signatures) for k in (run_chain, search)]  # type: ignore[attr-defined]
    assert all(before)
    warm_up()
    assert [len(k.signatures) for k in (run_chain, search)] == before  # type: ignore[attr-defined]
