"""The size request as people write it: conditions, gear, families, schools. Saved scenarios hold one."""

from dataclasses import replace
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, model_validator

from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.conditions.wanted import Wanted
from heathdrop.errors import BadInput

Number = Annotated[float, Field(allow_inf_nan=False)]
Id = Annotated[str, Field(max_length=40)]
#: Years that a moment on record may lie in. A phone's or laptop's clock may be years off, and its casts are
#: not to be lost for that; beyond these no offset can be reckoned.
YEARS = 1970, 2100


def _in_our_time(value: datetime) -> datetime:
    if not YEARS[0] <= value.year < YEARS[1]:
        raise BadInput("time", value.isoformat(), f"in the years {YEARS[0]} to {YEARS[1] - 1}")
    return value


Moment = Annotated[datetime, AfterValidator(_in_our_time)]


class Body(BaseModel):
    """No unknown fields, and no number that is not one."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class BandBody(Body):
    top: Number
    low: Number


class TargetsBody(Body):
    """Targets of one's own, any of them; what is missing is judged."""

    depth_ft: tuple[Number, Number] | None = None
    fall_ft_s: tuple[Number, Number] | None = None
    passes: Number | None = None
    pace_ft_s: tuple[Number, Number] | None = None


class SizeRequest(Body):
    """A scenario: conditions and gear, and which families to try.

    Without ``families`` the product calls them: the four that stand best in this water.
    ``targets`` are the angler's own (``depth_band_ft``: the depth alone, as older bodies have it).
    ``schools`` maps a topic's id to a school's id (``GET /api/v1/schools`` lists both). Bands are of a
    ``hand`` that reels: its pace, count, cast and rod tip scatter; ``exact`` leaves that out.
    """

    conditions: Conditions
    gear: Gear = Gear()
    families: Annotated[list[Id], Field(min_length=1, max_length=20)] | None = None
    schools: Annotated[dict[Id, Id], Field(max_length=40)] = {}
    box: Literal["standard", "mine", "both"] = "standard"
    limit: Annotated[int, Field(ge=1, le=500)] = 20
    targets: TargetsBody | None = None
    depth_band_ft: BandBody | None = None
    hand: Literal["reels", "exact"] = "reels"

    @model_validator(mode="before")
    @classmethod
    def _depth_said(cls, data: Any) -> Any:
        """``fish_depth_ft`` may be a number, ``{"low": 4, "high": 10}`` or null (not known)."""
        said = data.get("conditions") if isinstance(data, dict) else None
        if not isinstance(said, dict) or "fish_depth_ft" not in said:
            return data
        depth, bottom = said["fish_depth_ft"], said.get("bottom_depth_ft")
        if depth is not None and not isinstance(depth, dict):
            return data
        if depth is not None:
            low, high = _span(depth)
        elif isinstance(bottom, int | float):
            low, high = 0.0, float(bottom)
        else:
            return data
        conditions = {**said, "fish_depth_ft": 0.5 * (low + high), "fish_span_ft": (low, high)}
        return {**data, "conditions": conditions}

    def scenario(self) -> Scenario:
        """The core's record of this request; its families are empty when they are to be called."""
        band, own = self.depth_band_ft, Wanted(**(self.targets.model_dump() if self.targets else {}))
        if own.depth_ft is None and band is not None:
            own = replace(own, depth_ft=(band.top, band.low))
        return Scenario(
            conditions=self.conditions,
            gear=self.gear,
            families=tuple(dict.fromkeys(self.families or ())),
            wanted=own,
            schools=tuple(sorted(self.schools.items())),
            box=self.box,
            hand=self.hand,
        )


def _span(depth: dict[str, Any]) -> tuple[float, float]:
    """The ends of a range of depths. Raises BadInput for anything but two numbers, the lower first."""
    low, high = depth.get("low"), depth.get("high")
    numbers = all(isinstance(v, int | float) and not isinstance(v, bool) for v in (low, high))
    if set(depth) != {"low", "high"} or not numbers or low > high:  # type: ignore[operator]
        raise BadInput(
            "conditions.fish_depth_ft", str(depth), 'a number, {"low": 4, "high": 10} in feet, or null'
        )
    return float(low), float(high)  # type: ignore[arg-type]
