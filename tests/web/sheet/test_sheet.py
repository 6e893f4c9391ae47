"""The sheet's page: its address, the chosen rig in every part of it, what is assumed and printed."""

import re
from dataclasses import replace
from datetime import date
from urllib.parse import parse_qsl

import pytest
from fastapi.testclient import TestClient

from heathdrop.advice.change import likely
from heathdrop.answers.water import call_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.outcome import WENT
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.sizing.size import Sizing, equals_of, size
from heathdrop.web.sheet.page import address
from heathdrop.web.sheet.shown.calling import SHOWN, calling_of, sides_of
from heathdrop.web.sheet.shown.casting import Choices
from heathdrop.web.sheet.shown.printed import card_of, said_of
from heathdrop.web.sheet.shown.sheet import MOST_CITED, MOST_EQUALS
from heathdrop.web.shell.fields import DEFAULTS, values_from
from tests.advice.cases import rated
from tests.waters import WOOD
from tests.web.shown import DAY, shown, token


def test_the_address_holds_only_what_differs_and_comes_back(client: TestClient) -> None:
    assert address(dict(DEFAULTS)) == "/"
    state = DEFAULTS | {
        "cover": "wood",
        "wood": "brush",
        "view": "rig",
        "wrong": "hung-up",
        "s_tip-on-bottom": "high",
        "given": "cover wood",
    }
    at = address(state)
    assert "season" not in at
    assert values_from(dict(parse_qsl(at[2:]))) == state
    page = client.get(at).text
    assert "It hung up" in page
    for wrong in (
        "view=sideways",
        "wrong=sank",
        "way=fly",
        "lift_in=900",
        "s_tip-on-bottom=sideways",
        "box=attic",
    ):
        refused = client.get(f"/?view=rig&{wrong}" if not wrong.startswith("view") else f"/?{wrong}")
        assert refused.status_code == 422, wrong
        assert " must be " in refused.text


def test_a_refusal_names_each_control_and_keeps_the_answer_before(client: TestClient) -> None:
    wrong = {"water_temp_f": "200", "bottom_depth_ft": "8", "fish_depth_ft": "9", "cover": "open"}
    alone = client.get("/", params=wrong)
    assert alone.status_code == 422
    for said in ("Water must be from 32 to 100 °F, not 200 °F.", "Fish at 9 ft is deeper than the"):
        assert said in alone.text
    halted = re.sub(r"\s+", " ", re.sub("<[^>]+>", "", alone.text[alone.text.index('id="halt"') - 3 :]))
    assert "Water and Fish at need other values." in halted
    assert 'class="strip"' not in alone.text  # nothing was answered before
    good = client.get("/", params={"water_temp_f": "57", "bottom_depth_ft": "8", "fish_depth_ft": "3"})
    figures = good.text[good.text.index('class="figures"') : good.text.index("</dl>")]
    again = client.get("/", params=wrong).text
    assert "Below is the answer to the water before." in again
    assert figures in again


def test_save_reopen_delete_undo(client: TestClient) -> None:
    hx = {"hx-request": "true"}
    form = DEFAULTS | {
        "token": token(client),
        "name": "Orchard wall <b>",
        "fish_depth_ft": "4",
        "family": "swim-jig",
    }
    saved = client.post("/scenarios", data=form, headers=hx).text
    assert "Orchard wall &lt;b&gt;" in saved
    address = re.findall(r'href="(/[^"]*)"', saved)[-1].replace("&amp;", "&")
    assert 'value="4"' in client.get(address).text
    id_ = re.findall(r"/scenarios/(\d+)/delete", saved)[-1]
    gone = client.post(f"/scenarios/{id_}/delete", data={"token": form["token"]}, headers=hx).text
    assert f"/scenarios/{id_}/undelete" in gone
    assert (
        client.post(f"/scenarios/{id_}/delete", data={"token": form["token"]}, headers=hx).status_code == 404
    )
    back = client.post(f"/scenarios/{id_}/undelete", data={"token": form["token"]}, headers=hx).text
    assert f"/scenarios/{id_}/delete" in back
    assert client.post("/scenarios", data=form | {"name": "  "}, headers=hx).status_code == 422
    # Without scripts a change leads back to the water that was looked at.
    plain = client.post(f"/scenarios/{id_}/delete", data={"token": form["token"]}, follow_redirects=False)
    assert plain.status_code == 303
    assert plain.headers["location"].startswith("/?")
    assert "fish_depth_ft=4" in plain.headers["location"]


@pytest.mark.slow
@pytest.mark.parametrize(
    ("fields", "said"),
    [
        ({"name": "\u202eekal"}, "made of characters that can be shown"),
        ({"name": "Lake", "pick": "1e400"}, "a rig&#39;s name, such as"),
        ({"name": " "}, "1 to 80 characters"),
    ],
)
def test_what_could_not_come_back_is_not_saved(client: TestClient, fields: dict[str, str], said: str) -> None:
    before = client.get("/export/scenarios.json").text
    refused = client.post(
        "/scenarios", data={"token": token(client), **fields}, headers={"HX-Request": "true"}
    )
    assert refused.status_code == 422
    assert said in refused.text
    assert client.get("/export/scenarios.json").text == before


