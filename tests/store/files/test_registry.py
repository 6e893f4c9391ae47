"""What goes out, file by file, and how it is counted."""

from __future__ import annotations

import io
import json
import zipfile

import pytest
from sqlalchemy.orm import Session

from heathdrop.store.files import exchange
from heathdrop.store.files.registry import REGISTRY, counted
from tests.golden_file import holds_to


def test_every_file_to_the_letter(whole: Session) -> None:
    files = {e.name: exchange.written(whole, e.name) for e in REGISTRY}
    holds_to("store.exchange", files)
    with zipfile.ZipFile(io.BytesIO(exchange.packed(whole))) as archive:
        assert sorted(archive.namelist()) == sorted([*files, exchange.MANIFEST])
        assert {n: archive.read(n).decode() for n in files} == {n: text for n, (text, _) in files.items()}
        assert json.loads(archive.read(exchange.MANIFEST)) == {
            "format": "heathdrop-export",
            "version": 1,
            "files": sorted(files),
        }
    assert exchange.packed(whole) == exchange.packed(whole)
    with pytest.raises(KeyError):
        exchange.written(whole, "fish.csv")


def test_counts_are_said_in_words() -> None:
    assert [counted(n, "cast", "casts") for n in (0, 1, 2)] == ["0 casts", "1 cast", "2 casts"]
