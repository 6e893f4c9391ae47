"""How each rig is rigged and fished, to the letter."""

from __future__ import annotations

import pytest

from heathdrop.advice.finish import finish_of
from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import SLOTS
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.sizing.size import size
from tests.advice.cases import CASES, SHOWN, rated
from tests.golden_file import holds_to


def test_finish(cat: Catalog) -> None:
    found = {name: finish_of(cat, *rated(name)) for name in CASES}
    for settled in found.values():
        assert [s.slot for s in settled] == [k for k in SLOTS if k in {s.slot for s in settled}]
        assert all(s.text and s.source and s.because for s in settled)
    said = {name: {s.label: [s.text, s.source, s.because] for s in found[name]} for name in SHOWN}
    holds_to("advice.finish", said)


@pytest.mark.parametrize(
    ("forage", "clarity", "light", "schools", "colour", "blade"),
    [
        ("baitfish", 0.8, "sunny", (), "white and chartreuse", "gold, bright"),
        ("bluegill", 0.8, "sunny", (), "black and blue", "black or painted dark, no gold"),
        ("baitfish", 0.8, "overcast", (("blade-metal", "silver"),), "white and chartreuse", "silver, bright"),
        ("bluegill", 0.8, "sunny", (("blade-metal", "silver"),), "black and blue", "silver, bright"),
        ("baitfish", 0.8, "sunny", (("blade-in-mud", "outline"),), "black and blue", "black or painted dark"),
        (
            "bluegill",
            0.8,
            "sunny",
            (("blade-in-mud", "flash"),),
            "white and chartreuse",
            "gold or white, bright",
        ),
        (
            "bluegill",
            5.0,
            "overcast",
            (),
            "green pumpkin, the tail dipped in chartreuse",
            "painted, or silver gone dull",
        ),
        (
            "bluegill",
            5.0,
            "overcast",
            (("grey-sky-blade", "gold"),),
            "green pumpkin, the tail dipped in chartreuse",
            "gold, bright",
        ),
        ("bluegill", 5.0, "sunny", (), "green pumpkin, plain, a touch of blue", "silver, bright"),
        ("crawfish", 5.0, "mixed", (), "red or rust, a brown trailer", "silver"),
        ("baitfish", 5.0, "sunny", (), "translucent, a little flash", "silver, bright"),
    ],
)
def test_blade_and_colour_are_one_decision(
    cat: Catalog,
    forage: str,
    clarity: float,
    light: str,
    schools: tuple[tuple[str, str], ...],
    colour: str,
    blade: str,
) -> None:
    c = Conditions(
        water_temp_f=58,
        bottom_depth_ft=9,
        fish_depth_ft=6,
        season="pre-spawn",
        wind_mph=8,
        clarity_ft=clarity,
        forage=forage,
        light=light,
    )
    sizing = size(cat, Scenario(c, families=("bladed-jig",), schools=schools))
    said = {s.slot: s.text for s in finish_of(cat, sizing, sizing.rigs[0])}
    assert (said["colour"], said["blade"]) == (colour, blade)
