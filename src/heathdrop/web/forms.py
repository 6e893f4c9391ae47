"""What every writing page shares: the form, its token, and the templates."""

from __future__ import annotations

from pathlib import Path

from fastapi import Request
from fastapi.responses import Response
from fastapi.templating import Jinja2Templates

from heathdrop.store.mine import Mine, mine_of
from heathdrop.web.assets import asset, ounces_markup
from heathdrop.web.security import form_token, token_matches

templates = Jinja2Templates(directory=Path(__file__).parent / "templates")
templates.env.globals["asset"] = asset
templates.env.filters["ounces"] = ounces_markup
templates.env.trim_blocks = True
templates.env.lstrip_blocks = True

#: Said to a form whose token is not this installation's.
STALE = "This form is from an older page: reload and try again."


def token_of(request: Request) -> str:
    """The token that this installation's forms carry."""
    return form_token(request.app.state.secret)


def mine(request: Request) -> Mine:
    """The angler's own, as the data file has it now."""
    return mine_of(request.app.state.database)


async def form_of(request: Request) -> dict[str, str]:
    """The texts of a form, files left out."""
    return {k: v for k, v in (await request.form()).items() if isinstance(v, str)}


def is_ours(request: Request, form: dict[str, str]) -> bool:
    """Whether the form carries this installation's token."""
    return token_matches(request.app.state.secret, form.get("token", ""))


def problem(request: Request, sentence: str, status: int = 422) -> Response:
    """A refusal as a fragment, beside whatever was typed."""
    return templates.TemplateResponse(request, "problem.html", {"sentence": sentence}, status)
