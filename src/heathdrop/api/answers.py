"""From the use cases' records to the JSON answers, shared by the API and the command line."""

from typing import Any

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.advice.cautions import cautions_for
from heathdrop.advice.cited import advice_for
from heathdrop.advice.doubt import doubt_of
from heathdrop.advice.finish import finish_of
from heathdrop.advice.narrow import narrows
from heathdrop.advice.why import reasons
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.water import gives_of, size_water
from heathdrop.api import responses as out
from heathdrop.api.schemas import SimulateRequest
from heathdrop.conditions.given import RigGiven
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import EXACT
from heathdrop.physics.cast import CastResult, fly
from heathdrop.physics.rig import Lure
from heathdrop.sizing.bands import Bands, cast_bands
from heathdrop.sizing.hits import hits_of
from heathdrop.sizing.hour import per_hour
from heathdrop.sizing.presentation import presented
from heathdrop.sizing.program import play, usual_way
from heathdrop.sizing.scatter import STILL
from heathdrop.sizing.size import Rated, Sizing, equals_of
from heathdrop.units import feet


def _r(value: float, digits: int = 3) -> float:
    return round(float(value), digits)


def simulate_answer(request: SimulateRequest) -> out.SimulateAnswer:
    """One cast as samples and a summary. Raises BadInput."""
    lure, line, water = request.lure_record(), request.line_record(), request.water_record()
    cast, program = request.cast_record(), request.program_record()
    result = fly(lure, line, water, cast, program, sample_s=0.2)
    summary = _summary(result, lure)
    if isinstance(request.lure, RigGiven):
        rig = request.rig_record(request.lure)
        bands = cast_bands(
            catalogue.load(),
            rig,
            lure=lure,
            line=line,
            water=water,
            cast=cast,
            program=program,
            temperature_f=request.water.temperature_f,
            scatter=STILL if request.hand == EXACT else None,
        )
        summary.fall_band_s = _pair(bands.fall_s)
        if bands.mean_m:
            summary.mean_depth_band_ft = _pair((feet(bands.mean_m[0]), feet(bands.mean_m[1])))
    return out.SimulateAnswer(samples=_samples(result), summary=summary)


def _pair(band: tuple[float, float]) -> out.Pair:
    return out.Pair(low=_r(band[0]), high=_r(band[1]))


def _samples(result: CastResult) -> list[out.Sample]:
    s, tensions = result.samples, result.tension_n
    return [
        out.Sample(
            t_s=_r(t),
            distance_ft=_r(feet(x)),
            depth_ft=_r(feet(z)),
            tension_n=_r(tension, 4),
            phase=int(phase),
            on_bottom=bool(bottom > 0.5),
        )
        for t, x, z, tension, phase, bottom in zip(s.t, s.x, s.z, tensions, s.phase, s.bottom, strict=True)
    ]


def _summary(result: CastResult, lure: Lure) -> out.CastSummary:
    depths = result.worked()
    reached = depths.size > 0
    fell = result.fall_s > 0.0
    return out.CastSummary(
        fall_s=_r(result.fall_s),
        fall_ft_s=_r(feet(result.start_depth_m / result.fall_s)) if fell else None,
        mean_depth_ft=_r(feet(float(np.mean(depths)))) if reached else None,
        min_depth_ft=_r(feet(float(np.min(depths)))) if reached else None,
        max_depth_ft=_r(feet(float(np.max(depths)))) if reached else None,
        cast_s=_r(result.time_s[-1]) if result.time_s.size else 0.0,
        bottom_s=_r(result.bottom_s, 2),
        glide_reach_ft=_r(feet(lure.glide_ratio * result.start_depth_m)),
    )


def size_answer(request: SizeRequest, own: Own = STRANGER) -> out.SizeAnswer:
    """Ranked rigs for a scenario, with what the angler's own measurements and box add. Raises BadInput."""
    catalog = catalogue.load()
    answer = size_water(request.scenario(), own, request.limit)
    sizing, best = answer.rows[0].sizing, answer.rows[0].rated
    return out.SizeAnswer(
        targets=_targets_answer(sizing),
        rigs=[_rig_answer(row.sizing, row.rated, row.band) for row in answer.rows],
        finish={
            settled.slot: out.SettledAnswer(sentence=settled.text, by=settled.source, because=settled.because)
            for settled in finish_of(catalog, sizing, best)
        },
        doubt=doubt_of(catalog, sizing, best),
        gives=gives_of(request.scenario(), own),
        advice=[
            out.CitedAnswer(kind=a.kind, rule=a.name, school=a.school, sentence=a.sentence)
            for a in advice_for(catalog, sizing, best)
        ],
        cautions=[c.text for c in cautions_for(catalog, sizing.scenario, best)],
    )


