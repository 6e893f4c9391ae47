"""The Search view's state is its address; its shades, order and answers are the search's own."""

from __future__ import annotations

from dataclasses import replace
from urllib.parse import parse_qsl, urlencode

import pytest

from heathdrop.answers.own import STRANGER
from heathdrop.answers.rods_to_hand import Told
from heathdrop.answers.search import MOST_CASTS, search_water
from heathdrop.catalog import Catalog
from heathdrop.conditions.outcome import OUTCOMES, ROWS
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig import rig_by_name
from heathdrop.units import count_said
from heathdrop.web.sheet.shown.searching import searching_of, text_of, told_in
from tests.waters import BAIT


def link(**changed: object) -> str:
    return "/?" + urlencode(changed)


def casts(cat: Catalog) -> list[Told]:
    rig = rig_by_name(cat, "underspin", 0.5, "paddle-tail")
    return [Told(rig, 6.0, 2.2, "nothing", None), Told(rig, 9.5, 2.0, "bump", 14.5)]


def test_casts_go_into_the_address_and_back(cat: Catalog) -> None:
    text = text_of(casts(cat))
    assert text == "underspin:0.5:paddle-tail~6~2.2~nothing;underspin:0.5:paddle-tail~9.5~2~bump~14.5"
    assert told_in(cat, text) == tuple(casts(cat))
    assert told_in(cat, "") == ()
    assert told_in(cat, ";;") == ()


@pytest.mark.parametrize(
    "text",
    [
        "underspin:0.5:paddle-tail~6~2.2",
        "underspin:0.5:paddle-tail~6~2.2~eaten",
        "underspin:0.5:paddle-tail~six~2.2~nothing",
        "underspin:0.5:toad~6~2.2~nothing",
        "underspin:0.5:paddle-tail~6~2.2~bump~late",
        "underspin:0.5:paddle-tail~6~2.2~bump~1~2",
    ],
)
def test_what_is_no_cast_is_refused(cat: Catalog, text: str) -> None:
    with pytest.raises(
        BadInput, match=r"tried was .*; it must be a cast: rig, count, pace and what it came to"
    ):
        told_in(cat, text)


def test_no_more_casts_than_are_reckoned_with(cat: Catalog) -> None:
    one = text_of(casts(cat)[:1])
    assert len(told_in(cat, ";".join([one] * MOST_CASTS))) == MOST_CASTS
    with pytest.raises(BadInput):
        told_in(cat, ";".join([one] * (MOST_CASTS + 1)))


def test_the_view_says_what_the_search_found(cat: Catalog) -> None:
    water = Scenario(replace(BAIT, fish_span_ft=(2.0, 28.0)), families=("underspin",))
    told = casts(cat)
    found = search_water(water, STRANGER, [told[0].rig], told, 4)
    view = searching_of(cat, found, told, link)
    assert view.unknown
    said = searching_of(
        cat, replace(found, learned=("The bottom is at 9 ft.",), fish=("Your own",)), told, link
    )
    assert said.learned == ("The bottom is at 9 ft.", "Your own")
    assert [row.number for row in view.order] == [1, 2, 3, 4][: len(view.order)]
    assert view.first == view.order[0]
    assert view.first.count == count_said(found.steps[0].next.cast.count_s)
    assert [a.said for a in view.answers] == [row.button for row in ROWS]
    for answer, outcome in zip(view.answers, OUTCOMES, strict=True):
        after = dict(parse_qsl(answer.address.removeprefix("/?")))["tried"]
        assert told_in(cat, after)[:2] == tuple(told)
        assert told_in(cat, after)[2].outcome == outcome
    back = [dict(parse_qsl(m.address.removeprefix("/?"), keep_blank_values=True))["tried"] for m in view.made]
    assert back == ["", text_of(told[:1])]
    assert view.made[1].said == "1/2 oz underspin, paddle-tail 3.5 in, count 9.5: a bump"
    for shading in view.shadings:
        assert max(s.dark for s in shading.slices) == 1.0
        assert sum(float(s.said.split()[0]) for s in shading.slices) == pytest.approx(
            100, abs=len(shading.slices)
        )
        assert shading.top < shading.low
    assert (
        searching_of(cat, search_water(water, STRANGER, [told[0].rig], (), 2), (), link).first.change
        == "start here"
    )
