"""`make agree`: how far the judgement agrees with worked waters, and how steady and honest it is.

The waters (``bench/waters/worked.json``) are considered opinion written down beforehand, in three
sets; set B asks a step less weight, so it is asked with the lean "lighter". Pairs of waters
(:mod:`bench.pairs`) say whether the answer moves as practice moves it. Every figure comes from the
answer that the API gives. ``make agree`` prints them all; ``--quick`` leaves the random waters out.
"""

import json
import sys
from collections import Counter
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import bench.pairs
from heathdrop.api.answers import size_answer
from heathdrop.conditions.request import SizeRequest

WORKED = Path(__file__).parent / "waters" / "worked.json"
LEAN: dict[str, dict[str, str]] = {"A": {}, "B": {"weight-lean": "lighter"}, "C": {}, "D": {}}
#: Two weights are the same (oz).
SAME_OZ = 1e-3


@dataclass(frozen=True)
class Water:
    """One worked water: the question, and what the notes accept."""

    id: str
    set: str
    body: dict[str, Any]
    first: tuple[str, ...]
    defensible: tuple[str, ...]
    absurd: tuple[str, ...]
    rigs: dict[str, tuple[tuple[float, float], tuple[str, ...]]]

    def accepts(self, family: str, head_oz: float, trailer: str) -> bool:
        """Whether weight and trailer are both among those accepted for the family."""
        (low, high), trailers = self.rigs[family]
        return low - SAME_OZ <= head_oz <= high + SAME_OZ and trailer in trailers


def worked(path: Path = WORKED) -> list[Water]:
    """The worked waters of a file."""
    rows = json.loads(path.read_text("utf-8"))["waters"]
    return [
        Water(
            w["id"],
            w["set"],
            w["body"],
            tuple(w["first"]),
            tuple(w["defensible"]),
            tuple(w["absurd"]),
            {r["family"]: (tuple(r["weight_oz"]), tuple(r["trailers"])) for r in w["rigs"]},
        )
        for w in rows
    ]


def asked(water: Water, **more: Any) -> dict[str, Any]:
    """The answer to a worked water, as JSON."""
    body = {**water.body, "schools": LEAN[water.set], **more}
    return size_answer(SizeRequest.model_validate(body)).model_dump()


def verdict(water: Water, rig: dict[str, Any]) -> str:
    """What the first rig is: strict, family (right, but not the rig), defensible, wrong or absurd."""
    family = rig["family"]
    if family in water.absurd:
        return "absurd"
    if family in water.first:
        if family not in water.rigs:
            return "family"
        good = water.accepts(family, rig["head_oz"], rig["trailer"])
        return "strict" if good else "family"
    return "defensible" if family in water.defensible else "wrong"


def agreement(waters: list[Water]) -> None:
    """Print the agreement with worked waters, per set and per family."""
    tally: dict[str, Counter[str]] = {which: Counter() for which in LEAN}
    first_two, high = Counter[str](), 0
    for water in waters:
        answer = asked(water, limit=20)
        rig = answer["rigs"][0]
        said = verdict(water, rig)
        tally[water.set][said] += 1
        order = list(dict.fromkeys(r["family"] for r in answer["rigs"]))
        first_two[water.set] += water.first[0] in order[:2]
        high += rig["score"] > 0.95
        if said != "strict":
            named = f"{rig['family']} {rig['head_oz']:g} {rig['trailer']}"
            print(f"  {said:10} {water.id:45} {named:38} wanted {', '.join(water.first)}")
    for which, counts in tally.items():
        total = sum(counts.values())
        if total:
            share = {
                k: f"{100 * counts[k] / total:.0f} %"
                for k in ("strict", "family", "defensible", "wrong", "absurd")
            }
            print(
                f"set {which}, {total} waters: {share}, first choice in the first two "
                f"{100 * first_two[which] / total:.0f} %"
            )
    whole = sum(tally.values(), Counter())
    total = sum(whole.values())
    print(
        f"all sets: strict {100 * whole['strict'] / total:.1f} %, wrong or absurd "
        f"{100 * (whole['wrong'] + whole['absurd']) / total:.1f} %, absurd {whole['absurd']}, "
        f"first choice in the first two {100 * sum(first_two.values()) / total:.1f} %, "
        f"first rig above 95: {100 * high / total:.0f} %"
    )


def named_families(waters: list[Water], show: bool = False) -> None:
    """Print how often weight and trailer are right in rigs sized for a named family."""
    good: Counter[str] = Counter()
    weight: Counter[str] = Counter()
    tail: Counter[str] = Counter()
    total: Counter[str] = Counter()
    for water in waters:
        for family, ((low, high), trailers) in water.rigs.items():
            rig = asked(water, families=[family], limit=1)["rigs"][0]
            heavy = low - SAME_OZ <= rig["head_oz"] <= high + SAME_OZ
            suits = rig["trailer"] in trailers
            total[family] += 1
            weight[family] += heavy
            tail[family] += suits
            good[family] += heavy and suits
            if show and not (heavy and suits):
                print(
                    f"  {water.id:45} {family:15} {rig['head_oz']:<7g}"
                    f"{'' if heavy else f' not {low:g}-{high:g}'} "
                    f"{rig['trailer']}{'' if suits else ' not ' + ','.join(trailers)}"
                )
    for family in sorted(total):
        n = total[family]
        print(f"  {family:17} both {good[family]:3}/{n:<3} weight {weight[family]}, trailer {tail[family]}")
    whole, n = sum(good.values()), sum(total.values())
    print(
        f"named families: both right {whole}/{n} = {100 * whole / n:.1f} %, "
        f"weight {100 * sum(weight.values()) / n:.0f} %, trailer {100 * sum(tail.values()) / n:.0f} %"
    )


def main() -> None:
    waters = worked()
    agreement(waters)
    named_families(waters, show="--show" in sys.argv)
    bench.pairs.main()


if __name__ == "__main__":
    main()
