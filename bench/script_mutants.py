"""Wrong edits made one by one in a wing's scripts, and how many its browser tests catch.

    python -m bench.script_mutants deck --sample 20 --at SCRATCH

One operator, number, word or condition of a script is changed in a copy of the tree; a test of the wing that
fails, or a console that does not stay silent, catches it. The same seed draws the same edits.
"""

import argparse
import os
import random
import re
import shutil
import subprocess
import sys
from dataclasses import dataclass
from pathlib import Path

from bench.mutants import COPIED, ROOT

#: By wing: the browser tests that must notice; what takes a minute alone is left out.
TESTS: dict[str, tuple[str, ...]] = {
    "deck": ("test_scripts.py", "test_deck.py", "test_pairing.py"),
    "sheet": ("test_scripts.py", "test_sheet.py", "test_trust.py", "test_cast_view.py", "test_phone.py"),
    "plan": ("test_plan.py",),
    "tackle": ("test_scripts.py", "test_own_tackle.py", "test_trust.py"),
    "log": ("test_log.py",),
    "train": ("test_scripts.py", "test_train.py"),
}
LEFT_OUT = "not two_hundred and not axe"
#: What is changed to what: operators, conditions, words of truth, numbers.
EDITS: tuple[tuple[str, str], ...] = (
    (r" === ", " !== "),
    (r" !== ", " === "),
    (r" && ", " || "),
    (r" \|\| ", " && "),
    (r" < ", " >= "),
    (r" > ", " <= "),
    (r" >= ", " < "),
    (r" <= ", " > "),
    (r" \+ ", " - "),
    (r" - ", " + "),
    (r"\btrue\b", "false"),
    (r"\bfalse\b", "true"),
    (r"\(!", "("),
    (r"(?<=[ (\[])1\b(?![.\d])", "2"),
    (r"(?<=[ (\[])0\b(?![.\d])", "1"),
)
COMMENT = re.compile(r"^\s*(?://|/?\*)")


@dataclass(frozen=True)
class Edit:
    """A wrong edit: the file, its line (from 0), where in it, and what stands there instead."""

    file: Path
    line: int
    start: int
    end: int
    instead: str


def edits_of(wing: str) -> list[Edit]:
    """Every edit that a wing's scripts allow, in order."""
    found = []
    for file in sorted((ROOT / "src/heathdrop/web" / wing / "static").glob("*.js")):
        for k, line in enumerate(file.read_text("utf-8").splitlines()):
            if COMMENT.match(line) or line.startswith("import "):
                continue
            for pattern, instead in EDITS:
                found += [
                    Edit(file.relative_to(ROOT), k, hit.start(), hit.end(), instead)
                    for hit in re.finditer(pattern, line)
                ]
    return found


def caught(edit: Edit, at: Path, tests: tuple[str, ...]) -> bool:
    """Whether the tests of the copy in ``at`` fail with an edit; the copy is as it was afterwards."""
    file = at / edit.file
    whole = file.read_text("utf-8")
    lines = whole.splitlines(keepends=True)
    line = lines[edit.line]
    lines[edit.line] = line[: edit.start] + edit.instead + line[edit.end :]
    file.write_text("".join(lines), "utf-8")
    try:
        return not passes(at, tests)
    finally:
        file.write_text(whole, "utf-8")


def passes(at: Path, tests: tuple[str, ...]) -> bool:
    """Whether the tests of the copy in ``at`` pass."""
    named = [f"tests/browser/{name}" for name in tests]
    flags = ["-x", "-q", "-p", "no:cacheprovider", "-k", LEFT_OUT]
    try:
        ran = subprocess.run(
            [sys.executable, "-m", "pytest", *flags, *named],
            cwd=at,
            env={**os.environ, "PYTHONPATH": str(at / "src")},
            capture_output=True,
            check=False,
            timeout=600,
        )
    except subprocess.TimeoutExpired:
        return False
    return ran.returncode == 0


def main() -> None:
    """Print the score of a wing and the edits that nothing noticed."""
    ask = argparse.ArgumentParser(description=__doc__)
    ask.add_argument("wing", choices=[*TESTS])
    ask.add_argument("--sample", type=int, default=20)
    ask.add_argument("--seed", type=int, default=1)
    ask.add_argument("--at", type=Path, required=True, help="a folder to work in, made when it is missing")
    said = ask.parse_args()
    at = said.at.resolve()
    for name in (*COPIED, "pyproject.toml"):
        if not (at / name).exists():
            copy = shutil.copytree if (ROOT / name).is_dir() else shutil.copy
            at.mkdir(parents=True, exist_ok=True)
            copy(ROOT / name, at / name)
    if not passes(at, TESTS[said.wing]):
        raise SystemExit("the tests fail without an edit")
    every = edits_of(said.wing)
    drawn = random.Random(said.seed).sample(every, min(said.sample, len(every)))
    count = 0
    for edit in drawn:
        noticed = caught(edit, at, TESTS[said.wing])
        count += noticed
        if not noticed:
            line = (ROOT / edit.file).read_text("utf-8").splitlines()[edit.line]
            print(f"{edit.file.name}:{edit.line + 1}: {line.strip()}  →{edit.instead}", flush=True)
    print(f"{said.wing}: {count} of {len(drawn)} caught, of {len(every)} that there are")


if __name__ == "__main__":
    main()
