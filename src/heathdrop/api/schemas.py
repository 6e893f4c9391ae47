"""What the JSON doors take, checked at the edge and turned into the core's records."""

from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag

from heathdrop import catalog as catalogue
from heathdrop.conditions.given import RigGiven
from heathdrop.conditions.request import Body, Id, Number
from heathdrop.errors import BadInput, require_between
from heathdrop.physics.cast import Cast
from heathdrop.physics.line import Line, line_by_size, line_by_test
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure, Rig, lure_of
from heathdrop.physics.rig_name import rig_given
from heathdrop.physics.water import Water, water_at
from heathdrop.units import GRAVITY_M_S2, M_PER_FT, M_PER_IN, metres, square_metres


class LeaderBody(Body):
    material: Id
    test_lb: Number
    length_ft: Number


class NamedLine(Body):
    material: Id
    test_lb: Number
    leader: LeaderBody | None = None


class WaterBody(Body):
    temperature_f: Number


class MeasuredLure(Body):
    mass_g: Number
    net_weight_n: Number
    fall_drag_area_cm2: Number
    run_drag_area_cm2: Number
    run_lift_area_cm2: Number = 0.0
    glide_ratio: Number = 0.0


class MeasuredLine(Body):
    diameter_mm: Number
    density_kg_m3: Number


def _lure_tag(value: Any) -> str:
    has = "family" in value if isinstance(value, dict) else hasattr(value, "family")
    return "rig" if has else "areas"


def _line_tag(value: Any) -> str:
    has = "material" in value if isinstance(value, dict) else hasattr(value, "material")
    return "named" if has else "measured"


LureBody = Annotated[
    Annotated[RigGiven, Tag("rig")] | Annotated[MeasuredLure, Tag("areas")], Discriminator(_lure_tag)
]
LineBody = Annotated[
    Annotated[NamedLine, Tag("named")] | Annotated[MeasuredLine, Tag("measured")], Discriminator(_line_tag)
]


class CastBody(Body):
    """``bottom_ft`` lists (distance from the angler, depth) for a sloping or stepped bottom."""

    distance_ft: Number
    rod_tip_height_ft: Number = 2.0
    bottom_depth_ft: Number | None = None
    bottom_ft: Annotated[list[tuple[Number, Number]], Field(min_length=1, max_length=50)] | None = None


class PhaseBody(Body):
    """One phase of a programme. ``lift_in`` is the rod's lift, a drag's sweep, a yo-yo's reeled lift.

    ``take_up`` before a retrieve, slow-roll or burn-and-drop: the slack of a fall is reeled in fast until the
    line comes tight. Left out, a rig by name is fished so after a slack fall, as hands do; a lure given by
    its areas is not: it does what is written.
    """

    do: Literal[
        "fall",
        "retrieve",
        "slow-roll",
        "pause",
        "kill",
        "swing",
        "hop",
        "drag",
        "shake",
        "yo-yo",
        "burn-and-drop",
        "lift-and-drop",
        "stroke",
        "step-down",
        "twitch",
    ]
    line: Literal["slack", "tight"] | None = None
    pulled_off_reel: bool | None = None
    to_depth_ft: Number | None = None
    for_s: Number | None = None
    speed_ft_s: Number | None = None
    lift_in: Number | None = None
    times: int | None = None
    wait_s: Number | None = None
    rod_tip_height_ft: Number | None = None
    take_up: bool | None = None


#: What a phase may hold: lowest, highest, unit.
PHASE_RANGES: dict[str, tuple[float, float, str]] = {
    "to_depth_ft": (0, 200, "ft"),
    "for_s": (0, 600, "s"),
    "speed_ft_s": (0.1, 15, "ft/s"),
    "lift_in": (0.1, 120, "in"),
    "times": (1, 100, "times"),
    "wait_s": (0, 60, "s"),
    "rod_tip_height_ft": (0, 12, "ft"),
}
REPEATED = ("hop", "drag", "yo-yo", "burn-and-drop", "lift-and-drop", "stroke", "step-down", "twitch")
#: Phases before which the slack of a fall is taken up.
TAKEN_UP = ("retrieve", "slow-roll", "burn-and-drop", "twitch")


