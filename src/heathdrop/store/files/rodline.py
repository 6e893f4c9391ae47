"""Lines of text to the rods of a plan: ``A: 15 lb fluorocarbon, medium heavy casting 3/8 to 1 oz``.

The fast way in, as the box has it; and a rod said back as such a line.
"""

import re

from heathdrop import catalog as catalogue
from heathdrop.catalog import meant_by
from heathdrop.conditions.gear import RATED_OZ, Leader, Line, Rod
from heathdrop.conditions.plan import MOST_RODS, RodBody
from heathdrop.errors import BadInput
from heathdrop.reading import number_of
from heathdrop.store.files.entry import FEET, NUMBER, RATIO, line_words, rod_fields, take_word
from heathdrop.store.files.spelling import tidied
from heathdrop.units import ounces_as_written

#: A braid and its leader in one breath: ``30/10 braid to fluoro``.
BRAID_TO = re.compile(r"(\d{1,3})\s?/\s?(\d{1,2})\s?(?:lb\s+)?(\w+)\s+to\s+(\w+)", re.I)
LEADER_FIRST = re.compile(r"/?\s*\bleader\s+(?:of\s+)?([a-z]+)\s+(\d{1,2})\s?(?:lb\b)?", re.I)
#: A leader that is not called one: ``20 braid with 12 ft of 10 lb fluorocarbon``.
TIED_OF = re.compile(
    rf"\b(?:w/|with|and|to)?\s*({NUMBER}\s?(?:ft|feet|foot|')\s?of\s+{NUMBER}\s?(?:lbs?|#)?\s+(?!leader|lbs?\b)\w+)\b(?!\s*leader)",
    re.I,
)
LEADER = re.compile(
    rf"(?:({NUMBER})\s?(?:ft|feet|foot)\s+(?:of\s+)?)?({NUMBER})\s?(?:lb|lbs)?\s+(\w+\s+)?leader"
    rf"(?:\s*,?\s*(?:of\s+)?({NUMBER})\s?(?:ft|feet|foot)\b)?",
    re.I,
)
TEST = re.compile(rf"({NUMBER})\s?(?:lb|lbs|pound)\b", re.I)
TURN = re.compile(rf"({NUMBER})\s?(?:in|inches|\")\s*(?:per|a|/)\s*turn", re.I)
#: A rod called by a letter, without a colon.
LETTER = re.compile(
    r"(?:(?i:rod)\s+)?([A-Z])(?:\s+(?:-\s+)?(?=\d)|[).,]\s*)|(?i:rod)\s+(\w{1,2})\s+(?:-\s+)?(?=\d)"
)
NUMBERED = re.compile(r"#\s?(\d{1,2})\s*(?:-\s+|[).]\s*|\s)(?=\d)|(\d{1,2})[.)]\s+")
WANTED = "a line such as A: 15 lb fluorocarbon, medium heavy casting 3/8 to 1 oz"


def rods_in(text: str) -> list[RodBody]:
    """The rods of a text, a line each. Raises BadInput naming the line at fault."""
    lines = [line.strip() for line in text.splitlines() if line.strip()]
    if not 1 <= len(lines) <= MOST_RODS:
        raise BadInput("rods", f"{len(lines)} lines", f"from 1 to {MOST_RODS} rods, a line each")
    return [rod_of(line[:200], chr(ord("A") + k)) for k, line in enumerate(lines)]


def rod_of(text: str, usual: str) -> RodBody:
    """The rod of a line, called ``usual`` where it has no name of its own. Raises BadInput."""
    text = BRAID_TO.sub(r"\1 lb \3, \2 lb \4 leader", RATIO.sub(" ", text))
    text = TIED_OF.sub(r", \1 leader", LEADER_FIRST.sub(r", \2 lb \1 leader", text))
    name, colon, rest = text.partition(":")
    if not colon:
        letter = LETTER.match(text) or NUMBERED.match(text)
        name, rest = (letter[1] or letter[2], text[letter.end() :]) if letter else (usual, text)
    rest = tidied(rest)
    leader = None
    tied = LEADER.search(rest)
    if tied is not None:
        material = line_words().get((tied[3] or "").strip().lower(), "fluorocarbon")
        said = tied[1] or tied[4]
        length = number_of(said) if said else Leader().length_ft
        leader = Leader(material=material, test_lb=number_of(tied[2]), length_ft=length)
        rest = f"{rest[: tied.start()]} {rest[tied.end() :]}"
    turn = TURN.search(rest)
    inches = number_of(turn[1]) if turn else RodBody.model_fields["inches_per_turn"].default
    if turn:
        rest = f"{rest[: turn.start()]} {rest[turn.end() :]}"
    # The figure beside a line's name is its test, with or without its unit.
    materials = "|".join(re.escape(word) for word in line_words())
    bare = re.search(
        rf"({NUMBER})\s+(?=(?:{materials})\b)|\b(?:{materials})\s+({NUMBER})(?=\s*(?:,|$))", rest, re.I
    )
    end = 0 if bare is None or TEST.search(rest) else bare.end(1 if bare[1] else 2)
    rest = f"{rest[:end]} lb {rest[end:]}" if end else rest
    material_said, rest = take_word(line_words(), rest)
    test = TEST.search(rest)
    if material_said is None or test is None:
        raise BadInput("rods", text[:60], WANTED)
    rest = f"{rest[: test.start()]} {rest[test.end() :]}"
    rod = rod_fields(rest if FEET.search(rest) else f"{rest} 7 ft")
    if "style" not in rod:  # a rod may be called by it
        style, _ = take_word(meant_by(catalogue.load().words.styles), name)
        rod |= {"style": style} if style else {}
    written = {k: rod[k] for k in ("power", "low_oz", "high_oz") if k in rod}
    if "low_oz" not in written and written.get("power") in RATED_OZ:
        written["low_oz"], written["high_oz"] = RATED_OZ[written["power"]]
    said = Rod(kind=rod.get("style", "casting"), **written) if written or "style" in rod else None
    line = Line(material=material_said, test_lb=number_of(test[1]), leader=leader)
    return RodBody(name=name.strip()[:40] or usual, line=line, inches_per_turn=inches, rod=said)


def rod_line(rod: RodBody) -> str:
    """A rod as a line that :func:`rods_in` reads back."""
    line, tied = rod.line, rod.line.leader
    said = [f"{line.test_lb:g} lb {line.material}"]
    if tied is not None:
        said.append(f"{tied.length_ft:g} ft of {tied.test_lb:g} lb {tied.material} leader")
    said.append(f"{rod.inches_per_turn:g} in a turn")
    if rod.rod is not None:
        low, high = ounces_as_written(rod.rod.low_oz), ounces_as_written(rod.rod.high_oz)
        said.append(f"{rod.rod.power.replace('-', ' ')} {rod.rod.kind} {low} to {high} oz")
    return f"{rod.name}: " + ", ".join(said)
