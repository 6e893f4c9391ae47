"""Records of tackle and line: a slip of the pen is refused, and what each record says of itself."""

from __future__ import annotations

from pathlib import Path

import pytest

from heathdrop.catalog import Catalog
from tests.catalog.slips import refused

FAULTS = [
    ("families", 'usual_trailer = "paddle-tail"', 'usual_trailer = "paddletail"',
     "families.toml, families.swim-jig.usual_trailer.paddletail: there is no such name"),
    ("trailers", "appendages = 0", "appendages = \"none\"", "trailers.toml, trailers.none.appendages: "),
    ("trailers", "glide = 0.0\n", "", "trailers.toml, trailers.none.glide: it is missing"),
    ("plastics", 'material = "salted"', 'material = "salty"',
     "plastics.toml, plastic.salted.material.salty: there is no such name"),
    ("model", 'origin = "practice"', 'origin = "hearsay"', "model.toml, provenance.count_error.origin: "),
]  # fmt: skip


@pytest.mark.parametrize(("file", "right", "wrong", "said"), FAULTS)
def test_a_slip_is_refused(tmp_path: Path, file: str, right: str, wrong: str, said: str) -> None:
    assert refused(tmp_path, file, right, wrong).startswith(said)


def test_bare_is_bare(cat: Catalog) -> None:
    assert [s.id for s in cat.skirts.values() if s.bare] == ["none"]
    assert [t.id for t in cat.trailers.values() if t.bare] == ["none"]


def test_lengths_weights_and_lines_rise(cat: Catalog) -> None:
    """What is listed is in order, positive, and holds the listed length itself."""
    for family in cat.families.values():
        assert list(family.weights_oz) == sorted(set(family.weights_oz))
        assert family.weights_oz[0] >= 1 / 32
        assert family.weights_oz[-1] <= 4.0
    for trailer in cat.trailers.values():
        assert trailer.bare or trailer.length_in in trailer.lengths_in
        assert list(trailer.lengths_in) == sorted(set(trailer.lengths_in))
    for line in cat.lines.values():
        tests, diameters = zip(*line.diameters_mm, strict=True)
        assert list(tests) == sorted(set(tests))
        assert list(diameters) == sorted(diameters)
        assert line.usual_lb in tests


def test_a_line_weighs_what_its_material_does(cat: Catalog) -> None:
    """Published densities, kg/m³: fluorocarbon sinks, nylon hardly, polyethylene braid floats."""
    assert {k: v.density_kg_m3 for k, v in cat.lines.items()} == {
        "fluorocarbon": 1780.0,
        "nylon": 1140.0,
        "braid": 970.0,
    }
    assert {k: cat.materials[k].density_g_cm3 for k in ("lead", "tungsten")} == {
        "lead": 11.0,
        "tungsten": 17.5,
    }
