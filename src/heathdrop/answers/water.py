"""Size a water: which families, which rigs, in which order. Page, JSON and command line all ask here."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from heathdrop import catalog as catalogue
from heathdrop.advice.call import CALLED, Call, call
from heathdrop.advice.gives import gives_said
from heathdrop.answers.own import STRANGER, Own
from heathdrop.conditions.facts import facts_of
from heathdrop.conditions.scenario import Scenario, check
from heathdrop.errors import BadInput
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import RigName
from heathdrop.search.belief import Belief, start_of
from heathdrop.sizing.activity import judge
from heathdrop.sizing.bands import Bands, bands_for
from heathdrop.sizing.hits import missed_by
from heathdrop.sizing.size import PLACES, Rated, Sizing, rate, rated_at, setting_of, size

#: Answers remembered, so that looking again asks nothing new: the stops of a long day. Each holds about one
#: megabyte.
REMEMBERED = 24


def placed(scenario: Scenario) -> Scenario:
    """A scenario whose fish are only known to a range, sized for their depth on average, to the half foot.
    Raises BadInput."""
    c = scenario.conditions
    if c.fish_span_ft is None:
        return scenario
    check(scenario)
    low, high = c.fish_span_ft
    at = round(2.0 * first_belief(scenario).mean_ft) / 2.0
    return replace(scenario, conditions=replace(c, fish_depth_ft=min(max(at, low), high)))


def first_belief(scenario: Scenario, own: Own = STRANGER) -> Belief:
    """Where the fish of a water are thought to be before a cast is made."""
    catalog, c = catalogue.load(), scenario.conditions
    mood = judge(catalog, c, own.learned.own_fish()).value
    return start_of(catalog, c, facts_of(scenario, mood), mood)


@lru_cache(maxsize=REMEMBERED)
def sizing_of(scenario: Scenario, own: Own = STRANGER) -> Sizing:
    """The sizing of a scenario whose families are named. Raises BadInput."""
    return size(catalogue.load(), placed(scenario), knowledge=own.learned, tackle=own.tackle)


def sized_alone(scenario: Scenario, name: RigName, own: Own = STRANGER) -> Sizing:
    """One rig alone in a scenario of its family. Raises BadInput."""
    return size(catalogue.load(), scenario, [name.rig(catalogue.load())], own.learned)


@lru_cache(maxsize=REMEMBERED)
def _called(scenario: Scenario, own: Own, places: int | None) -> Call:
    return call(catalogue.load(), scenario, lambda one: sizing_of(one, own), own.learned, places)


def call_of(scenario: Scenario, own: Own = STRANGER, places: int | None = None) -> Call:
    """The call for a scenario's water, whatever families it names: all, or the best ``places``.

    Raises BadInput.

    From a box alone only the families it holds are asked.
    """
    families: tuple[str, ...] = ()
    if scenario.box == "mine":
        families = tuple(f for f in catalogue.load().families if f in own.tackle.families)
        if not families or not own.tackle.trailers:
            raise BadInput("box", "mine", "standard or both until your box holds a head and a trailer")
    return _called(replace(placed(scenario), families=families), own, places)


def family_called(scenario: Scenario, own: Own = STRANGER, places: int = 1) -> str:
    """The family that stands first. Raises BadInput for an empty box. Who goes on to ask for more ``places``
    of the same water asks for them here, so that the water is called once."""
    return call_of(scenario, own, places=places).family


@dataclass(frozen=True)
class Row:
    """A rig of an answer: the sizing of its family, its figures, its band."""

    sizing: Sizing
    rated: Rated
    band: Bands


@dataclass(frozen=True)
class WaterAnswer:
    """A sized water: the rigs asked for, best first."""

    rows: tuple[Row, ...]


def size_water(scenario: Scenario, own: Own = STRANGER, limit: int = 20) -> WaterAnswer:
    """The best ``limit`` rigs. Raises BadInput.

    A scenario without families has them called: rows go by the family's standing and the rig's fit, a
    quarter of the limit (one at least) for each family, so that all that were called are seen.
    """
    catalog, wanted = catalogue.load(), scenario.wanted
    if scenario.families:
        alone = _each(scenario, own)
        ranked = [(sizing, r) for sizing in alone for r in sizing.rigs[:limit]]
        if len(alone) > 1:
            ranked.sort(key=lambda row: (missed_by(wanted, row[1]), -round(row[1].fits.score, PLACES)))
        ranked = ranked[:limit]
    else:
        standings = call_of(scenario, own, places=min(CALLED, limit)).standings
        each = max(1, limit // CALLED)
        best = [
            (s.points + s.yields, k, s.sizing, r)
            for s in standings
            for k, r in enumerate(s.sizing.rigs[:each])
        ]
        # A family's own order stands (ties are settled in it); families are merged by standing.
        best.sort(key=lambda row: (missed_by(wanted, row[3]), -_merged(row[2], row[1], row[0])))
        ranked = [(sizing, r) for _, _, sizing, r in best[:limit]]
    bands = {
        id(sizing): dict(zip(map(id, rigs), bands_for(catalog, sizing, rigs), strict=True))
        for sizing, rigs in _by_sizing(ranked)
    }
    return WaterAnswer(tuple(Row(sizing, r, bands[id(sizing)][id(r)]) for sizing, r in ranked))


def _each(scenario: Scenario, own: Own) -> list[Sizing]:
    """The named families sized one by one; from a box alone those that it holds."""
    held = [f for f in scenario.families if scenario.box != "mine" or f in own.tackle.families]
    return [sizing_of(replace(scenario, families=(f,)), own) for f in held or scenario.families]


def gives_of(scenario: Scenario, own: Own = STRANGER) -> str | None:
    """What has to give where the targets that are set cannot all be had, of the families named or the four
    that are called; None where they can, or none is set. Raises BadInput."""
    if not scenario.wanted.yours:
        return None
    if scenario.families:
        return gives_said(_each(scenario, own))
    return gives_said([s.sizing for s in call_of(scenario, own, places=CALLED).standings])


def _merged(sizing: Sizing, k: int, points: float) -> float:
    """The standing of a family's ``k``-th rig; never above the one before it."""
    return min(r.fits.score for r in sizing.rigs[: k + 1]) * math.exp(points)


