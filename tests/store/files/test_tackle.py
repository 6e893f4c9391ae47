"""Tackle and rods as lines of text: kept right, or asked back; never kept wrongly in silence."""

from typing import Any

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Leader, Line, Rod
from heathdrop.conditions.plan import RodBody
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import name_of
from heathdrop.store import items
from heathdrop.store.files.entry import LONGEST_LINE, parsed, pieces, suggested, typed_rig
from heathdrop.store.files.rodline import rod_line, rods_in
from heathdrop.store.files.spelling import nearest, tidied
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


def head(family: str, oz: float, colour: str = "", **more: Any) -> tuple[str, dict[str, Any]]:
    return "head", {"family": family, "weight_oz": oz, "colour": colour, **more}


def tail(shape: str, inches: float, colour: str = "", **more: Any) -> tuple[str, dict[str, Any]]:
    return "trailer", {"shape": shape, "length_in": inches, "colour": colour, **more}


KEPT = {
    "3/8-oz swim jig": [head("swim-jig", 0.375)],
    "1/2-ounce spinnerbait": [head("spinnerbait", 0.5)],
    "half ounce football jig brown": [head("football-jig", 0.5, colour="brown")],
    "three eighths oz swim jig x3": [head("swim-jig", 0.375, quantity=3)],
    "football head 3/4": [head("football-jig", 0.75)],
    "tungsten jig 3/4 football": [head("football-jig", 0.75, material="tungsten")],
    "1/2 oz spinnerbait dbl willow white": [head("spinnerbait", 0.5, colour="white")],
    "#15 fluoro": [("line", {"material": "fluorocarbon", "test_lb": 15.0, "name": ""})],
    "fluorocarbon 6,8 kg 0.37 mm": [
        ("line", {"material": "fluorocarbon", "test_lb": 15.0, "name": "", "diameter_mm": 0.37})
    ],
    "rod 2.1 m": [("rod", {"length_ft": 6.89, "name": ""})],
    "50 lb braided line": [("line", {"material": "braid", "test_lb": 50.0, "name": ""})],
    "baitcaster 7.3:1 30 in": [("reel", {"inches_per_turn": 30.0, "name": ""})],
    "rod 6'10\" M spinning 1/4-5/8": [
        (
            "rod",
            {
                "length_ft": 6.833,
                "power": "medium",
                "style": "spinning",
                "low_oz": 0.25,
                "high_oz": 0.625,
                "name": "",
            },
        )
    ],
    "1-1/4 oz punch rig": [head("punch-rig", 1.25)],
    "1 1/4 oz punch rig": [head("punch-rig", 1.25)],
    "1.25oz punch rig": [head("punch-rig", 1.25)],
    "two 3/8 swim jigs": [head("swim-jig", 0.375, quantity=2)],
    "a dozen 1/2 oz grass jigs": [head("grass-jig", 0.5, quantity=12)],
    "six 1/2 oz casting jigs": [head("casting-jig", 0.5, quantity=6)],
    "1/2 oz football jig (black/blue) 3 pack": [head("football-jig", 0.5, "black/blue", quantity=3)],
    "3/8 swim jig (4)": [head("swim-jig", 0.375, quantity=4)],
    "qty 4 3/8 swim jig": [head("swim-jig", 0.375, quantity=4)],
    "pack of 8 craws 4 in": [tail("craw", 4.0, quantity=8)],
    "beaver 4 inch x 10": [tail("beaver", 4.0, quantity=10)],
    "football jig 3/4 brown / craw 3.5": [head("football-jig", 0.75, "brown"), tail("craw", 3.5)],
    "3/8 swim jig with paddle tail 4 in": [head("swim-jig", 0.375), tail("paddle-tail", 4.0)],
    'creature bait 4"': [tail("creature", 4.0)],
    'trailer chunk 3"': [tail("chunk", 3.0)],
    "paddletail swimbait 4.5 inch": [tail("paddle-tail", 4.5)],
    'twin tail grub 5"': [tail("twin-tail", 5.0)],
    "5/8 spinner bait double willow": [head("spinnerbait", 0.625)],
    "3/8oz white/chartreuse spinnerbait tandem": [head("spinnerbait", 0.375, "white/chartreuse")],
    "1/2 blade jig": [head("bladed-jig", 0.5)],
    "arkie jig 1/2": [head("casting-jig", 0.5)],
    "brush jig 3/8 black": [head("flipping-jig", 0.375, "black")],
    "1/2 tungsten bullet weight": [head("weighted-plastic", 0.5, material="tungsten")],
    "punch weight 1.5 oz": [head("punch-rig", 1.5)],
    "3 oz swim jig !": [head("swim-jig", 3.0)],
    "½ flipping jig": [head("flipping-jig", 0.5)],
    "football jig 1/2 colour 77": [head("football-jig", 0.5, "colour 77")],
    "football jig 1/2, green pumpkin": [head("football-jig", 0.5, "green pumpkin")],
    "3/8, 1/2 swim jig black": [head("swim-jig", 0.375, "black"), head("swim-jig", 0.5, "black")],
    "30# braid": [("line", {"material": "braid", "test_lb": 30.0, "name": ""})],
    "fluoro 17": [("line", {"material": "fluorocarbon", "test_lb": 17.0, "name": ""})],
    "12lb mono": [("line", {"material": "nylon", "test_lb": 12.0, "name": ""})],
    "reel 7.1:1 29 ipt": [("reel", {"inches_per_turn": 29.0, "name": ""})],
    "reel 29 in per turn": [("reel", {"inches_per_turn": 29.0, "name": ""})],
    "rod 7 ft 2 in": [("rod", {"length_ft": 7.167, "name": ""})],
    "7'2\" MH rod": [("rod", {"length_ft": 7.167, "power": "medium-heavy", "name": ""})],
    "6'6\" spinning rod 1/8 to 3/8 oz": [
        ("rod", {"length_ft": 6.5, "style": "spinning", "low_oz": 0.125, "high_oz": 0.375, "name": ""})
    ],
    "half-ounce swim jig": [head("swim-jig", 0.5)],
    "5/16 ball head finesse jig": [head("finesse-jig", 0.3125)],
    "5/8 weedless grass jig": [head("grass-jig", 0.625)],
    "swimming style bladed jig 5/8": [head("bladed-jig", 0.625)],
    "five 1/2 oz flipping jigs black/blue w/ rattles": [head("flipping-jig", 0.5, "black/blue", quantity=5)],
    "2 ea. 3/8 spinnerbaits": [head("spinnerbait", 0.375, quantity=2)],
    "3/8 texas rig tungsten": [head("weighted-plastic", 0.375, material="tungsten")],
    '3/8 grass jig & 4" craw': [head("grass-jig", 0.375), tail("craw", 4.0)],
    "ten 4 inch craws": [tail("craw", 4.0, quantity=10)],
    "craw (4 in.) black red flake 7pk": [tail("craw", 4.0, "black red flake", quantity=7)],
    '4" minnow style pin tail white': [tail("pin-tail", 4.0, "white")],
    "pintail minnow 4 in": [tail("pin-tail", 4.0)],
    "17 lb. fluoro": [("line", {"material": "fluorocarbon", "test_lb": 17.0, "name": ""})],
    "20 lb copolymer": [("line", {"material": "nylon", "test_lb": 20.0, "name": ""})],
}


