"""How anglers write tackle, brought to one spelling: hyphens, number words, packs, feet, shop words.

Nothing is guessed here: what is rewritten says the same in other letters. What a word might have meant is
asked (``nearest``), not taken.
"""

import difflib
import re
from collections.abc import Iterable

from heathdrop.reading import read

#: Whole numbers in words.
COUNTS = {
    "a dozen": 12,
    "dozen": 12,
    "half a dozen": 6,
    "half dozen": 6,
    "half-dozen": 6,
    "couple of": 2,
    "a couple": 2,
    "couple": 2,
    "a pair": 2,
    "a pair of": 2,
    "pair of": 2,
    "a couple of": 2,
    "two": 2,
    "three": 3,
    "four": 4,
    "five": 5,
    "six": 6,
    "seven": 7,
    "eight": 8,
    "nine": 9,
    "ten": 10,
    "eleven": 11,
    "twelve": 12,
    "twenty": 20,
}
#: Weights in words, before "ounce" or "oz".
FRACTIONS = {
    "half an": "1/2",
    "half": "1/2",
    "a quarter": "1/4",
    "quarter": "1/4",
    "three quarter": "3/4",
    "three-quarter": "3/4",
    "three eighths": "3/8",
    "three eighth": "3/8",
    "five eighths": "5/8",
    "five eighth": "5/8",
    "an": "1",
    "one": "1",
}
#: Weights in words that are no counts, whatever follows; whole numbers before "and a half".
EIGHTHS = {
    rf"{word}[\s-]+{part}s?": f"{n}/{whole}"
    for word, n in (("one", 1), ("three", 3), ("five", 5), ("seven", 7))
    for part, whole in (("eighth", 8), ("sixteenth", 16))
} | {r"three[\s-]+quarters?": "3/4"}
AND_A = re.compile(r"\b(one|two|three|\d)\s+and\s+a\s+(half|quarter)(?:\s+of\s+an)?\b", re.I)
WHOLE = {"one": "1", "two": "2", "three": "3"}
UNITS = r"oz|ounces?|in|inch|inches|ft|foot|feet|lbs?|pounds?|g|grams?|cm|mm"
#: Other ways to write a count, each with the number in its first group.
PACKS = (
    r"\b(\d{1,3})\s?-?\s?(?:pack|pk|pcs?|pieces|ct|count)\b",
    rf"\b(?:pack|packs|pk|bag|box)\s+of\s+(\d{{1,3}})(?![\d.,/\"″]|\s?(?:{UNITS})\b)",
    r"\b(\d{1,3})\s?(?:ea|each)\b\.?",
    r"\b(?:qty|quantity)[:\s]\s*(\d{1,3})\b",
    r"\((?:x\s*)?(\d{1,3})\s?x?\)",
)
#: A pack of nobody knows how many.
UNCOUNTED = re.compile(r"\b(?:a\s+)?(?:packs?|bags?|some|few|several|bunch)\b", re.I)
#: Packs of which only the packs were counted.
PACKS_ALONE = re.compile(r"\b(?:packs?|bags?|boxes)\s+of\b", re.I)
#: Words of the shop for what is listed under another.
SHOP = {
    "spinner bait": "spinnerbait",
    "braided line": "braid",
    "braided": "braid",
    "baitcaster": "reel",
    "bait caster": "reel",
    "football head": "football jig",
    "arkie head jig": "casting jig",
    "arkie head": "casting jig",
    "blade jig": "bladed jig",
    "bladed swim jig": "bladed jig",
    "vibrating blade jig": "bladed jig",
    "under spin": "underspin",
    "brush jig": "flipping jig",
    "pitching jig": "flipping jig",
    "flippin jig": "flipping jig",
    "flip jig": "flipping jig",
    "arkie jig": "casting jig",
    "arky jig": "casting jig",
    "skipping jig": "casting jig",
    "weed jig": "grass jig",
    "swimming jig": "swim jig",
    "worm weight": "weighted plastic",
    "texas rig": "weighted plastic",
    "t-rig": "weighted plastic",
    "bullet weight": "weighted plastic",
    "bullet sinker": "weighted plastic",
    "flipping weight": "weighted plastic",
    "punch weight": "punch rig",
    "punching weight": "punch rig",
    "punching rig": "punch rig",
    "creature bait": "creature",
    "trailer craw": "craw",
    "trailer chunk": "chunk",
    "craw trailer": "craw",
    "chunk trailer": "chunk",
    "crawfish": "craw",
    "paddle tail swimbait": "paddle-tail",
    "paddletail swimbait": "paddle-tail",
    "twin tail grub": "twin-tail",
    "double tail grub": "twin-tail",
    "split tail minnow": "pin-tail",
}
NUMBER = r"\d+(?:\s+\d+/\d+|/\d+|[.,]\d+)?"


