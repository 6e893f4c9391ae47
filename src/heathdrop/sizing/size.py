"""Sizing: every candidate at its own best, rated and ranked."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from heathdrop.catalog import Catalog
from heathdrop.catalog.rule_records import Cadence
from heathdrop.conditions.facts import Facts
from heathdrop.conditions.scenario import Scenario, check
from heathdrop.errors import BadInput
from heathdrop.physics.cast import Cast
from heathdrop.physics.fall import depth_after_s, fall_speed_m_s, fall_time_s, glide_factor, time_to_depth_s
from heathdrop.physics.kernels.records import Limits, Scene, Tuned
from heathdrop.physics.line import Line
from heathdrop.physics.rig import Lure, Rig, as_seen
from heathdrop.physics.water import Water
from heathdrop.sizing.box import EMPTY, Tackle, box_rigs
from heathdrop.sizing.cadence import (
    Cadenced,
    cadence_played,
    cadences_for,
    evenly,
    reaches_steadily,
    worked_in,
)
from heathdrop.sizing.candidates import quick_worths, standard_rigs
from heathdrop.sizing.held import hung
from heathdrop.sizing.hits import missed_by
from heathdrop.sizing.knowledge import UNTAUGHT, Knowledge
from heathdrop.sizing.rated import Rated, rated_one
from heathdrop.sizing.scatter import moved_by_pace_m
from heathdrop.sizing.setting import (
    NOWHERE_FT,
    Setting,
    limits_for,
    reachable_paces,
    setting_of,
)
from heathdrop.sizing.targets import Targets
from heathdrop.sizing.tune import ROUNDS, cast_once, scene_of, tune, tuned_at
from heathdrop.sizing.usual import Weights
from heathdrop.units import metres

__all__ = ["PLACES", "Rated", "Sizing", "equals_of", "rate", "rate_each", "rated_at", "setting_of", "size"]


#: Swum rigs of a family that are searched at all, by their closed-form promise, and those that are searched
#: closely and measured at board fidelity; the others get one cast at the pace that the searched ones
#: foretell.
SEARCHED, REFINED = 34, 14
#: The best of them are tried in the family's other cadences.
CADENCED = 2
#: A share of the retrieve near the band that keeps the fish.
KEEPS_NEAR = 0.65
#: Steps (log) of a pace that is foretold: finer ones are not worth another cast.
PACE_GRAIN = 0.02
#: Share of the band below which a rig that was cast once is cast once more, and the most that its pace is
#: changed by for it, as a factor.
MISSED, PACE_AGAIN = 0.3, 1.6
#: No retrieve starts nearer the surface than this, m.
LEAST_START_M = 0.05
#: Scores are compared to this many places; closer ones are equal.
PLACES = 3


@dataclass(frozen=True)
class Sizing:
    """The answer to a scenario: targets and rigs, best first. The setting is its first family's."""

    scenario: Scenario
    targets: Targets
    paces_ft_s: tuple[float, float]
    water: Water
    line: Line
    cast: Cast
    rigs: tuple[Rated, ...]
    facts: Facts
    weights: Weights
    knowledge: Knowledge = UNTAUGHT


