"""A rig as the water meets it: from parts to weight and areas.

Parts are head, hardware, skirt and trailer. Their masses and densities give
the net weight; their areas (each a coefficient times an area) add up to the
three numbers that carry bulk: fall drag, run drag and run lift.
"""

import math
from dataclasses import dataclass, replace
from functools import cached_property

from heathdrop.catalog import (
    Blades,
    Catalog,
    Family,
    HeadShape,
    Material,
    Orientation,
    Plastic,
    Skirt,
    Softness,
    Trailer,
)
from heathdrop.errors import BadInput, require_between
from heathdrop.units import GRAVITY_M_S2, kilograms, square_metres


@dataclass(frozen=True)
class Lure:
    """What the simulation needs of a rig, SI: kg, N, m²; ``glide_ratio`` sideways per down, ``bottom_grip``
    friction."""

    mass_kg: float
    net_weight_n: float
    fall_drag_area_m2: float
    run_drag_area_m2: float
    run_lift_area_m2: float
    glide_ratio: float = 0.0
    fades: bool = True
    bottom_grip: float = 0.5


@dataclass(frozen=True)
class Measured:
    """What the angler's own measurements say of a rig: masses (g), factors on areas, and how sure they are.

    ``width`` is the trailer's measured over its usual width, a factor on its areas.
    ``body`` is everything but the trailer (head, base, skirt). Spreads are one sigma of the log;
    None leaves the catalogue's. ``fall_joint`` is the covariance of the two fall factors' logs.
    """

    head_g: float | None = None
    trailer_g: float | None = None
    width: float = 1.0
    body_fall: float = 1.0
    trailer_fall: float = 1.0
    lift: float = 1.0
    body_fall_spread: float | None = None
    trailer_fall_spread: float | None = None
    timed: bool = False
    fall_joint: float = 0.0
    lift_spread: float | None = None


UNMEASURED = Measured()


@dataclass(frozen=True)
class Rig:
    """A rig by its parts. ``head_oz`` is the head alone, ``trailer_length_in`` as rigged."""

    family: Family
    head_shape: HeadShape
    head_material: Material
    head_oz: float
    skirt: Skirt
    trailer: Trailer
    trailer_length_in: float
    plastic: Plastic
    softness: Softness
    orientation: Orientation
    blades: Blades | None = None
    fused: bool = False
    measured: Measured = UNMEASURED

    @property
    def head_kg(self) -> float:
        """Mass of the head alone: weighed where it was, else nominal."""
        return kilograms(self.head_oz) if self.measured.head_g is None else self.measured.head_g * 1e-3

    @cached_property
    def length_share(self) -> float:
        """Length as rigged over listed length (1 for no trailer)."""
        return 1.0 if self.trailer.bare else self.trailer_length_in / self.trailer.length_in

    @cached_property
    def bulk_cm2(self) -> float:
        """What the trailer adds to the drag on the move, cm², at its length and measured width. 0 without
        one."""
        return self.trailer.run_drag_area_cm2 * self.length_share**2 * self.measured.width

    @property
    def trailer_kg(self) -> float:
        """Mass of the trailer as rigged: weighed where it was, else by its length's cube."""
        if self.measured.trailer_g is not None:
            return self.measured.trailer_g * 1e-3
        return self.trailer.mass_g * self.length_share**3 * 1e-3


def rig_by_name(
    catalog: Catalog,
    family: str,
    head_oz: float,
    trailer: str,
    *,
    head_material: str = "lead",
    trailer_length_in: float | None = None,
    skirt: str | None = None,
    head_shape: str | None = None,
    plastic: str | None = None,
    softness: str | None = None,
    orientation: str | None = None,
    blades: str | None = None,
    fused: bool = False,
    at: str = "",
) -> Rig:
    """A rig from catalogue names; BadInput names what is unknown or out of range.

    ``at`` goes before the field names in messages (``lure.`` for a simulated case).
    """
    kind: Family = catalog.pick(catalog.families, at + "family", family)
    heads = {m.id: m for m in catalog.materials.values() if m.head}
    material: Material = catalog.pick(heads, at + "head_material", head_material)
    tail: Trailer = catalog.pick(catalog.trailers, at + "trailer", trailer)
    dress: Skirt = catalog.pick(catalog.skirts, at + "skirt", skirt or kind.skirt)
    require_between(at + "head_oz", head_oz, 1 / 32, 4.0, "oz")
    length = tail.length_in if trailer_length_in is None or tail.bare else trailer_length_in
    if not tail.bare:
        require_between(at + "trailer_length_in", length, 0.5, 10.0, "in")
    if blades is not None and not kind.blades:
        raise BadInput(at + "blades", blades, f"left out: a {kind.name} has no blades to choose")
    hung = {b.id: b for b in catalog.blades.values() if b.hangs == kind.blade}
    set_ = catalog.pick(hung, at + "blades", blades or kind.blades) if kind.blades else None
    if fused and tail.appendages >= 2:
        tail = fused_of(catalog, tail)
    return Rig(
        family=kind,
        head_shape=catalog.pick(catalog.heads, at + "head_shape", head_shape or kind.head_shape),
        head_material=material,
        head_oz=head_oz,
        skirt=dress,
        trailer=tail,
        trailer_length_in=length,
        plastic=catalog.pick(catalog.plastic, at + "plastic", plastic or "neutral"),
        softness=catalog.pick(catalog.softness, at + "softness", softness or "soft"),
        orientation=catalog.pick(catalog.orientation, at + "orientation", orientation or "flat"),
        blades=set_,
        fused=fused and tail.appendages >= 2,
    )


