"""What the page shows for a sizing: answer strip, board, section and reasons."""

from dataclasses import dataclass, replace
from urllib.parse import urlencode

from heathdrop.advice.call import Call
from heathdrop.advice.cautions import Caution, cautions_for
from heathdrop.advice.cited import Cited, advice_for
from heathdrop.advice.doubt import doubt_of
from heathdrop.advice.narrow import narrows
from heathdrop.advice.why import TRADE, reasons
from heathdrop.answers.cast import met_by
from heathdrop.answers.compare import compared_with
from heathdrop.answers.drops import another_drop_worth
from heathdrop.answers.picked import picked
from heathdrop.catalog import Catalog
from heathdrop.learning.worth import half_band
from heathdrop.sizing.bands import Bands
from heathdrop.sizing.box import Tackle
from heathdrop.sizing.size import Rated, Sizing, equals_of
from heathdrop.units import inches_said, metres, ounces_as_written
from heathdrop.web.sheet.shown.board import Board, board_of
from heathdrop.web.sheet.shown.calling import Calling, Link, calling_of, rig_words
from heathdrop.web.sheet.shown.casting import Casting, Choices, casting_of
from heathdrop.web.sheet.shown.comparing import Comparing, comparing_of
from heathdrop.web.sheet.shown.rigging import MatDrawing, Rigging, mat_drawing, rigging_of
from heathdrop.web.sheet.shown.searching import Searching
from heathdrop.web.sheet.shown.section import Section, section_of
from heathdrop.web.sheet.shown.strip import Figure, aloud, figures_of, title_of, wanted_of
from heathdrop.web.shell.fields import ANSWERS, CALLED, given_in
from heathdrop.web.shell.frame import LOW, NARROW, NARROW_LOW, WIDE

#: Depth (ft) of the timed drop that the sheet offers.
TIMED_FT = 15.0
#: Rigs as good that are named, at most.
MOST_EQUALS = 3
#: Parts of the fit whose names say too little by themselves.
PARTS = {"weight": "usual weight", "profile": "bulk and shape", "tackle": "line and rod", "touch": "feel"}
#: Rules cited beside the board at most.
MOST_CITED = 2


