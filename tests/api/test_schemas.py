"""The published schema: what it allows, what it does not, and that every answer is one it names."""

import copy
import inspect
from pathlib import Path
from typing import Any

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import Phase, given, settings
from pydantic import BaseModel
from schemathesis.specs.openapi import checks

from heathdrop.api import responses
from heathdrop.api.schemas import SimulateRequest
from heathdrop.web.app import create_app
from tests.golden_file import holds_to
from tests.said import said_of
from tests.test_doors import CASE
from tests.web.deck.test_page import begun, cast_of

RIG = {"family": "swim-jig", "head_oz": 0.5, "trailer": "craw"}


NAMED_LINE = {"material": "braid", "test_lb": 30}


LEADER = {"material": "fluorocarbon", "test_lb": 12, "length_ft": 8}


def with_(path: str, value: Any, base: dict[str, Any] = CASE) -> dict[str, Any]:
    """The case with one place changed."""
    body = copy.deepcopy(base)
    *places, last = path.split(".")
    at: Any = body
    for place in places:
        at = at[int(place)] if place.isdigit() else at[place]
    at[int(last) if last.isdigit() else last] = value
    return body


#: Every bound of a lure, a line and a cast, just outside and just inside.
BOUNDS: tuple[tuple[str, float, float], ...] = (
    ("lure.mass_g", 0.2, 500),
    ("lure.fall_drag_area_cm2", 0.05, 200),
    ("lure.run_drag_area_cm2", 0.05, 200),
    ("lure.run_lift_area_cm2", 0, 100),
    ("lure.glide_ratio", 0, 5),
    ("line.diameter_mm", 0.05, 2),
    ("line.density_kg_m3", 500, 8000),
    ("cast.distance_ft", 15, 250),
    ("cast.rod_tip_height_ft", 0, 12),
    ("cast.bottom_depth_ft", 1, 200),
)


def records(body: dict[str, Any]) -> list[Any]:
    """Everything that a request makes for the simulation."""
    asked = SimulateRequest.model_validate(body)
    return [asked.lure_record(), asked.line_record(), asked.cast_record(), asked.program_record()]


@pytest.mark.parametrize(("path", "low", "high"), BOUNDS)
def test_bounds(path: str, low: float, high: float) -> None:
    light = with_("lure.net_weight_n", 0.001)
    for inside in (low, high):
        assert isinstance(said_of(lambda v=inside: records(with_(path, v, light))), list)  # type: ignore[misc]
    for outside in (low - 0.01, high * 1.001):
        said = said_of(lambda v=outside: records(with_(path, v, light)))  # type: ignore[misc]
        assert said.startswith(f"refused: {path} was ")
        assert f"from {low:g} to {high:g} " in said


def test_each_field_becomes_si() -> None:
    lure, line, cast, program = records(CASE)
    assert (lure.mass_kg, lure.net_weight_n) == (0.014, 0.115)
    areas = lure.fall_drag_area_m2, lure.run_drag_area_m2, lure.run_lift_area_m2
    assert areas == pytest.approx((0.001, 0.001, 0.00026))
    assert (line.diameter_m, line.density_kg_m3) == pytest.approx((0.00037, 1780))
    assert (cast.distance_m, cast.rod_tip_m) == pytest.approx((24.9936, 0.6096))
    assert cast.bottom_at(0.0) == cast.bottom_at(250.0) == pytest.approx(9.144)
    assert [(p.do, p.slack, p.take_up) for p in program] == [
        ("fall", True, False),
        ("retrieve", False, False),
    ]
    assert (program[0].to_depth_m, program[1].speed_m_s) == pytest.approx((2.01168, 0.6096))


