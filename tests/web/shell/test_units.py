"""Every page in metric units: no figure is left in the other ones, and what is typed is meant so."""

from __future__ import annotations

import html
import json
import re

import pytest
from fastapi.testclient import TestClient

from heathdrop.demo import ashmoor
from tests.web.shown import token

IMPERIAL = re.compile(r"\d[\d./ ]*\s?(?:ft|oz|mph|lb|°F|ft/s|in/turn)\b|\b(?:ft|oz|mph|lb)\b|°F")
VIEWS = ("water", "size", "rig", "cast")


def in_metric(client: TestClient) -> None:
    sent = {"token": token(client), "system": "metric"}
    answer = client.post("/units", data=sent, headers={"referer": "http://127.0.0.1/box?q=jig"})
    assert [(r.status_code, r.headers["location"]) for r in answer.history] == [(303, "/box?q=jig")]


def said(page: str) -> str:
    """What a page says: its texts, its fields' values and its labels for screen readers."""
    body = re.sub(r'<form class="inline" action="/units".*?</form>|<script.*?</script>', "", page, flags=re.S)
    spoken = re.findall(r'(?:aria-label|title|placeholder)="([^"]*)"', body)
    return html.unescape(re.sub(r"<[^>]+>", " ", body) + " ; ".join(spoken))


@pytest.mark.slow
@pytest.mark.parametrize("view", VIEWS)
def test_no_view_says_a_figure_in_other_units(client: TestClient, view: str) -> None:
    in_metric(client)
    states = (
        "",
        "&family=flipping-jig&cover=matted-grass&thickness_in=3",
        "&family=football-jig&cover=rock&bottom_depth_ft=14&fish_depth_ft=13&wrong=ran-high",
    )
    for state in states:
        page = client.get(f"/?view={view}{state}")
        assert page.status_code == 200
        saved = re.sub(r'<details class="shelf".*?</details>\s*</div>', "", page.text, flags=re.S)
        found = IMPERIAL.findall(said(saved))
        assert found == [], (view, state)


@pytest.mark.slow
def test_box_and_drops_too(client: TestClient) -> None:
    in_metric(client)
    for at in ("/drops", "/drops?kind=depth"):
        assert IMPERIAL.findall(said(client.get(at).text)) == []
    assert 'value="10.2"' in client.get("/drops").text  # four inches of trailer
    rows = re.search(r'<table class="box.*?</table>|<tbody.*?</tbody>', client.get("/box").text, re.S)
    assert rows
    assert IMPERIAL.findall(said(rows[0])) == []


def test_a_number_typed_in_metric_is_meant_so(client: TestClient) -> None:
    typed = client.get(
        "/?units=metric&water_temp_f=15&bottom_depth_ft=3&fish_depth_ft=6 ft&wind_mph=3.6",
        headers={"hx-request": "true", "hx-target": "answer"},
    )
    pushed = typed.headers["hx-push-url"]
    assert pushed == "/?water_temp_f=59&bottom_depth_ft=9.84252&fish_depth_ft=6+ft&wind_mph=8"
    same = client.get(
        "/?units=metric&water_temp_f=14.4&bottom_depth_ft=2.74&fish_depth_ft=1.83&cast_ft=24.38"
    )
    assert same.status_code == 200
    unchanged = client.get(
        "/?units=metric&given=&water_temp_f=14.4&bottom_depth_ft=2.74&test_lb=6.8",
        headers={"hx-request": "true", "hx-target": "answer"},
    )
    assert unchanged.headers["hx-push-url"] == "/"


def test_a_drop_kept_in_metric_is_the_same_drop(client: TestClient) -> None:
    record = {
        "kind": "drop",
        "family": "swim-jig",
        "head_oz": "10.6",
        "trailer": "craw",
        "times_s": "4.1 4.3",
    }
    record |= {"trailer_length_in": "10.2", "line_material": "fluorocarbon", "test_lb": "6.8"}
    record |= {"water_temp_f": "15.6", "depth_ft": "3.05", "units": "metric", "token": token(client)}
    kept = client.post("/drops", data=record)
    assert kept.status_code == 200, kept.text
    assert "3/8 oz swim jig, craw 4 in" in said(kept.text)
    assert "10 ft, 15 lb fluorocarbon" in said(kept.text)


def test_the_choice_is_kept_exported_and_refused_when_unknown(client: TestClient) -> None:
    def weight() -> str:
        found = re.search(r'<p class="weight">(.*?)</p>', client.get("/").text, re.S)
        return "" if found is None else found[1]

    assert '<span class="oz">g</span>' not in weight()
    in_metric(client)
    assert '<span class="oz">g</span>' in weight()
    assert json.loads(client.get("/export/settings.json").text)["measures"] == "metric"
    refused = client.post("/units", data={"token": token(client), "system": "cubits"})
    assert refused.status_code == 422
    assert "imperial, metric" in refused.text
    assert client.post("/units", data={"token": "x", "system": "imperial"}).status_code == 403


@pytest.mark.slow
def test_programs_are_answered_in_the_units_of_their_names(client: TestClient) -> None:
    body = ashmoor.worked()[0]["body"]
    before = client.post("/api/v1/size", json=body).json()
    in_metric(client)
    assert client.post("/api/v1/size", json=body).json() == before


def test_own_words_are_never_turned(client: TestClient) -> None:
    in_metric(client)
    sent = {"token": token(client), "name": "the 6 ft bank", "units": "metric", "fish_depth_ft": "2"}
    client.post("/scenarios", data=sent, headers={"hx-request": "true"})
    page = client.get("/").text
    assert "the 6 ft bank" in page
    assert "fish_depth_ft=6.56168" in page
