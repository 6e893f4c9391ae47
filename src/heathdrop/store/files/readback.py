"""What was typed, read back: every line as the pieces that it names, what is missing of them, the words that
were not used, and what is to be asked. Nothing is refused here, and nothing is taken in silence.

A line that the box, the plan or the log would take as it stands is ``ready``. Of any other the pieces are
read as far as they go, so that a person has a row to correct instead of a sentence.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import date
from typing import Any

from heathdrop.catalog import Catalog, meant_by
from heathdrop.conditions.plan import MOST_RODS, RodBody
from heathdrop.errors import BadInput
from heathdrop.reading import SIGNS, number_of, read
from heathdrop.store.files.entry import (
    ARTICLES,
    BLADES,
    FEET,
    GRAMS,
    LENGTH,
    LONG_BEFORE,
    LONGEST_LINE,
    NUMBER,
    ONE_WEIGHT,
    OUNCES,
    POUNDS,
    RATIO,
    SAYS_HEAD,
    TURN,
    first_of,
    line_words,
    lure_words,
    named,
    pieces,
    take,
    take_word,
)
from heathdrop.store.files.readday import read_day
from heathdrop.store.files.rodline import rod_of
from heathdrop.store.files.spelling import nearest, tidied

#: Lines that are read at once; patterns are tried on no line longer than ``LONGEST_LINE``.
MOST_READ = 200
#: What stands on a bag and is neither weight nor length nor count: hooks, wire, the reel's gears.
ASIDE = (
    r"#?\d{1,2}/0(?:\s*(?:\w+[ -]?(?:gap|wide)\s*)?hooks?)?",
    r"#\d{1,2}\s*hooks?",
    r"\b\d{2}\s?(?:°|deg(?:ree)?s?)(?:\s*(?:hook|bend|eye))?",
    r"\.?\d*[.,]?\d+\s?(?:in|mm|\")?\s*(?:diameter\s*)?wire(?:\s*frame)?",
    r"\b(?:heavy|light|fine)[ -]wire\b",
    r"\b\d(?:[.,]\d)?\s?[:]\s?1\b",
    r"(?:#\d\s*)?\b(?:willow|colorado|indiana)(?:/(?:willow|colorado|indiana))*\s*blades?\b",
    r"#\d\s*(?:willow|colorado|indiana)\b",
    r"\b(?:colorado|willow|indiana)/(?:colorado|willow|indiana)\b",
    r"(?:,|with|to|w/)\s*(?:an?\s+)?(?:\d+\s*(?:ft|feet|')\s*(?:of\s*)?)?\d+\s*(?:lbs?|#)?\.?\s*\w+\s+leader\b",
    r"\b(?:left|right)[ -]hand(?:ed)?\b",
    r"\b\d{2,4}\s?(?:yds?|yards?|m|metres?|meters?)\b(?:\s+of\b)?",
    r"\$\s?\d+(?:[.,]\d+)?",
)
WIDE_GAP = re.compile("|".join(f"(?:{p})" for p in ASIDE), re.I)
#: Words of a lure that say nothing that is kept.
IDLE = re.compile(
    "|".join(
        rf"(?<![\w-])(?:{p})(?![\w-])"
        for p in (r"w/\s*rattles?|with rattles?|rattles?", "weedless", *BLADES, SAYS_HEAD[0])
    ),
    re.I,
)
#: Two things in one line; lengths of one trailer, each of them.
BETWEEN = re.compile(r"\s*;\s*|\s+(?:or|plus|and|with|w/)\s+|\s*[+&]\s*", re.I)
WORD_BETWEEN = re.compile(r"\s*;\s*|\s+(?:plus|and|with|w/)\s+", re.I)
#: A weight and how many of it.
WEIGHT_TIMES = re.compile(rf"({ONE_WEIGHT})\s*x\s?(\d{{1,3}})\s*,?", re.I)
LENGTHS = re.compile(
    rf"({NUMBER})\s?(?:in|inch|inches|\"|″)?(?:\s*(?:&|and|or)\s*({NUMBER})\s?(?:in|inch|inches|\"|″)?)+(?=\s|$)",
    re.I,
)


@dataclass(frozen=True)
class Read:
    """A line read: its pieces as kind and fields, fields that are missing, words not used, what is asked
    (empty: nothing); ``ready`` where it can be kept as it is."""

    line: str
    items: tuple[tuple[str, dict[str, Any]], ...] = ()
    missing: tuple[str, ...] = ()
    unused: tuple[str, ...] = ()
    ask: str = ""

    @property
    def ready(self) -> bool:
        return bool(self.items) and not self.missing and not self.ask


def read_lines(
    catalog: Catalog, what: str, text: str, typed_in: str = "", today: date | None = None
) -> list[Read]:
    """Every line of a text that is not empty, as ``tackle``, ``rods`` or a ``day``. Raises BadInput for a
    text without lines, or with too many."""
    lines = [line.strip() for line in text.splitlines() if line.strip()]
    if not 1 <= len(lines) <= MOST_READ:
        raise BadInput("the text", f"{len(lines)} lines long", f"1 to {MOST_READ} lines")
    each: dict[str, Callable[[int, str], Read]] = {
        "tackle": lambda _, line: read_tackle(catalog, line, typed_in),
        "rods": lambda k, line: _read_rod(line, chr(ord("A") + k % MOST_RODS)),
        "day": lambda _, line: _read_day(catalog, line, typed_in, today or date.today()),
    }
    if what not in each:
        raise BadInput("what", what, "tackle, rods or day")
    return [
        each[what](k, line)
        if len(line) <= LONGEST_LINE
        else Read(line[:LONGEST_LINE], ask=f"It is too long: at most {LONGEST_LINE} characters.")
        for k, line in enumerate(lines)
    ]


def read_tackle(catalog: Catalog, line: str, typed_in: str = "") -> Read:
    """A line of tackle."""
    rest, aside = _set_aside(line)
    rest = re.sub(rf"({NUMBER}(?:\s?oz\.?)?)\s+or\s+(?={NUMBER})", r"\1 and ", rest, flags=re.I)
    parts = _apart(catalog, rest)
    if len(parts) > 1:
        each = [read_tackle(catalog, p, typed_in) for p in parts]
        return Read(
            line,
            tuple(item for one in each for item in one.items),
            tuple(dict.fromkeys(m for one in each for m in one.missing)),
            (*aside, *(u for one in each for u in one.unused)),
            " ".join(one.ask for one in each if one.ask),
        )
    unused = (*aside, *(m[0].strip() for m in IDLE.finditer(rest)))
    try:
        return Read(line, tuple(pieces(catalog, rest, typed_in)), (), unused)
    except BadInput as refusal:
        wanted = refusal.allowed
    put_right = _put_right(catalog, rest)
    if put_right != rest:
        try:
            whole = tuple(pieces(catalog, put_right, typed_in))
            return Read(line, whole, (), unused, f"Is “{put_right}” meant?")
        except BadInput as refusal:
            rest, wanted = put_right, refusal.allowed
    piece = _as_far(catalog, rest, typed_in)
    if piece is None:
        return Read(line, (), (), (line.strip(),), f"Not understood: write {wanted}.")
    missing, loose = piece.missing(), piece.loose()
    ask = _asked_for(missing, wanted, loose)
    return Read(line, ((piece.kind, piece.data),), missing, (*unused, *loose), ask)


def _apart(catalog: Catalog, line: str) -> list[str]:
    """The things that a line names: a head and a trailer, a trailer in two lengths."""
    vocabulary = {**named(catalog.families), **named(catalog.trailers)} | line_words()
    for between in (BETWEEN, WORD_BETWEEN):
        parts = [p for p in between.split(line) if p.strip()]
        if len(parts) > 1 and all(take_word(vocabulary, p)[0] for p in parts):
            return parts
    both = LENGTHS.search(line)
    if (
        both
        and take_word(named(catalog.trailers), line)[0]
        and not take_word(named(catalog.families), line)[0]
    ):
        around = line[: both.start()], line[both.end() :]
        unit = re.search(r"in|\"|″", both[0], re.I)  # a plain number is in the unit that is typed in
        return [f"{around[0]}{n}{' in' if unit else ''}{around[1]}" for n in re.findall(NUMBER, both[0])]
    # Weights of one lure, each with its count.
    listed = WEIGHT_TIMES.findall(tidied(line))
    if len(listed) > 1:
        rest = WEIGHT_TIMES.sub(" ", tidied(line)).strip(" ,")
        return [f"{weight} {rest} x{many}" for weight, many in listed]
    # A head, and behind it a trailer with its length.
    shapes = {said: id_ for said, id_ in named(catalog.trailers).items() if not catalog.trailers[id_].bare}
    head, tail = first_of(named(catalog.families), line), first_of(shapes, line)
    if head is not None and tail is not None and head < tail:
        long = LONG_BEFORE.search(line[:tail])
        if long or LENGTH.search(line[tail:]):
            at = long.start() if long else tail
            return [re.sub(r"\btrailers?\s*$", "", line[:at].strip()), line[at:]]
    return [line]


#: What is asked for each field that is missing.
ASKED = {
    "weight_oz": "How heavy?",
    "length_in": "How long?",
    "test_lb": "How strong?",
    "inches_per_turn": "How many inches in a turn?",
    "length_ft": "How long is the rod?",
    "family": "Which kind of jig?",
    "shape": "Which shape of trailer?",
    "rig": "Thrown with what?",
    "quantity": "How many?",
    "date": "Which day is it?",
    "material": "Which line?",
    "line": "With which line: 15 lb fluorocarbon?",
}


def _asked_for(missing: tuple[str, ...], wanted: str, loose: tuple[str, ...]) -> str:
    asked = [ASKED[name] for name in missing]
    asked += [f"What is “{'”, “'.join(loose)}”?"] if loose else []
    return " ".join(asked) or f"Is it {wanted}?"


def _set_aside(line: str) -> tuple[str, tuple[str, ...]]:
    """The line without what stands on a bag and is not kept, and that."""
    text = line
    for sign, written in SIGNS.items():
        text = text.replace(sign, written if sign == "⁄" else f" {written}")
    aside = tuple(m[0].strip() for m in WIDE_GAP.finditer(text) if m[0].strip())
    return " ".join(WIDE_GAP.sub(" ", text).split()), aside


def _put_right(catalog: Catalog, line: str) -> str:
    """The line with its misspelt names put right, one after another; as it is where none is near."""
    names = lure_words(catalog)
    text = tidied(line)
    if take_word(meant_by(catalog.words.kinds), text)[0] or take_word(line_words(), text)[0]:
        return line
    # A jig whose kind stands apart from it: ``jig 3/8 flipping``.
    jig = re.search(r"(?<![\w-])jigs?(?![\w-])", text, re.I)
    if jig and take_word(named(catalog.families), text)[0] is None:
        alone = f"{text[: jig.start()]}{text[jig.end() :]}"
        kinds = {
            f.name.removesuffix(" jig"): f.name for f in catalog.families.values() if f.name.endswith(" jig")
        }
        kind, rest = take_word(kinds, alone)
        if kind is not None:
            return " ".join(f"{rest} {kind}".split())
    for _ in range(2):
        near = nearest(names, text)
        if not near:
            break
        text = near
    return text if text != tidied(line) else line


@dataclass
class _Piece:
    """A piece read as far as it goes: its kind, its fields, the words that are left."""

    kind: str
    data: dict[str, Any]
    left: str = ""
    wants: tuple[str, ...] = field(default=())

    def missing(self) -> tuple[str, ...]:
        """Fields that it cannot be kept without."""
        return tuple(name for name in self.wants if not self.data.get(name))

    def loose(self) -> tuple[str, ...]:
        """Figures that nothing took."""
        return tuple(re.findall(rf"(?<![\w/]){NUMBER}(?:\s?[a-z\"]{{1,2}}\b)?", self.left, re.I))


def _as_far(catalog: Catalog, line: str, typed_in: str) -> _Piece | None:
    """What a line says as far as it is understood; None where it names nothing."""
    text = " ".join(ARTICLES.sub("", tidied(line)).split())
    data: dict[str, Any] = {}
    many = re.search(r"(?:^|\s)(?:x\s?(\d{1,3})|(\d{1,3})\s?x)(?=\s|$)", text, re.I)
    if many:
        data["quantity"] = int(many[1] or many[2])
        text = text[: many.start()] + " " + text[many.end() :]
    bags = r"\b(?:\d+\s+)?(?:some|few|several|bunch of|(?:packs?|bags?|boxes)(?: of)?)\b"
    packs = ("quantity",) if re.search(bags, text, re.I) and not many else ()
    text = re.sub(bags, " ", text, flags=re.I)
    family, rest = take_word(named(catalog.families), text)
    if family is not None:
        ounces, rest = _figure(OUNCES, rest, "oz")
        data |= {"family": family} | ({"weight_oz": ounces} if ounces else {})
        return _named_so("head", data, rest, ("weight_oz", *packs))
    shape, rest = take_word({k: v for k, v in named(catalog.trailers).items() if v != "none"}, text)
    if shape is not None:
        inches, rest = _figure(LENGTH, rest, "in")
        data |= {"shape": shape} | ({"length_in": inches} if inches else {})
        return _named_so("trailer", data, rest, ("length_in", *packs))
    jig = r"(?<![\w-])(?:jig ?heads?|jigs?|heads?)(?![\w-])"
    if re.search(jig, text, re.I) or re.search(rf"{NUMBER}\s?(?:oz|ounces?)\b", text, re.I):
        grams, rest = _figure(GRAMS, re.sub(jig, " ", text, flags=re.I), "g")
        ounces, rest = (round(read(f"{grams} g", "oz"), 3), rest) if grams else _figure(OUNCES, rest, "oz")
        data |= {"weight_oz": ounces} if ounces else {}
        return _named_so("head", data, rest, ("family", "weight_oz"))
    material, rest = take_word(line_words(), text)
    if material is not None:
        pounds, rest = _figure(POUNDS, rest, "lb")
        data |= {"material": material} | ({"test_lb": pounds} if pounds else {})
        return _named_so("line", data, rest, ("test_lb",))
    kind, rest = take_word(meant_by(catalog.words.kinds), text)
    if kind is not None:
        pattern, unit, name = (TURN, "in", "inches_per_turn") if kind == "reel" else (FEET, "ft", "length_ft")
        value, rest = _figure(pattern, rest, unit)
        return _named_so(kind, data | ({name: value} if value else {}), rest, (name,))
    inches, rest = _figure(LENGTH, text, "in")
    return _named_so("trailer", data | {"length_in": inches}, rest, ("shape",)) if inches else None


def _figure(pattern: re.Pattern[str], text: str, unit: str) -> tuple[float | None, str]:
    """The first figure of a pattern, and the text without it; none where it cannot be read."""
    try:
        return take(pattern, text, unit)
    except BadInput:
        return None, text


def _named_so(kind: str, data: dict[str, Any], rest: str, wants: tuple[str, ...]) -> _Piece:
    """A piece whose left words are its colour or name."""
    left = " ".join(IDLE.sub(" ", rest).split()).strip(" ,-/!")
    left_words = re.sub(rf"(?<![\w/]){NUMBER}(?:\s?[a-z\"]{{1,2}}\b)?", " ", left)
    called = " ".join(left_words.split()).strip(" ,-/!")
    name = "colour" if kind in ("head", "trailer") else "name"
    return _Piece(kind, data | ({name: called} if called else {}), left, wants)


def _read_rod(line: str, usual: str) -> Read:
    """A rod of a plan: its name, its line, what a turn takes in, what is written on it."""
    try:
        return Read(line, (("rod", _rod_fields(rod_of(line, usual))),))
    except BadInput:
        name, _, rest = RATIO.sub(" ", line).rpartition(":")
        material, rest = take_word(line_words(), rest)
        test = re.search(rf"({NUMBER})\s?(?:lb|lbs|#|pound)?(?!['\"\d.,]|\s?mm)", rest)
        data: dict[str, Any] = {"name": name.strip() or usual}
        data |= {"material": material} if material else {}
        data |= {"test_lb": number_of(test[1])} if test else {}
        lacks = tuple(n for n in ("material", "test_lb") if n not in data)
        return Read(
            line,
            (("rod", data),),
            lacks or ("line",),
            (),
            ASKED["test_lb" if lacks == ("test_lb",) else "line"],
        )


def _rod_fields(rod: RodBody) -> dict[str, Any]:
    said = rod.rod
    written = (
        {}
        if said is None
        else {"style": said.kind, "power": said.power, "low_oz": said.low_oz, "high_oz": said.high_oz}
    )
    tied = rod.line.leader
    leader = (
        {}
        if tied is None
        else {"leader": tied.material, "leader_lb": tied.test_lb, "leader_ft": tied.length_ft}
    )
    line = {"material": rod.line.material, "test_lb": rod.line.test_lb}
    return {"name": rod.name, **line, **leader, "inches_per_turn": rod.inches_per_turn, **written}


def _read_day(catalog: Catalog, line: str, typed_in: str, today: date) -> Read:
    """A day on the water: when, where, with what, what came of how many casts."""
    day_read = read_day(catalog, line, today, typed_in)
    return Read(
        line,
        tuple(day_read.items()),
        day_read.missing(),
        day_read.unused,
        " ".join(ASKED[m] for m in day_read.missing()),
    )
