"""What the screens say must be what the core computed: section, countdown, board, call, sides, coaches."""

from __future__ import annotations

import json
import re
from dataclasses import replace
from urllib.parse import parse_qsl

import pytest
from fastapi.testclient import TestClient

from heathdrop.advice.why import limit_sentence, reasons, runs
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.errors import BadInput
from heathdrop.measures import marks
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.sizing.bands import bands_for
from heathdrop.sizing.box import EMPTY
from heathdrop.sizing.program import WAYS, play, program_of, usual_way
from heathdrop.sizing.size import Sizing, size
from heathdrop.units import feet, metres
from heathdrop.web.assets import ounces_markup
from heathdrop.web.fields import DEFAULTS, values_from
from heathdrop.web.pages.sheet import address, choices_from
from heathdrop.web.presenters.board import MARKS
from heathdrop.web.presenters.calling import sides_of
from heathdrop.web.presenters.casting import Choices, said_difference
from heathdrop.web.presenters.coverdraw import cover_things
from heathdrop.web.presenters.frame import NARROW, WIDE, Scale
from heathdrop.web.presenters.section import STEPS, section_of
from heathdrop.web.presenters.sheet import present

DAY = Conditions(
    water_temp_f=58,
    bottom_depth_ft=9,
    fish_depth_ft=6,
    clarity_ft=3,
    trend="rising",
    activity=None,
    season="pre-spawn",
    light="overcast",
    wind_mph=8,
    forage="bluegill",
    cover=Cover(kind="submerged-grass", top_depth_ft=7),
)


@pytest.fixture(scope="module")
def sizing(cat: Catalog) -> Sizing:
    return size(cat, Scenario(DAY, families=("swim-jig",)))


def shown(cat: Catalog, sizing: Sizing, **state: str):  # type: ignore[no-untyped-def]
    values = values_from(state)
    return present(
        cat, sizing, EMPTY, values, choices_from(values), lambda **changed: address({**values, **changed})
    )


def test_the_section_draws_the_path_that_was_simulated(cat: Catalog, sizing: Sizing) -> None:
    best = sizing.rigs[0]
    cast = play(sizing, best)
    bands = bands_for(cat, sizing, [best])[0]
    for frame in (WIDE, NARROW):
        drawn = section_of(sizing, best, cast, bands, frame)
        scale = Scale(frame, 80.0, 9.0, 2.0)
        points = [tuple(map(float, p.split(","))) for p in drawn.path.split()]
        moving = cast.time_s >= cast.fall_s - 1e-9
        assert points[0] == pytest.approx(
            (scale.x(feet(cast.distance_m[moving][0])), scale.y(feet(cast.depth_m[moving][0]))), abs=0.11
        )
        assert drawn.band == (scale.y(4.0), scale.y(6.0))
        assert all(0 <= x <= frame.width and 0 <= y <= frame.height for x, y in points)
    for distance, depth, _ in drawn.table:
        there = cast.depth_at(metres(float(distance.split()[0])))
        assert float(depth.split()[0]) == pytest.approx(feet(there), abs=0.051)
    assert len(drawn.grass) > 10
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
    scale = Scale(WIDE, 80.0, 9.0, 2.0)
    for fish in drawn.fish:
        distance_ft = (fish.x - scale.x(0.0)) / scale.per_ft_x
        assert fish.y <= scale.y(feet(slope.cast.bottom_at(metres(distance_ft)))) + 1.0


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


def test_the_cast_view_counts_what_the_fall_says(cat: Catalog, sizing: Sizing) -> None:
    sheet = shown(cat, sizing, view="cast", vs1="line:nylon:20", vs2="swim-jig:1:pin-tail")
    k = sheet.casting
    best = sizing.rigs[0]
    assert k is not None
    for row in k.feet:
        seconds = time_to_depth_s(best.lure, metres(float(row.depth)), sizing.line, sizing.water)
        assert float(row.seconds) == pytest.approx(seconds, abs=0.051)
        assert float(row.pulled) >= float(row.seconds)
        assert row.inside == (4.0 <= float(row.depth) <= 6.0)
        low, high = (float(v) for v in row.band.split(" to "))
        assert low <= float(row.seconds) <= high
    assert float(k.turns_per_s) == pytest.approx(feet(best.tuned.pace_m_s) * 12 / 29, abs=1e-3)
    assert [r.mark for r in k.rivals] == ["B", "C"]
    assert "higher" in k.rivals[0].said
    assert "deeper" in k.rivals[1].said
    frames = json.loads(k.data)
    assert frames["t"] == sorted(frames["t"])
    assert len(frames["rivals"][0]) == len(frames["lure"])
    for bad in ("line:steel:20", "line:nylon:", "swim-jig:9:toad"):
        with pytest.raises(BadInput):
            shown(cat, sizing, view="cast", vs1=bad)


def test_another_lure_is_compared_at_its_own_best(cat: Catalog, sizing: Sizing) -> None:
    sheet = shown(cat, sizing, view="cast", vs1="lure:bladed-jig", vs2="lure:football-jig")
    k = sheet.casting
    assert k is not None
    theirs = size(cat, replace(sizing.scenario, families=("bladed-jig",))).rigs[0]
    swum, dragged = k.rivals
    assert f"count {theirs.countdown_s:.1f} s" in swum.said
    assert f"fit {100 * theirs.fits.score:.0f} against {100 * sizing.rigs[0].fits.score:.0f}" in swum.said
    depth = feet(float(swum.result.useful().mean()))
    assert f"runs at {depth:.1f} ft against" in swum.said
    assert depth == pytest.approx(feet(theirs.tuned.mean_m), abs=0.3)
    assert "works on the bottom" in dragged.said
    assert "swim-jig" not in [key.removeprefix("lure:") for key, _ in k.lure_options]
    assert len(k.lure_options) == len(cat.families) - 1
    with pytest.raises(BadInput):
        shown(cat, sizing, view="cast", vs1="lure:toad")