def schools_answer() -> out.SchoolsAnswer:
    """Every disagreement with its schools, the default and the reason for it."""
    return out.SchoolsAnswer(
        topics=[
            out.TopicAnswer(
                id=t.id,
                name=t.name,
                default=t.default,
                because=t.because,
                schools=[out.SchoolAnswer(id=s.id, name=s.name, says=s.says) for s in t.schools.values()],
            )
            for t in catalogue.load().topics.values()
        ]
    )


def _targets_answer(sizing: Sizing) -> out.TargetsAnswer:
    """What the lure should do, and why."""
    t = sizing.targets
    return out.TargetsAnswer(
        activity=out.ActivityAnswer(
            value=_r(t.activity.value), name=t.activity.name, why=list(t.activity.reasons)
        ),
        depth_ft=out.DepthBand(top=_r(t.depth_ft[0]), low=_r(t.depth_ft[1]), why=t.depth_reason),
        fall_ft_s=_pair(t.fall_ft_s),
        pace_ft_s=_pair(sizing.paces_ft_s),
        action=out.ActionAnswer(value=_r(t.action), name=t.action_name),
        profile=t.profile,
        yours=list(sizing.scenario.wanted.yours),
    )


def _depth_answer(sizing: Sizing, rated: Rated) -> out.PathDepth:
    """Where it works: as rated, or over a floor that is not level where its own way of working takes it, as
    the page plays it."""
    c, tuned = sizing.scenario.conditions, rated.tuned
    mean, low, high = tuned.mean_m, tuned.shallowest_m, tuned.deepest_m
    level = c.bottom_shape == "level" and c.bottom_ft is None
    if rated.rig.family.work == "bottom" and not level:
        worked = play(sizing, rated, usual_way(catalogue.load(), sizing, rated)).worked()
        mean, low, high = float(worked.mean()), float(worked.min()), float(worked.max())
    return out.PathDepth(
        mean=_r(feet(mean)), low=_r(feet(low)), high=_r(feet(high)), in_band=_r(tuned.in_band)
    )


def _cadence_answer(rated: Rated) -> out.CadenceAnswer | None:
    """What the hands do where a rig was not sized steadily."""
    sized = rated.cadence
    if sized is None:
        return None
    return out.CadenceAnswer(
        way=sized.way,
        lift_ft=sized.cadence.lift_ft,
        pause_s=sized.cadence.pause_s,
        far_ft_s=_r(sized.far_ft_s),
        near_ft_s=_r(sized.near_ft_s),
        falling=_r(sized.falling),
        glides_ft=_r(sized.glides_ft),
    )


def _rig_answer(sizing: Sizing, rated: Rated, band: Bands) -> out.RigAnswer:
    """One rated rig."""
    rig, tuned = rated.rig, rated.tuned
    pace, fall = feet(tuned.pace_m_s), rated.fall_ft_s
    hour = per_hour(catalogue.load(), sizing, rated)
    parts: dict[str, Any] = {k: _r(v) for k, v in rated.fits.parts.items()}
    return out.RigAnswer(
        family=rig.family.id,
        work=presented(catalogue.load(), sizing.facts, rated),
        head_oz=rig.head_oz,
        head_material=rig.head_material.id,
        trailer=rig.trailer.id,
        trailer_length_in=rig.trailer_length_in,
        skirt=rig.skirt.id,
        blades=rig.blades.id if rig.blades else None,
        plastic=rig.plastic.id,
        orientation=rig.orientation.id,
        name=rated.key,
        pace_ft_s=_r(pace),
        turns_per_s=_r(sizing.scenario.gear.turns_per_s(pace)),
        countdown_s=_r(rated.countdown_s, 2),
        depth_ft=_depth_answer(sizing, rated),
        depth_band_ft=_pair((feet(band.mean_low_m), feet(band.mean_high_m))),
        fall_ft_s=out.FallRate(value=_r(fall), low=_r(fall * band.fall_low), high=_r(fall * band.fall_high)),
        cover=out.CoverAnswer(
            passes=_r(rated.cover.passes),
            fouls=_r(rated.cover.fouls),
            hangs=_r(rated.cover.hangs),
            through_hangs=None if rated.through is None else _r(rated.through.hangs),
        ),
        fits=out.FitsAnswer(**{"touch": None, "pace": None, **parts}),
        score=_r(rated.fits.score),
        limiting=rated.fits.limiting,
        way=rated.way,
        cast_ft=_r(feet(rated.cast.distance_m), 1),
        felt=_r(rated.felt),
        cadence=_cadence_answer(rated),
        per_hour=out.PerHour(
            casts=_r(hour.casts, 1), seconds_among=_r(hour.seconds_among, 0), rigs_lost=_r(hour.rigs_lost, 2)
        ),
        equals=len(equals_of(catalogue.load(), sizing, rated)),
        why=list(reasons(sizing, rated)),
        narrows=narrows(sizing, rated, band) or None,
        hits=hits_of(sizing.scenario.wanted, rated),
    )
