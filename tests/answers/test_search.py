"""The search of a water: depths that are not known, answers that correct it, every door alike."""

import itertools
import json
import random
import re
from dataclasses import replace
from typing import Any

import pytest
from fastapi.testclient import TestClient

from heathdrop.answers.own import STRANGER
from heathdrop.answers.rods_to_hand import CastTold
from heathdrop.answers.search import place_of, search_water
from heathdrop.answers.stop import Stop, suited, worth_at
from heathdrop.answers.water import call_of, placed
from heathdrop.api.searching import SearchRequest, search_answer
from heathdrop.catalog import Catalog, load
from heathdrop.conditions.gear import Reel
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.learning.learned import Learned
from heathdrop.physics.rig import rig_by_name
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.knowledge import OwnFish
from heathdrop.training.waters import random_water
from tests.waters import BAIT

BODY: dict[str, Any] = {
    "conditions": {
        "water_temp_f": 58,
        "bottom_depth_ft": 12,
        "fish_depth_ft": None,
        "cover": {"kind": "open"},
    }
}


def water(**more: Any) -> Scenario:
    said = {**BODY["conditions"], **more}
    return SizeRequest.model_validate({"conditions": said, "families": ["swim-jig"]}).scenario()


def test_a_range_and_null_are_sized_for_their_mean_and_say_so(client: TestClient) -> None:
    whole = water()
    assert whole.conditions.fish_span_ft == (0.0, 12.0)
    assert placed(whole).conditions.fish_depth_ft == 6.5
    some = placed(water(fish_depth_ft={"low": 8, "high": 11}))
    assert 8.0 <= some.conditions.fish_depth_ft <= 11.0
    answer = client.post("/api/v1/size", json=BODY | {"limit": 1})
    assert answer.status_code == 200, answer.text
    assert answer.json()["doubt"].startswith(
        "The fish are somewhere from 0 to 12 ft: this is sized for 6.5 ft"
    )
    for wrong in ({"low": 9, "high": 4}, {"low": 1}, {"low": 1, "high": 20}, {"low": "a", "high": 4}):
        refused = client.post(
            "/api/v1/size", json={"conditions": BODY["conditions"] | {"fish_depth_ft": wrong}}
        )
        assert refused.status_code == 422, wrong
        assert "fish_depth_ft" in refused.json()["detail"]


def test_the_next_cast_is_said_with_its_reason() -> None:
    found = search_water(water(), limit=4)
    first = found.steps[0]
    assert first.next.change == "none"
    assert first.why == f"Start with count {first.next.cast.count_s:.1f}."
    assert all("chance" not in step.why and " s " not in step.why for step in found.steps)
    assert sum(first.seconds) > 10.0
    assert found.tried == 0.0
    so_far = [s.next.so_far for s in found.steps]
    assert so_far == sorted(so_far)
    rig = search_water(water(), limit=1).steps[0].next.cast
    assert search_water(water(), limit=1).steps[0].next.cast.rig == rig.rig


def told(outcome: str, at_s: float | None = None) -> CastTold:
    return CastTold(rig_by_name(load(), "swim-jig", 0.5, "craw"), 4.0, 2.2, outcome, at_s)


def test_answers_move_the_belief_and_correct_the_water() -> None:
    before = search_water(water(), limit=1)
    nothing = search_water(water(), casts_told=[told("nothing")], limit=1)
    assert nothing.tried > 0.02
    assert nothing.nobody > 0.5
    deep = search_water(water(), casts_told=[told("fish", 12.0)], limit=2)
    assert abs(deep.belief.mean_ft - before.belief.mean_ft) > 0.3
    assert deep.steps[0].next.change == "none"
    assert deep.steps[0].next.cast.count_s == 4.0
    assert "a fish took it there" in deep.steps[0].why
    floor = search_water(water(), casts_told=[told("found-bottom", 3.0)], limit=1)
    assert floor.scenario.conditions.bottom_depth_ft == pytest.approx(6.5, abs=1.0)
    assert floor.learned[0].startswith("The bottom is at ")
    high = search_water(water(), casts_told=[told("ran-high")], limit=1)
    assert not (high.belief.cells == nothing.belief.cells).all()
    with pytest.raises(BadInput, match=r"casts\[0\].outcome"):
        search_water(water(), casts_told=[told("eaten")])


