"""Templates with what every page of them needs: its token, the demo's mark, whether the file can be
written."""

from typing import Any
from urllib.parse import parse_qsl, urlencode

from fastapi import Request
from fastapi.responses import Response
from fastapi.templating import Jinja2Templates
from jinja2 import Environment, FileSystemLoader, PrefixLoader, pass_context, select_autoescape
from markupsafe import Markup

from heathdrop import measures
from heathdrop.errors import BadInput
from heathdrop.units import many
from heathdrop.web.shell.assets import TEMPLATES, asset, ounces_markup
from heathdrop.web.shell.refusal import plain_words
from heathdrop.web.shell.security import form_token
from heathdrop.web.shell.views import VIEWS

#: The pages of the head: address, id, label.
PAGES = (
    ("/", "sheet", "Sheet"),
    ("/plan", "plan", "Plan"),
    ("/deck", "deck", "Deck"),
    ("/log", "log", "Log"),
    ("/box", "box", "Box"),
    ("/drops", "drops", "Drop tests"),
    ("/train", "train", "Trainer"),
)
#: The cookie that holds the last water shown (the address's part after ?), and for how long (s); the tab in
#: front writes its own into it.
KEPT_WATER, KEPT_S = "heathdrop-water", 365 * 24 * 3600


def _pages_for(request: Request) -> list[tuple[str, str, str]]:
    """The pages of the head; the sheet's address holds the water that was last shown here."""
    cookie = request.cookies.get(KEPT_WATER, "")
    return [(f"{at}?{cookie}" if at == "/" and cookie else at, id_, title) for at, id_, title in PAGES]


def _from_box(request: Request) -> str:
    """The last water, sized from the angler's own box."""
    query = dict(parse_qsl(request.cookies.get(KEPT_WATER, ""))) | {"box": "mine"}
    return "/?" + urlencode(query)


def _shell(request: Request) -> dict[str, Any]:
    """What the shell of every page shows."""
    state = request.app.state
    return {
        "token": form_token(state.secret),
        "demo": state.demo,
        "instruments": state.feed is not None,
        "read_only": state.database.read_only,
        "views": VIEWS,
        "pages": _pages_for(request),
        "from_box": _from_box(request),
        "kept_water": (KEPT_WATER, KEPT_S),
        "asset": asset,
    }


#: ``deck/page.html`` is ``page.html`` among the templates of the wing ``deck``.
_LOADER = PrefixLoader({wing: FileSystemLoader(folder) for wing, folder in TEMPLATES.items()})
templates = Jinja2Templates(
    env=Environment(loader=_LOADER, autoescape=select_autoescape()), context_processors=[_shell]
)


@pass_context
def _finalized(_: object, value: Any) -> Any:
    """Whatever a template places: a sentence in the angler's units. (The context is asked for so that no
    constant is turned when the template is compiled.)"""
    return measures.sentence(value) if isinstance(value, str) and not isinstance(value, Markup) else value


@pass_context
def _unit(_: object, unit: str) -> str:
    return measures.unit_said(unit)


@pass_context
def _bare(_: object, text: str, unit: str) -> str:
    return measures.bare(text, unit)


def _as_typed(text: str) -> Markup:
    """Someone's own words: placed as they are, no figure turned."""
    return Markup("{}").format(text)


templates.env.finalize = _finalized
templates.env.filters["many"] = many
templates.env.filters["ounces"] = ounces_markup
templates.env.filters["as_typed"] = _as_typed
templates.env.filters["bare"] = _bare
templates.env.filters["unit"] = _unit
templates.env.globals["field_said"] = measures.field_said
templates.env.globals["step_said"] = measures.step_said
templates.env.globals["measure_systems"] = measures.SYSTEMS
templates.env.globals["measured_in"] = measures.system
templates.env.trim_blocks = True
templates.env.lstrip_blocks = True


def page(
    request: Request,
    name: str,
    context: dict[str, Any] | None = None,
    status: int = 200,
    headers: dict[str, str] | None = None,
) -> Response:
    """A template as an answer."""
    return templates.TemplateResponse(request, name, context or {}, status, headers)


def problem(request: Request, refusal: str | BadInput, status: int = 422, at: str = "") -> Response:
    """A refusal in the trade's words: a fragment beside whatever was typed (``at`` names the place by a CSS
    selector), or a page of its own where scripts are off."""
    asked = "hx-request" in request.headers
    part = "shell/problem.html" if asked else "shell/trouble.html"
    sentence = refusal if isinstance(refusal, str) else plain_words(refusal)
    headers = {"HX-Retarget": at, "HX-Reswap": "innerHTML", "HX-Reselect": "unset"} if asked and at else None
    return page(request, part, {"sentence": sentence, "page": ""}, status, headers)
