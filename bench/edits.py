"""Wrong edits of the kinds that hands make (a boundary, an operator, a key, swapped arguments, a dropped
field) in functions drawn from every room, each in a forked process with the fast tests that run it.

``python -m bench.edits --edits 240 --seed 21`` prints how many are caught, room by room, and writes which
tests caught what to ``edits.json``: what is needed to see which say the same. Five minutes to begin, then
some four seconds each. An edit's tests are the quickest that call its function, five seconds of them at most.
"""

import argparse
import ast
import contextlib
import functools
import gc
import importlib
import json
import os
import pkgutil
import random
import signal
import subprocess
import sys
import threading
from collections import Counter, defaultdict
from pathlib import Path
from typing import Any

import pytest

import heathdrop
from heathdrop.sizing.memory import Memory
from heathdrop.sizing.warmth import warm_up

ROOT = Path(__file__).resolve().parents[1]
SOURCE = str(ROOT / "src" / "heathdrop")
FAST = [
    "-m",
    "not slow and not browser",
    "--ignore=tests/browser",
    "-p",
    "no:cacheprovider",
    "-p",
    "no:xdist",
    "-q",
]
TESTS_S, MOST_S = 5.0, 60
TURNED: dict[type, type] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In,
    ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult,
}  # fmt: skip
Function = ast.FunctionDef | ast.AsyncFunctionDef


class Calls:
    """A plugin that writes down which functions each test calls, in every thread, and how long it takes."""

    def __init__(self) -> None:
        self.now, self.called, self.took = "", defaultdict(set), Counter()

    def seen(self, frame: Any, event: str, _: object) -> None:
        code = frame.f_code
        if event == "call" and self.now and code.co_filename.startswith(SOURCE):
            self.called[f"{code.co_filename}:{code.co_firstlineno}"].add(self.now)

    def pytest_runtest_setup(self, item: pytest.Item) -> None:
        self.now = item.nodeid
        sys.setprofile(self.seen)

    def pytest_runtest_logreport(self, report: pytest.TestReport) -> None:
        self.took[report.nodeid] += report.duration


class Failed:
    """A plugin that keeps the tests that failed."""

    def __init__(self) -> None:
        self.names: set[str] = set()

    def pytest_runtest_logreport(self, report: pytest.TestReport) -> None:
        if report.failed:
            self.names.add(report.nodeid)

    pytest_collectreport = pytest_runtest_logreport


def functions(path: Path) -> list[tuple[int, Function]]:
    """The functions and methods of a module with the line that each begins at, its decorators with it."""
    tree = ast.parse(path.read_text())
    inner = [m for n in tree.body for m in (n.body if isinstance(n, ast.ClassDef) else [n])]
    return [
        (min([f.lineno, *(d.lineno for d in f.decorator_list)]), f) for f in inner if isinstance(f, Function)
    ]


def places(function: Function) -> list[ast.AST]:
    """What may be edited in a function: nothing of its annotations, decorators and defaults (which a call
    does not run), of texts that are documents, or of refusals."""
    away = {
        id(x) for n in ast.walk(function) if isinstance(n, ast.Raise | ast.JoinedStr) for x in ast.walk(n)
    }
    once = [function.args, *([function.returns] if function.returns else []), *function.decorator_list]
    away |= {id(x) for n in once for x in ast.walk(n)}
    away |= {id(n.value) for n in ast.walk(function) if isinstance(n, ast.Expr)}
    kinds = ast.Compare | ast.BinOp | ast.BoolOp | ast.Constant | ast.Call | ast.IfExp | ast.If | ast.Return
    return [n for n in ast.walk(function) if isinstance(n, kinds) and id(n) not in away]


def edited(node: Any, draw: random.Random) -> bool:
    """Edit a node in place; whether there was anything to edit."""
    if isinstance(node, ast.Compare | ast.BinOp):
        operators = node.ops if isinstance(node, ast.Compare) else [node.op]
        other = TURNED.get(type(operators[0]))
        if other is None:
            return False
        setattr(
            node, *(("ops", [other(), *operators[1:]]) if isinstance(node, ast.Compare) else ("op", other()))
        )
    elif isinstance(node, ast.BoolOp):
        node.op = ast.And() if isinstance(node.op, ast.Or) else ast.Or()
    elif isinstance(node, ast.Constant):
        value = node.value
        if not isinstance(value, bool | int | float | str) or value == "":
            return False
        node.value = (
            not value
            if isinstance(value, bool)
            else "XX" + value
            if isinstance(value, str)
            else value * 1.5 + 1
        )
    elif isinstance(node, ast.Call) and node.keywords:
        node.keywords.pop(draw.randrange(len(node.keywords)))
    elif isinstance(node, ast.Call) and len(node.args) > 1:
        node.args[:2] = node.args[1::-1]
    elif isinstance(node, ast.IfExp):
        node.body, node.orelse = node.orelse, node.body
    elif isinstance(node, ast.If):
        node.test = ast.UnaryOp(ast.Not(), node.test)
    elif isinstance(node, ast.Return) and node.value is not None:
        node.value = ast.Constant(None)
    else:
        return False
    return True


