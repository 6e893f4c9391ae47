"""How anglers write tackle, brought to one spelling: hyphens, number words, packs, feet, shop words.

Nothing is guessed here: what is rewritten says the same in other letters. What a word might have meant is
asked (``nearest``), not taken. The words themselves are the catalogue's (``words.toml``).
"""

import difflib
import re
from collections.abc import Iterable

from heathdrop import catalog
from heathdrop.reading import read

#: Weights in words that are no counts, whatever follows; whole numbers before "and a half".
EIGHTHS = {
    rf"{word}[\s-]+{part}s?": f"{n}/{whole}"
    for word, n in (("one", 1), ("three", 3), ("five", 5), ("seven", 7))
    for part, whole in (("eighth", 8), ("sixteenth", 16))
} | {r"three[\s-]+quarters?": "3/4"}
AND_A = re.compile(r"\b(one|two|three|\d)\s+and\s+a\s+(half|quarter)(?:\s+of\s+an)?\b", re.I)
UNITS = r"oz|ounces?|in|inch|inches|ft|foot|feet|lbs?|pounds?|g|grams?|cm|mm"
#: Other ways to write a count, each with the number in its first group.
PACKS = (
    r"\b(\d{1,3})\s+(?:per|to\s+an?|in\s+an?)\s+(?:pack|bag|box)\b",
    r"\bx\s?(\d{1,3})\s?(?:ea|each)\b\.?",
    r"\b(\d{1,3})\s+of\s+(?:them|each|those)\b",
    r"\b(\d{1,3})\s?-?\s?(?:pack|pk|pcs?|pieces|ct|count)\b",
    rf"\b(?:pack|packs|pk|bag|box)\s+of\s+(\d{{1,3}})(?![\d.,/\"″]|\s?(?:{UNITS})\b)",
    r"\b(\d{1,3})\s?(?:ea|each)\b\.?",
    r"\b(?:qty|quantity)[:\s]\s*(\d{1,3})\b",
    r"\b(?:about\s+)?(\d{1,3})\s+(?:left|remaining)\b",
    r"\((?:x\s*)?(\d{1,3})\s?x?\)",
    r"\btimes\s+(\d{1,3})\b",
    r"\b(\d{1,3})\s+spools?\b(?!\s+of)",
)
#: A pack of nobody knows how many.
UNCOUNTED = re.compile(r"\b(?:a\s+)?(?:packs?|bags?|some|few|several|bunch)\b", re.I)
#: Packs of which only the packs were counted.
PACKS_ALONE = re.compile(r"\b(?:packs?|bags?|boxes)\s+of\b", re.I)
#: So many dozens or packs of so many: the two are multiplied.
TIMES = re.compile(
    r"(?:^|(?<=\s))(\w+)\s+(?:(dozens?)\b|(?:packs?|bags?|boxes)\s+of\s+(\d{1,3})"
    rf"(?![\d.,/\"″]|\s?(?:{UNITS})\b))",
    re.I,
)
#: So many packs, and behind it how many in each.
PACKS_OF = re.compile(
    r"(?:^|(?<=\s))(\w+)\s+(?:packs?|bags?|boxes)\b(.*?)\b(\d{1,3})\s+"
    r"(?:(?:per|to\s+an?|in\s+an?)\s+(?:pack|bag|box)|each|ea)\b",
    re.I,
)
NUMBER = r"\d+(?:\s+\d+/\d+|/\d+|[.,]\d+)?"


#: Kilograms of a line, metres of a rod or a leader; each as the trade writes it.
METRIC = re.compile(r"(\d+(?:[.,]\d+)?)\s?(kg|m)(?=\s|,|$)", re.I)
TRADE = {"kg": "lb", "m": "ft"}


def _in_trade_units(match: re.Match[str]) -> str:
    unit = match[2].lower()
    return f"{read(f'{match[1]} {unit}', TRADE[unit]):.3g} {TRADE[unit]}"


def whole(said: str) -> int | None:
    """A whole number in figures or words; None for another word."""
    said = said.lower()
    if said.isascii() and said.isdigit():
        return int(said)
    return catalog.load().words.numbers.get(said)


def _times(match: re.Match[str]) -> str:
    many, each = whole(match[1]), 12 if match[2] else int(match[3])
    return match[0] if many is None else f" x{many * each} "


def _packs_of(match: re.Match[str]) -> str:
    many = whole(match[1])
    return match[0] if many is None else f" x{many * int(match[3])} {match[2].strip(' ,')} "


def _feet(feet: str, inches: str) -> str:
    return f"{int(feet) + int(inches) / 12.0:.3f}".rstrip("0").rstrip(".") + " ft"


def halves_in(text: str) -> str:
    """The text with "three and a half" as 3 1/2."""
    return AND_A.sub(lambda m: f"{whole(m[1])} {'1/2' if m[2].lower() == 'half' else '1/4'}", text)