def _by_sizing(ranked: Sequence[tuple[Sizing, Rated]]) -> list[tuple[Sizing, list[Rated]]]:
    """Rated rigs by the sizing they belong to."""
    groups: dict[int, tuple[Sizing, list[Rated]]] = {}
    for sizing, rated in ranked:
        groups.setdefault(id(sizing), (sizing, []))[1].append(rated)
    return list(groups.values())


def with_rig(sizing: Sizing, name: RigName) -> tuple[Sizing, Rated]:
    """The sizing with the rig of this name in it, rated like the others when it was not on the board. Raises
    BadInput."""
    rated = next((r for r in sizing.rigs if r.name == name), None)
    if rated is not None:
        return sizing, rated
    rated = rate_rigs(sizing, [name.rig(catalogue.load())])[0]
    return replace(sizing, rigs=(*sizing.rigs, rated)), rated


def rate_rigs(sizing: Sizing, rigs: Sequence[Rig]) -> list[Rated]:
    """Other rigs rated for the same question, each in its own family's setting, best first."""
    catalog, rated = catalogue.load(), []
    for family in dict.fromkeys(rig.family.id for rig in rigs):
        setting = setting_of(catalog, replace(sizing.scenario, families=(family,)), sizing.knowledge)
        applied = [sizing.knowledge.applied(rig) for rig in rigs if rig.family.id == family]
        rated += rate(setting, applied)
    return sorted(rated, key=lambda r: -r.fits.score)


def at_setting(
    sizing: Sizing, rated: Rated, count_s: float | None, pace_ft_s: float | None, seen: float = 1.0
) -> Rated:
    """A rated rig at a count (s) and a pace (ft/s) of the angler's own, None: as the search found;
    ``seen`` is the factor on its drag and lift that a cast showed."""
    scenario = replace(sizing.scenario, families=(rated.rig.family.id,))
    setting = setting_of(catalogue.load(), scenario, sizing.knowledge)
    return rated_at(setting, rated.rig, count_s, pace_ft_s, seen)
