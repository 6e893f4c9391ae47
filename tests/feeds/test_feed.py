"""The boat's instruments: sentences to figures with their ages, a line that is cut, the simulated boat."""

import time

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathdrop.errors import BadInput
from heathdrop.feeds.feed import Feed, awake_or_asleep_s
from heathdrop.feeds.nmea import LONGEST, checksummed, figures_of
from heathdrop.feeds.reader import Reader
from heathdrop.feeds.simulated import Boat, Sounder


def test_a_figure_ages_and_a_lost_one_has_no_value() -> None:
    clock = Clock()
    feed = Feed(clock)
    assert feed.figure("depth_ft").state == "lost"
    feed.hear(checksummed("SDDPT,4.0,0.0"))
    for passed, state in ((0.0, "live"), (3.0, "live"), (3.1, "stale"), (15.0, "stale"), (15.1, "lost")):
        clock.now = 1000.0 + passed
        figure = feed.figure("depth_ft")
        assert figure.state == state
        assert (figure.value is None) == (state == "lost")
    assert feed.figure("depth_ft").age_s == pytest.approx(15.1)
    feed.hear("$SDDPT,4.0,0.0*00")
    assert feed.figure("depth_ft").state == "lost"


def test_a_figure_ages_while_the_laptop_sleeps(monkeypatch: pytest.MonkeyPatch) -> None:
    """The clock is the one that counts sleep where there is one."""
    asked = []
    monkeypatch.setattr("heathdrop.feeds.feed.time.CLOCK_BOOTTIME", 7, raising=False)
    monkeypatch.setattr("heathdrop.feeds.feed.time.clock_gettime", lambda which: asked.append(which) or 41.0)
    assert awake_or_asleep_s() == 41.0
    assert asked == [7]
    assert Feed.__dataclass_fields__["clock"].default is awake_or_asleep_s


@pytest.mark.parametrize(
    ("body", "name", "value"),
    [
        ("SDDPT,4.2,0.3", "depth_ft", 14.7638),
        ("SDDPT,4.2,-0.5", "depth_ft", 13.7795),
        ("SDDPT,4.2,", "depth_ft", 13.7795),
        ("SDDBT,13.8,f,4.2,M,2.3,F", "depth_ft", 13.7795),
        ("YXMTW,15.0,C", "water_temp_f", 59.0),
        ("WIMWV,214.0,T,10.0,N,A", "wind_mph", 11.5078),
        ("WIMWV,214.0,T,5.0,M,A", "wind_mph", 11.1847),
        ("WIMWV,214.0,T,36.0,K,A", "wind_mph", 22.3694),
        ("WIMDA,29.9,I,1.0125,B,12.1,C,,,,,,,,,,,,,,", "pressure_hpa", 1012.5),
        ("GPRMC,061200.00,A,5006.0720,N,00400.1860,W,5.0,320.0,250927,,,A", "speed_mph", 5.7539),
    ],
)
def test_each_sentence_gives_its_figure(body: str, name: str, value: float) -> None:
    assert figures_of(checksummed(body))[name] == pytest.approx(value, rel=1e-4)


def test_positions_have_their_signs() -> None:
    found = figures_of(checksummed("GPGGA,061200.00,5006.0720,N,00400.1860,W,1,08,0.9,54.0,M,46.9,M,,"))
    assert found["position"] == {"lat": 50.1012, "lon": -4.0031}


@pytest.mark.parametrize(
    "line",
    [
        "",
        "hello",
        "$SDDPT,4.2,0.3*00",
        "$SDDPT,4.2,0.3",
        checksummed("SDDPT,,"),
        checksummed("SDDPT,-3,0"),
        checksummed("SDDPT,9999,0"),
        checksummed("SDDPT,nan,0"),
        checksummed("YXMTW,15.0,F"),
        checksummed("YXMTW,400,C"),
        checksummed("WIMWV,214.0,T,10.0,N,V"),
        checksummed("WIMWV,214.0,R,10.0,N,A"),
        checksummed("WIMWV,214.0,T,10.0,X,A"),
        checksummed("GPRMC,061200.00,V,,,,,,,250927,,,N"),
        checksummed("GPGGA,061200.00,,,,,0,00,,,,,,,"),
        checksummed("XXYYY,1,2,3"),
        "$" + "A" * LONGEST,
    ],
)
def test_what_is_no_figure_gives_none(line: str) -> None:
    assert figures_of(line) == {}


