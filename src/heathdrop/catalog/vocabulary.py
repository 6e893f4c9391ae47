"""What the data files may say: facts and their words, slots of the finish, parts of a fit.

Every fault names the file and the key, so that a slip of the pen is an error and never a rule that
does not speak.
"""

import math
from collections.abc import Iterable, Mapping
from typing import Any

from heathdrop.conditions.facts import FACTS, Clause, When

#: Slots of the finish, in the order of tying it on, with their labels.
SLOTS = {
    "trailer": "Trailer",
    "turned": "Turned",
    "cut": "Cut",
    "plastic": "Plastic",
    "skirt": "Skirt",
    "guard": "Guard",
    "colour": "Colour",
    "trailer_colour": "Trailer colour",
    "head": "Head",
    "blades": "Blades",
    "blade": "Blade",
    "trailer_hook": "Trailer hook",
    "line": "Line",
    "rod": "Rod",
    "reel": "Reel",
    "rod_tip": "Rod tip",
    "slack": "Slack",
    "boat": "The boat",
    "working": "Working it",
    "bite": "The bite",
    "landing": "Hooked",
    "check": "Check",
}
#: What may be changed after a cast, one thing at a time.
CHANGES = (
    "heavier-head",
    "lighter-head",
    "bulkier-trailer",
    "slimmer-trailer",
    "no-trailer",
    "livelier-trailer",
    "quieter-trailer",
    "other-shape",
    "faster",
    "slower",
    "pause-or-pop",
    "longer-count",
    "shorter-count",
    "rod-tip-up",
    "rod-tip-down",
    "thicker-line",
    "thinner-line",
    "line-with-give",
    "softer-rod",
    "trim-skirt",
    "trailer-hook",
    "rethread",
    "take-up-slack",
    "lob-it",
    "other-family",
    "colour",
    "move",
    "stay",
)
#: Parts of a fit.
PARTS = ("depth", "pace", "tackle", "fall", "cover", "action", "profile", "weight", "touch")
#: Parts that cost where something is wrong and gain nothing where nothing is: they stand outside the sum of
#: exponents, or families that are asked for one part more would stand better by it.
PRICES = ("pace", "tackle")
#: The day's leans, each a number that fades (:mod:`heathdrop.sizing.leans`), and the works they act on.
LEANS = (
    "cold",
    "dull",
    "clear",
    "thick",
    "tops",
    "deep",
    "crawfish",
    "baitfish",
    "rock",
    "wood",
    "autumn",
    "spawn",
    "line",
)
WORKS = ("swim", "bottom", "drop")
#: Stands for every family in a school's effect.
ANY = "*"


class BadCatalog(ValueError):
    """A fault in a data file: ``str(error)`` names file, key and what is wrong."""

    def __init__(self, file: str, key: str, wrong: str) -> None:
        super().__init__(f"{file}.toml, {key}: {wrong}")


def clauses(file: str, key: str, table: Mapping[str, Any], ids: Mapping[str, Iterable[str]]) -> When:
    """The ``when`` of a rule or topic as clauses. ``ids`` are the catalogue's ids by table name."""
    return tuple(_clause(file, f"{key}.{name}", name, wanted, ids) for name, wanted in table.items())


def _clause(file: str, key: str, name: str, wanted: Any, ids: Mapping[str, Iterable[str]]) -> Clause:
    turned, fact_name = name.startswith("not_"), name.removeprefix("not_")
    fact = FACTS.get(fact_name)
    if fact is None:
        raise BadCatalog(file, key, f"no such fact; there are {', '.join(FACTS)}")
    if not isinstance(wanted, list) or not wanted:
        raise BadCatalog(file, key, "it must be a list")
    if fact.number:
        if len(wanted) != 2 or not all(isinstance(v, int | float) for v in wanted) or wanted[0] > wanted[1]:
            raise BadCatalog(file, key, "it must be two numbers, the lower first")
        low = -math.inf if wanted[0] <= fact.low else float(wanted[0])
        high = math.inf if wanted[1] >= fact.high else float(wanted[1])
        return Clause(fact_name, turned, low=low, high=high, edge=fact.edge)
    ids_named = tuple(w for word in fact.words for w in ids.get(word, (word,)))
    wrong = [w for w in wanted if w not in ids_named]
    if wrong:
        raise BadCatalog(file, key, f"no such word as {wrong[0]!r}; there are {', '.join(ids_named)}")
    return Clause(fact_name, turned, words=tuple(wanted))


def check_known(file: str, key: str, used: Iterable[str], allowed: Iterable[str]) -> None:
    """Raise BadCatalog for the first of ``used`` that is not ``allowed``."""
    names = tuple(allowed)
    for name in used:
        if name not in names:
            raise BadCatalog(file, f"{key}.{name}", f"there is no such name; there are {', '.join(names)}")
