"""What the JSON doors take, checked at the edge and turned into the core's records."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Discriminator, Field, Tag

from heathdrop import catalog as catalogue
from heathdrop.errors import BadInput, require_between
from heathdrop.physics.cast import Cast, Phase
from heathdrop.physics.line import Line, line_by_size, line_by_test
from heathdrop.physics.rig import Lure, lure_of, rig_by_name
from heathdrop.physics.water import Water, water_at
from heathdrop.sizing.scenario import Conditions, Cover, Gear, Scenario
from heathdrop.units import metres, square_metres

Number = Annotated[float, Field(allow_inf_nan=False)]
Id = Annotated[str, Field(max_length=40)]


class Body(BaseModel):
    """No unknown fields, and no number that is not one."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class CoverBody(Body):
    kind: Id = "open"
    top_depth_ft: Number | None = None
    density: Literal["sparse", "moderate", "thick"] | None = "moderate"
    thickness_in: Number | None = None
    texture: Literal["duckweed", "algae", "milfoil", "hydrilla", "hyacinth", "reeds"] | None = None
    detail: Literal["laydown", "brush", "standing-timber", "gravel", "chunk", "riprap", "bluff"] | None = None


class ConditionsBody(Body):
    water_temp_f: Number
    bottom_depth_ft: Number
    fish_depth_ft: Number
    trend: Literal["rising", "steady", "falling"] = "steady"
    activity: Number | None = None
    season: Literal["winter", "pre-spawn", "spawn", "post-spawn", "summer", "fall"] = "fall"
    clarity_ft: Number = 4.0
    light: Literal["sunny", "mixed", "overcast", "low"] = "mixed"
    wind_mph: Number = 5.0
    forage: Literal["crawfish", "bluegill", "baitfish"] = "bluegill"
    cover: CoverBody = CoverBody()


class NamedLine(Body):
    material: Id
    test_lb: Number


class ReelBody(Body):
    inches_per_turn: Number = 29.0


class GearBody(Body):
    line: NamedLine = NamedLine(material="fluorocarbon", test_lb=15)
    reel: ReelBody = ReelBody()
    cast_ft: Number = 80.0
    rod_tip_height_ft: Number = 2.0


class BandBody(Body):
    top: Number
    low: Number


class SizeRequest(Body):
    """A scenario: conditions and gear, and which families to try."""

    conditions: ConditionsBody
    gear: GearBody = GearBody()
    families: Annotated[list[Id], Field(min_length=1, max_length=20)] | None = None
    schools: dict[str, str] = {}
    box: Literal["standard"] = "standard"
    limit: Annotated[int, Field(ge=1, le=500)] = 20
    depth_band_ft: BandBody | None = None

    def scenario(self) -> Scenario:
        """The core's record of this request."""
        if self.schools:
            topic = next(iter(self.schools))
            raise BadInput(f"schools.{topic}", self.schools[topic], "left out: there is no such topic")
        c, g = self.conditions, self.gear
        cover = Cover(c.cover.kind, c.cover.top_depth_ft, c.cover.density or "moderate")
        plain = c.model_dump(exclude={"cover"})
        families = tuple(dict.fromkeys(self.families or catalogue.load().families))
        band = self.depth_band_ft
        return Scenario(
            Conditions(**plain, cover=cover),
            Gear(g.line.material, g.line.test_lb, g.reel.inches_per_turn, g.cast_ft, g.rod_tip_height_ft),
            families,
            (band.top, band.low) if band else None,
        )


class WaterBody(Body):
    temperature_f: Number


class MeasuredLure(Body):
    mass_g: Number
    net_weight_n: Number
    fall_drag_area_cm2: Number
    run_drag_area_cm2: Number
    run_lift_area_cm2: Number = 0.0
    glide_ratio: Number = 0.0


class NamedLure(Body):
    family: Id
    head_oz: Number
    trailer: Id
    head_material: Id = "lead"
    trailer_length_in: Number | None = None
    skirt: Id | None = None


class MeasuredLine(Body):
    diameter_mm: Number
    density_kg_m3: Number


def _lure_tag(value: Any) -> str:
    has = "family" in value if isinstance(value, dict) else hasattr(value, "family")
    return "rig" if has else "areas"


def _line_tag(value: Any) -> str:
    has = "material" in value if isinstance(value, dict) else hasattr(value, "material")
    return "named" if has else "measured"


LureBody = Annotated[Annotated[NamedLure, Tag("rig")] | Annotated[MeasuredLure, Tag("areas")], Discriminator(_lure_tag)]
LineBody = Annotated[Annotated[NamedLine, Tag("named")] | Annotated[MeasuredLine, Tag("measured")], Discriminator(_line_tag)]