def size(
    catalog: Catalog,
    scenario: Scenario,
    rigs: Sequence[Rig] | None = None,
    knowledge: Knowledge = UNTAUGHT,
    tackle: Tackle = EMPTY,
) -> Sizing:
    """Rate every candidate of the scenario, or the ``rigs`` given. Raises BadInput for what cannot be.

    Each family is sized by itself, so that its figures are the same whatever stands beside it.
    ``knowledge`` is what the angler's measurements taught, ``tackle`` the box that the scenario may ask for.
    """
    check(scenario)
    for family in scenario.families:
        catalog.pick(catalog.families, "families", family)
    if rigs is None:
        _check_box(catalog, scenario, tackle)
    rated: list[Rated] = []
    settings = [setting_of(catalog, replace(scenario, families=(f,)), knowledge) for f in scenario.families]
    for setting in settings:
        own_rigs = (
            candidates(setting, tackle) if rigs is None else [r for r in rigs if r.family == setting.family]
        )
        rated += rate(setting, [knowledge.applied(rig) for rig in own_rigs])
    first = settings[0]
    factor = first.family.pace_factor
    paces = reachable_paces(catalog, first.targets, scenario.gear.reel.inches_per_turn, factor)
    return Sizing(
        scenario=scenario,
        targets=first.targets,
        paces_ft_s=paces,
        water=first.water,
        line=first.line,
        cast=first.cast,
        rigs=tuple(ranked(first, rated, tackle)),
        facts=first.facts,
        weights=first.weights,
        knowledge=knowledge,
    )


def _check_box(catalog: Catalog, scenario: Scenario, tackle: Tackle) -> None:
    """Raise BadInput when the box alone is asked for and holds nothing for the families."""
    held = any(f in tackle.families for f in scenario.families) and tackle.trailers
    if scenario.box == "mine" and not held:
        names = ", ".join(catalog.families[f].name for f in scenario.families)
        raise BadInput(
            "box", "mine", f"standard or both until your box holds a head for a {names} and a trailer"
        )


def candidates(setting: Setting, tackle: Tackle) -> list[Rig]:
    """The rigs a family is asked in: the standard set, the box, or both."""
    scenario = setting.scenario
    standard = standard_rigs(setting) if scenario.box != "mine" else []
    if scenario.box == "standard":
        return standard
    own = box_rigs(setting, tackle)
    taken = {(r.head_oz, r.trailer.id, r.trailer_length_in) for r in own}
    return own + [r for r in standard if (r.head_oz, r.trailer.id, r.trailer_length_in) not in taken]


def ranked(setting: Setting, rated: Sequence[Rated], tackle: Tackle = EMPTY) -> list[Rated]:
    """Best first; what hits the targets that are set goes before what does not. Equal scores: the weight
    nearest the usual, then the family's usual trailer; never by name alone. Within the noise what the box
    holds goes first when the box was asked."""

    wanted = setting.scenario.wanted

    def order(r: Rated) -> tuple[tuple[int, float], float, float, bool, float, float, float]:
        usual = r.rig.trailer.id != r.rig.family.usual_trailer
        off = abs(math.log(r.fishes_oz / setting.weights.middle_oz))
        score = -round(r.fits.score, PLACES)
        return missed_by(wanted, r), score, off, usual, r.rig.bulk_cm2, r.countdown_s, r.rig.trailer.mass_g

    ordered = sorted(rated, key=order)
    if setting.scenario.box != "standard" and ordered:
        noise = setting.catalog.judgement.fit.noise
        best = missed_by(wanted, ordered[0]), ordered[0].fits.score - noise
        near = [r for r in ordered if missed_by(wanted, r) == best[0] and r.fits.score >= best[1]]
        own = next((r for r in near if tackle.owns(r.rig)), ordered[0])
        ordered.remove(own)
        ordered.insert(0, own)
    return ordered


def equals_of(catalog: Catalog, sizing: Sizing, rated: Rated) -> list[Rated]:
    """The other rigs of the same family that are as good within the noise."""
    noise = catalog.judgement.fit.noise
    return [
        r
        for r in sizing.rigs
        if r is not rated
        and r.rig.family is rated.rig.family
        and abs(r.fits.score - rated.fits.score) <= noise
    ]


