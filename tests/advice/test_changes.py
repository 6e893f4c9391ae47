"""The smallest change for every complaint about every rig, to the letter."""

from __future__ import annotations

import pytest

from heathdrop.advice.change import COMPLAINTS, MEASURED, Change, changes_for
from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from tests.advice.cases import CASES, SHOWN, rated
from tests.golden_file import holds_to


@pytest.mark.slow
@pytest.mark.parametrize("complaint", COMPLAINTS)
def test_changes(cat: Catalog, complaint: str) -> None:
    misses = (None, 0.6, 2.5) if complaint in MEASURED else (None,)
    found = {
        f"{name}, {'missed by ' + str(missed) if missed else 'unmeasured'}": changes_for(
            cat, *rated(name), complaint, missed
        )
        for name in CASES
        for missed in misses
    }
    assert all(all(c.what and c.effect for c in changes) for changes in found.values())
    shown = [f"{SHOWN[0]}, missed by 2.5", *(f"{name}, unmeasured" for name in SHOWN)]
    holds_to(f"advice.change.{complaint}", {k: [_said(c) for c in found[k]] for k in shown if k in found})


def _said(change: Change) -> dict[str, str]:
    """A change as a line: what and its effect; then by whom, whether it mends, and how it is tried."""
    tries = " ".join(f"{name}={value}" for name, value in change.tries)
    return {f"{change.what}: {change.effect}": f"{change.by}{', mends' if change.mends else ''}; {tries}"}


@pytest.mark.parametrize("missed", [0.05, 30.1])
def test_a_miss_that_cannot_be(cat: Catalog, missed: float) -> None:
    with pytest.raises(BadInput, match=r"missed_ft was .* it must be from 0\.1 to 30 ft"):
        changes_for(cat, *rated("wood"), "ran-too-high", missed)
