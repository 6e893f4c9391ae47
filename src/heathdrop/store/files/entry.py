"""Lines of text to tackle: ``3/8, 1/2 swim jig black x4``, ``craw 4 in floating 9.8 g x8``.

The fast way in: words that name something are taken, what is left is colour or name. A line with two weights
is two pieces.
"""

import re
from collections.abc import Mapping, Sequence
from functools import cache
from typing import Any

from heathdrop import catalog as catalogue
from heathdrop.catalog import Catalog, meant_by
from heathdrop.errors import BadInput
from heathdrop.measures import METRIC, meant
from heathdrop.physics.rig import Rig, rig_by_name
from heathdrop.physics.rig_name import USUAL
from heathdrop.reading import SIGNS, number_of, read
from heathdrop.store.files.spelling import PACKS_ALONE, UNCOUNTED, UNITS, nearest, tidied
from heathdrop.units import inches_said, ounces_as_written

#: The longest line that is read.
LONGEST_LINE = 200
NUMBER = r"(?:\d+\s+\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?|[.,]\d+)"
QUANTITY = re.compile(r"(?:^|\s)(?:x\s?(\d+)|(\d+)\s?x)(?=\s|,|$)", re.I)
GRAMS = re.compile(rf"({NUMBER})\s?(?:g|gram|grams)(?=\s|,|$)", re.I)
LENGTH = re.compile(rf"({NUMBER}\s?(?:inches|inch|in|cm|mm|\"|″))(?=\s|,|$)", re.I)
TURN = re.compile(rf"({NUMBER}\s?(?:inches|inch|in|cm|\"|″))(?=\s|,|/|$)", re.I)
POUNDS = re.compile(rf"({NUMBER})\s?(?:lb|lbs|pound)(?=\s|,|$)", re.I)
MILLIMETRES = re.compile(rf"({NUMBER})\s?mm(?=\s|,|$)", re.I)
FEET = re.compile(rf"({NUMBER})\s?(?:ft|feet|foot)(?=\s|,|$)", re.I)
OUNCES = re.compile(rf"({NUMBER})\s?(?:oz\.?|ounces|ounce)?(?=\s|,|$)", re.I)
#: Weights at the start of a line, each a piece of its own.
WEIGHTS = re.compile(
    rf"(?:{NUMBER})(?:\s?oz\.?)?(?:\s?(?:,|/|&|and)\s+(?:{NUMBER})(?:\s?oz\.?)?)+(?=\s)", re.I
)
#: Fractions one after another within a line, each a piece of its own: ``swim jigs 1/4 3/8 white``.
ONE_WEIGHT = r"(?:(?:\d\s)?\d/\d{1,2}(?:\s?oz)?|\d+(?:[.,]\d+)?\s?oz)"
FRACTIONS = re.compile(rf"(?<![\w./]){ONE_WEIGHT}(?:(?:\s*(?:,|&|and)+\s*|\s+){ONE_WEIGHT})+(?![\d/])", re.I)
#: What a rod is rated for: ``3/8 to 1 oz``.
RATED = re.compile(
    rf"({NUMBER})\s?(?:oz)?\s?(?:-|–|to)\s?(?:({NUMBER})\s?(?:oz\.?|ounces|ounce)|((?:\d+\s)?\d+/\d+|\d+[.,]\d+)(?=\s|,|$))",
    re.I,
)
#: A plain number; a reel's ratio; a spinnerbait's blades, which are no colour.
PLAIN = re.compile(rf"({NUMBER})(?=\s|,|$)")
RATIO = re.compile(r"(?<![\w./])\d(?:[.,]\d)?\s?(?::|to)\s?1\b(?!\s?(?:oz|/)|\s\d+/)", re.I)
BLADES = ("double willow", "dbl", "double", "tandem", "single", "willow", "colorado", "indiana", "blades?")
#: Words for a head at large, which are no colour once its family is known.
SAYS_HEAD = (
    r"[\w-]+[ -](?:style|type)",
    r"(?:ball|round|cone|bullet)[ -]heads?",
    "weedless",
    r"(?:no|without) trailers?",
    r"(?:w/|with)?\s*rattles?",
    "jig ?heads?",
    "jigs?",
    "heads?",
    "lures?",
)
#: The same for a trailer.
SAYS_TRAILER = (
    r"[\w-]+[ -](?:style|type)",
    "trailers?",
    "baits?",
    "plastics?",
    "minnows?",
    "grubs?",
    "swimbaits?",
)
LONG_BEFORE = re.compile(rf"(?<=\s){NUMBER}\s?(?:inches|inch|in|cm|\"|″)\s*$", re.I)
#: Words before a name that say nothing.
ARTICLES = re.compile(r"(?:^|(?<=\s))(?:a|an|the|some|my)\s+", re.I)


