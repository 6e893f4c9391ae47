"""The log: days newest first, rates drawn, nothing claimed of a small log."""

import random
import re
from dataclasses import replace
from typing import Any

import pytest
from fastapi.testclient import TestClient

from heathdrop.answers.last_time import thrown_said
from heathdrop.answers.lessons import Lessons
from heathdrop.answers.shifts import Shift
from heathdrop.answers.trials import Trial
from heathdrop.conditions.made import FishBody
from heathdrop.demo.season import season
from heathdrop.learning.rates import Effort, rates_of
from heathdrop.store import casts
from heathdrop.store.fish import AgreedShift
from heathdrop.units import count_said
from heathdrop.web.log.shown import day_rows, stops_of_day
from heathdrop.web.log.taught import (
    first_of,
    fits_said,
    looks_of,
    sayings_of,
)
from tests.answers.logged import HEADS, WATER, cast, fished
from tests.web.shown import token


@pytest.mark.slow
def test_days_are_listed_newest_first_and_turned_over(client: TestClient) -> None:
    made = [cast(1440 * day + k, "fish" if k == 3 else "nothing") for day in range(33) for k in range(6)]
    for at in range(0, len(made), 99):
        body = [c.model_dump(mode="json", exclude_none=True) for c in made[at : at + 99]]
        assert client.post("/api/v1/casts", json=body).status_code == 200
    page = client.get("/log").text
    days = re.findall(r"<b>(\d{4}-\d\d-\d\d)</b></a>", page)
    assert len(days) == 20
    assert days == sorted(days, reverse=True)
    older = re.search(r'href="(/log\?before=[\d-]+)"', page)
    assert older is not None
    more = re.findall(r"<b>(\d{4}-\d\d-\d\d)</b></a>", client.get(older[1]).text)
    assert len(more) == 13
    assert not set(more) & set(days)
    assert "1 bite in 6 casts" in page
    assert "more than the rest of your log" not in page


def test_a_stop_s_name_is_text(client: TestClient) -> None:
    evil = cast(0, stop="<script>alert(1)</script>")
    assert (
        client.post("/api/v1/casts", json=[evil.model_dump(mode="json", exclude_none=True)]).status_code
        == 200
    )
    assert "<script>alert" not in client.get("/log").text


@pytest.mark.slow
def test_last_time_on_the_sheet_takes_what_bit(client: TestClient) -> None:
    water = {"water_temp_f": "60", "bottom_depth_ft": "9", "fish_depth_ft": "5", "cover": "open"}
    assert "Last time" not in client.get("/last", params=water).text
    like = {"water_temp_f": 61, "bottom_depth_ft": 9, "fish_depth_ft": 5, "cover": {"kind": "open"}}
    made = [
        cast(k, "fish" if k in (2, 4) else "nothing", stop="Mill bay").model_copy(
            update={"conditions": like, "countdown_s": 3.0, "pace_ft_s": 2.0}
        )
        for k in range(6)
    ]
    body = [c.model_dump(mode="json", exclude_none=True) for c in made]
    assert client.post("/api/v1/casts", json=body).status_code == 200
    told = client.get("/last", params=water).text
    assert "Mill bay: 2 bites in 6 casts</summary>" in told
    assert "Alike: temperature 61 °F" in told
    taken = re.search(r'href="([^"]+)" aria-label="Take what', told)
    assert taken is not None
    address = taken[1].replace("&amp;", "&")
    assert "count_s=3" in address
    assert "pace_ft_s=2" in address
    assert client.get(address).status_code == 200
    far = {**water, "water_temp_f": "88", "bottom_depth_ft": "40", "fish_depth_ft": "35", "cover": "docks"}
    assert "Last time" not in client.get("/last", params=far).text
    assert client.get("/last", params={**water, "fish_depth_ft": "900"}).status_code == 200


