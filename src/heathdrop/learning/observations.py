"""What an angler saw: timed drops, depth checks, mats gone through or not."""

from dataclasses import dataclass

from heathdrop.physics.line import Line
from heathdrop.physics.rig import Rig


@dataclass(frozen=True)
class DropTest:
    """Timed drops of one rig on slack line. Depth m, seconds as timed, °F, ``surface_line_m`` dragged
    besides; ``place`` names a place whose depth is known by a chart or a sounder alone."""

    rig: Rig
    line: Line
    line_material: str
    depth_m: float
    times_s: tuple[float, ...]
    temperature_f: float = 60.0
    surface_line_m: float = 0.0
    place: str = ""


@dataclass(frozen=True)
class DepthCheck:
    """A rig ran at about this depth (m) at this pace (m/s), counted down ``count_s``, from a cast of
    ``cast_m``. With ``off_m`` it was only seen to run off what was said of it, about so much deeper
    (negative: higher), and ``depth_m`` says nothing."""

    rig: Rig
    line: Line
    pace_m_s: float
    count_s: float
    cast_m: float
    depth_m: float
    rod_tip_m: float = 0.6
    temperature_f: float = 60.0
    off_m: float = 0.0


@dataclass(frozen=True)
class MatCheck:
    """A quiet entry into a mat: through or stalled. Weight that counts and the catalogue's half-way weight,
    oz."""

    texture: str
    weight_oz: float
    halfway_oz: float
    through: bool


def body_key(rig: Rig) -> str:
    """Which heads share a fall factor: the family and head shape, at any weight. A skirt that is cut is
    another area and the same factor on it: what a whole one taught holds for a trimmed one too."""
    return f"{rig.family.id}/{rig.head_shape.id}"


def trailer_key(rig: Rig) -> str:
    """Which trailers share a fall factor: the shape at its length."""
    return f"{rig.trailer.id}/{rig.trailer_length_in:g}"


def lift_key(rig: Rig) -> str:
    """Which rigs share a lift factor: the family with the trailer."""
    return f"{rig.family.id}/{trailer_key(rig)}"
