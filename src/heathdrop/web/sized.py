"""From the state in the address to answers, each kept for a while: looking again asks nothing new."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

from pydantic import ValidationError

from heathdrop import catalog as catalogue
from heathdrop.advice.call import Call, call
from heathdrop.api.schemas import SizeRequest
from heathdrop.api.words import bad_input
from heathdrop.sizing.scenario import Scenario
from heathdrop.sizing.size import Sizing, size
from heathdrop.web.fields import CALLED, body_from


@lru_cache(maxsize=24)
def sized(scenario: Scenario) -> Sizing:
    """The sizing of a scenario."""
    return size(catalogue.load(), scenario)


@lru_cache(maxsize=24)
def called(scenario: Scenario) -> Call:
    """The call for a scenario's water; the scenario's own families do not matter."""
    return call(catalogue.load(), scenario)


def scenario_from(values: dict[str, str], schools: dict[str, str] | None = None) -> Scenario:
    """The scenario of a state, its family called when left to us. Raises BadInput.

    ``schools`` are the angler's kept choices; the state's own go before them.
    """
    body = body_from(values)
    body["schools"] = {**(schools or {}), **body["schools"]}
    try:
        request = SizeRequest.model_validate(body)
    except ValidationError as error:
        raise bad_input(error.errors()) from error
    scenario = request.scenario(call=False)
    if values["family"] == CALLED:
        return replace(scenario, families=(the_call(scenario).family,))
    return scenario


def the_call(scenario: Scenario) -> Call:
    """The call for this water."""
    return called(replace(scenario, families=("swim-jig",)))
