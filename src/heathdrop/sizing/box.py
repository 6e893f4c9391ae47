"""Rigs from the angler's own box: which pairs are worth simulating when there are thousands."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from typing import TypeVar

from heathdrop.catalog import Catalog
from heathdrop.physics.rig import UNMEASURED, Rig, rig_by_name
from heathdrop.sizing.candidates import quick_worths
from heathdrop.sizing.setting import Setting

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


T = TypeVar("T", OwnedHead, OwnedTrailer)


def _distinct(pieces: Sequence[T], alike: Callable[[T], object]) -> list[T]:
    """One of each kind: a weighed piece stands for its likes before one that was not."""
    distinct: dict[object, T] = {}
    for piece in pieces:
        key = alike(piece)
        if key not in distinct or (distinct[key].mass_g is None and piece.mass_g is not None):
            distinct[key] = piece
    return list(distinct.values())


def box_rigs(setting: Setting, tackle: Tackle) -> list[Rig]:
    """The box's pairs for the setting's family: all of them, or the most promising for every head when there
    are too many.

    Pieces that are alike (same weight and metal; same shape, plastic and length to a quarter inch) are tried
    once.
    Depth cannot be judged without a cast, so every head keeps its share of the places: weight is what moves
    depth.
    """
    trailers = _distinct(
        tackle.trailers, lambda t: (t.shape, round(t.length_in / ALIKE_IN), t.plastic, t.softness, t.fused)
    )
    own = [h for h in tackle.heads if h.family == setting.family.id]
    heads = _distinct(own, lambda h: (h.weight_oz, h.material, h.skirt))
    rows = [[pair(setting.catalog, h, t) for t in trailers] for h in heads]
    if sum(map(len, rows)) > MOST_PAIRS:
        share = max(2, MOST_PAIRS // len(rows))
        rows = [_most_promising(setting, row)[:share] for row in rows]
    return [rig for row in rows for rig in row]


def _most_promising(setting: Setting, rigs: list[Rig]) -> list[Rig]:
    """Rigs by what they promise without a cast, the most first."""
    worths = quick_worths(setting, rigs)
    return [rigs[k] for k in sorted(range(len(rigs)), key=lambda k: -worths[k])]