class SimulateRequest(Body):
    """One cast: water, lure, line, cast and the programme to play. Bands are of a ``hand`` that reels, or of
    one that does exactly what is written."""

    water: WaterBody
    lure: LureBody
    line: LineBody
    cast: CastBody
    program: Annotated[list[PhaseBody], Field(min_length=1, max_length=60)]
    hand: Literal["reels", "exact"] = "reels"

    def water_record(self) -> Water:
        return water_at(self.water.temperature_f)

    def line_record(self) -> Line:
        if isinstance(self.line, NamedLine):
            return self._named_line(self.line)
        require_between("line.diameter_mm", self.line.diameter_mm, 0.05, 2.0, "mm")
        require_between("line.density_kg_m3", self.line.density_kg_m3, 500, 8000, "kg/m³")
        return line_by_size(catalogue.load(), self.line.diameter_mm, self.line.density_kg_m3)

    @staticmethod
    def _named_line(body: NamedLine) -> Line:
        """A line by material and test, with its leader."""
        line, tied = line_by_test(catalogue.load(), body.material, body.test_lb), body.leader
        if tied is None:
            return line
        require_between("line.leader.length_ft", tied.length_ft, 0.5, 60, "ft")
        leader = line_by_test(catalogue.load(), tied.material, tied.test_lb, "line.leader")
        return replace(line, leader=leader, leader_m=metres(tied.length_ft))

    def lure_record(self) -> Lure:
        body = self.lure
        if isinstance(body, RigGiven):
            water = self.water_record()
            return lure_of(
                catalogue.load(), self.rig_record(body), water.density_kg_m3, self.water.temperature_f
            )
        require_between("lure.mass_g", body.mass_g, 0.2, 500, "g")
        require_between("lure.net_weight_n", body.net_weight_n, 0.001, 5, "N")
        require_between("lure.fall_drag_area_cm2", body.fall_drag_area_cm2, 0.05, 200, "cm²")
        require_between("lure.run_drag_area_cm2", body.run_drag_area_cm2, 0.05, 200, "cm²")
        require_between("lure.run_lift_area_cm2", body.run_lift_area_cm2, 0, 100, "cm²")
        require_between("lure.glide_ratio", body.glide_ratio, 0, 5, "sideways per down")
        if body.net_weight_n > body.mass_g * 1e-3 * GRAVITY_M_S2:
            raise BadInput(
                "lure.net_weight_n", body.net_weight_n, f"no more than {body.mass_g:g} g weighs in air"
            )
        return Lure(
            mass_kg=body.mass_g * 1e-3,
            net_weight_n=body.net_weight_n,
            fall_drag_area_m2=square_metres(body.fall_drag_area_cm2),
            run_drag_area_m2=square_metres(body.run_drag_area_cm2),
            run_lift_area_m2=square_metres(body.run_lift_area_cm2),
            glide_ratio=body.glide_ratio,
        )

    def rig_record(self, body: RigGiven) -> Rig:
        """The rig of a lure given by catalogue names."""
        return rig_given(catalogue.load(), body.model_dump(), "lure.")

    def cast_record(self) -> Cast:
        c = self.cast
        require_between("cast.distance_ft", c.distance_ft, 15, 250, "ft")
        require_between("cast.rod_tip_height_ft", c.rod_tip_height_ft, 0, 12, "ft")
        return Cast(metres(c.distance_ft), metres(c.rod_tip_height_ft), self._bottom())

    def _bottom(self) -> tuple[tuple[float, float], ...]:
        """The bottom profile in metres, level when only a depth was given."""
        c = self.cast
        if c.bottom_ft is None:
            if c.bottom_depth_ft is None:
                raise BadInput("cast.bottom_depth_ft", None, "from 1 to 200 ft (or bottom_ft, a profile)")
            require_between("cast.bottom_depth_ft", c.bottom_depth_ft, 1, 200, "ft")
            floor = metres(c.bottom_depth_ft)
            return ((0.0, floor), (300.0, floor))
        if c.bottom_depth_ft is not None:
            raise BadInput(
                "cast.bottom_depth_ft", c.bottom_depth_ft, "left out when bottom_ft gives a profile"
            )
        last = -1.0
        for i, (distance, depth) in enumerate(c.bottom_ft):
            require_between(f"cast.bottom_ft[{i}][0]", distance, 0, 1000, "ft")
            require_between(f"cast.bottom_ft[{i}][1]", depth, 1, 200, "ft")
            if distance <= last:
                raise BadInput(f"cast.bottom_ft[{i}][0]", distance, f"more than the {last:g} ft before it")
            last = distance
        return tuple((metres(x), metres(z)) for x, z in c.bottom_ft)

    def program_record(self) -> tuple[Phase, ...]:
        phases = [_phase(i, p) for i, p in enumerate(self.program)]
        if isinstance(self.lure, RigGiven):
            for i in range(1, len(phases)):
                fished = self.program[i].take_up is None and phases[i].do in TAKEN_UP
                if fished and phases[i - 1].do == "fall" and phases[i - 1].slack:
                    phases[i] = replace(phases[i], take_up=True)
        return tuple(phases)


def _phase(i: int, p: PhaseBody) -> Phase:
    """The core's phase; BadInput when a number is out of range or one it needs is missing."""
    at = f"program[{i}]"
    for name, (low, high, unit) in PHASE_RANGES.items():
        value = getattr(p, name)
        if value is not None:
            require_between(f"{at}.{name}", value, low, high, unit)
    if p.do in ("pause", "kill", "swing") and p.for_s is None:
        raise BadInput(f"{at}.for_s", None, f"given in seconds for a {p.do}")
    if p.do in ("retrieve", "slow-roll") and p.speed_ft_s is None:
        raise BadInput(f"{at}.speed_ft_s", None, f"given in ft/s for a {p.do}")
    if p.take_up and p.do not in TAKEN_UP:
        raise BadInput(f"{at}.take_up", True, "left out: only " + ", ".join(TAKEN_UP) + " take up slack")
    if p.line is not None and p.do != "fall":
        raise BadInput(f"{at}.line", p.line, "left out: only a fall is slack or tight")
    if p.times is not None and p.do not in REPEATED:
        raise BadInput(f"{at}.times", p.times, "left out: only " + ", ".join(REPEATED) + " repeat")

    def si(value: float | None, per: float) -> float | None:
        return None if value is None else value * per

    return Phase(
        p.do,
        slack=p.do == "fall" and p.line != "tight",
        pulled_off_reel=bool(p.pulled_off_reel),
        to_depth_m=si(p.to_depth_ft, M_PER_FT),
        for_s=p.for_s,
        speed_m_s=si(p.speed_ft_s, M_PER_FT),
        lift_m=si(p.lift_in, M_PER_IN),
        times=p.times,
        wait_s=p.wait_s,
        tip_m=si(p.rod_tip_height_ft, M_PER_FT),
        take_up=bool(p.take_up),
    )
