"""A plan's request as the core takes it, and plans being worked out (futures, kept by what was asked)."""

import json
from typing import Any

from heathdrop import catalog as catalogue
from heathdrop.answers.day_table import Tell
from heathdrop.answers.jobs import Job, Jobs
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.plan import Plan, plan_day
from heathdrop.answers.stop import Rod, Stop
from heathdrop.conditions.gear import Reel
from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.validation import stops_of
from heathdrop.errors import BadInput, require_between
from heathdrop.sizing.cast import line_of

#: Plans being worked out, or worked out lately.
JOBS: Jobs[Plan] = Jobs()


def the_rods(request: PlanRequest) -> list[Rod] | int:
    """The rods of a request as the core's records. Raises BadInput."""
    if isinstance(request.rods, int):
        return request.rods
    rods = []
    for k, body in enumerate(request.rods):
        require_between(f"rods[{k}].inches_per_turn", body.inches_per_turn, 10, 45, "in")
        try:
            line_of(catalogue.load(), body.line)
        except BadInput as refusal:
            at = refusal.field.removeprefix("gear.")
            raise BadInput(f"rods[{k}].{at}", refusal.given, refusal.allowed) from refusal
        rods.append(Rod(body.name, body.line, Reel(inches_per_turn=body.inches_per_turn), body.rod))
    return rods


def the_stops(request: PlanRequest) -> list[Stop]:
    """The stops of a request as the core's records. Raises BadInput naming the stop."""
    stops = []
    for body, scenario in zip(request.stops, stops_of(request), strict=True):
        at = None if body.position is None else (body.position.lat, body.position.lon)
        stops.append(Stop(body.name, scenario, body.minutes, body.importance, at))
    return stops


def planned(request: PlanRequest, own: Own = STRANGER, tell: Tell = lambda _s, _w: None) -> Plan:
    """The plan of a request. Raises BadInput."""
    request.day()
    return plan_day(the_stops(request), the_rods(request), own, tell)


def _key(body: dict[str, Any], own: Own) -> tuple[str, Own]:
    return json.dumps(body, sort_keys=True), own


def job_of(body: dict[str, Any], own: Own) -> Job[Plan]:
    """The plan's job: begun when it is new. Raises ValidationError or BadInput for a body that cannot be."""
    request = PlanRequest.model_validate(body)
    return JOBS.asked(_key(body, own), lambda tell: planned(request, own, tell))


def call_off(body: dict[str, Any], own: Own) -> None:
    """Call the working out of a plan off."""
    JOBS.call_off(_key(body, own))
