"""Rigs from the angler's own box: which pairs are worth simulating when there are thousands."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from typing import TypeVar

from heathdrop.catalog import Catalog
from heathdrop.physics.rig import UNMEASURED, Rig, lure_of, rig_by_name
from heathdrop.physics.water import Water
from heathdrop.sizing.fit import LEAST_BULK_CM2, action_of
from heathdrop.sizing.targets import Targets
from heathdrop.units import M_PER_FT

#: Pairs of a family that are simulated at most; the rest are left out by their closed-form figures.
MOST_PAIRS = 200
#: Lengths this near (in) are the same trailer to the eye.
SAME_LENGTH_IN = 0.26
#: Trailers of a shape whose lengths fall into the same step (in) stand for one another when pairs are chosen.
ALIKE_IN = 0.25


@dataclass(frozen=True)
class OwnedHead:
    """A head in the box. Mass g where it was weighed."""

    family: str
    weight_oz: float
    material: str = "lead"
    mass_g: float | None = None
    skirt: str | None = None


@dataclass(frozen=True)
class OwnedTrailer:
    """A trailer in the box. Length and width in; mass g where it was weighed."""

    shape: str
    length_in: float
    mass_g: float | None = None
    width_in: float | None = None
    plastic: str = "neutral"
    softness: str = "soft"
    fused: bool = False

    def width_share(self, catalog: Catalog) -> float:
        """Its measured width over the usual for its length; 1 where it was not measured."""
        return (
            self.width_in / (catalog.trailers[self.shape].width_share * self.length_in)
            if self.width_in
            else 1.0
        )

    def bulk_cm2(self, catalog: Catalog) -> float:
        """What it adds to the drag on the move, cm², on whatever head."""
        head = next(iter(catalog.families.values()))
        return pair(catalog, OwnedHead(head.id, head.weights_oz[0]), self).bulk_cm2


@dataclass(frozen=True)
class Tackle:
    """Everything in the box that sizing needs, each distinct piece once."""

    heads: tuple[OwnedHead, ...] = ()
    trailers: tuple[OwnedTrailer, ...] = ()

    @property
    def families(self) -> frozenset[str]:
        """Lure families with a head in the box."""
        return frozenset(h.family for h in self.heads)

    def owns(self, rig: Rig) -> bool:
        """Whether the box holds this head and a trailer like this one."""
        head = any(h.family == rig.family.id and abs(h.weight_oz - rig.head_oz) < 1e-3 for h in self.heads)
        tail = rig.trailer.bare or any(
            t.shape == rig.trailer.id and abs(t.length_in - rig.trailer_length_in) <= SAME_LENGTH_IN
            for t in self.trailers
        )
        return head and tail


EMPTY = Tackle()


def tackle_of(heads: Iterable[OwnedHead], trailers: Iterable[OwnedTrailer]) -> Tackle:
    """A box with each distinct piece once, in the order it came."""
    return Tackle(tuple(dict.fromkeys(heads)), tuple(dict.fromkeys(trailers)))


def pair(catalog: Catalog, head: OwnedHead, trailer: OwnedTrailer) -> Rig:
    """The rig of a head and a trailer, with what was weighed and measured; fused appendages glide and stir
    less."""
    rig = rig_by_name(
        catalog,
        head.family,
        head.weight_oz,
        trailer.shape,
        head_material=head.material,
        skirt=head.skirt,
        trailer_length_in=trailer.length_in,
        plastic=trailer.plastic,
        softness=trailer.softness,
        fused=trailer.fused,
    )
    width = trailer.width_share(catalog)
    return replace(
        rig, measured=replace(UNMEASURED, head_g=head.mass_g, trailer_g=trailer.mass_g, width=width)
    )


def _off(value: float, band: tuple[float, float]) -> float:
    """How far outside a band, in logs."""
    return max(math.log(band[0] / value), math.log(value / band[1]), 0.0) if value > 0.0 else 9.0


def quick_worth(catalog: Catalog, rig: Rig, targets: Targets, water: Water, temperature_f: float) -> float:
    """A rig's promise without a cast: its fall, action and profile against the targets, as a log (0 best)."""
    lure = lure_of(catalog, rig, water.density_kg_m3, temperature_f)
    fall = (
        math.sqrt(2.0 * max(lure.net_weight_n, 0.0) / (water.density_kg_m3 * lure.fall_drag_area_m2))
        / M_PER_FT
    )
    numbers = catalog.judgement.fit
    action = (action_of(catalog, rig) - targets.action) / numbers.action_edge
    bulk = max(rig.bulk_cm2, LEAST_BULK_CM2)
    off = (_off(fall, targets.fall_ft_s) / numbers.fall_edge) ** 2
    off += (_off(bulk, targets.bulk_cm2) / numbers.profile_edge) ** 2
    return -off - action**2 + math.log(max(rig.family.suits.get(rig.trailer.id, 1.0), 1e-3))


T = TypeVar("T", OwnedHead, OwnedTrailer)


def _distinct(pieces: Sequence[T], alike: Callable[[T], object]) -> list[T]:
    """One of each kind: a weighed piece stands for its likes before one that was not."""
    kept: dict[object, T] = {}
    for piece in pieces:
        key = alike(piece)
        if key not in kept or (kept[key].mass_g is None and piece.mass_g is not None):
            kept[key] = piece
    return list(kept.values())


def box_rigs(
    catalog: Catalog,
    tackle: Tackle,
    families: Sequence[str],
    targets: Targets,
    water: Water,
    temperature_f: float,
) -> list[Rig]:
    """The box's pairs for these families: all of them, or the most promising for every head when there are
    too many.

    Pieces that are alike (same weight and metal; same shape, plastic and length to a quarter inch) are tried
    once.
    Depth cannot be judged without a cast, so every head keeps its share of the places: weight is what moves
    depth.
    """
    found: list[Rig] = []
    trailers = _distinct(
        tackle.trailers, lambda t: (t.shape, round(t.length_in / ALIKE_IN), t.plastic, t.softness, t.fused)
    )
    for family in families:
        own = [h for h in tackle.heads if h.family == family]
        heads = _distinct(own, lambda h: (h.weight_oz, h.material, h.skirt))
        rows = [[pair(catalog, h, t) for t in trailers] for h in heads]
        if sum(map(len, rows)) > MOST_PAIRS:
            share = max(2, MOST_PAIRS // len(rows))
            rows = [
                sorted(r, key=lambda x: -quick_worth(catalog, x, targets, water, temperature_f))[:share]
                for r in rows
            ]
        found += [rig for row in rows for rig in row]
    return found
