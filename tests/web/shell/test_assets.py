"""Addresses of shipped files, and fractions as markup."""

from __future__ import annotations

import re

import pytest

from heathdrop.web.shell.assets import bundled, ounces_markup


@pytest.mark.parametrize(
    ("written", "shown_as"),
    [
        ("3/8", '<span class="frac of">3/8</span>'),
        ("1", '<span class="frac">1</span>'),
        ("1 1/4", '<span class="frac">1</span><span class="gap"> </span><span class="frac of">1/4</span>'),
        ("<b>", '<span class="frac">&lt;b&gt;</span>'),
    ],
)
def test_fractions_as_anglers_write_them(written: str, shown_as: str) -> None:
    assert str(ounces_markup(written)) == shown_as


def test_a_script_goes_along_with_all_that_it_takes() -> None:
    """Each once, before those that take of it; what is offered is what is exported."""
    text = bundled("plan/deckcard.js")
    made = re.findall(r'^scripts\["(.+?)"\] = ', text, re.M)
    assert made == ["shell/dom.js", "shell/sound.js", "shell/awake.js", "shell/clock.js", "plan/deckcard.js"]
    assert 'const { guard, stamp, uuid } = scripts["shell/clock.js"];' in text
    assert "return { stayAwake, buzz };" in text
    assert not re.search(r"^(import|export)\b", text, re.M)
