"""The application: rooms put together, safety switched on."""

import sqlite3
from collections.abc import AsyncIterator, Sequence
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

from anyio.to_thread import current_default_thread_limiter
from fastapi import FastAPI, Request
from fastapi.exception_handlers import http_exception_handler
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse, Response
from fastapi.staticfiles import StaticFiles
from sqlalchemy.exc import DatabaseError, OperationalError
from starlette.exceptions import HTTPException as StarletteHTTPException
from starlette.middleware.gzip import GZipMiddleware
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from heathdrop import __version__
from heathdrop.api import routes
from heathdrop.conditions.validation import bad_input
from heathdrop.day.plan import JOBS
from heathdrop.demo import ashmoor
from heathdrop.errors import BadInput
from heathdrop.feeds.driven import Track
from heathdrop.feeds.feed import Feed
from heathdrop.feeds.reader import Reader
from heathdrop.logs import logger
from heathdrop.store.backups import damage_said, damaged
from heathdrop.store.database import Database, Replaced, install_secret, unwritable
from heathdrop.web.deck import bottom
from heathdrop.web.deck import page as deck
from heathdrop.web.log import page as log
from heathdrop.web.plan import page as plan
from heathdrop.web.sheet import page as sheet
from heathdrop.web.shell import devices, feed, units
from heathdrop.web.shell.assets import STATIC
from heathdrop.web.shell.deps import NotOurs
from heathdrop.web.shell.pairing import Pairing, Reach
from heathdrop.web.shell.rendering import problem
from heathdrop.web.shell.security import Guard, KnownHost
from heathdrop.web.tackle import box, drops, files
from heathdrop.web.tackle import data as data_page
from heathdrop.web.train import page as train

LOG = logger("web")


def create_app(
    data: Path,
    *,
    demo: bool = False,
    season: bool = False,
    hosts: Sequence[str] = (),
    pairing: Pairing | None = None,
    address: str = "",
    nmea: str | None = None,
) -> FastAPI:
    """Build the app on the data file ``data``; ``hosts`` are answered besides loopback. ``demo`` fills
    an empty one with Ashmoor Water, ``season`` with a season of made-up casts too.

    With ``pairing`` phones are answered that have shown its code, at ``address`` (which ``hosts`` must hold);
    without it every other machine is refused. ``nmea`` is where the boat's instruments are read from.
    """
    app = FastAPI(
        lifespan=_lifespan,
        title="Heathdrop",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/v1/openapi.json",
    )
    app.state.database = Database(data)
    app.state.secret = install_secret(data)
    app.state.demo = demo
    app.state.pairing, app.state.address = pairing, address
    app.state.feed = Feed() if nmea is not None else None
    app.state.track = Track()
    app.state.reader = Reader(app.state.feed, nmea) if nmea is not None else None
    if demo and not app.state.database.read_only:
        ashmoor.fill(app.state.database, season)
    app.include_router(routes.router)
    for room in (sheet, files, box, data_page, drops, plan, deck, devices, bottom, log, train):
        app.include_router(room.router)
        app.include_router(room.writes)
    app.include_router(units.writes)
    app.include_router(feed.router)
    for wing, folder in STATIC.items():
        app.mount(f"/static/{wing}", StaticFiles(directory=folder))
    app.add_exception_handler(RequestValidationError, _invalid)
    app.add_exception_handler(BadInput, _refused)
    app.add_exception_handler(NotOurs, _not_ours)
    app.add_exception_handler(OperationalError, _unwritable)
    app.add_exception_handler(sqlite3.OperationalError, _unwritable)
    app.add_exception_handler(Replaced, _replaced)
    app.add_exception_handler(DatabaseError, _damaged)
    app.add_exception_handler(sqlite3.DatabaseError, _damaged)
    app.add_exception_handler(StarletteHTTPException, _unparsed)
    app.add_middleware(units.Measured, database=app.state.database)
    app.add_middleware(GZipMiddleware, minimum_size=1000)
    allowed = {"127.0.0.1", "localhost", "[::1]", *(h for h in hosts if h not in ("0.0.0.0", "::"))}
    app.add_middleware(
        KnownHost, allowed_hosts=["*"] if "*" in allowed else sorted(allowed), www_redirect=False
    )
    app.add_middleware(Reach, database=app.state.database, secret=app.state.secret, pairing=pairing)
    app.add_middleware(FileTrouble)
    app.add_middleware(Guard)
    return app


