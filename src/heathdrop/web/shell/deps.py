"""What handlers ask for: the data file, the angler's own, a form that is ours.

A writing route belongs to a router made by :func:`writing`, which checks the form's token before the
handler runs: a write without the check cannot be added by forgetting it.
"""

from dataclasses import dataclass
from typing import Annotated

from fastapi import APIRouter, Depends, Request
from starlette.datastructures import UploadFile

from heathdrop.answers.own import Own
from heathdrop.store.database import Database
from heathdrop.store.own import own_of
from heathdrop.web.shell.security import token_matches

#: Said to a form whose token is not this installation's.
STALE = "This form is from an older page: reload and try again."


class NotOurs(Exception):
    """A form without this installation's token."""


def _database_of(request: Request) -> Database:
    """The data file of this installation."""
    database: Database = request.app.state.database
    return database


Db = Annotated[Database, Depends(_database_of)]


def own(database: Db) -> Own:
    """The angler's own, as the data file has it now."""
    with database.session() as session:
        return own_of(session)


Mine = Annotated[Own, Depends(own)]


@dataclass(frozen=True)
class Form:
    """A form's texts, and the file that came with it (name and bytes; empty when none did)."""

    texts: dict[str, str]
    file_name: str = ""
    file: bytes = b""

    def get(self, name: str, default: str = "") -> str:
        """The text of a field."""
        return self.texts.get(name, default)


async def checked_form(request: Request) -> Form:
    """The form of a request. Raises NotOurs when its token is not this installation's."""
    async with request.form() as form:
        texts = {k: v for k, v in form.items() if isinstance(v, str)}
        upload = form.get("file")
        raw, name = (
            (await upload.read(), upload.filename or "") if isinstance(upload, UploadFile) else (b"", "")
        )
    if not token_matches(request.app.state.secret, texts.get("token", "")):
        raise NotOurs(STALE)
    return Form(texts, name, raw)


OwnForm = Annotated[Form, Depends(checked_form)]


def writing() -> APIRouter:
    """A router whose every route takes only this installation's forms."""
    return APIRouter(include_in_schema=False, dependencies=[Depends(checked_form)])


def is_htmx(request: Request) -> bool:
    """Whether htmx asks, and a fragment is wanted."""
    return request.headers.get("hx-request") == "true"
