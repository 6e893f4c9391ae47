"""What a line says of a day on the water: when, where, with what, what came of how many casts.

What names a number of fish or casts, their lengths and weights, a rig, a day, a time or a temperature is
taken; what is left is the stop, then a note.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Any

from heathdrop import catalog as catalogue
from heathdrop.catalog import Catalog, meant_by
from heathdrop.errors import BadInput
from heathdrop.measures import METRIC
from heathdrop.physics.rig import Rig
from heathdrop.store.files.entry import named, rig_and_rest, take_word
from heathdrop.store.files.sizes import UNITLESS, sizes_in
from heathdrop.store.files.spelling import halves_in, whole
from heathdrop.store.files.when import day_in, hour_in, without

#: Words of the catalogue for what came of casts, and what each means.
CAME = meant_by(catalogue.load().words.came)
SINGULAR = "|".join(sorted(CAME, key=len, reverse=True))
COUNTED = re.compile(
    r"(?:(?:and|in|of|on|with|after|then|plus|but|caught|got|landed|had|went|did)\s+)*(\w+)\s+(?:more\s+)?"
    rf"({SINGULAR})s?(?!\w)(?:\s+(?:total|altogether|in all|in total))?",
    re.I,
)
#: The same with the count behind: ``fish: 3, casts 60``.
COUNTED_BEHIND = re.compile(rf"(?:^|(?<=,\s)|(?<=,))\s*({SINGULAR})s?\s*[:=]\s*(\d{{1,11}})(?![\d/.])", re.I)
#: Fish told without the word: ``caught 4``, ``lost two``; at the beginning ``3 on``.
CAUGHT = re.compile(
    r"\b(caught|got|landed|had|lost|missed)\s+(\w+)(?:\s+(?:big|good|nice|small|little|decent)\b)?"
    r"(?:\s+(?:ones?|fish|bass)\b)?(?:\s+on)?(?=\s|,|$)",
    re.I,
)
#: Nothing, or so many, in so many casts: ``0 for 30 casts``, ``1 fish/22 casts``.
FOR_CASTS = re.compile(r"(?:^|(?<=,\s)|(?<=,))\s*(\d{1,2})\s+for\s+(?=\d{1,3}\s+casts?)", re.I)
SLASH_CASTS = re.compile(r"(?<=[a-z])\s?/\s?(?=\d{1,3}\s+casts?)", re.I)
#: A rate is no count.
AN_HOUR = re.compile(r"\b(?:per|an|a|each|every)\s+hour\b", re.I)
#: A sentence's end, as people write a day.
STOP = re.compile(r"(?<=[a-z]{3})\.(?=\s|$)|(?<=\d\s[a-z]{5})\.(?=\s|$)", re.I)
ON_RIG = re.compile(r"^(\w+)\s+on(?=\s|,|$)", re.I)
#: Where and with what in one part: ``at the dam on a 3/8 swim jig``.
AT_ON = re.compile(
    r"^(?:at|in|off|by|near|from)\s+([^,]+?)\s+(?:on|with|using)\s+(?=(?:an?|the|my)\s|\d)", re.I
)
#: So many fish of a length or weight: ``2 x 17 in``.
TIMES_LONG = re.compile(
    r"((?:^|,\s*)\d{1,2})\s?[x@]\s?(?=\d{1,2}(?:[.,]\d+)?\s?(?:in\b|inch|cm|lb|[\"″]))", re.I
)
#: Pounds and ounces with a dash: ``best 4-2``, ``a 5-3``.
POUNDS_DASHED = re.compile(r"(?:^|(?<=\s))(an?|one|best|biggest)\s+(\d{1,2})-(\d{1,2})(?![\d/-])", re.I)
#: The end of a stretch of time, which is not kept.
UNTIL = re.compile(
    r"(\d\s?[ap]\.?m\.?)\s?(?:-|to|until|till)\s?(?:noon|dark|dusk|\d{1,2}(?::[0-5]\d)?\s?[ap]\.?m\.?)(?!\w)",
    re.I,
)
#: A jig of no kind, with its weight.
SOME_JIG = re.compile(r"\d.*\bjigs?\b", re.I)
#: Words of a part that name nothing.
IDLE = re.compile(
    r"(?:(?:i|we|it|was|were|then|and|in|on|at|the|a|went|fished|fishing|out|got|caught|had)(?:\s+|$))*", re.I
)
#: Words about fish, hands or luck; a place may be called Big creek, First point or Fish camp.
NOT_THERE = re.compile(
    r"(?:over \d+|best|biggest|ran|hung|snagged|broke|strikes?|bites?|tried|went)\b|(?:the )?boat$|"
    r"(?:fish|bass|big|first|last|short|great|good|slow|bad|tough)"
    r"(?:$|\s+(?:at|in|on|came|were|was|up|down|day|morning|afternoon|evening|trip|time|bites?|strikes?|fish|"
    r"fishing|ones?|\d))",
    re.I,
)
#: A weight and nothing else, which is another rig's.
WEIGHT_ALONE = re.compile(r"(?:the\s+)?(?:\d\s)?\d/\d{1,2}(?:\s?oz)?", re.I)
#: Where, after with what: ``swim jig 3/8 at the point``; words in brackets, which are a note.
AT_AFTER = re.compile(r"\s+(?:at|off|near|along|@)\s+(?=[a-z])", re.I)
BRACKETS = re.compile(r"\(([^()]*)\)")
#: How long it took, which is no place.
TOOK = re.compile(
    r"(?<!\S)(?:for\s+)?(?:\d+(?:[.,]\d)?|an?|one|two|three|four|five|six)\s?(?:h|hours?|hrs?|min|mins|minutes?)\b|"
    r"\b(?:between|from)\s+\d+\s?(?:and|to|-)\s?\d+\s?(?:in\b|inch(?:es)?\b|cm\b|\")|"
    r"\b(?:half|whole|full|all)\s+(?:an?\s+|the\s+)?(?:day|morning|afternoon)\b|"
    r"\b(?:in\s+)?\d+(?:[.,]\d+)?\s?(?:(?:ft|feet|foot)\b|'(?!\d))(?:\s+(?:deep|down|of water))?",
    re.I,
)
NONE_CAME = re.compile(
    r"\b(?:skunked|blank(?:ed)?|skunk|zip|nil|no luck|nothing doing|nothing|nada|zilch|"
    r"zero(?!\s+(?!in\b|for\b|on\b)\w)|no (?:bites?|bumps?|hits?|hook-?\s?ups?))\b",
    re.I,
)
TEMPERATURE = re.compile(
    r"(?:\bwater(?:\s+temp(?:erature)?)?\s+(?:was\s+|at\s+|of\s+)?)?(?<![\w/.])(\d{1,3}(?:\.\d)?)\s?"
    r"(?:(?:°|degrees? )?\s?([CF])(?!\w)|(?:°|degrees?\b|deg\b))|"
    r"\bwater(?:\s+temp(?:erature)?)?\s*(?:was|at|of|:)?\s*(\d{2})(?=\s*(?:[,.]|$)(?!\d))",
    re.I,
)


@dataclass(frozen=True)
class DayRead:
    """What a line says of a day, as far as it says it: the day (None: not said, or two are as good:
    ``unsure``), the hour, stop, rig (None: none understood; the ``family`` may be), counts by kind (fish,
    bump, short, cast), lengths (in) and weights (lb) of fish, °F, a note."""

    on: date | None
    unsure: str
    at: tuple[int, int]
    stop: str
    note: str
    rig: Rig | None
    family: str
    counts: Mapping[str, int]
    lengths_in: tuple[float, ...]
    weights_lb: tuple[float, ...]
    water_temp_f: float | None
    unused: tuple[str, ...] = ()

    def missing(self) -> tuple[str, ...]:
        """What it cannot be kept without."""
        lacks = {"date": bool(self.unsure), "quantity": not self.counts, "rig": self.rig is None}
        return tuple(name for name, lacking in lacks.items() if lacking)

    def items(self) -> list[tuple[str, dict[str, Any]]]:
        """The line as pieces: the fish (none of them, too), other bites, the casts; each with when, where and
        with what."""
        said: dict[str, Any] = {"date": self.on.isoformat()} if self.on else {}
        said |= {"time": f"{self.at[0]:02d}:{self.at[1]:02d}"} | ({"stop": self.stop} if self.stop else {})
        if self.rig is not None:
            tail = self.rig.trailer
            said |= {"family": self.rig.family.id, "weight_oz": self.rig.head_oz, "shape": tail.id}
            said |= {} if tail.bare else {"trailer_length_in": self.rig.trailer_length_in}
        elif self.family:
            said |= {"family": self.family}
        said |= {} if self.water_temp_f is None else {"water_temp_f": self.water_temp_f}
        said |= {"note": self.note} if self.note else {}
        fields = []
        for kind, n in self.counts.items():
            own: dict[str, Any] = {"quantity": n}
            if kind == "fish":
                own |= {"lengths_in": list(self.lengths_in)} if self.lengths_in else {}
                own |= {"weights_lb": list(self.weights_lb)} if self.weights_lb else {}
            outcome = {} if kind in ("fish", "cast") else {"outcome": kind}
            fields.append(("cast" if kind == "cast" else "fish", own | outcome | said))
        return fields or [("fish", said)]


def read_day(catalog: Catalog, line: str, today: date, typed_in: str = "") -> DayRead:
    """What a line says of a day on the water, up to ``today``; nothing is refused but a temperature that no
    water has."""
    aside = [said.strip() for said in BRACKETS.findall(line) if said.strip()]
    line = COUNTED_BEHIND.sub(r" \2 \1", _plain(" ".join(BRACKETS.sub(" ", line).split())))
    line = re.sub(r"(?<!\d):|:(?!\d)|;", ",", line)
    on, unsure, rest = day_in(line, today)
    at, rest = hour_in(rest)
    degrees, rest = _temperature(rest, typed_in)
    counts, rest = _counts(rest)
    if (rate := AN_HOUR.search(rest)) is not None:
        counts.pop("fish", None)
        rest = without(rest, rate)
    lengths, weights, rest = sizes_in(UNITLESS.sub(r"\1 in and ", rest))
    for said in list(aside):
        long, heavy, other = sizes_in(UNITLESS.sub(r"\1 in and ", _plain(said)))
        if not other:
            lengths, weights = (*lengths, *long), (*weights, *heavy)
            aside.remove(said)
    # How long it took and how deep it was are no places.
    took = [m[0].strip() for m in TOOK.finditer(rest)]
    rig, left = _rig(catalog, TOOK.sub(" ", rest))
    family, unused = "", []
    if rig is None:
        # A lure without a weight is no place, nor a jig of no kind.
        lures = [take_word(named(catalog.families), part)[0] for part in left]
        family = next((lure for lure in lures if lure), "")
        unused = [part for part, lure in zip(left, lures, strict=True) if not lure and SOME_JIG.search(part)]
        left = [p for p, lure in zip(left, lures, strict=True) if not lure and p not in unused]
    places = sorted(
        (place for part in left if not IDLE.fullmatch(place := " ".join(part.split()))),
        key=lambda place: _no_place(catalog, place),
    )
    # Fish that were measured were caught, whether they are counted or not.
    if counts.get("lost") and "fish" not in counts:
        aside += [f"{v:g} in" for v in lengths] + [f"{v:g} lb" for v in weights]
        lengths, weights = (), ()
    elif not counts.get("fish") and (lengths or weights):
        counts = {"fish": len(lengths or weights), **counts}
    return DayRead(
        on=on,
        unsure=unsure,
        at=at,
        stop=places.pop(0) if places and not _no_place(catalog, places[0]) else "",
        note="; ".join([*took, *places, *aside]),
        rig=rig,
        family=family,
        counts=counts,
        lengths_in=lengths,
        weights_lb=weights,
        water_temp_f=degrees,
        unused=tuple(unused),
    )


def _no_place(catalog: Catalog, said: str) -> bool:
    """Whether words are numbers, the weather or what was done or seen, and no place."""
    words = said.lower().split()
    return bool(NOT_THERE.match(said) or WEIGHT_ALONE.fullmatch(said)) or all(
        w.isdecimal() or w in catalog.words.weather for w in words
    )


def _plain(line: str) -> str:
    """The line with amounts and halves as numbers, and a dash between two things as a comma."""
    text = re.sub(r"\s[-–—]\s", ", ", halves_in(line))
    text = re.sub(r"\s+w/?\s+(?=\d)", ", ", text, flags=re.I)
    text = UNTIL.sub(r"\1,", text)
    text = FOR_CASTS.sub(r" \1 fish in ", SLASH_CASTS.sub(" in ", STOP.sub(",", text)))
    # Twice 17 in are two fish, and a best of 4-2 weighs 4 lb 2 oz.
    text = TIMES_LONG.sub(r"\1 fish ", text)
    text = POUNDS_DASHED.sub(r"\1 \2 lb \3 oz", text)
    amounts = catalogue.load().words.amounts
    for word in sorted(amounts, key=len, reverse=True):
        text = re.sub(rf"\b{word}\b", str(amounts[word]), text, flags=re.I)
    return text


def _counts(line: str) -> tuple[dict[str, int], str]:
    """How many of what, each read at the beginning of a part; the line without them."""
    counts: dict[str, int] = {}
    parts, blank = [], False
    for part in (p.strip() for p in line.split(",")):
        if not counts.get("fish") and NONE_CAME.search(part):
            counts.setdefault("fish", 0)
            part = NONE_CAME.sub(" ", part).strip()
        while (at := COUNTED.match(part)) is not None and (n := whole(at[1])) is not None:
            kind = CAME[at[2].lower()]
            counts[kind] = counts.get(kind, 0) + n
            part = part[at.end() :].strip()
        for pattern in (CAUGHT, CAUGHT, ON_RIG):
            said = next((m for m in pattern.finditer(part) if whole(m[m.re.groups]) is not None), None)
            if said is None:
                continue
            verb, n = said[1].lower(), whole(said[said.re.groups])
            kind = verb if verb in ("lost", "missed") else "fish"
            if n is not None and not counts.get(kind):
                blank = blank or kind in counts
                counts[kind] = n
                part = f"{part[: said.start()]} {part[said.end() :]}".strip()
        parts.append(part)
    if blank:  # nothing here and some there: two places in a line
        counts.pop("fish")
    return counts, ", ".join(p for p in parts if p)


def _temperature(text: str, typed_in: str) -> tuple[float | None, str]:
    match = TEMPERATURE.search(text)
    if match is None:
        return None, text
    degrees = float(match[1] or match[3])
    if (match[2] or ("C" if typed_in == METRIC else "F")).upper() == "C":
        degrees = degrees * 9.0 / 5.0 + 32.0
    if not 32.0 <= degrees <= 100.0:
        raise BadInput("the temperature", match[0], "from 32 to 100 °F")
    return round(degrees, 1), text[: match.start()] + text[match.end() :]


def _rig(catalog: Catalog, text: str) -> tuple[Rig | None, list[str]]:
    """The rig that the parts of a text name (its trailer may be a part of its own; None where none does), and
    the other parts."""
    apart = ", ".join(AT_AFTER.sub(", ", AT_ON.sub(r"\1, ", part.strip())) for part in text.split(","))
    parts = [re.sub(r"^(?:in|on|at|with|and|w/)\s+", "", part.strip(" .;")) for part in apart.split(",")]
    parts = [part for part in parts if not IDLE.fullmatch(part)]
    for k, part in enumerate(parts):
        rig, rest = _rig_named(catalog, part)
        if rig is None:
            continue
        used = 1
        if rig.trailer.bare and k + 1 < len(parts):
            more, after = _rig_named(catalog, ", ".join(parts[k : k + 2]))
            if more is not None and not more.trailer.bare:
                rig, rest, used = more, after, 2
        others = parts[:k] + parts[k + used :]
        if any(WEIGHT_ALONE.fullmatch(other) or _rig_named(catalog, other)[0] for other in others):
            return None, others  # two rigs in a line, and nobody knows which took what
        return rig, _with_rest(catalog, others, rest)
    return None, parts


def _with_rest(catalog: Catalog, others: list[str], rest: str) -> list[str]:
    """The other parts of a line, and what else stood in the rig's: its colour, which is a note, and behind
    that where it was thrown; one small word beside other parts is a note too."""
    said = rest.split()
    first = next((k for k, word in enumerate(said) if not _is_colour(catalog, word)), len(said))
    colour = " ".join(said[:first])
    place = re.sub(r"^(?:(?:on|in|at|by|off|near|with|from)\b\s*)+", "", " ".join(said[first:]), flags=re.I)
    leads = not others or " " in place or place[:1].isupper()
    parts = [place, *others, colour] if leads else [*others, f"{colour} {place}".strip()]
    return [part for part in parts if part]


def _is_colour(catalog: Catalog, word: str) -> bool:
    return all(part in catalog.words.colours for part in re.split(r"[/&-]", word.lower().strip(",")) if part)


def _rig_named(catalog: Catalog, text: str) -> tuple[Rig | None, str]:
    """The rig that a text names (None where it names none), and the words that are none of it."""
    try:
        return rig_and_rest(catalog, text)
    except BadInput:
        return None, ""
