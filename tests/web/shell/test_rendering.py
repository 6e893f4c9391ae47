"""What every page carries, and how a refusal is shown with scripts and without."""

from __future__ import annotations

from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from markupsafe import Markup

from heathdrop.measures import said_in
from heathdrop.web.app import create_app
from heathdrop.web.shell.rendering import PAGES, templates
from tests.web.shown import HX


def said(template: str, **values: object) -> str:
    return templates.env.from_string(template).render(**values)


def test_whatever_is_placed_is_said_in_the_units_chosen() -> None:
    with said_in("metric"):
        assert said("{{ a }}", a="runs at 6 ft") == "runs at 1.8 m"
        assert said("{{ a|as_typed }}", a="my 6 ft spot <b>") == "my 6 ft spot &lt;b&gt;"
        assert said("{{ a }}", a=Markup("<i>6 ft</i>")) == "<i>6 ft</i>"
        assert said("{{ 'ft'|unit }} {{ '6'|bare('ft') }}") == "m 1.8"
    with said_in("imperial"):
        assert said("{{ a }}", a="runs at 6 ft") == "runs at 6 ft"
        assert said("{{ a }}", a="<b>") == "&lt;b&gt;"
        assert said("{{ '1 1/4'|ounces }}").count('class="frac') == 2


@pytest.mark.slow
def test_the_head_holds_the_last_water(client: TestClient) -> None:
    page = client.get("/box")
    for at, _, label in PAGES:
        assert f'href="{at}"' in page.text
        assert label in page.text
    client.get("/?water_temp_f=44&given=water_temp_f")
    head = client.get("/box").text
    assert 'href="/?water_temp_f=44' in head
    assert "box=mine" in head


def test_a_refusal_is_a_fragment_or_a_page(client: TestClient) -> None:
    whole = client.get("/plan/999")
    part = client.get("/plan/999", headers=HX)
    assert whole.status_code == part.status_code == 404
    assert "<html" in whole.text
    assert "<html" not in part.text
    assert "aria-current" not in whole.text  # no page of the head is where it is


def test_the_demo_says_that_it_is_one(client: TestClient, tmp_path: Path) -> None:
    own = create_app(tmp_path / "own.sqlite")
    with TestClient(own, base_url="http://127.0.0.1") as other:
        mark = "demo: Ashmoor Water, made up"
        assert mark in client.get("/").text
        assert mark not in other.get("/").text
    own.state.database.close()
