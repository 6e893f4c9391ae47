"""Phones: the code and its picture for the next one, those that are paired, sending one off. For the laptop's
own screen alone."""

from typing import Any

import segno
from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from markupsafe import Markup

from heathdrop.store import devices
from heathdrop.web.shell.deps import Db, writing
from heathdrop.web.shell.pairing import Pairing, said_code
from heathdrop.web.shell.rendering import page, problem

router = APIRouter(include_in_schema=False)
writes = writing()
ELSEWHERE = "Phones are let in and sent off on the laptop's own screen."


def pair_address(base: str, code: str) -> str:
    """Where a phone pairs, its code filled in."""
    return f"{base}/pair?code={code}"


def _picture(address: str) -> Markup:
    """An address as a picture for a phone's camera, black on white."""
    made = segno.make(address, error="m").svg_inline(scale=6, border=3, dark="#000", light="#fff")
    return Markup(made)


def _context(request: Request, database: Any) -> dict[str, Any]:
    pairing: Pairing | None = request.app.state.pairing
    with database.session() as session:
        rows = [(d.id, d.name, devices.ago(d.seen_at)) for d in devices.listed(session)]
    context: dict[str, Any] = {"devices": rows, "lan": pairing is not None, "page": "deck", "code": ""}
    if pairing is not None and pairing.code:
        base = request.app.state.address
        context |= {
            "code": said_code(pairing.code),
            "address": f"{base}/pair",
            "picture": _picture(pair_address(base, pairing.code)),
            "left": f"{pairing.left_s // 60:.0f} min {pairing.left_s % 60:.0f} s",
        }
    return context


@router.get("/devices")
def listed(request: Request, database: Db) -> Response:
    """The code of the moment, and the phones that are paired."""
    if not request.state.here:
        return problem(request, ELSEWHERE, 403)
    return page(request, "shell/devices/page.html", _context(request, database))


@router.get("/pair")
def paired(request: Request) -> Response:
    """Who is let in already goes to the deck."""
    return RedirectResponse("/deck", 303)


@writes.post("/devices/code")
def renew(request: Request) -> Response:
    """A new code."""
    if not request.state.here or request.app.state.pairing is None:
        return problem(request, ELSEWHERE, 403)
    request.app.state.pairing.renew()
    return RedirectResponse("/devices", 303)


@writes.post("/devices/{id_}/off")
def send_off(request: Request, id_: int, database: Db) -> Response:
    """A phone may not come in any more."""
    if not request.state.here:
        return problem(request, ELSEWHERE, 403)
    with database.session() as session:
        gone = devices.send_off(session, id_)
    if gone is None:
        return problem(request, "That phone is not here any more.", 404)
    return RedirectResponse("/devices", 303)
