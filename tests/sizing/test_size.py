"""Sizing: activity, targets, the board's diagonal, honesty of scores."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Conditions, Scenario, check
from heathdrop.errors import BadInput
from heathdrop.sizing.size import Sizing, size

DAY = Conditions(
    water_temp_f=58,
    bottom_depth_ft=9,
    fish_depth_ft=6,
    clarity_ft=3,
    trend="rising",
    activity=None,
    season="pre-spawn",
    light="overcast",
    wind_mph=8,
    forage="bluegill",
    cover=Cover(kind="submerged-grass", top_depth_ft=7),
)


def centre_of(s: Sizing, cat: Catalog) -> tuple[float, float]:
    """Score-weighted mean head (oz) and bulk (cm²) of the rigs that do well."""
    good = s.rigs[:12]
    total = sum(r.fits.score for r in good)
    return (
        sum(r.rig.head_oz * r.fits.score for r in good) / total,
        sum(r.rig.trailer.run_drag_area_cm2 * r.fits.score for r in good) / total,
    )


@pytest.mark.parametrize("family", ["swim-jig", "bladed-jig"])
def test_deeper_fish_move_the_diagonal_to_heavy_and_slim(cat: Catalog, family: str) -> None:
    shallow, deep = (
        size(cat, Scenario(replace(DAY, fish_depth_ft=d), Gear(), (family,))) for d in (3.0, 8.0)
    )
    assert centre_of(deep, cat)[0] > centre_of(shallow, cat)[0] + 0.05


def test_bulkier_trailers_ask_for_heavier_heads(cat: Catalog) -> None:
    """The trade on the board: along the diagonal of depth alone, weight rises with bulk."""
    sized = size(cat, Scenario(replace(DAY, fish_depth_ft=5), Gear(), ("swim-jig",)))
    heads: dict[str, float] = {}
    for r in sorted(sized.rigs, key=lambda r: -r.fits.parts["depth"]):
        heads.setdefault(r.rig.trailer.id, r.rig.head_oz)
    assert heads["pin-tail"] <= heads["craw"] <= heads["chunk"]
    assert heads["chunk"] > heads["pin-tail"]


def test_scores_are_honest(cat: Catalog) -> None:
    """Scores are 0..1, ranked, never above any single part's reach, and name a part."""
    s = size(cat, Scenario(DAY))
    assert len(s.rigs) == 2 * 10 * 8
    scores = [round(r.fits.score, 3) for r in s.rigs]
    assert scores == sorted(scores, reverse=True)
    for r in s.rigs:
        assert all(0.0 <= v <= 1.0 for v in r.fits.parts.values())
        assert min(r.fits.parts.values()) <= r.fits.score <= max(r.fits.parts.values())
        if r.fits.limiting is None:
            assert min(r.fits.parts.values()) > 0.95
        else:
            assert r.fits.parts[r.fits.limiting] <= 0.95
        low, high = s.paces_ft_s
        assert low - 1e-9 <= r.tuned.pace_m_s / 0.3048 <= high + 1e-9


def test_same_input_same_output(cat: Catalog) -> None:
    first, second = (size(cat, Scenario(DAY)) for _ in range(2))
    assert [(r.key, r.fits.score, r.tuned) for r in first.rigs] == [
        (r.key, r.fits.score, r.tuned) for r in second.rigs
    ]


def test_grass_lets_a_blade_through_more_than_a_skirt(cat: Catalog) -> None:
    s = size(
        cat,
        Scenario(
            replace(
                DAY, fish_depth_ft=8, cover=Cover(kind="submerged-grass", top_depth_ft=5, density="thick")
            )
        ),
    )
    worst = {
        f: max(r.cover.fouls for r in s.rigs if r.rig.family.id == f) for f in ("swim-jig", "bladed-jig")
    }
    assert worst["bladed-jig"] < worst["swim-jig"]


@pytest.mark.parametrize(
    ("change", "sentence"),
    [
        ({"water_temp_f": 400.0}, "conditions.water_temp_f was 400; it must be from 32 to 100 °F."),
        ({"fish_depth_ft": -1.0}, "conditions.fish_depth_ft was -1; it must be from 0 to 60 ft."),
        (
            {"fish_depth_ft": 12.0},
            "conditions.fish_depth_ft was 12; it must be no deeper than the bottom at 9 ft.",
        ),
        (
            {"clarity_ft": float("nan")},
            "conditions.clarity_ft was nan; it must be from 0.1 to 60 ft of visibility.",
        ),
        (
            {"cover": Cover(kind="submerged-grass")},
            "conditions.cover.top_depth_ft was not given; it must be given in feet for submerged-grass.",
        ),
    ],
)
def test_what_cannot_be_is_named(change: dict[str, object], sentence: str) -> None:
    with pytest.raises(BadInput) as refusal:
        check(Scenario(replace(DAY, **change)))  # type: ignore[arg-type]
    assert str(refusal.value) == sentence
