"""`python -m bench.pieces`: pieces of the work, each a water and what practice answers there, asked again.

`bench/waters/pieces.toml` holds the rows. A want is a few words: `trailer is craw`, `head .25 to .5`,
`colour says green`, `depth more` (than in the water of `than`), `any trailer beaver .9` (its best rig has
that share of the first one's), `change ran-too-high says slower`. docs/judgement.md has the run's counts.
"""

import operator
import tomllib
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from bench.questions import USUAL
from heathdrop.advice.change import mended
from heathdrop.answers.water import sizing_of
from heathdrop.api.answers import size_answer
from heathdrop.catalog import load
from heathdrop.conditions.request import SizeRequest

ROWS = Path(__file__).parent / "waters" / "pieces.toml"
PAGE = Path(__file__).parent.parent / "docs" / "judgement.md"
BEGIN, END = "<!-- pieces: begin -->", "<!-- pieces: end -->"
Answer = dict[str, Any]
#: How much more or less counts as a difference.
LEAST = 0.01
NUMBERS: dict[str, Callable[[Answer], float]] = {
    "head": lambda a: a["rigs"][0]["head_oz"],
    "length": lambda a: a["rigs"][0]["trailer_length_in"] or 0.0,
    "depth": lambda a: a["rigs"][0]["depth_ft"]["mean"],
    "in_band": lambda a: a["rigs"][0]["depth_ft"]["in_band"],
    "pace": lambda a: a["rigs"][0]["pace_ft_s"] or 0.0,
    "fall": lambda a: a["rigs"][0]["fall_ft_s"]["value"],
    "count": lambda a: a["rigs"][0]["countdown_s"],
    "cast": lambda a: a["rigs"][0]["cast_ft"],
    "felt": lambda a: a["rigs"][0]["felt"],
    "casts": lambda a: a["rigs"][0]["per_hour"]["casts"],
    "passes": lambda a: a["rigs"][0]["cover"]["passes"],
    "fouls": lambda a: a["rigs"][0]["cover"]["fouls"],
    "hangs": lambda a: a["rigs"][0]["cover"]["hangs"],
    "score": lambda a: a["rigs"][0]["score"],
    "mood": lambda a: a["targets"]["activity"]["value"],
    "wants": lambda a: a["targets"]["action"]["value"],
}


@dataclass(frozen=True)
class Piece:
    """A piece of the work: its subject, itself in words, the request, and what is wanted of the answer."""

    of: str
    what: str
    body: dict[str, Any]
    than: dict[str, Any] | None
    wants: tuple[str, ...]


def pieces() -> list[Piece]:
    """Every row of the file. A row's request is the usual water with what the row and its subject say."""
    found = []
    for of, subject in tomllib.loads(ROWS.read_text("utf-8")).items():
        at, rig = subject.get("at", {}), subject.get("rig", "")
        for row in subject["pieces"]:
            named = row.get("rig", rig)
            other = {k: v for k, v in row.items() if k in ("gear", "schools")}
            here = {**at, **row.get("at", {})}
            body = request(here, named, other)
            than = row.get("than")
            found.append(
                Piece(
                    of,
                    row["what"],
                    body,
                    request({**here, **than.get("at", {})}, than.get("rig", named), {**other, **than})
                    if than is not None
                    else None,
                    tuple(row["wants"]),
                )
            )
    return found


def request(at: dict[str, Any], rig: str, other: dict[str, Any]) -> dict[str, Any]:
    """A size request of the usual water with these conditions, of these families (none: they are called)."""
    gear = {"line": {"material": "fluorocarbon", "test_lb": 15}, "cast_ft": 80, **other.get("gear", {})}
    body: dict[str, Any] = {"conditions": {**USUAL, **at}, "limit": 200, "gear": gear}
    body["schools"] = other.get("schools", {})
    return body | ({"families": rig.split()} if rig else {})


def answer_of(body: dict[str, Any]) -> Answer:
    return size_answer(SizeRequest.model_validate(body)).model_dump()


