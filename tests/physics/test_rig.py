"""Rigs as the water meets them: masses, weights, areas and spreads of a dozen, to the digit."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from heathdrop.catalog import Catalog
from heathdrop.physics.rig import (
    Measured,
    Rig,
    areas_of,
    disc_area_m2,
    fused_of,
    liveliness,
    lure_of,
    rig_by_name,
    spread_of,
    stiffness,
)
from tests.golden_file import holds_to
from tests.said import said_of

NAMED: dict[str, dict[str, Any]] = {
    "plain": {},
    "none": {"trailer": "none"},
    "long": {"trailer_length_in": 5.0},
    "tungsten": {"head_material": "tungsten"},
    "thin": {"skirt": "thin"},
    "football": {"family": "football-jig", "head_oz": 0.75, "trailer": "chunk"},
    "spinnerbait": {"family": "spinnerbait", "trailer": "twin-tail"},
    "colorado": {"family": "spinnerbait", "trailer": "twin-tail", "blades": "colorado"},
    "floating": {"plastic": "floating"},
    "dense": {"softness": "dense", "trailer": "creature"},
    "edge": {"orientation": "vertical"},
    "fused": {"trailer": "creature", "fused": True},
    "punch": {"family": "punch-rig", "head_oz": 1.25, "trailer": "beaver"},
}
MEASURED = (
    Measured(head_g=11.2, trailer_g=8.1, width=1.2),
    Measured(body_fall=1.2, trailer_fall=0.8, lift=1.3, body_fall_spread=0.1, lift_spread=0.12),
    Measured(trailer_fall_spread=0.08),
    Measured(body_fall_spread=0.2, trailer_fall_spread=0.2, fall_joint=-0.03),
    Measured(body_fall_spread=0.01, trailer_fall_spread=0.01, fall_joint=-0.5),
)


def rigs(cat: Catalog) -> dict[str, Rig]:
    plain = {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw"}
    found = {}
    for name, more in NAMED.items():
        row = {**plain, **more}
        family, oz, trailer = (row.pop(k) for k in ("family", "head_oz", "trailer"))
        found[name] = rig_by_name(cat, family, oz, trailer, **row)
    for k, own in enumerate(MEASURED):
        found[f"measured {k}"] = replace(found["plain"], measured=own)
    return found


#: Rigs whose areas are kept one by one; those of the others stand in the lure made of them.
AREAS = ("plain", "none", "dense")


def test_weights_areas_and_spreads(cat: Catalog) -> None:
    holds_to(
        "physics.rig",
        {
            f"{name} at {f} °F": {
                "kg": [rig.head_kg, rig.trailer_kg],
                "bulk": rig.bulk_cm2,
                "lively": liveliness(cat, rig, f),
                **({"areas": areas_of(cat, rig, f)} if name in AREAS else {}),
                "lure": lure_of(cat, rig, 999.1, f),
                "spread": spread_of(cat, rig, f),
            }
            for name, rig in rigs(cat).items()
            for f in ((44.0, 60.0) if name == "plain" else (60.0,))
        },
    )


def test_the_cold_stiffens_between_its_bounds(cat: Catalog) -> None:
    warm, cold = cat.cold.stiffens_below_f, cat.cold.coldest_f
    assert [stiffness(cat, f) for f in (warm + 1, warm, 0.5 * (warm + cold), cold, cold - 5)] == [
        0,
        0,
        0.5,
        1,
        1,
    ]


def test_a_head_of_ten_millimetres_has_the_disc_of_its_sphere() -> None:
    """Volume and area of a sphere of 10 mm: 0.5236 cm³ and 0.7854 cm²."""
    assert disc_area_m2(0.5235988e-6 * 11000.0, 11000.0) * 1e4 == pytest.approx(0.7853982)


def test_left_joined_it_glides_and_catches_less(cat: Catalog) -> None:
    craw, joined = cat.trailers["craw"], cat.fused
    made = fused_of(cat, craw)
    assert made.glide == max(craw.glide, joined.glide)
    assert made.action == joined.action_kept * craw.action
    assert made.catching == joined.catching_kept * craw.catching
    tail = rig_by_name(cat, "swim-jig", 0.5, "pin-tail", fused=True)
    assert (tail.fused, tail.trailer) == (False, cat.trailers["pin-tail"])


def test_every_refusal(cat: Catalog) -> None:
    given: dict[str, dict[str, Any]] = {
        "family": {"family": "spoon"},
        "trailer": {"trailer": "toad"},
        "material": {"head_material": "gold"},
        "steel": {"head_material": "steel"},
        "light": {"head_oz": 0.03},
        "heavy": {"head_oz": 4.01},
        "short": {"trailer_length_in": 0.49},
        "long": {"trailer_length_in": 10.1},
        "bare and long": {"trailer": "none", "trailer_length_in": 99.0},
        "blades": {"blades": "colorado"},
        "blades unknown": {"family": "spinnerbait", "blades": "round"},
        "skirt": {"skirt": "kilt"},
        "shape": {"head_shape": "cube"},
        "plastic": {"plastic": "wood"},
        "softness": {"softness": "hard"},
        "orientation": {"orientation": "askew"},
    }
    found = {}
    for name, more in given.items():
        row = {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw", **more}
        family, oz, trailer = (row.pop(k) for k in ("family", "head_oz", "trailer"))
        found[name] = said_of(
            lambda f=family, o=oz, t=trailer, r=row: rig_by_name(cat, f, o, t, at="here.", **r).head_oz
        )
    holds_to("physics.rig.refused", found)
