"""What the page shows for a sizing: answer strip, board, section and reasons."""

from __future__ import annotations

from dataclasses import dataclass, replace
from urllib.parse import urlencode

from heathdrop.advice.call import Call
from heathdrop.advice.cautions import Caution, cautions_for
from heathdrop.advice.cited import Cited, advice_for
from heathdrop.advice.doubt import doubt_of
from heathdrop.advice.why import TRADE, limit_sentence, reasons, runs
from heathdrop.answers.cast import Worked, worked_of
from heathdrop.answers.water import at_setting, with_rig
from heathdrop.catalog import Catalog
from heathdrop.learning.observations import DropTest
from heathdrop.learning.worth import another_worth
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.bands import Bands, bands_for
from heathdrop.sizing.box import Tackle
from heathdrop.sizing.program import play, usual_way
from heathdrop.sizing.size import Rated, Sizing, equals_of
from heathdrop.units import feet, metres, ounces_as_written
from heathdrop.web.fields import ANSWERS, CALLED, given_in
from heathdrop.web.presenters.calling import Calling, Link, calling_of, rig_words
from heathdrop.web.presenters.casting import Casting, Choices, casting_of, rivals_of
from heathdrop.web.presenters.frame import LOW, NARROW, WIDE
from heathdrop.web.presenters.rigging import MatDrawing, Rigging, mat_drawing, rigging_of
from heathdrop.web.presenters.searching import Searching
from heathdrop.web.presenters.section import Section, section_of

#: Marks of what holds a rig back: symbol in the sprite, and its words.
MARKS = {
    "high": "runs high",
    "deep": "runs deep",
    "fall": "falls wrong",
    "cover": "cover",
    "action": "action",
    "profile": "profile",
    "weight": "unusual weight",
    "touch": "touch",
    "none": "nothing holds it back",
}
#: A band narrower than this (ft) is a lure that never leaves the floor.
LEAST_SPREAD_FT = 0.15
#: Depth (ft) of the timed drop that the sheet offers.
TIMED_FT = 10.0
#: Trailers and weights of a large box on the board at most; the standard set always fits.
MOST_ROWS, MOST_COLUMNS = 16, 12
#: Rigs as good that are named, at most.
MOST_EQUALS = 3
#: Rules cited beside the board at most.
MOST_CITED = 3


@dataclass(frozen=True)
class Cell:
    """One pair on the board: score 0..100, shade step 0..5, and what holds it back."""

    key: str
    id: str
    score: int
    shade: int
    mark: str
    title: str
    chosen: bool
    best: bool


Rows = tuple[tuple[str, tuple[Cell | None, ...]], ...]
Board = tuple[tuple[str, ...], Rows]


@dataclass(frozen=True)
class Figure:
    """A figure of the answer strip: a label, the value said aloud, its unit and its band."""

    label: str
    value: str
    unit: str
    band: str


@dataclass(frozen=True)
class Sheet:
    """Everything the answer shows."""

    key: str
    is_best: bool
    to_best: str
    kept: bool
    asked: tuple[str, ...]
    title: str
    doubt: str
    head: str
    family: str
    called: bool
    owned: str
    timing: str
    timing_worth: str
    trailer: str
    aloud: str
    score: int
    figures: tuple[Figure, ...]
    heads: tuple[str, ...]
    rows: Rows
    marks: tuple[tuple[str, str], ...]
    sections: tuple[Section, ...]
    casting: Casting | None
    calling: Calling | None
    rigging: Rigging | None
    mat: MatDrawing | None
    searching: Searching | None
    view: str
    why: tuple[str, ...]
    advice: tuple[Cited, ...]
    mood: str
    mood_judged: bool
    mood_why: str
    cautions: tuple[Caution, ...]


