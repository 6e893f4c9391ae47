"""The house: rooms on floors, no id of the catalogue in code, documents and tests for every room."""

import ast
import re
from functools import cache
from pathlib import Path

from heathdrop.sizing.program import WAYS
from heathdrop.web.shell.fields import CONTROLS

ROOT = Path(__file__).parent.parent


@cache
def parsed() -> dict[Path, list[ast.AST]]:
    """Every module of the program with all its nodes."""
    return {f: list(ast.walk(ast.parse(f.read_text()))) for f in (ROOT / "src" / "heathdrop").rglob("*.py")}


def test_the_documents_name_every_way_route_and_room() -> None:
    readme, model = (ROOT / "README.md").read_text(), (ROOT / "docs" / "model.md").read_text()
    for picture in (ROOT / "docs" / "screenshots").glob("*.png"):
        assert picture.name in readme
    for figure in (ROOT / "docs" / "figures").glob("*.svg"):
        assert figure.name in model
    spec_paths = ("size", "simulate", "schools", "schema/scenarios")
    assert all(f"/api/v1/{p}" in readme for p in spec_paths)
    rooms = {
        p.name for p in (ROOT / "src" / "heathdrop").iterdir() if p.is_dir() and not p.name.startswith("__")
    }
    contributing = (ROOT / "CONTRIBUTING.md").read_text()
    assert all(f"`{room}/`" in contributing for room in rooms), rooms
    assert len({c.name for c in CONTROLS}) == len(CONTROLS)
    assert len({w.id for w in WAYS}) == len(WAYS)


#: Rooms from the ground up; a room imports only from those before it in this list.
FLOORS = (
    "units",
    "reading",
    "measures",
    "errors",
    "logs",
    "settings",
    "conditions",
    "catalog",
    "physics",
    "sizing",
    "search",
    "advice",
    "learning",
    "training",
    "feeds",
    "answers",
    "store",
    "demo",
    "day",
    "api",
    "web",
    "cli",
)


def test_rooms_import_only_from_floors_below() -> None:
    """Every module of every room, by its own imports. A room not on the list fails."""
    source = ROOT / "src" / "heathdrop"
    wrong = []
    for file, nodes in parsed().items():
        room = file.relative_to(source).parts[0].removesuffix(".py")
        if room == "__init__":
            continue
        for node in nodes:
            names = [a.name for a in node.names] if isinstance(node, ast.Import) else []
            if isinstance(node, ast.ImportFrom) and node.module:
                whole = node.module == "heathdrop"
                names = [f"heathdrop.{a.name}" for a in node.names] if whole else [node.module]
            used = {
                n.split(".")[1] for n in names if n.startswith("heathdrop.") and n != "heathdrop.__version__"
            }
            wrong += [(room, u) for u in used if FLOORS.index(u) > FLOORS.index(room)]
    assert not wrong


#: The wings of the web, in the order in which they may use each other; the shell is used by all.
WINGS = ("shell", "sheet", "plan", "deck", "tackle", "log", "train")


def test_a_wing_uses_the_shell_and_wings_before_it() -> None:
    """Modules by their imports, templates by what they extend and include, scripts by what they import."""
    web, wrong, read = ROOT / "src" / "heathdrop" / "web", [], 0
    patterns = {
        ".py": r"from heathdrop\.web\.(\w+)",
        ".html": r"""\{% (?:extends|include|from) "(\w+)/""",
        ".js": r"""from "\.\./(\w+)/""",
    }
    for file in (f for f in web.rglob("*") if f.suffix in patterns and f.parent != web):
        wing = file.relative_to(web).parts[0]
        used = re.findall(patterns[file.suffix], file.read_text("utf-8"))
        read += len(used)
        wrong += [(file.name, u) for u in used if WINGS.index(u) > WINGS.index(wing)]
    assert wrong == []
    assert read > 150
    contributing = (ROOT / "CONTRIBUTING.md").read_text()
    assert all(f"`web/{wing}/`" in contributing for wing in WINGS)
    assert {p.name for p in web.iterdir() if p.is_dir() and p.name != "__pycache__"} == set(WINGS)