@cache
def line_words() -> dict[str, str]:
    """Everything that a line material is called."""
    lines = catalogue.load().lines
    return {said: id_ for id_, line in lines.items() for said in (id_, line.name, *line.aliases)}


def take(pattern: re.Pattern[str], text: str, unit: str = "in") -> tuple[float | None, str]:
    """The first number that the pattern finds, read in ``unit`` where it carries one, and the text without
    it. Raises BadInput for one that cannot be read."""
    match = pattern.search(text)
    if match is None:
        return None, text
    value = next(g for g in match.groups() if g)
    try:
        number = number_of(value) if value[-1].isdigit() else round(read(value, unit), 3)
    except ValueError as error:
        raise BadInput("the line", text, "numbers that can be read") from error
    return number, (text[: match.start()] + " " + text[match.end() :]).strip()


def take_word(vocabulary: Mapping[str, str], text: str) -> tuple[str | None, str]:
    """The longest of ``vocabulary`` that stands in the text, and the text without it."""
    for said in sorted(vocabulary, key=len, reverse=True):
        match = re.search(rf"(?<![\w-]){re.escape(said)}s?(?![\w-])", text, re.I)
        if match:
            return vocabulary[said], (text[: match.start()] + " " + text[match.end() :]).strip()
    return None, text


def spelled(rows: Mapping[str, Any]) -> dict[str, str]:
    """Everything a row of the catalogue is called, spelled right: its id, its name, its aliases."""
    return {
        said: id_
        for id_, row in rows.items()
        for said in (id_, id_.replace("-", " "), row.name, *row.aliases)
    }


def named(rows: Mapping[str, Any]) -> dict[str, str]:
    """The same, each also written in one word."""
    names = spelled(rows)
    return names | {said.replace("-", "").replace(" ", ""): id_ for said, id_ in names.items()}


def lure_words(catalog: Catalog) -> tuple[str, ...]:
    """The right spellings of all that a line may name."""
    shapes = {id_: shape for id_, shape in catalog.trailers.items() if not shape.bare}
    return (*spelled(catalog.families), *spelled(shapes), *line_words())


def pieces(
    catalog: Catalog, line: str, typed_in: str = "", usual: bool = False
) -> list[tuple[str, dict[str, Any]]]:
    """Every piece that a line names, as kind and fields; plain lengths are in the system ``typed_in``. A
    trailer without a length is asked for one, or of its ``usual`` length. Raises BadInput when it names
    none."""
    if len(line) > LONGEST_LINE:
        raise BadInput("the line", line, f"at most {LONGEST_LINE} characters")
    for sign, written in SIGNS.items():
        line = line.replace(sign, written if sign == "⁄" else f" {written}")
    original = line
    line = tidied(re.sub(r"^\s*[*•·]\s+", "", line))
    if PACKS_ALONE.search(line) or (not QUANTITY.search(line) and UNCOUNTED.search(line)):
        raise BadInput("the line", original, "a word for how many: x8, 8 pack, a dozen")
    line = " ".join(ARTICLES.sub("", line).split())
    halves = [p.strip() for p in re.split(r"\s+(?:/|\+|&|and|with|w/)\s+", line)]
    if len(halves) == 2 and all(_names_tackle(catalog, p) for p in halves):
        return [one for half in halves for one in pieces(catalog, half, typed_in, usual)]
    parts = [p.strip() for p in line.split(",")]
    if len(parts) > 1 and all(_names_tackle(catalog, p) for p in parts):
        return [parsed(catalog, tidied(p), typed_in, usual) for p in parts]
    weights = WEIGHTS.match(line) or (FRACTIONS.search(line) if _names_tackle(catalog, line) else None)
    if weights is None:
        return [parsed(catalog, line, typed_in, usual)]
    each = re.findall(rf"{NUMBER}", weights[0])
    rest = f"{line[: weights.start()]} {line[weights.end() :]}"
    return [parsed(catalog, f"{weight} oz {rest}", typed_in, usual) for weight in each]


