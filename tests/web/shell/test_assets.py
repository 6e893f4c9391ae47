"""Addresses of shipped files, and fractions as markup."""

from __future__ import annotations

import pytest

from heathdrop.web.shell.assets import ounces_markup


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
