"""Records of cover: a slip of the pen is refused."""

from __future__ import annotations

from pathlib import Path

import pytest

from heathdrop.catalog import Catalog
from tests.catalog.slips import refused

FAULTS = [
    ("cover", "hydrilla = { base_oz", "hydrila = { base_oz",
     "cover.toml, mats.textures.hydrilla: there is no such name"),
    ("cover", "laydown = 1.0", "laydowns = 1.0", "cover.toml, wood.kinds.laydown: there is no such name"),
    ("cover", "rises = { laydown = 1.0, brush", "rises = { laydown = 1.0, bush",
     "cover.toml, wood.rises.brush: there is no such name"),
    ("cover", "pads = 0.45, reeds = 1.1", "pads = 0.45",
     "cover.toml, stems.share.reeds: there is no such name"),
    ("cover", "two_tails = { pads", "two_tails = { docks",
     "cover.toml, stems.two_tails.docks: there is no such name"),
    ("tackle", "micro-jig = 4\n", "", "tackle.toml, hook_lb.micro-jig: there is no such name"),
    ("tackle", "docks = { moderate = 1.2 }", "", "tackle.toml, cover.docks: there is no such name"),
]  # fmt: skip


@pytest.mark.parametrize(("file", "right", "wrong", "said"), FAULTS)
def test_a_slip_is_refused(tmp_path: Path, file: str, right: str, wrong: str, said: str) -> None:
    assert refused(tmp_path, file, right, wrong).startswith(said)


def test_what_each_kind_of_cover_is_worth(cat: Catalog) -> None:
    """Thicker grass has more stems, hyacinth takes the most lead, gravel wedges less than riprap."""
    cover = cat.cover
    stems = cover.grass.stems_per_ft2
    assert stems["sparse"] < stems["moderate"] < stems["thick"]
    base = {k: t.base_oz + 3.0 * t.per_in_oz for k, t in cover.mats.textures.items()}
    assert max(base, key=base.__getitem__) == "hyacinth"
    assert cover.mats.usual_texture in cover.mats.textures
    assert cover.wood.usual in cover.wood.kinds
    assert cover.rock.usual in cover.rock.kinds
    assert cover.rock.kinds["gravel"] < cover.rock.kinds["riprap"]
    assert max(cover.stems.two_tails.values()) < 1.0 < min(cover.stems.open_hook.values())
    assert set(cover.stems.open_hook) == {"pads", "reeds"}  # what stands out of the water