def present(
    catalog: Catalog,
    sizing: Sizing,
    tackle: Tackle,
    values: dict[str, str],
    choices: Choices,
    link: Link,
    call: Call | None = None,
    searching: Searching | None = None,
) -> Sheet:
    """Make a sizing ready to show, with the picked rig chosen when it is there.

    ``choices`` say how the lure is worked in the Cast view; the other views show the steady retrieve,
    or the drop where the family is dropped. ``tackle`` is the box; ``link`` makes addresses; ``call`` and
    ``searching`` are needed by the Water and Search views.
    """
    view, best = values["view"], sizing.rigs[0]
    chosen = best
    if values["pick"]:
        sizing, chosen = with_rig(sizing, RigName.parse(values["pick"]))
    kept = choices.count_s is not None or choices.pace_ft_s is not None
    if kept:
        chosen = at_setting(sizing, chosen, choices.count_s, choices.pace_ft_s)
    bands = bands_for(catalog, sizing, [chosen])[0]
    usual = usual_way(catalog, sizing, chosen)
    if view != "cast":
        choices = replace(choices, way=usual, lift_m=None, hold_s=None, against=())
    elif not choices.way:
        choices = replace(choices, way=usual)
    cast = play(sizing, chosen, choices.way, choices.lift_m, choices.hold_s)
    rivals = rivals_of(sizing, chosen, choices, cast) if view == "cast" else ()
    hand = choices.way, choices.lift_m, choices.hold_s
    worked = worked_of(sizing, chosen, bands, cast, *hand, closely=view == "cast")
    shown = [(r.mark, r.result) for r in rivals]
    heads, rows = _board(sizing, chosen, best) if view == "size" else ((), ())
    used = {cell.mark for _, cells in rows for cell in cells if cell is not None}
    activity = sizing.targets.activity
    return Sheet(
        key=chosen.key,
        is_best=chosen is best,
        to_best=link(pick="", count_s="", pace_ft_s=""),
        kept=kept,
        asked=tuple(name for name in ANSWERS if name not in given_in(values)),
        title=_title(sizing, chosen),
        doubt=doubt_of(catalog, sizing, chosen) or "",
        head=ounces_as_written(chosen.rig.head_oz),
        family=chosen.rig.family.name,
        called=values["family"] == CALLED,
        owned=_owned(tackle, chosen),
        timing="/drops?" + urlencode(_timed(sizing, chosen)),
        timing_worth=_timing_worth(catalog, sizing, chosen, bands),
        trailer=chosen.rig.trailer.name
        + (f" {chosen.rig.trailer_length_in:g} in" if chosen.rig.trailer.length_in else ""),
        aloud=_aloud(sizing, chosen),
        score=round(chosen.fits.score * 100),
        figures=figures_of(sizing, chosen, bands, worked, choices.way == usual),
        heads=heads,
        rows=rows,
        marks=tuple((k, words) for k, words in MARKS.items() if k in used and k != "none"),
        sections=tuple(
            section_of(sizing, chosen, cast, bands, frame, shown, choices.way == "steady")
            for frame in (LOW if view in ("water", "rig") else WIDE, NARROW)
        ),
        casting=casting_of(sizing, chosen, bands, choices, cast, rivals, worked) if view == "cast" else None,
        calling=calling_of(catalog, call, sizing, link) if view == "water" and call is not None else None,
        rigging=rigging_of(catalog, sizing, chosen, values["wrong"], choices.missed_ft, link)
        if view == "rig"
        else None,
        mat=mat_drawing(sizing, chosen) if view == "size" else None,
        searching=searching,
        view=view,
        why=_why(catalog, sizing, chosen),
        advice=_spoke(catalog, sizing, chosen) if view == "size" else (),
        mood=f"{activity.name} ({activity.value:.1f} of 4)",
        mood_judged=activity.judged,
        mood_why=_sentence("; ".join(activity.reasons)),
        cautions=cautions_for(catalog, sizing.scenario, chosen),
    )


def _why(catalog: Catalog, sizing: Sizing, chosen: Rated) -> tuple[str, ...]:
    """The reasons; where other rigs are as good they are named in place of the trade."""
    equals = _equals(catalog, sizing, chosen)
    if not equals:
        return reasons(sizing, chosen)
    return (*(w for w in reasons(sizing, chosen) if not w.startswith(TRADE)), equals)


def _equals(catalog: Catalog, sizing: Sizing, rated: Rated) -> str:
    """The rigs as good within the noise, in words; nothing where there are none."""
    same = equals_of(catalog, sizing, rated)
    if not same:
        return ""
    named = "; ".join(rig_words(r) for r in same[:MOST_EQUALS])
    more = f" and {len(same) - MOST_EQUALS} more" if len(same) > MOST_EQUALS else ""
    return f"As good: {named}{more}."


def _spoke(catalog: Catalog, sizing: Sizing, chosen: Rated) -> tuple[Cited, ...]:
    """The strongest rules, and the schools that the angler chose away from the default."""
    own = {catalog.topics[t].name for t, s in sizing.scenario.schools if s != catalog.topics[t].default}
    cited = advice_for(catalog, sizing, chosen, MOST_CITED)
    return tuple(a for a in cited if a.kind == "rule" or (a.kind == "school" and a.name in own))


