"""Search as JSON: a size body with rods to hand and casts answered, the next casts out."""

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from heathdrop import catalog as catalogue
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.rods_to_hand import CastTold
from heathdrop.answers.search import MOST_CASTS, Search, Step, search_water
from heathdrop.conditions.given import RIG_FIELDS, RigGiven
from heathdrop.conditions.outcome import OUTCOMES
from heathdrop.conditions.request import Id, Number, SizeRequest
from heathdrop.errors import BadInput
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import RigName, rig_given
from heathdrop.search.belief import PACES


def rig_in(body: RigGiven, at: str) -> Rig:
    """The rig of a body that holds one; BadInput names the field under ``at``."""
    return rig_given(catalogue.load(), body.model_dump(include=set(RIG_FIELDS)), at)


class AnsweredBody(RigGiven):
    """A cast that was made: its rig, count and pace, what it came to and at which second after the splash."""

    countdown_s: Number
    pace_ft_s: Number
    turns_per_s: Number | None = None
    rod_tip_height_ft: Number | None = None
    #: What the answer says of a cast besides its rig and setting: it may come back with it, and is not read.
    change: Any = None
    minutes: Any = None
    adds: Any = None
    so_far: Any = None
    covers: Any = None
    why: Any = None
    runs_ft: Any = None
    per_minute: Any = None
    rod: Any = None
    way: Any = None
    direction: Any = None
    lands: Any = None
    work: Any = None
    line: Any = None
    said: Any = None
    name: Annotated[str, Field(max_length=200)] | None = None
    cadence: Id | None = None
    outcome: Literal[OUTCOMES]  # type: ignore[valid-type]
    at_s: Number | None = None

    def cast_told(self, k: int) -> CastTold:
        """The core's record. Raises BadInput."""
        rig = rig_in(self, f"casts[{k}].") if self.name is None else self._named(f"casts[{k}].name")
        return CastTold(
            rig=rig,
            count_s=self.countdown_s,
            pace_ft_s=self.pace_ft_s,
            outcome=self.outcome,
            at_s=self.at_s,
            cadence=self.cadence or "",
        )

    def _named(self, at: str) -> Rig:
        """The rig of the cast's own name, as the answer gave it."""
        try:
            return RigName.parse(self.name or "").rig(catalogue.load())
        except BadInput as refusal:
            raise BadInput(at, self.name, "a rig's name as the answer gave it") from refusal


class SearchRequest(SizeRequest):
    """A size request with the rigs to hand (``rods``; left out: the best few) and the casts made so far."""

    rods: Annotated[list[RigGiven], Field(max_length=12)] = Field(default_factory=list)
    casts: Annotated[list[AnsweredBody], Field(max_length=MOST_CASTS)] = Field(default_factory=list)
    limit: Annotated[int, Field(ge=1, le=MOST_CASTS)] = 8


class CellAnswer(BaseModel):
    top_ft: float
    low_ft: float
    pace: str
    chance: float


class SliceAnswer(BaseModel):
    top_ft: float
    low_ft: float
    seconds: float


class CastAnswer(BaseModel):
    """A cast of the order; ``adds`` is the chance of a bite on it, ``so_far`` by then."""

    family: str
    head_oz: float
    trailer: str
    trailer_length_in: float
    name: str
    countdown_s: float
    pace_ft_s: float
    turns_per_s: float
    rod_tip_height_ft: float
    change: str
    minutes: float
    adds: float
    so_far: float
    covers: list[SliceAnswer]
    why: str
    runs_ft: float
    per_minute: float
    rod: str
    way: str
    cadence: str
    direction: str


class SearchAnswer(BaseModel):
    """Where the fish are thought to be, the next casts, how much was tried, what was learned of the water."""

    belief: list[CellAnswer]
    casts: list[CastAnswer]
    tried: float
    sized_for_ft: float
    learned: list[str]
    nobody: float
    move_on: str | None


def search_answer(request: SearchRequest, own: Own = STRANGER) -> SearchAnswer:
    """The next casts for a scenario. Raises BadInput."""
    scenario = request.scenario()
    rods = [rig_in(body, f"rods[{k}].") for k, body in enumerate(request.rods)]
    casts = [body.cast_told(k) for k, body in enumerate(request.casts)]
    return written(search_water(scenario, own, rods, casts, request.limit))


def casts_written(steps: Sequence[Step], tip_ft: float) -> list[CastAnswer]:
    """The casts of an order as JSON."""
    return [_cast(step, tip_ft) for step in steps]


def _cast(step: Step, tip_ft: float) -> CastAnswer:
    edges, cast = step.next.belief.edges_ft.tolist(), step.next.cast
    slices = zip(edges, edges[1:], strict=False)
    return CastAnswer(
        family=cast.family,
        head_oz=cast.head[1],
        trailer=cast.trailer[0],
        trailer_length_in=cast.trailer[1],
        name=cast.rig,
        countdown_s=cast.count_s,
        pace_ft_s=cast.pace_ft_s,
        turns_per_s=_r(step.turns_per_s),
        rod_tip_height_ft=tip_ft,
        change=step.next.change,
        minutes=_r(step.next.minutes),
        adds=_r(step.next.adds, 4),
        so_far=_r(step.next.so_far, 4),
        covers=[
            SliceAnswer(top_ft=_r(top), low_ft=_r(low), seconds=_r(s, 2))
            for (top, low), s in zip(slices, step.seconds, strict=True)
            if s > 0.0
        ],
        why=step.why,
        runs_ft=_r(step.runs_ft, 2),
        per_minute=_r(step.next.adds / step.next.minutes, 4),
        rod=step.rod,
        way=step.way,
        cadence=cast.cadence,
        direction=step.direction,
    )


def written(search: Search) -> SearchAnswer:
    """A search as its JSON answer."""
    edges, cells = search.belief.edges_ft.tolist(), search.belief.cells
    slices = list(zip(edges, edges[1:], strict=False))
    return SearchAnswer(
        belief=[
            CellAnswer(
                top_ft=_r(top), low_ft=_r(low), pace=pace, chance=float(cells[k, n]) * (1.0 - search.nobody)
            )
            for k, (top, low) in enumerate(slices)
            for n, pace in enumerate(PACES)
        ],
        casts=casts_written(search.steps, search.scenario.gear.rod_tip_height_ft),
        tried=_r(search.tried, 4),
        sized_for_ft=_r(search.scenario.conditions.fish_depth_ft),
        learned=list(search.learned),
        nobody=_r(search.nobody, 6),
        move_on=search.move_on,
    )


def _r(value: Any, digits: int = 3) -> float:
    return round(float(value), digits)
