"""Pairs of waters that differ in one thing: does the answer move as practice moves it (``make agree``)?

A figure of an answer is read over the rigs within ``NEAR`` of the best, not over the first alone, all of
them alike.
"""

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from heathdrop.answers.water import call_of, sizing_of
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.size import Rated
from heathdrop.units import feet

PAIRS = Path(__file__).parent / "waters" / "pairs.json"
#: Rigs this near the best are read; a change smaller than this share of the figure is none.
NEAR, LEAST_CHANGE = 0.03, 0.005
#: Trailers from quiet to loud.
LOUD = {
    "none": 0,
    "pin-tail": 1,
    "flat-tail": 2,
    "chunk": 2,
    "creature-fused": 2,
    "beaver": 3,
    "small-craw": 4,
    "craw": 5,
    "creature": 5,
    "twin-tail": 5,
    "paddle-tail": 6,
}


@dataclass(frozen=True)
class Pair:
    """Two waters, the family they are asked for (None: the call's order counts), and what should move."""

    id: str
    family: str | None
    bodies: tuple[dict[str, Any], dict[str, Any]]
    moves: dict[str, Any]

    def scenarios(self) -> tuple[Scenario, Scenario]:
        """The two waters as scenarios of the family, or of none."""
        families = [self.family] if self.family else None
        a, b = (SizeRequest.model_validate({**body, "families": families}).scenario() for body in self.bodies)
        return a, b


def pairs(path: Path = PAIRS) -> list[Pair]:
    """The pairs of a file."""
    rows = json.loads(path.read_text("utf-8"))["pairs"]
    return [Pair(p["id"], p["family"], (p["body"], p["other"]), p["moves"]) for p in rows]


def figures(rigs: Sequence[tuple[float, Rated]]) -> dict[str, float]:
    """Mean figures of rigs (score, rig), best first, over those near the best."""
    best = rigs[0][0]
    near = [(score, r) for score, r in rigs if score >= best - NEAR]

    def mean(read: Any) -> float:
        return float(sum(read(r) for _, r in near) / len(near))

    return {
        "head_oz": mean(lambda r: r.rig.head_oz),
        "trailer_bulk": mean(lambda r: r.rig.bulk_cm2),
        "trailer_action": mean(lambda r: LOUD[r.rig.trailer.id]),
        "pace": mean(lambda r: feet(r.tuned.pace_m_s)),
        "countdown_s": mean(lambda r: r.countdown_s),
    }


def moved_so(asked: str, before: float, after: float) -> bool:
    """Whether a figure moved as asked: up, down, not up or not down."""
    least = LEAST_CHANGE * max(abs(before), abs(after), 1e-9)
    up, down = after - before > least, before - after > least
    return {"up": up, "down": down, "not up": not up, "not down": not down}[asked]


def ranked_so(asked: str, before: int, after: int) -> bool:
    """Whether a place in the order of families (0 the first) moved as asked; the first cannot rise."""
    if asked == "up" and before == 0:
        return after == 0
    return moved_so(asked, -float(before), -float(after))


def directions(
    moves: Mapping[str, Any],
    before: Mapping[str, float],
    after: Mapping[str, float],
    places: tuple[Sequence[str], Sequence[str]] | None = None,
) -> list[tuple[str, bool]]:
    """Each direction that is asked for, with whether it holds."""
    found = []
    for what, asked in moves.items():
        if what == "family_rank" and places is not None:
            a, b = places
            found += [(f"{f} {way}", ranked_so(way, a.index(f), b.index(f))) for f, way in asked.items()]
        else:
            found.append((f"{what} {asked}", moved_so(asked, before[what], after[what])))
    return found


def held(pair: Pair) -> list[tuple[str, bool]]:
    """The pair's directions by the program's own answers."""
    a, b = pair.scenarios()
    places = None
    if pair.family is None:
        called = [call_of(one).standings for one in (a, b)]
        places = [s.family.id for s in called[0]], [s.family.id for s in called[1]]
        sizings = [standings[0].sizing for standings in called]
    else:
        sizings = [sizing_of(one) for one in (a, b)]
    before, after = (figures([(r.fits.score, r) for r in sizing.rigs]) for sizing in sizings)
    return directions(pair.moves, before, after, places)


def main(show: bool = True) -> tuple[int, int]:
    """Print how many directions hold; return them with how many there are."""
    right = whole = 0
    for pair in pairs():
        found = held(pair)
        right += sum(good for _, good in found)
        whole += len(found)
        wrong = [what for what, good in found if not good]
        if wrong and show:
            print(f"  {pair.id} {pair.family or 'call'}: not {', '.join(wrong)}")
    print(f"pairs: {right} of {whole} directions hold = {100 * right / whole:.1f} %")
    return right, whole


if __name__ == "__main__":
    main()
