"""Templates with what every page of them needs: its token, the demo's mark, whether the file can be
written."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from fastapi import Request
from fastapi.responses import Response
from fastapi.templating import Jinja2Templates

from heathdrop.web.assets import asset, ounces_markup
from heathdrop.web.security import form_token
from heathdrop.web.views import VIEWS

#: The pages of the head: address, id, label.
PAGES = (("/", "sheet", "Sheet"), ("/box", "box", "Box"), ("/drops", "drops", "Drop tests"))


def _shell(request: Request) -> dict[str, Any]:
    """What the shell of every page shows."""
    state = request.app.state
    return {
        "token": form_token(state.secret),
        "demo": state.demo,
        "read_only": state.database.read_only,
        "views": VIEWS,
        "pages": PAGES,
        "asset": asset,
    }


templates = Jinja2Templates(directory=Path(__file__).parent / "templates", context_processors=[_shell])
templates.env.filters["ounces"] = ounces_markup
templates.env.trim_blocks = True
templates.env.lstrip_blocks = True


def page(request: Request, name: str, context: dict[str, Any] | None = None, status: int = 200) -> Response:
    """A template as an answer."""
    return templates.TemplateResponse(request, name, context or {}, status)


def problem(request: Request, sentence: str, status: int = 422) -> Response:
    """A refusal as a fragment, beside whatever was typed."""
    return page(request, "shared/problem.html", {"sentence": sentence}, status)
