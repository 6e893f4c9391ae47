"""How steady the judgement is: one smallest step of each condition over random waters."""

import copy
import random
from collections import Counter
from typing import Any

from heathdrop.advice.call import CALLED
from heathdrop.answers.water import call_of
from heathdrop.catalog import load
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.training.waters import random_water

__all__ = ["random_water", "scenario_of", "steadiness"]
#: (path, step): the smallest step an angler would type.
STEPS = (
    ("conditions.water_temp_f", 1.0),
    ("conditions.fish_depth_ft", 0.5),
    ("conditions.bottom_depth_ft", 0.5),
    ("conditions.wind_mph", 1.0),
    ("conditions.clarity_ft", 0.5),
    ("gear.line.test_lb", 1.0),
)


def moved(body: dict[str, Any], path: str, step: float) -> dict[str, Any]:
    """The body with one number moved."""
    new = copy.deepcopy(body)
    *places, last = path.split(".")
    at: Any = new
    for place in places:
        at = at[place]
    at[last] += step
    return new


def scenario_of(body: dict[str, Any]) -> Scenario:
    return SizeRequest.model_validate(body).scenario()


def steadiness(count: int = 200, seed: int = 11) -> None:
    """Print the share of steps that change the first family or its head, and how far scores move."""
    rng, told = random.Random(seed), Counter[str]()
    worst, where, by = 0.0, "", Counter[str]()
    sizes = {f.id: f.weights_oz for f in load().families.values()}
    edge = high = 0
    for _ in range(count):
        body = random_water(rng)
        base = call_of(scenario_of(body), places=CALLED)
        first = base.standings[0]
        scores = {s.family.id: {r.key: r.fits.score for r in s.sizing.rigs} for s in base.standings[:4]}
        high += first.fit > 0.95
        edge += first.best.rig.head_oz in (sizes[first.family.id][0], sizes[first.family.id][-1])
        for path, step in STEPS:
            sign = 1.0 if rng.random() < 0.5 else -1.0
            for way in (sign, -sign):
                try:
                    other = call_of(scenario_of(moved(body, path, way * step)), places=CALLED)
                except BadInput:
                    continue
                break
            else:
                continue
            told["steps"] += 1
            then = other.standings[0]
            if then.family.id != first.family.id:
                told["family"] += 1
                by[path] += 1
            rows = sizes[first.family.id]
            same = [s.best.rig.head_oz for s in other.standings if s.family.id == first.family.id]
            told["head"] += any(abs(rows.index(oz) - rows.index(first.best.rig.head_oz)) > 1 for oz in same)
            for s in other.standings:
                kept = scores.get(s.family.id, {})
                for r in s.sizing.rigs:
                    before = kept.get(r.key)
                    if before is None:
                        continue
                    apart = abs(r.fits.score - before)
                    told["scores"] += 1
                    told["jump"] += apart > 0.08
                    told["first"] += apart > 0.08 and r.key in list(kept)[:5]
                    if apart > worst:
                        worst, where = apart, f"{path}: {r.key} {before:.3f} to {r.fits.score:.3f}"
    steps = told["steps"]
    print(
        f"steadiness: {steps} steps over {count} waters: first family changes in "
        f"{100 * told['family'] / steps:.1f} %, "
        f"its head by more than a size in {100 * told['head'] / steps:.1f} %, "
        f"scores moved by more than .08: {told['jump']} of {told['scores']}, "
        f"of the first five of a family {told['first']}"
    )
    print(f"  greatest change of a score {worst:.3f} ({where}); families by step {dict(by)}")
    print(
        f"  first rigs above 95: {100 * high / count:.0f} %, "
        f"at the catalogue's edge: {100 * edge / count:.0f} %"
    )


if __name__ == "__main__":
    steadiness()
