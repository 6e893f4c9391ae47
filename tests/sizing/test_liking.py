"""What is liked: trailers, leans of the day, schools, and exactly what each moves."""

from dataclasses import replace

import pytest

from heathdrop.advice.why import limit_sentence
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.sizing.schools import Leaning, leaning_of, pace_factor
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import size
from tests.waters import MAT

BAIT = Conditions(
    water_temp_f=64, bottom_depth_ft=12, fish_depth_ft=6, forage="baitfish", clarity_ft=4, season="fall"
)


def of(cat: Catalog, c: Conditions, family: str, *schools: tuple[str, str]) -> Setting:
    return setting_of(cat, Scenario(c, families=(family,), schools=schools))


COLD_SCHOOLS = {"activity": 0.5, "temp_f": 41.0, "fish_depth_ft": 22.0, "cover": "rock", "clarity_ft": 7.0}


BOTTOM = {**COLD_SCHOOLS, "family": "football-jig", "work": "bottom"}


def test_what_a_school_moves(cat: Catalog) -> None:
    light = leaning_of(cat, (("cold-water-weight", "light"),), BOTTOM)
    assert light.band("football-jig") == (0.25, 0.375)
    assert light.band("micro-jig") == (0.125, 0.25)
    assert light.bulk_cm2 == (2.5, 9.0)
    assert light.favours == {"casting-jig": 0.3, "finesse-jig": 0.2, "football-jig": -0.4}
    assert light.tail("football-jig", "twin-tail") == 0.4
    assert light.tail("football-jig", "craw") == 1.0
    heavy = leaning_of(cat, (("cold-water-weight", "heavy"), ("rock-weight", "wide")), BOTTOM)
    assert heavy.favours == {"football-jig": 1.6}
    assert heavy.band("football-jig") == (0.5, 0.75)
    assert heavy.fall_ft_s == (1.6, 3.2)
    assert leaning_of(cat, (("cold-water-weight", "heavy"),), {**BOTTOM, "work": "swim"}) == Leaning()
    bare = leaning_of(cat, (("rock-weight", "light"),), BOTTOM)
    assert (bare.bare, bare.lobbed, bare.dress) == (True, False, {"skirt": "trimmed"})
    lobbed = setting_of(cat, Scenario(MAT, families=("punch-rig",), schools=(("mat-entry", "lobbed"),)))
    assert (lobbed.leaning.lobbed, lobbed.stand.lobbed, lobbed.leaning.bare) == (True, True, False)
    lean = leaning_of(cat, (("weight-lean", "lighter"),), BOTTOM)
    assert lean == Leaning(lean=0.8)


def test_only_a_school_of_the_family_moves_its_pace(cat: Catalog) -> None:
    quick = (("bladed-ladder", "heavy-fast"),)
    assert pace_factor(cat, quick, "bladed-jig") == pytest.approx(1.2)
    assert pace_factor(cat, quick, "swim-jig") == 1.0
    assert pace_factor(cat, (), "bladed-jig") == 1.0


ROCK = Cover(kind="rock", detail="chunk")


COLD_ROCK = Conditions(
    water_temp_f=43, bottom_depth_ft=14, fish_depth_ft=14, season="winter", forage="crawfish", cover=ROCK
)


MILD = Conditions(water_temp_f=60, bottom_depth_ft=9, fish_depth_ft=5, clarity_ft=9, forage="bluegill")


BAIT_SCHOOLS = Conditions(water_temp_f=58, bottom_depth_ft=25, fish_depth_ft=14, forage="baitfish")


@pytest.mark.slow
@pytest.mark.parametrize(
    ("c", "school", "family", "heads", "trailers"),
    [
        (COLD_ROCK, "cold-water-weight light", "finesse-jig", (0.25, 0.375), {"chunk", "creature-fused"}),
        (COLD_ROCK, "cold-water-weight heavy", "football-jig", (0.5, 0.75), {"twin-tail"}),
        (COLD_ROCK, "cold-water-weight shrink", "micro-jig", (0.1875, 0.5), {"twin-tail", "beaver"}),
        (COLD_ROCK, "rock-weight light", "finesse-jig", (0.125, 0.25), {"none"}),
        (COLD_ROCK, "rock-weight wide", "football-jig", (0.5, 0.75), None),
        (MILD, "bladed-ladder two", "bladed-jig", (0.375, 0.5), None),
        (MILD, "bladed-ladder one", "bladed-jig", (0.5, 0.5), None),
        (replace(MILD, clarity_ft=4), "bladed-ladder heavy-fast", "bladed-jig", (0.75, 0.75), None),
        (MILD, "bladed-trailer flat", "bladed-jig", None, {"flat-tail"}),
        (MILD, "bladed-trailer by-depth", "bladed-jig", None, {"flat-tail"}),
        (
            replace(MILD, fish_depth_ft=3),
            "bladed-trailer by-depth",
            "bladed-jig",
            None,
            {"craw", "small-craw"},
        ),
        (MILD, "bladed-trailer edge", "bladed-jig", None, {"beaver"}),
        (MILD, "spinnerbait-trailer lifts", "spinnerbait", None, {"none"}),
        (MILD, "no-trailer bare", "swim-jig", None, {"none"}),
        (replace(MILD, fish_depth_ft=9), "one-trailer simple", "casting-jig", None, {"craw"}),
        (BAIT_SCHOOLS, "underspin-tail minnow", "underspin", None, {"pin-tail"}),
        (BAIT_SCHOOLS, "underspin-tail paddle", "underspin", None, {"paddle-tail"}),
    ],
)
def test_what_a_school_ties_on_leads_in_its_own_water(
    cat: Catalog,
    c: Conditions,
    school: str,
    family: str,
    heads: tuple[float, float] | None,
    trailers: set[str] | None,
) -> None:
    topic, side = school.split()
    best = size(cat, Scenario(c, families=(family,), schools=((topic, side),))).rigs[0]
    assert heads is None or heads[0] <= best.rig.head_oz <= heads[1]
    assert trailers is None or best.rig.trailer.id in trailers
    assert best.fits.score >= 0.85
    assert "would choose another" not in limit_sentence(size(cat, Scenario(c, families=(family,))), best)