def _sentence(text: str) -> str:
    """A text as a sentence: its first letter great, a stop at its end, the rest as it is."""
    return f"{text[:1].upper()}{text[1:]}."


def _turns(sizing: Sizing, pace_ft_s: float) -> str:
    """Handle turns as a hand counts them: whole turns in ten seconds."""
    return f"{sizing.scenario.gear.turns_per_s(pace_ft_s) * 10:.0f} turns in 10 s"


def _aloud(sizing: Sizing, rated: Rated) -> str:
    """The answer as one line a person could read aloud."""
    pace = feet(rated.tuned.pace_m_s)
    head = ounces_as_written(rated.rig.head_oz)
    rig = f"{head} oz {rated.rig.family.name}, {rated.rig.trailer.name}: count {rated.countdown_s:.1f}"
    if rated.rig.family.work == "drop":
        return f"{rig}, let it land, hop it once or twice, then move on."
    if rated.rig.family.work == "bottom":
        return f"{rig}, let it land, then work it along the floor, a foot in about {1.0 / pace:.0f} s."
    return (
        f"{rig}, then {pace:.1f} ft a second, {_turns(sizing, pace)}, rod tip "
        f"{sizing.scenario.gear.rod_tip_height_ft:g} ft up."
    )


def rig_said(rated: Rated) -> str:
    """A rig in words: ``3/8 oz swim jig, craw``."""
    return f"{ounces_as_written(rated.rig.head_oz)} oz {rated.rig.family.name}, {rated.rig.trailer.name}"


def _title(sizing: Sizing, rated: Rated) -> str:
    """The state in a line, for the window's title and the history."""
    c = sizing.scenario.conditions
    water = f"{c.water_temp_f:g} °F, fish at {c.fish_depth_ft:g} ft of {c.bottom_depth_ft:g} ft"
    return f"{rig_said(rated)} · {water}, {c.cover.kind.replace('-', ' ')} · Heathdrop"


def figures_of(sizing: Sizing, rated: Rated, bands: Bands, worked: Worked, usual: bool) -> tuple[Figure, ...]:
    """What the strip says of a rig as it is worked, in its ``usual`` way or another: count, depth, bands."""
    pace = feet(rated.tuned.pace_m_s)
    fall, mean = rated.fall_ft_s, worked.mean_ft
    low, high = worked.mean_band_ft
    slow, fast = worked.count_band_s
    count = Figure("Count", f"{worked.count_s:.1f}", "s", f"{slow:.1f} to {fast:.1f}")
    falls = Figure(
        "Falls", f"{fall:.1f}", "ft/s", f"{fall * bands.fall_low:.1f} to {fall * bands.fall_high:.1f}"
    )
    if not usual:
        spread = f"{low:.1f} to {high:.1f}" if high - low >= LEAST_SPREAD_FT else "along the floor"
        return count, Figure("Works at", f"{mean:.1f}", "ft", spread), falls
    if rated.rig.family.work == "drop":
        through = Figure("Gets through", f"{rated.cover.passes * 100:.0f}", "of 100", "quiet entries")
        hangs = Figure("Hangs up", f"{rated.cover.hangs * 100:.0f}", "of 100", "casts")
        works = Figure("Works at", f"{mean:.0f}", "ft", "hopped where it lands")
        return (
            count,
            works,
            falls,
            hangs if sizing.scenario.conditions.cover.kind in ("wood", "rock", "docks") else through,
        )
    if rated.rig.family.work == "bottom":
        felt = rated.fits.parts["touch"] * 100
        return (
            count,
            Figure("Sweep", f"{1.0 / pace:.0f}", "s a foot", "the rod moves it"),
            Figure("Works at", f"{mean:.0f}", "ft", "along the floor"),
            falls,
            Figure("Felt", f"{felt:.0f}", "%", "in today's wind"),
        )
    return (
        count,
        Figure("Pace", f"{pace:.1f}", "ft/s", _turns(sizing, pace)),
        Figure("Runs at", f"{mean:.1f}", "ft", f"{low:.1f} to {high:.1f}"),
        falls,
        Figure("In the band", f"{rated.tuned.in_band * 100:.0f}", "%", "of the retrieve"),
    )


