"""One rig at one setting: its way to the cover, its parts, its score."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from heathdrop.advice.why import reasons
from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import PRICES
from heathdrop.conditions.scenario import Cover, Scenario
from heathdrop.sizing.rated import WAYS_TO_COVER, Rated, way_to
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import size
from tests.waters import BAIT, GRASS, WINTER_ROCK, WOOD


@pytest.mark.parametrize(
    ("family", "in_cover", "way"),
    [
        ("swim-jig", 0.04, "over"),
        ("swim-jig", 0.05, "ticking"),
        ("swim-jig", 0.49, "ticking"),
        ("swim-jig", 0.5, "through"),
        ("flipping-jig", 0.0, "into"),
        ("football-jig", 0.0, "through"),
    ],
)
def test_the_way_follows_the_path(cat: Catalog, family: str, in_cover: float, way: str) -> None:
    setting = setting_of(cat, Scenario(GRASS, families=(family,)))
    assert way_to(setting, in_cover, setting.family.work) == way
    assert way in WAYS_TO_COVER


def test_in_open_water_there_is_no_way_to_tell(cat: Catalog) -> None:
    assert way_to(setting_of(cat, Scenario(BAIT, families=("underspin",))), 0.0, "swim") == "open"


def test_the_score_is_its_parts_mean_times_their_prices(cat: Catalog) -> None:
    weights = cat.judgement.fit.weights
    for conditions, family in ((GRASS, "swim-jig"), (WINTER_ROCK, "football-jig")):
        for r in size(cat, Scenario(conditions, families=(family,))).rigs[:5]:
            total = sum(weights[k] for k in r.fits.parts if k not in PRICES)
            logs = sum(weights[k] * math.log(v) for k, v in r.fits.parts.items())
            assert r.fits.score == pytest.approx(math.exp(logs / total), rel=1e-9)


def test_floor_work_is_along_the_floor(cat: Catalog) -> None:
    def first(family: str) -> Rated:
        return size(cat, Scenario(replace(WINTER_ROCK), families=(family,))).rigs[0]

    assert first("football-jig").along_floor
    assert not first("flipping-jig").along_floor


def test_two_arms_hang_less_in_wood_than_one_tail(cat: Catalog) -> None:
    """Like for like: what goes beside the wood tells also what going through would have cost it."""
    lying = replace(WOOD, water_temp_f=62.0, fish_depth_ft=5.0, bottom_depth_ft=7.0, forage="bluegill")
    wood = Scenario(replace(lying, cover=Cover(kind="wood", detail="laydown")), families=("bladed-jig",))
    sizing = size(cat, wood)
    rigs = {r.rig.trailer.id: r for r in sizing.rigs if r.rig.head_oz == 0.5}
    arms, tail = rigs["craw"], rigs["flat-tail"]
    assert (arms.way, arms.through, tail.way) == ("through", None, "beside")
    assert tail.through is not None
    assert tail.cover.hangs < arms.cover.hangs < tail.through.hangs
    assert any("there it would hang up on about 42 of 100 casts" in line for line in reasons(sizing, tail))
