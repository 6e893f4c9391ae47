"""The numbers of the judgement: a slip of the pen is refused, and what stands there is what was meant."""

from __future__ import annotations

from pathlib import Path

import pytest

from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import PARTS
from tests.catalog.slips import refused

FAULTS = [
    ("usual", "swim-jig = { by", "swimjig = { by", "usual.toml, families.swim-jig: there is no such name"),
    ("fitted", "[points]", "[points]\nno-rule = { swim-jig = 0.1 }",
     "fitted.toml, points.no-rule: there is no such name"),
    ("judgement", "weights = { depth", "weights = { deepness",
     "judgement.toml, fit.weights.deepness: there is no such name"),
]  # fmt: skip


@pytest.mark.parametrize(("file", "right", "wrong", "said"), FAULTS)
def test_a_slip_is_refused(tmp_path: Path, file: str, right: str, wrong: str, said: str) -> None:
    assert refused(tmp_path, file, right, wrong).startswith(said)


def test_bands_rise_with_the_mood(cat: Catalog) -> None:
    """Livelier fish take a quicker fall, a quicker pace, more action; one row for each mood."""
    rows = cat.targets
    assert [t.activity for t in rows] == [0.0, 1.0, 2.0, 3.0, 4.0]
    for slow, quick in zip(rows, rows[1:], strict=False):
        assert slow.fall_ft_s[0] <= quick.fall_ft_s[0]
        assert slow.pace_ft_s[0] < quick.pace_ft_s[0]
        assert slow.pace_ft_s[1] < quick.pace_ft_s[1]
        assert slow.action < quick.action
    assert len(cat.mood.names) == 5
    assert [f for f, _ in cat.mood.base] == sorted(f for f, _ in cat.mood.base)


def test_usual_weights_are_bands_by_rising_depth(cat: Catalog) -> None:
    for family, usual in cat.usual.items():
        depths = [row[0] for row in usual.rows]
        assert depths == sorted(set(depths)), family
        assert all(0 < light < heavy for _, light, heavy in usual.rows), family
        assert usual.by == ("target" if cat.families[family].work == "swim" else "bottom"), family


def test_fitted_exponents_stand_in_the_fit(cat: Catalog) -> None:
    assert {k: cat.judgement.fit.weights[k] for k in cat.fitted.weights} == cat.fitted.weights
    assert set(cat.judgement.fit.weights) == set(PARTS)
    for rule, more in cat.fitted.points.items():
        assert set(more) <= set(cat.rules[rule].favours)
