"""What was simulated once is remembered: same answers, nothing asked twice, the oldest forgotten."""

from __future__ import annotations

from dataclasses import replace

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Cover, Scenario
from heathdrop.sizing import tune as tuning
from heathdrop.sizing.memory import Memory
from heathdrop.sizing.size import size
from tests.waters import GRASS


def test_only_what_is_missing_is_found_and_the_oldest_goes() -> None:
    memory, asked = Memory[str](3), []

    def find(which: list[int]) -> list[str]:
        asked.append(list(which))
        return [f"value {k}" for k in which]

    assert memory.all_of(["a", "b"], find) == ["value 0", "value 1"]
    assert memory.all_of(["b", "c", "a"], find) == ["value 1", "value 1", "value 0"]
    assert asked == [[0, 1], [1]]
    memory.all_of(["d"], find)
    assert len(memory) == 3
    # "b" was used the longest ago.
    memory.all_of(["c", "a", "d"], find)
    assert asked == [[0, 1], [1], [0]]
    memory.all_of(["b"], find)
    assert asked[-1] == [0]
    assert len(asked) == 4
    memory.clear()
    assert len(memory) == 0


def test_a_remembered_sizing_is_the_same_to_the_digit(cat: Catalog) -> None:
    """Clearing the memory changes nothing; what changes no lure and no limit simulates nothing."""
    water = Scenario(GRASS, families=("swim-jig", "bladed-jig"))
    first = size(cat, water)
    again = size(cat, water)
    tuning.TUNED.clear()
    fresh = size(cat, water)
    for other in (again, fresh):
        assert [(r.key, r.tuned, r.fits) for r in other.rigs] == [
            (r.key, r.tuned, r.fits) for r in first.rigs
        ]
    before = len(tuning.TUNED)
    size(cat, replace(water, conditions=replace(GRASS, bottom="gravel")))
    assert len(tuning.TUNED) == before > 100
    size(cat, replace(water, conditions=replace(GRASS, water_temp_f=59)))
    assert len(tuning.TUNED) > before


def test_other_water_under_the_rig_is_another_key(cat: Catalog) -> None:
    floor = replace(GRASS, cover=Cover(), fish_depth_ft=9)
    slope = replace(floor, bottom_shape="slope")
    one, other = (size(cat, Scenario(c, families=("swim-jig",))) for c in (floor, slope))
    assert one.rigs[0].tuned != other.rigs[0].tuned
