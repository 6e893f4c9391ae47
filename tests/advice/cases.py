"""Rigs in waters at counts and paces that are given: what is said of them hangs on no search."""

from dataclasses import dataclass, replace
from functools import cache

from heathdrop import catalog as catalogue
from heathdrop.answers.water import at_setting
from heathdrop.conditions.gear import USUAL_GEAR, Gear, Line
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.size import Rated, Sizing, size
from tests.waters import BAIT, BEDS, DOCKS, GRASS, MAT, PADS, REEDS, WINTER_ROCK, WOOD


@dataclass(frozen=True)
class Case:
    """A rig by name in a water, counted so long (s) and reeled so fast (ft/s); None where it is not swum."""

    water: Conditions
    rig: str
    count_s: float | None = None
    pace_ft_s: float | None = None
    schools: tuple[tuple[str, str], ...] = ()
    line: Line = USUAL_GEAR.line


DEEP = replace(BAIT, fish_depth_ft=28, posture="suspended", fish_span_ft=(20.0, 30.0))
CASES = {
    "high over grass": Case(GRASS, "swim-jig:0.25:chunk", 1.0, 3.0),
    "deep in grass": Case(GRASS, "bladed-jig:0.75:pin-tail", 4.0, 1.8),
    "right over grass": Case(GRASS, "bladed-jig:0.5:small-craw:length_in=3", 2.1, 2.3),
    "weighed": Case(GRASS, "swim-jig:0.375:craw:head_g=11.2:width=1.2", 2.0, 2.2),
    "lightest": Case(BAIT, "underspin:0.125:paddle-tail", 6.0, 2.0, line=Line(material="nylon", test_lb=6)),
    "heaviest": Case(DEEP, "spinnerbait:1:twin-tail", 12.0, 2.0, line=Line(material="braid", test_lb=80)),
    "on braid": Case(BAIT, "spinnerbait:0.5:paddle-tail", 8.0, 2.2, line=Line(material="braid", test_lb=30)),
    "winter rock": Case(WINTER_ROCK, "football-jig:0.5:twin-tail"),
    "winter light": Case(WINTER_ROCK, "finesse-jig:0.25:chunk", schools=(("weight-lean", "lighter"),)),
    "mat too light": Case(MAT, "punch-rig:0.75:beaver"),
    "mat with claws": Case(MAT, "flipping-jig:1:craw", schools=(("mat-entry", "lobbed"),)),
    "wood": Case(WOOD, "flipping-jig:0.5:craw"),
    "wood swum": Case(WOOD, "bladed-jig:0.5:paddle-tail", 1.5, 2.4),
    "beds": Case(BEDS, "weighted-plastic:0.25:creature"),
    "pads": Case(PADS, "swim-jig:0.375:none", 0.3, 3.2),
    "docks": Case(DOCKS, "casting-jig:0.375:creature-fused"),
    "reeds": Case(REEDS, "grass-jig:0.5:beaver"),
    "micro": Case(WINTER_ROCK, "micro-jig:0.125:pin-tail:length_in=2"),
}


#: Those whose every word is kept in golden files; the others are said too, and must come out.
SHOWN = ("right over grass", "winter rock", "mat too light")


@cache
def rated(name: str) -> tuple[Sizing, Rated]:
    """A case's sizing and its rig as fished."""
    case, catalog = CASES[name], catalogue.load()
    rig = RigName.parse(case.rig).rig(catalog)
    gear = Gear(line=case.line)
    scenario = Scenario(case.water, gear, families=(rig.family.id,), schools=case.schools)
    sizing = size(catalog, scenario, [rig])
    return sizing, at_setting(sizing, sizing.rigs[0], case.count_s, case.pace_ft_s)
