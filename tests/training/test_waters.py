"""Waters to practise on: each can be sized, and a seed makes the same one."""

from __future__ import annotations

import random

from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import check
from heathdrop.training.waters import random_water


def test_made_up_waters_can_be() -> None:
    assert random_water(random.Random(3)) == random_water(random.Random(3))
    rng, kinds = random.Random(8), set()
    for _ in range(200):
        body = random_water(rng)
        scenario = SizeRequest.model_validate({**body, "families": ["swim-jig"]}).scenario()
        check(scenario)
        assert scenario.conditions.fish_depth_ft <= scenario.conditions.bottom_depth_ft
        kinds.add(scenario.conditions.cover.kind)
    assert len(kinds) == 8
