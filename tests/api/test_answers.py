"""The JSON answers whole: a cast, sized rigs, a search, a plan, each as it is published."""

from __future__ import annotations

from heathdrop.answers.plan import rig_said
from heathdrop.api.answers import schools_answer, simulate_answer, size_answer
from heathdrop.api.planning import rig_written
from heathdrop.api.schemas import SimulateRequest
from heathdrop.catalog import Catalog, load
from heathdrop.conditions.request import SizeRequest
from heathdrop.physics.rig import rig_by_name
from tests.golden_file import holds_to
from tests.test_doors import CASE, SCENARIO

#: How far a figure out of the compiled simulation may differ between machines.
SIMULATED = 3e-3


def test_a_simulated_cast() -> None:
    named = {**CASE, "lure": {"family": "swim-jig", "head_oz": 0.5, "trailer": "craw"}}
    found = {}
    for name, body in (("areas", CASE), ("rig", named)):
        answer = simulate_answer(SimulateRequest.model_validate(body)).model_dump(mode="json")
        samples = answer.pop("samples")
        assert len(samples) > 50
        found[name] = [answer, samples[3], samples[-2]]
    holds_to("api.answers.simulate", found, SIMULATED)


def test_sized_rigs() -> None:
    wood = {
        **SCENARIO,
        "conditions": {**SCENARIO["conditions"], "cover": {"kind": "wood", "detail": "brush"}},
    }
    bodies = [{**SCENARIO, "limit": 1}, {**wood, "families": ["flipping-jig"], "limit": 1}]
    found = [size_answer(SizeRequest.model_validate(b)).model_dump(mode="json") for b in bodies]
    assert [len(f["rigs"]) for f in found] == [1, 1]
    holds_to("api.answers.size", {"grass, whole": found[0], "wood": found[1]["rigs"]}, SIMULATED)


def test_schools_to_hold_to() -> None:
    topics = {t.id: t for t in schools_answer().topics}
    assert set(topics) == set(load().topics)
    for id_, topic in load().topics.items():
        said = topics[id_]
        assert (said.name, said.default, said.because) == (topic.name, topic.default, topic.because)
        schools = [(s.id, s.name, s.says) for s in topic.schools.values()]
        assert [(s.id, s.name, s.says) for s in said.schools] == schools


def test_rigs_in_words_and_fields(cat: Catalog) -> None:
    rigs = [
        rig_by_name(cat, "swim-jig", 0.375, "craw"),
        rig_by_name(cat, "football-jig", 1.125, "none", head_material="tungsten", skirt="thin"),
        rig_by_name(cat, "bladed-jig", 0.5, "creature", fused=True, plastic="salted", orientation="vertical"),
    ]
    holds_to("api.casting", [[rig_said(rig), rig_written(rig).model_dump()] for rig in rigs])
