"""How a stop's lure is worked, in the words of its family, for page, print and deck card.

A swum lure is counted, turned and runs; one on the floor lands, is swept or hopped, and works there.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import groupby

from heathdrop import catalog as catalogue
from heathdrop.api.planning import WithAnswer
from heathdrop.api.searching import CastAnswer
from heathdrop.sizing.ways import WAY
from heathdrop.units import count_said

#: No sweep is slower than this, ft/s.
SLOWEST_FT_S = 0.1


@dataclass(frozen=True)
class Hands:
    """What the hands do at a stop: the labels and texts of count, hand and depth, and all in a line."""

    count_label: str
    count: str
    hand_label: str
    hand: str
    runs_label: str
    runs: str
    said: str


def hands_of(served: WithAnswer) -> Hands:
    """How a rod is worked at a stop."""
    work = catalogue.load().families[served.rig.family].work
    count, runs = f"{served.countdown_s:.1f}", f"{served.runs_ft:.1f} ft"
    if work == "swim":
        turns = f"{10 * served.turns_per_s:.0f}"
        way = f", {WAY[served.cadence].name}" if served.cadence else ""
        said = f"count {count} s, {turns} turns in 10 s{way}, runs at {runs}"
        return Hands("Count, s", count, "Turns in 10 s", turns, "Runs at", runs, said)
    lands = f"lands in {count} s"
    if work == "drop":
        said = f"{lands}, hop it where it lands, works at {runs}"
        return Hands("Lands in, s", count, "Then", "hop it", "Works at", runs, said)
    sweep = 1.0 / max(served.pace_ft_s, SLOWEST_FT_S)
    said = f"{lands}, sweep a foot in about {sweep:.0f} s, works at {runs}"
    return Hands("Lands in, s", count, "Sweep at", f"{served.pace_ft_s:.1f} ft/s", "Works at", runs, said)


def runs_of(order: Sequence[CastAnswer]) -> Iterator[tuple[CastAnswer, int]]:
    """The settings of an order, each with how many casts in a row it is thrown, direction by direction."""
    for _, same in groupby(order, key=lambda c: (c.name, c.countdown_s, c.pace_ft_s, c.cadence)):
        casts = list(same)
        yield casts[0], len(casts)


def order_said(order: Sequence[CastAnswer]) -> str:
    """An order in a line: the counts, and how many casts each is good for where there are several."""
    return ", then ".join(
        f"{count_said(cast.countdown_s)} s{f' in {n} directions' if n > 1 else ''}"
        for cast, n in runs_of(order)
    )
