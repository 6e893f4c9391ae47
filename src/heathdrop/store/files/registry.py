"""What goes out of a data file and comes back: one entry a table.

Each entry knows its file's name, how its rows are written, how a file of it is read (every fault named)
and how read rows are kept (answering their names for good). The zip, the single downloads, the import and
their words are made from it.
"""

from __future__ import annotations

import json
import uuid
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError
from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import check
from heathdrop.conditions.trip import TripBody
from heathdrop.errors import BadInput, plain_text
from heathdrop.measures import IMPERIAL, SYSTEMS
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.schools import chosen
from heathdrop.store import casts, items, observations, plans, scenarios, settings, trips
from heathdrop.store.files import csvfile
from heathdrop.store.models import CastMade, Item, Kept, Observation, SavedPlan, SavedScenario, Trip
from heathdrop.store.rows import uids
from heathdrop.validation import bad_input

VERSION = 1
Row = dict[str, Any]


@dataclass
class Read:
    """What a file holds: rows ready to keep, columns passed over, faults in words."""

    rows: list[Row] = field(default_factory=list)
    passed_over: list[str] = field(default_factory=list)
    faults: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Exported:
    """One table's way out and back. ``counted`` says how many came, in words; rows of ``table`` that are
    there already are passed over."""

    name: str
    media: str
    counted: Callable[[int], str]
    rows: Callable[[Session], list[Row]]
    written: Callable[[list[Row]], str]
    read: Callable[[bytes], Read]
    keep: Callable[[Session, Sequence[Row]], list[str]]
    table: type[Kept] | None = None


def _json(value: Any) -> str:
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
    if len(rows) > csvfile.MOST_ROWS:
        raise BadInput(f"{name}, {key}", f"{len(rows)} long", f"at most {csvfile.MOST_ROWS} long")
    return rows


def _of(csv: csvfile.Read) -> Read:
    return Read(csv.rows, csv.passed_over, csv.faults)


def counted(count: int, one: str, many: str) -> str:
    """``1 drop test``, ``3 drop tests``."""
    return f"{count} {one if count == 1 else many}"


def new_of(session: Session, table: type[Kept], found: Sequence[Row]) -> list[Row]:
    """The rows that are not in the data file yet, by their names for good. Each name counts once."""
    there, new = uids(session, table), []
    for row in found:
        uid = row.get("id")
        if uid is None or uid not in there:
            new.append(row)
            there |= {uid} if uid else set()
    return new


def _tackle_rows(session: Session) -> list[Row]:
    return [{"kind": r.kind, **items.body_of(r), "id": r.uid} for r in items.listed(session)]


def _without(row: Row, *names: str) -> Row:
    return {k: v for k, v in row.items() if k not in names}


def _keep_tackle(session: Session, rows: Sequence[Row]) -> list[str]:
    return [items.add(session, r["kind"], _without(r, "kind", "id"), r.get("id")).uid for r in rows]


def _drop_rows(session: Session) -> list[Row]:
    return [
        {**observations.body_of(r), "id": r.uid} for r in observations.listed(session) if r.kind == "drop"
    ]


def _keep_drops(session: Session, rows: Sequence[Row]) -> list[str]:
    return _keep_checks(session, [{**row, "kind": "drop"} for row in rows])


def _check_rows(session: Session) -> list[Row]:
    kept = observations.listed(session)
    return [{"kind": r.kind, **observations.body_of(r), "id": r.uid} for r in kept if r.kind != "drop"]


def _uid_of(row: Row, at: str) -> dict[str, str]:
    """A row's name for good, when it has one. Raises BadInput."""
    if row.get("id") is None:
        return {}
    try:
        return {"id": str(uuid.UUID(str(row["id"])))}
    except ValueError as error:
        raise BadInput(f"{at}.id", str(row["id"]), "as the export wrote it, or left out") from error


def _read_checks(raw: bytes) -> Read:
    read = Read()
    for k, row in enumerate(_listed(raw, "checks.json", "checks")):
        at = f"checks.json, checks[{k}]"
        if not isinstance(row, dict):
            raise BadInput(at, "not an object", "an object")
        uid = _uid_of(row, at)
        record = observations.checked(
            catalogue.load(), str(row.get("kind", "")), _without(row, "kind", "id"), f"{at}."
        )
        read.rows.append({"kind": record.kind, **record.model_dump(exclude_none=True), **uid})
    return read


def _keep_checks(session: Session, rows: Sequence[Row]) -> list[str]:
    catalog = catalogue.load()
    made = [(observations.checked(catalog, r["kind"], _without(r, "kind", "id")), r.get("id")) for r in rows]
    return [observations.add(session, record, uid).uid for record, uid in made]


def _scenario_rows(session: Session) -> list[Row]:
    return [
        {"name": s.name, "note": s.note, "pick": _pick(s.pick), "body": scenarios.body_of(s), "id": s.uid}
        for s in scenarios.listed(session)
    ]


