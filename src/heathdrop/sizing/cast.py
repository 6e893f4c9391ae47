"""The line as it was set, the cast over its bottom, and how lures fly from it."""

from dataclasses import replace

from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Line as LineSet
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.cast import Cast
from heathdrop.physics.flight import (
    Launch,
    Thrown,
    launch_of,
    line_kg_m,
    usual_cast,
    wind_along_m_s,
)
from heathdrop.physics.line import Line, line_by_test
from heathdrop.sizing.knowledge import UNTAUGHT, Knowledge
from heathdrop.sizing.tackle import LURE_OVER_HEAD
from heathdrop.units import KG_PER_OZ, metres


def launched(
    catalog: Catalog, scenario: Scenario, line: Line, pitched: bool
) -> tuple[Thrown | None, Launch | None]:
    """How lures are thrown here, from the cast that was said; nothing where they are pitched."""
    if pitched:
        return None, None
    gear, numbers, c = scenario.gear, catalog.flight, scenario.conditions
    rod = gear.rod
    low, high = numbers.rated_oz if rod is None else (rod.low_oz, rod.high_oz * LURE_OVER_HEAD)
    wind = wind_along_m_s(catalog, c.wind_mph, c.wind_way)
    rated = low * KG_PER_OZ, high * KG_PER_OZ
    thrown = Thrown(line_kg_m(line), numbers.height_m, wind, rated)
    usual, other = usual_cast(catalog, gear.cast_ft, gear.cast_oz), gear.other_cast
    second = None if other is None else usual_cast(catalog, other.cast_ft, other.cast_oz)
    return thrown, launch_of(catalog, thrown, usual, second)


def line_of(catalog: Catalog, given: LineSet, knowledge: Knowledge = UNTAUGHT) -> Line:
    """The line that the angler set, with what was learned of it. Raises BadInput outside the catalogue."""
    line = knowledge.line(line_by_test(catalog, given.material, given.test_lb, "gear.line"), given.material)
    tied = given.leader
    if tied is None:
        return line
    leader = line_by_test(catalog, tied.material, tied.test_lb, "gear.line.leader")
    return replace(line, leader=knowledge.line(leader, tied.material), leader_m=metres(tied.length_ft))


def cast_of(catalog: Catalog, scenario: Scenario, pitched: bool = False, floored: bool = False) -> Cast:
    """The scenario's cast over its bottom: as driven, or the stated depth at the far end, shallower toward
    the angler.

    A ``pitched`` lure goes no further than a pitch; one worked on the floor (``floored``) along a bluff
    lands on the ledge that the fish are at.
    """
    gear, pitch = scenario.gear, catalog.judgement.hand.pitch_ft
    away, deep = (
        metres(min(gear.cast_ft, pitch) if pitched else gear.cast_ft),
        metres(scenario.conditions.works_ft if floored else scenario.conditions.bottom_depth_ft),
    )
    shapes = {
        "level": ((0.0, deep), (200.0, deep)),
        "slope": ((0.0, 0.3 * deep), (away, deep), (200.0, deep)),
        "steps": (
            (0.0, 0.35 * deep),
            (0.3 * away, 0.35 * deep),
            (0.3 * away + 0.2, 0.65 * deep),
            (0.65 * away, 0.65 * deep),
            (0.65 * away + 0.2, deep),
            (200.0, deep),
        ),
    }
    driven = scenario.conditions.bottom_ft
    bottom = shapes[scenario.conditions.bottom_shape] if driven is None else _as_driven(driven)
    return Cast(away, metres(gear.rod_tip_height_ft), bottom)


def _as_driven(rows: tuple[tuple[float, float], ...]) -> tuple[tuple[float, float], ...]:
    """A driven bottom in metres, level before its first point and after its last."""
    points = [(metres(d), metres(deep)) for d, deep in rows]
    if points[0][0] > 0.0:
        points.insert(0, (0.0, points[0][1]))
    return (*points, (max(200.0, points[-1][0] + 1.0), points[-1][1]))