#: Kilograms of a line, metres of a rod or a leader; each as the trade writes it.
METRIC = re.compile(r"(\d+(?:[.,]\d+)?)\s?(kg|m)(?=\s|,|$)", re.I)
TRADE = {"kg": "lb", "m": "ft"}


def _in_trade_units(match: re.Match[str]) -> str:
    unit = match[2].lower()
    return f"{read(f'{match[1]} {unit}', TRADE[unit]):.3g} {TRADE[unit]}"


def tidied(line: str) -> str:
    """The line with one spelling for each thing; counts as ``x12``, feet and inches as feet."""
    text = re.sub(r"[‐‑–—]", "-", line)
    text = re.sub(r"(?<![\d/])(\d)-(\d+/\d+)", r"\1 \2", text)
    text = re.sub(rf"(\d)\s*-\s*({UNITS})\b", r"\1 \2", text, flags=re.I)
    text = re.sub(rf"(\d\s?(?:{UNITS}))\.(?!\d)", r"\1", text, flags=re.I)
    text = METRIC.sub(_in_trade_units, text)
    text = re.sub(r"(\d)\s*#(?=\s|,|$)", r"\1 lb", text)
    text = re.sub(r"(?:^|(?<=\s))#\s?(\d+)(?=\s|,|$)", r"\1 lb", text)
    text = AND_A.sub(
        lambda m: f"{WHOLE.get(m[1].lower(), m[1])} {'1/2' if m[2].lower() == 'half' else '1/4'}", text
    )
    for spelling, written in EIGHTHS.items():
        text = re.sub(rf"\b{spelling}\b", written, text, flags=re.I)
    # Eight 4 in tails are eight of them.
    text = re.sub(r"^(\d{1,2})\s+(?=\d+(?:[.,]\d+)?\s?(?:(?:in|inch|cm)\b|[\"″]))", r"x\1 ", text)
    for word in sorted(FRACTIONS, key=len, reverse=True):
        text = re.sub(rf"\b{word}[\s-]+(?:ounces?|oz)\b", f"{FRACTIONS[word]} oz", text, flags=re.I)
    text = re.sub(
        r"(\d{1,2})\s?(?:'|′|ft\.?|feet|foot)\s?(\d{1,2})\s?(?:\"|″|''|in\.?|inch|inches)?(?=\s|,|$)",
        lambda m: f"{int(m[1]) + int(m[2]) / 12.0:.3f}".rstrip("0").rstrip(".") + " ft",
        text,
        flags=re.I,
    )
    text = re.sub(r"(\d)\s?(?:''|”)", r'\1"', text)
    text = re.sub(r"(\d)\s?'(?=\s|,|$)", r"\1 ft", text)
    text = re.sub(r"\bipt\b", "in per turn", text, flags=re.I)
    text = re.sub(rf"\b({NUMBER})\s?in(?:ches)?/turn", r"\1 in per turn", text, flags=re.I)
    for pattern in PACKS:
        text = re.sub(pattern, r" x\1 ", text, flags=re.I)
    text = re.sub(r"[()]", " ", text)
    for word in sorted(COUNTS, key=len, reverse=True):
        text = re.sub(rf"^\s*{word}\s+(?=\S)", f"x{COUNTS[word]} ", text, flags=re.I)
    for said in sorted(SHOP, key=len, reverse=True):
        text = re.sub(rf"(?<![\w-]){said}(?:s)?(?![\w-])", SHOP[said], text, flags=re.I)
    return " ".join(text.split())


def nearest(vocabulary: Iterable[str], line: str) -> str:
    """The line with its one misspelt name put right, to be asked; empty where none is near."""
    names = sorted(set(vocabulary), key=len, reverse=True)
    tokens = line.split()
    for size in (3, 2, 1):
        for k in range(len(tokens) - size + 1):
            said = " ".join(tokens[k : k + size]).lower().rstrip("s")
            measured = any(c.isdigit() for c in said) or re.search(rf"\b(?:{UNITS})\b", said)
            if len(said) < 4 or measured:
                continue
            close = difflib.get_close_matches(said, names, 1, 0.8)
            if close and close[0] != said:
                return " ".join([*tokens[:k], close[0], *tokens[k + size :]])
    return ""
