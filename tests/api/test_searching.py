"""A search as JSON, and the searches that are refused."""

from __future__ import annotations

from heathdrop.api.searching import SearchRequest, search_answer
from tests.golden_file import holds_to
from tests.said import said_of
from tests.test_doors import SCENARIO

#: How far a figure out of the compiled simulation may differ between machines.
SIMULATED = 3e-3
SWIM = {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw", "trailer_length_in": 4}


def test_a_search() -> None:
    told = {**SWIM, "countdown_s": 2.0, "pace_ft_s": 2.2, "outcome": "ran-high"}
    body = {**SCENARIO, "families": ["swim-jig"], "rods": [SWIM], "casts": [told], "limit": 2}
    answer = search_answer(SearchRequest.model_validate(body)).model_dump(mode="json")
    answer["belief"] = answer["belief"][:4]
    holds_to("api.searching", answer, SIMULATED)


def test_refused_searches() -> None:
    told = {**SWIM, "countdown_s": 2.0, "pace_ft_s": 2.2, "outcome": "ran-high"}
    bodies = [
        {**SCENARIO, "rods": [{**SWIM, "trailer": "toad"}]},
        {**SCENARIO, "casts": [told, {**told, "head_oz": 9}]},
        {**SCENARIO, "casts": [{**told, "outcome": "ate"}]},
        {**SCENARIO, "limit": 0},
        {**SCENARIO, "rods": [SWIM] * 13},
    ]
    said = [said_of(lambda b=b: search_answer(SearchRequest.model_validate(b))) for b in bodies]
    holds_to("api.searching.refused", said)
