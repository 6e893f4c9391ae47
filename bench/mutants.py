"""Wrong edits made one by one in a sample of a room's functions, and how many the room's tests catch.

mutmut makes the edits in a copy of the tree and picks for each the tests that run its function; an edit that
no test runs counts as not caught. The same seed draws the same sample from the same tree.
"""

import argparse
import json
import random
import re
import shutil
import subprocess
import sys
from collections import Counter
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
COPIED = ("src", "tests", "bench", "scripts", "docs", "README.md", "CONTRIBUTING.md", "Makefile")
#: What mutmut writes of a mutant that nothing noticed: all its tests passed, or it has none.
SURVIVED, UNTESTED = 0, 33
NO_SUCH = "no such mutant"
#: The tests that must notice: the fast ones; of pages, whose flows take a second each, the slow ones too.
FAST, ALL = "not slow and not browser", "not browser"
#: By room: the files that are edited and the tests that must notice.
AREAS: dict[str, tuple[tuple[str, ...], tuple[str, ...]]] = {
    "judgement": (
        tuple(
            f"src/heathdrop/{name}.py"
            for name in (
                "conditions/facts",
                "sizing/activity",
                "sizing/fit",
                "sizing/liking",
                "sizing/presentation",
                "sizing/schools",
                "sizing/targets",
                "sizing/usual",
            )
        ),
        ("tests/conditions", "tests/sizing"),
    ),
    "physics": (("src/heathdrop/physics/[!k]*.py",), ("tests/physics", "tests/sizing")),
    "learning": (("src/heathdrop/learning/*.py",), ("tests/learning",)),
    "store": (
        ("src/heathdrop/store/[!m]*.py", "src/heathdrop/store/models.py"),
        ("tests/store", "tests/web"),
    ),
    "api": (
        ("src/heathdrop/api/*.py",),
        (
            "tests/api",
            "tests/answers",
            "tests/feeds",
            "tests/store",
            "tests/web/deck/test_page.py",
            "tests/test_doors.py",
            "tests/test_programme_door.py",
        ),
    ),
    "sizing": (("src/heathdrop/sizing/*.py",), ("tests/sizing", "tests/advice")),
    "search": (("src/heathdrop/search/*.py",), ("tests/search", "tests/answers/test_search.py")),
    "answers": (
        ("src/heathdrop/answers/*.py", "src/heathdrop/day/*.py"),
        ("tests/answers", "tests/day", "tests/search"),
    ),
    "pages": (
        ("src/heathdrop/web/*/*.py", "src/heathdrop/web/*/shown/*.py"),
        ("tests/web", "tests/api"),
    ),
    "advice": (
        ("src/heathdrop/advice/*.py", "src/heathdrop/advice/change/*.py"),
        ("tests/advice", "tests/sizing/test_candidates.py", "tests/answers"),
    ),
}


def _configured(area: str, to: Path) -> None:
    """A copy of the tree in ``to`` whose mutmut edits ``area`` alone."""
    for name in COPIED:
        if (ROOT / name).is_dir():
            shutil.copytree(
                ROOT / name, to / name, ignore=shutil.ignore_patterns("__pycache__", "*.egg-info")
            )
        else:
            shutil.copy(ROOT / name, to / name)
    edited, tests = AREAS[area]
    rows = {
        "source_paths": ["src"],
        "only_mutate": list(edited),
        "also_copy": [n for n in COPIED if n != "src"],
        "pytest_add_cli_args": ["-p", "no:cacheprovider", "-m", ALL if area == "pages" else FAST],
        "pytest_add_cli_args_test_selection": [t for t in tests if (ROOT / t).exists()],
        "track_dependencies": False,
        "use_git_change_detection": False,
    }
    own = (ROOT / "pyproject.toml").read_text("utf-8")
    table = "\n".join(f"{k} = {json.dumps(v)}" for k, v in rows.items())
    (to / "pyproject.toml").write_text(f"{own}\n[tool.mutmut]\n{table}\n", "utf-8")


def _mutmut(at: Path, *said: str, fine: bool = True) -> str:
    """What mutmut prints for a command. Raises SystemExit with its words when it should be ``fine``."""
    ran = subprocess.run(
        [sys.executable, "-m", "mutmut", *said], cwd=at, capture_output=True, text=True, check=False
    )
    if ran.returncode and fine:
        raise SystemExit(ran.stdout[-4000:] + ran.stderr[-4000:])
    return ran.stdout


def _results(at: Path) -> dict[str, int | None]:
    """Every mutant there is, with how its tests ended (None: not tried)."""
    found: dict[str, int | None] = {}
    for meta in sorted((at / "mutants").rglob("*.meta")):
        found |= json.loads(meta.read_text("utf-8"))["exit_code_by_key"]
    return found


def measure(area: str, sample: int, seed: int, at: Path) -> tuple[Counter[str], list[str]]:
    """How many mutants of a sample were caught, survived or met no test, and those not caught."""
    if not (at / "mutants").exists():
        _configured(area, at)
        _mutmut(
            at, "run", NO_SUCH, fine=False
        )  # makes the mutants and times the tests, then finds no such one
    names = sorted(_results(at))
    drawn = random.Random(seed).sample(names, min(sample, len(names)))
    known = json.loads((at / "mutants" / "mutmut-stats.json").read_text("utf-8"))
    tested = known["tests_by_mangled_function_name"]
    seen = [n for n in drawn if tested.get(re.sub(r"__mutmut_\d+$", "", n))]
    if seen:
        _mutmut(at, "run", "--max-children", "2", *seen)
    ended = {n: code for n, code in _results(at).items() if n in seen}
    missed = [n for n in drawn if ended.get(n, UNTESTED) in (SURVIVED, UNTESTED)]
    count = Counter("caught" if n not in missed else "survived" if n in seen else "untested" for n in drawn)
    return count, missed


def main() -> None:
    """Print the score of a room and the edits that nothing noticed."""
    ask = argparse.ArgumentParser(description=__doc__)
    ask.add_argument("area", choices=[*AREAS])
    ask.add_argument("--sample", type=int, default=100)
    ask.add_argument("--seed", type=int, default=1)
    ask.add_argument("--at", type=Path, required=True, help="a folder to work in, made when it is missing")
    said = ask.parse_args()
    at = (said.at / said.area).resolve()
    at.mkdir(parents=True, exist_ok=True)
    count, missed = measure(said.area, said.sample, said.seed, at)
    for name in missed:
        print(_mutmut(at, "show", name))
    print(f"{said.area}: {count['caught']} of {sum(count.values())} caught, {dict(count)}")


if __name__ == "__main__":
    main()