@pytest.mark.parametrize("line", KEPT)
def test_kept_as_it_was_meant(cat: Catalog, line: str) -> None:
    assert pieces(cat, line) == KEPT[line]


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("3/8 swim jog", "did you mean “3/8 swim jig”"),
        ("1/2 spinerbait", "did you mean “1/2 spinnerbait”"),
        ("paddel tail 4 in", "did you mean “paddle tail 4 in”"),
        ("green pumpkin jig 1/2", "a word for which jig"),
        ("a pack of craws 4 in", "a word for how many: x8, 8 pack, a dozen"),
        ("3 oz swim jig", "a swim jig of 3/16 to 1 oz, or with a ! where it is meant"),
        ("swim jig", "a weight too: 3/8 swim jig"),
        ("3/8 swim jig, white 6", "every number understood: “white 6” is not"),
        ("4 craws", "what 4 is: 4 in, or x4"),
        ("football jig 1/2 brown 3/4", "every number understood: “brown 3/4” is not"),
        ("football jig 1/2 77 brown", "every number understood: “77 brown” is not"),
        ("pork style chunk", "its length too: chunk 4 in"),
        ('two packs of 4" paddle tails', "a word for how many"),
        ("30 lb braid with 15 lb fluoro leader", "its leader is set beside the line on the sheet"),
        ("fluorocarbon", "its strength too: 15 lb fluorocarbon"),
        ("7:1 reel", "the line that a turn takes in"),
        ("medium rod", "its length too: 7 ft rod"),
        ('ribbon tail worm 7"', "a weight and a lure"),
    ],
)
def test_asked_about_and_never_guessed(cat: Catalog, line: str, said: str) -> None:
    with pytest.raises(BadInput, match=said.replace("(", r"\(").replace("?", r"\?")):
        pieces(cat, line)


