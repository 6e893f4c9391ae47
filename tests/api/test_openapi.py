"""The published schema, asked for what it allows and for what it does not: every answer is one it names."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest
import schemathesis
from hypothesis import Phase, given, settings
from schemathesis.specs.openapi import checks

from heathdrop.web.app import create_app

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
