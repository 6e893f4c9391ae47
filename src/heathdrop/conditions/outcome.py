"""What a cast may come to: one row for each outcome; all that is said or done of it is read from here.

A new outcome is one row; the order of the rows is the order of the buttons.
"""

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True)
class Outcome:
    """An outcome: its id in records, its words on a button and within a sentence; whether a fish gave it,
    whether the cast was ``cut_short`` or ``held`` by the cover; which way the lure ran off (ft sign: −1 high,
    1 low); what it shows of the water; what went wrong, as an angler says it (none: nothing to mend);
    ``rare``: its button stands behind the others."""

    id: str
    button: str
    within: str
    bitten: bool = False
    held: bool = False
    cut_short: bool = False
    ran_off: int = 0
    shows: Literal["", "bottom", "top"] = ""
    wrong: str = ""
    rare: bool = False


ROWS = (
    Outcome("nothing", "Nothing", "nothing"),
    Outcome("bump", "Bump", "a bump", bitten=True),
    Outcome("fish", "Fish", "a fish", bitten=True),
    Outcome("short", "Short strike", "a short strike", bitten=True, wrong="Short strikes"),
    Outcome("fouled", "Fouled", "fouled", held=True, cut_short=True, wrong="It fouled"),
    Outcome("hung", "Hung up", "hung up", held=True, cut_short=True, wrong="It hung up"),
    Outcome(
        "ticked-top", "Ticked top", "ticked the top", cut_short=True, shows="top", wrong="It ticked the tops"
    ),
    Outcome("found-bottom", "Found bottom", "found the bottom", shows="bottom"),
    Outcome("ran-high", "Ran high", "ran high", ran_off=-1, wrong="It ran too high"),
    Outcome("ran-low", "Ran low", "ran low", ran_off=1, wrong="It ran too low"),
    Outcome("not-felt", "Not felt", "not felt", wrong="I could not feel it"),
    Outcome(
        "stalled", "Stalled", "stalled on the mat", held=True, cut_short=True,
        wrong="It will not go through", rare=True,
    ),
    Outcome("followed", "Followed", "followed and turned away", wrong="They follow and turn away", rare=True),
    Outcome("missed", "Missed", "missed at the set", bitten=True, wrong="I missed at the set", rare=True),
    Outcome("lost", "Came off", "came off", bitten=True, wrong="It came off", rare=True),
    Outcome("rolled", "Rolled", "rolled or ran sideways", wrong="It rolled or ran sideways", rare=True),
    Outcome("blade-stops", "Blade stopped", "the blade stopped", wrong="The blade stops", rare=True),
)  # fmt: skip
OUTCOME = {row.id: row for row in ROWS}
#: Ids in the order of the buttons.
OUTCOMES = tuple(OUTCOME)
#: What may be asked about: what went wrong, and what a cast came to besides, in words.
WENT = {row.id: row.wrong for row in ROWS if row.wrong} | {
    "nothing": "Nothing at all",
    "bump": "A bump",
    "fish": "Caught one",
}
#: Names under which older records, addresses and answers have some of them.
OLD_NAMES = {
    "ran-too-high": "ran-high",
    "ran-too-low": "ran-low",
    "hung-up": "hung",
    "short-strikes": "short",
    "will-not-go-through": "stalled",
}
