"""`python -m bench.house`: figures of the tree that docs/house.md is written from.

Lines of modules and functions (median, 95th, longest), parameters, calls with six and more arguments by
position, docstrings, names offered, and how much of the tree is tests.
"""

import ast
from collections.abc import Iterator
from pathlib import Path

import numpy as np

ROOT = Path(__file__).parents[1]
SOURCE, TESTS, GOLDEN = ROOT / "src" / "heathdrop", ROOT / "tests", ROOT / "tests" / "golden"
Function = ast.FunctionDef | ast.AsyncFunctionDef
MANY = 6


def trees(folder: Path) -> Iterator[tuple[Path, str, ast.Module]]:
    """Every module under ``folder``: its path, text and tree."""
    for file in sorted(folder.rglob("*.py")):
        text = file.read_text("utf-8")
        yield file, text, ast.parse(text)


def spread(lengths: list[int]) -> str:
    """Median, 95th percentile and longest of some lengths."""
    return f"{np.median(lengths):.0f}/{np.percentile(lengths, 95):.0f}/{max(lengths)}"


def lines_of(folder: Path, *suffixes: str) -> int:
    """Lines that are not blank in the files of these kinds, vendored ones aside."""
    files = [f for f in folder.rglob("*") if f.suffix in suffixes and "vendor" not in f.parts]
    return sum(bool(line.strip()) for f in files for line in f.read_text("utf-8").splitlines())


def main() -> None:
    modules, functions, parameters, by_place, named, told = [], [], [], 0, 0, 0
    for _, text, tree in trees(SOURCE):
        modules.append(text.count("\n"))
        whole = [n for n in ast.walk(tree) if isinstance(n, Function)]
        functions += [(n.end_lineno or n.lineno) - n.lineno + 1 for n in whole]
        parameters += [len(n.args.args) + len(n.args.kwonlyargs) for n in whole]
        public = [n for n in whole if not n.name.startswith("_")]
        told += sum(ast.get_docstring(n) is not None for n in public)
        named += len(public)
        by_place += sum(
            len(n.args) >= MANY and not any(isinstance(a, ast.Starred) for a in n.args)
            for n in ast.walk(tree)
            if isinstance(n, ast.Call)
        )
    top = 0
    for _, _, tree in trees(SOURCE):
        names = {n.name for n in tree.body if isinstance(n, Function | ast.ClassDef)}
        top += sum(not name.startswith("_") for name in names)
    code, tests = lines_of(SOURCE, ".py"), lines_of(TESTS, ".py")
    every = lines_of(SOURCE, ".py", ".js", ".css", ".html", ".toml")
    golden = lines_of(GOLDEN, ".json")
    print(f"modules {len(modules)}, lines of Python {sum(modules)}")
    print(f"module lines {spread(modules)}, function lines {spread(functions)} (median/95 %/longest)")
    print(f"parameters {np.percentile(parameters, 95):.0f}/{max(parameters)} (95 %/most)")
    print(f"calls with {MANY} and more by position: {1000 * by_place / sum(modules):.1f} per 1,000 lines")
    print(f"public functions with a docstring {100 * told / named:.0f} %")
    print(f"functions and classes without an underscore {top}")
    print(
        f"tests : Python {tests / code:.2f}; tests and golden files {golden + tests} lines of "
        f"{every + tests + golden} in all, {100 * (golden + tests) / (every + tests + golden):.0f} %"
    )


if __name__ == "__main__":
    main()
