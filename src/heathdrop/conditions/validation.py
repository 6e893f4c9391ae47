"""Validation errors as one sentence: the field, what was given, what is allowed."""

import json
from collections.abc import Sequence
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from heathdrop.conditions.plan import PlanRequest, RodBody, StopBody
from heathdrop.conditions.request import SizeRequest, TargetsBody
from heathdrop.conditions.scenario import BY_FIELD, Scenario, check
from heathdrop.conditions.trip import TripBody, TripStop
from heathdrop.errors import BadInput, require_between

#: Largest request body or input file, bytes.
MOST_BYTES = 256 * 1024

M = TypeVar("M", bound=BaseModel)
#: Names of union branches that are no part of the field a person typed.
_TAGS = {"body", "query", "path", "rig", "areas", "named", "measured", "how-many", "each-rod"}


def field_path(loc: Sequence[str | int]) -> str:
    """A location as a dotted path: ``program[1].speed_ft_s``."""
    path = ""
    for part in loc:
        if part in _TAGS:
            continue
        path += f"[{part}]" if isinstance(part, int) else (f".{part}" if path else str(part))
    return path or "the request"


#: Refusals of a length, in words.
LENGTHS = {
    "too_short": ("at least", "min_length"),
    "too_long": ("at most", "max_length"),
    "string_too_short": ("at least", "min_length"),
    "string_too_long": ("at most", "max_length"),
}


def _allowed(error: dict[str, Any], name: str) -> str:
    kind, context = error["type"], error.get("ctx", {})
    if kind in ("literal_error", "enum"):
        return "one of " + str(context.get("expected", "")).replace("'", "").replace(" or ", ", ")
    if name in BY_FIELD:
        said: str = BY_FIELD[name].allowed()
        return said
    limits = {"greater_than_equal": "ge", "less_than_equal": "le", "greater_than": "gt", "less_than": "lt"}
    comparisons = {"ge": "at least", "le": "at most", "gt": "more than", "lt": "less than"}
    if kind in limits:
        key = limits[kind]
        return f"{comparisons[key]} {context[key]:g}"
    if kind == "missing":
        return "given"
    if kind == "value_error":
        return str(context.get("error", error["msg"]))
    if kind in LENGTHS:
        word, key = LENGTHS[kind]
        return f"{word} {context[key]:g} long"
    for piece, text in (
        ("bool", "true or false"),
        ("int", "a whole number"),
        ("float", "a number"),
        ("finite", "a number"),
        ("string", "a text"),
        ("list", "a list"),
        ("model", "an object"),
        ("dataclass", "an object"),
        ("dict", "an object"),
    ):
        if piece in kind:
            return text
    return str(error["msg"]).lower()


def bad_input(errors: Sequence[Any]) -> BadInput:
    """The first of Pydantic's errors as a BadInput."""
    return bad_inputs(errors)[0]


def bad_inputs(errors: Sequence[Any]) -> list[BadInput]:
    """Pydantic's errors, each as a BadInput."""
    return [_bad_input(error) for error in errors]


def _bad_input(error: Any) -> BadInput:
    cause = error.get("ctx", {}).get("error")
    if isinstance(cause, BadInput):
        return cause
    loc = error["loc"]
    path = field_path(loc)
    name = str(loc[-1]) if loc else ""
    if error["type"] in ("extra_forbidden", "unexpected_keyword_argument"):
        return BadInput(path, error["input"], "left out: there is no such field")
    if error["type"] in ("json_invalid", "json_type"):
        return BadInput("the request", "not JSON", "a JSON object")
    given = None if error["type"] == "missing" else error["input"]
    if error["type"] in ("too_short", "too_long") and isinstance(given, dict | list):
        given = f"{len(given)} long"
    elif isinstance(given, dict | list):
        given = "an object" if isinstance(given, dict) else "a list"
    return BadInput(path, given, _allowed(error, name))


def read_json(model: type[M], raw: bytes) -> M:
    """Parse ``raw`` into ``model``; BadInput says in one sentence what is wrong."""
    if len(raw) > MOST_BYTES:
        raise BadInput("the request", f"{len(raw)} bytes long", f"at most {MOST_BYTES} bytes long")
    try:
        data = json.loads(raw)
    except (ValueError, RecursionError) as error:
        raise BadInput("the request", "not JSON", "a JSON object") from error
    try:
        return model.model_validate(data)
    except ValidationError as error:
        raise bad_input(error.errors()) from error


def water_of(
    conditions: dict[str, Any],
    cast_ft: float,
    tip_ft: float,
    schools: dict[str, str],
    box: str,
    targets: TargetsBody | None = None,
) -> Scenario:
    """A stop's water as a scenario, checked whole. Raises BadInput."""
    gear = {"cast_ft": cast_ft, "rod_tip_height_ft": tip_ft}
    asked = {"conditions": conditions, "gear": gear, "schools": schools, "box": box, "targets": targets}
    try:
        scenario = SizeRequest.model_validate(asked).scenario()
    except ValidationError as error:
        raise bad_input(error.errors()) from error
    check(scenario)
    return scenario


def stop_scenario(stop: StopBody | TripStop, body: PlanRequest | TripBody) -> Scenario:
    """The water of a plan's or a trip's stop. Raises BadInput."""
    return water_of(
        stop.conditions, stop.cast_ft, stop.rod_tip_height_ft, body.schools, body.box, stop.targets
    )


def stops_of(body: PlanRequest | TripBody) -> list[Scenario]:
    """Every stop's water of a plan or a trip. Raises BadInput naming the stop."""
    scenarios = []
    stops: Sequence[StopBody | TripStop] = body.stops
    for k, stop in enumerate(stops):
        try:
            scenarios.append(stop_scenario(stop, body))
        except BadInput as refusal:
            raise BadInput(f"stops[{k}].{refusal.field}", refusal.given, refusal.allowed) from refusal
    return scenarios


def rods_checked(rods: Sequence[RodBody]) -> None:
    """Raise BadInput for the first rod whose reel or line cannot be."""
    for k, rod in enumerate(rods):
        require_between(f"rods[{k}].inches_per_turn", rod.inches_per_turn, 10, 45, "in")
        require_between(f"rods[{k}].line.test_lb", rod.line.test_lb, 1, 100, "lb")
