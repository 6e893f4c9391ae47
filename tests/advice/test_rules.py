"""The facts of a rig, and the rules that speak for them."""

from __future__ import annotations

from heathdrop.advice.rules import rig_facts, spoken
from heathdrop.catalog import Catalog
from tests.advice.cases import SHOWN, rated
from tests.golden_file import holds_to


def test_rules_that_speak(cat: Catalog) -> None:
    holds_to(
        "advice.rules",
        {
            name: {
                "facts": (facts := rig_facts(cat, *rated(name))),
                "rules": [rule.id for rule in spoken(cat, facts)],
            }
            for name in SHOWN
        },
    )