def test_every_door_says_the_same(client: TestClient, tmp_path: Any) -> None:
    from typer.testing import CliRunner

    from heathdrop.cli import app

    body = BODY | {
        "limit": 2,
        "casts": [
            {
                "family": "swim-jig",
                "head_oz": 0.5,
                "trailer": "craw",
                "countdown_s": 4,
                "pace_ft_s": 2.2,
                "outcome": "nothing",
            }
        ],
        "rods": [{"family": "swim-jig", "head_oz": 0.5, "trailer": "craw"}],
    }
    answer = client.post("/api/v1/search", json=body)
    assert answer.status_code == 200, answer.text
    found = answer.json()
    assert sum(c["chance"] for c in found["belief"]) + found["nobody"] == pytest.approx(1.0)
    assert {c["pace"] for c in found["belief"]} == {"slow", "middle", "quick"}
    cast = found["casts"][0]
    assert set(cast) >= {"family", "head_oz", "trailer", "trailer_length_in", "countdown_s", "pace_ft_s"}
    assert cast["change"] in ("none", "count", "pace")
    assert all(c["low_ft"] > c["top_ft"] and c["seconds"] > 0 for c in cast["covers"])
    file = tmp_path / "search.json"
    file.write_text(json.dumps(body))
    said = CliRunner().invoke(app, ["search", str(file), "--data", str(tmp_path / "none.sqlite")])
    assert said.exit_code == 0
    stranger = search_answer(SearchRequest.model_validate(body)).model_dump(mode="json")
    assert json.loads(said.stdout) == stranger
    for wrong, field in (
        ({"casts": [{**body["casts"][0], "outcome": "eaten"}]}, "outcome"),
        ({"casts": [{**body["casts"][0], "trailer": "worm"}]}, "casts[0].trailer"),
        ({"rods": [{"family": "toad", "head_oz": 1, "trailer": "craw"}]}, "rods[0].family"),
        ({"limit": 0}, "limit"),
    ):
        refused = client.post("/api/v1/search", json=body | wrong)
        assert refused.status_code == 422
        assert field in refused.json()["detail"]


@pytest.mark.slow
def test_the_page_searches_in_its_address(client: TestClient) -> None:
    at = "/?view=search&fish_depth_ft=%3F&bottom_depth_ft=12&cover=open&water_temp_f=58"
    page = client.get(at).text
    assert "Next cast" in page
    assert ">0 % of the chance is tried" in page
    nothing = page.split('class="mood"')[1].split('href="')[1].split('"')[0].replace("&amp;", "&")
    assert "nothing" in nothing
    after = client.get(nothing).text
    assert "Casts made" in after
    assert ">0 % of the chance is tried" not in after
    assert client.get(at + "&tried=nonsense").status_code == 422
    assert "fish_depth_ft=%3F" in page
    metric = client.get(at.replace("%3F", "1+to+3") + "&units=metric&bottom_depth_ft=3.66")
    assert "fish_depth_ft=3.3+to+9.8" in metric.text or "fish_depth_ft=3.28" in metric.text


MAT = {
    "water_temp_f": 82,
    "season": "summer",
    "bottom_depth_ft": 5,
    "fish_depth_ft": 3,
    "cover": {"kind": "matted-grass", "thickness_in": 4, "texture": "milfoil"},
}
RODS = (
    "bladed-jig:0.625:craw",
    "swim-jig:0.3125:craw",
    "football-jig:0.625:twin-tail",
    "punch-rig:1.25:beaver",
)


def over_the_mat(**more: Any) -> Scenario:
    gear = {"cast_ft": 40, "line": {"material": "braid", "test_lb": 65}}
    return SizeRequest.model_validate({"conditions": MAT | more, "gear": gear}).scenario()


def test_a_mat_is_punched_and_not_thrown_over(cat: Catalog) -> None:
    """What the sheet knows of a rig reaches the search: no blade is thrown over the mat."""
    rods = [RigName.parse(name).rig(cat) for name in RODS]
    found = search_water(over_the_mat(), rods=rods)
    assert {s.next.cast.family for s in found.steps} == {"punch-rig"}
    open_water = search_water(over_the_mat(cover={"kind": "open"}), rods=rods)
    assert open_water.steps[0].next.cast.family in ("swim-jig", "bladed-jig")