def rate(setting: Setting, rigs: Sequence[Rig]) -> list[Rated]:
    """Every rig of the setting's family at its own best, rated, best first.

    Swum rigs are cast as closely as they deserve: those that their closed-form parts rule out once, the
    others searched, the best of them searched closely and measured at board fidelity.
    """
    if setting.family.work != "swim":
        return ranked(setting, _not_swum(setting, rigs))
    rated = _swum(setting, rigs)
    scene, bounds = _scene(setting, rigs, limits_for(setting))
    order = sorted(rated, key=lambda k: -rated[k].fits.score)[:CADENCED]
    rated.update({k: _cadenced(setting, scene, bounds[k], rated[k]) for k in order})
    return ranked(setting, list(rated.values()))


def _swum(setting: Setting, rigs: Sequence[Rig], cadence: Cadence | None = None) -> dict[int, Rated]:
    """Every rig reeled steadily at its own best, or so in a ``cadence`` of a family that is dropped."""
    worths = quick_worths(setting, rigs)
    order = sorted(range(len(rigs)), key=lambda k: -worths[k])
    first, rest = order[:SEARCHED], order[SEARCHED:]
    scene, bounds = _scene(setting, rigs, limits_for(setting))
    by_index: dict[int, Rated] = {}

    def search(some: Sequence[int], rounds: int, begun: Sequence[Tuned] = ()) -> None:
        chosen = [rigs[k] for k in some]
        lures, limits = [setting.lure(rig) for rig in chosen], [bounds[k] for k in some]
        tuned = tune(lures, limits, scene=scene, refine=rounds == ROUNDS, rounds=rounds, begun=begun)
        by_index.update(zip(some, _rated(setting, chosen, tuned, cadence), strict=True))

    search(first, 0)
    if rest:
        lures = [setting.lure(rigs[k]) for k in rest]
        settings = _foretold([by_index[k] for k in first], lures, [bounds[k] for k in rest], setting)
        limits = [bounds[k] for k in rest]
        cast = _again(setting, lures, limits, scene, cast_once(lures, limits, scene, settings))
        by_index.update(zip(rest, _rated(setting, [rigs[k] for k in rest], cast, cadence), strict=True))
    best = sorted(by_index, key=lambda k: -by_index[k].fits.score)[:REFINED]
    search(best, ROUNDS, [by_index[k].tuned for k in best] if set(best) <= set(first) else ())
    return by_index


def _not_swum(setting: Setting, rigs: Sequence[Rig]) -> list[Rated]:
    """Rigs worked on the floor or dropped, in their order; where fish hang above it those that are dropped
    are held at their depth too, and the better way stands."""
    down = _rated(setting, rigs, [_worked(setting, limits_for(setting))] * len(rigs))
    noise = setting.catalog.judgement.fit.noise
    for cadence in cadences_for(setting.catalog, setting):
        if not cadence.work:
            continue
        held = _swum(setting, rigs, cadence) if cadence.work == "swim" else _hung(setting, rigs, cadence)
        down = [
            held[k] if k in held and held[k].fits.score > one.fits.score + noise else one
            for k, one in enumerate(down)
        ]
    return down


def _hung(setting: Setting, rigs: Sequence[Rig], cadence: Cadence) -> dict[int, Rated]:
    """Every rig that can be hung at the fish's depth."""
    scene, bounds = _scene(setting, rigs, limits_for(setting))
    by_index = {}
    for k, (rig, own) in enumerate(zip(rigs, bounds, strict=True)):
        lure = setting.lure(rig)
        played = hung(setting, scene, own, lure, cadence)
        if played is not None:
            by_index[k] = rated_one(setting, rig, lure, played.tuned, played.count_s, played)
    return by_index


def rate_each(setting: Setting, rigs: Sequence[Rig]) -> list[Rated]:
    """Rigs of the setting's family, each searched and rated as closely as if it alone were asked, in their
    order."""
    if setting.family.work != "swim":
        return _not_swum(setting, rigs)
    scene, bounds = _scene(setting, rigs, limits_for(setting))
    lures = [setting.lure(rig) for rig in rigs]
    begun = tune(lures, bounds, scene=scene, refine=False, rounds=0)
    rated = _rated(setting, rigs, tune(lures, bounds, scene=scene, begun=begun))
    return [_cadenced(setting, scene, own, one) for own, one in zip(bounds, rated, strict=True)]