@dataclass(frozen=True)
class Sheet:
    """Everything the answer shows."""

    key: str
    is_best: bool
    to_best: str
    own_setting: bool
    met: str
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
    parts: tuple[tuple[str, int], ...]
    noise: str
    figures: tuple[Figure, ...]
    gives: str
    board: Board | None
    comparing: Comparing | None
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
    gives: str = "",
) -> Sheet:
    """Make a sizing ready to show, with the picked rig chosen when it is there.

    ``choices`` say how the lure is worked in the Cast view; the other views show the steady retrieve,
    or the drop where the family is dropped. ``tackle`` is the box; ``link`` makes addresses; ``call`` and
    ``searching`` are needed by the Water and Search views; ``gives`` says what gives where not all that is
    wanted can be had.
    """
    view, best = values["view"], sizing.rigs[0]
    if view != "cast":
        choices = replace(choices, way="", lift_m=None, hold_s=None)
    if view not in ("cast", "size"):
        choices = replace(choices, against=())
    one = picked(sizing, values["pick"], choices, closely=view == "cast")
    sizing, chosen, bands, worked = one.sizing, one.rated, one.bands, one.worked
    hand = one.way, choices.lift_m, choices.hold_s
    # In the Cast view the others are worked as the chosen rig is; beside the board each is as it is sized.
    others = compared_with(sizing, chosen, choices.against, hand if view == "cast" else None)
    rivals = tuple(other.result for other in others)
    keys = [other.key for other in others]
    letters = {other.rated.key: other.mark for other in others if other.kind == "rig"}
    without = tuple(link(compare=",".join(k for k in keys if k != key)) for key in keys)
    plain = figures_of(sizing, chosen, bands, worked, one.as_usual)
    figures = wanted_of(sizing, chosen, plain, worked.mean_ft)
    activity = sizing.targets.activity
    return Sheet(
        key=chosen.key,
        is_best=chosen is best,
        to_best=link(pick="", count_s="", pace_ft_s="", turns="", seen=""),
        own_setting=choices.own_setting,
        met=met_by(sizing, chosen) if choices.own_setting and chosen.work == "swim" else "",
        asked=tuple(name for name in ANSWERS if name not in given_in(values)),
        title=title_of(sizing, chosen),
        doubt=doubt_of(catalog, sizing, chosen) or "",
        head=ounces_as_written(chosen.rig.head_oz),
        family=chosen.rig.family.name,
        called=values["family"] == CALLED,
        owned=_owned(tackle, chosen),
        timing="/drops?" + urlencode(_timed(sizing, chosen)),
        timing_worth=_timing_worth(catalog, sizing, chosen, bands),
        trailer=chosen.rig.trailer.name
        + (f" {inches_said(chosen.rig.trailer_length_in)} in" if chosen.rig.trailer.length_in else ""),
        aloud=aloud(sizing, chosen),
        score=round(chosen.fits.score * 100),
        parts=tuple((PARTS.get(k, k), round(100 * v)) for k, v in chosen.fits.parts.items()),
        noise=f"{100 * catalog.judgement.fit.noise:.0f}",
        figures=tuple(replace(f, back=link(**{f.own: ""})) if f.own else f for f in figures),
        gives=gives,
        board=board_of(sizing, chosen, best, values["lens"], letters) if view == "size" else None,
        comparing=comparing_of(sizing, chosen, one.cast, worked.mean_ft, others, without),
        sections=tuple(
            section_of(
                sizing,
                chosen,
                cast=one.cast,
                bands=bands,
                frame=frame,
                rivals=[(other.mark, other.result) for other in others],
                spread=one.way == "steady",
            )
            for frame in ((LOW, NARROW_LOW) if view in ("water", "rig") else (WIDE, NARROW))
        ),
        casting=casting_of(one, choices, rivals) if view == "cast" else None,
        calling=calling_of(catalog, call, sizing, link) if view == "water" and call is not None else None,
        rigging=rigging_of(
            catalog,
            sizing,
            rated=chosen,
            wrong=values["wrong"],
            missed_ft=choices.missed_ft,
            link=link,
        )
        if view == "rig"
        else None,
        mat=mat_drawing(sizing, chosen) if view == "size" else None,
        searching=searching,
        view=view,
        why=(*_why(catalog, sizing, chosen), *filter(None, [narrows(sizing, chosen, bands)])),
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
        "depth_ft": f"{min(c.bottom_depth_ft, TIMED_FT):g}",
    }
    dress = {"skirt": chosen.name.skirt, "plastic": chosen.name.plastic}
    as_rigged = {part: word for part, word in dress.items() if word}
    return {"family": rig.family.id, "head_oz": ounces_as_written(rig.head_oz), **tail, **as_rigged, **line}


def _timing_worth(catalog: Catalog, sizing: Sizing, rated: Rated, bands: Bands) -> str:
    """What a timed drop would make of a fall that was never timed; nothing once it was."""
    if rated.rig.measured.timed:
        return ""
    c = sizing.scenario.conditions
    worth = another_drop_worth(sizing, rated, metres(min(c.bottom_depth_ft, TIMED_FT)))
    now = half_band(catalog, rated.rig, c.water_temp_f)
    return f"fall known to ±{100 * now:.0f} %, then ±{100 * now * worth.then / worth.now:.0f} %"


def _owned(tackle: Tackle, chosen: Rated) -> str:
    """Whether the box holds the rig, in words; nothing while the box is empty."""
    if not tackle.heads and not tackle.trailers:
        return ""
    return "in your box" if tackle.owns(chosen.rig) else "not in your box"