def test_a_day_typed_in_is_read_back_kept_once_and_counts_for_no_rate(client: TestClient) -> None:
    told = {"token": token(client), "line": "three fish, swim jig 3/8 craw, Mill bay, morning, 61F"}
    told["date"] = "2026-04-11"
    read = client.post("/log/typed", data=told)
    assert (
        "2026-04-11, about 08:00, Mill bay: 3 fish on 3/8 oz swim jig, craw 4 in; water 61 °F. How many "
        "casts is not said, so the rates leave it out." in read.text
    )
    assert "Nothing is on record yet" in client.get("/log").text
    kept = client.post("/log/typed", data=told | {"do": "keep"})
    assert kept.url.path == "/log/day/2026-04-11"
    assert "3 bites in 3 casts" in kept.text
    assert "not on record" in kept.text
    again = client.post("/log/typed", data=told | {"do": "keep"})
    assert (again.status_code, "on record for that day already" in again.text) == (422, True)
    assert client.get("/api/v1/lessons").json()["rates"] == []
    wrong = client.post("/log/typed", data=told | {"line": "fish <all> day"})
    assert wrong.status_code == 422
    assert 'value="fish &lt;all&gt; day"' in wrong.text
    assert "the words of a rig" in wrong.text
    assert client.post("/log/typed", data=told | {"date": "11 April"}).status_code == 422
    assert client.post("/log/typed", data=told | {"token": "x"}).status_code == 403


@pytest.mark.slow
def test_a_shift_that_is_told_is_used_said_on_the_sheet_and_withdrawn(client: TestClient) -> None:
    """Log, JSON, sheet and size answer say one thing of the angler's own fish, before and after."""
    made = fished(random.Random(5), 300, 0.2, HEADS)
    for at in range(0, len(made), 100):
        body = [c.model_dump(mode="json", exclude_none=True) for c in made[at : at + 100]]
        assert client.post("/api/v1/casts", json=body).status_code == 200
    water = {"conditions": WATER, "families": ["swim-jig"]}

    def head_oz() -> float:
        return float(client.post("/api/v1/size", json=water).json()["rigs"][0]["head_oz"])

    def in_use() -> dict[str, bool]:
        return {o["what"]: o["in_use"] for o in client.get("/api/v1/lessons").json()["own"]}

    plain = head_oz()
    assert in_use() == dict.fromkeys(
        ("head weight", "pace", "bite rate", "mood in warm water", "empty stops", "the same cast again"),
        False,
    )
    assert "Use it" in client.get("/log/taught").text
    key = {"token": token(client)}
    # What the log does not say, nobody can agree to.
    client.post("/log/taught", data={**key, "about": "pace", "do": "agree"})
    assert in_use()["pace"] is False
    used = client.post("/log/taught", data={**key, "about": "head weight", "do": "agree"})
    assert "In use: head weight" in used.text
    assert in_use()["head weight"] is True
    assert head_oz() < plain
    why = " ".join(client.post("/api/v1/size", json=water).json()["rigs"][0]["why"])
    assert "Your fish at 58 °F: heads" in why
    back = client.post("/log/taught", data={**key, "about": "head weight", "do": "withdraw"})
    assert "Use it" in back.text
    assert head_oz() == plain


@pytest.mark.slow
def test_the_year_in_sight(client: TestClient) -> None:
    """The demo's season: its days, months and fish; what the box carried for nothing; a link from the log."""
    made = [c for c in season() if c.time.year == 2026]
    for at in range(0, len(made), 100):
        body = [c.model_dump(mode="json", exclude_none=True) for c in made[at : at + 100]]
        assert client.post("/api/v1/casts", json=body).status_code == 200
    page = client.get("/log/year/2026").text
    days, fish = len({c.time.date() for c in made}), sum(c.outcome == "fish" for c in made)
    title = re.search(r"<h1>2026: (\d+) days, \d+ hours of casting,\s+(\d+) fish</h1>", page)
    assert title is not None
    assert (int(title[1]), int(title[2])) == (days, fish)
    assert f"{len(made)} casts" in page
    assert '<th scope="row">March</th>' in page
    assert "1 1/4 oz punch rig" in page
    assert 'href="/log/year/2026"' in client.get("/log").text


@pytest.mark.parametrize(
    ("year", "said"), [("2019", "Nothing is on record for 2019."), ("x", "A year is four")]
)
def test_a_year_without_casts_is_said(client: TestClient, year: str, said: str) -> None:
    answer = client.get(f"/log/year/{year}")
    assert answer.status_code == 404
    assert said in answer.text


