"""What each page says, word for word, as one reads it: a wrong figure, word, order or dropped line shows."""

import re
from html.parser import HTMLParser

import pytest
from fastapi.testclient import TestClient

from tests.golden_file import holds_to

#: What begins a block of its own, and what is not read: heads, scripts, and what has no words.
BLOCKS = re.compile(
    "p|li|tr|h[123]|div|section|d[dt]|summary|label|legend|caption|figcaption|button|svg|table|form"
)
UNREAD = re.compile("head|script|style|noscript|header|template|dialog")


class Words(HTMLParser):
    """A page as blocks of words, with what its fields hold."""

    def __init__(self, page: str) -> None:
        super().__init__()
        self.blocks: list[str] = [""]
        self.inside: list[str] = []
        self.feed(page)

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        given = dict(attrs)
        if UNREAD.fullmatch(tag):
            self.inside.append(tag)
        elif BLOCKS.fullmatch(tag):
            self.blocks.append("")
        elif tag == "input" and given.get("type") not in ("hidden", "radio", "checkbox", "file"):
            self.handle_data(f" [{given.get('value') or ''}] ")
        elif tag == "option" and "selected" not in given:
            self.inside.append(tag)
        elif tag in ("td", "th", "option", "text"):
            self.handle_data(" ")

    def handle_endtag(self, tag: str) -> None:
        if self.inside and self.inside[-1] == tag:
            self.inside.pop()
        elif BLOCKS.fullmatch(tag):
            self.blocks.append("")

    def handle_data(self, data: str) -> None:
        if not self.inside:
            self.blocks[-1] += data

    def said(self) -> list[str]:
        return [said for block in self.blocks if (said := " ".join(block.split()))]


WATER = "water_temp_f=58&bottom_depth_ft=9&fish_depth_ft=6&cover=submerged-grass"
#: Pages and answers of the sheet: what each shows that the others do not.
SAID = {
    "water": f"/?view=water&{WATER}",
    "size": f"/?view=size&{WATER}",
    "rig": f"/?view=rig&wrong=ran-high&{WATER}",
    "cast": f"/?view=cast&{WATER}",
    "hung": f"/?view=cast&cover=wood&family=flipping-jig&{WATER.rpartition('&')[0]}",
    "search": f"/?view=search&{WATER}",
    "chart": f"/chart?{WATER}",
    "drops": "/drops",
    "box": "/box",
    "call": "/train/call",
}


@pytest.mark.parametrize("name", SAID)
def test_what_a_page_says(visitor: TestClient, name: str) -> None:
    """What the Size view says too is held there alone."""

    def said(at: str) -> list[str]:
        part = {"hx-request": "true", "hx-target": "answer"} if "view=" in at else {}
        answer = visitor.get(at, headers=part)
        assert answer.status_code == 200
        return Words(answer.text).said()

    elsewhere = set() if name == "size" else set(said(SAID["size"]))
    holds_to(f"web.words.{name}", [block for block in said(SAID[name]) if block not in elsewhere])
