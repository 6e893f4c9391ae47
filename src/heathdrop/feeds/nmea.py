"""One NMEA 0183 sentence to the figures it holds, in anglers' units. Garbage holds none."""

from collections.abc import Callable
from typing import Any

import pynmea2

from heathdrop.units import M_PER_FT, M_S_PER_MPH

#: Figures by name: ``depth_ft``, ``water_temp_f``, ``wind_mph``, ``pressure_hpa``, ``speed_mph``, and
#: ``position`` with ``lat`` and ``lon``.
Figures = dict[str, Any]
#: Speeds in mph of one of each unit of MWV: knots, m/s, km/h, statute miles an hour.
WIND_UNITS = {
    "N": 1852.0 / 3600.0 / M_S_PER_MPH,
    "M": 1.0 / M_S_PER_MPH,
    "K": 1.0 / 3.6 / M_S_PER_MPH,
    "S": 1.0,
}
KNOT_MPH = WIND_UNITS["N"]
#: The longest sentence that is read, characters (the standard's is 82; some devices write more).
LONGEST = 200
#: What a figure may be at all: a sounder that loses the bottom writes nonsense.
POSSIBLE = {
    "depth_ft": (0.3, 600.0),
    "water_temp_f": (28.0, 110.0),
    "wind_mph": (0.0, 120.0),
    "pressure_hpa": (850.0, 1100.0),
    "speed_mph": (0.0, 100.0),
}


def figures_of(line: str) -> Figures:
    """The figures of a sentence; none for a broken checksum, an unknown sentence, a figure that cannot be."""
    if not line.startswith("$") or len(line) > LONGEST:
        return {}
    try:
        sentence = pynmea2.parse(line, check=True)
        reader = READERS.get(sentence.sentence_type)
        figures = reader(sentence) if reader else {}
    except (pynmea2.ParseError, ValueError, TypeError, AttributeError, IndexError):
        return {}
    return {k: v for k, v in figures.items() if _can_be(k, v)}


def _can_be(name: str, value: Any) -> bool:
    if name == "position":
        return bool(abs(value["lat"]) <= 90.0 and abs(value["lon"]) <= 180.0)
    if name not in POSSIBLE:
        return True
    low, high = POSSIBLE[name]
    return isinstance(value, float) and low <= value <= high


def _dpt(s: Any) -> Figures:
    """Depth below the transducer, m, with its offset to the waterline where that is positive."""
    offset = float(s.offset or 0.0)
    return {"depth_ft": (float(s.depth) + max(0.0, offset)) / M_PER_FT}


def _dbt(s: Any) -> Figures:
    if s.depth_meters is not None and str(s.depth_meters) != "":
        return {"depth_ft": float(s.depth_meters) / M_PER_FT}
    return {"depth_ft": float(s.depth_feet)}


def _mtw(s: Any) -> Figures:
    return {"water_temp_f": float(s.temperature) * 1.8 + 32.0} if s.units == "C" else {}


def _mwv(s: Any) -> Figures:
    # The apparent wind (R) is the boat's own as well: only the true one is the water's.
    if s.status != "A" or s.reference != "T" or s.wind_speed_units not in WIND_UNITS:
        return {}
    return {"wind_mph": float(s.wind_speed) * WIND_UNITS[s.wind_speed_units]}


def _mda(s: Any) -> Figures:
    figures: Figures = {}
    if s.b_pressure_bar:
        figures["pressure_hpa"] = float(s.b_pressure_bar) * 1000.0
    if s.water_temp and s.w_celsius == "C":
        figures["water_temp_f"] = float(s.water_temp) * 1.8 + 32.0
    return figures


def _rmc(s: Any) -> Figures:
    if s.status != "A":
        return {}
    return {"position": {"lat": round(s.latitude, 6), "lon": round(s.longitude, 6)}} | (
        {"speed_mph": float(s.spd_over_grnd) * KNOT_MPH} if s.spd_over_grnd is not None else {}
    )


def _gga(s: Any) -> Figures:
    if not s.gps_qual:
        return {}
    return {"position": {"lat": round(s.latitude, 6), "lon": round(s.longitude, 6)}}


#: The sentences that are read.
READERS: dict[str, Callable[[Any], Figures]] = {
    "DPT": _dpt,
    "DBT": _dbt,
    "MTW": _mtw,
    "MWV": _mwv,
    "MDA": _mda,
    "RMC": _rmc,
    "GGA": _gga,
}


def checksummed(body: str) -> str:
    """A sentence with its ``$`` and checksum: ``SDDPT,4.2,0.3`` to ``$SDDPT,4.2,0.3*52``."""
    total = 0
    for letter in body:
        total ^= ord(letter)
    return f"${body}*{total:02X}"
