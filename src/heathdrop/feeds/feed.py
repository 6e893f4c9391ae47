"""The latest figure of each kind with its age: live, stale or lost, and never the one for the other."""

import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from threading import Lock
from typing import Any

from heathdrop.feeds.driven import Track
from heathdrop.feeds.nmea import Figures, figures_of

#: Seconds to which a figure is live, and after which it is lost. Pressure and wind come seldom.
LIVE_S = {"depth_ft": 3.0, "position": 5.0, "speed_mph": 5.0, "water_temp_f": 20.0}
LOST_S = {"depth_ft": 15.0, "position": 30.0, "speed_mph": 30.0, "water_temp_f": 120.0}
USUAL_LIVE_S, USUAL_LOST_S = 60.0, 600.0
#: Every figure of a feed, in the order of the answer.
NAMES = ("depth_ft", "water_temp_f", "position", "speed_mph", "wind_mph", "pressure_hpa")
#: A pressure that moved so much (hPa) within so long (s) rises or falls.
TREND_HPA, TREND_S = 1.0, 3 * 3600.0
#: Seconds between two pressures that are remembered for the trend.
APART_S = 120.0


def awake_or_asleep_s() -> float:
    """Seconds that go on while the laptop sleeps, where the system counts them; else those it was awake."""
    clock = getattr(time, "CLOCK_BOOTTIME", None)
    return time.monotonic() if clock is None else time.clock_gettime(clock)


@dataclass(frozen=True)
class Figure:
    """A figure, its age in seconds, and whether it may be taken as it is: live, stale or lost."""

    value: Any
    age_s: float | None
    state: str


@dataclass
class Feed:
    """What one boat's instruments said last. ``clock`` gives seconds that only go forward."""

    clock: Callable[[], float] = awake_or_asleep_s
    connected: bool = False
    track: Track = field(default_factory=Track)
    _latest: dict[str, tuple[float, Any]] = field(default_factory=dict)
    _pressures: deque[tuple[float, float]] = field(default_factory=lambda: deque(maxlen=200))
    _lock: Lock = field(default_factory=Lock, repr=False)

    def hear(self, line: str) -> Figures:
        """Take a sentence in; the figures it held."""
        figures = figures_of(line.strip())
        now = self.clock()
        with self._lock:
            for name, value in figures.items():
                self._latest[name] = now, value
            pressure = figures.get("pressure_hpa")
            if pressure is not None and (not self._pressures or now - self._pressures[-1][0] >= APART_S):
                self._pressures.append((now, pressure))
        if "position" in figures:
            self.track.moved(figures["position"]["lat"], figures["position"]["lon"])
        if "depth_ft" in figures:
            self.track.sounded(figures["depth_ft"])
        return figures

    def figure(self, name: str) -> Figure:
        """The latest figure of a kind. A lost one has no value: nothing stale passes as fresh."""
        with self._lock:
            latest = self._latest.get(name)
        if latest is None:
            return Figure(None, None, "lost")
        age = self.clock() - latest[0]
        if age <= LIVE_S.get(name, USUAL_LIVE_S):
            return Figure(latest[1], age, "live")
        if age <= LOST_S.get(name, USUAL_LOST_S):
            return Figure(latest[1], age, "stale")
        return Figure(None, age, "lost")

    def trend(self) -> str | None:
        """Rising, steady or falling pressure; None before there is enough to say so."""
        now = self.clock()
        with self._lock:
            recent = [(t, p) for t, p in self._pressures if now - t <= TREND_S]
        if len(recent) < 2:
            return None
        moved = recent[-1][1] - recent[0][1]
        return "steady" if abs(moved) < TREND_HPA else "rising" if moved > 0 else "falling"
