"""What the trainer asks: named by kind, topic and seed, the same each time it is made."""

from dataclasses import dataclass, replace
from functools import lru_cache

from heathdrop import catalog as catalogue
from heathdrop.conditions.outcome import OLD_NAMES
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput, require_between
from heathdrop.physics.cast import CastResult
from heathdrop.physics.rig import Rig
from heathdrop.sizing.rated import Rated
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import Sizing
from heathdrop.training.hand import CLASSES
from heathdrop.units import inches_said, ounces_as_written

#: How many turns of the handle a topic asks for.
TURNS = {"slow": (3, 5), "middle": (6, 9), "quick": (10, 14)}
#: Complaints that are asked about, and the opposite one, whose changes make wrong options.
ASKED = {
    "ran-high": "ran-low",
    "ran-low": "ran-high",
    "fouled": "",
    "hung": "",
    "not-felt": "",
}
#: Seeds tried for a water in which there is something to ask.
TRIES = 40
#: The kinds of question.
KINDS = ("count", "pace", "eye", "call", "repair")
#: Seeds are whole numbers below this.
SEEDS = 10**6


@lru_cache(maxsize=1)
def topics() -> dict[str, tuple[str, ...]]:
    """The topics of each kind: lengths of a count, quickness of turns, lines, covers, complaints."""
    catalog = catalogue.load()
    return {
        "count": tuple(name for name, _ in CLASSES),
        "pace": tuple(TURNS),
        "eye": tuple(catalog.lines),
        "call": tuple(catalog.tackle.cover),
        "repair": tuple(ASKED),
    }


@dataclass(frozen=True)
class Named:
    """A question's name: kind, topic, seed."""

    kind: str
    topic: str
    seed: int

    @property
    def text(self) -> str:
        """The name as one text."""
        return f"{self.kind}.{self.topic}.{self.seed}"

    @staticmethod
    def parse(text: str) -> "Named":
        """The name in a text. Raises BadInput for one that names no question."""
        kind, _, rest = text[:80].partition(".")
        topic, _, seed = rest.partition(".")
        topic = OLD_NAMES.get(topic, topic)
        if topic in topics().get(kind, ()) and seed.isascii() and seed.isdigit() and int(seed) < SEEDS:
            return Named(kind, topic, int(seed))
        raise BadInput("id", text[:80], "the id of a question, such as eye.nylon.12")


@dataclass(frozen=True)
class Option:
    """One thing that may be changed: what, and (told after the answer) what it does and whether it mends."""

    what: str
    effect: str
    mends: bool


@dataclass(frozen=True)
class Played:
    """A rig's cast in a water, to be drawn."""

    sizing: Sizing
    rated: Rated
    cast: CastResult


@dataclass(frozen=True)
class Question:
    """What is asked. ``seconds`` and ``turns`` are the hand's, ``sizing`` and ``rated`` the water and the rig
    of the others; ``options`` and ``cast`` (as it was meant) a repair's."""

    named: Named
    ask: str
    seconds: float = 0.0
    turns: int = 0
    scenario: Scenario | None = None
    sizing: Sizing | None = None
    rated: Rated | None = None
    options: tuple[Option, ...] = ()
    missed_ft: float | None = None
    cast: CastResult | None = None

    @property
    def place(self) -> Sizing | Setting | None:
        """The water of the question as it can be drawn; None for the hand's."""
        if self.sizing is not None or self.scenario is None:
            return self.sizing
        # Whose setting it is does not matter: its water alone is drawn.
        catalog = catalogue.load()
        return setting_of(catalog, replace(self.scenario, families=(next(iter(catalog.families)),)))


@dataclass(frozen=True)
class Placed:
    """A rig on the board after a call: its family, head, trailer, way, its score on the sheet and its
    family's standing with it."""

    family: str
    head_oz: float
    trailer: str
    way: str
    score: float
    standing: float


@dataclass(frozen=True)
class Marking:
    """How good an answer was (0 to 1), what was right, and why. ``off`` is the error (s or ft, above 0: slow
    or too deep), ``board`` the rigs of a call (the chosen one last), ``options`` those of a repair, ``casts``
    what is drawn: the eye's own, or a call's best and the chosen one."""

    mark: float
    said: str
    why: tuple[str, ...] = ()
    off: float | None = None
    truth: float | None = None
    board: tuple[Placed, ...] = ()
    options: tuple[Option, ...] = ()
    casts: tuple[Played, ...] = ()


def number_in(answer: dict[str, object], field: str, low: float, high: float, unit: str) -> float:
    value = answer.get(field)
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise BadInput(field, value, f"a number of {unit}, {low:g} to {high:g}")
    return require_between(field, float(value), low, high, unit)


def rig_words(rig: Rig) -> str:
    """A rig in words."""
    bare = rig.trailer.bare
    tail = "no trailer" if bare else f"{inches_said(rig.trailer_length_in)} in {rig.trailer.name.lower()}"
    return f"{ounces_as_written(rig.head_oz)} oz {rig.family.name.lower()}, {tail}"
