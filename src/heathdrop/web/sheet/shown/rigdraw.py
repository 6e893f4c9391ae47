"""The rig drawn to scale from its own dimensions, side on, nose to the left."""

import math
from dataclasses import dataclass

from heathdrop import catalog as catalogue
from heathdrop.measures import marks
from heathdrop.physics.rig import Rig
from heathdrop.units import M_PER_IN, inches_said, kilograms, ounces_as_written

#: Drawing units per inch, margins and the height of the rig's axis.
PER_IN, LEFT, AXIS = 84.0, 34.0, 92.0
WIDTH, HEIGHT = 640.0, 196.0
#: A skirt as it comes reaches this far past the bend (in); cut, an eighth of an inch.
UNCUT_IN, CUT_IN = 0.85, 0.125
STRANDS = {"full": 15, "trimmed": 9, "thin": 7, "none": 0}


@dataclass(frozen=True)
class Piece:
    """A drawn part: an SVG path, its style class and its transform."""

    cls: str
    path: str
    transform: str = ""


@dataclass(frozen=True)
class Note:
    x: float
    y: float
    text: str
    anchor: str = "start"


@dataclass(frozen=True)
class RigDrawing:
    """The drawing and its words; ``ruler`` ticks are an inch (or a centimetre) apart."""

    width: float
    height: float
    pieces: tuple[Piece, ...]
    notes: tuple[Note, ...]
    ruler: tuple[Note, ...]
    ruler_y: float
    said: str


def head_size_in(rig: Rig) -> tuple[float, float, float]:
    """Length, height and width (in) of the head: its shape's proportions at its own volume.

    A tungsten head of the same weight has two thirds of the volume, and is drawn so.
    """
    volume = kilograms(rig.head_oz) / (rig.head_material.density_g_cm3 * 1000.0)
    ball = math.pow(6.0 * volume / math.pi, 1.0 / 3.0) / M_PER_IN
    shape = rig.head_shape
    # An ellipsoid of these proportions has the ball's volume times their product.
    even = math.pow(shape.long * shape.tall * shape.wide, -1.0 / 3.0)
    return ball * even * shape.long, ball * even * shape.tall, ball * even * shape.wide


def draw_rig(rig: Rig, skirt_cut: bool = False, body_cut_in: float = 0.0) -> RigDrawing:
    """Draw a rig. ``skirt_cut`` trims the skirt past the bend; ``body_cut_in`` marks where the body is
    shortened (in)."""
    long, tall, wide = head_size_in(rig)
    loose = rig.family.pegged
    pieces: list[Piece] = []
    notes: list[Note] = []
    front = LEFT + rig.family.front_in * PER_IN
    back = front + long * PER_IN
    shank, gap = rig.family.hook_in
    bend = back + (shank - (0.0 if loose else 0.3)) * PER_IN
    pieces += _wire(rig, front, tall)
    pieces.append(_trailer(rig, back if not loose else back + 3.0))
    pieces.append(_hook(back, bend, gap))
    strands = STRANDS.get(rig.skirt.id, 0)
    reach = bend + (CUT_IN if skirt_cut else UNCUT_IN) * PER_IN
    pieces += [_strand(k, strands, back, reach, tall) for k in range(strands)]
    if rig.family.guarded:
        pieces += [_guard(k, front, long, tall, bend) for k in range(4)]
    shape = rig.head_shape
    place = f"translate({front:.1f} {AXIS}) scale({long * PER_IN:.2f} {tall * PER_IN:.2f})"
    pieces.append(Piece("head", shape.outline, place))
    pieces.append(
        Piece("eye", f"M{front + 4:.1f},{AXIS - 3.5} m-9,0 a4.500,4.500 0 1,0 9,0 a4.500,4.500 0 1,0 -9,0")
    )
    notes.append(
        Note(front + 0.5 * long * PER_IN, AXIS + 0.5 * tall * PER_IN + 18, f"{tall:.2f} in", "middle")
    )
    notes += _notes(
        rig,
        back,
        reach=reach,
        skirt_cut=skirt_cut,
        skirted=strands > 0,
        body_cut_in=body_cut_in,
        pieces=pieces,
    )
    ticks = marks((WIDTH - LEFT - 10) / PER_IN, "in", (1.0,), 100)
    ruler = tuple(Note(LEFT + at * PER_IN, HEIGHT - 6, said) for at, said in ticks)
    return RigDrawing(
        width=WIDTH,
        height=HEIGHT,
        pieces=tuple(pieces),
        notes=tuple(notes),
        ruler=ruler,
        ruler_y=HEIGHT - 22,
        said=_said(rig, tall, wide, skirt_cut),
    )


def _trailer(rig: Rig, back: float) -> Piece:
    """The trailer at its length, deep when on edge, thinner when flat; floating plastic is drawn tail up."""
    if rig.trailer.bare:
        return Piece("plastic", "M0,0")
    flat = 0.62 if rig.orientation.lift_factor == 1.0 and rig.trailer.appendages >= 2 else 1.0
    deep = rig.trailer.deep * flat * rig.trailer_length_in * PER_IN
    turn = {"floating": -7, "salted": 4}.get(rig.plastic.id, 0)
    start = back - 0.12 * PER_IN
    scale = f"scale({rig.trailer_length_in * PER_IN:.1f} {deep:.1f})"
    return Piece("plastic", rig.trailer.outline, f"translate({start:.1f} {AXIS}) rotate({turn}) {scale}")


