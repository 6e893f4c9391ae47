"""Lengths and weights of fish in a line."""

import re

from heathdrop.reading import number_of, read

#: Lengths that leave their unit to the last of them: ``15 and 16.5 in``, ``16, 17, 18 in``.
UNITLESS = re.compile(
    r"(?<!between )(?<!from )(?<![\d/.:-])\b([89]|[12]\d(?:\.\d+)?)\s?(?:,|and|&|\+)\s?"
    r"(?=(?:[12]\d(?:\.\d+)?\s?(?:,|and|&|\+)\s?)*\d{1,2}(?:\.\d+)?\s?(?:in\b|inch|[\"″]))",
    re.I,
)
#: Lengths of fish in a part of a line, and their weights; such fish are between these inches.
LENGTHS = re.compile(r"((?:\d{1,2}(?:[.,]\d+| \d/\d)?)\s?(?:(?:in|inch|inches|inchers?|cm)\b|[\"″]))", re.I)
POUNDS = re.compile(
    r"(\d{1,2}(?:[.,]\d+|\s[13]/[24])?)\s?-?(?:lbs?|lbers?|pounds?|pounders?)\b(?:\s?(\d{1,2})(?:\s?oz\b|(?=\s*(?:,|$))))?",
    re.I,
)
#: One more of them, its unit said before: ``one 17 in, one 15``.
ANOTHER = re.compile(r"(?:and\s+)?(?:an?|one|another)\s+([12]\d(?:\.\d+)?)", re.I)
#: Words about a fish that was measured.
ABOUT = r"\b(?:and|then|plus|with|a|an|one|best|biggest|big|fish|bass|to|of|up|long|the)\b"
FISH_IN = (8.0, 30.0)


def sizes_in(text: str) -> tuple[tuple[float, ...], tuple[float, ...], str]:
    """Lengths (in) and weights (lb) of fish, from the parts of a line that are nothing else; the rest."""
    lengths: list[float] = []
    weights: list[float] = []
    others = []
    for part in (p.strip() for p in text.split(",")):
        # A length before a rig is a fish's: no head has one, and no trailer so long.
        while (at := LENGTHS.match(part)) and part[at.end() :].strip(" ,"):
            long = round(read(re.sub("inch.*", "in", at[1].lower()), "in"), 2)
            if not FISH_IN[0] <= long <= FISH_IN[1] or LENGTHS.fullmatch(part):
                break
            after = part[at.end() :].strip(" ,").removeprefix("and ")
            lengths, part = [*lengths, long], re.sub(r"^(?:fish|bass|ones?)\s+(?=\S)", "", after, flags=re.I)
        # A fish by its weight before a rig, likewise.
        while (at := POUNDS.search(part)) and not re.sub(
            ABOUT + r"|[\s,]", "", part[: at.start()], flags=re.I
        ):
            if not (after := part[at.end() :].strip(" ,")) or POUNDS.search(after):
                break
            weights, part = [*weights, _pounds(at)], after.removeprefix("and ")
        if lengths and (other := ANOTHER.fullmatch(part)):
            part = f"{other[1]} in"
        inches = [read(re.sub("inch.*", "in", m[1].lower()), "in") for m in LENGTHS.finditer(part)]
        pounds = [_pounds(m) for m in POUNDS.finditer(part)]
        left = POUNDS.sub(" ", LENGTHS.sub(" ", part))
        bare = not re.sub(ABOUT + "|[^a-z0-9]", "", left, flags=re.I)
        if part and bare and inches and all(FISH_IN[0] <= v <= FISH_IN[1] for v in inches):
            lengths += [round(v, 2) for v in inches]
        elif part and bare and pounds and not inches:
            weights += [round(v, 3) for v in pounds]
        else:
            others.append(part)
    return tuple(lengths), tuple(weights), ", ".join(p for p in others if p)


def _pounds(match: re.Match[str]) -> float:
    """A fish's weight, its ounces with it."""
    return number_of(match[1]) + float(match[2] or 0) / 16.0
