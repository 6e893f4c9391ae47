"""A water sized and a day planned: which rigs go on which rods, work beside the requests."""

import copy
import json
import time
from dataclasses import replace
from pathlib import Path
from threading import Event
from typing import Any

import pytest
from fastapi.testclient import TestClient
from typer.testing import CliRunner

from heathdrop import catalog as catalogue
from heathdrop.answers.day_table import rated_closely, table_of
from heathdrop.answers.jobs import Job, Jobs, Tell
from heathdrop.answers.own import STRANGER
from heathdrop.answers.plan import plan_day
from heathdrop.answers.stop import Rod, Stop, parts_of, shares_of, worths_of
from heathdrop.api.planning import plan_answer
from heathdrop.cli import app
from heathdrop.conditions.gear import Line, Reel
from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.scenario import Scenario
from heathdrop.day.plan import planned, the_stops
from heathdrop.demo import ashmoor
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import name_of
from tests.waters import BAIT, GRASS


@pytest.fixture(scope="module")
def day() -> dict[str, Any]:
    return {**ashmoor.day(), "box": "standard"}


@pytest.fixture(scope="module")
def answer(day: dict[str, Any]) -> dict[str, Any]:
    return plan_answer(PlanRequest.model_validate(day)).model_dump(by_alias=True, mode="json")


@pytest.mark.slow
def test_the_demo_day(answer: dict[str, Any], day: dict[str, Any]) -> None:
    """Six stops on five rods: every stop has a rod that serves it well, nothing passes the bound."""
    assert [s["name"] for s in answer["stops"]] == [s["name"] for s in day["stops"]]
    assert [r["name"] for r in answer["rods"]] == ["A", "B", "C", "D", "E"]
    assert 0.85 < answer["total"] <= answer["bound"] <= 1.0
    assert all(s["served"] for s in answer["stops"])
    by_name = {s["name"]: s["with"] for s in answer["stops"]}
    assert by_name["Matted pocket"]["rig"]["family"] == "punch-rig"
    assert by_name["Stone causeway"]["rig"]["family"] in ("football-jig", "finesse-jig", "casting-jig")
    assert by_name["Mill bay milfoil"]["rig"]["family"] in ("bladed-jig", "swim-jig", "spinnerbait")
    assert answer["bag"]


@pytest.mark.slow
def test_what_is_not_rated_on_every_rod_would_not_have_been_chosen(
    day: dict[str, Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    """The demo's stops on its own five rods, every rig rated on every rod and as they are screened."""
    request = PlanRequest.model_validate(day)
    stops, reel = the_stops(request), Reel()
    spools = (
        ("fluorocarbon", 15.0),
        ("braid", 50.0),
        ("fluorocarbon", 10.0),
        ("nylon", 15.0),
        ("braid", 30.0),
    )
    rods = [Rod(f"{n}", Line(material=m, test_lb=lb), reel) for n, (m, lb) in enumerate(spools)]
    screened = plan_day(stops, rods, closely=False)
    monkeypatch.setattr("heathdrop.answers.day_table.MANY_CANDIDATES", 10**6)
    whole = plan_day(stops, rods, closely=False)
    assert [name_of(t.rig) for t in screened.rods] == [name_of(t.rig) for t in whole.rods]
    assert screened.total == pytest.approx(whole.total, rel=1e-9)


@pytest.mark.slow
def test_fewer_rods_are_worth_less_and_each_one_adds(day: dict[str, Any], answer: dict[str, Any]) -> None:
    worth = [planned(PlanRequest.model_validate(day | {"rods": n})).total for n in (1, 2, 3)]
    assert worth == sorted(worth)
    assert worth[2] < answer["total"]
    assert all(r["adds"] > 0 for r in answer["rods"])
    assert sum(r["adds"] for r in answer["rods"]) <= answer["total"] + 1e-6


@pytest.mark.slow
def test_named_rods_keep_their_line_and_hold_one_rig_each(day: dict[str, Any]) -> None:
    rods = [
        {"name": "stiff", "line": {"material": "braid", "test_lb": 65}, "inches_per_turn": 31},
        {"name": "soft", "line": {"material": "fluorocarbon", "test_lb": 12}},
    ]
    found = plan_answer(PlanRequest.model_validate(day | {"rods": rods}))
    assert {r.name for r in found.rods} <= {"stiff", "soft"}
    assert len({r.name for r in found.rods}) == len(found.rods)
    lines = {r.name: r.line["test_lb"] for r in found.rods}
    assert lines == {"stiff": 65.0, "soft": 12.0}
    mat = next(s for s in found.stops if s.name == "Matted pocket")
    assert mat.with_.rod == "stiff"
    assert mat.with_.turns_per_s == pytest.approx(mat.with_.pace_ft_s * 12 / 31, abs=1e-3)


@pytest.mark.slow
def test_what_matters_more_is_served_first(day: dict[str, Any]) -> None:
    def family(matters: str) -> str:
        body = copy.deepcopy(day) | {"rods": 1}
        for stop in body["stops"]:
            stop["importance"] = 10.0 if stop["name"] == matters else 0.1
        return plan_answer(PlanRequest.model_validate(body)).rods[0].rig.family

    assert family("Matted pocket") == "punch-rig"
    assert family("Stone causeway") != "punch-rig"


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"stops": []}, "stops"),
        ({"rods": 0}, "rods was 0; it must be at least 1."),
        ({"rods": [{"name": ""}]}, "rods[0].name was empty; it must be at least 1 long."),
        ({"date": "tomorrow"}, "date was “tomorrow”; it must be a day such as 2027-04-03."),
        ({"version": 2}, "version"),
        ({"tide": 1}, "tide"),
    ],
)
def test_a_hostile_plan_gets_one_sentence(
    visitor: TestClient, day: dict[str, Any], change: dict[str, Any], said: str
) -> None:
    refused = visitor.post("/api/v1/plan", json=day | change)
    assert refused.status_code == 422
    assert said in refused.json()["detail"]
    assert refused.json()["detail"].count(";") <= 1


