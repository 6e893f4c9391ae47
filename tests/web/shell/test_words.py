"""One name for one thing: the glossary's table of words for the screen, held against what pages say."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[3]
WEB = ROOT / "src" / "heathdrop" / "web"
TABLE = (ROOT / "docs" / "glossary.md").read_text("utf-8").split("## On the screen")[1]
ROWS = [
    [cell.strip() for cell in line.strip("|").split("|")] for line in TABLE.splitlines() if line[:1] == "|"
][2:]
PAGES = sorted(f for f in WEB.rglob("*") if f.suffix in (".html", ".js") and "vendor" not in f.parts)


def spoken(file: Path) -> str:
    """What a person may read of a file: a template without its tags and comments, a script's sentences."""
    text = file.read_text("utf-8")
    if file.suffix == ".js":
        said = re.findall(r"\"([A-Z][^\"\n]* [^\"\n]*)\"|`([A-Z][^`]* [^`]*)`", text)
        return " ".join(re.sub(r"\$\{[^}]*\}", " ", plain + built) for plain, built in said)
    text = re.sub(r"\{#.*?#\}|\{%.*?%\}", " ", text, flags=re.S)
    labels = " ".join(re.findall(r"(?:aria-label|placeholder|title)=\"([^\"]*)\"", text))
    return " ".join((re.sub(r"<[^>]*>", " ", text) + " " + labels).split())


def test_the_table_is_read() -> None:
    assert len(ROWS) > 10
    assert all(len(row) == 3 and all(row) for row in ROWS)
    assert len(PAGES) > 60


@pytest.mark.parametrize("row", ROWS, ids=[row[0] for row in ROWS])
def test_a_thing_has_one_name_on_every_page(row: list[str]) -> None:
    found = {}
    for word in row[2].split(", "):
        pattern = re.compile(rf"(?<![\w-]){re.escape(word)}(?![\w-])", re.I)
        found |= {f"{word}: {f.name}": 1 for f in PAGES if pattern.search(spoken(f))}
    assert found == {}, f"say “{row[0]}”"