def typed_rig(catalog: Catalog, line: str, typed_in: str = "") -> Rig:
    """The rig that a line names, head and trailer in one: ``3/8 swim jig with a craw 4 in``. Without a
    trailer it is bare. Raises BadInput when it names no head."""
    return rig_and_rest(catalog, line, typed_in)[0]


def rig_and_rest(catalog: Catalog, line: str, typed_in: str = "") -> tuple[Rig, str]:
    """The rig that a line names, as :func:`typed_rig`, and the words of the line that are none of it."""
    text = " ".join(ARTICLES.sub("", " ".join(line.split())).split())
    split = re.split(r"\s*(?:,|\+|&|\bw/|\bwith\b|\band\b)\s*", text, maxsplit=1)
    if len(split) == 1:
        trailer = first_of(named(catalog.trailers), text)
        # A length right before a trailer is the trailer's.
        long = LONG_BEFORE.search(text[:trailer]) if trailer is not None else None
        trailer = long.start() if long is not None else trailer
        split = [text] if trailer is None else [text[:trailer], text[trailer:]]
    found_pieces = [p for part in split if part.strip() for p in pieces(catalog, part, typed_in, usual=True)]
    heads = [data for kind, data in found_pieces if kind == "head"]
    tails = [data for kind, data in found_pieces if kind == "trailer"]
    if len(heads) != 1 or len(tails) > 1:
        raise BadInput("the rig", line, "one head, and one trailer or none: 3/8 swim jig with craw 4 in")
    head, tail = heads[0], (tails or [{"shape": "none"}])[0]
    rest = " ".join(part["colour"] for part in (head, *tails) if part.get("colour"))
    rig = rig_by_name(
        catalog,
        head["family"],
        head["weight_oz"],
        tail["shape"],
        head_material=head.get("material", USUAL["head_material"]),
        trailer_length_in=tail.get("length_in"),
        skirt=head.get("skirt"),
        plastic=tail.get("plastic"),
        softness=tail.get("softness"),
        fused=tail.get("split") is False,
    )
    return rig, rest


def first_of(vocabulary: Mapping[str, str], text: str) -> int | None:
    """Where the longest of ``vocabulary`` that stands in the text begins."""
    for said in sorted(vocabulary, key=len, reverse=True):
        match = re.search(rf"(?<![\w-]){re.escape(said)}s?(?![\w-])", text, re.I)
        if match and vocabulary[said] != "none":
            return match.start()
    return None


def _names_tackle(catalog: Catalog, text: str) -> bool:
    names = named(catalog.families) | named(catalog.trailers)
    return take_word(names, text)[0] is not None and bool(re.search(r"\d", text))


def parsed(catalog: Catalog, line: str, typed_in: str = "", usual: bool = True) -> tuple[str, dict[str, Any]]:
    """Kind and fields of one piece. Raises BadInput when the line names no tackle, or a trailer without a
    length where its ``usual`` one will not do."""
    if len(line) > LONGEST_LINE:
        raise BadInput("the line", line, f"at most {LONGEST_LINE} characters")
    text = " ".join(line.split())
    quantity, text = take(QUANTITY, text)
    mass, text = take(GRAMS, text)
    data: dict[str, Any] = {"quantity": int(quantity)} if quantity is not None else {}
    if mass is not None:
        data["mass_g"] = mass
    families, trailers = named(catalog.families), named(catalog.trailers)
    family, rest = take_word(families, text)
    if family is not None:
        return "head", _head(catalog, line, rest, {**data, "family": family})
    shape, rest = take_word(trailers, text)
    if shape is not None and not catalog.trailers[shape].bare:
        if MANY_OR_LONG.match(text):
            how = f"what {text.split()[0]} is: {text.split()[0]} in, or x{text.split()[0]}"
            raise BadInput("the line", line, how)
        fields = _trailer(catalog, line, shape, rest, typed_in)
        if "length_in" not in fields:
            long = catalog.trailers[shape]
            if not usual:
                as_asked = f"{long.name} {inches_said(long.length_in)} in"
                raise BadInput("the line", line, f"its length too: {as_asked}")
            fields["length_in"] = long.length_in
        return "trailer", {**data, "shape": shape, **fields}
    if re.search(r"(?<![\w-])jigs?(?![\w-])", text, re.I):
        jigs = ", ".join(f.name for f in catalog.families.values() if "jig" in f.name)
        near = nearest(lure_words(catalog), text)
        raise BadInput("the line", text, f"a word for which jig: {jigs}{_asked(near)}")
    material, rest = take_word(line_words(), text)
    if material is not None:
        if re.search(r"(?<![\w-])leaders?(?![\w-])", rest, re.I):
            raise BadInput("the line", line, "the line alone: its leader is set beside the line on the sheet")
        test, rest = take(POUNDS, rest)
        thick, rest = take(MILLIMETRES, rest)
        if test is None:
            test, rest = take(PLAIN, rest)
        if test is None:
            raise BadInput("the line", line, f"its strength too: 15 lb {material}")
        more = {"diameter_mm": thick} if thick is not None else {}
        called = _left(line, re.sub(r"\bline\b", " ", rest, flags=re.I))
        return "line", {**data, "material": material, "test_lb": test, "name": called, **more}
    kind, rest = take_word(meant_by(catalog.words.kinds), text)
    if kind == "rod":
        return kind, {**data, **rod_fields(rest)}
    if kind is not None:
        inches, rest = take(TURN, RATIO.sub(" ", rest))
        if inches is None:
            raise BadInput("the line", line, "the line that a turn takes in: 29 in a turn reel")
        left = _left(line, re.sub(r"\s*(?:per|a|/)\s*turn", "", rest))
        return kind, {**data, "inches_per_turn": inches, "name": left}
    allowed = (
        "a weight and a lure (3/8 swim jig), a trailer and its length (craw 4 in), a line, a reel or a rod"
    )
    raise BadInput("the line", line, allowed + _asked(nearest(lure_words(catalog), text)))


