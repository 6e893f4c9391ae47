"""`make figures`: every measured figure in one run, under an hour on two cores, written to docs/figures.md.

Each study runs in a process of its own and its output is kept in `.figures/`, so that a run that was broken
off goes on where it was; `python -m bench.figures again` begins anew. The page says what each figure was
measured on and what it cannot show.
"""

import re
import shutil
import subprocess
import sys
import time
from dataclasses import dataclass
from pathlib import Path

from heathdrop import __version__

ROOT = Path(__file__).parents[1]
KEPT, PAGE = ROOT / ".figures", ROOT / "docs" / "figures.md"
#: No study runs longer than this, s.
PATIENCE_S = 3000.0


@dataclass(frozen=True)
class Study:
    """A study: its name, the module and its arguments, which lines of its output are the figures, what it was
    measured on, what it cannot show."""

    name: str
    command: tuple[str, ...]
    lines: str
    measured_on: str
    cannot: str


STUDIES = (
    Study(
        "The call",
        ("bench.agree",),
        r"^(?:set .*|all sets:.*|named families:.*|pairs:.*)",
        "165 waters with the answer written down beforehand, 75 pairs that differ in one thing",
        "whether fish agree with those who wrote them; sets A to C were seen while the rules were written",
    ),
    Study("Its questions", ("bench.questions",), r"^\d+ of .*", "34 questions of practice", "as above"),
    Study(
        "Pieces of the work",
        ("bench.pieces",),
        r"^pieces of the work:.*",
        "166 pieces of practice",
        "as above",
    ),
    Study(
        "Bands",
        ("bench.bands",),
        r"^(?:steady .*|steady, trained.*|shares among.*)",
        "1,400 casts by hands, boats and gear that are not the program's",
        "a hand that changes through the day",
    ),
    Study(
        "Reach",
        ("bench.reach", "200", "23"),
        r"^200 random waters.*",
        "200 random waters, the first rig's path played again",
        "where fish really stand",
    ),
    Study("Thin line", ("bench.thin",), r"^\d+ waters on thin line.*", "32 waters on six pound", "knots"),
    Study(
        "Days",
        ("bench.days", "8"),
        r"^(?:all worlds .*|worse by.*)",
        "thirty stops, eight days each, by four kinds of fish that are not the program's",
        "how real fish stand; bites in 45 minutes, one standard error in brackets",
    ),
    Study(
        "Lessons",
        ("bench.lessons_study", "40"),
        r"^.*: .*(?:%|of) ?.*",
        "40 simulated anglers of each kind",
        "fish that change their mind between seasons",
    ),
    Study(
        "Evidence",
        ("bench.evidence",),
        r"^(?:\| (?:display|board|search|ordinary) .*|20 casts, 300.*)",
        "200 random casts against a finer reference, simulated drop tests",
        "real water: see the drop tests",
    ),
    Study(
        "Attacks", ("bench.attacks",), r".*", "bounded attacks from outside", "an attacker at the keyboard"
    ),
    Study(
        "Soak",
        ("bench.soak",),
        r"^(?:kills|hostile.*|\d+ clients|peak.*):?.*",
        "200 kills, 10,000 hostile requests, twenty clients",
        "a disk that lies",
    ),
    Study(
        "Wrong edits",
        ("bench.edits", "--edits", "60"),
        r"^.*(?:caught|of \d+).*",
        "60 edits drawn from every room",
        "edits nobody thought of drawing",
    ),
    Study("Speed", ("bench",), r"^.*(?:ms|times|ratio|%).*", "this machine, in one run", "your phone"),
    Study("The house", ("bench.house",), r".*", "the tree as it stands", "whether it reads well"),
)


def run(study: Study) -> str:
    """What a study printed; kept from a run before where there is one. A study that fails says so."""
    log = KEPT / f"{study.command[0].removeprefix('bench.')}.log"
    if not log.exists():
        begun = time.monotonic()
        command = [sys.executable, "-m", *study.command]
        try:
            done = subprocess.run(
                command, cwd=ROOT, capture_output=True, text=True, timeout=PATIENCE_S, check=False
            )
            text, ended = done.stdout, done.returncode
        except subprocess.TimeoutExpired:
            text, ended = "", 1
        took = f"took {time.monotonic() - begun:.0f} s\n"
        if ended:
            return f"failed: {text[-300:]}\n{took}"
        log.write_text(text + took)
    return log.read_text()


def main() -> None:
    """Run what has not run, write the page."""
    if sys.argv[1:] == ["again"]:
        shutil.rmtree(KEPT, ignore_errors=True)
    KEPT.mkdir(exist_ok=True)
    parts = [
        f"# Measured figures of {__version__}\n\nMade by `make figures`; do not edit. Each part names its "
        "command, what it was measured on and what it cannot show."
    ]
    for study in STUDIES:
        print(f"{study.name} ...", flush=True)
        text = run(study)
        said = [line.strip() for line in text.splitlines() if re.match(study.lines, line) and line.strip()]
        took = re.findall(r"^took (.*)$", text, re.M)
        shown = "\n".join(f"    {line[:220]}" for line in said if not line.startswith("took "))
        command = f"`python -m {' '.join(study.command)}`, {took[-1] if took else 'not run'}."
        about = f"Measured on: {study.measured_on}. It cannot show: {study.cannot}."
        parts.append(f"## {study.name}\n\n{command} {about}\n\n{shown or '    ' + text[:200].strip()}")
    PAGE.write_text("\n\n".join(parts) + "\n")
    print(f"written to {PAGE.relative_to(ROOT)}")


if __name__ == "__main__":
    main()