def _cadenced(setting: Setting, scene: Scene, limits: Limits, steady: Rated) -> Rated:
    """A swum rig in the best of the cadences that its family has here; steady where none is better by more
    than the noise: the simpler hand stands."""
    best, noise = steady, setting.catalog.judgement.fit.noise
    for cadence in cadences_for(setting.catalog, setting):
        if not (cadence.floor or cadence.holes) and not reaches_steadily(steady.tuned):
            continue
        even = _over_the_tops(setting, scene, limits, steady) if cadence.holes else steady
        played = worked_in(
            setting,
            scene,
            limits=limits,
            away=even.cast,
            lure=even.lure,
            steady=even.tuned,
            count_s=even.countdown_s,
            cadence=cadence,
        )
        if played is None:
            continue
        if cadence.holes:
            played = replace(played, tuned=played.tuned._replace(in_cover=even.tuned.in_cover))
        if cadence.floor and not _steadily(setting, scene, limits, steady, played):
            continue
        if played.tuned.soft_share > 0.0:
            one = _rated_in(setting, steady, played)
            if one.fits.score > max(best.fits.score, steady.fits.score + noise):
                best = one
    return best if best.cadence is None else _as_told(setting, scene, limits, steady, best.cadence)


def _over_the_tops(setting: Setting, scene: Scene, limits: Limits, steady: Rated) -> Rated:
    """The rig reeled steadily so that it ticks the tops: between the holes that is how it is swum."""
    numbers = setting.catalog.judgement.targets
    band = scene.band._replace(
        top=max(scene.band.skates, scene.band.cover - metres(numbers.tick_above_ft)),
        low=scene.band.cover + metres(numbers.tick_into_ft),
    )
    return _rated(setting, [steady.rig], tune([steady.lure], [limits], scene._replace(band=band)))[0]


def _as_told(setting: Setting, scene: Scene, limits: Limits, steady: Rated, chosen: Cadenced) -> Rated:
    """A rig in the cadence that was chosen, as screens play it; steady where that is no longer better."""
    played = cadence_played(setting, scene, limits, steady.cast, steady.lure, chosen)
    if played is None:
        return steady
    if chosen.cadence.holes:
        # What is killed over a hole is in the cover no more than it is between them.
        played = replace(played, tuned=played.tuned._replace(in_cover=chosen.tuned.in_cover))
    one = _rated_in(setting, steady, played)
    return one if one.fits.score > steady.fits.score + setting.catalog.judgement.fit.noise else steady


def _rated_in(setting: Setting, steady: Rated, played: Cadenced) -> Rated:
    """A rig as it fits in a cadence."""
    return rated_one(
        setting, steady.rig, steady.lure, tuned=played.tuned, seconds=played.count_s, cadence=played
    )


def _steadily(setting: Setting, scene: Scene, limits: Limits, steady: Rated, played: Cadenced) -> bool:
    """Whether the pace and count of a floor cadence come near the fish reeled steadily too, or the rig does
    so at no setting: who turns the handle evenly is not to lose them."""
    t = played.tuned
    even = cast_once([steady.lure], [limits], scene, [(t.pace_m_s, t.start_depth_m)])[0]
    return even.near_band >= KEEPS_NEAR or steady.tuned.near_band < KEEPS_NEAR


