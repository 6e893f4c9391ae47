"""What the box lacks over the saved waters, and what no water would pick."""

from __future__ import annotations

from heathdrop.advice.missing import missing
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
from tests.golden_file import holds_to
from tests.waters import GRASS, MAT


def test_purchases_by_how_much_they_raise_the_fits(cat: Catalog) -> None:
    tackle = tackle_of(
        [OwnedHead("swim-jig", 0.375), OwnedHead("micro-jig", 0.0625), OwnedHead("football-jig", 1.0)],
        [OwnedTrailer("craw", 4.0), OwnedTrailer("chunk", 3.0)],
    )
    found = missing(cat, tackle, [("Bay", Scenario(GRASS)), ("Mat", Scenario(MAT))])
    before = dict(found.now)
    for purchase in found.purchases:
        for name, was, then in purchase.gains:
            assert then > was >= before[name] - 1e-9
    assert [h.family for h in found.unused_heads] == ["micro-jig", "football-jig"]
    holds_to("advice.missing", found, 3e-3)


def test_an_empty_box_lacks_a_head_and_a_trailer(cat: Catalog) -> None:
    found = missing(cat, tackle_of([], []), [])
    assert (found.purchases, found.now, found.unused_heads, found.unused_trailers) == ((), (), (), ())


def test_a_box_without_a_whole_rig_is_worth_nothing_yet(cat: Catalog) -> None:
    heads = tackle_of([OwnedHead("swim-jig", 0.375)], [])
    assert missing(cat, heads, [("Bay", Scenario(GRASS))]).now == (("Bay", 0.0),)
