"""Fouled, hung, not through: what is offered meets the cover better, by how much it says."""

from __future__ import annotations

import re

import pytest

from heathdrop.advice.change.cover import fouled, hung, other_family, slicker, through
from heathdrop.catalog import Catalog
from heathdrop.physics.rig import rig_by_name
from tests.advice.change.test_hand import held


def chances(effect: str) -> tuple[int, int]:
    """After and before, of 100."""
    after, before = re.findall(r"(\d+) of 100", effect)
    return int(after), int(before)


def test_the_next_slicker_trailer_and_none_after_the_slickest(cat: Catalog) -> None:
    craw = rig_by_name(cat, "swim-jig", 0.5, "craw")
    tail = slicker(cat, craw, lambda t: -t.catching)
    assert tail is not None
    assert cat.trailers[tail].catching < craw.trailer.catching
    slickest = min(cat.trailers.values(), key=lambda t: t.catching if t.standard and not t.bare else 99.0)
    last = rig_by_name(cat, "swim-jig", 0.5, slickest.id)
    assert slicker(cat, last, lambda t: -t.catching) is None


def test_fouled_means_less_of_it_in_stems_and_bottom_elsewhere(cat: Catalog) -> None:
    found = fouled(*held(cat, "deep in grass"))
    assert [c.what.split()[0] for c in found] == ["Speed", "Three"]
    found += fouled(*held(cat, "pads"))
    for change in found:
        if "of 100" in change.effect:
            after, before = chances(change.effect)
            assert after < before
    assert [c.what for c in fouled(*held(cat, "on braid"))] == ["Did it touch bottom?"]


def test_hung_frees_it_first(cat: Catalog) -> None:
    wood = hung(*held(cat, "wood swum"))
    assert [c.what for c in wood[:2]] == [
        "Go past it and pull from the other side",
        "Slack line and a shake of the tip",
    ]
    assert any(c.what == "Two arms behind it: small craw" for c in wood)
    rock = hung(*held(cat, "winter rock"))
    lighter = [c for c in rock if " down: " in c.what]
    assert len(lighter) == 1  # the first head down that wedges a tenth less, and no more of them
    after, before = chances(lighter[0].effect)
    assert after <= 0.9 * before + 1
    armed = hung(*held(cat, "wood"))
    assert not any(c.what.startswith("Two arms") for c in armed)  # a guarded jig has nothing to gain by them
    grass = hung(*held(cat, "deep in grass"))
    assert len([c for c in grass if c.what.startswith("Another family")]) == 0


def test_through_a_mat_slicker_heavier_louder(cat: Catalog) -> None:
    found = through(*held(cat, "mat too light"))
    assert [c.what.split(":")[0] for c in found][-1] == "Lob it in, high and hard"
    assert any(c.what == "One head up: 1 oz" for c in found)
    for change in found:
        after, before = chances(change.effect)
        assert after > before
        assert change.mends == (after > before + 10) or after == before + 10
    lobbed = through(*held(cat, "mat with claws"))
    assert not any(c.what.startswith("Lob") for c in lobbed)
    assert through(*held(cat, "on braid")) == []  # nothing there to go through


@pytest.mark.parametrize(
    ("name", "verb"),
    [
        ("high over grass", "fouls"),
        ("mat with claws", "fouls"),
        ("wood swum", "hangs"),
        ("winter light", "hangs"),
    ],
)
def test_another_family_works_the_same_way_and_meets_less(cat: Catalog, name: str, verb: str) -> None:
    setting, best, _ = held(cat, name)
    found = other_family(setting, best, verb)
    assert found
    for change in found:
        family = cat.families[dict(change.tries)["family"]]
        assert family.work == best.rig.family.work
        assert family.id != best.rig.family.id
        after, before = chances(change.effect)
        assert after < before
