"""What would narrow a told depth most."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.advice.narrow import narrows
from heathdrop.catalog import Catalog
from heathdrop.learning.learned import Learned
from heathdrop.sizing.bands import Bands, bands_for
from heathdrop.sizing.known import Handle
from tests.advice.cases import rated


def of(**parts: float) -> Bands:
    """Bands a foot and a half either way about 3 m, by what widens them (m)."""
    return Bands(0.9, 1.1, 2.55, 3.45, tuple(parts.items()))


@pytest.mark.parametrize(
    ("bands", "said"),
    [
        (of(pace=0.3, areas=0.1), "with ten rounds of turns in the Trainer"),
        (of(pace=0.1, areas=0.3), "with a depth check (Drop tests)"),
        (of(pace=0.1, count=0.3), "with a drop test"),
        (of(pace=0.1, drift=0.3), "with the boat held still"),
        (of(), ""),
        (Bands(0.9, 1.1, 2.9, 3.1, (("pace", 0.3),)), ""),
    ],
)
def test_the_widest_part_is_named(bands: Bands, said: str) -> None:
    sizing, one = rated("right over grass")
    found = narrows(sizing, one, bands)
    assert said in found
    assert bool(found) == bool(said)


def test_its_figures_are_the_bands(cat: Catalog) -> None:
    sizing, one = rated("right over grass")
    found = narrows(sizing, one, of(pace=0.4, areas=0.3))
    assert found.startswith("Eight casts of ten run within 1.5 ft of that")
    # Turns drilled leave six tenths of the handle's part: the root of .24 and .3 squared over .5.
    assert found.endswith("within 1.1 ft.")
    assert of(pace=0.4, areas=0.3).without("pace", 0.6) == pytest.approx(0.7684, abs=1e-4)


def test_a_known_handle_and_a_lure_on_the_floor(cat: Catalog) -> None:
    sizing, one = rated("right over grass")
    drilled = replace(sizing, known=Learned(turned=Handle(0.0, 0.05)))
    assert "turns kept more evenly" in narrows(drilled, one, of(pace=0.3))
    floor, football = rated("winter rock")
    assert narrows(floor, football, bands_for(cat, floor, [football])[0]) == ""
