"""How soon the search finds fish: 500 fish drawn from the belief, against one count and against stepping it.

    python -m bench.search_study

Fish (a depth and the pace they take) are drawn from the belief of several waters whose fish depth is not
known; each cast bites with the chance that the model gives. Three anglers throw the same rig and count the
casts to the first bite: one keeps the rig's own count and pace, one steps the count by turns from shallow to
deep, the third throws what the search says. Figures stand in docs/search.md.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from pathlib import Path

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.answers.own import STRANGER
from heathdrop.answers.rods_to_hand import Bench
from heathdrop.answers.search import best_few
from heathdrop.answers.water import first_belief, placed
from heathdrop.conditions.request import SizeRequest
from heathdrop.search.belief import Belief, bite_per_s
from heathdrop.search.coverage import Candidate
from heathdrop.search.order import missed, next_cast
from heathdrop.sizing.activity import judge

FISH, MOST_CASTS, SEED = 500, 80, 11
WATERS = json.loads((Path(__file__).parent / "waters" / "searched.json").read_text("utf-8"))
Thrown = Callable[[int], Candidate]


def casts_to_a_bite(rng: np.random.Generator, cell: tuple[int, int], per_s: float, thrown: Thrown) -> int:
    """How many casts it takes until these fish bite, ``MOST_CASTS`` when they never do."""
    for k in range(MOST_CASTS):
        if rng.random() < 1.0 - float(missed(per_s, thrown(k).seconds)[cell]):
            return k + 1
    return MOST_CASTS


def studied(water: dict[str, object], fish: int, rng: np.random.Generator) -> dict[str, list[int]]:
    """Casts to the first bite of each angler, for each fish of a water."""
    catalog = catalogue.load()
    scenario = placed(SizeRequest.model_validate(water).scenario())
    mood = judge(catalog, scenario.conditions).value
    belief, per_s = first_belief(scenario), bite_per_s(catalog, mood)
    bench = Bench(scenario, STRANGER, belief)
    rig = next(r for r in best_few(scenario, STRANGER, 3) if r.family.work == "swim")
    casts = bench.casts(rig)
    own = bench.sized(rig)[1]
    middle = bench.cast(rig, own.countdown_s, own.tuned.pace_m_s / 0.3048)
    usual = sorted((c for c in casts if abs(c.pace_ft_s - 2.2) < 0.6), key=lambda c: c.count_s)
    order = searched(belief, per_s, casts, [bench.key(rig)])
    shares = belief.cells.ravel() / belief.cells.sum()
    found: dict[str, list[int]] = {"one count": [], "by turns": [], "search": []}
    for at in rng.choice(shares.size, size=fish, p=shares):
        cell = (int(at) // 3, int(at) % 3)
        found["one count"].append(casts_to_a_bite(rng, cell, per_s, lambda _: middle))
        found["by turns"].append(casts_to_a_bite(rng, cell, per_s, lambda k: usual[k % len(usual)]))
        found["search"].append(casts_to_a_bite(rng, cell, per_s, lambda k: order[k]))
    return found


def searched(belief: Belief, per_s: float, casts: list[Candidate], hand: list[str]) -> list[Candidate]:
    """The casts of the search while nothing bites."""
    catalog, before, order = catalogue.load(), None, []
    for _ in range(MOST_CASTS):
        before, *_rest = next_cast(catalog, belief, per_s, casts, before, hand)
        belief = belief.times(missed(per_s, before.seconds))
        order.append(before)
    return order


def study(fish: int = FISH) -> dict[str, list[int]]:
    """Every water's share of the fish, the anglers' casts joined."""
    rng = np.random.default_rng(SEED)
    whole: dict[str, list[int]] = {"one count": [], "by turns": [], "search": []}
    for water in WATERS:
        for name, casts in studied(water, fish // len(WATERS), rng).items():
            whole[name] += casts
    return whole


def main() -> None:
    """Print medians and shares."""
    found = study()
    for name, casts in found.items():
        never = sum(c >= MOST_CASTS for c in casts)
        print(
            f"{name:10} median {np.median(casts):5.1f}  mean {np.mean(casts):5.1f}",
            f" never {never} of {len(casts)}",
        )
    ours = float(np.median(found["search"]))
    for name in ("one count", "by turns"):
        print(f"search / {name}: {ours / float(np.median(found[name])):.2f}")


if __name__ == "__main__":
    main()
