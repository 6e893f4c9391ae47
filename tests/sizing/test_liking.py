"""Which trailers are liked: the best is 1, the rest by their points, none below the least."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.candidates import lengths_of
from heathdrop.sizing.leans import USUAL_ACTION, USUAL_BULK_CM2, Tilt
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
        setting = of(cat, c, family)
        bare = setting.family.bare_too
        liked = [
            setting.liking.of(rig_by_name(cat, family, 0.5, t.id, trailer_length_in=length))
            for t in cat.trailers.values()
            if t.standard
            for length in lengths_of(setting.family, t)
        ]
        liked += [setting.liking.of(rig_by_name(cat, family, 0.5, "none"))] if bare else []
        assert max(liked) == pytest.approx(1.0)
        assert min(liked) >= cat.judgement.schools.least_liking


def test_a_tilt_is_counted_from_the_usual_trailer() -> None:
    tilt = Tilt(action=-0.2, bulk=0.3)
    assert tilt.of(USUAL_ACTION, USUAL_BULK_CM2) == 0.0
    assert tilt.of(3.0, 2.5) == pytest.approx(-0.2)
    assert tilt.of(2.0, 5.0) == pytest.approx(0.3 * math.log(2.0))
    # A bare skirt and a giant are held to the range of the log.
    assert tilt.of(2.0, 0.0) == pytest.approx(-1.8 * 0.3)
    assert tilt.of(2.0, 99.0) == pytest.approx(1.2 * 0.3)


def test_colder_clearer_thicker_is_quieter_and_slimmer(cat: Catalog) -> None:
    grass = replace(
        BAIT, forage="bluegill", cover=Cover(kind="submerged-grass", top_depth_ft=9, density="sparse")
    )
    mild = of(cat, grass, "swim-jig").liking.tilt
    assert of(cat, replace(grass, water_temp_f=46), "swim-jig").liking.tilt.action < mild.action
    clear = of(cat, replace(grass, clarity_ft=15), "swim-jig").liking.tilt
    assert (clear.action, clear.bulk) < (mild.action, mild.bulk)
    thick = replace(grass, cover=replace(grass.cover, density="thick"))
    assert of(cat, thick, "grass-jig").liking.tilt.action < of(cat, grass, "grass-jig").liking.tilt.action


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
    liking = of(cat, BAIT, "underspin").liking
    assert liking.of(rig_by_name(cat, "underspin", 0.375, "craw")) == cat.judgement.schools.least_liking
    assert liking.of(rig_by_name(cat, "underspin", 0.375, "pin-tail")) > 0.5
