"""Which rigs are tried: every head with every standard trailer, each at the length that suits it best."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.rig_name import name_of
from heathdrop.sizing.candidates import (
    dressed,
    lengths_of,
    promise,
    quick_worths,
    standard_rigs,
    standard_trailers,
)
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import size
from tests.golden_file import holds_to
from tests.waters import ALL, GRASS, WINTER_ROCK


def test_trailers_go_from_slim_to_bulky(cat: Catalog) -> None:
    order = standard_trailers(cat)
    drags = [cat.trailers[t].run_drag_area_cm2 for t in order]
    assert drags == sorted(drags)
    assert "none" not in order
    assert standard_trailers(cat, bare=True)[0] == "none"


@pytest.mark.parametrize("family", ["swim-jig", "football-jig", "micro-jig"])
def test_every_head_with_every_trailer_once(cat: Catalog, family: str) -> None:
    setting = setting_of(cat, Scenario(GRASS, families=(family,)))
    rigs = standard_rigs(setting)
    pairs = [(r.head_oz, r.trailer.id) for r in rigs]
    kind = cat.families[family]
    tails = standard_trailers(cat, setting.leaning.bare or kind.bare_too)
    assert len(pairs) == len(set(pairs)) == len(kind.weights_oz) * len(tails)
    for rig in rigs:
        assert rig.trailer_length_in in lengths_of(kind, rig.trailer)


def test_each_pair_has_its_most_promising_length(cat: Catalog) -> None:
    setting = setting_of(cat, Scenario(GRASS, families=("swim-jig",)))
    for rig in standard_rigs(setting)[::7]:
        others = [
            dressed(setting, rig.head_oz, rig.trailer, length)
            for length in lengths_of(setting.family, rig.trailer)
        ]
        best = max(quick_worths(setting, others))
        assert quick_worths(setting, [rig]) == [pytest.approx(best, abs=0.02)]


@pytest.mark.parametrize("family", ["swim-jig", "football-jig"])
def test_no_rig_scores_above_its_familys_promise(cat: Catalog, family: str) -> None:
    for water in (GRASS, WINTER_ROCK, replace(GRASS, clarity_ft=10.0)):
        scenario = Scenario(water, families=(family,))
        best = size(cat, scenario).rigs[0].fits.score
        assert best <= promise(setting_of(cat, scenario)) + 1e-9 <= 1.0 + 1e-9


def test_the_standard_set_of_every_family(cat: Catalog) -> None:
    """Every pair by name, some of them named with the length that suits them best: swum in grass, on
    the floor over rock in winter."""
    found = {}
    for family, record in cat.families.items():
        for water in ("grass",) if record.work == "swim" else ("winter rock",):
            setting = setting_of(cat, Scenario(ALL[water], families=(family,)))
            rigs = standard_rigs(setting)
            found[f"{water}, {family}"] = {
                "promise": promise(setting),
                "count": len(rigs),
                "rigs": [name_of(rig).text() for rig in rigs[:: max(1, len(rigs) // 4)]],
                "worth": quick_worths(setting, rigs[:4]),
            }
    holds_to("sizing.candidates", found)
