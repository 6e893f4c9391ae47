"""Every kind of cover stands in the section, always the same for the same water."""

from __future__ import annotations

from dataclasses import replace

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.size import size
from heathdrop.web.sheet.shown.coverdraw import cover_things
from heathdrop.web.shell.frame import WIDE, Scale
from tests.web.shown import DAY


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
