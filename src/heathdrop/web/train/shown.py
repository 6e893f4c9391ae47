"""The trainer in words and drawings: what is due, how marks went by the week, the hand, the eye's water."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.answers.drill import KINDS, Marking, Question
from heathdrop.answers.drill.question import Played, rig_words
from heathdrop.api.drilling import HandAnswer
from heathdrop.catalog import Family, Trailer
from heathdrop.conditions.drilled import Drilled
from heathdrop.conditions.scenario import Conditions
from heathdrop.errors import BadInput
from heathdrop.physics.cast import CastResult
from heathdrop.sizing.rated import WAYS_TO_COVER
from heathdrop.store.drills import utc
from heathdrop.training.spacing import Due
from heathdrop.units import feet, metres, ounces_as_written
from heathdrop.web.sheet.shown.rigdraw import RigDrawing, draw_rig
from heathdrop.web.sheet.shown.section import Mark, Section, section_of, span_ft, water_section
from heathdrop.web.shell.frame import NARROW, WIDE, Frame, Scale

#: Questions of a round.
ROUND = 10
#: What each kind of question trains, how it is done, and what a round of it is called.
SAID = {
    "count": ("Count", "Tap at the splash and again when you think the count is up. No clock.", "Ten counts"),
    "pace": (
        "Handle",
        "Keep a number of turns in ten seconds, with the sound off.",
        "Ten turns of the handle",
    ),
    "eye": ("Eye", "A rig, a line, a count and a pace: where does it run half-way home?", "Ten casts"),
    "call": ("Call", "A water: choose the way, the lure, the head and the trailer.", "Ten waters"),
    "repair": ("Repair", "Something went wrong: choose the smallest change that mends it.", "Ten repairs"),
}
#: Fields of an answer that are numbers, and how they are called.
NUMBERS = {
    "tapped_s": "The time between the taps",
    "depth_ft": "The depth",
    "head_oz": "The head",
    "option": "The change",
}
#: A question's section is drawn for the table and for the phone.
FRAMES = (WIDE, NARROW)
#: Trailers that suit a lure less than this (a share of the best) are not put on it.
HARDLY_SUITS = 0.2
#: The drawing of marks by the week: its size (px) and the weeks shown.
WIDTH, HEIGHT, WEEKS = 220.0, 40.0, 12


@dataclass(frozen=True)
class KindRow:
    """A kind of question: words, what a round is called, topics due now, answers, the mean of its late marks
    (0 to 100), the line of its marks by the week."""

    id: str
    name: str
    says: str
    starts: str
    due: int
    answered: int
    lately: int | None
    points: str
    weeks: str


@dataclass(frozen=True)
class Asked:
    """What a question adds to a section: where half-way is (x; None where it is not asked) and the depth that
    was guessed (y)."""

    half_x: float | None = None
    guess_y: float | None = None


@dataclass(frozen=True)
class Picture:
    """A question's section, wide and narrow, what it adds to each, its rig to scale, and what it shows."""

    sections: tuple[Section, ...]
    asked: tuple[Asked, ...]
    rig: RigDrawing | None = None
    said: str = ""


def kind_rows(due: Sequence[Due], done: Sequence[Drilled], moment: datetime) -> list[KindRow]:
    """The kinds with what is due at a ``moment`` and how their marks went."""
    kinds = []
    for kind in KINDS:
        name, says, starts = SAID[kind]
        of_kind = [d for d in due if d.kind == kind]
        answers = [d for d in done if d.question.startswith(f"{kind}.")]
        late = [d.mark for d in answers[-10:]]
        weekly = _by_week(answers)
        kinds.append(
            KindRow(
                id=kind,
                name=name,
                says=says,
                starts=starts,
                due=sum(d.due is None or utc(d.due) <= moment for d in of_kind),
                answered=len(answers),
                lately=round(100.0 * sum(late) / len(late)) if late else None,
                points=_points(weekly),
                weeks=", ".join(f"{100.0 * m:.0f}" for m in weekly if m is not None),
            )
        )
    return kinds


