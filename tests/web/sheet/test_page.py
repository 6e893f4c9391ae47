"""The sheet's page: its address, what it saves, its order to print."""

from __future__ import annotations

import re
from urllib.parse import parse_qsl

import pytest
from fastapi.testclient import TestClient

from heathdrop.errors import BadInput
from heathdrop.web.sheet.page import address, choices_from
from heathdrop.web.sheet.shown.casting import Choices
from heathdrop.web.shell.fields import DEFAULTS, values_from
from tests.web.shown import token


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
        assert "it must be" in refused.text


def test_a_refusal_names_each_control_and_keeps_the_answer_before(client: TestClient) -> None:
    wrong = {"water_temp_f": "200", "bottom_depth_ft": "8", "fish_depth_ft": "9", "cover": "open"}
    alone = client.get("/", params=wrong)
    assert alone.status_code == 422
    for said in ("Water 200 °F cannot be; it must be from 32 to 100 °F.", "Fish at 9 ft is deeper than the"):
        assert said in alone.text
    halted = re.sub(r"\s+", " ", re.sub("<[^>]+>", "", alone.text[alone.text.index('id="halt"') - 3 :]))
    assert "Water and Fish at need other values." in halted
    assert 'class="strip"' not in alone.text  # nothing was answered before
    good = client.get("/", params={"water_temp_f": "57", "bottom_depth_ft": "8", "fish_depth_ft": "3"})
    figures = good.text[good.text.index('class="figures"') : good.text.index("</dl>")]
    again = client.get("/", params=wrong).text
    assert "Below is the answer to the water before." in again
    assert figures in again


def test_choices_need_numbers_in_range() -> None:
    assert choices_from(values_from({"lift_in": "6", "hold_s": "2,5"})) == Choices("", 6 * 0.0254, 2.5, ())
    with pytest.raises(BadInput, match="hold_s was “soon”; it must be from 0 to 30 s"):
        choices_from(values_from({"hold_s": "soon"}))


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
def test_a_search_order_is_one_page_with_room_for_a_pencil(client: TestClient) -> None:
    state = "fish_depth_ft=%3F&bottom_depth_ft=12&water_temp_f=45&cover=open"
    assert 'href="/order?' in client.get("/?view=search&" + state).text
    page = client.get("/order?" + state)
    assert page.status_code == 200
    assert page.text.count('class="pencil"') == 8
    assert "12 ft" in page.text
    assert "Cold water" in page.text
    refused = client.get("/order?bottom_depth_ft=-3")
    assert refused.status_code == 422


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
