"""What speaks beside a rig: rules cited, doubt, what gives, what is missing, cautions, reach."""

import re
from dataclasses import replace

import pytest

from heathdrop.advice.cautions import cautions_for
from heathdrop.advice.cited import advice_for
from heathdrop.advice.doubt import doubt_of
from heathdrop.advice.gives import gives_said
from heathdrop.advice.missing import missing
from heathdrop.advice.narrow import narrows
from heathdrop.advice.reach import misses, missing_said
from heathdrop.advice.rules import rig_facts, spoken
from heathdrop.advice.why import limit_sentence, reasons, runs
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.conditions.wanted import Wanted
from heathdrop.sizing.bands import Bands
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
from heathdrop.sizing.hits import hits_of
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import rated_at, size
from heathdrop.units import feet
from tests.advice.cases import CASES, SHOWN, rated
from tests.golden_file import holds_to
from tests.waters import BAIT, GRASS, MAT


@pytest.mark.slow
def test_reasons_doubt_and_cautions(cat: Catalog) -> None:
    found = {}
    for name in CASES:
        sizing, rig = rated(name)
        found[name] = {
            "runs": runs(sizing, rig),
            "limit": limit_sentence(sizing, rig),
            "why": reasons(sizing, rig),
            "doubt": doubt_of(cat, sizing, rig),
            "cautions": [c.id for c in cautions_for(cat, sizing.scenario, rig)],
        }
    assert all(said["why"] and said["cautions"] for said in found.values())
    holds_to("advice.why", {name: found[name] for name in SHOWN})


def test_what_is_cited(cat: Catalog) -> None:
    found = {name: advice_for(cat, *rated(name)) for name in CASES}
    assert all(len(cited) >= 3 and all(c.sentence.endswith(".") for c in cited) for cited in found.values())
    said = {name: {f"{c.kind}: {c.name}": c.sentence for c in found[name]} for name in SHOWN}
    holds_to("advice.cited", said)
    assert len(advice_for(cat, *rated("wood"), most=2)) < len(advice_for(cat, *rated("wood")))


def test_rules_that_speak(cat: Catalog) -> None:
    holds_to(
        "advice.rules",
        {
            name: {
                "facts": (facts := rig_facts(cat, *rated(name))),
                "rules": [rule.id for rule in spoken(cat, facts)],
            }
            for name in SHOWN
        },
    )


def test_each_target_is_let_go_in_turn(cat: Catalog) -> None:
    """No swim jig falls under half a foot a second: said with the rig that keeps the depth."""
    wanted = Wanted(depth_ft=(4.0, 6.0), fall_ft_s=(0.4, 0.5), passes=0.2, pace_ft_s=(1.0, 3.0))
    sizing = size(cat, Scenario(GRASS, families=("swim-jig",), wanted=wanted))
    said = gives_said([sizing])
    assert said is not None
    assert said.startswith(
        "No rig here falls 0.4 to 0.5 ft/s, works at 4 to 6 ft, gets through 20 times of 100 and comes at "
        "1 to 3 ft/s. Let the fall go: "
    )
    assert re.search(r"Let the fall go: [\d/]+ oz swim jig with [a-z -]+ falls \d\.\d ft/s\.$", said)
    rest = replace(wanted, fall_ft_s=None)
    assert any(all(hits_of(rest, r).values()) for r in sizing.rigs)


def test_purchases_by_how_much_they_raise_the_fits(cat: Catalog) -> None:
    tackle = tackle_of(
        [OwnedHead("swim-jig", 0.375), OwnedHead("micro-jig", 0.0625), OwnedHead("football-jig", 1.0)],
        [OwnedTrailer("craw", 4.0), OwnedTrailer("chunk", 3.0)],
    )
    found = missing(cat, tackle, [("Bay", Scenario(GRASS)), ("Mat", Scenario(MAT))])
    before = dict(found.now)
    for purchase in found.purchases:
        for name, was, then in purchase.gains:
            assert then > was >= before[name] - 1e-9
    assert [h.family for h in found.unused_heads] == ["micro-jig", "football-jig"]
    holds_to("advice.missing", found, 3e-3)


def test_a_box_without_a_whole_rig_is_worth_nothing_yet(cat: Catalog) -> None:
    heads = tackle_of([OwnedHead("swim-jig", 0.375)], [])
    assert missing(cat, heads, [("Bay", Scenario(GRASS))]).now == (("Bay", 0.0),)


def of(**parts: float) -> Bands:
    """Bands a foot and a half either way about 3 m, by what widens them (m)."""
    return Bands(0.9, 1.1, 2.55, 3.45, tuple(parts.items()))