def test_a_typed_line_is_said_otherwise_taken_back_and_brought_back(client: TestClient) -> None:
    key = {"token": token(client), "date": "2026-04-11"}
    told = key | {"line": "three fish, swim jig 3/8 craw, Mill bay, morning, 61F", "do": "keep"}
    day = client.post("/log/typed", data=told).text
    link = re.search(r'href="(/log/typed\?was=2026-04-11&amp;instead=([\w-]+))"', day)
    assert link is not None
    assert "3 fish, 3/8 swim jig craw 4 in, Mill bay, 08:00, 61F" in day
    form = client.get(link[1].replace("&amp;", "&")).text
    assert 'value="3 fish, 3/8 swim jig craw 4 in, Mill bay, 08:00, 61F"' in form
    # Said otherwise, the new line stands in place of the old one.
    other = key | {"was": "2026-04-11", "instead": link[2], "do": "keep"}
    changed = client.post(
        "/log/typed", data=other | {"line": "two fish, swim jig 1/2 craw, Mill bay, morning"}
    )
    assert "2 bites in 2 casts" in changed.text
    assert "3/8" not in changed.text
    # The same line again, in place of itself, is no loss.
    mine = re.search(r"instead=([\w-]+)", changed.text)
    assert mine is not None
    same = key | {"was": "2026-04-11", "instead": mine[1], "do": "keep"}
    kept = client.post("/log/typed", data=same | {"line": "two fish, swim jig 1/2 craw, Mill bay, morning"})
    assert "2 bites in 2 casts" in kept.text
    # Another line of the day stays when one is taken back; undone, both are there.
    client.post("/log/typed", data=told | {"line": "one fish, 1/4 micro jig, Dam, noon"})
    taken = client.post("/log/away", data=key | {"typed": mine[1]})
    assert "2 casts of 2026-04-11 deleted." in taken.text
    assert "Mill bay" not in taken.text
    assert "Dam" in taken.text
    assert "Mill bay" in client.post("/log/back", data=key).text
    # The whole day, and back again; a second undo has nothing to undo.
    gone = client.post("/log/away", data=key)
    assert gone.url.path == "/log"
    assert "3 casts of 2026-04-11 deleted." in gone.text
    assert client.get("/log/day/2026-04-11").status_code == 404
    assert client.get(link[1].replace("&amp;", "&")).status_code == 404
    undone = client.post("/log/back", data=key)
    assert "Mill bay" in undone.text
    assert "Dam" in undone.text
    # What was said otherwise before that can be undone too; when all is, there is nothing.
    assert [client.post("/log/back", data=key).status_code for _ in range(3)] == [200, 200, 404]
    # A line that was taken back may be typed in again.
    client.post("/log/away", data=key)
    again = client.post("/log/typed", data=told)
    assert "3 bites in 3 casts" in again.text


def test_a_day_s_casts_stand_along_its_hours() -> None:
    made = [cast(0), cast(30, "fish"), cast(60)]
    (row,) = day_rows(made)
    assert row.marks == ((0.0, False), (0.5, True), (1.0, False))
    assert (row.casts, row.bites, row.stops) == (3, 1, "Bay")


def test_conditions_that_make_no_water_stop_no_page() -> None:
    """A bottom at nothing, a fish depth in words: what is known is drawn, what is not is left out."""
    odd = cast(0, "fish", conditions={**WATER, "bottom_depth_ft": 0, "fish_depth_ft": "deep", "light": ["x"]})
    (stop,) = stops_of_day([odd, cast(1)])
    assert stop.drawing is not None
    assert len(stop.drawing.dots) == 1
    assert len(stop.drawing.fish.split()) == 3
    assert " to " not in stop.drawing.said
    assert stop.drawing.said.startswith("1 cast at ")
    assert "58 °F" in stop.water
    (bare,) = stops_of_day([cast(0, conditions=None, trailer="toad")])
    assert (bare.drawing, bare.water, bare.rigs[0].rig) == (None, "", "3/8 oz swim jig")


def test_a_stop_is_drawn_as_it_was_sounded() -> None:
    """Floor and fish through the hours, tops, and beneath what changed."""
    grass = {**WATER, "cover": {"kind": "submerged-grass", "top_depth_ft": 5}, "bottom_depth_ft": 10}
    later = grass | {"bottom_depth_ft": 8, "fish_depth_ft": 4, "wind_mph": 9}
    (stop,) = stops_of_day([cast(0, conditions=grass | {"wind_mph": 3}), cast(60, "fish", conditions=later)])
    d = stop.drawing
    assert d is not None
    assert [(o.x, o.bit) for o in d.dots] == [(10.0, False), (590.0, True)]
    assert d.floor.split()[1:-1] == ["0,138", "10,138", "590,112", "600,112"]
    assert d.fish.split()[-1] == "600,60"
    assert d.tops.split()[:2] == ["0,73", "600,73"]
    assert d.hours == ((10.0, "06:00"), (590.0, "07:00"))
    assert d.beneath == (((10.0, "wind 3 mph"), (590.0, "wind 9 mph")),)


