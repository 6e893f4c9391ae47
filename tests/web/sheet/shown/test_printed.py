"""The printed card: everything needed on the water, once, in words."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

from heathdrop.advice.change import likely
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.outcome import WENT
from heathdrop.sizing.size import Sizing
from heathdrop.web.sheet.shown.casting import Choices
from heathdrop.web.sheet.shown.printed import card_of, said_of
from tests.advice.cases import rated

DAY = date(2027, 4, 3)
PLAIN = Choices("", None, None, ())


def test_a_card_of_the_best_rig(cat: Catalog, sizing: Sizing) -> None:
    card = card_of(cat, sizing, "", PLAIN, "Mill bay", DAY)
    best = sizing.rigs[0]
    assert (card.name, card.day) == ("Mill bay", "3 April 2027")
    assert card.score == round(100 * best.fits.score)
    assert [f.label for f in card.figures] == ["Count", "Pace", "Runs at", "Falls", "In the fish"]
    assert [trouble for trouble, _ in card.changes] == [
        WENT[c] for c in likely(best.rig.family.work, sizing.scenario.conditions.cover.kind)
    ]
    assert len({trouble for trouble, _ in card.changes}) == len(card.changes)
    assert all(": " in change for _, change in card.changes)
    assert card.cautions
    assert card.why
    assert dict(card.water)["Fish at"] == "6 ft"
    assert dict(card.gear)["Cast"] == "80 ft"


def test_a_card_of_another_rig_at_a_count_of_ones_own(cat: Catalog, sizing: Sizing) -> None:
    pick = "swim-jig:0.25:chunk"
    card = card_of(cat, sizing, pick, Choices("", None, None, (), 3.0, 2.0), "", DAY)
    assert card.rig == "1/4 oz swim jig, chunk 4 in"
    assert card.figures[0].value == "3"
    assert card.figures[1].value == "2.0"
    other = card_of(cat, sizing, pick, Choices("yo-yo", None, None, ()), "", DAY)
    assert [f.label for f in other.figures] == ["Count", "Works at", "Falls"]


def test_conditions_are_said_with_their_units_and_words(cat: Catalog) -> None:
    sizing, _ = rated("winter rock")
    said = dict(said_of(sizing.scenario, "conditions"))
    assert said["Water"] == "41 °F"
    assert said["Kind"] == "bluff"
    assert "Tops at" not in said
    assert all(value and value != "None" for value in said.values())
    assert dict(said_of(sizing.scenario, "gear"))["Rod tip"] == "2 ft up"
    conditions = sizing.scenario.conditions
    for edge, words in ((True, "along it"), (False, "no")):
        grass = Cover(kind="submerged-grass", edge=edge)
        at_edge = replace(sizing.scenario, conditions=replace(conditions, cover=grass))
        assert dict(said_of(at_edge, "conditions"))["Edge"] == words


def test_a_depth_that_is_not_known_is_said_so(cat: Catalog) -> None:
    sizing, _ = rated("winter rock")
    c = sizing.scenario.conditions
    for span, words in (((0.0, c.bottom_depth_ft), "not known"), ((4.0, 10.5), "4 to 10.5 ft")):
        water = replace(sizing.scenario, conditions=replace(c, fish_span_ft=span))
        assert dict(said_of(water, "conditions"))["Fish at"] == words
