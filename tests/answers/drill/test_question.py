"""Questions are named, and the names lead back."""

from __future__ import annotations

import pytest

from heathdrop.answers.drill.question import KINDS, Named, rig_words, topics
from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.physics.rig import rig_by_name


def test_names_lead_back_and_wrong_ones_are_refused() -> None:
    assert Named.parse("call.matted-grass.17") == Named("call", "matted-grass", 17)
    assert Named("eye", "nylon", 3).text == "eye.nylon.3"
    for wrong in (
        "",
        "eye.nylon",
        "eye.silk.3",
        "eye.nylon.-1",
        "eye.nylon.1000000",
        "ear.nylon.3",
        "eye.nylon.³",
    ):
        with pytest.raises(BadInput, match="id was"):
            Named.parse(wrong)
    assert set(topics()) == set(KINDS)
    assert sum(len(t) for t in topics().values()) == 22


def test_a_rig_in_words(cat: Catalog) -> None:
    assert rig_words(rig_by_name(cat, "swim-jig", 0.375, "craw")) == "3/8 oz swim jig, 4 in craw"
    assert rig_words(rig_by_name(cat, "spinnerbait", 0.5, "none")) == "1/2 oz spinnerbait, no trailer"
