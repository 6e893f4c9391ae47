"""One row for a condition: its range or its words, its label and control, the fact that rules may name.

A field of :mod:`heathdrop.conditions.scenario` is annotated with a :class:`Quantity`; the check of a
scenario, the JSON schema, the page's controls and the vocabulary of the rules are all made from it.
"""

import math
from collections.abc import Hashable, Iterator, Mapping
from dataclasses import MISSING, dataclass, fields, is_dataclass
from functools import cache
from typing import Any, get_args, get_type_hints

from pydantic import ConfigDict

from heathdrop.errors import BadInput

#: Records of conditions refuse unknown fields and numbers that are none.
STRICT = ConfigDict(extra="forbid", allow_inf_nan=False)
#: A word and how it is said to people.
Word = tuple[str, str]


@dataclass(frozen=True)
class Quantity:
    """A condition. ``low`` to ``high`` in ``unit`` for a number, ``words`` for a choice.

    ``group`` places its control (first: the four answers; water; gear; none: no control), ``start`` is
    what the page starts from where there is no default, ``cover`` the kinds of cover it belongs to
    (all when empty), ``by`` its words for each kind where they differ, ``fact`` its name in rules,
    ``blank`` the word for no value, ``checked`` False where the range
    hangs on another answer and is checked there. ``edge`` is how far either side of a bound a rule
    fades in (in ``unit``; 0: a cliff). ``control`` is its name on the page where the row's own would not do,
    ``needs`` the control that must be filled for it to be asked, ``about`` what it means and what hangs
    on it. ``flag`` says no and yes of a field that is true or false; ``optional`` are kinds of cover
    that it may be left out for, where its control is ``optional_control``, says
    ``optional_blank`` while empty and is stepped from where ``optional_from`` stands. ``spoken`` are words
    that may be typed for a number, and the number each stands for.
    """

    label: str
    unit: str = ""
    low: float = -math.inf
    high: float = math.inf
    step: float = 1.0
    words: tuple[Word, ...] = ()
    by: tuple[tuple[str, tuple[Word, ...]], ...] = ()
    group: str = "water"
    start: Any = None
    cover: tuple[str, ...] = ()
    fact: str = ""
    blank: str = ""
    checked: bool = True
    edge: float = 0.0
    control: str = ""
    needs: str = ""
    about: str = ""
    flag: tuple[str, str] = ("", "")
    optional: tuple[str, ...] = ()
    optional_control: str = ""
    optional_blank: str = ""
    optional_from: str = ""
    spoken: tuple[tuple[str, float], ...] = ()

    @property
    def all_words(self) -> tuple[str, ...]:
        """Every word it may be, whatever the cover."""
        return tuple(w for w, _ in self.words) + tuple(w for _, some in self.by for w, _ in some)

    def allowed(self) -> str:
        """What may be given, in words."""
        if self.all_words:
            return "one of " + ", ".join(self.all_words)
        return f"from {self.low:g} to {self.high:g} {self.unit}".strip()

    def check(self, path: str, value: Any) -> None:
        """Raise BadInput when ``value`` cannot be; None is for the record to allow."""
        if value is None or not self.checked or self.flag[1]:
            return
        if self.all_words:
            if value not in self.all_words:
                raise BadInput(path, value, self.allowed())
        elif not math.isfinite(value) or not self.low <= value <= self.high:
            raise BadInput(path, value, self.allowed())

    def __get_pydantic_json_schema__(self, core: Any, handler: Any) -> dict[str, Any]:
        """The range or the words, in the published schema."""
        schema: dict[str, Any] = dict(handler(core))
        more: dict[str, Any] = {"description": f"{self.label}{', ' + self.unit if self.unit else ''}"}
        if self.flag[1]:
            return {**schema, "description": f"{self.label} {self.flag[1]}"}
        if self.all_words:
            more["enum"] = list(self.all_words)
        else:
            more |= {"minimum": self.low, "maximum": self.high}
        if "anyOf" in schema:
            schema["anyOf"] = [
                one if one.get("type") == "null" else {**one, **more} for one in schema["anyOf"]
            ]
            return schema
        return {**schema, **more}


@dataclass(frozen=True)
class Place:
    """Where a quantity stands: its path in a request, its name, its default (None when it must be given)."""

    path: str
    name: str
    quantity: Quantity
    default: Any
    required: bool


def same(*vocabulary: str) -> tuple[Word, ...]:
    """Words said as they are written, hyphens as spaces."""
    return tuple((w, w.replace("-", " ")) for w in vocabulary)


def places(record: Any, path: str = "") -> tuple[Place, ...]:
    """Every quantity of a record and of the records in it, in order."""
    return tuple(_places(record, path))


@cache
def _cached(record: Hashable) -> tuple[Place, ...]:
    return places(record)


def _places(record: Any, path: str) -> Iterator[Place]:
    hints = get_type_hints(record, include_extras=True)
    for field in fields(record):
        hint = hints[field.name]
        at = f"{path}.{field.name}" if path else field.name
        inner = [h for h in (hint, *get_args(hint)) if isinstance(h, type) and is_dataclass(h)]
        if inner and not hasattr(hint, "__metadata__"):
            yield from _places(inner[0], at)
            continue
        marks = [m for m in get_args(hint) if isinstance(m, Quantity)]
        for quantity in marks:
            required = field.default is MISSING
            yield Place(at, field.name, quantity, None if required else field.default, required)


def faults_in(record: Any, path: str) -> Iterator[BadInput]:
    """Every quantity of ``record`` that its own row does not allow, in the order of the rows."""
    for place in _cached(record.__class__):
        value: Any = record
        for part in place.path.split("."):
            value = getattr(value, part, None)
        try:
            place.quantity.check(f"{path}.{place.path}" if path else place.path, value)
        except BadInput as refusal:
            yield refusal


def value_at(body: Mapping[str, Any], path: str) -> Any:
    """What stands at a dotted path of nested mappings; None when nothing does."""
    at: Any = body
    for part in path.split("."):
        at = at.get(part) if isinstance(at, Mapping) else None
    return at