def suggested(catalog: Catalog, line: str, typed_in: str = "") -> str:
    """A line that would be kept in place of one that is not: its misspelt name put right, or an unlikely
    figure said to be meant; empty where neither is it."""
    names = lure_words(catalog)
    shape, _ = take_word(named(catalog.trailers), tidied(line))
    long = f"{line.strip()} {inches_said(catalog.trailers[shape].length_in)} in" if shape else ""
    for other in (nearest(names, tidied(line)), f"{line.strip()} {MEANT}", long):
        try:
            if other and pieces(catalog, other, typed_in):
                return other
        except BadInput:
            continue
    return ""


def _asked(near: str) -> str:
    """The question whether another spelling was meant; nothing where none is near."""
    return f"; did you mean “{near}”?" if near else ""


#: A whole number before several trailers is a length or a count: that is asked.
MANY_OR_LONG = re.compile(rf"^\d{{1,2}}\s+(?!(?:{UNITS})\b)[a-z][a-z -]*s$", re.I)
#: A head this much lighter or heavier than its family's listed ones (a factor) is asked about.
UNLIKELY = 1.7
#: What says that an unlikely figure is meant.
MEANT = "!"


def _weighed(catalog: Catalog, line: str, family: str, ounces: float | None) -> float:
    """A head's weight. Raises BadInput where none is said, or one that is asked about: such a head is hardly
    made, and ``!`` says that it is meant."""
    kind = catalog.families[family]
    if not ounces:
        raise BadInput("the line", line, f"a weight too: 3/8 {kind.name}")
    low, high = kind.weights_oz[0] / UNLIKELY, kind.weights_oz[-1] * UNLIKELY
    if MEANT not in line and not low <= ounces <= high:
        usual = f"{ounces_as_written(kind.weights_oz[0])} to {ounces_as_written(kind.weights_oz[-1])} oz"
        raise BadInput("the line", line, f"a {kind.name} of {usual}, or with a ! where it is meant")
    return ounces


#: A number that stands alone and is no colour's (``colour 7``), a fraction, or one with a unit: somebody
#: meant a figure by it.
LOOSE = re.compile(
    r"^\d|(?:,\s*|(?<!colour)(?<!color)(?<!no)(?<!number)\s)\d+(?=[\s,]|$)|\d/\d|\d[.,]\d|\d[\"″]|"
    r"\d\s?(?:in|inch|inches|oz|g|cm|mm|lb|ft|x|\"|″)\b",
    re.I,
)


def _left(line: str, text: str) -> str:
    """What is left of a line as its colour or name; a number after a word (``colour 7``) is part of it.
    Raises BadInput where it holds a figure that nobody took: it would be lost in silence."""
    left = " ".join(re.sub(r"\s+,", ",", re.sub(rf"[(){MEANT}]", " ", text)).split()).strip(" ,-/:")
    left = re.sub(r"[\s,]*\b(?:\d+\s+)?(?:bags?|packs?|boxes|spools?)\b", "", left, flags=re.I)
    left = re.sub(r"^(?:(?:and|of|with|x)\b[\s,]*)+|(?:[\s,]*\b(?:and|of|with|x))+$", "", left, flags=re.I)
    if LOOSE.search(left):
        raise BadInput("the line", line, f"every number understood: “{left}” is not")
    return left


