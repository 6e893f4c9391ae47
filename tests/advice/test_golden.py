"""What is said of a rig in a water, to the letter: changes, finish, rules, doubt, cautions, line."""

from __future__ import annotations

import pytest

from heathdrop.advice.cautions import cautions_for
from heathdrop.advice.change import COMPLAINTS, MEASURED, changes_for
from heathdrop.advice.cited import advice_for
from heathdrop.advice.doubt import doubt_of
from heathdrop.advice.finish import finish_of
from heathdrop.advice.linesay import line_said
from heathdrop.advice.rules import rig_facts, spoken
from heathdrop.advice.why import limit_sentence, reasons, runs
from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from tests.advice.cases import CASES, rated
from tests.golden_file import holds_to


@pytest.mark.parametrize("complaint", COMPLAINTS)
def test_changes(cat: Catalog, complaint: str) -> None:
    misses = (None, 0.6, 2.5) if complaint in MEASURED else (None,)
    found = {
        f"{name}, {'missed by ' + str(missed) if missed else 'unmeasured'}": changes_for(
            cat, *rated(name), complaint, missed
        )
        for name in CASES
        for missed in misses
    }
    holds_to(f"advice.change.{complaint}", found)


@pytest.mark.parametrize("missed", [0.05, 30.1])
def test_a_miss_that_cannot_be(cat: Catalog, missed: float) -> None:
    with pytest.raises(BadInput, match=r"missed_ft was .* it must be from 0\.1 to 30 ft"):
        changes_for(cat, *rated("wood"), "ran-too-high", missed)


def test_finish(cat: Catalog) -> None:
    holds_to("advice.finish", {name: finish_of(cat, *rated(name)) for name in CASES})


def test_lines(cat: Catalog) -> None:
    holds_to("advice.linesay", {name: line_said(cat, *rated(name)) for name in CASES})


def test_what_is_cited(cat: Catalog) -> None:
    holds_to("advice.cited", {name: advice_for(cat, *rated(name)) for name in CASES})
    assert len(advice_for(cat, *rated("wood"), most=2)) < len(advice_for(cat, *rated("wood")))


def test_rules_that_speak(cat: Catalog) -> None:
    holds_to(
        "advice.rules",
        {
            name: {
                "facts": (facts := rig_facts(cat, *rated(name))),
                "rules": [rule.id for rule in spoken(cat, facts)],
            }
            for name in CASES
        },
    )


def test_reasons_doubt_and_cautions(cat: Catalog) -> None:
    found = {}
    for name in CASES:
        sizing, rig = rated(name)
        found[name] = {
            "runs": runs(sizing, rig),
            "limit": limit_sentence(sizing, rig),
            "why": reasons(sizing, rig),
            "doubt": doubt_of(cat, sizing, rig),
            "cautions": [c.id for c in cautions_for(cat, sizing.scenario, rig)],
        }
    holds_to("advice.why", found)
