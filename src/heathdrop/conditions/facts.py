"""Facts about a water, a mood and a rig: their vocabulary, and clauses that hold for them or do not."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from heathdrop.conditions.scenario import ROWS, Scenario

Facts = dict[str, Any]


@dataclass(frozen=True)
class Fact:
    """What a clause may say of a fact: its words (none for a number), and whether it is the rig's.

    A number has its range and the ``edge`` over which a clause on it fades in, in the fact's unit.
    """

    words: tuple[str, ...] = ()
    number: bool = False
    rig: bool = False
    low: float = -math.inf
    high: float = math.inf
    edge: float = 0.0


def _of_rig(*vocabulary: str) -> Fact:
    return Fact(vocabulary, rig=True)


#: Facts of the water, made from the conditions' rows.
OF_WATER = {
    row.quantity.fact: Fact(
        row.quantity.all_words,
        not row.quantity.all_words,
        low=row.quantity.low,
        high=row.quantity.high,
        edge=row.quantity.edge,
    )
    for row in ROWS
    if row.quantity.fact
}
#: How fish stand to the cover, told from their depth and its tops.
OF_WATER["stand"] = Fact(("over", "in", "beside", "open"))
#: How a lure may be fished.
PRESENTATIONS = (
    "drag",
    "shake",
    "hop",
    "swim",
    "slow-roll",
    "burn",
    "pitch",
    "punch",
    "yo-yo",
    "stop-and-go",
    "twitch",
    "burn-and-drop",
    "step-down",
    "stroke",
    "hang",
    "swim-out",
    "hole-drop",
)
#: Facts of the chosen rig. Words that are ids of a catalogue table are held to it when the catalogue is read.
OF_RIG: dict[str, Fact] = {
    "family": _of_rig("families"),
    "work": _of_rig("swim", "bottom", "drop"),
    "way": _of_rig(*PRESENTATIONS),
    "head_shape": _of_rig("heads"),
    "skirt": _of_rig("skirts"),
    "trailer": _of_rig("trailers"),
    "runs": _of_rig("high", "deep", ""),
    **{
        name: Fact(number=True, rig=True)
        for name in ("head_oz", "appendages", "bulk_cm2", "pace_ft_s", "fouls", "hangs", "passes")
    },
}
FACTS = OF_WATER | OF_RIG
#: The facts that the gear gives.
OF_GEAR = frozenset(row.quantity.fact for row in ROWS if row.path.startswith("gear.") and row.quantity.fact)


def facts_of(scenario: Scenario, activity: float) -> Facts:
    """The water, the mood and the gear as facts (units in the names, words as the scenario has them)."""
    facts: Facts = {}
    for row in ROWS:
        if row.quantity.fact:
            value: Any = scenario
            for part in row.path.split("."):
                value = getattr(value, part)
            facts[row.quantity.fact] = value
    c = scenario.conditions
    facts |= {"posture": c.postures, "stand": c.stand, "activity": activity}
    facts["density"] = c.cover.stands if c.cover.kind != "open" else None
    return facts


@dataclass(frozen=True)
class Clause:
    """One condition on one fact: any of ``words``, or from ``low`` to ``high`` with both ends in; ``turned``
    round. Over ``edge`` either side of an end (in the fact's unit) it fades in and out."""

    fact: str
    turned: bool = False
    words: tuple[str, ...] = ()
    low: float = 0.0
    high: float = 0.0
    edge: float = 0.0

    def degree(self, value: Any) -> float:
        """How far the clause is true of a value, 0 to 1; an unknown one (None) is in no range and no list.

        A value may be shares by word (how the fish stand): their sum over the clause's words counts.
        """
        if value is None:
            return float(self.turned)
        if not self.words:
            inside = min(self._above(value - self.low), self._above(self.high - value))
        elif isinstance(value, dict):
            inside = float(sum(value.get(word, 0.0) for word in self.words))
        else:
            inside = float(value in self.words)
        return 1.0 - inside if self.turned else inside

    def _above(self, past: float) -> float:
        """How far a value this much past an end is in."""
        if self.edge <= 0.0 or math.isinf(past):
            return float(past >= 0.0)
        return min(1.0, max(0.0, 0.5 + 0.5 * past / self.edge))


When = tuple[Clause, ...]
#: From this degree on a rule is true enough to be said.
TRUE_ENOUGH = 0.5


def degree(when: When, facts: Mapping[str, Any], missing: bool = False) -> float:
    """How far every clause is true of ``facts``, 0 to 1: as far as the least true of them. A clause on a
    fact that is not known counts as ``missing``."""
    least = 1.0
    for clause in when:
        how = clause.degree(facts[clause.fact]) if clause.fact in facts else float(missing)
        if how <= 0.0:
            return 0.0
        least = min(least, how)
    return least


def holds(when: When, facts: Mapping[str, Any], missing: bool = False) -> bool:
    """Whether every clause is true enough of ``facts`` to be said."""
    return degree(when, facts, missing) >= TRUE_ENOUGH
