"""Drop tests: a stopwatch, what it taught, and taking a lesson back."""

from collections.abc import Mapping
from typing import Any

import numpy as np
from fastapi import APIRouter, Request
from fastapi.responses import Response

from heathdrop import catalog as catalogue
from heathdrop.answers.contacts import contacts_of
from heathdrop.answers.drops import expected_drop_s
from heathdrop.conditions.limits import unread
from heathdrop.conditions.scenario import BY_FIELD
from heathdrop.errors import BadInput
from heathdrop.learning.drops import suspicion
from heathdrop.measures import meant
from heathdrop.reading import number_of, unit_of
from heathdrop.sizing.box import Tackle
from heathdrop.store import casts, observations
from heathdrop.store.database import Database
from heathdrop.store.observations import DropRecord
from heathdrop.store.own import learned_of
from heathdrop.web.shell.deps import Db, Mine, OwnForm, is_htmx, writing
from heathdrop.web.shell.rendering import page, problem
from heathdrop.web.tackle.shown.drops import counts_now, drops_of, touched_said

router = APIRouter(include_in_schema=False)
writes = writing()
NUMBERS = (
    "head_oz",
    "head_g",
    "trailer_length_in",
    "trailer_g",
    "test_lb",
    "diameter_mm",
    "water_temp_f",
    "depth_ft",
    "pace_ft_s",
    "count_s",
    "thickness_in",
    "cast_ft",
)
#: What the form starts from.
START = {
    "kind": "drop",
    "family": "swim-jig",
    "head_oz": "3/8",
    "trailer": "craw",
    "trailer_length_in": "4",
    "skirt": "",
    "plastic": "neutral",
    "line_material": "fluorocarbon",
    "test_lb": "15",
    "water_temp_f": "60",
    "depth_ft": "10",
    "times_s": "",
    "pace_ft_s": "2",
    "count_s": "3",
    "texture": "milfoil",
    "thickness_in": "3",
}


#: What may be observed, and how the form says it.
OBSERVED = (("drop", "timed drops"), ("depth", "ran at about"), ("mat", "into a mat"))


def _context(
    database: Database, start: Mapping[str, str] | None = None, said: str = "", undo: int | None = None
) -> dict[str, Any]:
    """Everything the page shows; ``start`` is what its form starts from."""
    catalog = catalogue.load()
    with database.session() as session:
        rows = observations.listed(session, with_withdrawn=True)
        learned = learned_of(session)
        shown = drops_of(catalog, rows, learned)
        touched = touched_said(learned, contacts_of(casts.read(casts.contacts(session))))
    return {
        "drops": shown,
        "touched": touched,
        "said": said,
        "undo": undo,
        "kinds": OBSERVED,
        "families": [(f.id, f.name) for f in catalog.families.values()],
        "trailers": [(t.id, t.name) for t in catalog.trailers.values() if not t.bare],
        "skirts": [("", "as it comes"), *((s.id, s.name) for s in catalog.skirts.values())],
        "plastics": [(p.id, p.name) for p in catalog.plastic.values()],
        "lines": BY_FIELD["material"].words,
        "textures": BY_FIELD["texture"].words,
        "start": {**START, **{k: v for k, v in (start or {}).items() if k in START}},
        "far": catalog.judgement.learning.spoilt,
        "page": "drops",
    }


def _list(request: Request, context: dict[str, Any]) -> Response:
    """The list after a change, for htmx; the whole page for everybody else."""
    return page(request, "tackle/drops/list.html" if is_htmx(request) else "tackle/drops/page.html", context)


@router.get("/drops")
def drops(request: Request, database: Db) -> Response:
    """The page: stopwatch, tests, lessons."""
    return page(request, "tackle/drops/page.html", _context(database, request.query_params))


def _record_from(form: dict[str, str]) -> observations.Record:
    """The record that a form means. Raises BadInput naming the field."""
    kind = form.get("kind", "drop")
    wanted = observations.KINDS.get(kind, DropRecord).model_fields
    data: dict[str, Any] = {}
    for name in wanted:
        text = form.get(name, "").strip()
        if not text:
            continue
        try:
            if name == "times_s":
                data[name] = [number_of(part) for part in text.replace(";", " ").replace(", ", " ").split()]
            elif name in NUMBERS:
                data[name] = meant(text, unit_of(name), form.get("units", ""))
            else:
                data[name] = text == "yes" if name in ("off_reel", "through") else text
        except (ValueError, ZeroDivisionError):
            data[name] = unread(text)
    return observations.checked(catalogue.load(), kind, data)


def weighed(record: observations.Record, tackle: Tackle) -> observations.Record:
    """The record with the masses that the box knows for this head and trailer, where none were given."""
    head = next(
        (
            h.mass_g
            for h in tackle.heads
            if (h.family, h.weight_oz) == (record.family, record.head_oz) and h.mass_g
        ),
        None,
    )
    same = (record.trailer, record.trailer_length_in)
    tail = next((t.mass_g for t in tackle.trailers if (t.shape, t.length_in) == same and t.mass_g), None)
    more = {"head_g": record.head_g or head, "trailer_g": record.trailer_g or tail}
    return record.model_copy(update={k: v for k, v in more.items() if v is not None})


@writes.post("/drops")
def add(request: Request, form: OwnForm, database: Db, own: Mine) -> Response:
    """Keep an observation; times far off what is possible are asked about first."""
    try:
        record = weighed(_record_from(form.texts), own.tackle)
        if isinstance(record, DropRecord) and form.get("sure") != "yes":
            catalog = catalogue.load()
            doubt = suspicion(catalog, record.seen(catalog))
            if doubt is not None:
                return page(request, "tackle/drops/doubt.html", {"sentence": doubt}, 422)
        with database.session() as session:
            observations.add(session, record)
            learned = learned_of(session)
    except BadInput as refusal:
        return problem(request, refusal)
    context = _context(database, said="Kept.")
    if isinstance(record, DropRecord):
        test, like = record.seen(catalogue.load()), [r for r in context["drops"].rows if not r.withdrawn]
        context["said"] = counts_now(
            timed_s=float(np.median(test.times_s)),
            expected_s=expected_drop_s(test, own.learned),
            now_s=expected_drop_s(test, learned),
            tests=sum(r.what == like[0].what for r in like),
        )
    return _list(request, context)


@writes.post("/drops/{id_}/{act}")
def withdraw(request: Request, id_: int, act: str, database: Db) -> Response:
    """Withdraw an observation, or take the withdrawal back: the learning follows."""
    if act not in ("withdraw", "back"):
        return problem(request, "There is no such action.", 404)
    with database.session() as session:
        row = observations.withdraw(session, id_, back=act == "back")
    if row is None:
        return problem(request, "There is no such observation.", 404)
    said = "Withdrawn: it teaches nothing now." if act == "withdraw" else "It counts again."
    undo = id_ if act == "withdraw" else None
    return _list(request, _context(database, said=said, undo=undo))
