"""What is compiled ahead is what the simulation calls: nothing else is left in the cache."""

from __future__ import annotations

import subprocess
from pathlib import Path

import pytest
from numba import typeof

from heathdrop.physics.kernels import ahead
from heathdrop.sizing.warmth import warm_up


@pytest.mark.slow
def test_kinds_of_arguments_are_those_of_the_simulation() -> None:
    """A kernel compiled for other kinds than the simulation's would stand in the cache twice."""
    warm_up()
    calls = [*ahead.calls()]
    assert calls
    for kernel, given in calls:
        kernel.compile(tuple(typeof(one) for one in given))
        name = kernel.py_func.__name__
        assert len(list(ahead.kept().glob(f"*.{name}-*.nbc"))) == 1, name


def test_a_warm_cache_needs_no_second_process(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    asked: list[list[str]] = []
    monkeypatch.setattr(ahead, "kept", lambda: tmp_path)
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