@given(st.text(max_size=120))
def test_garbage_never_stops_it(text: str) -> None:
    assert isinstance(figures_of(text), dict)
    assert isinstance(figures_of("$" + text), dict)


@given(
    st.sampled_from(["SDDPT,4.2,0.3", "YXMTW,15.0,C", "WIMWV,2.0,R,5.0,M,A"]),
    st.integers(0, 30),
    st.integers(1, 127),
)
def test_one_changed_letter_is_noticed(body: str, place: int, by: int) -> None:
    line = checksummed(body)
    k = 1 + place % (len(body) - 1)
    changed = line[:k] + chr(ord(line[k]) ^ by) + line[k + 1 :]
    assert figures_of(changed) == {}


def wait(until) -> None:  # type: ignore[no-untyped-def]
    for _ in range(400):
        if until():
            return
        time.sleep(0.02)
    raise AssertionError("it never came")


@pytest.mark.slow
def test_a_cut_line_is_taken_up_again() -> None:
    """The real stand-in over TCP, faults on, twenty seconds a second: it reconnects after each cut."""
    told = Sounder(Boat(seed=5, faults=True), 0, rate=60.0)
    told.start()
    feed = Feed()
    reader = Reader(feed, f"tcp://127.0.0.1:{told.port}")
    reader.start()
    try:
        wait(lambda: feed.figure("depth_ft").state == "live")
        assert feed.connected
        tries = reader.tries
        told._drop()
        wait(lambda: reader.tries > tries and feed.connected)
        wait(lambda: feed.figure("depth_ft").state == "live")
    finally:
        reader.stop()
        told.stop()
    assert not feed.connected


@pytest.mark.slow
def test_nobody_there_is_tried_again_later_and_later() -> None:
    reader = Reader(Feed(), "tcp://127.0.0.1:1")
    begun = time.monotonic()
    reader.start()
    wait(lambda: reader.tries >= 3)
    assert time.monotonic() - begun >= 1.4  # half a second, then a second
    reader.stop()


NO_ADDRESS = ("tcp://", "tcp://127.0.0.1", "tcp://a:b", "udp://127.0.0.1:1", "", "serial:/x?baud=fast")


@pytest.mark.parametrize("where", NO_ADDRESS)
def test_an_address_that_is_none_is_refused(where: str) -> None:
    with pytest.raises(BadInput, match="tcp://ADDRESS:PORT or serial:"):
        Reader(Feed(), where)


class Clock:
    def __init__(self) -> None:
        self.now = 1000.0

    def __call__(self) -> float:
        return self.now


@pytest.mark.slow
def test_an_hour_with_faults_shows_nothing_wrong_as_live() -> None:
    """Every second of an hour: what is live is what the boat's instruments mean, to their noise."""
    boat, clock = Boat(seed=7, faults=True), Clock()
    feed, heard, silent = Feed(clock), 0, 0
    for second in range(3600):
        clock.now = 1000.0 + second
        lines = boat.sentences(float(second))
        if lines in (["!cut"], ["!silence"]):
            silent += 1
            continue
        for line in lines:
            heard += bool(feed.hear(line))
        truth, depth = boat.truth(float(second)), feed.figure("depth_ft")
        if depth.state == "live":
            moved = abs(truth.depth_ft - boat.truth(float(second) - (depth.age_s or 0.0)).depth_ft)
            assert abs(depth.value - truth.depth_ft) < 0.7 + moved
        water = feed.figure("water_temp_f")
        if water.state == "live":
            assert abs(water.value - truth.water_temp_f) < 0.6
    assert silent > 10
    assert heard > 6000
    assert feed.trend() == "falling"
