"""The section, cover, rigs and strip, drawn to scale and to the letter."""

from dataclasses import replace

import pytest

from heathdrop.answers.cast import worked_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Scenario
from heathdrop.conditions.wanted import Wanted
from heathdrop.measures import marks
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.bands import bands_for
from heathdrop.sizing.program import play, usual_way
from heathdrop.sizing.size import Sizing, size
from heathdrop.units import feet, metres
from heathdrop.web.sheet.shown.coverdraw import cover_things
from heathdrop.web.sheet.shown.rigdraw import draw_rig
from heathdrop.web.sheet.shown.section import STEPS, section_of
from heathdrop.web.sheet.shown.strip import Figure, aloud, figures_of, rig_said, title_of, wanted_of
from heathdrop.web.shell.frame import NARROW, WIDE, Frame, Scale
from tests.advice.cases import CASES, rated
from tests.advice.cases import SHOWN as SAID
from tests.golden_file import holds_to
from tests.waters import GRASS
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


def test_every_kind_of_cover_is_drawn_within_the_frame(cat: Catalog) -> None:
    scale = Scale(WIDE, 80.0, 9.0, 2.0)
    for kind, detail in (
        ("matted-grass", None),
        ("pads", None),
        ("wood", "laydown"),
        ("wood", "brush"),
        ("wood", "standing-timber"),
        ("rock", "riprap"),
        ("rock", "gravel"),
        ("docks", None),
    ):
        made = size(
            cat, Scenario(replace(DAY, cover=Cover(kind=kind, detail=detail)), families=("flipping-jig",))
        )
        things = cover_things(scale, made, 80.0)
        assert things
        assert "nan" not in " ".join(path for _, path in things)
        assert things == cover_things(scale, made, 80.0)  # always the same picture for the same water
    assert (
        cover_things(
            scale, size(cat, Scenario(replace(DAY, cover=Cover()), families=("flipping-jig",))), 80.0
        )
        == ()
    )


#: Rigs that show every part: blades above and under, guards, wire, skirts, claws, joined arms, a bare hook.
DRAWN = (
    "spinnerbait:0.5:paddle-tail",
    "bladed-jig:0.5:craw:turned=vertical",
    "underspin:0.375:pin-tail",
    "flipping-jig:0.75:creature-fused",
    "swim-jig:0.25:none",
    "punch-rig:1.25:beaver",
)


def test_what_is_drawn_of_a_rig(cat: Catalog) -> None:
    found = {}
    for name in DRAWN:
        drawing = draw_rig(RigName.parse(name).rig(cat), skirt_cut=True, body_cut_in=0.4)
        pieces = by_class((p.cls, f"{p.path} {p.transform}") for p in drawing.pieces)
        notes = {n.text: [n.x, n.y] for n in drawing.notes}
        found[name] = {
            **pieces,
            "notes": notes,
            "size": [drawing.width, drawing.height],
            "said": drawing.said,
        }
    holds_to("web.rigs", found)


def plain(figures: tuple[Figure, ...]) -> list[str]:
    """Figures in a line each: what is wanted of them is looked at by itself."""
    return [f"{f.label}: {f.value} {f.unit} ({f.band})" for f in figures]


@pytest.mark.slow
def test_what_the_strip_says(cat: Catalog) -> None:
    found = {}
    for name in CASES:
        sizing, best = rated(name)
        way = usual_way(cat, sizing, best)
        bands = bands_for(cat, sizing, [best])[0]
        worked = worked_of(sizing, best, bands, play(sizing, best, way), way, None, None)
        ways = {w: worked_of(sizing, best, bands, play(sizing, best, w), w) for w in ("yo-yo", "drag")}
        found[name] = {
            "aloud": aloud(sizing, best),
            "rig": rig_said(best),
            "title": title_of(sizing, best),
            "usual": plain(figures_of(sizing, best, bands, worked, True)),
            **{w: plain(figures_of(sizing, best, bands, other, False)) for w, other in ways.items()},
        }
    assert all(said["aloud"].endswith(".") and len(said["usual"]) >= 3 for said in found.values())
    holds_to("web.strip", {name: found[name] for name in SAID})


def test_what_is_wanted_stands_beside_what_is_done(cat: Catalog) -> None:
    """Judged until it is set; hit, near and missed in a word."""

    def said(wanted: Wanted, mean_ft: float, fall_ft_s: float) -> dict[str, str]:
        sizing = size(cat, Scenario(GRASS, families=("swim-jig",), wanted=wanted))
        rated = replace(sizing.rigs[0], fall_ft_s=fall_ft_s)
        plain = (
            Figure("Runs at", "", "ft", ""),
            Figure("Falls", "", "ft/s", ""),
            Figure("In the fish", "", "%", ""),
        )
        found = wanted_of(sizing, rated, plain, mean_ft)
        return {f.label: f"{f.hit} {'your ' if f.own else ''}{f.wanted}".strip() for f in found}

    assert said(Wanted(), 5.0, 2.4) == {
        "Runs at": "hits 4 to 6",
        "Falls": "hits 2 to 3",
        "In the fish": "",
    }
    assert said(Wanted(), 6.4, 3.2) == {
        "Runs at": "near 4 to 6",
        "Falls": "near 2 to 3",
        "In the fish": "",
    }
    own = said(Wanted(depth_ft=(2.0, 3.5), fall_ft_s=(1.0, 1.25), passes=0.5), 6.4, 2.7)
    assert own == {
        "Runs at": "misses your 2 to 3.5",
        "Falls": "misses your 1 to 1.25",
        "Gets through": "hits your 50",
    }