@cache
def modules() -> dict[str, Path]:
    """Every module of the program by its dotted name, migrations aside."""
    source = ROOT / "src"
    parts = {f: [*f.relative_to(source).with_suffix("").parts] for f in parsed() if "versions" not in f.parts}
    return {".".join(p[:-1] if p[-1] == "__init__" else p): f for f, p in parts.items()}


def taken(nodes: list[ast.AST]) -> set[tuple[str, str]]:
    """What a module takes of others: of which module, which name (``module.name`` reads too)."""
    names: set[tuple[str, str]] = set()
    aliases: dict[str, str] = {}
    for node in nodes:
        if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("heathdrop"):
            for alias in node.names:
                whole = f"{node.module}.{alias.name}"
                if whole in modules():
                    aliases[alias.asname or alias.name] = whole
                else:
                    names.add((str(node.module), alias.name))
    for node in nodes:
        if isinstance(node, ast.Attribute) and isinstance(node.value, ast.Name) and node.value.id in aliases:
            names.add((aliases[node.value.id], node.attr))
    return {(m, n) for m, n in names if not n.startswith("__")}


def test_a_name_with_an_underscore_stays_in_its_module() -> None:
    """What a module keeps to itself begins with an underscore; nobody else takes it."""
    across = {(module, name, file.name) for file, nodes in parsed().items() for module, name in taken(nodes)}
    assert len(across) > 1000
    assert [one for one in sorted(across) if one[1].startswith("_")] == []


#: Floors whose modules phrase and place: nothing that simulates is called there, only its records are read.
SIMULATES = ("size", "rate", "play", "rated_at", "rated_one", "simulate", "cast_bands", "bands_for", "hunt")


def test_shown_phrases_and_simulates_nothing() -> None:
    """Answers compute, ``shown`` phrases, templates place."""
    calls = [
        (file.name, node.func.id)
        for file, nodes in parsed().items()
        if "shown" in file.parts or file.name == "shown.py"
        for node in nodes
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in SIMULATES
    ]
    assert calls == []


def test_no_id_of_the_catalogue_stands_in_code() -> None:
    """What a family or a trailer is known for is a column, never a list of ids in a module."""
    wrong = []
    for file, nodes in parsed().items():
        for node in nodes:
            if (
                isinstance(node, ast.Compare)
                and isinstance(node.left, ast.Attribute)
                and node.left.attr == "id"
            ) and any(isinstance(c, ast.Constant | ast.Tuple) for c in node.comparators):
                wrong.append(f"{file.name}:{node.lineno}")
    assert not wrong


def test_golden_files_are_few_enough_to_be_read() -> None:
    """At most 3,000 lines in all, and each is held to by a test that names it."""
    golden = sorted((ROOT / "tests" / "golden").glob("*.json"))
    assert sum(len(f.read_text("utf-8").splitlines()) for f in golden) <= 3000
    tests = "".join(f.read_text("utf-8") for f in (ROOT / "tests").rglob("test_*.py"))
    named = set(re.findall(r'holds_to\(\s*f?"([^"{]+)', tests))
    assert len(golden) > 50
    assert [f.stem for f in golden if not any(f.stem.startswith(name) for name in named)] == []


def test_styles_are_few_and_none_is_forced() -> None:
    """Own styles: at most 2,500 lines within the column limit, without ``!important``."""
    styles = sorted((ROOT / "src" / "heathdrop" / "web").glob("*/static/*.css"))
    lines = [line for f in styles for line in f.read_text("utf-8").splitlines()]
    assert len(styles) > 5
    assert 500 < len(lines) <= 2500
    assert [line for line in lines if len(line) > 110 or "!important" in line] == []
