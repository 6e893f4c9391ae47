"""The JSON answers, shared by the API and the command line."""

from __future__ import annotations

from typing import Any

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.advice.cautions import cautions_for
from heathdrop.advice.cited import Cited, advice_for
from heathdrop.advice.why import reasons
from heathdrop.api.schemas import NamedLure, SimulateRequest, SizeRequest
from heathdrop.physics.cast import CastResult, fly
from heathdrop.sizing.bands import Bands, bands_for, cast_bands
from heathdrop.sizing.box import EMPTY, Tackle
from heathdrop.sizing.known import UNTAUGHT, Knowledge
from heathdrop.sizing.size import Rated, Sizing, size
from heathdrop.units import feet


def _r(value: float, digits: int = 3) -> float:
    return round(float(value), digits)


def simulate_answer(request: SimulateRequest) -> dict[str, Any]:
    """One cast as samples and a summary. Raises BadInput."""
    lure, line, water = request.lure_record(), request.line_record(), request.water_record()
    cast, program = request.cast_record(), request.program_record()
    result = fly(lure, line, water, cast, program, sample_s=0.2)
    summary = _summary(result)
    summary["bottom_s"] = _r(result.bottom_s, 2)
    summary["glide_reach_ft"] = _r(feet(lure.glide_ratio * result.start_depth_m))
    if isinstance(request.lure, NamedLure):
        rig = request.rig_record(request.lure)
        bands = cast_bands(catalogue.load(), rig, lure, line, water, cast, program, request.water.temperature_f)
        summary["fall_band_s"] = _pair(bands.fall_s)
        depth = bands.mean_m
        summary["mean_depth_band_ft"] = _pair((feet(depth[0]), feet(depth[1]))) if depth else None
    return {"samples": _samples(result), "summary": summary}


def _pair(band: tuple[float, float]) -> dict[str, float]:
    return {"low": _r(band[0]), "high": _r(band[1])}


def _samples(result: CastResult) -> list[dict[str, Any]]:
    s = result.samples
    rows = zip(s.t, s.x, s.z, s.tension, s.phase, s.bottom, strict=True)
    return [
        {
            "t_s": _r(t),
            "distance_ft": _r(feet(x)),
            "depth_ft": _r(feet(z)),
            "tension_n": _r(tension, 4),
            "phase": int(phase),
            "on_bottom": bool(bottom > 0.5),
        }
        for t, x, z, tension, phase, bottom in rows
    ]


def _summary(result: CastResult) -> dict[str, Any]:
    depths = result.useful()
    reached = depths.size > 0
    fell = result.fall_s > 0.0
    return {
        "fall_s": _r(result.fall_s),
        "fall_ft_s": _r(feet(result.start_depth_m / result.fall_s)) if fell else None,
        "mean_depth_ft": _r(feet(float(np.mean(depths)))) if reached else None,
        "min_depth_ft": _r(feet(float(np.min(depths)))) if reached else None,
        "max_depth_ft": _r(feet(float(np.max(depths)))) if reached else None,
        "cast_s": _r(result.time_s[-1]) if result.time_s.size else 0.0,
    }


def size_answer(request: SizeRequest, known: Knowledge = UNTAUGHT, tackle: Tackle = EMPTY) -> dict[str, Any]:
    """Ranked rigs for a scenario, with what the angler's own measurements and box add. Raises BadInput."""
    catalog = catalogue.load()
    sizing = size(catalog, request.scenario(), known=known, tackle=tackle)
    chosen = sizing.rigs[: request.limit]
    bands = bands_for(catalog, sizing, chosen)
    return {
        "targets": targets_answer(sizing),
        "rigs": [rig_answer(sizing, r, b) for r, b in zip(chosen, bands, strict=True)],
        "advice": [_cited(a) for a in advice_for(catalog, sizing, sizing.rigs[0])],
        "cautions": [c.text for c in cautions_for(sizing.scenario, sizing.rigs[0])],
    }


def _cited(advice: Cited) -> dict[str, Any]:
    return {"kind": advice.kind, "rule": advice.name, "school": advice.school, "sentence": advice.sentence}


def schools_answer() -> dict[str, Any]:
    """Every disagreement with its schools, the default and the reason for it."""
    return {
        "topics": [
            {
                "id": t.id,
                "name": t.name,
                "default": t.default,
                "because": t.because,
                "schools": [{"id": s.id, "name": s.name, "says": s.says} for s in t.schools.values()],
            }
            for t in catalogue.load().topics.values()
        ]
    }


def targets_answer(sizing: Sizing) -> dict[str, Any]:
    """What the lure should do, and why."""
    t = sizing.targets
    return {
        "activity": {"value": _r(t.activity.value), "name": t.activity.name, "why": list(t.activity.reasons)},
        "depth_ft": {"top": _r(t.depth_ft[0]), "low": _r(t.depth_ft[1]), "why": t.depth_reason},
        "fall_ft_s": {"low": _r(t.fall_ft_s[0]), "high": _r(t.fall_ft_s[1])},
        "pace_ft_s": {"low": _r(sizing.paces_ft_s[0]), "high": _r(sizing.paces_ft_s[1])},
        "action": {"value": _r(t.action), "name": t.action_name},
        "profile": t.profile,
    }


def rig_answer(sizing: Sizing, rated: Rated, band: Bands) -> dict[str, Any]:
    """One rated rig. ``depth_ft`` is the path's, ``depth_band_ft`` the band on its mean."""
    rig, tuned = rated.rig, rated.tuned
    pace = feet(tuned.pace_m_s)
    return {
        "family": rig.family.id,
        "head_oz": rig.head_oz,
        "head_material": rig.head_material.id,
        "trailer": rig.trailer.id,
        "trailer_length_in": rig.trailer_length_in,
        "skirt": rig.skirt.id,
        "pace_ft_s": _r(pace),
        "turns_per_s": _r(sizing.scenario.gear.turns_per_s(pace)),
        "countdown_s": _r(rated.countdown_s, 2),
        "depth_ft": {
            "mean": _r(feet(tuned.mean_m)),
            "low": _r(feet(tuned.shallowest_m)),
            "high": _r(feet(tuned.deepest_m)),
            "in_band": _r(tuned.in_band),
        },
        "depth_band_ft": {"low": _r(feet(band.mean_low_m)), "high": _r(feet(band.mean_high_m))},
        "fall_ft_s": {
            "value": _r(rated.fall_ft_s),
            "low": _r(rated.fall_ft_s * band.fall_low),
            "high": _r(rated.fall_ft_s * band.fall_high),
        },
        "cover": {"passes": _r(rated.cover.passes), "fouls": _r(rated.cover.fouls), "hangs": _r(rated.cover.hangs)},
        "fits": {"touch": None, **{k: _r(v) for k, v in rated.fits.parts.items()}},
        "score": _r(rated.fits.score),
        "limiting": rated.fits.limiting,
        "why": list(reasons(sizing, rated)),
    }
