"""The studies can be run: each of their modules imports what there is."""

import importlib
import pkgutil

import pytest

import bench

MODULES = [m.name for m in pkgutil.walk_packages(bench.__path__, "bench.") if not m.name.endswith("__main__")]


@pytest.mark.parametrize("name", MODULES)
def test_a_study_imports_what_there_is(name: str) -> None:
    assert importlib.import_module(name).__doc__
