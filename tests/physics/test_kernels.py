"""Compiled code: honest after an edit, columns in the order of fields, to the digit."""

import math
import os
import shutil
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest
from numba import typeof

import heathdrop
from heathdrop.physics.kernels import ahead, cache_folder, flight, sources_hash, state
from heathdrop.physics.kernels import state as row
from heathdrop.physics.kernels.ground import (
    AT_LIP_M,
    TOUCH_M,
    Ground,
    bottom_at,
    face_at,
    face_met,
    face_up,
    keep_line_out,
    ledges_of,
    slope_at,
    stand,
)
from heathdrop.physics.kernels.march import HOME_M, run_chain
from heathdrop.physics.kernels.records import (
    FAR,
    Band,
    Grid,
    Leg,
    Limits,
    LineParams,
    LureParams,
    Samples,
    Scene,
    Start,
    Tuned,
    leg_at,
    limits_at,
    line_at,
    lure_at,
    rows_of,
    samples_room,
)
from heathdrop.physics.kernels.search import comfort, eased, measure, met
from heathdrop.sizing.warmth import warm_up

DEPTH = """
from heathdrop import catalog
from heathdrop.physics.cast import Cast, fly, Fidelity
from heathdrop.physics.line import line_by_test
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import lure_of, rig_by_name
from heathdrop.physics.water import water_at
cat, water = catalog.load(), water_at(58)
lure = lure_of(cat, rig_by_name(cat, "swim-jig", 0.5, "craw"), water.density_kg_m3, 58)
cast = Cast(6.0, 0.6, ((0.0, 9.0), (99.0, 9.0)))
program = [Phase("fall", slack=True, to_depth_m=2.0), Phase("retrieve", speed_m_s=0.6)]
line, coarse = line_by_test(cat, "fluorocarbon", 15), Fidelity(6, 0.3, 0.1, 0.1)
r = fly(lure, line, water, cast, program, fidelity=coarse)
print(float(r.useful().mean()))
"""


def depth(source: Path, caches: Path, compiled: bool = True) -> float:
    env = {**os.environ, "PYTHONPATH": str(source), "NUMBA_CACHE_DIR": str(caches)}
    env |= {} if compiled else {"NUMBA_DISABLE_JIT": "1"}
    done = subprocess.run([sys.executable, "-c", DEPTH], env=env, capture_output=True, text=True, check=True)
    return float(done.stdout)


@pytest.mark.slow
@pytest.mark.long
def test_an_edit_to_one_kernel_changes_the_depth_and_undone_is_undone(tmp_path: Path) -> None:
    """Lift times four in ``chain.py`` alone; its compiled callers must not keep the old copy."""
    shutil.copytree(Path(heathdrop.__file__).parent, tmp_path / "src" / "heathdrop")
    chain = tmp_path / "src" / "heathdrop" / "physics" / "kernels" / "chain.py"
    text = chain.read_text("utf-8")
    before = depth(tmp_path / "src", tmp_path / "cache")
    assert depth(tmp_path / "src", tmp_path / "cache", compiled=False) == pytest.approx(before, abs=1e-6)
    chain.write_text(text.replace("kl = 0.5 * rho * lure.lift", "kl = 2.0 * rho * lure.lift"), "utf-8")
    lifted = depth(tmp_path / "src", tmp_path / "cache")
    assert lifted < before - 0.25
    chain.write_text(text, "utf-8")
    assert depth(tmp_path / "src", tmp_path / "cache") == pytest.approx(before, abs=1e-9)
    assert len(list((tmp_path / "cache").glob("kernels-*"))) == 2


def test_the_hash_is_over_names_and_contents(tmp_path: Path) -> None:
    (tmp_path / "a.py").write_text("x = 1\n")
    first = sources_hash(tmp_path)
    (tmp_path / "a.py").write_text("x = 2\n")
    second = sources_hash(tmp_path)
    (tmp_path / "a.py").rename(tmp_path / "b.py")
    assert len({first, second, sources_hash(tmp_path)}) == 3
    assert cache_folder().name == f"kernels-{sources_hash()}"


@pytest.mark.slow
def test_kinds_of_arguments_are_those_of_the_simulation() -> None:
    """A kernel compiled for other kinds than the simulation's would stand in the cache twice."""
    warm_up()
    calls = [*ahead.calls()]
    assert calls
    for kernel, given in calls:
        kernel.compile(tuple(typeof(one) for one in given))
        name = kernel.py_func.__name__
        assert len(list(ahead.cache_folder().glob(f"*.{name}-*.nbc"))) == 1, name


