"""The sheet's state: one address holds it, one scenario is made of it."""

from dataclasses import replace
from urllib.parse import urlencode

from pydantic import ValidationError

from heathdrop import catalog as catalogue
from heathdrop.answers.own import Own
from heathdrop.answers.water import family_called
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario, faults
from heathdrop.conditions.validation import bad_input, bad_inputs
from heathdrop.errors import BadInput
from heathdrop.web.shell.fields import CALLED, GIVEN, SCHOOL, assumed, body_from, given_in, schools_in


def address(values: dict[str, str]) -> str:
    """The shareable address of a state: what was answered, and what else differs from the defaults."""
    given, topics = given_in(values), catalogue.load().topics

    def speaks(name: str, value: str) -> bool:
        topic = topics.get(name.removeprefix(SCHOOL)) if name.startswith(SCHOOL) else None
        usual = topic.default if topic else assumed(name, values)
        return name != GIVEN and (name in given or value != usual)

    spoken = {k: v for k, v in values.items() if speaks(k, v)}
    return "/" + (f"?{urlencode(spoken)}" if spoken else "")


def schools_for(values: dict[str, str], own: Own) -> dict[str, str]:
    """The schools in force: the angler's own, and those that the state names in their place."""
    return {**dict(own.schools), **schools_in(values)}


def scenario_from(values: dict[str, str], own: Own, places: int = 1) -> Scenario:
    """The scenario of a state, its family called when left to us; ``places`` are those of the call that will
    be asked for besides. Raises BadInput.

    The schools that the angler holds to apply unless the state names others.
    """
    try:
        scenario = _said_in(values, own)
    except ValidationError as error:
        raise bad_input(error.errors()) from error
    if values["family"] != CALLED:
        return scenario
    return replace(scenario, families=(family_called(scenario, own, places),))


def _said_in(values: dict[str, str], own: Own) -> Scenario:
    """The state's scenario before a family is called. Raises ValidationError."""
    body = body_from(values)
    body["schools"] = schools_for(values, own)
    return SizeRequest.model_validate(body).scenario()


def faults_of(values: dict[str, str], own: Own) -> list[BadInput]:
    """Everything about a state's water and gear that cannot be, in the order of the controls."""
    try:
        return list(faults(_said_in(values, own)))
    except ValidationError as error:
        return bad_inputs(error.errors())