def fused_of(catalog: Catalog, trailer: Trailer) -> Trailer:
    """A trailer whose appendages are left joined: it glides, stirs less and catches less."""
    joined = catalog.fused
    return replace(
        trailer,
        glide=max(trailer.glide, joined.glide),
        action=joined.action_kept * trailer.action,
        catching=joined.catching_kept * trailer.catching,
    )


def disc_area_m2(mass_kg: float, density_kg_m3: float) -> float:
    """Area (m²) of the circle across the sphere of the head's volume, π (3V/4π)^(2/3)."""
    volume = mass_kg / density_kg_m3
    return math.pi * math.pow(3.0 * volume / (4.0 * math.pi), 2.0 / 3.0)


def stiffness(catalog: Catalog, temperature_f: float) -> float:
    """How far the cold has stiffened plastic, 0 (not at all) to 1 (at its coldest)."""
    warm, cold = catalog.cold.stiffens_below_f, catalog.cold.coldest_f
    return min(1.0, max(0.0, (warm - temperature_f) / (warm - cold)))


def liveliness(catalog: Catalog, rig: Rig, temperature_f: float) -> float:
    """Share of its action a trailer keeps in water of this temperature."""
    return 1.0 - rig.softness.action_lost * stiffness(catalog, temperature_f)


@dataclass(frozen=True)
class Areas:
    """A rig's areas part by part, cm²: (head, family base, skirt, trailer)."""

    fall: tuple[float, float, float, float]
    run: tuple[float, float, float, float]
    lift: tuple[float, float, float, float]


def areas_of(catalog: Catalog, rig: Rig, temperature_f: float) -> Areas:
    """Fall drag, run drag and run lift of each part (cm²) in water of this temperature.

    Trailer areas scale with length squared; cold, orientation and trailing in line take their share.
    """
    disc = disc_area_m2(rig.head_kg, rig.head_material.density_g_cm3 * 1000.0) * 1e4
    base, tail = rig.blades or rig.family, rig.trailer
    square = rig.length_share**2 * rig.measured.width
    alive = 1.0 - rig.softness.drag_lost * stiffness(catalog, temperature_f) * min(1.0, tail.appendages)
    turned, own = rig.orientation, rig.measured
    # What a timed fall says of a part says something of it on the move too.
    moving = catalog.judgement.learning.run_with_fall
    body, trailer = own.body_fall**moving, own.trailer_fall**moving
    return Areas(
        fall=(
            own.body_fall * rig.head_shape.fall_factor * disc,
            own.body_fall * base.fall_drag_area_cm2,
            own.body_fall * rig.skirt.fall_drag_area_cm2,
            own.trailer_fall * square * alive * tail.fall_drag_area_cm2,
        ),
        run=(
            body * catalog.model.head_run_factor * disc,
            body * base.run_drag_area_cm2,
            0.0,
            trailer * square * alive * turned.run_factor * tail.run_drag_area_cm2,
        ),
        lift=(
            0.0,
            own.lift * base.run_lift_area_cm2,
            0.0,
            own.lift * square * alive * turned.lift_factor * rig.family.lift_kept * tail.run_lift_area_cm2,
        ),
    )


def lure_of(
    catalog: Catalog, rig: Rig, water_density_kg_m3: float, temperature_f: float, areas: Areas | None = None
) -> Lure:
    """The rig's mass, net weight, areas and glide in water of the given density and temperature; ``areas``
    are its own there, where they are known already."""
    grams = 1e-3
    plastic = catalog.materials[rig.plastic.material]
    parts = (
        (rig.head_kg, rig.head_material.density_g_cm3),
        (rig.family.hardware_g * grams, catalog.materials["steel"].density_g_cm3),
        (rig.skirt.mass_g * grams, catalog.materials["silicone"].density_g_cm3),
        (rig.trailer_kg, plastic.density_g_cm3),
    )
    mass = sum(m for m, _ in parts)
    net = GRAVITY_M_S2 * sum(m * (1.0 - water_density_kg_m3 / (rho * 1000.0)) for m, rho in parts)
    areas = areas or areas_of(catalog, rig, temperature_f)
    fall = sum(areas.fall)
    # The trailer glides, head and skirt do not: the rig glides by the trailer's share of the fall area.
    glide = rig.trailer.glide * rig.plastic.glide_factor * areas.fall[3] / fall if fall > 0.0 else 0.0
    return Lure(
        mass_kg=mass,
        net_weight_n=net,
        fall_drag_area_m2=square_metres(fall),
        run_drag_area_m2=square_metres(sum(areas.run)),
        run_lift_area_m2=square_metres(sum(areas.lift)),
        glide_ratio=glide,
        bottom_grip=catalog.model.bottom_grip,
    )