def rod_fields(text: str) -> dict[str, Any]:
    """A rod's fields: ``7 ft medium heavy casting 3/8 - 1 oz``."""
    rated = RATED.search(text)
    fields: dict[str, Any] = {}
    if rated is not None:
        fields = {"low_oz": number_of(rated[1]), "high_oz": number_of(rated[2] or rated[3])}
        text = f"{text[: rated.start()]} {text[rated.end() :]}".strip()
    feet, text = take(FEET, text)
    if feet is None:
        raise BadInput("the line", text, "its length too: 7 ft rod")
    words = catalogue.load().words
    for name, lists in (("power", words.powers), ("style", words.styles)):
        word, text = take_word(meant_by(lists), text)
        fields |= {name: word} if word else {}
    return {**fields, "length_ft": feet, "name": _left(text, text)}


def _head(catalog: Catalog, line: str, text: str, data: dict[str, Any]) -> dict[str, Any]:
    """A head's fields. Grams alone are the head's weight; beside ounces they are what the scale says."""
    material, text = take_word({m.id: m.id for m in catalog.materials.values() if m.head}, text)
    skirts = {f"{s.id} skirt": s.id for s in catalog.skirts.values()} | {"no skirt": "none"}
    skirt, text = take_word(skirts, text)
    ounces, text = take(OUNCES, text)
    heaviest = UNLIKELY * catalog.families[data["family"]].weights_oz[-1]
    if ounces and int(ounces) and ounces > heaviest >= ounces % 1 > 0 and "quantity" not in data:
        # No head is of 2 3/8 oz: it is two of 3/8.
        data, ounces = {**data, "quantity": int(ounces)}, ounces % 1
    if ounces is None and "mass_g" in data:
        ounces = _listed(catalog, data["family"], round(read(f"{data['mass_g']} g", "oz"), 3))
        data = {k: v for k, v in data.items() if k != "mass_g"}
    weight = _weighed(catalog, line, data["family"], ounces)
    blades = BLADES if catalog.families[data["family"]].blade else ()
    text = _without((*blades, *SAYS_HEAD), text)
    fields: dict[str, Any] = {**data, "weight_oz": weight, "colour": _left(line, text)}
    return fields | ({"material": material} if material else {}) | ({"skirt": skirt} if skirt else {})


def _without(taken: Sequence[str], text: str) -> str:
    """A text without words (patterns) that are no colour."""
    for word in taken:
        text = re.sub(rf"(?<![\w-]){word}(?![\w-])", " ", text, flags=re.I)
    return text


#: Whole grams are a listed weight said in metric within this share: 14 g is the half ounce.
SAME_WEIGHT = 0.025


def _listed(catalog: Catalog, family: str, ounces: float) -> float:
    """The listed weight that grams mean; the ounces themselves where they mean none."""
    near = min(catalog.families[family].weights_oz, key=lambda oz: abs(oz - ounces))
    return near if abs(ounces - near) <= SAME_WEIGHT * near else ounces


def _trailer(catalog: Catalog, line: str, shape: str, text: str, typed_in: str) -> dict[str, Any]:
    plastics = {p: p for p in catalog.plastic} | {
        "floats": "floating",
        "sinks": "salted",
        "sinking": "salted",
        "salt": "salted",
    }
    plastic, text = take_word(plastics, text)
    softness, text = take_word({s: s for s in catalog.softness}, text)
    fused, text = take_word({"fused": "fused", "unsplit": "fused"}, text)
    length, text = take(LENGTH, text)
    if length is None:
        length, text = take(OUNCES, text)
        length = meant(f"{length}", "in", typed_in) if length and typed_in == METRIC else length
        if length is not None and length < 1.0:
            raise BadInput("the line", line, f"its length in inches: {catalog.trailers[shape].name} 4 in")
    fields: dict[str, Any] = {
        **({"length_in": length} if length else {}),
        "colour": _left(line, _without(SAYS_TRAILER, text)),
    }
    if fused:
        fields["split"] = False
    return fields | ({"plastic": plastic} if plastic else {}) | ({"softness": softness} if softness else {})