def begin_with(kinds: Sequence[KindRow]) -> str:
    """The kind to begin with today: one never tried, in the order of the page, else what is due most; empty
    where nothing is due."""
    due = [k for k in kinds if k.due]
    return max(due, key=lambda k: (not k.answered, k.due if k.answered else 0)).id if due else ""


@dataclass(frozen=True)
class Round:
    """A round that is over: what it was, its marks in sentences, what comes tomorrow."""

    title: str
    lines: tuple[str, ...]


def round_of(kind: str, due: Sequence[Due], done: Sequence[Drilled], moment: datetime) -> Round | None:
    """What the latest round of a kind showed; None where nothing of the kind was answered."""
    answers = [d for d in done if d.question.startswith(f"{kind}.")]
    latest, before = answers[-ROUND:], answers[-2 * ROUND : -ROUND]
    if not latest:
        return None
    by_topic: dict[str, list[float]] = {}
    for one in latest:
        by_topic.setdefault(one.question.split(".")[1].replace("-", " "), []).append(one.mark)
    ranked = sorted(by_topic, key=lambda topic: -_mean(by_topic[topic]))
    lines = [
        f"{_mean([d.mark for d in latest])} of 100 on average"
        + (f"; {_mean([d.mark for d in before])} in the round before." if before else ".")
    ]
    if len(ranked) > 1:
        best, worst = ranked[0], ranked[-1]
        lines.append(
            f"Best at {best} ({_mean(by_topic[best])}), weakest at {worst} ({_mean(by_topic[worst])})."
        )
    soon = [d for d in due if d.due is not None and utc(d.due) <= moment + timedelta(days=1)]
    again = ", ".join(d.name.replace("-", " ") for d in soon if d.kind == kind)
    others = sorted({SAID[d.kind][0].lower() for d in soon if d.kind != kind})
    lines.append(
        f"By tomorrow these come back: {again}." if again else "Nothing of it comes back before tomorrow."
    )
    if others:
        lines.append(f"Also due by then: {', '.join(others)}.")
    return Round(SAID[kind][2], tuple(lines))


def _mean(marks: Sequence[float]) -> int:
    """The mean of marks, of 100."""
    return round(100.0 * sum(marks) / len(marks))


def _by_week(answers: Sequence[Drilled]) -> list[float | None]:
    """The mean mark of each of the last weeks that had answers, oldest first."""
    if not answers:
        return []
    last = utc(answers[-1].time)
    weeks: list[float | None] = []
    for back in reversed(range(WEEKS)):
        end = last - timedelta(weeks=back)
        marks = [a.mark for a in answers if end - timedelta(weeks=1) < utc(a.time) <= end]
        weeks.append(sum(marks) / len(marks) if marks else None)
    return weeks


def _points(weekly: Sequence[float | None]) -> str:
    """A polyline through the weeks that had answers."""
    step = WIDTH / (WEEKS - 1)
    return " ".join(
        f"{k * step:.1f},{HEIGHT * (1.0 - mark):.1f}" for k, mark in enumerate(weekly) if mark is not None
    )


def hand_said(hand: HandAnswer | None) -> list[str]:
    """The counting hand in sentences."""
    if hand is None:
        return ["No count was tapped yet: ten rounds tell how fast you count."]
    side = "slow" if hand.bias > 0.0 else "fast"
    said = [
        f"You count {100.0 * abs(hand.bias):.0f} % {side} (eight of ten: {100.0 * hand.low:+.0f} to "
        f"{100.0 * hand.high:+.0f} %), each count uneven by {100.0 * hand.scatter:.0f} %; "
        f"{hand.rounds} rounds."
    ]
    if hand.enough and abs(hand.bias) >= 0.02:
        said.append(
            f"Your ten is {10.0 * (1.0 + hand.bias):.1f} s: where it says 10, "
            f"count {10.0 / (1.0 + hand.bias):.1f}."
        )
    return said + _stale_said(hand)


