"""The trainer in words and drawings: what is due, how marks went by the week, the hand, the eye's water."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from heathdrop import catalog as catalogue
from heathdrop.answers.drill import KINDS, Marking, Question
from heathdrop.api.drilling import HandAnswer
from heathdrop.conditions.drilled import Drilled
from heathdrop.conditions.scenario import Conditions
from heathdrop.errors import BadInput
from heathdrop.sizing.rated import WAYS_TO_COVER
from heathdrop.store.drills import utc
from heathdrop.training.spacing import Due
from heathdrop.units import feet, ounces_as_written
from heathdrop.web.shell.frame import NARROW, WIDE, Frame, Scale

#: What each kind of question trains, and how it is done.
SAID = {
    "count": ("Count", "Tap at the splash and again when you think the count is up. No clock."),
    "pace": ("Handle", "Keep a number of turns in ten seconds, with the sound off."),
    "eye": ("Eye", "A rig, a line, a count and a pace: where does it run half-way home?"),
    "call": ("Call", "A water: choose the way, the lure, the head and the trailer."),
    "repair": ("Repair", "Something went wrong: choose the smallest change that mends it."),
}
#: Fields of an answer that are numbers, and how they are called.
NUMBERS = {
    "tapped_s": "The time between the taps",
    "depth_ft": "The depth",
    "head_oz": "The head",
    "option": "The change",
}
#: The drawing of marks by the week: its size (px) and the weeks shown.
WIDTH, HEIGHT, WEEKS = 220.0, 40.0, 12


@dataclass(frozen=True)
class KindRow:
    """A kind of question: words, topics due now, answers, the mean of its late marks (0 to 100), the line of
    its marks by the week."""

    id: str
    name: str
    says: str
    due: int
    answered: int
    lately: int | None
    points: str
    weeks: str


@dataclass(frozen=True)
class EyeDrawing:
    """The eye's water: size, surface and floor, depth marks (y, words), where half-way is; after the answer
    the path, the lure there and the guess (x, y)."""

    frame: Frame
    surface: float
    floor: float
    per_ft: float
    marks: tuple[tuple[float, str], ...]
    half_x: float
    path: str = ""
    there: float | None = None
    guess: float | None = None


def kind_rows(due: Sequence[Due], done: Sequence[Drilled], moment: datetime) -> list[KindRow]:
    """The kinds with what is due at a ``moment`` and how their marks went."""
    kinds = []
    for kind in KINDS:
        name, says = SAID[kind]
        of_kind = [d for d in due if d.kind == kind]
        answers = [d for d in done if d.question.startswith(f"{kind}.")]
        late = [d.mark for d in answers[-10:]]
        weekly = _by_week(answers)
        kinds.append(
            KindRow(
                id=kind,
                name=name,
                says=says,
                due=sum(d.due is None or utc(d.due) <= moment for d in of_kind),
                answered=len(answers),
                lately=round(100.0 * sum(late) / len(late)) if late else None,
                points=_points(weekly),
                weeks=", ".join(f"{100.0 * m:.0f}" for m in weekly if m is not None),
            )
        )
    return kinds


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


def eye_of(
    question: Question, marking: Marking | None = None, guess_ft: float | None = None
) -> list[EyeDrawing]:
    """The eye's drawings, wide and narrow; with the cast in them once it was answered."""
    assert question.sizing is not None
    assert question.rated is not None
    bottom = question.sizing.scenario.conditions.bottom_depth_ft
    away = question.rated.cast
    drawings = []
    for frame in (WIDE, NARROW):
        scale = Scale(frame, feet(away.distance_m), bottom, feet(away.rod_tip_m))
        step = 1 if bottom <= 8 else 2 if bottom <= 20 else 5
        marks = tuple((scale.y(d), f"{d} ft") for d in range(0, int(bottom) + 1, step))
        path, there = "", None
        if marking is not None and marking.cast is not None and marking.truth is not None:
            path = scale.points(marking.cast.distance_m, marking.cast.depth_m)
            there = scale.y(marking.truth)
        drawings.append(
            EyeDrawing(
                frame=frame,
                surface=scale.y(0.0),
                floor=scale.y(bottom),
                per_ft=scale.per_ft_y,
                marks=marks,
                half_x=scale.x(0.5 * feet(away.distance_m)),
                path=path,
                there=there,
                guess=None if guess_ft is None else scale.y(guess_ft),
            )
        )
    return drawings


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
        "trailer": [(t.id, t.name, "") for t in catalog.trailers.values()],
    }


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
