"""The shipped data files with one slip of the pen in them."""

import shutil
from importlib import resources
from pathlib import Path

import pytest

from heathdrop.catalog import BadCatalog, read_catalog


def data(folder: Path) -> Path:
    """A copy of the shipped data files."""
    with resources.as_file(resources.files("heathdrop.catalog") / "data") as shipped:
        shutil.copytree(shipped, folder / "data")
    return folder / "data"


def refused(folder: Path, file: str, right: str, wrong: str) -> str:
    """What is said when ``right`` stands as ``wrong`` in ``file``."""
    path = data(folder) / f"{file}.toml"
    text = path.read_text("utf-8")
    assert right in text
    path.write_text(text.replace(right, wrong, 1), "utf-8")
    with pytest.raises(BadCatalog) as fault:
        read_catalog(path.parent)
    return str(fault.value)
