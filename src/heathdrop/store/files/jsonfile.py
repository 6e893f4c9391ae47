"""JSON files of the export read back: every row checked before one is kept, every fault named."""

import json
import uuid
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError

from heathdrop import catalog as catalogue
from heathdrop.answers.drill import Named
from heathdrop.answers.thrown import rig_of
from heathdrop.conditions.drilled import Drilled
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import check
from heathdrop.conditions.trip import TripBody
from heathdrop.conditions.validation import bad_input, rods_checked, stops_of
from heathdrop.errors import BadInput, plain_text
from heathdrop.measures import IMPERIAL, SYSTEMS
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.schools import chosen
from heathdrop.store import fish, observations, plans, scenarios, trips
from heathdrop.store.files.csvfile import MOST_ROWS, Read, Row
from heathdrop.training.hand import tapped

VERSION = 1
#: Stands for the stops of a plan that has none yet, while the rest of it is checked.
NO_STOP: Row = {"name": "-", "conditions": {}}


def written(value: Any) -> str:
    """A value as the files of the export hold it."""
    return json.dumps(value, indent=1, sort_keys=True, ensure_ascii=False) + "\n"


def json_object(raw: bytes, name: str) -> Row:
    """The JSON object in a file. Raises BadInput."""
    try:
        value = json.loads(raw)
    except (ValueError, RecursionError) as error:
        raise BadInput(name, "not JSON", "a JSON object") from error
    if not isinstance(value, dict):
        raise BadInput(name, "not an object", "a JSON object")
    return value


def _listed(raw: bytes, name: str, key: str) -> list[Any]:
    rows = json_object(raw, name).get(key, [])
    if not isinstance(rows, list):
        raise BadInput(f"{name}, {key}", "not a list", "a list")
    if len(rows) > MOST_ROWS:
        raise BadInput(f"{name}, {key}", f"{len(rows)} long", f"at most {MOST_ROWS} long")
    return rows


def without(row: Row, *names: str) -> Row:
    """A row without the columns ``names``."""
    return {k: v for k, v in row.items() if k not in names}


def _uid_of(row: Row, at: str) -> dict[str, str]:
    """A row's name for good, when it has one. Raises BadInput."""
    if row.get("id") is None:
        return {}
    try:
        return {"id": str(uuid.UUID(str(row["id"])))}
    except ValueError as error:
        raise BadInput(f"{at}.id", str(row["id"]), "as the export wrote it, or left out") from error


def read_rows(raw: bytes, name: str, checked: Callable[[Row, str], Row]) -> Read:
    """The rows of a file ``name`` by ``checked``, of row and place. Raises BadInput."""
    key, read = name.removesuffix(".json"), Read()
    for k, row in enumerate(_listed(raw, name, key)):
        at = f"{name}, {key}[{k}]"
        if not isinstance(row, dict):
            raise BadInput(at, "not an object", "an object")
        try:
            read.rows.append({**checked(row, at), **_uid_of(row, at)})
        except ValidationError as error:
            first = bad_input(error.errors())
            raise BadInput(f"{at}.{first.field}", first.given, first.allowed) from error
    return read


def _placed(at: str, look: Callable[[], Any]) -> None:
    """Look at a row; a refusal says its place first. Raises BadInput."""
    try:
        look()
    except BadInput as refusal:
        raise BadInput(f"{at}: {refusal.field}", refusal.given, refusal.allowed) from refusal


def _check(row: Row, at: str) -> Row:
    kind, said = str(row.get("kind", "")), without(row, "kind", "id")
    record = observations.checked(catalogue.load(), kind, said, f"{at}.")
    return {"kind": record.kind, **record.model_dump(exclude_none=True)}


class ScenarioRow(BaseModel):
    """A saved scenario in a file: the same limits as on the screens."""

    model_config = ConfigDict(extra="forbid")
    name: Annotated[str, Field(min_length=1, max_length=scenarios.LONGEST_NAME), AfterValidator(plain_text)]
    note: Annotated[str, Field(max_length=400), AfterValidator(plain_text)] = ""
    pick: Annotated[str, Field(max_length=200), AfterValidator(plain_text)] = ""
    body: SizeRequest
    id: str | None = None

    def look(self) -> None:
        """Raises BadInput for a water that cannot be, or a chosen rig that is none."""
        scenario = self.body.scenario()
        check(replace(scenario, families=scenario.families or ("swim-jig",)))
        if self.pick:
            RigName.parse(self.pick)


class PlanRow(BaseModel):
    """A saved plan in a file: the same limits as on the screens."""

    model_config = ConfigDict(extra="forbid")
    name: Annotated[str, Field(min_length=1, max_length=plans.LONGEST_NAME), AfterValidator(plain_text)]
    body: PlanRequest
    id: str | None = None