def test_the_best_rig_unless_one_is_picked(cat: Catalog, sizing: Sizing) -> None:
    best = sizing.rigs[0]
    sheet = shown(cat, sizing)
    assert (sheet.key, sheet.is_best, sheet.own_setting) == (best.key, True, False)
    assert sheet.score == round(100 * best.fits.score)
    other = sizing.rigs[5]
    picked = shown(cat, sizing, pick=other.key)
    assert (picked.key, picked.is_best) == (other.key, False)
    assert picked.aloud != sheet.aloud
    held = shown(cat, sizing, pick=other.key, count_s="3", pace_ft_s="2")
    assert held.own_setting
    assert "count 3, then 2.0 ft a second" in held.aloud
    assert dict(parse_qsl(held.to_best)).get("pick") is None


def test_what_was_not_answered_is_asked(cat: Catalog, sizing: Sizing) -> None:
    assert shown(cat, sizing).asked == ("water_temp_f", "bottom_depth_ft", "fish_depth_ft", "cover")
    assert shown(cat, sizing, given="cover water_temp_f").asked == ("bottom_depth_ft", "fish_depth_ft")


def test_as_good_is_named_and_no_more_than_a_few(cat: Catalog) -> None:
    wood = size(cat, Scenario(WOOD, families=("casting-jig",)))
    for rig in wood.rigs[:6]:
        same = equals_of(cat, wood, rig)
        said = [
            w for w in shown(cat, wood, pick=rig.key, family="casting-jig").why if w.startswith("As good: ")
        ]
        assert len(said) == (1 if same else 0)
        if len(same) > MOST_EQUALS:
            assert said[0].endswith(f" and {len(same) - MOST_EQUALS} more.")
        elif same:
            assert said[0].count(";") == len(same) - 1


def test_what_a_timed_drop_starts_from(cat: Catalog, sizing: Sizing) -> None:
    sheet = shown(cat, sizing, pick="swim-jig:0.375:craw")
    asked = dict(parse_qsl(sheet.timing.removeprefix("/drops?")))
    assert asked == {
        "family": "swim-jig",
        "head_oz": "3/8",
        "trailer": "craw",
        "trailer_length_in": "4",
        "line_material": "fluorocarbon",
        "test_lb": "15",
        "water_temp_f": "58",
        "depth_ft": "9",
    }
    known, then = (float(part.split("±")[1].split(" %")[0]) for part in sheet.timing_worth.split(", then"))
    assert then < known
    assert len(sheet.advice) <= MOST_CITED
    assert sheet.mood_why.endswith(".")
    assert sheet.mood_why[0] == sheet.mood_why[0].upper()


def test_both_sides_say_the_difference_in_numbers(cat: Catalog) -> None:
    scenario = Scenario(replace(DAY, fish_depth_ft=2, water_temp_f=66), Gear(), ("bladed-jig",))
    sides = sides_of(cat, size(cat, scenario), "bladed-ladder", lambda s: size(cat, s))
    assert [s.name for s in sides] == [s.name for s in cat.topics["bladed-ladder"].schools.values()]
    assert sides[0].difference == ""
    heads = {s.name: s.rig.split(" oz")[0] for s in sides}
    assert heads["one size"] == "1/2"
    assert re.search(r"Against the first: .*(lighter|slower|faster|heavier)", sides[2].difference)
    metal = sides_of(cat, size(cat, scenario), "blade-metal", lambda s: size(cat, s))
    assert "only changes the finish" in metal[1].difference
    with pytest.raises(BadInput, match="topic was “tides”"):
        sides_of(cat, size(cat, scenario), "tides", lambda s: size(cat, s))


def test_families_are_ranked_by_their_standing_against_the_first(cat: Catalog) -> None:
    """Ranks from one, standing in hundredths of the first family's, fit in its own; the mood that was judged
    is pressed, and every link names what it chooses."""
    water = Scenario(replace(DAY, water_temp_f=66))
    call = call_of(water, places=SHOWN)
    sizing = call.standings[1].sizing
    shown = calling_of(cat, call, sizing, lambda **more: repr(sorted(more.items())))
    assert [r.rank for r in shown.rows] == list(range(1, SHOWN + 1))
    first = call.standings[0].standing
    for row, s in zip(shown.rows, call.standings, strict=True):
        assert (row.standing, row.fit) == (round(100 * s.standing / first), round(100 * s.fit))
        assert (row.id, row.name, row.model) == (s.family.id, s.family.name, s.model)
        assert row.address == repr([("family", s.family.id), ("pick", ""), ("view", "size")])
        assert row.chosen == (s is call.standings[1])
        assert row.fors == tuple(r.name for r in s.fors[:2])
    assert [m.name for m in shown.moods if m.chosen] == [cat.mood.names[round(sizing.targets.activity.value)]]
    assert shown.moods[3].address == repr([("activity", "3")])
    assert [a.why for a in shown.aside] == [why.lower() for _, why in call.aside]


DAY_PRINTED = date(2027, 4, 3)


PLAIN = Choices()


def test_a_card_of_the_best_rig(cat: Catalog, sizing: Sizing) -> None:
    card = card_of(cat, sizing, "", PLAIN, "Mill bay", DAY_PRINTED)
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