def tidied(line: str) -> str:
    """The line with one spelling for each thing; counts as ``x12``, feet and inches as feet."""
    text = re.sub(r"[‐‑–—]", "-", line).replace("×", "x")
    text = re.sub(
        r"^\s*(?:one|(\d{1,3})\s?x)\s+(?=\d)", lambda m: f"x{m[1]} " if m[1] else "", text, flags=re.I
    )
    text = re.sub(r"(?<![\d/])(\d)-(\d+/\d+)", r"\1 \2", text)
    text = re.sub(rf"(\d)\s*-\s*({UNITS})\b", r"\1 \2", text, flags=re.I)
    text = re.sub(rf"(\d\s?(?:{UNITS}))\.(?!\d)", r"\1", text, flags=re.I)
    text = re.sub(r"([a-z])'(?=\s|,|$)", r"\1", text, flags=re.I)
    text = METRIC.sub(_in_trade_units, text)
    text = re.sub(r"(\d)\s*#(?=\s|,|$)", r"\1 lb", text)
    text = re.sub(r"(?:^|(?<=\s))#\s?(\d+)(?=\s|,|$)", r"\1 lb", text)
    words = catalog.load().words
    text = halves_in(text)
    for spelling, written in EIGHTHS.items():
        text = re.sub(rf"\b{spelling}\b", written, text, flags=re.I)
    # Eight 4 in tails are eight of them.
    text = re.sub(r"^(\d{1,2})\s+(?=\d+(?:[.,]\d+)?\s?(?:(?:in|inch|cm)\b|[\"″]))", r"x\1 ", text)
    for word in sorted(words.ounces, key=len, reverse=True):
        text = re.sub(rf"\b{word}[\s-]+(?:ounces?|oz)\b", f"{words.ounces[word]} oz", text, flags=re.I)
    text = re.sub(
        r"(\d{1,2})\s?(?:'|′|ft\.?|feet|foot)\s?(\d{1,2})\s?(?:\"|″|''|in\.?|inch|inches)?(?=\s|,|$)",
        lambda m: _feet(m[1], m[2]),
        text,
        flags=re.I,
    )
    text = re.sub(r"(\d)\s?(?:''|”)", r'\1"', text)
    text = re.sub(r"(\d)\s?'(?=\s|,|$)", r"\1 ft", text)
    if re.search(r"\b(?:rod|pole|stick)\b", text, re.I):
        text = re.sub(r"(?<![\d/.])([5-9])-(1[01]|\d)(?![\d/.])", lambda m: _feet(m[1], m[2]), text)
    text = re.sub(r"\bipt\b", "in per turn", text, flags=re.I)
    text = re.sub(rf"\b({NUMBER})\s?in(?:ches)?/turn", r"\1 in per turn", text, flags=re.I)
    text = TIMES.sub(_times, text)
    text = PACKS_OF.sub(_packs_of, text)
    for pattern in PACKS:
        text = re.sub(pattern, r" x\1 ", text, flags=re.I)
    text = re.sub(r"[()]", " ", text)
    text = re.sub(r"\bone\s+of\s+(?:each|them|those)\b", " x1 ", text, flags=re.I)
    counts = {w: n for w, n in words.numbers.items() if n > 1} | words.amounts
    for word in sorted(counts, key=len, reverse=True):
        text = re.sub(rf"\b{word}[\s-]+(?=(?:{UNITS})\b)", f"{counts[word]} ", text, flags=re.I)
        each = rf"\b{word}\s+(?:of\s+)?(?:each|them|those)\b|\btimes\s+{word}\b"
        text = re.sub(rf"^\s*{word}\s+(?=\S)|,\s*{word}\s*$|{each}", f" x{counts[word]} ", text, flags=re.I)
    # A number at the beginning is a count where the line has its weight or length besides.
    if re.search(rf"\d/\d|\d\s?(?:(?:{UNITS})\b|[\"″])", text, re.I):
        text = re.sub(
            rf"^\s*(\d{{1,2}})\s+(?!(?:{UNITS}|packs?|bags?|boxes)\b)(?=[a-z])", r"x\1 ", text, flags=re.I
        )
        # So is one behind a comma at its end.
        text = re.sub(r"(?<=[a-z]),\s*(\d{1,2})\s*$", r" x\1", text, flags=re.I)
    text = re.sub(r"\s-\s+(?=[a-z])|:(?=\s)", ", ", text, flags=re.I)
    return " ".join(text.split())


def nearest(vocabulary: Iterable[str], line: str) -> str:
    """The line with its one misspelt name put right, to be asked; empty where none is near. Words of a name
    that is written right are no other's."""
    names = sorted(set(vocabulary), key=len, reverse=True)
    tokens = line.split()
    right: set[int] = set()
    windows = [(k, size) for size in (3, 2, 1) for k in range(len(tokens) - size + 1)]
    for k, size in windows:
        said = " ".join(tokens[k : k + size]).lower().rstrip("s")
        if said in names:
            right |= set(range(k, k + size))
    for k, size in windows:
        said = " ".join(tokens[k : k + size]).lower().rstrip("s")
        measured = any(c.isdigit() for c in said) or re.search(rf"\b(?:{UNITS})\b", said)
        if len(said) < 4 or measured or right & set(range(k, k + size)):
            continue
        close = difflib.get_close_matches(said, names, 1, 0.8)
        if close:
            return " ".join([*tokens[:k], close[0], *tokens[k + size :]])
    return ""
