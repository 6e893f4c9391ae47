"""Compiled code is honest: an edit to any kernel is there at once."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

import heathdrop
from heathdrop.physics.kernels import cache_folder, sources_hash

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
