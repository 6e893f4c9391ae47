"""How a stop's lure is worked, in the words of its family, for page, print and deck card.

A swum lure is counted, turned and runs; one on the floor lands, is swept or hopped, and works there.
"""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import groupby

from heathdrop import catalog as catalogue
from heathdrop.answers import plan as plans
from heathdrop.api.planning import PlanAnswer, PlannedStop, RigOnRod, WithAnswer
from heathdrop.api.searching import CastAnswer
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.cadence import work_in
from heathdrop.sizing.ways import WAY
from heathdrop.units import count_said, counted, turns_said

#: The changes of a plan, as page, print and card say them.
CHANGES = {"none": "", "trailer": "change the trailer", "retie": "retie"}
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


def rig_said(rig: RigOnRod) -> str:
    """A rig in words, the same as on the deck: ``3/8 oz swim jig, craw 4 in``, a head of another metal so."""
    return plans.rig_said(RigName.parse(rig.name).rig(catalogue.load()))


def hands_of(served: WithAnswer) -> Hands:
    """How a rod is worked at a stop."""
    catalog = catalogue.load()
    work = work_in(catalog.families[served.rig.family], catalog.cadences.get(served.cadence))
    runs, lands = f"{served.runs_ft:.1f} ft", f"{served.countdown_s:.1f}"
    said_count = count_said(served.countdown_s)
    sweep, turns = 1.0 / max(served.pace_ft_s, SLOWEST_FT_S), turns_said(served.turns_per_s)
    way = f", {WAY[served.cadence].name}" if served.cadence else ""
    # The count and what it is to, what the hand then does as a figure and in words, what the depth is called.
    label, count, hand_label, hand, then, at = {
        "swim": ("Count", said_count, "Turns in 20 s", turns, f"{turns} turns in 20 s{way}", "Runs"),
        "hang": ("Count", said_count, "Then", "shake it", "stop it over a limb and shake it", "Works"),
        "drop": ("Lands in", lands, "Then", "hop it", "hop it where it lands", "Works"),
        "bottom": (
            "Lands in",
            lands,
            "Sweep at",
            f"{served.pace_ft_s:.1f} ft/s",
            f"sweep a foot in about {sweep:.0f} s",
            "Works",
        ),
    }[work]
    begins = counted(served.countdown_s) if label == "Count" else f"lands in {lands} s"
    return Hands(
        count_label=f"{label}, s",
        count=count,
        hand_label=hand_label,
        hand=hand,
        runs_label=f"{at} at",
        runs=runs,
        said=f"{begins}, {then}, {at.lower()} at {runs}",
    )


def runs_of(order: Sequence[CastAnswer]) -> Iterator[tuple[CastAnswer, int]]:
    """The settings of an order, each with how many casts in a row it is thrown, direction by direction."""
    for _, same in groupby(order, key=lambda c: (c.name, c.countdown_s, c.pace_ft_s, c.cadence)):
        casts = list(same)
        yield casts[0], len(casts)


def beside_said(s: PlannedStop) -> list[str]:
    """The other rods that a stop whose fish may be anywhere wants, each with the fish that it is for, those
    that add most first."""
    sentences = []
    for w in sorted(s.also, key=lambda w: -w.adds):
        if w.for_ft is not None:
            change = f" ({CHANGES[w.change]})" if CHANGES[w.change] else ""
            fish = f"Fish at {w.for_ft[0]:.0f} to {w.for_ft[1]:.0f} ft"
            sentences.append(f"{fish}: rod {w.rod}{change}, {rig_said(w.rig)}, {hands_of(w).said}.")
    return sentences


def order_said(order: Sequence[CastAnswer]) -> str:
    """An order in a line: the counts, how many casts each is good for where there are several, the rod where
    it is another than before."""
    runs, rod = [], order[0].rod if order else ""
    for cast, n in runs_of(order):
        other = f"rod {cast.rod}, " if cast.rod != rod else ""
        runs.append(f"{other}{counted(cast.countdown_s)}{f' in {n} directions' if n > 1 else ''}")
        rod = cast.rod
    return ", then ".join(runs)


def all_day(answer: PlanAnswer) -> tuple[str, ...]:
    """The cautions that hold at more than half of the stops: said once, for the day."""
    counts = Counter(c for s in answer.stops for c in s.cautions)
    return tuple(c for c, n in counts.items() if n > 1 and 2 * n > len(answer.stops))
