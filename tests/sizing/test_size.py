"""Sizing: activity, targets, the board's diagonal, honesty of scores."""

import math
from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import PRICES
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.candidates import standard_rigs
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import equals_of, ranked, rate, rate_each, rated_at, size
from heathdrop.sizing.tune import TUNED
from heathdrop.units import feet, metres
from tests.advice.cases import CASES, rated
from tests.golden_file import holds_to
from tests.waters import ALL, GRASS
from tests.web.shown import DAY


def test_bulkier_trailers_ask_for_heavier_heads(cat: Catalog) -> None:
    """The trade on the board: at one pace and count, the head that runs at a depth rises with bulk."""
    setting = setting_of(cat, Scenario(replace(DAY, fish_depth_ft=5), Gear(), ("swim-jig",)))
    heads = {}
    for trailer in ("pin-tail", "craw", "chunk"):
        rigs = [rig_by_name(cat, "swim-jig", oz, trailer) for oz in setting.family.weights_oz]
        runs = [rated_at(setting, rig, 2.0, 2.5).tuned.mean_m for rig in rigs]
        heads[trailer] = rigs[min(range(len(runs)), key=lambda k: abs(runs[k] - metres(4.0)))].head_oz
    assert heads["pin-tail"] < heads["craw"] <= heads["chunk"]
    assert heads["chunk"] > heads["pin-tail"]


def test_a_count_held_past_the_floor_starts_from_it(cat: Catalog) -> None:
    setting = setting_of(cat, Scenario(replace(DAY, bottom_depth_ft=7.5), Gear(), ("swim-jig",)))
    rig = rig_by_name(cat, "swim-jig", 0.375, "craw")
    long, longer = (rated_at(setting, rig, s, 2.5) for s in (20.0, 120.0))
    assert long.tuned.start_depth_m == longer.tuned.start_depth_m == pytest.approx(metres(7.5))
    assert long.tuned.mean_m == longer.tuned.mean_m > 0.3


def test_scores_are_honest(cat: Catalog) -> None:
    """Scores are 0..1, ranked, never above any single part's reach, and name a part."""
    s = size(cat, Scenario(DAY))
    assert len(s.rigs) == 2 * 10 * 8
    scores = [round(r.fits.score, 3) for r in s.rigs]
    assert scores == sorted(scores, reverse=True)
    for r in s.rigs:
        assert all(0.0 <= v <= 1.0 for v in r.fits.parts.values())
        shared = {k: v for k, v in r.fits.parts.items() if k not in PRICES}
        weights = cat.judgement.fit.weights
        mean = sum(weights[k] * math.log(v) for k, v in shared.items())
        mean += sum(weights[k] * math.log(r.fits.parts[k]) for k in PRICES)
        assert r.fits.score == pytest.approx(math.exp(mean / sum(weights[k] for k in shared)))
        assert r.fits.score <= max(shared.values())
        if r.fits.limiting is None:
            assert min(r.fits.parts.values()) > 0.95
        else:
            assert r.fits.parts[r.fits.limiting] <= 0.95
        low, high = s.paces_ft_s
        liked = low - 1e-6 <= feet(r.tuned.pace_m_s) <= high + 1e-6
        assert liked is (r.fits.parts["pace"] == 1.0)


SIZED = {
    "grass": ("swim-jig", "bladed-jig"),
    "winter rock": ("football-jig", "micro-jig"),
    "mat": ("punch-rig",),
    "bait": ("underspin", "spinnerbait"),
    "wood": ("flipping-jig",),
    "beds": ("weighted-plastic",),
    "reeds": ("grass-jig",),
}


def test_the_best_rigs_of_ten_boards(cat: Catalog) -> None:
    """Names, counts, paces, parts of the first, to a part in a thousand."""
    found = {}
    for water, families in SIZED.items():
        for family in families:
            made = size(cat, Scenario(ALL[water], families=(family,)))
            rows = [made.rigs[0]]
            found[f"{water}, {family}"] = {
                r.key: {
                    "count_s": r.countdown_s,
                    "fall_ft_s": r.fall_ft_s,
                    "pace_m_s": r.tuned.pace_m_s,
                    "mean_m": r.tuned.mean_m,
                    "parts": r.fits.parts,
                    "score": r.fits.score,
                }
                for r in rows
            }
    holds_to("sizing.size", found, tolerance=2e-3)


def test_a_rig_at_a_count_and_a_pace_of_ones_own(cat: Catalog) -> None:
    made = {name: rated(name)[1] for name, case in CASES.items() if case.count_s is not None or case.schools}
    found = {
        name: {
            "mean_m": r.tuned.mean_m,
            "in_band": r.tuned.in_band,
            "count_s": r.countdown_s,
            "fall_ft_s": r.fall_ft_s,
            "parts": r.fits.parts,
        }
        for name, r in made.items()
    }
    holds_to("sizing.size.given", found, tolerance=2e-3)


def test_as_good_is_of_the_same_family_within_the_noise(cat: Catalog) -> None:
    made = size(cat, Scenario(ALL["grass"], families=("swim-jig", "bladed-jig")))
    noise = cat.judgement.fit.noise
    best = made.rigs[0]
    same = equals_of(cat, made, best)
    assert best not in same
    assert same == [
        r
        for r in made.rigs[1:]
        if r.rig.family.id == best.rig.family.id and abs(r.fits.score - best.fits.score) <= noise
    ]
    assert any(r.rig.family.id != best.rig.family.id for r in made.rigs)


def test_equal_scores_go_to_the_usual_weight_then_the_usual_trailer(cat: Catalog) -> None:
    setting = setting_of(cat, Scenario(ALL["grass"], families=("swim-jig",)))
    usual = cat.families["swim-jig"].usual_trailer
    middle = setting.weights.middle_oz
    made = rate(setting, standard_rigs(setting))
    level = [replace(r, fits=replace(r.fits, score=0.5)) for r in made]
    order = ranked(setting, level)
    off = [abs(math.log(r.fishes_oz / middle)) for r in order]
    assert off == sorted(off)
    # As heavy as each other: the usual trailer, then the slimmest.
    alike = ranked(setting, [replace(r, fishes_oz=middle) for r in level])
    assert alike[0].rig.trailer.id == usual
    rest = [r.rig.bulk_cm2 for r in alike if r.rig.trailer.id != usual]
    assert rest == sorted(rest)
    assert ranked(setting, list(reversed(level)))[0].key == order[0].key


@pytest.mark.parametrize("family", ["swim-jig", "underspin", "football-jig", "punch-rig"])
def test_rigs_rated_together_are_each_rated_as_alone(cat: Catalog, family: str) -> None:
    setting = setting_of(cat, Scenario(GRASS, families=(family,)))
    rigs = standard_rigs(setting)[::9]
    assert len(rigs) > 3
    alone = [rate(setting, [rig])[0] for rig in rigs]
    TUNED.clear()
    assert rate_each(setting, rigs) == alone
