"""What holds a rig back, what is said of its weight, and doubt: each sentence where it is true."""

import re
from dataclasses import replace

import pytest

from heathdrop.advice.doubt import WOULD_HELP, doubt_of
from heathdrop.advice.why import (
    fish_sentence,
    limit_sentence,
    reasons,
    runs,
)
from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import PARTS
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Scenario
from heathdrop.learning.learned import NOTHING
from heathdrop.sizing.fit import joined
from heathdrop.sizing.knowledge import OwnFish
from heathdrop.sizing.size import Rated, Sizing, size
from heathdrop.units import metres
from tests.waters import GRASS, WINTER_ROCK
from tests.web.shown import DAY


@pytest.fixture(scope="module")
def swum(cat: Catalog) -> Sizing:
    return size(cat, Scenario(GRASS, families=("swim-jig",)))


def held_back(cat: Catalog, rated: Rated, part: str, fit: float = 0.4) -> Rated:
    """The rig with everything perfect but one part."""
    parts = {**dict.fromkeys(rated.fits.parts, 1.0), part: fit}
    return replace(rated, fits=joined(cat, parts))


@pytest.mark.parametrize(
    ("part", "words"),
    [
        ("fall", "It falls "),
        ("cover", "It "),
        ("action", "Its action is off"),
        ("profile", "Its trailer is off"),
        ("weight", "than what is usual at 6 ft"),
    ],
)
def test_what_costs_most_is_said(cat: Catalog, swum: Sizing, part: str, words: str) -> None:
    assert words in limit_sentence(swum, held_back(cat, swum.rigs[0], part))
    assert limit_sentence(swum, held_back(cat, swum.rigs[0], part, 0.99)) == "Nothing holds it back."


def test_which_way_it_misses(cat: Catalog, swum: Sizing) -> None:
    best = held_back(cat, swum.rigs[0], "depth")
    top, low = swum.targets.depth_ft
    at = {
        name: replace(best, tuned=best.tuned._replace(mean_m=metres(ft), comfort=1.0))
        for name, ft in (("high", top - 0.1), ("deep", low + 0.1), ("", 0.5 * (top + low)))
    }
    assert {name: runs(swum, r) for name, r in at.items()} == {"high": "high", "deep": "deep", "": ""}
    assert limit_sentence(swum, at["high"]).startswith("It runs above the band at")
    assert limit_sentence(swum, at["deep"]).startswith("It runs below the band at")
    assert limit_sentence(swum, at[""]).startswith("It is in the band on average")
    slow = replace(at[""], tuned=at[""].tuned._replace(comfort=0.5, soft_share=0.9, pace_m_s=0.3))
    slow = held_back(cat, slow, "pace")
    assert limit_sentence(swum, slow).startswith("To hold its depth it must come slower than the")
    quick = replace(slow, tuned=slow.tuned._replace(pace_m_s=2.0))
    assert limit_sentence(swum, quick).startswith("To hold its depth it must come quicker than the")
    floor = size(cat, Scenario(WINTER_ROCK, families=("football-jig",)))
    assert limit_sentence(floor, held_back(cat, floor.rigs[0], "depth")).startswith("It works on the floor")
    assert "hides the bottom" in limit_sentence(floor, held_back(cat, floor.rigs[0], "touch"))


def test_doubt_is_said_below_sixty(cat: Catalog, swum: Sizing) -> None:
    best = swum.rigs[0]
    assert doubt_of(cat, swum, best) is None
    assert set(WOULD_HELP) == set(PARTS)
    for part in best.fits.parts:
        bad = held_back(cat, best, part, 1e-4)
        bad = replace(bad, fits=replace(bad.fits, score=0.59))
        alone = replace(swum, rigs=(bad,))
        said = doubt_of(cat, alone, bad)
        assert said is not None
        assert said.startswith("Nothing here fits well: the best is 59 of 100. ")
        assert said.endswith(WOULD_HELP[part])
        assert doubt_of(cat, alone, replace(bad, fits=replace(bad.fits, score=0.6))) is None
        beside = doubt_of(cat, swum, bad)
        assert beside is not None
        best_said = f"{100 * best.fits.score:.0f}"
        assert beside.startswith(f"This rig fits badly here, 59 of 100; the best one has {best_said}. ")
        assert beside.endswith(limit_sentence(swum, bad))


def test_reasons_carry_the_numbers(cat: Catalog) -> None:
    sizing = size(cat, Scenario(DAY, families=("swim-jig",)))
    for rated in (sizing.rigs[0], sizing.rigs[-1]):
        said = " ".join(reasons(sizing, rated))
        assert f"Falls {rated.fall_ft_s:.1f} ft/s" in said
        assert f"{rated.tuned.in_band * 100:.0f} % of the retrieve" in said
        assert "That band because fish feed upward" in said
    for kind, way in (
        ("reeds", r"It falls through 4–6 ft in \d\.\d s and is worked where it lands, at 9 ft\."),
        (
            "wood",
            r"Hung over a limb in 4–6 ft and shaken there, at 5\.\d ft\..* dropped into the wood\.$",
        ),
        ("docks", r"In 4–6 ft for \d\d % of the retrieve, on average at 5\.\d ft\."),
    ):
        dropped = size(cat, Scenario(replace(DAY, cover=Cover(kind=kind)), families=("flipping-jig",)))
        assert re.match(way, reasons(dropped, dropped.rigs[0])[0])
    low = size(
        cat, Scenario(replace(dropped.scenario.conditions, fish_depth_ft=9.0), families=("flipping-jig",))
    )
    assert "Sent straight down" in reasons(low, low.rigs[0])[0]


def test_what_ones_own_fish_want_is_said_with_its_casts(cat: Catalog, swum: Sizing) -> None:
    def said(own: OwnFish) -> str:
        return fish_sentence(replace(swum, knowledge=replace(NOTHING, fish=own)))

    slow, fast = swum.targets.pace_ft_s
    off = (slow * fast) ** 0.5 * (1.0 / 0.9 - 1.0)
    at = f"Your fish at {GRASS.water_temp_f:g} °F: "
    assert fish_sentence(swum) == ""
    assert said(OwnFish(pace=0.9, casts=(("pace", 41),))) == (
        f"{at}{off:.1f} ft/s slower than the table (41 casts), as your log says."
    )
    heavier = said(OwnFish(head=1.2, casts=(("head", 90),)))
    assert heavier == f"{at}heads 20 % heavier (90 casts), as your log says."
    falls = swum.targets.fall_ft_s
    slower = (falls[0] * falls[1]) ** 0.5 * 0.25
    assert said(OwnFish(fall=0.8, casts=(("fall", 50),))) == (
        f"{at}a fall {slower:.1f} ft/s slower than the table (50 casts), as your log says."
    )
    lazier = said(OwnFish(warm=-0.6, casts=(("warm", 70),)))  # warm from 58 °F on
    assert lazier == f"{at}0.6 steps lazier (70 casts), as your log says."
    assert said(OwnFish(cold=-0.6, bites=2.0, casts=(("cold", 70),))) == ""  # of cold water, and no sizing
    both = said(OwnFish(head=0.8, pace=1.1, casts=(("head", 90), ("pace", 41))))
    assert "faster than the table (41 casts), heads 20 % lighter (90 casts)" in both
