"""A simulated boat over Ashmoor Water: the sentences of a real fish-finder, with its noise and its faults."""

import math
import random
import socket
import threading
import time
from collections.abc import Iterator
from dataclasses import dataclass

from heathdrop.feeds.nmea import checksummed
from heathdrop.units import M_PER_FT, M_S_PER_MPH

#: The lake's bottom along the boat's line: distance (ft) and depth (ft), mill bay to the dam and back.
BOTTOM_FT = (
    (0.0, 6.0),
    (250.0, 9.0),
    (420.0, 9.0),
    (460.0, 14.0),
    (700.0, 15.0),
    (760.0, 7.0),
    (820.0, 7.0),
    (900.0, 18.0),
    (1300.0, 22.0),
    (1500.0, 31.0),
)
#: Where the line begins and which way it runs (degrees), made up.
START_LAT, START_LON, COURSE = 50.1012, -4.0031, 320.0
#: Surface temperature (°C) and its change along the line; wind (m/s); pressure (hPa) and its fall an hour.
WARM_C, COOLER_C, WIND_M_S, PRESSURE_HPA, FALL_HPA_H = 16.2, 1.4, 3.5, 1012.0, 1.2
#: How often, per second, each fault comes with ``faults``; how long a silence lasts (s).
BAD_SUM, GARBAGE, SILENCE, CUT, NO_BOTTOM = 0.05, 0.03, 0.01, 0.004, 0.04
SILENT_S = 4.0
TRANSDUCER_M = 0.3


@dataclass(frozen=True)
class Moment:
    """The truth at a moment: distance run (ft), depth (ft), water (°F), position."""

    ran_ft: float
    depth_ft: float
    water_temp_f: float
    lat: float
    lon: float


class Boat:
    """The boat's truth, and what its instruments write of it; the same seed writes the same."""

    def __init__(self, seed: int = 1, speed_mph: float = 3.0, faults: bool = False) -> None:
        self.speed_ft_s = speed_mph * M_S_PER_MPH / M_PER_FT
        self.speed_mph, self.faults = speed_mph, faults
        self._random = random.Random(seed)

    def truth(self, t_s: float) -> Moment:
        """Where the boat is after ``t_s`` seconds; it turns at both ends of the line."""
        whole = BOTTOM_FT[-1][0]
        ran = self.speed_ft_s * t_s
        along = ran % (2.0 * whole)
        along = along if along <= whole else 2.0 * whole - along
        depth = _between(BOTTOM_FT, along)
        celsius = WARM_C - COOLER_C * along / whole
        out_m = along * M_PER_FT
        lat = START_LAT + out_m * math.cos(math.radians(COURSE)) / 111_320.0
        lon = START_LON + out_m * math.sin(math.radians(COURSE)) / (
            111_320.0 * math.cos(math.radians(START_LAT))
        )
        return Moment(ran, depth, celsius * 1.8 + 32.0, lat, lon)

    def sentences(self, t_s: float) -> list[str]:
        """What the instruments write in the second after ``t_s``. ``!cut`` stands for a broken line, an empty
        list for silence."""
        now, chance = self.truth(t_s), self._random
        metres = max(0.4, now.depth_ft * M_PER_FT - TRANSDUCER_M + chance.gauss(0.0, 0.03))
        celsius = (now.water_temp_f - 32.0) / 1.8 + chance.gauss(0.0, 0.05)
        lines = [
            checksummed(f"SDDPT,{metres:.2f},{TRANSDUCER_M:.1f}"),
            checksummed(
                f"GPRMC,{_clock(t_s)},A,{_dm(now.lat, 'NS')},{_dm(now.lon, 'EW')},"
                f"{self.speed_mph * M_S_PER_MPH / 0.514444:.1f},{COURSE:.1f},250927,,,A"
            ),
        ]
        if int(t_s) % 2 == 0:
            lines.append(checksummed(f"YXMTW,{celsius:.1f},C"))
        if int(t_s) % 5 == 0:
            lines.append(checksummed(f"WIMWV,214.0,T,{max(0.0, chance.gauss(WIND_M_S, 0.6)):.1f},M,A"))
        if int(t_s) % 10 == 0:
            bar = (PRESSURE_HPA - FALL_HPA_H * t_s / 3600.0) / 1000.0
            lines.append(checksummed(f"WIMDA,29.9,I,{bar:.5f},B,12.1,C,,,,,,,,,,,,,,"))
        return self._faulty(lines) if self.faults else lines

    def _faulty(self, lines: list[str]) -> list[str]:
        chance = self._random
        if chance.random() < CUT:
            return ["!cut"]
        if chance.random() < SILENCE:
            return ["!silence"]
        sent = []
        for line in lines:
            if chance.random() < BAD_SUM:
                line = line[:-2] + f"{(int(line[-2:], 16) ^ 0x2A):02X}"
            if chance.random() < GARBAGE:
                sent.append("".join(chr(chance.randrange(33, 126)) for _ in range(chance.randrange(5, 60))))
            if line.startswith("$SDDPT") and chance.random() < NO_BOTTOM:
                line = checksummed("SDDPT,,")
            sent.append(line)
        return sent


