"""What the doors answer is described: every field, its unit in its name, nothing left as any object."""

from __future__ import annotations

import inspect

import pytest
from fastapi.testclient import TestClient
from pydantic import BaseModel

from heathdrop.api import responses

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