def _mark(sizing: Sizing, rated: Rated) -> str:
    part = rated.fits.limiting
    if part is None:
        return "none"
    if part == "depth":
        below = feet(rated.tuned.mean_m) > 0.5 * sum(sizing.targets.depth_ft)
        return runs(sizing, rated) or ("deep" if below else "high")
    return part


def _timed(sizing: Sizing, chosen: Rated) -> dict[str, str]:
    """What the drop test of a rig starts from."""
    gear, c, rig = sizing.scenario.gear, sizing.scenario.conditions, chosen.rig
    tail = (
        {"trailer": rig.trailer.id, "trailer_length_in": f"{rig.trailer_length_in:g}"}
        if not rig.trailer.bare
        else {}
    )
    line = {
        "line_material": gear.line.material,
        "test_lb": f"{gear.line.test_lb:g}",
        "water_temp_f": f"{c.water_temp_f:g}",
    }
    return {"family": rig.family.id, "head_oz": ounces_as_written(rig.head_oz), **tail, **line}


def _timing_worth(catalog: Catalog, sizing: Sizing, rated: Rated, bands: Bands) -> str:
    """What a timed drop would make of a fall that was never timed; nothing once it was."""
    if rated.rig.measured.body_fall_spread is not None or rated.rig.measured.trailer_fall_spread is not None:
        return ""
    line, c = sizing.scenario.gear.line, sizing.scenario.conditions
    depth = metres(min(c.bottom_depth_ft, TIMED_FT))
    like = DropTest(rated.rig, sizing.line, line.material, depth, (), c.water_temp_f)
    worth = another_worth(catalog, (), like, (1.0,))
    return f"fall known to ±{100 * worth.now:.0f} %, then ±{100 * worth.then:.0f} %"


def _owned(tackle: Tackle, chosen: Rated) -> str:
    """Whether the box holds the rig, in words; nothing while the box is empty."""
    if not tackle.heads and not tackle.trailers:
        return ""
    return "in your box" if tackle.owns(chosen.rig) else "not in your box"


def row_label(rated: Rated) -> str:
    """A trailer as the board names its row: its shape. A cell shows the length that does best."""
    return rated.rig.trailer.name + (", joined" if rated.rig.fused else "")


def _board(sizing: Sizing, chosen: Rated, best: Rated) -> Board:
    """The chosen family's best rig for every trailer and weight: rows slim to bulky, columns light to heavy.

    A large box shows the trailers and weights that do best; the chosen rig is always there.
    """
    same = [r for r in sizing.rigs if r.rig.family == chosen.rig.family]
    places: dict[tuple[str, float], Rated] = {}
    for r in [chosen, *same]:
        places.setdefault((row_label(r), r.rig.head_oz), r)
    labels = list(dict.fromkeys(label for label, _ in places))[:MOST_ROWS]
    weights = sorted(list(dict.fromkeys(oz for label, oz in places if label in labels))[:MOST_COLUMNS])
    bulk = {row_label(r): r.rig.bulk_cm2 for r in (*same, chosen)}
    rows = []
    for k, label in enumerate(sorted(labels, key=lambda x: (bulk[x], x))):
        cells = tuple(_cell(sizing, places.get((label, oz)), k, oz, chosen, best) for oz in weights)
        rows.append((label, cells))
    return tuple(ounces_as_written(oz) for oz in weights), tuple(rows)


def _cell(sizing: Sizing, r: Rated | None, row: int, oz: float, chosen: Rated, best: Rated) -> Cell | None:
    """One place on the board; None where the box has no such pair."""
    if r is None:
        return None
    score = round(r.fits.score * 100)
    length = "" if r.rig.trailer.bare else f" {r.rig.trailer_length_in:g} in"
    said = f"{ounces_as_written(oz)} oz, {row_label(r)}{length}: {score} of 100. {limit_sentence(sizing, r)}"
    shade = (
        0
        if score < 30
        else 1
        if score < 50
        else 2
        if score < 70
        else 3
        if score < 82
        else 4
        if score < 92
        else 5
    )
    place = f"{r.rig.trailer.id}-{row}" if r.rig.fused else r.rig.trailer.id
    return Cell(
        r.key,
        f"cell-{place}-{int(oz * 10000)}",
        score,
        shade,
        _mark(sizing, r),
        said,
        r.key == chosen.key,
        r is best,
    )