@pytest.mark.parametrize(
    ("line", "write"),
    [
        ("3/8 swim jog", "3/8 swim jig"),
        ("paddel tail 4 in", "paddle tail 4 in"),
        ("3 oz swim jig", "3 oz swim jig !"),
        ("swim jig", ""),
        ("craw black", "craw black 4 in"),
        ("30 lb braid with 15 lb fluoro leader", ""),
        ("toad 3 in", ""),
    ],
)
def test_a_line_that_would_be_kept_is_offered(cat: Catalog, line: str, write: str) -> None:
    assert suggested(cat, line) == write
    if write:
        assert pieces(cat, write)


def test_one_spelling_is_left_alone() -> None:
    for line in ("3/8 swim jig black", "craw 4 in floating 9.8 g x8", "15 lb fluorocarbon 0.37 mm"):
        assert tidied(line) == line
        assert tidied(tidied(line)) == line


def test_nothing_near_is_nothing_asked() -> None:
    assert nearest(("swim jig", "craw"), "a boat 3") == ""
    assert nearest(("swim jig", "craw"), "3/8 swin jig red") == "3/8 swim jig red"


@pytest.mark.parametrize("line", ["x" * 199, " " * 150 + "jig", "1-" * 90, "(" * 190, "pack of " * 20])
def test_odd_lines_are_refused_in_a_sentence(cat: Catalog, line: str) -> None:
    with pytest.raises(BadInput):
        pieces(cat, line)


SPIN = RodBody(
    name="spin",
    line=Line(material="braid", test_lb=15, leader=Leader(material="fluorocarbon", test_lb=8, length_ft=6)),
    inches_per_turn=31.0,
    rod=Rod(kind="spinning", power="medium", low_oz=0.125, high_oz=0.5),
)


@pytest.mark.parametrize(
    ("said", "rod"),
    [
        ("50 lb braid", RodBody(name="A", line=Line(material="braid", test_lb=50))),
        (
            "heavy: 20 lb fluoro, heavy casting 1/2 to 1 1/2 oz",
            RodBody(
                name="heavy",
                line=Line(test_lb=20),
                rod=Rod(kind="casting", power="heavy", low_oz=0.5, high_oz=1.5),
            ),
        ),
        (
            "A: 50 lb braid, heavy casting",
            RodBody(
                name="A",
                line=Line(material="braid", test_lb=50),
                rod=Rod(kind="casting", power="heavy", low_oz=0.375, high_oz=1.5),
            ),
        ),
        ("spin: 15 lb braid, 6 ft of 8 lb leader, 31 in a turn, medium spinning 1/8-1/2 oz", SPIN),
    ],
)
def test_a_line_is_a_rod(said: str, rod: RodBody) -> None:
    assert rods_in(said) == [rod]
    assert rods_in(rod_line(rod)) == [rod]


def test_one_to_a_line_named_in_turn() -> None:
    assert [r.name for r in rods_in("15 lb fluoro\n\nB2: 30 lb braid\n12 lb mono")] == ["A", "B2", "C"]


@pytest.mark.parametrize("said", ["", "a rod", "15 lb", "fluorocarbon", "\n".join(["50 lb braid"] * 13)])
def test_what_names_no_line_is_refused(said: str) -> None:
    with pytest.raises(BadInput, match="rods was"):
        rods_in(said)