def test_a_cast_is_corrected_beneath_the_drawing_of_its_day(client: TestClient) -> None:
    told = {"token": token(client), "do": "keep", "date": "2026-04-11"}
    client.post(
        "/log/typed", data=told | {"line": "2 fish, 3/8 swim jig craw, Mill bay, morning, 58F, 20 casts"}
    )
    record = client.get("/deck/record?day=2026-04-11").text
    last, *_, second, first = re.findall(r'action="/deck/record/([^"]+)"', record)
    shown = client.get(f"/log/cast/{first}").text
    assert "Earlier cast" not in shown
    assert f'hx-get="/log/cast/{second}"' in shown
    assert "Later cast" not in client.get(f"/log/cast/{last}").text
    form = {"token": told["token"], "day": "2026-04-11", "log": "yes"}
    kept = client.post(f"/deck/record/{last}", data=form | {"outcome": "bump", "note": "at the post"})
    assert kept.url.path == "/log/day/2026-04-11"
    assert "at the post" in kept.text
    gone = client.post(f"/deck/record/{first}", data=form | {"do": "back"})
    assert "The cast is deleted." in gone.text
    assert client.get(f"/log/cast/{first}").status_code == 404
    back = client.post(f"/deck/record/{first}", data=form | {"do": "undo"})
    assert back.url.path == "/log/day/2026-04-11"
    assert client.get(f"/log/cast/{first}").status_code == 200


def test_a_stop_says_its_hours_its_fish_and_its_notes() -> None:
    made = [cast(0, note="mist"), cast(45, "fish", fish={"length_in": 15.5}), cast(61, "bump", stop="Point")]
    bay, point = stops_of_day(made)
    assert (bay.name, bay.hours, bay.bites, bay.notes) == ("Bay", "06:00 to 06:45", 1, ("06:00 mist",))
    count = count_said(made[1].countdown_s)
    assert bay.fish == (f"06:45 15.5 in: {thrown_said(made[1])}, count {count}",)
    (heavy,) = stops_of_day([cast(0, "fish", fish={"weight_lb": 3.2}, pace_ft_s=0.0)])
    assert heavy.fish == (f"06:00 not measured, 3.2 lb: {thrown_said(made[1])}",)
    assert (point.hours, point.bites, point.fish) == ("07:01", 1, ())
    assert stops_of_day([cast(0, stop="")])[0].name == "No stop named"


def lessons(**more: object) -> Lessons:
    rows = [
        Effort("head", "1/4 oz", 30, 2.0, 6),
        Effort("head", "1/2 oz", 30, 2.0, 1),
        Effort("light", "low", 60, 4.0, 7),
    ]
    found: dict[str, object] = {"like_today": (), "rates": tuple(rates_of(rows)), "schools": (), "own": ()}
    return Lessons(60, 7, **{**found, **more})  # type: ignore[arg-type]


def test_three_things_are_said_first() -> None:
    """What differs with its plain counts, what does not yet, what is too little known to tell."""
    rows = [
        Effort("head", "1/4 oz", 300, 20.0, 60),
        Effort("head", "1/2 oz", 300, 20.0, 6),
        Effort("light", "low", 300, 20.0, 33),
        Effort("light", "bright", 300, 20.0, 33),
        Effort("trailer", "craw", 300, 20.0, 60),
        Effort("trailer", "pin-tail", 295, 19.5, 6),
        Effort("trailer", "chunk", 5, 0.5, 0),
    ]
    first = first_of(looks_of(rates_of(rows)))
    assert first.differs == (
        "Head 1/4 oz: 60 bites in 300 casts, 20 in 100, more than the rest of your log",
        "Head 1/2 oz: 6 bites in 300 casts, 2 in 100, fewer than the rest of your log",
        "Trailer craw: 60 bites in 300 casts, 20 in 100, more than the rest of your log",
        "Trailer pin-tail: 6 bites in 295 casts, 2 in 100, fewer than the rest of your log",
    )
    assert (first.same, first.more) == (
        ("light",),
        "Chunk (no bite in 5 casts) and light low (33 bites in 300 casts, 11 in 100)",
    )