def _hook(back: float, bend: float, gap: float) -> Piece:
    r = 0.5 * gap * PER_IN
    path = (
        f"M{back - 12:.1f},{AXIS} L{bend - r:.1f},{AXIS} A{r:.1f},{r:.1f} 0 0 0 "
        f"{bend - r:.1f},{AXIS - 2 * r:.1f} "
        f"l-{0.75 * r:.1f},-1.5 l6,-5"
    )
    return Piece("hook", path)


def _strand(k: int, count: int, back: float, reach: float, tall: float) -> Piece:
    """One strand of the skirt, flared from the collar."""
    at = (k + 0.5) / count - 0.5
    spread = at * max(tall, 0.35) * PER_IN * 1.9
    end = reach - 10.0 * abs(math.sin(k * 2.4))
    middle = back + 0.4 * (reach - back)
    collar = back - 4
    root = AXIS + 0.5 * at * tall * PER_IN
    bow = f"Q{middle:.1f},{AXIS + 1.25 * spread:.1f} {end:.1f},{AXIS + spread:.1f}"
    return Piece("strand", f"M{collar:.1f},{root:.1f} {bow}")


def _guard(k: int, front: float, long: float, tall: float, bend: float) -> Piece:
    """A strand of the weed guard, from the top of the head back over the hook's point."""
    x, y = front + (0.45 + 0.05 * k) * long * PER_IN, AXIS - 0.42 * tall * PER_IN
    return Piece(
        "guard",
        f"M{x:.1f},{y:.1f} L{0.45 * front + 0.55 * bend + 6 * k:.1f},{AXIS - 0.62 * PER_IN - 3 * k:.1f}",
    )


def _wire(rig: Rig, front: float, tall: float) -> list[Piece]:
    """Blade or wire arm in front of, above or below the head."""
    shapes = catalogue.load().blade_outlines

    def hung(cls: str, name: str, x_in: float, y_in: float, turn: int = 0) -> Piece:
        x, y = front + x_in * PER_IN, AXIS + y_in * PER_IN
        at = f"translate({x:.1f} {y:.1f}) rotate({turn}) scale({PER_IN:g})"
        return Piece(cls, shapes[name], at)

    if rig.family.blade == "front":
        return [hung("blade", "bladed", 0.0, 0.0)]
    if rig.family.blade == "arm":
        single = rig.blades == catalogue.load().blades["colorado"]
        far = hung("blade", "colorado" if single else "willow", 2.1, -0.86, 3)
        near = [] if single else [hung("blade", "colorado", 1.05, -0.62, -4)]
        return [hung("wire", "arm", 0.0, 0.0), *near, far]
    if rig.family.blade == "under":
        return [hung("wire", "hanger", 0.0, 0.5 * tall), hung("blade", "spin", 0.35, 0.5 * tall + 0.25)]
    return []


def _notes(
    rig: Rig,
    back: float,
    reach: float,
    skirt_cut: bool,
    skirted: bool,
    body_cut_in: float,
    pieces: list[Piece],
) -> list[Note]:
    """Where to cut, and how long things are; cut lines are added to ``pieces``."""
    notes = []
    if skirted and skirt_cut:
        pieces.append(Piece("cut", f"M{reach:.1f},{AXIS - 50} V{AXIS + 68}"))
        notes.append(Note(reach + 7, AXIS + 64, "cut the skirt here, 1/8 in past the bend"))
    if not rig.trailer.bare:
        start = back - 0.12 * PER_IN
        end = start + rig.trailer_length_in * PER_IN
        sentence = f"{rig.trailer.name}, {inches_said(rig.trailer_length_in)} in"
        room = end + 9.0 * len(sentence) < WIDTH
        notes.append(Note(end + 8, AXIS + 5, sentence) if room else Note(WIDTH - 6, 16, sentence, "end"))
        if body_cut_in > 0.0:
            x = start + body_cut_in * PER_IN
            pieces.append(Piece("cut", f"M{x:.1f},{AXIS - 26} V{AXIS + 26}"))
    return notes


def _said(rig: Rig, tall: float, wide: float, skirt_cut: bool) -> str:
    """The drawing in words."""
    skirt = (
        f"{rig.skirt.name}{', cut an eighth of an inch past the bend' if skirt_cut else ''}"
        if not rig.skirt.bare
        else "no skirt"
    )
    turned = "turned on edge" if rig.orientation.lift_factor < 1.0 else "laid flat"
    tail = (
        f"{rig.trailer.name} of {inches_said(rig.trailer_length_in)} in, {turned}"
        if not rig.trailer.bare
        else "no trailer"
    )
    return (
        f"To scale: {ounces_as_written(rig.head_oz)} oz {rig.head_shape.name} head of "
        f"{rig.head_material.name}, "
        f"{tall:.2f} in tall and {wide:.2f} in wide; {skirt}; {tail}."
    )
