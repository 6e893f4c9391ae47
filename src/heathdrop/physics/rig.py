"""A rig as the water meets it: from parts to weight and areas.

Parts are head, hardware, skirt and trailer. Their masses and densities give
the net weight; their areas (each a coefficient times an area) add up to the
three numbers that carry bulk: fall drag, run drag and run lift.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from heathdrop.catalog import Catalog, Family, HeadShape, Material, Skirt, Trailer
from heathdrop.errors import BadInput, require_between
from heathdrop.units import GRAVITY_M_S2, kilograms, square_metres


@dataclass(frozen=True)
class Lure:
    """What the simulation needs of a rig, SI: kg, N, m²; ``glide_ratio`` sideways per down."""

    mass_kg: float
    net_weight_n: float
    fall_drag_area_m2: float
    run_drag_area_m2: float
    run_lift_area_m2: float
    glide_ratio: float = 0.0
    fades: bool = True


@dataclass(frozen=True)
class Rig:
    """A rig by its parts. ``head_kg`` is the head alone, ``trailer_length_in`` as rigged."""

    family: Family
    head_shape: HeadShape
    head_material: Material
    head_oz: float
    skirt: Skirt
    trailer: Trailer
    trailer_length_in: float


def rig_by_name(
    catalog: Catalog,
    family: str,
    head_oz: float,
    trailer: str,
    *,
    head_material: str = "lead",
    trailer_length_in: float | None = None,
    skirt: str | None = None,
    at: str = "",
) -> Rig:
    """A rig from catalogue names; BadInput names what is unknown or out of range.

    ``at`` goes before the field names in messages (``lure.`` for a simulated case).
    """
    kind: Family = catalog.pick("families", at + "family", family)
    material: Material = catalog.pick("materials", at + "head_material", head_material)
    if not material.head:
        heads = ", ".join(m.id for m in catalog.materials.values() if m.head)
        raise BadInput(at + "head_material", head_material, f"one of {heads}")
    tail: Trailer = catalog.pick("trailers", at + "trailer", trailer)
    dress: Skirt = catalog.pick("skirts", at + "skirt", skirt or kind.skirt)
    require_between(at + "head_oz", head_oz, 1 / 32, 4.0, "oz")
    length = tail.length_in if trailer_length_in is None or tail.id == "none" else trailer_length_in
    if tail.id != "none":
        require_between(at + "trailer_length_in", length, 0.5, 10.0, "in")
    return Rig(kind, catalog.heads[kind.head_shape], material, head_oz, dress, tail, length)


def disc_area_m2(mass_kg: float, density_kg_m3: float) -> float:
    """Area (m²) of the circle across the sphere of the head's volume, π (3V/4π)^(2/3)."""
    volume = mass_kg / density_kg_m3
    return math.pi * math.pow(3.0 * volume / (4.0 * math.pi), 2.0 / 3.0)


def trailer_scale(rig: Rig) -> float:
    """Length as rigged over listed length (1 for no trailer)."""
    return rig.trailer_length_in / rig.trailer.length_in if rig.trailer.length_in else 1.0


def lure_of(catalog: Catalog, rig: Rig, water_density_kg_m3: float) -> Lure:
    """The rig's mass, net weight and areas in water of the given density.

    Trailer areas scale with length squared, its mass with length cubed.
    """
    grams = 1e-3
    head_kg = kilograms(rig.head_oz)
    scale = trailer_scale(rig)
    parts = (
        (head_kg, rig.head_material.density_g_cm3),
        (rig.family.hardware_g * grams, catalog.materials["steel"].density_g_cm3),
        (rig.skirt.mass_g * grams, catalog.materials["silicone"].density_g_cm3),
        (rig.trailer.mass_g * scale**3 * grams, catalog.materials["neutral"].density_g_cm3),
    )
    mass = sum(m for m, _ in parts)
    net = GRAVITY_M_S2 * sum(m * (1.0 - water_density_kg_m3 / (rho * 1000.0)) for m, rho in parts)
    disc = disc_area_m2(head_kg, rig.head_material.density_g_cm3 * 1000.0)
    body, tail = rig.family, rig.trailer
    square = scale * scale
    fall = body.fall_drag_area_cm2 + rig.skirt.fall_drag_area_cm2 + square * tail.fall_drag_area_cm2
    run = body.run_drag_area_cm2 + square * tail.run_drag_area_cm2
    lift = body.run_lift_area_cm2 + square * tail.run_lift_area_cm2
    return Lure(
        mass_kg=mass,
        net_weight_n=net,
        fall_drag_area_m2=rig.head_shape.fall_factor * disc + square_metres(fall),
        run_drag_area_m2=catalog.model.head_run_factor * disc + square_metres(run),
        run_lift_area_m2=square_metres(lift),
    )


@dataclass(frozen=True)
class Spread:
    """One sigma, relative, of a rig's fall drag, run drag and run lift areas."""

    fall: float
    run: float
    lift: float


def spread_of(catalog: Catalog, rig: Rig) -> Spread:
    """Spread of the rig's areas from its parts' spreads, taken as independent."""
    source = catalog.provenance
    square = trailer_scale(rig) ** 2
    head = kilograms(rig.head_oz)
    disc = disc_area_m2(head, rig.head_material.density_g_cm3 * 1000.0) * 1e4
    body, tail, dress = rig.family, rig.trailer, rig.skirt

    def joined(*parts: tuple[float, float]) -> float:
        total = sum(a for a, _ in parts)
        return math.sqrt(sum((a * s) ** 2 for a, s in parts)) / total if total > 0.0 else 0.0

    family, trailer = source["families"], source["trailers"]
    return Spread(
        fall=joined(
            (rig.head_shape.fall_factor * disc, source["heads"]["fall_factor"].spread),
            (body.fall_drag_area_cm2, family["fall_drag_area_cm2"].spread),
            (dress.fall_drag_area_cm2, source["skirts"]["fall_drag_area_cm2"].spread),
            (square * tail.fall_drag_area_cm2, trailer["fall_drag_area_cm2"].spread),
        ),
        run=joined(
            (catalog.model.head_run_factor * disc, source["model"]["head_run_factor"].spread),
            (body.run_drag_area_cm2, family["run_drag_area_cm2"].spread),
            (square * tail.run_drag_area_cm2, trailer["run_drag_area_cm2"].spread),
        ),
        lift=joined(
            (body.run_lift_area_cm2, family["run_lift_area_cm2"].spread),
            (square * tail.run_lift_area_cm2, trailer["run_lift_area_cm2"].spread),
        ),
    )
