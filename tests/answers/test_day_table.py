"""The table that a day's rods are chosen from: values by part, changes on the water, rods together."""

from __future__ import annotations

import itertools
import random
from dataclasses import replace

import numpy as np
import pytest

from heathdrop import catalog as catalogue
from heathdrop.answers.day_table import Candidate, Table, rated_closely, table_of
from heathdrop.answers.day_table import _with_changes as with_changes
from heathdrop.answers.own import STRANGER
from heathdrop.answers.stop import Rod, Stop, parts_of, shares_of, worths_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Line, Reel
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.rig import rig_by_name
from heathdrop.physics.rig_name import name_of
from heathdrop.search.choose import choose, worth
from tests.waters import BAIT, GRASS

ROD, OTHER = Rod("A", Line(), Reel()), Rod("B", Line(material="braid", test_lb=50.0), Reel())
UNKNOWN = Scenario(replace(BAIT, fish_span_ft=(0.0, 30.0)))


def made(cat: Catalog, values: list[list[float]], columns: tuple[slice, ...], shares: list[float]) -> Table:
    """Two swim jigs that share a head, one of another weight, the first again on another rod."""
    rigs = [("craw", 0.375, ROD), ("paddle-tail", 0.375, ROD), ("craw", 0.5, ROD), ("craw", 0.375, OTHER)]
    rows = []
    for tail, oz, rod in rigs:
        rig = rig_by_name(cat, "swim-jig", oz, tail)
        rows.append(Candidate(name_of(rig).text(), rig, rod, int(rod is OTHER)))
    return Table(tuple(rows), np.array(values), columns, np.array(shares), {})


def test_a_change_costs_its_minutes_of_the_stop_and_that_it_is_put_off(cat: Catalog) -> None:
    """Worked by hand: a trailer takes 1 minute and .02, a knot 3 and .08; half an hour's stop."""
    table = made(cat, [[0.2], [0.6], [0.9], [0.1]], (slice(0, 1),), [1.0])
    found = with_changes(table, [Stop("", Scenario(GRASS), minutes=30.0)])
    assert found.becomes(0, 0) == ("retie", 2)
    assert found.values[0, 0] == pytest.approx(0.9 * 0.9 - 0.08)
    assert found.becomes(2, 0) == ("none", 2)
    assert found.becomes(3, 0) == ("none", 3)  # on another rod nothing is tied on that is better
    short = with_changes(table, [Stop("", Scenario(GRASS), minutes=4.0)])
    assert short.becomes(0, 0) == ("trailer", 1)
    assert short.values[0, 0] == pytest.approx(0.6 * 0.75 - 0.02)
    assert short.becomes(1, 0) == ("none", 1)


def test_rods_together_serve_each_part_with_the_best_of_them(cat: Catalog) -> None:
    table = made(cat, [[0.9, 0.1], [0.2, 0.8], [0.5, 0.5], [0.0, 0.0]], (slice(0, 2),), [0.5, 0.5])
    assert table.at(0) == pytest.approx([0.5, 0.5, 0.5, 0.0])
    assert table.together([0], 0) == pytest.approx(0.5)
    assert table.together([0, 1], 0) == pytest.approx(0.85)
    assert table.together([0, 2], 0) == pytest.approx(0.7)
    assert table.over(np.array([0.4])).sum(axis=1) == pytest.approx(0.4 * table.at(0))


def test_two_rods_are_chosen_for_what_they_serve_together(cat: Catalog) -> None:
    """One rod: the rig that does a bit of all. Two: a rig for the fish up in the water and one for the floor,
    though each alone is worth less than the first."""
    values = [[0.9, 0.0], [0.0, 0.9], [0.6, 0.6], [0.0, 0.0]]
    over = made(cat, values, (slice(0, 2),), [0.5, 0.5]).over(np.array([1.0]))
    assert choose(over, range(4), 1) == [2]
    assert sorted(choose(over, range(4), 2)) == [0, 1]


@pytest.mark.parametrize("seed", range(20))
def test_stops_in_parts_are_chosen_for_within_a_hundredth_of_the_best(cat: Catalog, seed: int) -> None:
    """Against every choice of three from a pool of fourteen, stops of one part and of three."""
    rng = np.random.default_rng(seed)
    columns, shares = (slice(0, 1), slice(1, 4), slice(4, 7)), np.array([1.0, *[1 / 3] * 6])
    rows = made(cat, [[0.0]] * 4, (slice(0, 1),), [1.0]).candidates
    table = Table(tuple(random.Random(seed).choices(rows, k=14)), rng.random((14, 7)), columns, shares, {})
    over = table.over(np.array([0.5, 0.3, 0.2]))
    best = max(worth(over, rows) for rows in itertools.combinations(range(14), 3))
    assert worth(over, choose(over, range(14), 3)) >= 0.99 * best


@pytest.mark.slow
def test_a_stop_of_unknown_depth_asks_for_rigs_of_its_parts_too() -> None:
    """Its columns are its thirds, each value the rating of that third, and candidates come from each."""
    stop = Stop("", UNKNOWN)
    table = table_of([Stop("", Scenario(GRASS)), stop], 3, STRANGER, lambda _s, _w: None)
    assert table.columns == (slice(0, 1), slice(1, 4))
    assert table.shares[1:] == pytest.approx(shares_of(UNKNOWN))
    rows = [k for k in range(len(table.candidates)) if (k, 1) not in table.changed][::5]
    assert rows
    table = rated_closely(table, rows, [Stop("", Scenario(GRASS)), stop], STRANGER)
    for k in rows:
        one = table.candidates[k]
        assert table.values[k, 1:] == pytest.approx(worths_of(stop, [one.rig], one.rod, STRANGER)[0])
    alone = table_of([Stop("", replace(UNKNOWN, conditions=BAIT))], 3, STRANGER, lambda _s, _w: None)
    assert {c.rig.family.id for c in table.candidates} >= {c.rig.family.id for c in alone.candidates[:1]}
    assert len(parts_of(UNKNOWN)) == 3
    assert catalogue.load().search.plan.well < 1.0
