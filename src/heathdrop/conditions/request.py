"""The size request as people write it: conditions, gear, families, schools. Saved scenarios hold one."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from heathdrop.conditions.scenario import Conditions, Gear, Scenario

Number = Annotated[float, Field(allow_inf_nan=False)]
Id = Annotated[str, Field(max_length=40)]


class Body(BaseModel):
    """No unknown fields, and no number that is not one."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class BandBody(Body):
    top: Number
    low: Number


class SizeRequest(Body):
    """A scenario: conditions and gear, and which families to try.

    Without ``families`` the product calls them: the four that stand best in this water.
    ``schools`` maps a topic's id to a school's id (``GET /api/v1/schools`` lists both).
    """

    conditions: Conditions
    gear: Gear = Gear()
    families: Annotated[list[Id], Field(min_length=1, max_length=20)] | None = None
    schools: Annotated[dict[Id, Id], Field(max_length=40)] = {}
    box: Literal["standard", "mine", "both"] = "standard"
    limit: Annotated[int, Field(ge=1, le=500)] = 20
    depth_band_ft: BandBody | None = None

    def scenario(self) -> Scenario:
        """The core's record of this request; its families are empty when they are to be called."""
        band = self.depth_band_ft
        return Scenario(
            self.conditions,
            self.gear,
            tuple(dict.fromkeys(self.families or ())),
            (band.top, band.low) if band else None,
            tuple(sorted(self.schools.items())),
            self.box,
        )