def handle_said(hand: HandAnswer | None) -> list[str]:
    """The hand on the handle in sentences."""
    if hand is None:
        return [
            "No turns were tapped yet: ten rounds narrow every depth that is told, for pace moves it most."
        ]
    side = "slow" if hand.bias > 0.0 else "fast"
    said = [
        f"You turn {100.0 * abs(hand.bias):.0f} % {side} (eight of ten: {100.0 * hand.low:+.0f} to "
        f"{100.0 * hand.high:+.0f} %), each cast uneven by {100.0 * hand.scatter:.0f} %; "
        f"{hand.rounds} rounds."
    ]
    if hand.enough and abs(hand.bias) >= 0.03:
        said.append(f"Where 20 turns are told, turn {20.0 * (1.0 + hand.bias):.0f} by your own feel.")
    return said + _stale_said(hand)


def _stale_said(hand: HandAnswer) -> list[str]:
    return ["The last round is a season old: ten taps bring it up to date."] if hand.stale else []


def water_rows(c: Conditions) -> list[tuple[str, str]]:
    """A water in words, label and value."""
    cover = c.cover.kind.replace("-", " ")
    stands = "" if c.cover.kind == "open" else c.cover.density or ""
    more = [c.cover.detail or "", stands, c.cover.texture or ""]
    if c.cover.top_depth_ft is not None:
        more.append(f"tops at {c.cover.top_depth_ft:g} ft")
    if c.cover.thickness_in is not None:
        more.append(f"{c.cover.thickness_in:g} in thick")
    return [
        ("Water", f"{c.water_temp_f:g} °F, {c.trend}"),
        ("Season", str(c.season)),
        ("Visibility", f"{c.clarity_ft:g} ft"),
        ("Light", str(c.light)),
        ("Wind", f"{c.wind_mph:g} mph"),
        ("They eat", str(c.forage)),
        ("Bottom", f"{c.bottom_depth_ft:g} ft"),
        ("Fish", f"{c.fish_depth_ft:g} ft"),
        ("Cover", ", ".join([cover, *(m.replace("-", " ") for m in more if m)])),
    ]


def picture_of(q: Question) -> Picture | None:
    """The water of a question, and the rig where one is given; None for the hand's."""
    place = q.place
    if place is None:
        return None
    if q.sizing is None or q.rated is None:
        far_ft = place.scenario.gear.cast_ft
        return Picture(tuple(water_section(place, far_ft, f) for f in FRAMES), (Asked(),) * len(FRAMES))
    rig = draw_rig(q.rated.rig)
    if q.cast is not None:
        return _repair_picture(q, Played(q.sizing, q.rated, q.cast), rig)
    cast_ft = feet(q.rated.cast.distance_m)
    # The fish would lead the eye: half-way, the water and the rig are all it is given.
    sections = tuple(replace(water_section(place, cast_ft, frame), fish=()) for frame in FRAMES)
    return Picture(sections, tuple(_half_way(q, frame) for frame in FRAMES), rig)


def _half_way(q: Question, frame: Frame, guess_ft: float | None = None) -> Asked:
    assert q.sizing is not None
    assert q.rated is not None
    conditions, gear = q.sizing.scenario.conditions, q.sizing.scenario.gear
    away_ft = feet(q.rated.cast.distance_m)
    scale = Scale(frame, away_ft, conditions.bottom_depth_ft, gear.rod_tip_height_ft)
    return Asked(scale.x(0.5 * away_ft), None if guess_ft is None else scale.y(guess_ft))


