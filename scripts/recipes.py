"""Carries out the recipes of CONTRIBUTING.md in a copy of the tree, exactly as they are written there.

Usage: python scripts/recipes.py FOLDER. Each recipe edits the copy; the test then asks the copied program
whether the thing is there: a trailer, a rule, a condition, a page with a table, an outcome, a line
material, a family, a kind of cover, an NMEA sentence, a statistic of the log.
"""

import re
import shutil
import sys
from pathlib import Path

ROOT = Path(__file__).parent.parent


def copied(folder: Path) -> Path:
    """A copy of the sources in ``folder``; the room ``heathdrop`` in it."""
    shutil.copytree(ROOT / "src", folder / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
    return folder / "src" / "heathdrop"


def _append(path: Path, text: str) -> None:
    path.write_text(path.read_text("utf-8").rstrip("\n") + "\n\n" + text.strip("\n") + "\n", "utf-8")


def _insert(path: Path, before: str, text: str) -> None:
    whole = path.read_text("utf-8")
    if whole.count(before) != 1:
        raise SystemExit(f"{path.name}: {before!r} stands there {whole.count(before)} times")
    path.write_text(whole.replace(before, text + before), "utf-8")


def _more(text: str, found: str, more: str) -> str:
    """A text with something added behind the one place that the pattern finds."""
    made, times = re.subn(found, rf"\g<1>{more}", text)
    if times != 1:
        raise SystemExit(f"{found!r} stands there {times} times")
    return made


def trailer(room: Path) -> None:
    """A trailer shape: one table in trailers.toml, all of its columns."""
    file = room / "catalog" / "data" / "trailers.toml"
    grub = re.search(r"\[trailers\.twin-tail\]\n(.*?)(?=\n\[|\Z)", file.read_text("utf-8"), re.DOTALL)
    if grub is None:
        raise SystemExit("trailers.toml has no twin-tail to start from")
    table = grub[1].replace('name = "twin-tail grub"', 'name = "ribbon-tail"')
    table = re.sub(r"aliases = \[.*\]", 'aliases = ["ribbon"]', table)
    _append(file, f"[trailers.ribbon-tail]\n{table}")


def rule(room: Path) -> None:
    """A rule: one table in rules.toml: when it speaks, what it says, what it favours or settles."""
    _append(
        room / "catalog" / "data" / "rules.toml",
        """
[rules.moonlight]
name = "Under a moon, a silhouette"
about = "light"
says = "In low light over weed a dark shape is seen from below."
when = { light = ["low"], cover = ["submerged-grass"] }
favours = { swim-jig = 0.3 }
trailers = { craw = 0.2, small-craw = 0.2, paddle-tail = 0.1 }
finish = { colour = "black" }
strength = 3
""",
    )


def condition(room: Path) -> None:
    """A condition: one field of a record in conditions/scenario.py, annotated with its Quantity."""
    _insert(
        room / "conditions" / "scenario.py",
        "    bottom_shape: Annotated[\n",
        '    current_mph: Annotated[\n        float, Quantity("Current", "mph", 0, 6, fact="current_mph", edge=0.5)\n    ] = 0.0\n',
    )


def page_with_a_table(room: Path) -> None:
    """A page with a table: model, migration, registry entry, router, row of PAGES, name in app, template."""
    _append(
        room / "store" / "models.py",
        '''
class Remark(Kept):
    """A remark the angler keeps."""

    __tablename__ = "remark"

    text: Mapped[str] = mapped_column(String(200))
''',
    )
    newest = max(f.name[:4] for f in (room / "store" / "migrations" / "versions").glob("0*.py"))
    number = f"{int(newest) + 1:04}"
    (room / "store" / "migrations" / "versions" / f"{number}_remarks.py").write_text(
        f'''"""Remarks."""

import sqlalchemy as sa
from alembic import op

revision = "{number}"
down_revision = "{newest}"


def upgrade() -> None:
    op.create_table(
        "remark",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("uid", sa.String(36), nullable=False, unique=True),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("gone_at", sa.DateTime),
        sa.Column("text", sa.String(200), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("remark")
''',
        "utf-8",
    )
    registry = room / "store" / "files" / "registry.py"
    _insert(
        registry,
        "#: Every table that goes out and comes back.",
        """def _remark_rows(session: Session) -> list[Row]:
    return [{"text": r.text, "id": r.uid} for r in listed(session, Remark)]


def _read_remarks(raw: bytes) -> Read:
    return jsonfile.read_rows(raw, "remarks.json", lambda row, at: {"text": str(row["text"])[:200]})


def _keep_remarks(session: Session, rows: Sequence[Row]) -> list[str]:
    made = [Remark(text=r["text"], uid=r.get("id") or new_uid()) for r in rows]
    session.add_all(made)
    session.flush()
    return [r.uid for r in made]


""",
    )
    _insert(
        registry,
        '    Exported(\n        name="settings.json",',
        """    Exported(
        name="remarks.json",
        media="application/json",
        counted=lambda n: counted(n, "remark", "remarks"),
        rows=_remark_rows,
        written=lambda rows: jsonfile.written({"version": VERSION, "remarks": rows}),
        read=_read_remarks,
        keep=_keep_remarks,
        table=Remark,
    ),
""",
    )
    text = registry.read_text("utf-8")
    text = _more(text, r"(from heathdrop\.store\.models import \([^)]+)", "    Remark,\n    new_uid,\n")
    registry.write_text(
        text.replace(
            "from heathdrop.store.rows import living", "from heathdrop.store.rows import listed, living"
        ),
        "utf-8",
    )
    wing = room / "web" / "remarks"
    (wing / "templates").mkdir(parents=True)
    (wing / "__init__.py").write_text("", "utf-8")
    (wing / "page.py").write_text(
        '''"""Remarks."""

from fastapi import APIRouter, Request
from fastapi.responses import Response

from heathdrop.store.models import Remark
from heathdrop.store.rows import listed
from heathdrop.web.shell.deps import Db, OwnForm, writing
from heathdrop.web.shell.rendering import page

router = APIRouter(include_in_schema=False)
writes = writing()


def _shown(request: Request, database: Db) -> Response:
    with database.session() as session:
        return page(request, "remarks/page.html", {"rows": [r.text for r in listed(session, Remark)], "page": "remarks"})


@router.get("/remarks")
def remarks(request: Request, database: Db) -> Response:
    return _shown(request, database)


@writes.post("/remarks")
def add(request: Request, form: OwnForm, database: Db) -> Response:
    with database.session() as session:
        session.add(Remark(text=form.get("text")[:200]))
    return _shown(request, database)
''',
        "utf-8",
    )
    rendering = room / "web" / "shell" / "rendering.py"
    text = rendering.read_text("utf-8")
    rendering.write_text(
        text.replace(
            '("/drops", "drops", "Drop tests"),',
            '("/drops", "drops", "Drop tests"), ("/remarks", "remarks", "Remarks"),',
        ),
        "utf-8",
    )
    app = room / "web" / "app.py"
    text = app.read_text("utf-8")
    text = _more(
        text,
        r"(from heathdrop\.web\.plan import page as plan)",
        "\nfrom heathdrop.web.remarks import page as remarks",
    )
    app.write_text(_more(text, r"(for room in \([^)]+)(?=\):)", ", remarks"), "utf-8")
    (wing / "templates" / "page.html").write_text(
        '{% extends "shell/base.html" %}\n{% block body %}\n<main>{% for text in rows %}<p>{{ text }}</p>{% endfor %}</main>\n{% endblock %}\n',
        "utf-8",
    )


def outcome(room: Path) -> None:
    """What a cast may come to: one row of ``conditions/outcome.py``, where its button is to stand."""
    _insert(
        room / "conditions" / "outcome.py",
        '    Outcome("fouled", ',
        '    Outcome("followed", "Followed", "a fish that followed", bitten=True),\n',
    )


def line_material(room: Path) -> None:
    """A line material: one table of lines.toml, and its word among those of ``conditions/gear.py``."""
    file = room / "catalog" / "data" / "lines.toml"
    nylon = re.search(r"\[lines\.nylon\]\n(.*?)(?=\n\[|\Z)", file.read_text("utf-8"), re.DOTALL)
    if nylon is None:
        raise SystemExit("lines.toml has no nylon to start from")
    table = nylon[1].replace('name = "nylon"', 'name = "hybrid"').replace('["mono"]', '["copolymer"]')
    _append(file, f"[lines.hybrid]\n{table}")
    gear = room / "conditions" / "gear.py"
    gear.write_text(_more(gear.read_text("utf-8"), r"(LINES = same\([^)]+)(?=\))", ', "hybrid"'), "utf-8")


def family(room: Path) -> None:
    """A family: one table of families.toml, its usual weights, the line that its hook asks for."""
    data = room / "catalog" / "data"
    micro = re.search(
        r"\[families\.micro-jig\]\n(.*?)(?=\n\[|\Z)", (data / "families.toml").read_text("utf-8"), re.DOTALL
    )
    if micro is None:
        raise SystemExit("families.toml has no micro jig to start from")
    table = (
        micro[1]
        .replace('name = "micro jig"', 'name = "hair jig"')
        .replace("aliases = []", 'aliases = ["hair"]')
    )
    _append(data / "families.toml", f"[families.hair-jig]\n{table}")
    _insert(
        data / "usual.toml",
        "micro-jig = {",
        'hair-jig = { by = "bottom", rows = [[8, 0.0625, 0.125], [36, 0.125, 0.25]] }\n',
    )
    _insert(data / "tackle.toml", "micro-jig = ", "hair-jig = 4\n")


def cover_kind(room: Path) -> None:
    """A kind of cover: one row of ``conditions/cover.py``, what it is worth in cover.toml, what line it asks."""
    _insert(
        room / "conditions" / "cover.py",
        '    Kind("rock", "stone"',
        '    Kind("flooded-bushes", "wood", "may", "bush tops", edge=True, dense=True, beside=True, within=True),\n',
    )
    data = room / "catalog" / "data"
    file = data / "cover.toml"
    text = _more(file.read_text("utf-8"), r"(\nkinds = \{ laydown = 1\.0)", ", flooded-bushes = 1.2")
    file.write_text(_more(text, r"(\nrises = \{ laydown = 1\.0)", ", flooded-bushes = 0.8"), "utf-8")
    _insert(data / "tackle.toml", "docks = {", "flooded-bushes = { moderate = 1.4 }\n")


def nmea_sentence(room: Path) -> None:
    """An NMEA sentence: a function that takes its figures and a row of ``READERS`` in ``feeds/nmea.py``."""
    file = room / "feeds" / "nmea.py"
    _insert(
        file,
        "#: The sentences that are read.",
        """def _mwd(s: Any) -> Figures:
    return {"wind_mph": float(s.wind_speed_knots) * KNOT_MPH}


""",
    )
    _insert(file, '    "MDA": _mda,', '    "MWD": _mwd,\n')


def statistic(room: Path) -> None:
    """What the log is looked at by: one row of ``BY`` in ``answers/lessons.py``; pages and JSON show it."""
    _insert(
        room / "answers" / "lessons.py",
        '    "light": _by_cast',
        '    "wind": _if_number("wind_mph", lambda v: _between(v, (5.0, 10.0, 15.0), "mph")),\n',
    )


RECIPES = (
    trailer,
    rule,
    condition,
    page_with_a_table,
    outcome,
    line_material,
    family,
    cover_kind,
    nmea_sentence,
    statistic,
)


def main() -> None:
    room = copied(Path(sys.argv[1]))
    for recipe in RECIPES:
        recipe(room)
        print(f"done: {recipe.__name__}")


if __name__ == "__main__":
    main()
