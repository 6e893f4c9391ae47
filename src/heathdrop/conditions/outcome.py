"""What a cast may come to: one row for each outcome; all that is said or done of it is read from here.

A new outcome is one row; the order of the rows is the order of the buttons.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

__all__ = ["OUTCOME", "OUTCOMES", "ROWS"]


@dataclass(frozen=True)
class Outcome:
    """An outcome: its id in records, its words on a button and within a sentence; whether a fish gave it,
    whether the cast was ``cut_short`` or ``held`` by the cover; which way the lure ran off (ft sign: −1 high,
    1 low); what it shows of the water; the complaint that it is (none: nothing to mend)."""

    id: str
    button: str
    within: str
    bitten: bool = False
    held: bool = False
    cut_short: bool = False
    ran_off: int = 0
    shows: Literal["", "bottom", "top"] = ""
    complaint: str = ""


ROWS = (
    Outcome("nothing", "Nothing", "nothing"),
    Outcome("bump", "Bump", "a bump", bitten=True),
    Outcome("fish", "Fish", "a fish", bitten=True),
    Outcome("short", "Short strike", "a short strike", bitten=True, complaint="short-strikes"),
    Outcome("fouled", "Fouled", "fouled", held=True, cut_short=True, complaint="fouled"),
    Outcome("hung", "Hung up", "hung up", held=True, cut_short=True, complaint="hung-up"),
    Outcome("ticked-top", "Ticked top", "ticked the top", cut_short=True, shows="top"),
    Outcome("found-bottom", "Found bottom", "found the bottom", shows="bottom"),
    Outcome("ran-high", "Ran high", "ran high", ran_off=-1, complaint="ran-too-high"),
    Outcome("ran-low", "Ran low", "ran low", ran_off=1, complaint="ran-too-low"),
    Outcome("not-felt", "Not felt", "not felt", complaint="not-felt"),
)
OUTCOME = {row.id: row for row in ROWS}
#: Ids in the order of the buttons.
OUTCOMES = tuple(OUTCOME)