def _between(rows: tuple[tuple[float, float], ...], at: float) -> float:
    for (x0, y0), (x1, y1) in zip(rows, rows[1:], strict=False):
        if at <= x1:
            return y0 + (y1 - y0) * (at - x0) / (x1 - x0)
    return rows[-1][1]


def _clock(t_s: float) -> str:
    whole = int(t_s) % 86400
    return f"{whole // 3600:02}{whole // 60 % 60:02}{whole % 60:02}.00"


def _dm(degrees: float, signs: str) -> str:
    """Degrees as NMEA has them: degrees and minutes run together, and the hemisphere."""
    whole = int(abs(degrees))
    width = 2 if signs == "NS" else 3
    return f"{whole:0{width}}{(abs(degrees) - whole) * 60.0:07.4f},{signs[0] if degrees >= 0 else signs[1]}"


class Sounder:
    """The boat on a TCP port: every client is told the same line of sentences, ``rate`` seconds a second."""

    def __init__(self, boat: Boat, port: int, host: str = "127.0.0.1", rate: float = 1.0) -> None:
        self.boat, self.rate = boat, rate
        self._server = socket.create_server((host, port))
        self._server.settimeout(0.2)
        self.port = int(self._server.getsockname()[1])
        self._clients: list[socket.socket] = []
        self._stop = threading.Event()
        self._threads = [threading.Thread(target=job, daemon=True) for job in (self._accept, self._tell)]
        self.cuts = 0

    def start(self) -> None:
        """Begin to listen and to tell."""
        for thread in self._threads:
            thread.start()

    def stop(self) -> None:
        """End it; every client is cut."""
        self._stop.set()
        for thread in self._threads:
            thread.join(5.0)
        self._drop()
        self._server.close()

    def _accept(self) -> None:
        while not self._stop.is_set():
            try:
                client, _ = self._server.accept()
            except TimeoutError:
                continue
            except OSError:
                return
            self._clients.append(client)

    def _drop(self) -> None:
        for client in self._clients:
            client.close()
        self._clients = []

    def _tell(self) -> None:
        for second in self._seconds():
            lines = self.boat.sentences(second)
            if lines == ["!cut"]:
                self.cuts += 1
                self._drop()
                continue
            if lines == ["!silence"]:
                self._stop.wait(SILENT_S / self.rate)
                continue
            payload = "".join(f"{line}\r\n" for line in lines).encode("ascii", "replace")
            for client in list(self._clients):
                try:
                    client.sendall(payload)
                except OSError:
                    self._clients.remove(client)

    def _seconds(self) -> Iterator[float]:
        begun, k = time.monotonic(), 0
        while not self._stop.is_set():
            yield float(k)
            k += 1
            self._stop.wait(max(0.0, begun + k / self.rate - time.monotonic()))
