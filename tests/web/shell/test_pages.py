"""What every page carries: assets, refusals, frames, words, ages, units."""

import ast
import html
import json
import re
import threading
from functools import cache
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from markupsafe import Markup

from heathdrop.errors import BadInput
from heathdrop.feeds.feed import Feed
from heathdrop.feeds.nmea import checksummed
from heathdrop.feeds.simulated import Boat, Sounder
from heathdrop.measures import said_in
from heathdrop.web.app import create_app
from heathdrop.web.shell.assets import ounces_markup
from heathdrop.web.shell.feed import chips_of
from heathdrop.web.shell.fields import values_from
from heathdrop.web.shell.refusal import in_words, plain_words
from heathdrop.web.shell.rendering import templates
from tests.feeds.test_feed import wait
from tests.web.shown import HX, token


@pytest.mark.parametrize(
    ("written", "shown_as"),
    [
        ("3/8", '<span class="frac of">3/8</span>'),
        ("1", '<span class="frac">1</span>'),
        ("1 1/4", '<span class="frac">1</span><span class="gap"> </span><span class="frac of">1/4</span>'),
        ("<b>", '<span class="frac">&lt;b&gt;</span>'),
    ],
)
def test_fractions_as_anglers_write_them(written: str, shown_as: str) -> None:
    assert str(ounces_markup(written)) == shown_as


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


def test_a_refusal_is_a_fragment_or_a_page(client: TestClient) -> None:
    whole = client.get("/plan/999")
    part = client.get("/plan/999", headers=HX)
    assert whole.status_code == part.status_code == 404
    assert "<html" in whole.text
    assert "<html" not in part.text
    assert "aria-current" not in whole.text  # no page of the head is where it is


VALUES = values_from({})


FISH, TEMP = "conditions.fish_depth_ft", "conditions.water_temp_f"


@pytest.mark.parametrize(
    ("refusal", "sentence"),
    [
        (
            BadInput(FISH, 6.0, "no deeper than the bottom at 4 ft"),
            "Fish at 6 ft is deeper than the bottom at 4 ft.",
        ),
        (BadInput(FISH, "", "from 0 to 60 ft"), "Fish at is empty; it must be from 0 to 60 ft."),
        (BadInput(TEMP, 120.0, "from 32 to 100 °F"), "Water must be from 32 to 100 °F, not 120 °F."),
        (
            BadInput(TEMP, "warm", "from 32 to 100 °F"),
            "Water must be from 32 to 100 °F, not “warm”.",
        ),
        (
            BadInput("conditions.clarity_ft", "murk", "from 0.1 to 60 ft"),
            "Visibility must be from 0.1 to 60 ft or one of: muddy, dirty, stained, clear, very clear, "
            "not “murk”.",
        ),
        (
            BadInput(FISH, "deep", "from 0 to 60 ft"),
            "Fish at must be from 0 to 60 ft, a range (4 to 10), ? or bottom, not “deep”.",
        ),
        (BadInput("pick", "toad", "a rig's name"), "That rig must be a rig's name, not “toad”."),
        (
            BadInput("count_s", 200.0, "from 0 to 120 s"),
            "The count must be from 0 to 120 s, not 200 s.",
        ),
        (BadInput("missed_ft", None, "given"), "How far it missed is empty; it must be given."),
        (
            BadInput("odd_thing[3].inner_part", "x" * 50, "less"),
            f"Inner part must be less, not “{'x' * 40}”.",
        ),
        (BadInput("bottom", "mud", "another one: rock"), "Rock."),
        (BadInput("x", 1, "left out: there is no such field"), "There is no such field."),
    ],
)
def test_one_sentence_without_a_name_of_the_programs(refusal: BadInput, sentence: str) -> None:
    assert in_words(refusal, VALUES) == sentence


