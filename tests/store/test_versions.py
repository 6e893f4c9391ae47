"""Bodies brought up to date as they are read."""

from __future__ import annotations

import pytest

from heathdrop.store import versions


def test_old_bodies_are_brought_up_to_date(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setitem(versions.CURRENT, "item", 3)
    monkeypatch.setitem(versions.UPGRADES, ("item", "head", 1), lambda b: {**b, "first": "head"})
    monkeypatch.setitem(versions.UPGRADES, ("item", "*", 1), lambda b: {**b, "first": "any"})
    monkeypatch.setitem(versions.UPGRADES, ("item", "*", 2), lambda b: {**b, "second": True})
    assert versions.upgraded("item", "head", 1, {}) == {"first": "head", "second": True}
    assert versions.upgraded("item", "rod", 1, {}) == {"first": "any", "second": True}
    assert versions.upgraded("item", "rod", 2, {}) == {"second": True}
    assert versions.upgraded("item", "rod", 3, {"a": 1}) == {"a": 1}
    with pytest.raises(versions.NewerBody, match="item of version 4"):
        versions.upgraded("item", "rod", 4, {})
