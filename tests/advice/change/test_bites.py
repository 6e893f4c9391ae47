"""Short strikes, no touch, nothing: what is offered, in which order, and what it is said to do."""

from __future__ import annotations

import re

import pytest

from heathdrop.advice.change.bites import felt, lost_touch, nothing, short
from heathdrop.catalog import Catalog
from tests.advice.change.test_hand import held


def test_short_strikes_wait_then_shorten_then_help_the_hook(cat: Catalog) -> None:
    said = [c.what for c in short(*held(cat, "on braid"))]
    assert said == [
        "Let them have it: load the rod before the set",
        "Take the trailer off",
        "Add a trailer hook, where local rules allow",
        "A touch slower, with a pause now and then",
    ]
    jig = short(*held(cat, "wood"))
    assert [c.what for c in jig][1] == "Shorten the trailer by 0.5 in, to 3.5 in"
    assert jig[1].effect == "less to nip at; it works where it did"
    bladed = [c.what for c in short(*held(cat, "wood swum"))]
    assert not any("trailer hook" in what for what in bladed)  # in wood it would hang
    assert len(short(*held(cat, "pads"))) == 2  # no trailer to take off


@pytest.mark.parametrize("name", ["winter rock", "winter light", "micro"])
def test_not_felt_is_mended_by_what_is_felt_more(cat: Catalog, name: str) -> None:
    found = felt(*held(cat, name))
    assert found[0].what == "Watch the line, not the hand"
    for change in found[1:]:
        after, before = map(int, re.findall(r"felt (\d+) times of 100 instead of (\d+)", change.effect)[0])
        assert after > before
        assert change.what.startswith(("One head up", "Thinner line")) or "lb braid" in change.what
    touched = lost_touch(*held(cat, name))
    assert touched[0].what == "It is worked on the floor, so it cannot run high or low"
    assert touched[1:] == found[1:]


def test_nothing_at_all_asks_where_before_it_asks_what(cat: Catalog) -> None:
    swum = [c.what for c in nothing(*held(cat, "right over grass"))]
    assert swum[0] == "New water first: another angle, the next change along"
    assert "Stop, pop or kill it where the cover opens" in swum
    assert any(what.startswith("Slow to ") for what in swum)
    worked = [c.what for c in nothing(*held(cat, "winter rock"))]
    assert worked[1] == "Leave it longer where it lies"
    deep = nothing(*held(cat, "heaviest"))
    assert (("family", "football-jig"), ("pick", "")) in [c.tries for c in deep]
    counted = next(c for c in nothing(*held(cat, "on braid")) if c.what.startswith("Count "))
    assert "deeper: water not yet searched" in counted.effect


def test_what_is_refused_is_followed_by_a_slimmer_quieter_trailer(cat: Catalog) -> None:
    for name in ("winter rock", "on braid", "right over grass", "heaviest", "wood"):
        setting, rated, hand = held(cat, name)
        offered = [c for c in nothing(setting, rated, hand) if c.what.startswith("A quieter trailer")]
        was = rated.rig.trailer
        slimmer = [
            t for t in cat.trailers.values() if t.standard and t.run_drag_area_cm2 < was.run_drag_area_cm2
        ]
        quieter = [t for t in slimmer if t.action < was.action]
        assert bool(offered) == (bool(quieter) and rated.rig.family.work != "drop")
        for change in offered:
            next_to_it = max(t.run_drag_area_cm2 for t in quieter)
            (tried,) = (t for t in quieter if change.what == f"A quieter trailer: {t.name}")
            assert tried.run_drag_area_cm2 == next_to_it
            assert tried.id in dict(change.tries)["pick"]
            assert not change.mends
    swum = nothing(*held(cat, "on braid"))[-1]
    assert swum.effect.endswith(("deeper", "higher"))