@pytest.mark.parametrize(
    ("refusal", "sentence"),
    [
        (BadInput("rods", "0", "from 1 to 12"), "Rods to tie on must be from 1 to 12, not “0”."),
        (
            BadInput("stops[1].conditions.water_temp_f", 200.0, "from 32 to 100 °F"),
            "Stop 2: Water must be from 32 to 100 °F, not 200 °F.",
        ),
        (
            BadInput("rods[0].line.test_lb", 3.0, "from 4 to 25 lb for nylon"),
            "Test must be from 4 to 25 lb for nylon, not 3 lb.",
        ),
        (BadInput("the line", "swim jig", "a weight too"), "“swim jig” needs a weight too."),
        (
            BadInput("the file", "not a whole zip", "an export made by Heathdrop"),
            "The file (not a whole zip) will not do; it must be an export made by Heathdrop.",
        ),
        (
            BadInput("plans.json, plans[0].rods", 99, "from 1 to 12"),
            "plans.json, plans[0]: Rods to tie on must be from 1 to 12, not 99.",
        ),
    ],
)
def test_pages_without_the_sheets_controls(refusal: BadInput, sentence: str) -> None:
    assert plain_words(refusal) == sentence


ROOT = Path(__file__).parents[3]


WEB = ROOT / "src" / "heathdrop" / "web"


TABLE = (ROOT / "docs" / "glossary.md").read_text("utf-8").split("## On the screen")[1]


ROWS = [
    [cell.strip() for cell in line.strip("|").split("|")] for line in TABLE.splitlines() if line[:1] == "|"
][2:]


SOURCE = ROOT / "src" / "heathdrop"
PAGES_WORDS = sorted(
    f for f in WEB.rglob("*") if f.suffix in (".html", ".js") and "vendor" not in f.parts
) + sorted(SOURCE.rglob("*.py"))


@cache
def spoken(file: Path) -> str:
    """What a person may read of a file: a template without its tags and comments, a script's sentences, a
    module's texts of several words, docstrings aside."""
    text = file.read_text("utf-8")
    if file.suffix == ".py":
        nodes = list(ast.walk(ast.parse(text)))
        apart = {id(n.value) for n in nodes if isinstance(n, ast.Expr)}
        texts = [n.value for n in nodes if isinstance(n, ast.Constant) and id(n) not in apart]
        return " ".join(t for t in texts if isinstance(t, str) and " " in t.strip())
    if file.suffix == ".js":
        said = re.findall(r"\"([A-Z][^\"\n]* [^\"\n]*)\"|`([A-Z][^`]* [^`]*)`", text)
        return " ".join(re.sub(r"\$\{[^}]*\}", " ", plain + built) for plain, built in said)
    text = re.sub(r"\{#.*?#\}|\{%.*?%\}", " ", text, flags=re.S)
    labels = " ".join(re.findall(r"(?:aria-label|placeholder|title)=\"([^\"]*)\"", text))
    return " ".join((re.sub(r"<[^>]*>", " ", text) + " " + labels).split())


def test_the_table_is_read() -> None:
    assert len(ROWS) > 10
    assert all(len(row) == 3 and all(row) for row in ROWS)
    assert len(PAGES_WORDS) > 60
    code = "\n".join(f.read_text("utf-8") for f in SOURCE.rglob("*.py"))
    first = (ROOT / "docs" / "glossary.md").read_text("utf-8").split("## On the screen")[0]
    names = re.findall(
        r"`([^`]+)`", " ".join(line.split("|")[3] for line in first.splitlines() if line[:1] == "|")
    )
    last = [name.strip("/").split("/")[-1].split(".")[-1] for name in names]
    assert [name for name in last if not re.search(rf"\b{re.escape(name)}\b", code)] == []


@pytest.mark.parametrize("row", ROWS, ids=[row[0] for row in ROWS])
def test_a_thing_has_one_name_on_every_page(row: list[str]) -> None:
    found = {}
    for word in row[2].split(", "):
        pattern = re.compile(rf"(?<![\w-]){re.escape(word)}(?![\w-])", re.I)
        found |= {f"{word}: {f.name}": 1 for f in PAGES_WORDS if pattern.search(spoken(f))}
    assert found == {}, f"say “{row[0]}”"