def test_every_refusal() -> None:
    phases = {
        "pause": {"do": "pause"},
        "kill": {"do": "kill"},
        "retrieve": {"do": "retrieve"},
        "slow-roll": {"do": "slow-roll"},
        "take-up": {"do": "hop", "take_up": True},
        "slack hop": {"do": "hop", "line": "slack"},
        "times": {"do": "retrieve", "speed_ft_s": 2, "times": 3},
        "depth": {"do": "fall", "to_depth_ft": 201},
        "for": {"do": "fall", "for_s": 601},
        "slow": {"do": "retrieve", "speed_ft_s": 0.09},
        "fast": {"do": "retrieve", "speed_ft_s": 15.1},
        "lift": {"do": "hop", "lift_in": 121},
        "often": {"do": "hop", "times": 101},
        "never": {"do": "hop", "times": 0},
        "wait": {"do": "hop", "wait_s": 61},
        "tip": {"do": "retrieve", "speed_ft_s": 2, "rod_tip_height_ft": 12.1},
        "unknown": {"do": "splash"},
        "reel off": {"do": "fall", "for_s": 2, "pulled_off_reel": True},
        "lifted": {"do": "hop", "lift_in": 12, "times": 3, "wait_s": 1, "rod_tip_height_ft": 3},
    }
    bodies = {name: with_("program", [phase]) for name, phase in phases.items()}
    bodies |= {
        "no bottom": with_("cast.bottom_depth_ft", None),
        "both bottoms": with_("cast.bottom_ft", [[0, 5], [50, 9]]),
        "profile": with_("cast", {"distance_ft": 80, "bottom_ft": [[0, 5], [50, 9.5]]}),
        "profile back": with_("cast", {"distance_ft": 80, "bottom_ft": [[0, 5], [50, 9], [50, 4]]}),
        "profile far": with_("cast", {"distance_ft": 80, "bottom_ft": [[0, 5], [1001, 9]]}),
        "profile dry": with_("cast", {"distance_ft": 80, "bottom_ft": [[0, 0.5], [50, 9]]}),
        "heavier than air": with_("lure.net_weight_n", 0.14),
        "weightless": with_("lure.net_weight_n", 0.0005),
        "rig": with_("lure", RIG),
        "rig unknown": with_("lure", {**RIG, "trailer": "toad"}),
        "rig heavy": with_("lure", {**RIG, "head_oz": 5}),
        "line": with_("line", NAMED_LINE),
        "line unknown": with_("line", {**NAMED_LINE, "material": "hemp"}),
        "line thin": with_("line", {**NAMED_LINE, "test_lb": 1}),
        "leader": with_("line", {**NAMED_LINE, "leader": LEADER}),
        "leader long": with_("line", {**NAMED_LINE, "leader": {**LEADER, "length_ft": 61}}),
        "leader unknown": with_("line", {**NAMED_LINE, "leader": {**LEADER, "material": "hemp"}}),
        "no programme": with_("program", []),
        "extra": {**CASE, "boat": 1},
    }
    plain = said_of(lambda: records(CASE))
    found = {name: said_of(lambda b=body: records(b)) for name, body in bodies.items()}
    for name, said in found.items():
        if isinstance(said, list):  # what a request makes is told where it is not the case's own
            found[name] = [part for part, usual in zip(said, plain, strict=True) if part != usual]
    holds_to("api.schemas", found)


HOST = {"host": "127.0.0.1"}


#: A plan takes seconds: it has tests of its own.
OPERATIONS = (
    "POST /api/v1/simulate",
    "POST /api/v1/changes",
    "POST /api/v1/read",
    "POST /api/v1/size",
    "POST /api/v1/search",
    "POST /api/v1/casts",
    "PUT /api/v1/casts/{id_}",
    "DELETE /api/v1/casts/{id_}",
    "GET /api/v1/next",
    "GET /api/v1/lessons",
    "GET /api/v1/drill",
    "POST /api/v1/drill/answer",
    "GET /api/v1/feed",
    "GET /api/v1/schools",
    "GET /api/v1/schema/{name}",
)


CHECKED = (
    checks.status_code_conformance,
    checks.content_type_conformance,
    checks.response_schema_conformance,
)


@pytest.fixture(scope="module")
def published(tmp_path_factory: pytest.TempPathFactory) -> dict[str, Any]:
    """Every operation of the schema by its name."""
    app = create_app(Path(tmp_path_factory.mktemp("schema")) / "d.sqlite", demo=True)
    schema = schemathesis.openapi.from_asgi("/api/v1/openapi.json", app, headers=HOST)
    found = (result.ok() for result in schema.get_all_operations())
    return {f"{one.method.upper()} {one.path}": one for one in found}


def test_every_operation_is_asked(published: dict[str, Any]) -> None:
    assert set(OPERATIONS) == set(published) - {"POST /api/v1/plan"}


