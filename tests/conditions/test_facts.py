"""Facts of a water, and their vocabulary."""

from __future__ import annotations

from heathdrop.conditions.facts import FACTS, OF_WATER, facts_of
from heathdrop.conditions.scenario import Scenario
from tests.golden_file import holds_to
from tests.waters import ALL


def test_facts_of_every_water() -> None:
    found = {name: facts_of(Scenario(c), 2.5) for name, c in ALL.items()}
    assert all(set(f) == set(OF_WATER) for f in found.values())
    holds_to("conditions.facts", found)


def test_the_vocabulary() -> None:
    holds_to("conditions.vocabulary", FACTS)