def _pick(text: str) -> str:
    """A chosen rig's name; nothing for one that is none, so that what goes out comes back."""
    try:
        return RigName.parse(text).text() if text else ""
    except BadInput:
        return ""


class ScenarioRow(BaseModel):
    """A saved scenario in a file: the same limits as on the screens."""

    model_config = ConfigDict(extra="forbid")
    name: Annotated[str, Field(min_length=1, max_length=scenarios.LONGEST_NAME), AfterValidator(plain_text)]
    note: Annotated[str, Field(max_length=400), AfterValidator(plain_text)] = ""
    pick: Annotated[str, Field(max_length=200), AfterValidator(plain_text)] = ""
    body: SizeRequest
    id: str | None = None


def _read_scenarios(raw: bytes) -> Read:
    rows = _listed(raw, "scenarios.json", "scenarios")
    return Read([_scenario(k, row) for k, row in enumerate(rows)])


def _scenario(k: int, row: Any) -> Row:
    at = f"scenarios.json, scenarios[{k}]"
    if not isinstance(row, dict):
        raise BadInput(at, "not an object", "an object")
    try:
        found = ScenarioRow.model_validate(row)
        check(replace(found.body.scenario(), families=found.body.scenario().families or ("swim-jig",)))
        if found.pick:
            RigName.parse(found.pick)
    except ValidationError as error:
        first = bad_input(error.errors())
        raise BadInput(f"{at}.{first.field}", first.given, first.allowed) from error
    except BadInput as refusal:
        raise BadInput(f"{at}: {refusal.field}", refusal.given, refusal.allowed) from refusal
    return {**row, **_uid_of(row, at)}


def _keep_scenarios(session: Session, rows: Sequence[Row]) -> list[str]:
    return [
        scenarios.save(session, r["name"], r["body"], r.get("pick", ""), r.get("note", ""), r.get("id")).uid
        for r in rows
    ]


def _plan_rows(session: Session) -> list[Row]:
    return [{"name": p.name, "body": plans.body_of(p), "id": p.uid} for p in plans.listed(session)]


#: Stands for the stops of a plan that has none yet, while the rest of it is checked.
NO_STOP: Row = {"name": "-", "conditions": {}}


class PlanRow(BaseModel):
    """A saved plan in a file: the same limits as on the screens."""

    model_config = ConfigDict(extra="forbid")
    name: Annotated[str, Field(min_length=1, max_length=plans.LONGEST_NAME), AfterValidator(plain_text)]
    body: PlanRequest
    id: str | None = None


def _check_plan(row: Row) -> None:
    """A plan's row, checked; one without a stop yet is begun and not done. Raises BadInput or
    ValidationError."""
    body = row.get("body")
    if isinstance(body, dict) and body.get("stops") == []:
        row = {**row, "body": {**body, "stops": [NO_STOP]}}
    PlanRow.model_validate(row).body.day()


def _read_plans(raw: bytes) -> Read:
    read = Read()
    for k, row in enumerate(_listed(raw, "plans.json", "plans")):
        at = f"plans.json, plans[{k}]"
        if not isinstance(row, dict):
            raise BadInput(at, "not an object", "an object")
        try:
            _check_plan(row)
        except ValidationError as error:
            first = bad_input(error.errors())
            raise BadInput(f"{at}.{first.field}", first.given, first.allowed) from error
        except BadInput as refusal:
            raise BadInput(f"{at}: {refusal.field}", refusal.given, refusal.allowed) from refusal
        read.rows.append({**row, **_uid_of(row, at)})
    return read


def _keep_plans(session: Session, rows: Sequence[Row]) -> list[str]:
    return [plans.keep(session, r["name"], r["body"], r.get("id")).uid for r in rows]


def _cast_rows(session: Session) -> list[Row]:
    return [c.model_dump(mode="json", exclude_none=True) for c in casts.listed(session)]


def _keep_casts(session: Session, rows: Sequence[Row]) -> list[str]:
    return casts.keep(session, [MadeCast.model_validate(r) for r in rows], "casts.csv")


def read_record(raw: bytes, name: str) -> Read:
    """The casts of a deck card's record. Raises BadInput naming the one at fault."""
    read = Read()
    for k, row in enumerate(_listed(raw, name, "casts")):
        try:
            cast = MadeCast.model_validate(row)
            casts.rig_of(cast, f"{name}, casts[{k}].")
        except ValidationError as error:
            first = bad_input(error.errors())
            raise BadInput(f"{name}, casts[{k}].{first.field}", first.given, first.allowed) from error
        read.rows.append(cast.model_dump(mode="json", exclude_none=True))
    return read


def _trip_rows(session: Session) -> list[Row]:
    return [{"name": t.name, "body": trips.body_of(t), "id": t.uid} for t in trips.listed(session)]


