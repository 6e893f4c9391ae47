"""Facts about a water, a mood and a rig: their vocabulary, and clauses that hold for them or do not."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from heathdrop.conditions.scenario import ROWS, Scenario

Facts = dict[str, Any]


@dataclass(frozen=True)
class Fact:
    """What a clause may say of a fact: its words (none for a number), and whether it is the rig's."""

    words: tuple[str, ...] = ()
    number: bool = False
    rig: bool = False


def _of_rig(*words: str) -> Fact:
    return Fact(words, rig=True)


#: Facts of the water, made from the conditions' rows.
OF_WATER = {
    row.quantity.fact: Fact(row.quantity.all_words, not row.quantity.all_words)
    for row in ROWS
    if row.quantity.fact
}
#: Facts of the chosen rig. Words that are ids of a catalogue table are held to it when the catalogue is read.
OF_RIG: dict[str, Fact] = {
    "family": _of_rig("families"),
    "work": _of_rig("swim", "bottom", "drop"),
    "head_shape": _of_rig("heads"),
    "trailer": _of_rig("trailers"),
    "runs": _of_rig("high", "deep", ""),
    **{
        name: Fact(number=True, rig=True)
        for name in ("head_oz", "appendages", "bulk_cm2", "pace_ft_s", "fouls", "hangs", "passes")
    },
}
FACTS = OF_WATER | OF_RIG


def facts_of(scenario: Scenario, activity: float) -> Facts:
    """The water, the mood and the gear as facts (units in the names, words as the scenario has them)."""
    found: Facts = {}
    for row in ROWS:
        if row.quantity.fact:
            value: Any = scenario
            for part in row.path.split("."):
                value = getattr(value, part)
            found[row.quantity.fact] = value
    c = scenario.conditions
    found |= {"posture": c.stands, "activity": activity}
    found["density"] = c.cover.stands if c.cover.kind != "open" else None
    return found


@dataclass(frozen=True)
class Clause:
    """One condition on one fact: any of ``words``, or from ``low`` to ``high`` with both ends in; ``turned``
    round."""

    fact: str
    turned: bool = False
    words: tuple[str, ...] = ()
    low: float = 0.0
    high: float = 0.0

    def holds(self, value: Any) -> bool:
        """Whether the clause is true of a value; an unknown one (None) is in no range and no list."""
        if value is None:
            return self.turned
        inside = value in self.words if self.words else self.low <= value <= self.high
        return bool(inside) != self.turned


When = tuple[Clause, ...]


def holds(when: When, facts: Mapping[str, Any], missing: bool = False) -> bool:
    """Whether every clause is true of ``facts``. A clause on a fact that is not known counts as
    ``missing``."""
    return all(c.holds(facts[c.fact]) if c.fact in facts else missing for c in when)
