"""Every rig is drawn to scale."""

from __future__ import annotations

import pytest

from heathdrop.catalog import Catalog
from heathdrop.physics.rig import rig_by_name
from heathdrop.physics.rig_name import RigName
from heathdrop.web.sheet.shown.rigdraw import draw_rig, head_size_in
from tests.golden_file import holds_to
from tests.web.drawn import by_class


def test_every_rig_can_be_drawn_to_scale(cat: Catalog) -> None:
    for family in cat.families.values():
        for trailer in cat.trailers.values():
            drawing = draw_rig(
                rig_by_name(cat, family.id, family.weights_oz[3], trailer.id), skirt_cut=True, body_cut_in=0.4
            )
            text = " ".join(p.path + p.transform for p in drawing.pieces)
            assert "nan" not in text
            assert all(-20 < n.x < drawing.width + 20 and 0 < n.y <= drawing.height for n in drawing.notes)
            assert drawing.said.startswith("To scale:")
    lead, tungsten = (
        head_size_in(rig_by_name(cat, "football-jig", 0.5, "craw", head_material=m))
        for m in ("lead", "tungsten")
    )
    assert (tungsten[0] / lead[0]) ** 3 == pytest.approx(11.0 / 17.5, rel=1e-6)


#: Rigs that show every part: blades above and under, guards, wire, skirts, claws, joined arms, a bare hook.
DRAWN = (
    "spinnerbait:0.5:paddle-tail",
    "bladed-jig:0.5:craw:turned=vertical",
    "underspin:0.375:pin-tail",
    "flipping-jig:0.75:creature-fused",
    "swim-jig:0.25:none",
    "punch-rig:1.25:beaver",
)


def test_what_is_drawn_of_a_rig(cat: Catalog) -> None:
    found = {}
    for name in DRAWN:
        drawing = draw_rig(RigName.parse(name).rig(cat), skirt_cut=True, body_cut_in=0.4)
        pieces = by_class((p.cls, f"{p.path} {p.transform}") for p in drawing.pieces)
        notes = {n.text: [n.x, n.y] for n in drawing.notes}
        found[name] = {
            **pieces,
            "notes": notes,
            "size": [drawing.width, drawing.height],
            "said": drawing.said,
        }
    holds_to("web.rigs", found)
