"""From the state in the address to answers, each kept for a while: looking again asks nothing new."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

from pydantic import ValidationError

from heathdrop import catalog as catalogue
from heathdrop.advice.call import Call, call
from heathdrop.api.schemas import SizeRequest
from heathdrop.api.words import bad_input
from heathdrop.errors import BadInput
from heathdrop.sizing.scenario import Scenario
from heathdrop.sizing.size import Sizing, size
from heathdrop.store.mine import Mine
from heathdrop.web.fields import CALLED, body_from


@lru_cache(maxsize=24)
def sized(scenario: Scenario, own: Mine) -> Sizing:
    """The sizing of a scenario with what is the angler's own."""
    tackle = own.tackle
    return size(catalogue.load(), scenario, known=own.learned, tackle=tackle)


@lru_cache(maxsize=24)
def _called(scenario: Scenario, own: Mine) -> Call:
    return call(catalogue.load(), scenario, own.learned)


def the_call(scenario: Scenario, own: Mine) -> Call:
    """The call for a scenario's water; its own families and box do not matter."""
    return _called(replace(scenario, families=("swim-jig",), box="standard"), own)


def scenario_from(values: dict[str, str], own: Mine) -> Scenario:
    """The scenario of a state, its family called when left to us. Raises BadInput.

    The schools that the angler holds to apply unless the state names others.
    """
    body = body_from(values)
    body["schools"] = {**dict(own.schools), **body["schools"]}
    try:
        request = SizeRequest.model_validate(body)
    except ValidationError as error:
        raise bad_input(error.errors()) from error
    scenario = request.scenario(call=False)
    if values["family"] != CALLED:
        return scenario
    ranked = [s.family.id for s in the_call(scenario, own).standings]
    if scenario.box == "mine":
        ranked = [f for f in ranked if f in own.tackle.families]
        if not ranked or not own.tackle.trailers:
            raise BadInput("box", "mine", "standard or both until your box holds a head and a trailer")
    return replace(scenario, families=(ranked[0],))