class FileTrouble:
    """What is wrong with the data file is said in words also where a middleware met it, before any route."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        begun = False

        async def watched(message: Message) -> None:
            nonlocal begun
            begun = True
            await send(message)

        try:
            await self.app(scope, receive, watched)
        except (Replaced, DatabaseError, sqlite3.DatabaseError) as error:
            if begun or scope["type"] != "http":
                raise
            said = (
                _replaced if isinstance(error, Replaced) else _unwritable if unwritable(error) else _damaged
            )
            await (await said(Request(scope, receive), error))(scope, receive, send)


#: Answers that are worked on at once, as many as plans and quick questions have places for together; the
#: others wait in the order in which they came.
AT_ONCE = 6


@asynccontextmanager
async def _lifespan(app: FastAPI) -> AsyncIterator[None]:
    """The instruments are read while the app runs; the data file is given back whole on every stop.

    Answers wait in one line for :data:`AT_ONCE` places: with as many at work as come, each of twenty clients
    gets a twentieth of the processor, and the unlucky ones wait for all the others.
    """
    current_default_thread_limiter().total_tokens = AT_ONCE
    if app.state.reader is not None:
        app.state.reader.start()
    yield
    if app.state.reader is not None:
        app.state.reader.stop()
    JOBS.stop()
    app.state.database.close()


async def _unparsed(request: Request, error: Any) -> Response:
    """A body that the framework could not even parse gets our sentence, like any other refusal."""
    if request.url.path.startswith("/api/"):
        if error.status_code == 400:
            return _sentence(BadInput("the request", "not JSON", "a JSON object"))
        return await http_exception_handler(request, error)
    said = {404: "There is no such page.", 405: "This address does not take that."}
    sentence = said.get(error.status_code, "This request could not be read.")
    return problem(request, sentence, error.status_code)


async def _invalid(request: Request, error: Any) -> Response:
    return _said(request, bad_input(error.errors()))


async def _refused(request: Request, error: Any) -> Response:
    return _said(request, error)


def _said(request: Request, refusal: BadInput) -> Response:
    """A refusal as its asker reads it: JSON for programs, an escaped fragment for pages."""
    if request.url.path.startswith("/api/"):
        return _sentence(refusal)
    return problem(request, refusal)


async def _not_ours(request: Request, error: Any) -> Response:
    if request.headers.get("accept") == "application/json":
        return JSONResponse({"detail": str(error), "field": "token"}, 403)
    return problem(request, str(error), 403)


async def _unwritable(request: Request, error: Any) -> Response:
    """A full disk, a lock or a read-only file: said in words, and the banner goes up until a write
    succeeds."""
    if not unwritable(error):
        raise error
    request.app.state.database.read_only = True
    said = "The data file cannot be written now (full disk, locked or read-only); nothing was lost or kept."
    LOG.warning("the data file cannot be written: %s", getattr(error, "orig", error))
    return problem(request, said, 503)


async def _damaged(request: Request, error: Any) -> Response:
    """A data file that is broken: said, with the newest sound backup."""
    if not damaged(error):
        raise error
    LOG.error("the data file is damaged: %s", getattr(error, "orig", error))
    return problem(request, damage_said(request.app.state.database.path), 503)


async def _replaced(request: Request, error: Any) -> Response:
    """The data file is not the one that was open: nothing was kept, and that is said."""
    LOG.warning("%s", error)
    why = "a sync program, or a file manager"
    said = f"{error} ({why}): nothing of this was kept. Look at the file, then try again."
    return problem(request, said, 503)


def _sentence(refusal: BadInput) -> Response:
    return JSONResponse({"detail": str(refusal), "field": refusal.field}, status_code=422)