def test_what_a_fit_has_meant_is_said_where_the_log_can_tell() -> None:
    rows = [
        Effort("fit", "0 to 69", 3, 0.1, 0),
        Effort("fit", "70 to 79", 300, 20.0, 6),
        Effort("fit", "90 and more", 300, 20.0, 60),
    ]
    assert fits_said(lessons(fit=tuple(rates_of(rows)))) == (
        "In your log: fit 90 and more: 60 bites in 300 casts, 20 in 100; "
        "70 to 79: 6 bites in 300 casts, 2 in 100."
    )
    alike = [replace(e, bites=30) for e in rows[1:]]
    assert fits_said(lessons(fit=tuple(rates_of(alike)))).endswith(" It does not tell them apart yet.")
    assert fits_said(lessons()) == "Your log (60 casts) is too short to say what 90 and 70 have meant in it."


def test_only_what_is_known_is_said() -> None:
    assert sayings_of(lessons(), {}, {}) == []
    few = Trial("weight-lean", "lighter", 0.4, "too few", 9)
    much = Trial("weight-lean", "lighter", 4.0, "strongly for it", 150)
    known, unknown = Shift("pace", 0.8, 0.7, 0.95, 90, sure=True), Shift("head weight", 1.1, 1.02, 1.3, 90)
    found = lessons(schools=(few, much), own=(known, unknown))
    assert [(s.text, s.button, s.about) for s in sayings_of(found, {}, {})] == [
        (
            "A step of weight, “a step lighter”: your log strongly for it (150 casts).",
            "Hold to it",
            "weight-lean/lighter",
        ),
        (
            "Your fish like a pace 20 % slower than assumed (90 casts).",
            "Use it",
            "pace",
        ),
    ]
    agreed = sayings_of(found, {"pace": AgreedShift(value=0.8, casts=90)}, {"weight-lean": "lighter"})
    assert [(s.text[-40:], s.button, s.used) for s in agreed] == [
        ("log strongly for it (150 casts). You hold to it."[-40:], "", False),
        ("like a pace 20 % slower than assumed (90 casts)."[-40:], "Back to what is assumed", True),
    ]
    empty = Shift("empty stops", 0.71, 0.6, 0.8, 300, sure=True, unit="share", table=0.5)
    colder = Shift("mood in cold water", -0.6, -1.0, -0.2, 300, sure=True, unit="steps", table=0.0)
    assert [s.text.split(" Nothing")[0] for s in sayings_of(lessons(own=(empty, colder)), {}, {})] == [
        "71 of 100 stops hold no fish, not 50 (300 casts).",
        "In cold water your fish are 0.6 steps lazier than assumed (300 casts).",
    ]
    used = {"the same cast again": AgreedShift(value=0.6, casts=200)}
    assert [s.text for s in sayings_of(lessons(), used, {})] == [
        "In use: the same cast again 60 % instead of 75 %, they tire sooner (200 casts)."
    ]
    against = Trial("weight-lean", "lighter", -4.0, "strongly against it", 150)
    assert sayings_of(lessons(schools=(against,)), {}, {})[0].button == ""


def test_a_line_said_otherwise_keeps_what_was_mended_and_two_lines_stay_two(client: TestClient) -> None:
    """A fish that was measured since, a note; the same rig at the same stop in the morning and at night."""
    key = {"token": token(client), "date": "2026-04-11", "do": "keep"}
    client.post("/log/typed", data=key | {"line": "one fish, swim jig 3/8 craw, Bay, 18:30, by the reeds"})
    day = client.post("/log/typed", data=key | {"line": "two fish, swim jig 3/8 craw, Bay, 08:00"}).text
    lines = re.findall(r"instead=([\w-]+)", day)
    assert len(lines) == 2
    app: Any = client.app
    with app.state.database.session() as session:
        first = next(c for c in casts.of_days(session, "2026-04-11", "2026-04-11") if c.time.hour == 8)
        casts.mend(
            session, first.model_copy(update={"fish": FishBody(length_in=21, weight_lb=5.5), "note": "big"})
        )
    other = key | {"was": "2026-04-11", "instead": str(first.id)}
    client.post("/log/typed", data=other | {"line": "two fish, swim jig 3/8 craw, Bay, 08:00, 61F"})
    with app.state.database.session() as session:
        found = casts.of_days(session, "2026-04-11", "2026-04-11")
    assert [(c.time.hour, c.note, c.fish.length_in if c.fish else None) for c in found] == [
        (8, "big", 21.0),
        (8, "", None),
        (18, "by the reeds", None),
    ]
