"""What goes out of a data file and comes back: one entry a table.

Each entry knows its file's name, how its rows are written, how a file of it is read (every fault named)
and how read rows are kept (answering their names for good). The zip, the single downloads, the import and
their words are made from it.
"""

import json
from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.conditions.drilled import Drilled
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.trip import TripBody
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import RigName
from heathdrop.store import casts, drills, fish, items, observations, plans, scenarios, settings, trips
from heathdrop.store.files import csvfile, jsonfile, settings_in
from heathdrop.store.files.csvfile import Read, Row
from heathdrop.store.files.jsonfile import VERSION
from heathdrop.store.models import (
    CastMade,
    DrillDone,
    Item,
    Kept,
    Observation,
    SavedPlan,
    SavedScenario,
    Trip,
)
from heathdrop.store.rows import living


@dataclass(frozen=True)
class Exported:
    """One table's way out and back. ``counted`` says how many came, in words; rows of ``table`` that are
    there already are passed over. What has no table says itself what is ``new``, and how to ``take_back``
    what came."""

    name: str
    media: str
    counted: Callable[[int], str]
    rows: Callable[[Session], list[Row]]
    written: Callable[[list[Row]], str]
    read: Callable[[bytes], Read]
    keep: Callable[[Session, Sequence[Row]], list[str]]
    table: type[Kept] | None = None
    new: Callable[[Session, Sequence[Row]], list[Row]] | None = None
    take_back: Callable[[Session, Sequence[str]], int] | None = None


def counted(count: int, one: str, many: str) -> str:
    """``1 drop test``, ``3 drop tests``."""
    return f"{count} {one if count == 1 else many}"


def new_of(
    session: Session, table: type[Kept], came: Sequence[Row], existing: Callable[[], Sequence[Row]] = list
) -> list[Row]:
    """The rows that are not in the data file yet, by their names for good, each of which counts once; a row
    without one by all that it says, against the rows that are ``existing``."""
    there, new = living(session, table), []
    alike = Counter(_says(row) for row in existing()) if any(r.get("id") is None for r in came) else Counter()
    for row in came:
        uid, says = row.get("id"), _says(row)
        if uid is None and alike[says] > 0:
            alike[says] -= 1
        elif uid is None or uid not in there:
            new.append(row)
            there |= {uid} if uid else set()
    return new


def _says(row: Row) -> str:
    """Everything that a row says but its name for good."""
    return json.dumps({k: v for k, v in row.items() if k != "id"}, sort_keys=True, default=str)


def _tackle_rows(session: Session) -> list[Row]:
    return [{"kind": r.kind, **items.body_of(r), "id": r.uid} for r in items.listed(session)]


def _keep_tackle(session: Session, rows: Sequence[Row]) -> list[str]:
    return [items.add(session, r["kind"], jsonfile.without(r, "kind", "id"), r.get("id")).uid for r in rows]


def _drop_rows(session: Session) -> list[Row]:
    return [
        {**observations.body_of(r), "id": r.uid} for r in observations.listed(session) if r.kind == "drop"
    ]


def _keep_drops(session: Session, rows: Sequence[Row]) -> list[str]:
    return _keep_checks(session, [{**row, "kind": "drop"} for row in rows])


def _check_rows(session: Session) -> list[Row]:
    observed = observations.listed(session)
    return [{"kind": r.kind, **observations.body_of(r), "id": r.uid} for r in observed if r.kind != "drop"]


def _keep_checks(session: Session, rows: Sequence[Row]) -> list[str]:
    catalog = catalogue.load()
    made = [
        (observations.checked(catalog, r["kind"], jsonfile.without(r, "kind", "id")), r.get("id"))
        for r in rows
    ]
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


def _keep_scenarios(session: Session, rows: Sequence[Row]) -> list[str]:
    return [
        scenarios.save(
            session,
            _beside(session, r),
            body=r["body"],
            pick=r.get("pick", ""),
            note=r.get("note", ""),
            uid=r.get("id"),
        ).uid
        for r in rows
    ]


def _beside(session: Session, row: Row) -> str:
    """The name that a scenario from a file is kept under: its own, or with a word where one's own has it. A
    file never writes over what is there, so that its undo takes away only what it brought."""
    name, k = str(row["name"]), 1
    while scenarios.named(session, name) is not None:
        k += 1
        tail = " (from a file)" if k == 2 else f" (from a file {k - 1})"
        name = str(row["name"])[: scenarios.LONGEST_NAME - len(tail)] + tail
    return name


def _plan_rows(session: Session) -> list[Row]:
    return [{"name": p.name, "body": plans.body_of(p), "id": p.uid} for p in plans.listed(session)]


def _keep_plans(session: Session, rows: Sequence[Row]) -> list[str]:
    return [plans.keep(session, r["name"], r["body"], r.get("id")).uid for r in rows]


def _cast_rows(session: Session) -> list[Row]:
    return [c.model_dump(mode="json", exclude_none=True) for c in casts.listed(session)]


