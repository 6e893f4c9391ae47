"""The bottom as driven: depths over distance run, what is out of line marked, a profile to cast over."""

import math
from dataclasses import dataclass, field
from threading import Lock

import gpxpy
import gpxpy.gpx
import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import median_filter, uniform_filter1d

from heathdrop.errors import BadInput
from heathdrop.units import M_PER_FT

Floats = NDArray[np.float64]
#: A position counts as moved from so far on, ft: a receiver at rest wanders less.
MOVED_FT = 2.0
#: A receiver that moves by more than this between two fixes (ft) has lost itself.
JUMPED_FT = 3000.0
#: The longest run that is drawn, ft.
LONGEST_RUN_FT = 20.0 * 5280.0
#: Soundings of a run at most: two hours of one a second.
MOST = 7200
#: Soundings that a sounding is held against; so far from their middle (ft; share of it) it is out of line.
WINDOW, OFF_FT, OFF_SHARE = 7, 1.0, 0.12
#: Soundings that are smoothed together.
SMOOTH = 3
#: A profile keeps the points that it needs to be this true (ft), at most so many.
TRUE_FT, POINTS = 0.25, 24
#: The mean radius of the Earth, m.
EARTH_M = 6_371_008.8


@dataclass(frozen=True)
class Sounding:
    """A depth at a distance run, ft, and where that was (degrees; None where it is not known)."""

    ran_ft: float
    depth_ft: float
    lat: float | None = None
    lon: float | None = None


@dataclass
class Track:
    """The soundings of a run while it is recorded."""

    recording: bool = False
    soundings: list[Sounding] = field(default_factory=list)
    _at: tuple[float, float] | None = None
    _ran_ft: float = 0.0
    _lock: Lock = field(default_factory=Lock, repr=False)

    def begin(self) -> None:
        """Record from here; the run before is forgotten."""
        with self._lock:
            self.soundings, self._at, self._ran_ft, self.recording = [], None, 0.0, True

    def end(self) -> None:
        """Record no more; the run stays."""
        self.recording = False

    def take(self, soundings: list[Sounding]) -> None:
        """A run that was recorded elsewhere, in the place of this one."""
        with self._lock:
            self.soundings, self.recording = soundings[:MOST], False

    def moved(self, lat: float, lon: float) -> None:
        """The boat is here."""
        if not self.recording or not _on_earth(lat, lon):
            return
        with self._lock:
            if self._at is not None:
                far = apart_ft(*self._at, lat, lon)
                if far < MOVED_FT or far > JUMPED_FT:
                    return
                self._ran_ft += far
            self._at = lat, lon

    def sounded(self, depth_ft: float) -> None:
        """The bottom is so deep here; nothing before the first position."""
        with self._lock:
            if self.recording and self._at is not None and len(self.soundings) < MOST:
                self.soundings.append(Sounding(self._ran_ft, depth_ft, *self._at))


@dataclass(frozen=True)
class Driven:
    """A run as a profile: its soundings, which of them are out of line, and the smoothed bottom (ft, ft)."""

    ran_ft: Floats
    depth_ft: Floats
    off: NDArray[np.bool_]
    smooth_ft: Floats

    def profile(self, cast_ft: float, boat_at: str = "end") -> tuple[tuple[float, float], ...]:
        """The bottom under a cast of so many feet along the run, as (distance from the angler, depth);
        ``boat_at`` is the end of the run that the boat lies at. Raises BadInput for too short a run."""
        ran, depth = self.ran_ft[~self.off], self.smooth_ft[~self.off]
        away = ran[-1] - ran[::-1] if boat_at == "end" else ran - ran[0]
        deep = depth[::-1] if boat_at == "end" else depth
        keep = away <= 1.2 * cast_ft
        if keep.sum() < 3 or away[keep][-1] < 0.25 * cast_ft:
            raise BadInput("the run", f"{away[-1]:.0f} ft long", f"at least {0.25 * cast_ft:.0f} ft")
        return simplified(away[keep], deep[keep])


def _on_earth(lat: float | None, lon: float | None) -> bool:
    """Whether two numbers are a position: degrees within their ranges, finite."""
    return lat is not None and lon is not None and abs(lat) <= 90.0 and abs(lon) <= 180.0


