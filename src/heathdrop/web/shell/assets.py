"""Addresses of shipped files, with a content hash so that browsers may keep them; fractions as markup."""

import hashlib
import json
import posixpath
import re
from functools import cache
from pathlib import Path

from markupsafe import Markup

from heathdrop.measures import TURNS, is_metric
from heathdrop.reading import number_of

WEB = Path(__file__).parents[1]
#: Each wing that has templates, and each that has scripts and styles: its name, its folder.
TEMPLATES = {f.parent.name: f for f in sorted(WEB.glob("*/templates"))}
STATIC = {f.parent.name: f for f in sorted(WEB.glob("*/static"))}


def static_file(name: str) -> Path:
    """Where a shipped file lies: ``deck/outbox.js`` is ``outbox.js`` of the wing ``deck``."""
    wing, _, rest = name.partition("/")
    return STATIC[wing] / rest


#: What scripts take of one another and offer, as they are written here.
TAKES = re.compile(r'^import \{ (.+?) \} from "(.+?)";$', re.M)
OFFERS = re.compile(r"^export (?=(?:async )?(?:function|const) (\w+))", re.M)


def bundled(name: str) -> str:
    """A script with all that it takes of others, as one text for a file that stands alone: each script in a
    function of its own, once, before those that take of it."""
    made: dict[str, str] = {}

    def put(script: str) -> None:
        text = static_file(script).read_text("utf-8")
        for _, path in TAKES.findall(text):
            other = posixpath.normpath(posixpath.join(posixpath.dirname(script), path))
            if other not in made:
                put(other)
            text = text.replace(f'from "{path}";', f"= scripts[{json.dumps(other)}];")
        text = re.sub(r"^import (?=\{)", "const ", text, flags=re.M)
        offered = ", ".join(OFFERS.findall(text))
        body = OFFERS.sub("", text)
        made[script] = f"scripts[{json.dumps(script)}] = (() => {{\n{body}\nreturn {{ {offered} }};\n}})();"

    put(name)
    return "\n".join(["const scripts = {};", *made.values()])


@cache
def asset(name: str) -> str:
    """The address of a shipped file (``deck/deck.js``), changing when its content does."""
    digest = hashlib.sha256(static_file(name).read_bytes()).hexdigest()[:12]
    return f"/static/{name}?v={digest}"


def ounces_markup(written: str) -> Markup:
    """An ounce as written, its fraction set as a fraction: ``1 3/4`` has a whole part and a set one. In
    metric units it is grams."""
    if is_metric():
        return Markup('<span class="frac">{}</span>').format(TURNS["oz"].said(number_of(written)))
    whole, _, part = written.rpartition(" ") if "/" in written else (written, "", "")
    fraction = Markup('<span class="frac of">{}</span>').format(part) if part else Markup("")
    # The space between them is read and copied, and takes no room.
    gap = Markup('<span class="gap"> </span>') if whole and part else Markup("")
    return (Markup('<span class="frac">{}</span>').format(whole) if whole else gap) + gap + fraction