class TripRow(BaseModel):
    """A trip in a file: the same limits as on the deck."""

    model_config = ConfigDict(extra="forbid")
    name: Annotated[str, Field(min_length=1, max_length=trips.LONGEST_NAME), AfterValidator(plain_text)]
    body: TripBody
    id: str | None = None


def _read_trips(raw: bytes) -> Read:
    read = Read()
    for k, row in enumerate(_listed(raw, "trips.json", "trips")):
        at = f"trips.json, trips[{k}]"
        if not isinstance(row, dict):
            raise BadInput(at, "not an object", "an object")
        try:
            TripRow.model_validate(row)
        except ValidationError as error:
            first = bad_input(error.errors())
            raise BadInput(f"{at}.{first.field}", first.given, first.allowed) from error
        read.rows.append({**row, **_uid_of(row, at)})
    return read


def _keep_trips(session: Session, rows: Sequence[Row]) -> list[str]:
    return [
        trips.begin(session, r["name"], TripBody.model_validate(r["body"]), r.get("id")).uid for r in rows
    ]


def _setting_rows(session: Session) -> list[Row]:
    return [{"schools": settings.schools(session), "measures": settings.measures(session)}]


def _read_settings(raw: bytes) -> Read:
    """The schools held to: each a topic and a school that there is. Raises BadInput."""
    given = json_object(raw, "settings.json")
    held, said_in = given.get("schools", {}), given.get("measures", IMPERIAL)
    if said_in not in dict(SYSTEMS):
        raise BadInput("settings.json, measures", said_in, "one of " + ", ".join(dict(SYSTEMS)))
    if not isinstance(held, dict) or not all(isinstance(v, str) for v in held.values()):
        raise BadInput("settings.json, schools", "not topics with schools", "an object of topic and school")
    chosen(catalogue.load(), tuple(held.items()))
    return Read([{"schools": held, "measures": said_in}])


def _keep_settings(session: Session, rows: Sequence[Row]) -> list[str]:
    for row in rows:
        if row["schools"]:
            settings.keep(session, settings.SCHOOLS, {**settings.schools(session), **row["schools"]})
        if row["measures"] != IMPERIAL:
            settings.keep(session, settings.MEASURES, row["measures"])
    return []


#: Every table that goes out and comes back.
REGISTRY: tuple[Exported, ...] = (
    Exported(
        "tackle.csv",
        "text/csv; charset=utf-8",
        lambda n: counted(n, "piece of tackle", "pieces of tackle"),
        _tackle_rows,
        lambda rows: csvfile.written(csvfile.TACKLE_COLUMNS, rows),
        lambda raw: _of(csvfile.read_tackle(raw)),
        _keep_tackle,
        Item,
    ),
    Exported(
        "drop-tests.csv",
        "text/csv; charset=utf-8",
        lambda n: counted(n, "drop test", "drop tests"),
        _drop_rows,
        lambda rows: csvfile.written(csvfile.DROP_COLUMNS, rows),
        lambda raw: _of(csvfile.read_drops(catalogue.load(), raw)),
        _keep_drops,
        Observation,
    ),
    Exported(
        "checks.json",
        "application/json",
        lambda n: counted(n, "depth or mat check", "depth and mat checks"),
        _check_rows,
        lambda rows: _json({"version": VERSION, "checks": rows}),
        _read_checks,
        _keep_checks,
        Observation,
    ),
    Exported(
        "scenarios.json",
        "application/json",
        lambda n: counted(n, "scenario", "scenarios"),
        _scenario_rows,
        lambda rows: _json({"version": VERSION, "scenarios": rows}),
        _read_scenarios,
        _keep_scenarios,
        SavedScenario,
    ),
    Exported(
        "plans.json",
        "application/json",
        lambda n: counted(n, "plan", "plans"),
        _plan_rows,
        lambda rows: _json({"version": VERSION, "plans": rows}),
        _read_plans,
        _keep_plans,
        SavedPlan,
    ),
    Exported(
        "trips.json",
        "application/json",
        lambda n: counted(n, "trip", "trips"),
        _trip_rows,
        lambda rows: _json({"version": VERSION, "trips": rows}),
        _read_trips,
        _keep_trips,
        Trip,
    ),
    Exported(
        "casts.csv",
        "text/csv; charset=utf-8",
        lambda n: counted(n, "cast", "casts"),
        _cast_rows,
        lambda rows: csvfile.written(csvfile.CAST_COLUMNS, [csvfile.cast_cells(r) for r in rows]),
        lambda raw: _of(csvfile.read_casts(raw)),
        _keep_casts,
        CastMade,
    ),
    Exported(
        "settings.json",
        "application/json",
        lambda _: "",
        _setting_rows,
        lambda rows: _json({"version": VERSION, **rows[0]}),
        _read_settings,
        _keep_settings,
    ),
)
BY_NAME = {e.name: e for e in REGISTRY}