def holds(want: str, piece: Piece, answer: Answer, other: Answer | None) -> bool:
    """Whether an answer has what is wanted of it. Raises KeyError for a want that names nothing."""
    name, verb, *rest = want.split()
    first = answer["rigs"][0]
    if verb == "says":
        return any(w.replace("_", " ") in said(name, answer) for w in rest[0].split("|"))
    if verb == "is":
        return str(first[name]) in rest
    if verb == "not":
        return str(first[name]) not in rest
    if name == "any":
        best = max((r["score"] for r in answer["rigs"] if r[verb] == rest[0]), default=0.0)
        return bool(best >= float(rest[1]) * first["score"])
    if name == "change":
        return rest[1] in changed(piece.body, verb)
    if verb in ("more", "less", "same"):
        assert other is not None, want
        apart = NUMBERS[name](answer) - NUMBERS[name](other)
        return abs(apart) <= LEAST if verb == "same" else apart > LEAST if verb == "more" else apart < -LEAST
    low, high = float(verb), float(rest[1])
    return operator.le(low - 1e-9, NUMBERS[name](answer)) and operator.le(NUMBERS[name](answer), high + 1e-9)


def said(name: str, answer: Answer) -> str:
    """The words of a slot, or of the doubt, the cautions, the reasons, the rules, in small letters."""
    texts = {
        "doubt": [answer["doubt"] or ""],
        "caution": answer["cautions"],
        "why": answer["rigs"][0]["why"],
        "advice": [a["sentence"] for a in answer["advice"]],
        "mood": answer["targets"]["activity"]["why"],
    }
    if name in texts:
        return " ".join(texts[name]).lower()
    return str(answer["finish"].get(name, {}).get("sentence", "")).lower()


def changed(body: dict[str, Any], complaint: str) -> str:
    """What is offered against a complaint about the first rig, in small letters."""
    sizing = sizing_of(SizeRequest.model_validate(body).scenario())
    found = mended(load(), sizing, sizing.rigs[0], complaint).changes
    return " ".join(f"{c.what} {c.effect}" for c in found).lower()


def said_of(answer: Answer) -> str:
    """The first rig in a line."""
    r = answer["rigs"][0]
    return (
        f"{r['head_oz']:g} oz {r['family']}, {r['trailer']} {r['trailer_length_in'] or 0:g}, {r['work']}, "
        f"{r['way']}, {r['depth_ft']['mean']:.1f} ft, {r['score']:.2f}"
    )


def main() -> None:
    kept, good = Counter[str](), Counter[str]()
    failed = []
    for piece in pieces():
        answer = answer_of(piece.body)
        other = None if piece.than is None else answer_of(piece.than)
        wrong = [w for w in piece.wants if not holds(w, piece, answer, other)]
        kept[piece.of] += 1
        good[piece.of] += not wrong
        if wrong:
            failed.append((piece, wrong))
            against = "" if other is None else f" | {said_of(other)}"
            print(f"NO {piece.of}: {piece.what}: wants {wrong}; {said_of(answer)}{against}")
            for name in {w.split()[0] for w in wrong if " says " in w and not w.startswith("change")}:
                print(f"     {name}: {said(name, answer)[:300]}")
    print(f"pieces of the work: {good.total()} of {kept.total()} as practice has them")
    text = PAGE.read_text("utf-8")
    if BEGIN in text:
        head, tail = text.split(BEGIN)[0], text.split(END)[1]
        lines = ["| subject | pieces | as practice has them |", "|---|---|---|"]
        lines += [f"| {of} | {n} | {good[of]} |" for of, n in kept.items()]
        lines += [f"| in all | {kept.total()} | {good.total()} |"]
        lines += ["", *(f"Not so: {p.of}: {p.what}." for p, _ in failed)]
        PAGE.write_text(f"{head}{BEGIN}\n" + "\n".join(lines) + f"\n{END}{tail}", "utf-8")


if __name__ == "__main__":
    main()