def _repair_picture(q: Question, meant: Played, rig: RigDrawing) -> Picture:
    """The rig's cast as it was meant, and higher or lower beside it where it missed its depth."""
    sections = []
    for frame in FRAMES:
        section, cast = _section(meant, frame), meant.cast
        if q.missed_ft:
            bottom_ft, gear = meant.sizing.scenario.conditions.bottom_depth_ft, meant.sizing.scenario.gear
            scale = Scale(frame, span_ft(cast), bottom_ft, gear.rod_tip_height_ft)
            off_m = metres(q.missed_ft if q.named.topic == "ran-low" else -q.missed_ft)
            reeled = cast.time_s >= cast.fall_s
            depth_m = np.clip(cast.depth_m[reeled] + off_m, 0.0, metres(bottom_ft))
            points = scale.points(cast.distance_m[reeled], depth_m)
            middle = len(depth_m) // 2
            at = Mark(scale.x(feet(cast.distance_m[reeled][middle])), scale.y(feet(depth_m[middle])), "")
            section = replace(section, rivals=(("as it ran", points, at),))
        sections.append(section)
    said = "As it was meant to run; dashed, as it ran." if q.missed_ft else "As it was meant to run."
    return Picture(tuple(sections), (Asked(),) * len(FRAMES), rig, said)


def _section(played: Played, frame: Frame, rivals: Sequence[tuple[str, CastResult]] = ()) -> Section:
    return section_of(played.sizing, played.rated, played.cast, frame=frame, rivals=rivals, spread=False)


def answer_picture(q: Question, marking: Marking, guess_ft: float | None = None) -> Picture | None:
    """A question's water with the answer drawn: the cast past the guess, or the called rig's beside the
    angler's own."""
    if not marking.casts:
        return picture_of(q)
    first, rest = marking.casts[0], marking.casts[1:]
    rivals = [("yours", other.cast) for other in rest]
    sections = tuple(_section(first, frame, rivals) for frame in FRAMES)
    rig = draw_rig(first.rated.rig)
    if q.named.kind == "eye":
        return Picture(sections, tuple(_half_way(q, frame, guess_ft) for frame in FRAMES), rig)
    said = f"The {rig_words(first.rated.rig)}, as it is called; dashed, yours."
    return Picture(sections, (Asked(),) * len(FRAMES), rig, said)


def refused(refusal: BadInput) -> str:
    """A refusal without a name of the program's."""
    label = NUMBERS.get(refusal.field, refusal.field.replace("_", " ").capitalize())
    value = f"{refusal.given:g}" if isinstance(refusal.given, float) else str(refusal.given)[:20]
    given = "" if refusal.given in (None, "") else f" ({value})"
    return f"{label}{given} must be {refusal.allowed}."


def choices() -> dict[str, list[tuple[str, str, str]]]:
    """What a call chooses from, each with its value, its words and the lures that are made so (ids, empty:
    any): ways, lures, heads, trailers."""
    catalog = catalogue.load()
    heads = sorted({oz for f in catalog.families.values() for oz in f.weights_oz})
    return {
        "way": [(way, way, "") for way in WAYS_TO_COVER],
        "family": [(f.id, f.name, "") for f in catalog.families.values()],
        "head_oz": [
            (
                f"{oz:g}",
                f"{ounces_as_written(oz)} oz",
                " ".join(f.id for f in catalog.families.values() if oz in f.weights_oz),
            )
            for oz in heads
        ],
        "trailer": [
            (t.id, t.name, " ".join(f.id for f in catalog.families.values() if _is_put_on(t, f)))
            for t in catalog.trailers.values()
        ],
    }


def _is_put_on(trailer: Trailer, family: Family) -> bool:
    """Whether a trailer is put on a lure: none at all only where it is fished so."""
    return family.bare_too if trailer.bare else family.suits.get(trailer.id, 1.0) > HARDLY_SUITS


def board_rows(marking: Marking) -> list[tuple[str, str, str, int, int]]:
    """The board after a call: the rig, its way, whose it is, its score, its worth with the
    rules as a share of the called one's (of 100)."""
    catalog, last = catalogue.load(), len(marking.board) - 1
    return [
        (
            f"{ounces_as_written(p.head_oz)} oz {catalog.families[p.family].name.lower()}, "
            f"{catalog.trailers[p.trailer].name.lower()}",
            p.way,
            "yours" if k == last else "called" if k == 0 else "",
            round(100.0 * p.score),
            round(100.0 * p.standing / marking.board[0].standing),
        )
        for k, p in enumerate(marking.board)
    ]