def test_every_way_of_working_plays_for_every_kind_of_family(cat: Catalog) -> None:
    for family in ("swim-jig", "football-jig", "flipping-jig"):
        made = size(cat, Scenario(replace(DAY, cover=Cover()), families=(family,)))
        best = made.rigs[0]
        way = {"swim": "steady", "bottom": "drag", "drop": "hop"}[best.rig.family.work]
        assert usual_way(cat, made, best) == way
        for one in WAYS:
            assert program_of(made, best, one.id)
            cast = play(made, best, one.id)
            assert cast.shapes.shape[0] == cast.time_s.size
            assert said_difference("same", cast, cast)
    same = play(made, best)
    assert said_difference("x", same, same) == "x runs at the same depth, within half an inch."


def test_the_board_names_what_holds_a_pair_back(cat: Catalog, sizing: Sizing) -> None:
    sheet = shown(cat, sizing, view="size")
    by_key = {r.key: r for r in sizing.rigs}
    cells = [c for _, row in sheet.rows for c in row if c is not None]
    assert len(cells) == 80
    assert sum(c.best for c in cells) == 1
    for cell in cells:
        rated = by_key[cell.key]
        assert cell.score == round(100 * rated.fits.score)
        assert limit_sentence(sizing, rated) in cell.title
        if cell.mark in ("high", "deep"):
            assert runs(sizing, rated) in (cell.mark, "")
        elif cell.mark != "none":
            assert cell.mark == rated.fits.limiting
    picked = cells[0].key
    other = shown(cat, sizing, view="size", pick=picked)
    assert not other.is_best
    assert other.key == picked
    assert other.to_best == "/"
    with pytest.raises(BadInput, match="pick trailer was “toad”"):
        shown(cat, sizing, pick="swim-jig:0.5:toad")


def test_reasons_carry_the_numbers(cat: Catalog, sizing: Sizing) -> None:
    for rated in (sizing.rigs[0], sizing.rigs[-1]):
        said = " ".join(reasons(sizing, rated))
        assert f"Falls {rated.fall_ft_s:.1f} ft/s" in said
        assert f"{rated.tuned.in_band * 100:.0f} % of the retrieve" in said
        assert "That band because fish feed upward" in said
    dropped = size(cat, Scenario(replace(DAY, cover=Cover(kind="wood")), families=("flipping-jig",)))
    assert "Sent straight down" in reasons(dropped, dropped.rigs[0])[0]


def test_both_sides_say_the_difference_in_numbers(cat: Catalog) -> None:
    scenario = Scenario(DAY, Gear(), ("bladed-jig",))
    sides = sides_of(cat, size(cat, scenario), "bladed-ladder", lambda s: size(cat, s))
    assert [s.name for s in sides] == [s.name for s in cat.topics["bladed-ladder"].schools.values()]
    assert sides[0].difference == ""
    heads = {s.name: s.rig.split(" oz")[0] for s in sides}
    assert heads["one size"] == "1/2"
    assert re.search(r"Against the first: .*(lighter|slower|faster|heavier)", sides[2].difference)
    metal = sides_of(cat, size(cat, scenario), "blade-metal", lambda s: size(cat, s))
    assert "only changes the finish" in metal[1].difference
    with pytest.raises(BadInput, match="topic was “tides”"):
        sides_of(cat, size(cat, scenario), "tides", lambda s: size(cat, s))


@pytest.mark.parametrize(
    ("written", "shown_as"),
    [
        ("3/8", '<span class="frac of">3/8</span>'),
        ("1", '<span class="frac">1</span>'),
        ("1 1/4", '<span class="frac">1</span><span class="gap"> </span><span class="frac of">1/4</span>'),
        ("<b>", '<span class="frac">&lt;b&gt;</span>'),
    ],
)
def test_fractions_as_anglers_write_them(written: str, shown_as: str) -> None:
    assert str(ounces_markup(written)) == shown_as


def test_the_address_holds_only_what_differs_and_comes_back(client: TestClient) -> None:
    assert address(dict(DEFAULTS)) == "/"
    state = DEFAULTS | {
        "cover": "wood",
        "wood": "brush",
        "view": "rig",
        "wrong": "hung-up",
        "s_tip-on-bottom": "high",
        "given": "cover wood",
    }
    at = address(state)
    assert "season" not in at
    assert values_from(dict(parse_qsl(at[2:]))) == state
    page = client.get(at).text
    assert "It hung up" in page
    for wrong in (
        "view=sideways",
        "wrong=sank",
        "way=fly",
        "lift_in=900",
        "s_tip-on-bottom=sideways",
        "box=attic",
    ):
        refused = client.get(f"/?view=rig&{wrong}" if not wrong.startswith("view") else f"/?{wrong}")
        assert refused.status_code == 422, wrong
        assert "it must be" in refused.text


def test_choices_need_numbers_in_range() -> None:
    assert choices_from(values_from({"lift_in": "6", "hold_s": "2,5"})) == Choices(
        "", 6 * 0.0254, 2.5, ("", "")
    )
    with pytest.raises(BadInput, match="hold_s was “soon”; it must be from 0 to 30 s"):
        choices_from(values_from({"hold_s": "soon"}))


def test_every_mark_has_its_picture(client: TestClient) -> None:
    page = client.get("/").text
    assert all(f'<symbol id="m-{mark}"' in page for mark in MARKS)
    assert "of 4)" in page
    assert not re.search(r"\d\.\d\d+ of 4", page)
