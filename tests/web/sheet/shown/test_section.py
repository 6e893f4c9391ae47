"""The section draws the path that was simulated, in water, within its frame."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Scenario
from heathdrop.measures import marks
from heathdrop.sizing.bands import bands_for
from heathdrop.sizing.program import play
from heathdrop.sizing.size import Sizing, size
from heathdrop.units import feet, metres
from heathdrop.web.sheet.shown.section import STEPS, section_of
from heathdrop.web.shell.frame import NARROW, WIDE, Frame, Scale
from tests.advice.cases import rated
from tests.golden_file import holds_to
from tests.web.drawn import by_class, figures
from tests.web.shown import DAY


def test_the_section_draws_the_path_that_was_simulated(cat: Catalog, sizing: Sizing) -> None:
    best = sizing.rigs[0]
    cast = play(sizing, best)
    bands = bands_for(cat, sizing, [best])[0]
    for frame in (WIDE, NARROW):
        drawn = section_of(sizing, best, cast, bands, frame)
        scale = Scale(frame, feet(best.cast.distance_m), 9.0, 2.0)
        points = [tuple(map(float, p.split(","))) for p in drawn.path.split()]
        moving = cast.time_s >= cast.fall_s - 1e-9
        assert points[0] == pytest.approx(
            (scale.x(feet(cast.distance_m[moving][0])), scale.y(feet(cast.depth_m[moving][0]))), abs=0.11
        )
        assert drawn.band == (scale.y(4.0), scale.y(6.0))
        assert all(0 <= x <= frame.width and 0 <= y <= frame.height for x, y in points)
    for distance, depth, _ in drawn.table:
        there = cast.depth_at(metres(float(distance.split()[0])))
        # A twitched lure goes up and down by half a foot within the foot that a row stands for.
        assert float(depth.split()[0]) == pytest.approx(feet(there), abs=0.6 if best.cadence else 0.15)
    assert len(drawn.grass) > 10
    assert drawn.grass_top is not None
    assert drawn.grass_top.text == "grass tops at 7 ft"
    bare = replace(sizing.scenario.conditions, cover=Cover(kind="open", top_depth_ft=7.0))
    opened = replace(sizing, scenario=replace(sizing.scenario, conditions=bare))
    assert section_of(opened, best, cast, bands, WIDE).grass_top is None
    assert [marks(span, "ft", STEPS, 10)[1][0] for span in (9.0, 15.0, 45.0, 900.0)] == [1, 2, 5, 100]


def test_fish_swim_in_water_on_a_slope_too(cat: Catalog) -> None:
    slope = size(
        cat,
        Scenario(
            replace(DAY, fish_depth_ft=8, cover=Cover(), bottom_shape="slope"), families=("football-jig",)
        ),
    )
    best = slope.rigs[0]
    drawn = section_of(slope, best, play(slope, best), bands_for(cat, slope, [best])[0])
    scale = Scale(WIDE, feet(best.cast.distance_m), 9.0, 2.0)
    assert drawn.fish
    for fish in drawn.fish:
        distance_ft = (fish.x - scale.x(0.0)) / scale.per_ft_x
        assert fish.y <= scale.y(feet(slope.cast.bottom_at(metres(distance_ft)))) + 1.0


#: Every kind of cover, swum, worked and dropped, wide and narrow.
SHOWN = {
    WIDE: ("right over grass", "winter rock", "mat too light", "wood", "pads", "docks"),
    NARROW: ("pads",),
}
PATHS = ("fall", "path", "slack", "spread", "line", "rod", "floor", "glide")


@pytest.mark.parametrize("frame", [WIDE, NARROW], ids=["wide", "narrow"])
def test_what_is_drawn_of_a_cast(cat: Catalog, frame: Frame) -> None:
    found = {}
    for name in SHOWN[frame]:
        sizing, best = rated(name)
        cast = play(sizing, best)
        bands = bands_for(cat, sizing, [best])[0]
        s = section_of(sizing, best, cast, bands, frame, rivals=[("a", cast)] if name == "pads" else [])
        marks_ = {
            "depths": s.depth_ticks,
            "ways": s.distance_ticks,
            "fish": s.fish,
            "seconds": s.seconds,
            "others": (s.lure, s.count, *([s.grass_top] if s.grass_top else []), *(r[2] for r in s.rivals)),
        }
        found[name] = {
            **{path: figures(getattr(s, path)) for path in PATHS},
            **by_class(s.things),
            **{
                kind: f"{figures(*(f'{m.x} {m.y}' for m in some))}: {' '.join(m.text for m in some)}"
                for kind, some in marks_.items()
            },
            "grass": figures(*s.grass),
            "rivals": figures(*(r[0] + r[1] for r in s.rivals)),
            "band": f"{s.band_text}, {s.band[0]:.0f} to {s.band[1]:.0f}, said at {s.band_text_y:.0f}",
            "frame": f"{s.left:.0f} {s.right:.0f} {s.surface_y:.0f} {s.bottom_y:.0f}",
        }
    holds_to(f"web.section-{frame.name}", found)