def test_a_warm_cache_needs_no_second_process(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    asked: list[list[str]] = []
    monkeypatch.setattr(ahead, "cache_folder", lambda: tmp_path)
    monkeypatch.setattr(subprocess, "Popen", lambda command, **_: asked.append(command))
    monkeypatch.setattr("os.cpu_count", lambda: 1)
    ahead.start()
    assert asked == []
    monkeypatch.setattr("os.cpu_count", lambda: 2)
    ahead.start()
    assert [command[1:] for command in asked] == [["-m", "heathdrop.physics.kernels.ahead"]]
    (tmp_path / "chain.move-1.nbc").touch()
    ahead.start()
    assert len(asked) == 1


def test_the_step_is_fine_enough() -> None:
    """The same rule with a quarter of the step, written out in plain Python."""
    mass, drag, line, speed, angle = 0.012, 5e-4, 3e-4, 26.0, math.radians(30.0)
    dt, x, z = flight.STEP_S / 4.0, 0.0, 2.0
    u, w = speed * math.cos(angle), speed * math.sin(angle)
    while True:
        v = math.hypot(u, w)
        ax, az = -(drag + line) * v * u / mass, -9.80665 - (drag + line) * v * w / mass
        um, wm = u + 0.5 * dt * ax, w + 0.5 * dt * az
        vm = math.hypot(um, wm)
        ax, az = -(drag + line) * vm * um / mass, -9.80665 - (drag + line) * vm * wm / mass
        if z + dt * wm <= 0.0 and wm < 0.0:
            x += dt * um * z / -(dt * wm)
            break
        x, z, u, w = x + dt * um, z + dt * wm, u + dt * ax, w + dt * az
    found = flight.distance_flown(mass, drag, line, speed, angle, 2.0, 0.0)
    assert found == pytest.approx(x, rel=1e-3)


def test_a_throw_downward_ends_at_the_water() -> None:
    assert flight.distance_flown(0.014, 0.0, 0.0, 10.0, -math.pi / 4, 2.0, 0.0) < 2.0


def test_nothing_flies_for_ever() -> None:
    """A feather in a gale is let go after the longest flight."""
    found = flight.distance_flown(0.01, 0.01, 0.0, 5.0, 0.5, 1e9, 8.0)
    assert found == pytest.approx(8.0 * flight.LONGEST_S, rel=0.05)


#: Level at 2 m, a ledge between 10 and 10.5 m down to 4 m, a slope of one in ten from 20 m on.
BOTTOM = np.array([[0.0, 2.0], [10.0, 2.0], [10.5, 4.0], [20.0, 4.0], [30.0, 5.0]])


LEDGES = ledges_of(BOTTOM)


FREE = Ground(False, False, 1.0, 0.0, 0.0)


DOWN = Ground(True, False, 1.0, 0.0, 0.1)


@pytest.mark.parametrize(
    ("x", "depth"),
    [(-3.0, 2.0), (0.0, 2.0), (10.0, 2.0), (10.25, 3.0), (15.0, 4.0), (25.0, 4.5), (99.0, 5.0)],
)
def test_depth_between_the_points_and_beyond_them(x: float, depth: float) -> None:
    assert bottom_at(x, BOTTOM) == pytest.approx(depth)


def test_a_ledge_is_lip_and_foot_whichever_way_it_faces() -> None:
    assert LEDGES.tolist() == [[10.0, 2.0, 10.5, 4.0]]
    rising = np.array([[0.0, 4.0], [10.0, 4.0], [10.5, 2.0], [30.0, 2.0]])
    assert ledges_of(rising).tolist() == [[10.5, 2.0, 10.0, 4.0]]
    assert ledges_of(np.array([[0.0, 2.0], [10.0, 12.0]])).shape == (0, 4)


def test_the_slope_beside_a_ledge_is_not_told() -> None:
    assert slope_at(25.0, BOTTOM) == pytest.approx(0.1)
    assert slope_at(5.0, BOTTOM) == 0.0
    assert slope_at(10.2, BOTTOM) == 0.0


def test_the_face_between_lip_and_foot() -> None:
    assert face_at(3.0, LEDGES, 0) == pytest.approx(10.25)
    assert face_at(1.0, LEDGES, 0) == 10.0
    assert face_at(9.0, LEDGES, 0) == 10.5
    up = face_up(LEDGES, 0)
    assert up == pytest.approx((-0.5 / math.hypot(0.5, 2.0), -2.0 / math.hypot(0.5, 2.0)))


def test_a_face_is_met_from_the_water_alone() -> None:
    assert face_met(10.15, 3.0, bottom_at(10.15, BOTTOM), LEDGES) == 0
    assert face_met(10.4, 3.0, bottom_at(10.4, BOTTOM), LEDGES) == -1
    assert face_met(10.15, 1.9, bottom_at(10.15, BOTTOM), LEDGES) == -1
    assert face_met(9.0, 3.5, 2.0, LEDGES) == -1


def lure(x: float, z: float, u: float = 0.0, w: float = 0.0) -> np.ndarray:
    s = row.state_room(2)
    s[row.X, 1], s[row.Z, 1], s[row.U, 1], s[row.W, 1] = x, z, u, w
    return s


def test_a_lure_comes_to_rest_on_the_floor_and_keeps_its_way_along_it() -> None:
    s = lure(5.0, 2.01, u=-0.4, w=0.9)
    found = stand(s, 1, BOTTOM, LEDGES, FREE, 0.0, 0.12)
    assert found == Ground(True, False, 1.0, 0.0, 0.12)
    assert (s[row.Z, 1], s[row.W, 1], s[row.U, 1]) == (2.0, 0.0, -0.4)


def test_on_a_slope_it_slides_along_the_slope() -> None:
    s = lure(25.0, 4.6)
    found = stand(s, 1, BOTTOM, LEDGES, FREE, 0.0, 0.2)
    assert (found.along_x, found.along_z) == pytest.approx((1.0 / math.sqrt(1.01), 0.1 / math.sqrt(1.01)))


def test_above_the_floor_it_is_free() -> None:
    assert stand(lure(5.0, 1.5), 1, BOTTOM, LEDGES, FREE, 0.0, 0.2) == FREE


@pytest.mark.parametrize(
    ("above_m", "pull_n", "touching"),
    [(0.0, 0.1, True), (0.9 * TOUCH_M, 0.1, True), (1.2 * TOUCH_M, 0.1, False), (0.0, -0.1, False)],
)
def test_what_stood_is_lifted_by_more_than_its_weight(above_m: float, pull_n: float, touching: bool) -> None:
    s = lure(5.0, 2.0 - above_m)
    found = stand(s, 1, BOTTOM, LEDGES, DOWN, 0.0, pull_n)
    assert found.touching is touching
    assert s[row.Z, 1] == pytest.approx(2.0 if touching else 2.0 - above_m)


def test_in_a_face_it_is_put_back_on_it_and_moves_along_it() -> None:
    s = lure(10.15, 3.0, u=-0.5, w=0.5)
    found = stand(s, 1, BOTTOM, LEDGES, FREE, -0.1, 0.2)
    up = face_up(LEDGES, 0)
    assert found == Ground(True, True, *up, 0.0)
    assert s[row.X, 1] == pytest.approx(10.25)
    along = -0.5 * up[0] + 0.5 * up[1]
    assert (s[row.U, 1], s[row.W, 1]) == pytest.approx((along * up[0], along * up[1]))
    pulled_off = stand(s, 1, BOTTOM, LEDGES, found, 5.0, 0.0)
    assert pulled_off == FREE


def test_line_rests_on_the_floor_and_stays_before_a_face() -> None:
    s = row.state_room(5)
    s[row.X] = (0.0, 5.0, 10.15, 15.0, 16.0)
    s[row.Z] = (-1.0, 2.1, 3.0, 3.0, 4.0)
    s[row.U, 2] = -0.3
    s[row.W] = 0.4
    keep_line_out(s, 4, BOTTOM, 2.0, LEDGES)
    assert (s[row.Z, 1], s[row.W, 1]) == (2.0, 0.0)
    assert s[row.X, 2] == pytest.approx(10.25 + AT_LIP_M)
    assert s[row.U, 2] == 0.0
    assert (s[row.Z, 3], s[row.W, 3]) == (3.0, 0.4)


LURE = LureParams(0.014, 0.115, 1e-3, 1e-3, 0.0, 0.0, 0.3)


THIN = LineParams(1e-9, 1000.0, 1e-4, 0.0, 1e-6, 998.0)


LEVEL = np.array([[0.0, 3.0], [99.0, 3.0]])


GRID = Grid(np.linspace(0.0, 1.0, 7), 0.05, 0.05, 0.2, 0.2)


NO_SHAPES = np.zeros((0, 0, 2))


def played(legs: list[Leg], start: Start, room: int = 400, sample_s: float = 0.25) -> tuple[int, Samples]:
    out = samples_room(room)
    return run_chain(LURE, THIN, LEVEL, rows_of(legs), GRID, start, sample_s, out, NO_SHAPES), out


def test_it_is_sampled_on_time_and_the_last_moment_is_kept() -> None:
    k, out = played([Leg(2.0, phase=1.0), Leg(1.0, reel=0.5, phase=2.0)], Start(20.0, 1.0, 1.0, 5.0))
    assert out.t[0] == 5.0
    assert out.t[k - 1] == pytest.approx(8.0, abs=1e-6)
    assert np.diff(out.t[: k - 1]) == pytest.approx(0.25, abs=0.051)
    assert set(out.phase[: k - 1]) == {1.0, 2.0}


def test_a_leg_ends_at_its_depth() -> None:
    """A lure on a thin line falls at its terminal speed, √(2W/ρA), and stops being followed where asked."""
    k, out = played([Leg(60.0, depth=2.5)], Start(20.0, 0.5, 1.0, 0.0), sample_s=0.05)
    assert out.z[k - 1] == pytest.approx(2.5, abs=0.03)
    terminal = math.sqrt(2.0 * 0.115 / (998.0 * 1e-3))
    late = slice(k - 12, k - 2)
    assert np.diff(out.z[late]) / np.diff(out.t[late]) == pytest.approx(terminal, rel=0.06)


def test_a_leg_ends_on_the_bottom() -> None:
    k, out = played([Leg(60.0, bottom=1.0)], Start(20.0, 0.5, 1.0, 0.0))
    assert out.bottom[k - 1] == 1.0
    assert out.z[k - 1] == pytest.approx(3.0)
    assert out.t[k - 1] < 20.0


def test_the_cast_ends_at_the_boat_or_where_it_is_asked_to() -> None:
    k, out = played([Leg(FAR, reel=1.0, near=8.0)], Start(20.0, 1.0, 1.0, 0.0))
    assert out.x[k - 1] == pytest.approx(8.0, abs=0.06)
    k, out = played([Leg(FAR, reel=1.0)], Start(20.0, 1.0, 1.0, 0.0))
    assert out.line[k - 1] == pytest.approx(HOME_M + 1.0, abs=0.06)
    ways = out.line[0] - out.line[1]
    assert ways == pytest.approx(0.25, abs=0.051)


def test_a_full_record_ends_it() -> None:
    k, out = played([Leg(FAR, reel=0.3)], Start(20.0, 1.0, 1.0, 0.0), room=9)
    assert k == 8
    assert out.t[8] == 0.0


def test_slack_is_taken_up_until_the_line_is_nearly_straight() -> None:
    k, out = played([Leg(20.0, reel=0.9, tight=0.97)], Start(20.0, 2.0, 1.0, 0.0))
    straight = math.hypot(out.x[k - 1] - out.tip_x[k - 1], out.z[k - 1] - out.tip_z[k - 1])
    assert straight / out.line[k - 1] == pytest.approx(0.97, abs=0.01)
    assert out.t[k - 1] < 20.0


@pytest.mark.parametrize(
    ("kind", "read"), [(LureParams, lure_at), (LineParams, line_at), (Leg, leg_at), (Limits, limits_at)]
)
def test_a_record_comes_back_from_its_row(kind: type, read: object) -> None:
    """The order of the fields is the order of the columns, on both sides."""
    records = [kind(*(10.0 * row + k for k in range(len(kind._fields)))) for row in range(3)]  # type: ignore[attr-defined]
    assert read(rows_of(records), 1) == records[1]  # type: ignore[operator]


def test_a_pace_costs_nothing_where_it_is_liked_and_falls_off_outside() -> None:
    limits = Limits(0.5, 6.0, 9.0, 0.3, 1.0, 4.0, 0.45, 0.25, 24.0)
    assert [comfort(v, limits) for v in (1.0, 2.0, 4.0)] == [1.0, 1.0, 1.0]
    assert comfort(0.5, limits) == pytest.approx(math.exp(-0.5 * (math.log(2.0) / 0.45) ** 2))
    assert comfort(6.0, limits) == pytest.approx(math.exp(-0.5 * (math.log(1.5) / 0.25) ** 2))
    assert comfort(math.exp(-0.45), limits) == pytest.approx(math.exp(-0.5))


def test_the_first_seconds_among_the_fish_count_most() -> None:
    assert eased(0.0, 0.3) == 0.0
    assert eased(1.0, 0.3) == pytest.approx(1.0)
    assert eased(0.3, 0.3) == pytest.approx((1 - math.exp(-1)) / (1 - math.exp(-1 / 0.3)))
    assert eased(0.5, 0.3) > 0.5 * eased(1.0, 0.3)


BAND = Band(1.0, 2.0, 1.8, 0.2, 0.3, 0.1)


def test_the_worth_of_a_depth() -> None:
    """One in the middle of the band, half at its edges, a tenth for what skates; blurred by doubt."""
    assert met(BAND, 1.5, 0.2) == pytest.approx(1.0)
    wide = Band(1.0, 9.0, 1.8, 0.2, 0.3, 0.1)
    assert met(wide, 1.0, 0.2) == pytest.approx(0.5)
    assert met(wide, 9.0, 0.2) == pytest.approx(0.5)
    assert met(BAND, 4.0, 0.2) == pytest.approx(0.0, abs=1e-12)
    unsure = math.erf(0.5 / (math.sqrt(2.0) * 0.5)) / math.erf(0.5 / (math.sqrt(2.0) * 0.2))
    assert met(BAND, 1.5, 0.5) == pytest.approx(unsure)
    high = Band(0.0, 2.0, 1.8, 0.2, 0.3, 0.1)
    assert met(high, 0.0, 0.2) == pytest.approx(0.5 * 0.1)
    assert met(high, 0.15, 0.2) / met(Band(0.0, 2.0, 1.8, 0.2, 1e-9, 0.1), 0.15, 0.2) == pytest.approx(0.55)


def test_only_the_useful_part_is_measured() -> None:
    out = samples_room(6)
    out.x[:] = 19.0, 15.0, 10.0, 5.0, 3.0, 0.0
    out.z[:] = 9.0, 1.0, 1.5, 2.1, 9.0, 9.0
    line = LineParams(1e-7, 1000.0, 0.1, 0.03, 0.01, 998.0)
    scene = Scene(line, np.zeros((2, 2)), 20.0, 0.5, BAND)
    found = measure(out, 5, scene, 0.7, 1.2, 0.9, 0.2, 0.0)
    assert found.in_band == pytest.approx(2 / 3)
    assert found.mean_m == pytest.approx((1.0 + 1.5 + 2.1) / 3)
    assert (found.shallowest_m, found.deepest_m) == (1.0, 2.1)
    among = [0.5 + 0.5 * math.erf((z - 1.8) / (math.sqrt(2.0) * 0.1)) for z in (1.0, 1.5, 2.1)]
    # Where it begins (9 m, all in the cover) counts as cover, the near end does not.
    assert found.in_cover == pytest.approx((1.0 + sum(among)) / 4)
    # A depth that scatters is in the band as often as chance has it.
    apart = measure(out, 5, scene, 0.7, 1.2, 0.9, 0.2, 0.5)
    chance = [
        0.5 * (math.erf((2.0 - z) / (0.5 * math.sqrt(2.0))) - math.erf((1.0 - z) / (0.5 * math.sqrt(2.0))))
        for z in (1.0, 1.5, 2.1)
    ]
    assert apart.in_band == pytest.approx(sum(chance) / 3)
    assert apart == found._replace(in_band=apart.in_band)
    assert among[0] < 1e-6 < among[1] < 0.01 < 0.99 < among[2]
    assert found.soft_share == pytest.approx(sum(met(BAND, z, 0.2) for z in (1.0, 1.5, 2.1)) / 3)
    assert (found.pace_m_s, found.start_depth_m, found.comfort) == (0.7, 1.2, 0.9)
    # 2.1 m is out of the band by less than 0.6 ft; three samples a quarter of a second apart.
    assert (found.near_band, found.useful_s) == (1.0, pytest.approx(0.75))
    out.z[3] = 2.19
    assert measure(out, 5, scene, 0.7, 1.2, 0.9, 0.2, 0.0).near_band == pytest.approx(2 / 3)
    nothing = measure(out, 1, scene, 0.7, 1.2, 0.9, 0.2, 0.0)
    assert nothing == Tuned(0.7, 1.2, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.9, 0.0, 0.0)


def test_each_quantity_has_a_row_of_its_own() -> None:
    rows = [v for k, v in vars(state).items() if k.isupper() and k != "ROWS" and isinstance(v, int)]
    assert sorted(rows) == list(range(state.ROWS))
