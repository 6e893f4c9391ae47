"""Skirt, plastic and turning as rules and schools settle them, for rigs that have such a part."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.candidates import dressed
from heathdrop.sizing.dress import Dress, dresses_of, worn_by
from heathdrop.sizing.schools import Leaning
from heathdrop.sizing.setting import setting_of

BAIT = Conditions(
    water_temp_f=64, bottom_depth_ft=12, fish_depth_ft=6, forage="baitfish", clarity_ft=4, season="fall"
)
BLUEGILL, CRAWS = replace(BAIT, forage="bluegill"), replace(BAIT, forage="crawfish", fish_depth_ft=12)
EDGE, THIN, FLOATS = {"orientation": "vertical"}, {"skirt": "trimmed"}, {"plastic": "floating"}


@pytest.mark.parametrize(
    ("water", "family", "trailer", "schools", "wanted"),
    [
        (BAIT, "swim-jig", "craw", (), {}),
        (BLUEGILL, "swim-jig", "craw", (), EDGE | THIN),
        (BLUEGILL, "swim-jig", "pin-tail", (), THIN),  # one tail cannot be turned
        (BLUEGILL, "flipping-jig", "craw", (), {}),  # dropped: left whole
        (BLUEGILL, "finesse-jig", "twin-tail", (), EDGE | FLOATS),  # thin already
        (BLUEGILL, "underspin", "craw", (), {}),  # no skirt to trim
        (CRAWS, "football-jig", "craw", (), FLOATS),
        (CRAWS, "football-jig", "chunk", (), {}),
        (CRAWS, "football-jig", "none", (), {}),
        (CRAWS, "swim-jig", "craw", (), {}),  # swum: nothing stands up at rest
        (BAIT, "spinnerbait", "twin-tail", (("spinnerbait-trailer", "steadies"),), {"plastic": "salted"}),
        (BAIT, "spinnerbait", "none", (("spinnerbait-trailer", "steadies"),), {}),
    ],
)
def test_what_is_settled(
    cat: Catalog,
    water: Conditions,
    family: str,
    trailer: str,
    schools: tuple[tuple[str, str], ...],
    wanted: dict[str, str],
) -> None:
    setting = setting_of(cat, Scenario(water, families=(family,), schools=schools))
    tail = cat.trailers[trailer]
    assert setting.dresses[trailer] == wanted
    rig = dressed(setting, setting.family.weights_oz[0], tail, max(1.0, tail.length_in))
    usual = {"orientation": "flat", "plastic": "neutral", "skirt": setting.family.skirt}
    usual |= {"blades": setting.family.blades, "head_material": "lead"}
    assert worn_by(rig) == usual | wanted


def test_a_school_goes_before_the_rules_and_the_strongest_rule_first(cat: Catalog) -> None:
    setting = setting_of(cat, Scenario(BLUEGILL, families=("swim-jig",)))
    held = replace(setting.leaning, dress={"orientation": "flat", "skirt": "thin"})
    rules = {**cat.rules, "all-flat": replace(cat.rules["bluegill-on-edge"], dress={"orientation": "flat"})}

    def craw(leaning: Leaning, catalog: Catalog = cat) -> Dress:
        return dresses_of(catalog, setting.facts, setting.family, leaning)["craw"]

    assert craw(held) == {"orientation": "flat", "skirt": "thin"}
    for strength, wanted in ((3, "flat"), (1, "vertical")):
        rules["all-flat"] = replace(rules["all-flat"], strength=strength)
        assert craw(setting.leaning, replace(cat, rules=rules))["orientation"] == wanted


def test_no_skirt_is_made_fuller(cat: Catalog) -> None:
    setting = setting_of(cat, Scenario(BAIT, families=("finesse-jig",)))
    held = replace(setting.leaning, dress={"skirt": "trimmed"})
    assert dresses_of(cat, setting.facts, setting.family, held)["craw"] == FLOATS
    assert worn_by(RigName("finesse-jig", 0.25, "craw", skirt="full").rig(cat))["skirt"] == "full"