def _keep_casts(session: Session, rows: Sequence[Row]) -> list[str]:
    return casts.keep(session, [MadeCast.model_validate(r) for r in rows], "casts.csv")


def _trip_rows(session: Session) -> list[Row]:
    return [{"name": t.name, "body": trips.body_of(t), "id": t.uid} for t in trips.listed(session)]


def _keep_trips(session: Session, rows: Sequence[Row]) -> list[str]:
    """A trip of a file comes as ended where one is under way here: the deck stays where it is."""
    came, under_way = [], trips.current(session) is not None
    for r in rows:
        body = TripBody.model_validate(r["body"])
        body = body.model_copy(update={"ended": True}) if under_way else body
        came.append(trips.begin(session, r["name"], body, r.get("id")).uid)
    return came


def _drill_rows(session: Session) -> list[Row]:
    return [d.model_dump(mode="json", exclude_none=True) for d in drills.listed(session)]


def _keep_drills(session: Session, rows: Sequence[Row]) -> list[str]:
    return drills.keep(session, [Drilled.model_validate(r) for r in rows])


def _setting_rows(session: Session) -> list[Row]:
    hand = {"hand": True} if drills.in_use(session) else {}
    agreed = {
        key: {k: v.model_dump() for k, v in records.items()}
        for key, records in ((fish.FISH, fish.shifts(session)), (fish.SPOKEN, fish.spoken(session)))
        if records
    }
    held = settings.schools(session)
    return [{"schools": held, "measures": settings.measures(session), **hand, **agreed}]


#: Every table that goes out and comes back.
REGISTRY: tuple[Exported, ...] = (
    Exported(
        name="tackle.csv",
        media="text/csv; charset=utf-8",
        counted=lambda n: counted(n, "piece of tackle", "pieces of tackle"),
        rows=_tackle_rows,
        written=lambda rows: csvfile.written(csvfile.TACKLE_COLUMNS, rows),
        read=csvfile.read_tackle,
        keep=_keep_tackle,
        table=Item,
    ),
    Exported(
        name="drop-tests.csv",
        media="text/csv; charset=utf-8",
        counted=lambda n: counted(n, "drop test", "drop tests"),
        rows=_drop_rows,
        written=lambda rows: csvfile.written(csvfile.DROP_COLUMNS, rows),
        read=lambda raw: csvfile.read_drops(catalogue.load(), raw),
        keep=_keep_drops,
        table=Observation,
    ),
    Exported(
        name="checks.json",
        media="application/json",
        counted=lambda n: counted(n, "depth or mat check", "depth and mat checks"),
        rows=_check_rows,
        written=lambda rows: jsonfile.written({"version": VERSION, "checks": rows}),
        read=jsonfile.read_checks,
        keep=_keep_checks,
        table=Observation,
    ),
    Exported(
        name="scenarios.json",
        media="application/json",
        counted=lambda n: counted(n, "scenario", "scenarios"),
        rows=_scenario_rows,
        written=lambda rows: jsonfile.written({"version": VERSION, "scenarios": rows}),
        read=jsonfile.read_scenarios,
        keep=_keep_scenarios,
        table=SavedScenario,
    ),
    Exported(
        name="plans.json",
        media="application/json",
        counted=lambda n: counted(n, "plan", "plans"),
        rows=_plan_rows,
        written=lambda rows: jsonfile.written({"version": VERSION, "plans": rows}),
        read=jsonfile.read_plans,
        keep=_keep_plans,
        table=SavedPlan,
    ),
    Exported(
        name="trips.json",
        media="application/json",
        counted=lambda n: counted(n, "trip", "trips"),
        rows=_trip_rows,
        written=lambda rows: jsonfile.written({"version": VERSION, "trips": rows}),
        read=jsonfile.read_trips,
        keep=_keep_trips,
        table=Trip,
    ),
    Exported(
        name="casts.csv",
        media="text/csv; charset=utf-8",
        counted=lambda n: counted(n, "cast", "casts"),
        rows=_cast_rows,
        written=lambda rows: csvfile.written(csvfile.CAST_COLUMNS, [csvfile.cast_cells(r) for r in rows]),
        read=csvfile.read_casts,
        keep=_keep_casts,
        table=CastMade,
    ),
    Exported(
        name="drills.json",
        media="application/json",
        counted=lambda n: counted(n, "answer to the trainer", "answers to the trainer"),
        rows=_drill_rows,
        written=lambda rows: jsonfile.written({"version": VERSION, "drills": rows}),
        read=jsonfile.read_drills,
        keep=_keep_drills,
        table=DrillDone,
    ),
    Exported(
        name="settings.json",
        media="application/json",
        counted=lambda n: "settings" if n else "",
        rows=_setting_rows,
        written=lambda rows: jsonfile.written({"version": VERSION, **rows[0]}),
        read=jsonfile.read_settings,
        keep=settings_in.keep,
        new=settings_in.not_set_yet,
        take_back=settings_in.take_back,
    ),
)
BY_NAME = {e.name: e for e in REGISTRY}
