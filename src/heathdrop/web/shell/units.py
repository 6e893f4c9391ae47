"""The units figures are said in: kept for this installation, changed from any page."""

from urllib.parse import urlsplit

from fastapi import Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool
from starlette.types import ASGIApp, Receive, Scope, Send

from heathdrop.errors import BadInput
from heathdrop.measures import SYSTEMS, said_in
from heathdrop.store import settings
from heathdrop.store.database import Database
from heathdrop.web.shell.deps import Db, OwnForm, writing

writes = writing()


class Measured:
    """Says every figure of an answer in the angler's units; what was kept is read again after each write."""

    def __init__(self, app: ASGIApp, database: Database) -> None:
        self.app, self.database = app, database
        self._system: str | None = None

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or scope["path"].startswith(("/static/", "/api/")):
            await self.app(scope, receive, send)
            return
        if self._system is None:
            self._system = await run_in_threadpool(self._kept)
        try:
            with said_in(self._system):
                await self.app(scope, receive, send)
        finally:
            if scope["method"] != "GET":
                self._system = None

    def _kept(self) -> str:
        with self.database.session() as session:
            return settings.measures(session)


@writes.post("/units")
def keep_units(request: Request, form: OwnForm, database: Db) -> Response:
    """Keep the system in the form, and go back to the page it was chosen on."""
    wanted = form.get("system")
    if wanted not in dict(SYSTEMS):
        raise BadInput("units", wanted, "one of " + ", ".join(dict(SYSTEMS)))
    with database.session() as session:
        settings.keep(session, settings.MEASURES, wanted)
    try:
        came = urlsplit(request.headers.get("referer", ""))
    except ValueError:
        came = urlsplit("")
    path = came.path if came.path.startswith("/") and not came.path.startswith("//") else "/"
    return RedirectResponse(path + (f"?{came.query}" if came.query else ""), 303)
