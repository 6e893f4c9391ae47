"""`make reach` too: on thin line and spinning tackle, is the first rig one that the tackle can bear?

Random waters on six-pound line and on an eight-pound leader. A first rig asks too much when its hook and the
cover, or its head, ask for more line than is tied (practice, written down here by itself); then ``doubt``
must name the line.
"""

import random
import sys
from typing import Any

from bench.steady import random_water
from heathdrop.api.answers import size_answer
from heathdrop.conditions.request import SizeRequest

#: Lines asked, and what each family and cover takes (lb).
LINES: tuple[dict[str, Any], ...] = (
    {"material": "fluorocarbon", "test_lb": 6},
    {
        "material": "braid",
        "test_lb": 15,
        "leader": {"material": "fluorocarbon", "test_lb": 8, "length_ft": 8},
    },
)
COVER_LB = {"wood": 12, "matted-grass": 40, "pads": 20, "reeds": 12, "docks": 10}
HOOK_LB = {"flipping-jig": 12, "bladed-jig": 10, "punch-rig": 40, "grass-jig": 12, "spinnerbait": 10}
LB_PER_OZ, FINESSE = 18.0, ("finesse-jig", "micro-jig")


def too_much(rig: dict[str, Any], cover: str, test_lb: float) -> bool:
    """Whether a rig asks for more line than this in this cover."""
    need = max(HOOK_LB.get(rig["family"], 0), LB_PER_OZ * rig["head_oz"])
    if rig["family"] not in FINESSE:
        need = max(need, COVER_LB.get(cover, 0))
    return need > 1.15 * test_lb


def main(count: int = 32, seed: int = 5) -> int:
    """Print and return how many first rigs ask too much without a word that names the line."""
    rng, over, silent = random.Random(seed), 0, 0
    for k in range(count):
        body = random_water(rng)
        body["gear"]["line"] = line = LINES[k % 2]
        answer = size_answer(SizeRequest.model_validate(body)).model_dump()
        rig, cover = answer["rigs"][0], body["conditions"]["cover"]["kind"]
        test = line.get("leader", line)["test_lb"]
        if too_much(rig, cover, test):
            over += 1
            said = " lb " in (answer["doubt"] or "")
            silent += not said
            if not said:
                print(f"  {test} lb, {cover}: {rig['family']} {rig['head_oz']:g}, doubt {answer['doubt']}")
    print(f"{count} waters on thin line: {over} first rigs ask too much of it, {silent} without a word")
    return silent


if __name__ == "__main__":
    main(*(int(word) for word in sys.argv[1:]))