def as_seen(lure: Lure, factor: float) -> Lure:
    """A lure whose drag and lift on the move are so many times what the catalogue has, as a cast showed."""
    if factor == 1.0:
        return lure
    return replace(
        lure,
        run_drag_area_m2=factor * lure.run_drag_area_m2,
        run_lift_area_m2=factor * lure.run_lift_area_m2,
    )


@dataclass(frozen=True)
class Spread:
    """One sigma, relative, of a rig's fall drag, run drag and run lift areas; ``fall_more``, ``run_more``
    and ``lift_more`` (log) are how far the median of their parts' sum lies above the sum of their medians."""

    fall: float
    run: float
    lift: float
    fall_more: float = 0.0
    run_more: float = 0.0
    lift_more: float = 0.0


def spread_of(catalog: Catalog, rig: Rig, temperature_f: float, areas: Areas | None = None) -> Spread:
    """Spread of the rig's ``areas`` there from its parts' spreads, taken as independent.

    What was learned of the fall narrows the drag on the move by what the two share.
    """
    areas = areas or areas_of(catalog, rig, temperature_f)
    head = catalog.spread("heads", "fall_factor"), catalog.spread("model", "head_run_factor"), 0.0
    columns = ("fall_drag_area_cm2", "run_drag_area_cm2", "run_lift_area_cm2")

    def spreads(k: int) -> tuple[float, float, float, float]:
        of_skirt = catalog.spread("skirts", "fall_drag_area_cm2")
        return (
            head[k],
            catalog.spread("families", columns[k]),
            of_skirt,
            catalog.spread("trailers", columns[k]),
        )

    def joined(parts: tuple[float, ...], k: int) -> float:
        total = sum(parts)
        if total <= 0.0:
            return 0.0
        return math.sqrt(sum((a * s) ** 2 for a, s in zip(parts, spreads(k), strict=True))) / total

    own = rig.measured
    fall = prior = joined(areas.fall, 0)
    fall_more = _median_more(areas.fall, spreads(0))
    if own.body_fall_spread is not None or own.trailer_fall_spread is not None:
        fall_more = 0.0
        fall = _learned_fall_spread(
            areas.fall,
            own,
            catalog.spread("trailers", "fall_drag_area_cm2"),
            joined((*areas.fall[:3], 0.0), 0),
        )
    shared = catalog.judgement.learning.run_with_fall**2
    learned = min(1.0, fall / prior) ** 2 if prior > 0.0 else 1.0
    run = joined(areas.run, 1) * math.sqrt(1.0 - shared * (1.0 - learned))
    lift_more = _median_more(areas.lift, spreads(2)) if own.lift_spread is None else 0.0
    return Spread(
        fall=fall,
        run=run,
        lift=joined(areas.lift, 2) if own.lift_spread is None else own.lift_spread,
        fall_more=fall_more,
        run_more=_median_more(areas.run, spreads(1)),
        lift_more=lift_more,
    )


def _median_more(parts: tuple[float, ...], spreads: tuple[float, ...]) -> float:
    """How far (log) the median of a sum of log-normal parts lies above the sum of their medians, the sum
    taken as log-normal of the same mean and variance (Fenton, IRE Trans. Commun. Syst. 8, 1960)."""
    total = sum(parts)
    if total <= 0.0:
        return 0.0
    mean = sum(a * math.exp(0.5 * s * s) for a, s in zip(parts, spreads, strict=True))
    variance = sum(
        (a * math.exp(0.5 * s * s)) ** 2 * math.expm1(s * s) for a, s in zip(parts, spreads, strict=True)
    )
    return math.log(mean / total) - 0.5 * math.log1p(variance / mean**2)


def _learned_fall_spread(fall: tuple[float, ...], own: Measured, of_trailer: float, of_body: float) -> float:
    """Spread of the whole fall area from the learned spreads of body and trailer and their covariance."""
    body, tail = sum(fall[:3]), fall[3]
    b = of_body if own.body_fall_spread is None else own.body_fall_spread
    t = of_trailer if own.trailer_fall_spread is None else own.trailer_fall_spread
    variance = (body * b) ** 2 + (tail * t) ** 2 + 2.0 * body * tail * own.fall_joint
    return math.sqrt(max(variance, 0.0)) / (body + tail) if body + tail > 0.0 else 0.0