class TripRow(BaseModel):
    """A trip in a file: the same limits as on the deck."""

    model_config = ConfigDict(extra="forbid")
    name: Annotated[str, Field(min_length=1, max_length=trips.LONGEST_NAME), AfterValidator(plain_text)]
    body: TripBody
    id: str | None = None


def _scenario(row: Row, at: str) -> Row:
    _placed(at, ScenarioRow.model_validate(row).look)
    return row


def _plan(row: Row, at: str) -> Row:
    """A plan's row; one without a stop yet is begun and not done."""
    body, whole = row.get("body"), row
    if isinstance(body, dict) and body.get("stops") == []:
        whole = {**row, "body": {**body, "stops": [NO_STOP]}}
    plan = PlanRow.model_validate(whole).body
    _placed(at, plan.day)
    if not (isinstance(body, dict) and body.get("stops") == []):
        _placed(at, lambda: stops_of(plan))
        _placed(at, lambda: rods_checked(plan.rods if isinstance(plan.rods, list) else ()))
    return row


def _trip(row: Row, at: str) -> Row:
    trip = TripRow.model_validate(row).body
    _placed(at, lambda: stops_of(trip))
    _placed(at, lambda: rods_checked(trip.rods))
    chosen(catalogue.load(), tuple(trip.schools.items()))
    for k, rod in enumerate(trip.rods):
        _placed(f"{at}.body.rods[{k}].rig", partial(_rig_named, rod.rig))
    return row


def _drill(row: Row, at: str) -> Row:
    done = Drilled.model_validate(row)
    _placed(at, lambda: Named.parse(done.question))
    if done.asked_s is not None and done.tapped_s is not None:
        asked, passed = done.asked_s, done.tapped_s
        _placed(at, lambda: tapped(asked, passed))
    return row


def _rig_named(name: str) -> None:
    """Raise BadInput for a rig that is none."""
    RigName.parse(name).rig(catalogue.load())


def read_checks(raw: bytes) -> Read:
    """Depth and mat checks. Raises BadInput."""
    return read_rows(raw, "checks.json", _check)


def read_scenarios(raw: bytes) -> Read:
    """Saved scenarios. Raises BadInput."""
    return read_rows(raw, "scenarios.json", _scenario)


def read_plans(raw: bytes) -> Read:
    """Saved plans. Raises BadInput."""
    return read_rows(raw, "plans.json", _plan)


def read_trips(raw: bytes) -> Read:
    """Trips. Raises BadInput."""
    return read_rows(raw, "trips.json", _trip)


def read_drills(raw: bytes) -> Read:
    """Answers to the trainer's questions. Raises BadInput."""
    return read_rows(raw, "drills.json", _drill)


def read_record(raw: bytes, name: str) -> Read:
    """The casts of a deck card's record. Raises BadInput naming the one at fault."""
    read = Read()
    for k, row in enumerate(_listed(raw, name, "casts")):
        try:
            cast = MadeCast.model_validate(row)
            rig_of(cast, f"{name}, casts[{k}].")
        except ValidationError as error:
            first = bad_input(error.errors())
            raise BadInput(f"{name}, casts[{k}].{first.field}", first.given, first.allowed) from error
        read.rows.append(cast.model_dump(mode="json", exclude_none=True))
    return read


def read_settings(raw: bytes) -> Read:
    """The schools held to: each a topic and a school that there is. Raises BadInput."""
    given = json_object(raw, "settings.json")
    held, said_in = given.get("schools", {}), given.get("measures", IMPERIAL)
    if said_in not in dict(SYSTEMS):
        raise BadInput("settings.json, measures", said_in, "one of " + ", ".join(dict(SYSTEMS)))
    if not isinstance(held, dict) or not all(isinstance(v, str) for v in held.values()):
        raise BadInput("settings.json, schools", "not topics with schools", "an object of topic and school")
    chosen(catalogue.load(), tuple(held.items()))
    hand = given.get("hand", False)
    if not isinstance(hand, bool):
        raise BadInput("settings.json, hand", hand, "true or false: whether one's own hand is in use")
    return Read([{"schools": held, "measures": said_in, "hand": hand, **_agreed(given)}])


def _agreed(given: Row) -> Row:
    """What the log told and the angler agreed to, each by its name. Raises BadInput."""
    checked_rows: Row = {}
    for key, model in ((fish.FISH, fish.AgreedShift), (fish.SPOKEN, fish.SpokenFor)):
        given_rows = given.get(key, {})
        try:
            agreed = {str(k): model.model_validate(v) for k, v in dict(given_rows).items()}
            checked_rows[key] = {k: one.of(k).model_dump() for k, one in agreed.items()}
        except (ValidationError, TypeError, ValueError) as error:
            raise BadInput(
                f"settings.json, {key}", "not as it was written", "as the export has it"
            ) from error
    return {key: given_rows for key, given_rows in checked_rows.items() if given_rows}