class CastBody(Body):
    distance_ft: Number
    rod_tip_height_ft: Number = 2.0
    bottom_depth_ft: Number


class PhaseBody(Body):
    do: Literal["fall", "retrieve", "pause"]
    line: Literal["slack", "tight"] | None = None
    to_depth_ft: Number | None = None
    for_s: Number | None = None
    speed_ft_s: Number | None = None


class SimulateRequest(Body):
    """One cast: water, lure, line, cast and the programme to play."""

    water: WaterBody
    lure: LureBody
    line: LineBody
    cast: CastBody
    program: Annotated[list[PhaseBody], Field(min_length=1, max_length=60)]

    def water_record(self) -> Water:
        return water_at(self.water.temperature_f)

    def line_record(self) -> Line:
        if isinstance(self.line, NamedLine):
            return line_by_test(catalogue.load(), self.line.material, self.line.test_lb)
        require_between("line.diameter_mm", self.line.diameter_mm, 0.05, 2.0, "mm")
        require_between("line.density_kg_m3", self.line.density_kg_m3, 500, 8000, "kg/m³")
        return line_by_size(catalogue.load(), self.line.diameter_mm, self.line.density_kg_m3)

    def lure_record(self) -> Lure:
        body = self.lure
        if isinstance(body, NamedLure):
            named = body.model_dump()
            rig = rig_by_name(
                catalogue.load(), named.pop("family"), named.pop("head_oz"), named.pop("trailer"), at="lure.", **named
            )
            return lure_of(catalogue.load(), rig, self.water_record().density_kg_m3)
        require_between("lure.mass_g", body.mass_g, 0.2, 500, "g")
        require_between("lure.net_weight_n", body.net_weight_n, 0.001, 5, "N")
        require_between("lure.fall_drag_area_cm2", body.fall_drag_area_cm2, 0.05, 200, "cm²")
        require_between("lure.run_drag_area_cm2", body.run_drag_area_cm2, 0.05, 200, "cm²")
        require_between("lure.run_lift_area_cm2", body.run_lift_area_cm2, 0, 100, "cm²")
        require_between("lure.glide_ratio", body.glide_ratio, 0, 5, "sideways per down")
        if body.net_weight_n > body.mass_g * 1e-3 * 9.81:
            raise BadInput("lure.net_weight_n", body.net_weight_n, f"no more than {body.mass_g:g} g weighs in air")
        return Lure(
            body.mass_g * 1e-3,
            body.net_weight_n,
            square_metres(body.fall_drag_area_cm2),
            square_metres(body.run_drag_area_cm2),
            square_metres(body.run_lift_area_cm2),
            body.glide_ratio,
        )

    def cast_record(self) -> Cast:
        c = self.cast
        require_between("cast.distance_ft", c.distance_ft, 15, 250, "ft")
        require_between("cast.rod_tip_height_ft", c.rod_tip_height_ft, 0, 12, "ft")
        require_between("cast.bottom_depth_ft", c.bottom_depth_ft, 1, 200, "ft")
        floor = metres(c.bottom_depth_ft)
        return Cast(metres(c.distance_ft), metres(c.rod_tip_height_ft), ((0.0, floor), (300.0, floor)))

    def program_record(self) -> tuple[Phase, ...]:
        return tuple(_phase(i, p) for i, p in enumerate(self.program))


def _phase(i: int, p: PhaseBody) -> Phase:
    at = f"program[{i}]"
    if p.to_depth_ft is not None:
        require_between(f"{at}.to_depth_ft", p.to_depth_ft, 0, 200, "ft")
    if p.for_s is not None:
        require_between(f"{at}.for_s", p.for_s, 0, 600, "s")
    if p.speed_ft_s is not None:
        require_between(f"{at}.speed_ft_s", p.speed_ft_s, 0.1, 15, "ft/s")
    if p.do == "fall" and p.to_depth_ft is None and p.for_s is None:
        raise BadInput(f"{at}.to_depth_ft", None, "given for a fall (or for_s instead)")
    if p.do == "pause" and p.for_s is None:
        raise BadInput(f"{at}.for_s", None, "given in seconds for a pause")
    if p.do == "retrieve" and p.speed_ft_s is None:
        raise BadInput(f"{at}.speed_ft_s", None, "given in ft/s for a retrieve")
    slack = p.line != "tight"
    if p.do == "fall" and slack and i > 0:
        raise BadInput(f"{at}.line", "slack", "tight after the first phase")
    return Phase(
        p.do,
        slack,
        metres(p.to_depth_ft) if p.to_depth_ft is not None else None,
        p.for_s,
        metres(p.speed_ft_s) if p.speed_ft_s is not None else None,
    )
