"""Size a water: which families, which rigs, in which order. Page, JSON and command line all ask here."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from heathdrop import catalog as catalogue
from heathdrop.advice.call import CALLED, Call, call
from heathdrop.answers.own import STRANGER, Own
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.bands import Bands, bands_for
from heathdrop.sizing.size import Rated, Sizing, rate, setting_of, size

#: Answers remembered, so that looking again asks nothing new.
REMEMBERED = 24


@lru_cache(maxsize=REMEMBERED)
def sizing_of(scenario: Scenario, own: Own = STRANGER) -> Sizing:
    """The sizing of a scenario whose families are named. Raises BadInput."""
    return size(catalogue.load(), scenario, known=own.learned, tackle=own.tackle)


@lru_cache(maxsize=REMEMBERED)
def _called(scenario: Scenario, own: Own) -> Call:
    return call(catalogue.load(), scenario, own.learned)


def call_of(scenario: Scenario, own: Own = STRANGER) -> Call:
    """The call for a scenario's water; its own families and box do not matter. Raises BadInput."""
    return _called(replace(scenario, families=("swim-jig",), box="standard"), own)


def families_called(scenario: Scenario, own: Own = STRANGER) -> tuple[str, ...]:
    """Families by standing, best first; from a box alone only those it holds. Raises BadInput for an empty
    box."""
    ranked = tuple(s.family.id for s in call_of(scenario, own).standings)
    if scenario.box != "mine":
        return ranked
    held = tuple(f for f in ranked if f in own.tackle.families)
    if not held or not own.tackle.trailers:
        raise BadInput("box", "mine", "standard or both until your box holds a head and a trailer")
    return held


@dataclass(frozen=True)
class WaterAnswer:
    """A sized water: its sizing, the rigs asked for (best first) and their bands."""

    sizing: Sizing
    rigs: tuple[Rated, ...]
    bands: tuple[Bands, ...]


def size_water(scenario: Scenario, own: Own = STRANGER, limit: int = 20) -> WaterAnswer:
    """The best ``limit`` rigs; a scenario without families has them called. Raises BadInput."""
    if not scenario.families:
        scenario = replace(scenario, families=families_called(scenario, own)[:CALLED])
    sizing = sizing_of(scenario, own)
    rigs = sizing.rigs[:limit]
    return WaterAnswer(sizing, rigs, tuple(bands_for(catalogue.load(), sizing, rigs)))


def with_rig(sizing: Sizing, name: RigName) -> tuple[Sizing, Rated]:
    """The sizing with the rig of this name in it, rated like the others when it was not on the board. Raises
    BadInput."""
    found = next((r for r in sizing.rigs if r.name == name), None)
    if found is not None:
        return sizing, found
    catalog = catalogue.load()
    found = rate_rigs(sizing, [name.rig(catalog)])[0]
    rigs = sorted((*sizing.rigs, found), key=lambda r: (-r.fits.score, r.key))
    return replace(sizing, rigs=tuple(rigs)), found


def rate_rigs(sizing: Sizing, rigs: Sequence[Rig]) -> list[Rated]:
    """Other rigs rated for the same question, best first."""
    setting, _ = setting_of(catalogue.load(), sizing.scenario, sizing.known)
    return rate(setting, [sizing.known.applied(rig) for rig in rigs])