def test_its_figures_are_the_bands(cat: Catalog) -> None:
    sizing, one = rated("right over grass")
    found = narrows(sizing, one, of(pace=0.4, areas=0.3))
    assert found.startswith("Eight casts of ten run within 1.5 ft of that")
    # Turns drilled leave six tenths of the handle's part: the root of .24 and .3 squared over .5.
    assert found.endswith("within 1.1 ft.")
    assert of(pace=0.4, areas=0.3).without("pace", 0.6) == pytest.approx(0.7684, abs=1e-4)


PLAIN = Conditions(water_temp_f=60, bottom_depth_ft=30, fish_depth_ft=5)


WOOD = Cover(kind="wood")


@pytest.mark.parametrize(
    ("changes", "id_", "applies"),
    [
        ({"water_temp_f": 59.9}, "cold-water", True),
        ({"water_temp_f": 60.0}, "cold-water", False),
        ({"fish_depth_ft": 20.0}, "deep-fish", True),
        ({"fish_depth_ft": 19.9}, "deep-fish", False),
        ({"wind_mph": 18.0}, "wind", True),
        ({"wind_mph": 17.9}, "wind", False),
        ({"wind_mph": 10.0, "cover": WOOD}, "wind", True),
        ({"wind_mph": 9.9, "cover": WOOD}, "wind", False),
        ({"season": "spawn"}, "closed-season", True),
        ({"season": "summer"}, "closed-season", False),
        ({}, "hooks", True),
        ({}, "lead", True),
        ({}, "trailer-hook", False),
    ],
)
def test_where_a_caution_applies(cat: Catalog, changes: dict[str, object], id_: str, applies: bool) -> None:
    found = cautions_for(cat, Scenario(replace(PLAIN, **changes)))  # type: ignore[arg-type]
    assert (id_ in {c.id for c in found}) == applies


def test_cautions_of_a_rig(cat: Catalog) -> None:
    scenario = Scenario(PLAIN, families=("spinnerbait",))
    ids = {c.id for c in cautions_for(cat, scenario, size(cat, scenario).rigs[0])}
    assert {"trailer-hook", "lead", "hooks"} <= ids


DEEP = replace(BAIT, bottom_depth_ft=30, fish_depth_ft=18, clarity_ft=5, cover=Cover())


def test_a_quick_hand_is_told_to_slow_down(cat: Catalog) -> None:
    """The sentence holds: at the pace that it names the lure is near for the share that it says."""
    scenario = Scenario(DEEP, Gear(cast_ft=110.0), ("underspin",))
    made = size(cat, scenario)
    setting = setting_of(cat, scenario)
    rig = made.rigs[0].rig
    quick = rated_at(setting, rig, made.rigs[0].countdown_s, 1.25 * feet(made.rigs[0].tuned.pace_m_s))
    assert misses(made, quick)
    said = missing_said(cat, made, quick)
    assert re.match(
        r"Only \d+ % of the retrieve comes near 16–18 ft: it runs at \d+\.\d ft on average\.", said
    )
    pace, turns, share = re.search(
        r"Slower reaches them: ([\d.]+) ft/s, ([\d.]+) turns in 20 s, holds it near for (\d+) %", said
    ).groups()  # type: ignore[union-attr]
    assert float(turns) == pytest.approx(scenario.gear.turns_per_s(float(pace)) * 20, abs=0.6)
    again = rated_at(setting, rig, quick.countdown_s, float(pace))
    assert 100 * again.tuned.near_band == pytest.approx(float(share), abs=12)


def test_a_floor_jig_under_hanging_fish_names_a_swimmer(cat: Catalog) -> None:
    made = size(cat, Scenario(DEEP, Gear(cast_ft=110.0), ("football-jig",)))
    said = missing_said(cat, made, made.rigs[0])
    assert said.startswith("It works at 30 ft, 12 ft below the fish.")
    found = re.search(r"A ([\d/ ]+) oz ([a-z ]+), [a-z -]+, runs there: ([\d.]+) ft at ([\d.]+) ft/s", said)
    assert found is not None
    assert 15.0 <= float(found[3]) <= 19.0
    family = next(f.id for f in cat.families.values() if f.name == found[2])
    assert cat.families[family].work == "swim"


def test_under_a_mat_it_is_lifted_back(cat: Catalog) -> None:
    water = replace(MAT, bottom_depth_ft=8, fish_depth_ft=3)
    made = size(cat, Scenario(water, families=("punch-rig",)))
    said = missing_said(cat, made, made.rigs[0])
    assert "lift it back to 3 ft, just under the mat, and shake it there" in said


def test_a_bluff_asks_for_its_ledge(cat: Catalog) -> None:
    wall = replace(DEEP, fish_depth_ft=12, forage="crawfish", cover=Cover(kind="rock", detail="bluff"))
    made = size(cat, Scenario(wall, families=("finesse-jig",)))
    assert missing_said(cat, made, made.rigs[0]).startswith(
        "It needs a ledge at 12 ft; where there is none it falls on to 30 ft."
    )
