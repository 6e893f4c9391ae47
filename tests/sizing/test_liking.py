"""Which trailers are liked: the best is 1, the rest by their points, none below the least."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.sizing.liking import pulls_of
from heathdrop.sizing.setting import Setting, setting_of

BAIT = Conditions(
    water_temp_f=64, bottom_depth_ft=12, fish_depth_ft=6, forage="baitfish", clarity_ft=4, season="fall"
)
COLD = replace(BAIT, water_temp_f=42, forage="crawfish", fish_depth_ft=12, season="winter")


def of(cat: Catalog, c: Conditions, family: str, *schools: tuple[str, str]) -> Setting:
    return setting_of(cat, Scenario(c, families=(family,), schools=schools))


def test_points_add_up_as_far_as_each_rule_is_true(cat: Catalog) -> None:
    facts = of(cat, COLD, "football-jig").facts
    pulls = pulls_of(cat, facts)
    quiet, claws = cat.rules["quiet-plastic"].trailers, cat.rules["crawfish-low"].trailers
    # At 4 ft of visibility murky water is a third true, clear water a sixth.
    both = (cat.rules["dirty-bulk"].trailers, 1 / 3), (cat.rules["clear-slim"].trailers, 1 / 6)
    seen = {t: sum(share * points.get(t, 0.0) for points, share in both) for t in pulls}
    for tail, cold in (("paddle-tail", 1.0), ("small-craw", 1.0), ("creature", 0.5)):
        found = pulls if cold == 1.0 else pulls_of(cat, {**facts, "temp_f": 53.0})
        assert found[tail] == pytest.approx(cold * quiet[tail] + claws[tail] + seen[tail])


@pytest.mark.parametrize(
    "family", ["swim-jig", "bladed-jig", "spinnerbait", "underspin", "football-jig", "punch-rig"]
)
def test_the_best_liked_is_one_and_none_is_nothing(cat: Catalog, family: str) -> None:
    for c in (BAIT, COLD):
        factors = of(cat, c, family).liking.factors
        shown = [factors[t.id] for t in cat.trailers.values() if t.standard]
        assert max(factors.values()) == 1.0
        assert max(shown) == 1.0
        assert min(factors.values()) >= cat.judgement.schools.least_liking


def test_forage_cold_and_cover_choose_the_trailer(cat: Catalog) -> None:
    def best(c: Conditions, family: str) -> str:
        factors = of(cat, c, family).liking.factors
        return max((t.id for t in cat.trailers.values() if t.standard), key=lambda t: factors[t])

    assert best(BAIT, "swim-jig") == "paddle-tail"
    assert best(COLD, "football-jig") == "small-craw"
    weed = replace(
        BAIT, forage="bluegill", cover=Cover(kind="submerged-grass", top_depth_ft=2, density="thick")
    )
    assert best(weed, "grass-jig") == "beaver"
    pads = replace(BAIT, forage="bluegill", cover=Cover(kind="pads"))
    assert best(pads, "swim-jig") in ("craw", "small-craw", "twin-tail")


def test_a_family_and_a_school_have_their_say(cat: Catalog) -> None:
    plain, never = of(cat, BAIT, "bladed-jig"), of(cat, BAIT, "bladed-jig", ("bladed-paddle", "never"))
    ratio = never.liking.factors["paddle-tail"] / plain.liking.factors["paddle-tail"]
    assert ratio < 0.5
    assert of(cat, BAIT, "underspin").liking.factors["craw"] == pytest.approx(0.05)
    assert of(cat, BAIT, "underspin").liking.factors["pin-tail"] > 0.6