def test_it_is_time_to_move_on_when_little_is_left(cat: Catalog) -> None:
    rods = [RigName.parse("punch-rig:1.25:beaver").rig(cat)]
    scenario = over_the_mat()
    cast = search_water(scenario, rods=rods).steps[0].next.cast
    told = [CastTold(rods[0], cast.count_s, cast.pace_ft_s, "nothing")] * 40
    assert search_water(scenario, rods=rods, casts_told=told[:1]).move_on is None
    left = search_water(scenario, rods=rods, casts_told=told)
    assert left.move_on is not None
    assert re.fullmatch(
        r"Move on: ten more minutes here bring 0\.0\d bites, ten at a fresh stop like this 0\.\d\d\.",
        left.move_on,
    )
    assert left.nobody > 0.6


def test_search_takes_ones_own_fish_as_they_were_agreed_to() -> None:
    """Fish that bite more readily are sooner met, and soon not here; empty stops start from their own share;
    each says what it rests on."""
    plain = search_water(water(), limit=3, casts_told=[told("nothing")])
    fish = OwnFish(bites=2.0, absent=0.8, casts=(("bites", 212), ("absent", 300)))
    own = search_water(
        water(), replace(STRANGER, learned=Learned(fish=fish)), limit=3, casts_told=[told("nothing")]
    )
    assert own.per_s == pytest.approx(2.0 * plain.per_s)
    assert own.tried > 1.5 * plain.tried
    assert own.nobody > 0.8 > plain.nobody > 0.5
    assert own.nobody == pytest.approx(0.8 / (0.8 + 0.2 * (1.0 - own.tried)))
    assert own.fish == (
        "Your own fish, bite rate: 100 % higher (212 casts of your log).",
        "Your own fish, empty stops: 80 % instead of 50 %, more of them (300 casts of your log).",
    )
    assert plain.fish == own.learned == ()  # the deck says what casts taught, not this at every cast
    place = place_of(load(), water())
    assert place_of(load(), water(), OwnFish(tires=0.4)) == replace(place, tires=0.4)
    assert place_of(load(), water(), fish) == replace(place, absent=0.8)


def test_fish_on_the_floor_are_worked_for_while_the_floor_rod_suits_best(cat: Catalog) -> None:
    """Willing summer fish at the foot of 26 ft: the deck stays with the jig that plan and sheet name, and
    does not leave it for a pitched one that suits these fish much less."""
    deep = replace(
        BAIT,
        water_temp_f=80.0,
        bottom_depth_ft=26.0,
        fish_depth_ft=26.0,
        clarity_ft=7.0,
        light="overcast",
        season="summer",
        forage="crawfish",
        bottom="sand",
    )
    water = Scenario(deep)
    suits = [
        rig_by_name(cat, "football-jig", 0.75, "twin-tail"),
        rig_by_name(cat, "flipping-jig", 0.75, "craw"),
    ]
    best, other = (worth_at(Stop("", water), rig, suited(rig, Reel()), STRANGER) for rig in suits)
    assert best > 1.5 * other
    found = search_water(water, STRANGER, suits, limit=8)
    assert [step.next.cast.family for step in found.steps[:2]] == ["football-jig"] * 2


@pytest.mark.parametrize("kind", ["open", "wood", "docks"])
def test_where_nobody_knows_how_deep_counts_are_stepped_in_twos_and_threes(kind: str) -> None:
    """Eight casts: never more than four at one count running, three counts at least."""
    water = {"water_temp_f": 70, "bottom_depth_ft": 10, "fish_depth_ft": None, "cover": {"kind": kind}}
    scenario = SizeRequest.model_validate({"conditions": water}).scenario()
    counts = [s.next.cast.count_s for s in search_water(scenario, limit=8).steps]
    runs = [len(list(run)) for _, run in itertools.groupby(counts)]
    assert max(runs) <= 4
    assert len(set(counts)) >= 3
    # Where it is said they are thrown at as sized, and then a little beside it.
    known = SizeRequest.model_validate({"conditions": {**water, "fish_depth_ft": 5}}).scenario()
    steps = search_water(known, limit=8).steps
    assert steps[0].next.cast.sized
    assert len({s.next.cast.setting for s in steps}) >= 3


@pytest.mark.slow
def test_search_opens_as_the_sheet_calls_it_where_the_depth_is_known() -> None:
    """Sheet and search name one rig first over twenty random waters; after a blank the order is its own."""
    rng, other = random.Random(23), 0
    for _ in range(20):
        scenario = SizeRequest.model_validate(random_water(rng)).scenario()
        called = call_of(scenario, places=1).standings[0].best
        first = search_water(scenario, limit=2).steps
        assert first[0].next.cast.rig == called.key
        assert first[0].next.change == "none"
        other += first[1].next.cast.rig != called.key
    assert other > 0
