"""The Search view: the belief as shading, the next cast, its answers, the order; its state is the address."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from heathdrop.answers.plan import rig_said
from heathdrop.answers.rods_to_hand import CastTold
from heathdrop.answers.search import MOST_CASTS, Search, Step, water_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import RigName, name_of
from heathdrop.search.coverage import Candidate
from heathdrop.units import count_said, counted, turns_said
from heathdrop.web.shell.frame import LEFT, NARROW, RIGHT, WIDE, Frame, Scale

Link = Callable[..., str]
#: Between the parts of a cast in the address, and between casts.
PART, CAST = "~", ";"
#: What a change is called in the order.
CHANGES = {
    "direction": "another direction",
    "none": "the same",
    "count": "other count",
    "pace": "other pace",
    "way": "other cadence",
    "trailer": "other trailer",
    "rod": "other rod",
    "retie": "retie",
}


@dataclass(frozen=True)
class Shade:
    """A slice of the section: its top and height, how dark (0 to 1), the chance in words."""

    y: float
    height: float
    dark: float
    said: str


@dataclass(frozen=True)
class Shading:
    """The belief over one frame of the section, and the edges of the water that the next cast is for."""

    frame: str
    left: float
    width: float
    slices: tuple[Shade, ...]
    top: float
    low: float


@dataclass(frozen=True)
class CastRow:
    """A cast of the order, or one that was made, in words."""

    number: int
    rig: str
    count: str
    turns: str
    change: str
    minutes: str
    so_far: str
    why: str


@dataclass(frozen=True)
class Answer:
    """An outcome to tap: its words and the address after it."""

    said: str
    address: str


@dataclass(frozen=True)
class Made:
    """A cast that was made: its words, and the address without it and all after it."""

    said: str
    address: str


@dataclass(frozen=True)
class Searching:
    """Everything the Search view shows."""

    shadings: tuple[Shading, ...]
    first: CastRow
    answers: tuple[Answer, ...]
    order: tuple[CastRow, ...]
    made: tuple[Made, ...]
    tried: str
    learned: tuple[str, ...]
    leave: str
    unknown: bool
    cast: Candidate


def told_in(catalog: Catalog, text: str) -> tuple[CastTold, ...]:
    """The casts of an address. Raises BadInput for what is no list of casts."""
    casts: list[CastTold] = []
    for piece in [p for p in text.split(CAST) if p]:
        parts = piece.split(PART)
        wrong = BadInput("tried", piece, "a cast: rig, count, pace and what it came to")
        if len(parts) not in (4, 5) or parts[3] not in OUTCOME or len(casts) >= MOST_CASTS:
            raise wrong
        try:
            at = float(parts[4]) if len(parts) == 5 else None
            rig = RigName.parse(parts[0]).rig(catalog)
            casts.append(CastTold(rig, float(parts[1]), float(parts[2]), parts[3], at))
        except ValueError as error:
            raise wrong from error
    return tuple(casts)


def text_of(casts: Sequence[CastTold]) -> str:
    """Casts as they stand in an address."""
    return CAST.join(
        PART.join([name_of(t.rig).text(), f"{t.count_s:g}", f"{t.pace_ft_s:g}", t.outcome])
        + (f"{PART}{t.at_s:g}" if t.at_s is not None else "")
        for t in casts
    )


def searching_of(catalog: Catalog, search: Search, casts: Sequence[CastTold], link: Link) -> Searching:
    """The Search view of an answer; ``link`` makes the address of the state with some values changed."""
    rows = tuple(_row(catalog, k + 1, step, bool(casts)) for k, step in enumerate(search.steps))
    cast = search.steps[0].next.cast
    rig = RigName.parse(cast.rig).rig(catalog)

    def after(outcome: str) -> str:
        return link(tried=text_of([*casts, CastTold(rig, cast.count_s, cast.pace_ft_s, outcome)]))

    return Searching(
        shadings=tuple(_shading(search, frame) for frame in (WIDE, NARROW)),
        first=rows[0],
        answers=tuple(Answer(row.button, after(row.id)) for row in OUTCOME.values()),
        order=rows,
        made=tuple(
            Made(
                f"{rig_said(t.rig)}, {counted(t.count_s)}: {OUTCOME[t.outcome].within}",
                link(tried=text_of(casts[:k])),
            )
            for k, t in enumerate(casts)
        ),
        tried=f"{100 * search.tried:.0f} %",
        learned=(*search.learned, *search.fish),
        leave=search.move_on or "",
        unknown=search.scenario.conditions.fish_span_ft is not None,
        cast=cast,
    )


def _row(catalog: Catalog, number: int, step: Step, is_told: bool) -> CastRow:
    cast = step.next.cast
    return CastRow(
        number=number,
        rig=rig_said(RigName.parse(cast.rig).rig(catalog)),
        count=count_said(cast.count_s),
        turns=turns_said(step.turns_per_s),
        change=CHANGES[step.next.change] if number > 1 or is_told else "start here",
        minutes=f"{step.next.minutes:.1f}",
        so_far=f"{100 * step.next.so_far:.0f} %",
        why=step.why,
    )


def _shading(search: Search, frame: Frame) -> Shading:
    """The belief by depth over a frame, darkest where it is most."""
    c, gear = search.scenario.conditions, search.scenario.gear
    s = Scale(frame, gear.cast_ft, c.bottom_depth_ft, gear.rod_tip_height_ft)
    shares, edges = search.belief.by_depth, search.belief.edges_ft
    most = float(shares.max())
    step = search.steps[0].next
    top, low, _ = water_of(step, search.per_s)
    return Shading(
        frame=frame.name,
        left=LEFT,
        width=frame.width - LEFT - RIGHT + 14.0,
        slices=tuple(
            Shade(s.y(a), s.y(b) - s.y(a), round(float(p) / most, 2), f"{100 * p:.0f} %")
            for a, b, p in zip(edges[:-1], edges[1:], shares, strict=True)
        ),
        top=s.y(top),
        low=s.y(low),
    )
