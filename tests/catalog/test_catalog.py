"""The shipped catalogue loads; a slip of the pen anywhere in it is refused with file and key."""

from __future__ import annotations

from pathlib import Path

import pytest

from heathdrop.catalog import Catalog, read_catalog
from heathdrop.errors import BadInput
from tests.catalog.slips import data


def test_the_shipped_files_read_the_same_from_anywhere(cat: Catalog, tmp_path: Path) -> None:
    assert read_catalog(data(tmp_path)) == cat


def test_pick_names_the_field_and_the_choices(cat: Catalog) -> None:
    assert cat.pick(cat.skirts, "x", "full").id == "full"
    with pytest.raises(BadInput, match="skirt was “kilt”; it must be one of full, trimmed, thin, none"):
        cat.pick(cat.skirts, "skirt", "kilt")
    assert cat.spread("lines", "diameters_mm") == 0.06


def test_every_number_of_the_judgement_has_an_origin(cat: Catalog) -> None:
    assert set(cat.provenance["judgement"]) == set(vars(cat.judgement))