@pytest.mark.slow
def test_command_line_and_cards(day: dict[str, Any], answer: dict[str, Any], tmp_path: Path) -> None:
    file, deck, paper = tmp_path / "plan.json", tmp_path / "deck.html", tmp_path / "paper.html"
    file.write_text(json.dumps(day))
    line = f"plan {file} --card {deck} --print {paper} --data {tmp_path / 'no.sqlite'}"
    run = CliRunner().invoke(app, line.split())
    assert run.exit_code == 0, run.stderr
    out = json.loads(run.stdout)
    assert out | {"seconds": 0} == answer | {"seconds": 0}
    assert "100" not in run.stderr.splitlines()[0]
    assert len(deck.read_bytes()) < 300_000
    assert "http" not in deck.read_text()
    assert "Sunken lane at first light" in paper.read_text()
    file.write_text("{")
    assert CliRunner().invoke(app, ["plan", str(file)]).exit_code == 2


ROD, OTHER = Rod("A", Line(), Reel()), Rod("B", Line(material="braid", test_lb=50.0), Reel())


UNKNOWN = Scenario(replace(BAIT, fish_span_ft=(0.0, 30.0)))


@pytest.mark.slow
def test_a_stop_of_unknown_depth_asks_for_rigs_of_its_parts_too() -> None:
    """Its columns are its thirds, each value the rating of that third, and candidates come from each."""
    stop = Stop("", UNKNOWN)
    table = table_of([Stop("", Scenario(GRASS)), stop], 3, STRANGER, lambda _s, _w: None)
    assert table.columns == (slice(0, 1), slice(1, 4))
    assert table.shares[1:] == pytest.approx(shares_of(UNKNOWN))
    rows = [k for k in range(len(table.candidates)) if (k, 1) not in table.changed][::5]
    assert rows
    table = rated_closely(table, rows, [Stop("", Scenario(GRASS)), stop], STRANGER)
    for k in rows:
        one = table.candidates[k]
        assert table.values[k, 1:] == pytest.approx(worths_of(stop, [one.rig], one.rod, STRANGER)[0])
    alone = table_of([Stop("", replace(UNKNOWN, conditions=BAIT))], 3, STRANGER, lambda _s, _w: None)
    assert {c.rig.family.id for c in table.candidates} >= {c.rig.family.id for c in alone.candidates[:1]}
    assert len(parts_of(UNKNOWN)) == 3
    assert catalogue.load().search.plan.well < 1.0


def over(job: Job[int]) -> Job[int]:
    """The job once it is done, or has had five seconds."""
    for _ in range(500):
        if job.done:
            break
        time.sleep(0.01)
    return job


def test_a_refusal_is_said_and_a_fault_is_logged_and_tried_again(caplog: pytest.LogCaptureFixture) -> None:
    jobs = Jobs[int]()

    def refuse(_: Tell) -> int:
        raise BadInput("rods", 0, "from 1 to 12")

    def fail(_: Tell) -> int:
        raise RuntimeError("secret")

    assert over(jobs.asked("a", refuse)).refusal == "rods was 0; it must be from 1 to 12."
    failed = over(jobs.asked("b", fail))
    assert failed.refusal == "This plan could not be worked out; the log says why. Ask again."
    assert "RuntimeError: secret" in caplog.text
    assert over(jobs.asked("b", lambda _: 3)).answer == 3


def test_a_program_that_ends_calls_its_jobs_off_and_blames_nobody(caplog: pytest.LogCaptureFixture) -> None:
    jobs, gate = Jobs[int](), Event()

    def cut(_: Tell) -> int:
        gate.wait(5.0)
        raise RuntimeError("cannot schedule new futures after shutdown")

    job = jobs.asked("a", cut)
    jobs.stop()
    gate.set()
    assert jobs.asked("b", lambda _: 3) is not job
    assert over(jobs.asked("b", lambda _: 3)).answer == 3
    assert (job.called_off, job.failed, caplog.text) == (True, False, "")