def test_the_app_answers_with_ages(tmp_path) -> None:  # type: ignore[no-untyped-def]
    told = Sounder(Boat(seed=2), 0, rate=40.0)
    told.start()
    app = create_app(tmp_path / "boat.sqlite", demo=True, nmea=f"tcp://127.0.0.1:{told.port}")
    try:
        with TestClient(app, base_url="http://127.0.0.1") as client:
            wait(lambda: client.get("/api/v1/feed").json()["depth_ft"]["state"] == "live")
            found = client.get("/api/v1/feed").json()
            assert found["connected"]
            assert 4.0 < found["depth_ft"]["value"] < 32.0
            figures = {"depth_ft", "water_temp_f", "position", "speed_mph", "wind_mph", "pressure_hpa"}
            assert set(found) == figures | {"connected", "pressure_trend"}
            page = client.get("/").text
            assert 'id="feed"' in page
            status = client.get("/feed").text
            assert "live" in status
            assert "ft" in status
    finally:
        told.stop()
        app.state.database.close()
    assert threading.active_count() < 40


def test_without_instruments_everything_is_lost(client: TestClient) -> None:
    found = client.get("/api/v1/feed").json()
    assert {found[n]["state"] for n in ("depth_ft", "wind_mph", "position")} == {"lost"}
    assert 'id="feed"' not in client.get("/").text


def test_a_moving_pressure_offers_the_front_it_speaks_of() -> None:
    clock = [0.0]
    for first, last, said, front in (
        (1012.0, 1009.0, "1009 hPa falling", "coming"),
        (1009.0, 1012.0, "1012 hPa rising", "passed"),
        (1012.0, 1012.4, "1012 hPa steady", "none"),
    ):
        feed = Feed(clock=lambda: clock[0])
        clock[0] = 0.0
        feed.hear(checksummed(f"WIMDA,29.9,I,{first / 1000.0:.5f},B,,,,,,,,,,,,,,,,"))
        assert [c.control for c in chips_of(feed)] == ["bottom_depth_ft", "water_temp_f", "wind_mph"]
        clock[0] = 3600.0
        feed.hear(checksummed(f"WIMDA,29.9,I,{last / 1000.0:.5f},B,,,,,,,,,,,,,,,,"))
        chip = chips_of(feed)[-1]
        assert (chip.said, chip.control, chip.value, chip.state) == (said, "front", front, "live")
        clock[0] = 3600.0 + 601.0
        assert len(chips_of(feed)) == 3


IMPERIAL = re.compile(r"\d[\d./ ]*\s?(?:ft|oz|mph|lb|°F|ft/s|in/turn)\b|\b(?:ft|oz|mph|lb)\b|°F")


VIEWS_UNITS = ("water", "size", "rig", "cast")


def in_metric(client: TestClient) -> None:
    sent = {"token": token(client), "system": "metric"}
    answer = client.post("/units", data=sent, headers={"referer": "http://127.0.0.1/box?q=jig"})
    assert [(r.status_code, r.headers["location"]) for r in answer.history] == [(303, "/box?q=jig")]


def said_units(page: str) -> str:
    """What a page says: its texts, its fields' values and its labels for screen readers."""
    body = re.sub(r'<form class="inline units".*?</form>|<script.*?</script>', "", page, flags=re.S)
    spoken = re.findall(r'(?:aria-label|title|placeholder)="([^"]*)"', body)
    return html.unescape(re.sub(r"<[^>]+>", " ", body) + " ; ".join(spoken))


@pytest.mark.slow
@pytest.mark.parametrize("view", VIEWS_UNITS)
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
        found = IMPERIAL.findall(said_units(saved))
        assert found == [], (view, state)


@pytest.mark.slow
def test_box_and_drops_too(client: TestClient) -> None:
    in_metric(client)
    for at in ("/drops", "/drops?kind=depth"):
        assert IMPERIAL.findall(said_units(client.get(at).text)) == []
    assert 'value="10.2"' in client.get("/drops").text  # four inches of trailer
    rows = re.search(r'<table class="box.*?</table>|<tbody.*?</tbody>', client.get("/box").text, re.S)
    assert rows
    assert IMPERIAL.findall(said_units(rows[0])) == []


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
    assert "3/8 oz swim jig, craw 4 in" in said_units(kept.text)
    assert "10 ft, 15 lb fluorocarbon" in said_units(kept.text)


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


def test_own_words_are_never_turned(client: TestClient) -> None:
    in_metric(client)
    sent = {"token": token(client), "name": "the 6 ft bank", "units": "metric", "fish_depth_ft": "2"}
    client.post("/scenarios", data=sent, headers={"hx-request": "true"})
    page = client.get("/").text
    assert "the 6 ft bank" in page
    assert "fish_depth_ft=6.56168" in page