def apart_ft(lat0: float, lon0: float, lat1: float, lon1: float) -> float:
    """Feet between two positions close to each other (degrees)."""
    north = math.radians(lat1 - lat0)
    east = math.radians(lon1 - lon0) * math.cos(math.radians(0.5 * (lat0 + lat1)))
    return EARTH_M * math.hypot(north, east) / M_PER_FT


def driven_of(soundings: list[Sounding]) -> Driven:
    """A run with what is out of line marked and the rest smoothed. Raises BadInput for fewer than three."""
    if len(soundings) < 3:
        raise BadInput("the run", f"{len(soundings)} soundings long", "at least 3 soundings long")
    ran = np.array([s.ran_ft for s in soundings])
    depth = np.array([s.depth_ft for s in soundings])
    middle = median_filter(depth, size=min(WINDOW, len(depth)), mode="nearest")
    off = np.abs(depth - middle) > np.maximum(OFF_FT, OFF_SHARE * middle)
    smooth = uniform_filter1d(np.where(off, middle, depth), size=SMOOTH, mode="nearest")
    return Driven(ran, depth, off, smooth)


def simplified(away: Floats, depth: Floats) -> tuple[tuple[float, float], ...]:
    """The points that a profile needs: the one that is most wrong is added until none is (Douglas and
    Peucker, 1973)."""
    away, first = np.unique(away, return_index=True)
    depth = depth[first]
    corners = {0, len(away) - 1}
    while len(corners) < min(POINTS, len(away)):
        at = sorted(corners)
        wrong = np.abs(np.interp(away, away[at], depth[at]) - depth)
        worst = int(np.argmax(wrong))
        if wrong[worst] <= TRUE_FT:
            break
        corners.add(worst)
    return tuple((round(float(away[k]), 1), round(float(depth[k]), 1)) for k in sorted(corners))


def to_gpx(soundings: list[Sounding]) -> str:
    """A run as a GPX 1.1 track; each point's depth, in metres, is its extension ``depth``."""
    from xml.etree import ElementTree

    gpx = gpxpy.gpx.GPX()
    gpx.nsmap = {"d": "urn:depth"}
    segment = gpxpy.gpx.GPXTrackSegment()
    for s in soundings:
        if s.lat is None or s.lon is None:
            continue
        point = gpxpy.gpx.GPXTrackPoint(s.lat, s.lon)
        depth = ElementTree.Element("{urn:depth}depth")
        depth.text = f"{s.depth_ft * M_PER_FT:.2f}"
        point.extensions.append(depth)
        segment.points.append(point)
    gpx.tracks.append(gpxpy.gpx.GPXTrack(name="The bottom as driven"))
    gpx.tracks[0].segments.append(segment)
    return str(gpx.to_xml(version="1.1"))


def from_gpx(text: str) -> list[Sounding]:
    """The soundings of a GPX file: every track point with a depth. Raises BadInput."""
    try:
        gpx = gpxpy.parse(text)
    except (gpxpy.gpx.GPXException, ValueError) as error:
        raise BadInput("the file", "not read", "a GPX file of tracks") from error
    soundings: list[Sounding] = []
    ran, last = 0.0, None
    for point, *_ in gpx.walk():
        if not _on_earth(point.latitude, point.longitude):
            raise BadInput("the file", f"at {point.latitude}, {point.longitude}", "positions on the Earth")
        depth = _depth_m(point)
        if last is not None:
            ran += min(JUMPED_FT, apart_ft(*last, point.latitude, point.longitude))
        last = point.latitude, point.longitude
        if depth is not None and 0.05 <= depth <= 180.0:
            soundings.append(Sounding(ran, depth / M_PER_FT, point.latitude, point.longitude))
        if ran > LONGEST_RUN_FT:
            raise BadInput("the file", f"a run of more than {LONGEST_RUN_FT / 5280:.0f} miles", "shorter")
    if len(soundings) < 3:
        raise BadInput(
            "the file", f"{len(soundings)} points with a depth", "a track with depths at its points"
        )
    return soundings[:MOST]


def _depth_m(point: gpxpy.gpx.GPXTrackPoint) -> float | None:
    """A point's depth in metres, wherever in its extensions it stands."""
    for extension in point.extensions:
        for part in extension.iter():
            if str(part.tag).rpartition("}")[2].lower() == "depth" and part.text:
                try:
                    return float(part.text)
                except ValueError:
                    return None
    return None
