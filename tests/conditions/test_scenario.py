"""Where the fish stand, and every contradiction that a scenario may hold, named where it was typed."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear, Line, Reel
from heathdrop.conditions.scenario import BY_PATH, Conditions, Scenario, check
from heathdrop.errors import BadInput
from tests.golden_file import holds_to
from tests.waters import ALL, GRASS, MAT, WOOD

PLAIN = Conditions(water_temp_f=60, bottom_depth_ft=10, fish_depth_ft=5)


def test_one_set_of_defaults_for_every_door() -> None:
    holds_to(
        "conditions.rows",
        {p: (r.default, r.quantity.label, r.quantity.allowed()) for p, r in BY_PATH.items()},
    )


@pytest.mark.parametrize(
    ("fish", "cover", "stands"),
    [
        (9.5, "open", "on-bottom"),
        (9.4, "open", "suspended"),
        (2.0, "open", "cruising-high"),
        (2.1, "open", "suspended"),
        (9.9, "wood", "under-cover"),
        (9.9, "docks", "under-cover"),
        (1.0, "matted-grass", "under-cover"),
        (9.9, "rock", "on-bottom"),
    ],
)
def test_where_they_stand(fish: float, cover: str, stands: str) -> None:
    assert replace(PLAIN, fish_depth_ft=fish, cover=Cover(kind=cover)).stands == stands
    assert replace(PLAIN, fish_depth_ft=fish, posture="suspended").stands == "suspended"


@pytest.mark.parametrize("name", list(ALL))
def test_the_shared_waters_can_be(name: str) -> None:
    check(Scenario(ALL[name]))


@pytest.mark.parametrize(
    ("changes", "said"),
    [
        (
            {"water_temp_f": 31.9},
            "conditions.water_temp_f was 31.9; it must be from 32 to 100 °F: below that it is ice.",
        ),
        ({"water_temp_f": 101}, "conditions.water_temp_f was 101; it must be from 32 to 100 °F."),
        (
            {"fish_depth_ft": 10.1},
            "conditions.fish_depth_ft was 10.1; it must be no deeper than the bottom at 10 ft.",
        ),
        ({"trend": "up"}, "conditions.trend was “up”; it must be one of rising, steady, falling."),
        ({"activity": 4.1}, "conditions.activity was 4.1; it must be from 0 to 4 (0 dormant to 4 chasing)."),
        ({"posture": "under-cover"}, "there is no cover in open water."),
        ({"posture": "on-bottom", "fish_depth_ft": 7.9}, "fish at 7.9 ft are off a bottom at 10 ft."),
        ({"posture": "cruising-high", "fish_depth_ft": 6.1}, "fish at 6.1 ft are not high."),
    ],
)
def test_what_cannot_be(changes: dict[str, Any], said: str) -> None:
    with pytest.raises(BadInput) as refusal:
        check(Scenario(replace(PLAIN, **changes)))
    assert str(refusal.value).endswith(said)


def test_edges_that_can_be() -> None:
    check(Scenario(replace(PLAIN, posture="on-bottom", fish_depth_ft=8.0)))
    check(Scenario(replace(PLAIN, posture="cruising-high", fish_depth_ft=6.0)))
    deep = replace(PLAIN, bottom_depth_ft=30, fish_depth_ft=15, posture="cruising-high")
    check(Scenario(deep))
    with pytest.raises(BadInput):
        check(Scenario(replace(deep, fish_depth_ft=15.1)))


@pytest.mark.parametrize(
    ("base", "cover", "said"),
    [
        (
            GRASS,
            {"top_depth_ft": None},
            "top_depth_ft was not given; it must be given in feet for submerged-grass.",
        ),
        (GRASS, {"top_depth_ft": 9.1}, "top_depth_ft was 9.1; it must be no deeper than the bottom at 9 ft."),
        (MAT, {"top_depth_ft": 1.0}, "it must be 0 or left out: a mat lies on the surface."),
        (MAT, {"thickness_in": 36.1}, "thickness_in was 36.1; it must be from 0.5 to 36 in thick."),
        (WOOD, {"thickness_in": 3.0}, "left out: only matted grass has one."),
        (WOOD, {"texture": "milfoil"}, "left out: only matted grass has one."),
        (WOOD, {"detail": "riprap"}, "one of laydown, brush, standing-timber."),
        (GRASS, {"detail": "riprap"}, "left out for submerged-grass."),
    ],
)
def test_cover_that_contradicts_itself(base: Conditions, cover: dict[str, Any], said: str) -> None:
    with pytest.raises(BadInput) as refusal:
        check(Scenario(replace(base, cover=replace(base.cover, **cover))))
    assert str(refusal.value).endswith(said)


def test_a_mat_no_thicker_than_its_water() -> None:
    shallow = replace(MAT, bottom_depth_ft=2.0, fish_depth_ft=2.0)
    check(Scenario(replace(shallow, cover=replace(MAT.cover, thickness_in=24.0))))
    with pytest.raises(BadInput, match="no thicker than the 2 ft of water"):
        check(Scenario(replace(shallow, cover=replace(MAT.cover, thickness_in=24.1))))


def test_gear() -> None:
    assert Gear(reel=Reel(inches_per_turn=24.0)).turns_per_s(2.0) == 1.0
    with pytest.raises(BadInput, match=r"gear\.cast_ft was 181"):
        check(Scenario(PLAIN, Gear(cast_ft=181.0)))
    with pytest.raises(BadInput, match=r"gear\.line\.material was “wire”"):
        check(Scenario(PLAIN, Gear(line=Line(material="wire"))))