def put_in(path: str, line: int, seed: int, alive: list[Any]) -> str:
    """Edit a function of this process by the seed; the edited line, nothing where none could be."""
    tree, draw = ast.parse(Path(path).read_text()), random.Random(seed)
    inner = [m for n in tree.body for m in (n.body if isinstance(n, ast.ClassDef) else [n])]
    function = next(
        f
        for f in inner
        if isinstance(f, Function) and min([f.lineno, *(d.lineno for d in f.decorator_list)]) == line
    )
    before, some = ast.unparse(function).splitlines(), places(function)
    draw.shuffle(some)
    if not any(edited(node, draw) for node in some):
        return ""
    after = ast.unparse(ast.fix_missing_locations(function)).splitlines()
    stack, codes = [compile(tree, path, "exec", dont_inherit=True)], []
    while stack:
        code = stack.pop()
        codes += [code] if code.co_firstlineno == line and code.co_name == function.name else []
        stack += [c for c in code.co_consts if hasattr(c, "co_code")]
    for one in alive:
        if (one.__code__.co_filename, one.__code__.co_firstlineno) == (path, line) and codes:
            one.__code__ = codes[0]
    return next((b.strip() for a, b in zip(before, after, strict=False) if a != b), "")


def tried(path: str, line: int, seed: int, tests: list[str], alive: list[Any]) -> dict[str, Any]:
    """An edit in a forked process with its tests: the line, and the tests that failed."""
    read, write = os.pipe()
    if (child := os.fork()) == 0:
        signal.alarm(MOST_S)
        with contextlib.suppress(BaseException):
            quiet = os.open(os.devnull, os.O_WRONLY)
            os.dup2(quiet, 1)
            os.dup2(quiet, 2)
            said, failed = put_in(path, line, seed, alive), Failed()
            if said:
                pytest.main([*FAST[3:], "--tb=no", "-o", "filterwarnings=", *tests], plugins=[failed])
            os.write(write, json.dumps({"edit": said, "failed": sorted(failed.names)}).encode())
        os._exit(0)
    os.close(write)
    with os.fdopen(read) as answer:
        text = answer.read()
    os.waitpid(child, 0)
    return json.loads(text) if text else {"edit": "?", "failed": ["it did not end"]}


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--edits", type=int, default=240)
    parser.add_argument("--seed", type=int, default=1)
    asked = parser.parse_args()
    os.chdir(ROOT)
    if "HEATHDROP_CALLS" not in os.environ:
        # The calls are seen in a process of its own: nothing that a run leaves behind is in those edited.
        calls = Calls()
        threading.setprofile(calls.seen)
        if (child := os.fork()) == 0:
            code = pytest.main(FAST, plugins=[calls])
            said = {"called": {k: sorted(v) for k, v in calls.called.items()}, "took": calls.took}
            Path("edits-calls.json").write_text(json.dumps(said))
            os._exit(int(code))
        os.waitpid(child, 0)
        again = [sys.executable, "-m", "bench.edits", "--edits", str(asked.edits), "--seed", str(asked.seed)]
        sys.exit(subprocess.call(again, env={**os.environ, "HEATHDROP_CALLS": "edits-calls.json"}))
    calls_ = json.loads(Path(os.environ["HEATHDROP_CALLS"]).read_text())
    draw, known = random.Random(asked.seed), calls_["called"]
    found = [
        (str(p), line)
        for p in sorted(Path(SOURCE).rglob("*.py"))
        if "kernels" not in p.parts  # compiled before they are edited
        for line, _ in functions(p)
        if f"{p}:{line}" in known
    ]
    for module in pkgutil.walk_packages(heathdrop.__path__, "heathdrop."):
        if "migrations" not in module.name:
            importlib.import_module(module.name)
    warm_up()
    for one in gc.get_objects():
        if isinstance(one, functools._lru_cache_wrapper):
            one.cache_clear()
        elif isinstance(one, Memory):
            one.clear()
    alive = [
        o
        for o in gc.get_objects()
        if type(o).__name__ == "function" and o.__code__.co_filename.startswith(SOURCE)
    ]
    ran, caught, told = Counter(), Counter(), []
    for path, line in draw.sample(found, min(asked.edits, len(found))):
        tests, spent = [], 0.0
        for test in sorted(known[f"{path}:{line}"], key=lambda t: calls_["took"].get(t, 0.0)):
            spent += calls_["took"].get(test, 0.0)
            if spent > TESTS_S and len(tests) > 3:
                break
            tests.append(test)
        one = tried(path, line, draw.randrange(2**31), tests, alive)
        if one["edit"]:
            room = Path(path).relative_to(SOURCE).parts[0]
            ran[room] += 1
            caught[room] += bool(one["failed"])
            told.append({"at": f"{Path(path).relative_to(ROOT)}:{line}", **one})
    Path("edits.json").write_text(json.dumps(told, indent=1))
    print(f"{caught.total()} of {ran.total()} wrong edits caught by the fast tests (seed {asked.seed})")
    print(", ".join(f"{room} {caught[room]} of {n}" for room, n in sorted(ran.items())))


if __name__ == "__main__":
    main()