def _foretold(
    searched: Sequence[Rated], lures: Sequence[Lure], limits: Sequence[Limits], setting: Setting
) -> list[tuple[float, float]]:
    """Pace (m/s) and start (m) of lures that are cast once: the searched rigs' best paces go with powers of
    weight, drag and lift, and these lures' are read off the same powers (least squares of the logs)."""
    powers, *_ = np.linalg.lstsq(
        _logs([r.lure for r in searched]), np.log([r.tuned.pace_m_s for r in searched]), rcond=None
    )
    paces = np.exp(PACE_GRAIN * np.round(_logs(lures) @ powers / PACE_GRAIN))
    middle = metres(0.5 * sum(setting.targets.depth_ft))
    return [
        (min(m.fastest_m_s, max(m.slowest_m_s, float(p))), min(middle, m.deepest_start_m))
        for p, m in zip(paces, limits, strict=True)
    ]


def _again(
    setting: Setting, lures: Sequence[Lure], limits: Sequence[Limits], scene: Scene, cast: Sequence[Tuned]
) -> list[Tuned]:
    """Lures that were cast once, those that missed the band once more: at the pace that would hold them in
    its middle if depth went with its inverse square. The better cast of the two stands."""
    middle, tuned = metres(0.5 * sum(setting.targets.depth_ft)), list(cast)
    missed = [k for k, t in enumerate(cast) if t.soft_share < MISSED]
    settings = []
    for k in missed:
        factor = math.sqrt(max(cast[k].mean_m, LEAST_START_M) / middle)
        pace = cast[k].pace_m_s * min(PACE_AGAIN, max(1.0 / PACE_AGAIN, factor))
        pace = min(limits[k].fastest_m_s, max(limits[k].slowest_m_s, pace))
        settings.append((pace, cast[k].start_depth_m))
    again = cast_once([lures[k] for k in missed], [limits[k] for k in missed], scene, settings)
    for k, t in zip(missed, again, strict=True):
        if t.soft_share * t.comfort > cast[k].soft_share * cast[k].comfort:
            tuned[k] = t
    return tuned


def _logs(lures: Sequence[Lure]) -> NDArray[np.float64]:
    """What a lure's pace hangs on, as logs: rows of one, net weight, run drag and lift."""
    columns = [(1.0, u.net_weight_n, u.run_drag_area_m2, u.run_lift_area_m2) for u in lures]
    return np.log(np.maximum(columns, 1e-9) * (np.e, 1.0, 1.0, 1.0))


def _rated(
    setting: Setting, rigs: Sequence[Rig], tuned: Sequence[Tuned], cadence: Cadence | None = None
) -> list[Rated]:
    """Rigs of one family rated at their settings, in their order; reeled steadily in a ``cadence`` where one
    is given."""
    lures = [setting.lure(rig) for rig in rigs]
    seconds = _countdowns(setting, lures, tuned)
    even = [None if cadence is None else evenly(cadence, *row) for row in zip(tuned, seconds, strict=True)]
    return [rated_one(setting, *row) for row in zip(rigs, lures, tuned, seconds, even, strict=True)]


def _scene(setting: Setting, rigs: Sequence[Rig], limits: Limits) -> tuple[Scene, list[Limits]]:
    """What every cast of the search shares, and each rig's own limits."""
    targets, numbers = setting.targets, setting.catalog.judgement
    band = (metres(targets.depth_ft[0]), metres(targets.depth_ft[1]))
    middle = metres(0.5 * sum(targets.depth_ft))
    per_pace = moved_by_pace_m(setting.catalog, setting.cast.distance_m, middle)
    paces = math.sqrt(limits.liked_slow_m_s * limits.liked_fast_m_s)
    hand, fish = per_pace * setting.scatter.pace_at(paces), metres(numbers.fit.fish_sigma_ft)
    scene = scene_of(
        setting.line,
        setting.water,
        cast=setting.cast,
        band_m=band,
        cover_top_m=metres(setting.cover_top_ft),
        haze_m=fish,
        skates_m=metres(numbers.targets.skating_ft),
        uneven_m=metres(setting.catalog.cover.grass.uneven_ft),
        eased=numbers.fit.eased,
        price=numbers.fit.weights["pace"] / numbers.fit.weights["depth"],
    )
    bounds = []
    for rig in rigs:
        s = setting.spread(rig)
        own = numbers.fit.areas_move * per_pace * math.hypot(s.run, s.lift)
        away = setting.cast_for(rig).distance_m
        least = 0.0 if rig.blades is None else metres(rig.blades.least_pace_ft_s)
        slowest = min(max(limits.slowest_m_s, least), 0.98 * limits.fastest_m_s)
        spread = math.hypot(hand, own)
        lure = setting.lure(rig)
        falls = float(
            fall_speed_m_s(lure.net_weight_n, lure.fall_drag_area_m2, 0.0, setting.line, setting.water)
        )
        deepest = max(LEAST_START_M, limits.deepest_start_m - numbers.hand.slack_s * falls)
        haze = math.hypot(fish, spread)
        bounds.append(
            limits._replace(
                slowest_m_s=slowest, deepest_start_m=deepest, haze_m=haze, distance_m=away, spread_m=spread
            )
        )
    return scene, bounds


