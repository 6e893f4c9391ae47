"""Lines of text to tackle, each with what becomes of it or why not."""

from __future__ import annotations

from typing import Any

import pytest

from heathdrop.catalog import Catalog
from heathdrop.physics.rig_name import name_of
from heathdrop.store import items
from heathdrop.store.files.entry import LONGEST_LINE, parsed, pieces, typed_rig
from tests.golden_file import holds_to
from tests.said import all_said

LINES = (
    "3/8 swim jig black x4",
    "3/8, 1/2 swim jig black",
    "3/8 oz. and 1/2 oz swim jigs",
    "3/8/1/2 casting jig",
    "3/8 casting jig, 1/2 casting jig red",
    "½ swim jig",
    "1⅜ football jig tungsten brown/orange",
    "a 1 1/2 oz football jig",
    "bladed jig 1/2 14,6 g white",
    "10 g swim jig",
    ".5 flipping jig no skirt",
    "5,5 g micro jig trimmed skirt x2",
    "swim jig",
    "3/8 jig",
    "0 swim jig",
    "9 oz swim jig",
    "x1000 3/8 swim jig",
    "craw 4 in floating 9.8 g x8",
    "craw 10 cm",
    "craw 110 mm",
    'craw 4"',
    "craw 10",
    "a craw",
    "small craw",
    "fused creature 4 dense",
    "chunk unsplit 3.5 in salt",
    "paddletail 4",
    "some paddle tails 3.5 pearl",
    "twin tail grub 5 in sinks",
    "fluorocarbon 15 lb 0.37 mm",
    "fluoro 12 lb river",
    "mono 14lb",
    "braid 30",
    "reel 29 in per turn",
    "reel 74 cm/turn quick one",
    "reel",
    "rod 7 ft heavy",
    "rod 7,3 feet",
    "banana",
    "",
    "1/0 swim jig",
    "3/8 swim jig " + "x" * LONGEST_LINE,
)
RIGS = (
    "3/8 swim jig with a craw 4 in",
    "3/8 swim jig with craw 4 in and more",
    "1/2 bladed jig, paddle tail 3.5",
    "1/2 bladed jig + pin-tail",
    "1/2 football jig tungsten & twin tail grub 5 in",
    "5/8 grass jig no skirt craw salted dense 3 in",
    "3/8 casting jig thin skirt, creature 4 unsplit",
    "3/8 swim jig",
    "3/8 swim jig, 1/2 casting jig",
    "craw 4 in",
    "3/8 swim jig with craw and chunk 3",
    "3/8 swim jig with a banana",
    "1/2 swim jig fused craw 3",
)


def test_what_each_line_is(cat: Catalog) -> None:
    def kept(line: str) -> Any:
        made = [(k, items.checked(k, data)) for k, data in pieces(cat, line)]
        return [[k, item.model_dump(exclude_defaults=True)] for k, item in made]

    holds_to(
        "store.entry",
        {
            "lines": all_said(kept, LINES),
            "one piece": all_said(lambda line: parsed(cat, line), LINES[::3]),
            "metric": all_said(lambda line: pieces(cat, line, "metric"), LINES[17:29]),
            "rigs": all_said(lambda line: name_of(typed_rig(cat, line)).text(), RIGS),
            "rigs in metric": all_said(lambda line: name_of(typed_rig(cat, line, "metric")).text(), RIGS[:3]),
        },
    )


@pytest.mark.parametrize(
    ("line", "oz"),
    [
        ("7 g bladed jig", 0.25),
        ("14g football jig", 0.5),
        ("21 g punch rig", 0.75),
        ("28 g punch rig", 1.0),
        ("10 g swim jig", 0.353),  # 6 % off 3/8: a head of its own
        ("5 gram finesse jig", 0.176),
    ],
)
def test_whole_grams_are_the_listed_weight_that_they_mean(cat: Catalog, line: str, oz: float) -> None:
    assert parsed(cat, line)[1]["weight_oz"] == oz
