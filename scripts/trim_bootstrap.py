"""Cut Bootstrap's style sheet to the rules that this program's pages can use.

Usage: python scripts/trim_bootstrap.py WHOLE.css > CUT.css (in ``web/shell/static/vendor``)

A rule stays when every class in one of its selectors is a word of a template, a script or a module of
``web/``; rules without a class stay. What is left stands as it was written.
"""

import re
import sys
from pathlib import Path

WEB = Path(__file__).parent.parent / "src" / "heathdrop" / "web"


def used_words() -> set[str]:
    """Every word that could name a class."""
    files = (f for f in WEB.rglob("*") if f.suffix in (".html", ".py", ".js") and "vendor" not in f.parts)
    return {word for f in files for word in re.findall(r"[A-Za-z][\w-]*", f.read_text("utf-8"))}


def rules(text: str) -> list[tuple[str, str]]:
    """Top-level rules as (prelude, body)."""
    found, at = [], 0
    while (opens := text.find("{", at)) >= 0:
        depth, end = 1, opens + 1
        while depth:
            depth += {"{": 1, "}": -1}.get(text[end], 0)
            end += 1
        found.append((text[at:opens], text[opens + 1 : end - 1]))
        at = end
    return found


def trimmed(text: str, words: set[str]) -> str:
    """The rules that can match."""
    kept = []
    for prelude, body in rules(text):
        if prelude.startswith(("@media", "@supports")):
            inner = trimmed(body, words)
            kept += [f"{prelude}{{{inner}}}"] if inner else []
        elif prelude.startswith("@"):
            name = prelude.split()[-1]
            kept += [f"{prelude}{{{body}}}"] if name in words else []
        else:
            some = re.split(r",(?![^(]*\))", prelude)
            used = [s for s in some if all(c in words for c in re.findall(r"\.([A-Za-z][\w-]*)", s))]
            kept += [f"{','.join(used)}{{{body}}}"] if used else []
    return "".join(kept)


def main() -> None:
    whole = Path(sys.argv[1]).read_text("utf-8")
    licence = re.match(r'(@charset "[^"]*";)?\s*/\*!.*?\*/', whole, flags=re.S)
    head = licence[0] if licence else ""
    print(head + trimmed(whole[len(head) :], used_words()))


if __name__ == "__main__":
    main()