@pytest.mark.slow
@pytest.mark.parametrize("name", OPERATIONS)
def test_every_answer_is_one_that_the_schema_names(published: dict[str, Any], name: str) -> None:
    """Twelve requests that the schema allows and what comes back: a status, a type and a body it names."""
    statuses = []

    @settings(max_examples=12, deadline=None, phases=[Phase.generate])
    @given(case=published[name].as_strategy())
    def ask(case: Any) -> None:
        answer = case.call(headers=HOST)
        statuses.append(answer.status_code)
        case.validate_response(answer, checks=list(CHECKED))

    ask()
    assert statuses
    assert max(statuses) < 500


#: Fields without a unit because they have none, or are words.
PLAIN = {"value", "low", "high", "mean", "top", "phase", "score", "equals", "in_band", "falling", "felt"}


def test_numbers_carry_their_units() -> None:
    models = [m for _, m in inspect.getmembers(responses, inspect.isclass) if issubclass(m, BaseModel)]
    assert len(models) >= 8
    for model in models:
        for name, field in model.model_fields.items():
            if field.annotation in (float, float | None) and name not in PLAIN:
                shares = model in (responses.CoverAnswer, responses.FitsAnswer, responses.PerHour)
                assert shares or name.rsplit("_", 1)[-1] in ("s", "ft", "n", "oz", "in"), (model, name)


@pytest.mark.slow
def test_every_answer_is_described(client: TestClient) -> None:
    found = client.get("/api/v1/openapi.json").json()
    assert len(found["paths"]) >= 8
    for path, ways in found["paths"].items():
        for way, told in ways.items():
            schema = told["responses"]["200"]["content"]["application/json"]["schema"]
            assert "$ref" in schema or path.endswith("/schema/{name}"), (way, path)
    for name, schema in found["components"]["schemas"].items():
        assert schema.get("properties") or schema.get("type") != "object", name


ROUTES = {
    ("POST", "/api/v1/simulate"),
    ("POST", "/api/v1/changes"),
    ("POST", "/api/v1/read"),
    ("POST", "/api/v1/size"),
    ("POST", "/api/v1/search"),
    ("POST", "/api/v1/plan"),
    ("POST", "/api/v1/casts"),
    ("PUT", "/api/v1/casts/{id_}"),
    ("DELETE", "/api/v1/casts/{id_}"),
    ("GET", "/api/v1/next"),
    ("GET", "/api/v1/feed"),
    ("GET", "/api/v1/lessons"),
    ("GET", "/api/v1/drill"),
    ("POST", "/api/v1/drill/answer"),
    ("GET", "/api/v1/schools"),
    ("GET", "/api/v1/schema/{name}"),
}


@pytest.mark.parametrize(("way", "path"), sorted(r for r in ROUTES if r[0] in ("POST", "PUT")))
def test_a_body_that_is_none_is_refused_in_one_sentence(visitor: TestClient, way: str, path: str) -> None:
    at = path.replace("{id_}", "5f0c6a52-0000-4000-8000-000000000001")
    for body in (b"", b"{", b"3", b'"x"', b"{}"):
        answer = visitor.request(way, at, content=body, headers={"content-type": "application/json"})
        assert answer.status_code == 422, (path, body)
        assert set(answer.json()) == {"detail", "field"}
        assert answer.json()["detail"].endswith(".")


@pytest.mark.slow
def test_a_cast_goes_in_is_mended_and_taken_back(client: TestClient) -> None:
    made = cast_of(begun(client), 3, "bump")
    assert client.post("/api/v1/casts", json=made).json() == client.post("/api/v1/casts", json=[made]).json()
    at = f"/api/v1/casts/{made['id']}"
    assert client.put(at, json={**made, "outcome": "fish"}).status_code == 200
    assert [client.delete(at).json()["was_there"] for _ in range(2)] == [True, False]
    assert client.put("/api/v1/casts/nonsense", json=made).status_code == 422
    assert client.get("/api/v1/casts").status_code == 405
    assert client.get("/api/v1/schema/plans").json()["title"]
    assert {t["id"] for t in client.get("/api/v1/schools").json()["topics"]} >= {"weight-lean", "mat-entry"}
