"""Which parts share a lesson: the keys of what was learned."""

from __future__ import annotations

from heathdrop.catalog import Catalog
from heathdrop.learning.observations import body_key, lift_key, trailer_key
from heathdrop.physics.rig import rig_by_name


def test_keys_are_made_of_the_parts_that_share_a_lesson(cat: Catalog) -> None:
    jig = rig_by_name(cat, "swim-jig", 0.375, "paddle-tail", trailer_length_in=4.5, skirt="thin")
    assert body_key(jig) == "swim-jig/swim"
    assert trailer_key(jig) == "paddle-tail/4.5"
    assert lift_key(jig) == "swim-jig/paddle-tail/4.5"
    heavy = rig_by_name(cat, "swim-jig", 1.0, "paddle-tail", trailer_length_in=4.5, skirt="full")
    assert [k(heavy) for k in (body_key, trailer_key, lift_key)] == [
        k(jig) for k in (body_key, trailer_key, lift_key)
    ]