def rated_at(
    setting: Setting, rig: Rig, count_s: float | None, pace_ft_s: float | None, seen: float = 1.0
) -> Rated:
    """A swum rig at a count (s) and a pace (ft/s) of the angler's own; None leaves the search's. ``seen`` is
    the factor on its drag and lift that a cast showed."""
    if setting.family.work != "swim":
        return _not_swum(setting, [rig])[0]
    scene, bounds = _scene(setting, [rig], limits_for(setting))
    lure, cast, landed = as_seen(setting.lure(rig), seen), setting.cast_for(rig), None
    if count_s is None or pace_ft_s is None:
        # What is left to the search is looked for; with both given there is nothing to look for.
        best = _rated(setting, [rig], tune([lure], bounds, scene))[0]
        pace, start, seconds = best.tuned.pace_m_s, best.tuned.start_depth_m, best.countdown_s
    if count_s is not None:
        sunk = depth_after_s(lure, count_s, setting.line, setting.water)
        start, seconds = min(cast.bottom_at(cast.distance_m), max(LEAST_START_M, sunk)), count_s
        landed = time_to_depth_s(lure, start, setting.line, setting.water)
    if pace_ft_s is not None:
        pace = metres(pace_ft_s)
    tuned = tuned_at(lure, bounds[0], scene, pace, start)
    return rated_one(setting, rig, lure, tuned, seconds, landed_s=landed)


def _countdowns(setting: Setting, lures: Sequence[Lure], tuned: Sequence[Tuned]) -> list[float]:
    """Seconds of slack fall to each rig's start, all at once."""
    weights, areas = (
        np.array([getattr(lure, k) for lure in lures]) for k in ("net_weight_n", "fall_drag_area_m2")
    )
    starts = np.array([t.start_depth_m for t in tuned])
    straight = fall_time_s(weights, areas, starts, setting.line, setting.water)
    return [float(v) for v in straight / glide_factor([lure.glide_ratio for lure in lures])]


def _worked(setting: Setting, limits: Limits) -> Tuned:
    """A lure worked on the floor, or sent straight down and worked where it lands: met by fish that stand
    near it."""
    c, hand = setting.scenario.conditions, setting.catalog.judgement.hand
    bottom = setting.cast.bottom_at(setting.cast.distance_m)
    above = c.bottom_depth_ft - c.fish_depth_ft
    near = setting.near_floor
    pace = math.sqrt(limits.liked_slow_m_s * limits.liked_fast_m_s)
    among = 1.0 if setting.cover_top_ft < NOWHERE_FT else 0.0
    within = float(above <= c.floor_reach_ft)
    return Tuned(
        pace_m_s=pace,
        start_depth_m=bottom,
        soft_share=near,
        in_band=near,
        mean_m=bottom,
        shallowest_m=bottom,
        deepest_m=bottom,
        in_cover=among,
        comfort=1.0,
        near_band=within,
        useful_s=hand.worked_s,
    )
