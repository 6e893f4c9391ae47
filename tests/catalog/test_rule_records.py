"""Rules and schools: a slip of the pen is refused with file and key."""

from __future__ import annotations

from pathlib import Path

import pytest

from heathdrop.catalog import Catalog
from tests.catalog.slips import refused

FAULTS = [
    ("rules", "when = { trailer = [\"craw\", \"chunk\"", "when = { trailler = [\"craw\", \"chunk\"",
     "rules.toml, rules.claws-brake.when.trailler: no such fact"),
    ("rules", 'season = ["pre-spawn", "spawn"]', 'season = ["pre-spawning", "spawn"]',
     "rules.toml, rules.hang-in-place.when.season: no such word as 'pre-spawning'"),
    ("rules", "favours = { swim-jig = 0.2 }", "favours = { swimjig = 0.2 }",
     "rules.toml, rules.hang-in-place.favours.swimjig: there is no such name"),
    ("rules", "trailers = { craw = 0.3", "trailers = { crow = 0.3",
     "rules.toml, rules.hang-in-place.trailers.crow: there is no such name"),
    ("rules", 'dress = { orientation = "vertical" }', 'dress = { orientation = "upright" }',
     "rules.toml, rules.bluegill-on-edge.dress.orientation.upright: there is no such name"),
    ("rules", 'finish = { colour = "black and blue" }', 'finish = { colr = "black and blue" }',
     "rules.toml, rules.black-and-blue.finish.colr: there is no such name"),
    ("rules", "when = { fish_depth_ft = [10, 60]", "when = { fish_depth_ft = [60, 10]",
     "rules.toml, rules.blade-rises.when.fish_depth_ft: it must be two numbers, the lower first"),
    ("rules", "when = { temp_f = [32, 55] }", "when = { temp_f = 32 }",
     "rules.toml, rules.soft-in-the-cold.when.temp_f: it must be a list"),
    ("rules", 'season = ["pre-spawn", "spawn"]', "test_lb = [4, 12]",
     "rules.toml, rules.hang-in-place.when.test_lb: what it settles may not hang on the gear"),
    ("schools", 'applies = { family = ["bladed-jig"] }', 'applies = { line = ["braid"] }',
     "schools.toml, topics.bladed-ladder.applies.line: what it settles may not hang on the gear"),
    ("rules", 'about = "fall"', 'abut = "fall"', "rules.toml, rules.claws-brake.about: it is missing"),
    ("rules", "strength = 1", "strength = 1\nabut = 2",
     "rules.toml, rules.claws-brake.abut: there is no such column"),
    ("schools", "applies = { activity = [0, 1.4]", "applies = { activty = [0, 1.4]",
     "schools.toml, topics.cold-water-weight.applies.activty: no such fact"),
    ("schools", "effect = { ladder = { bladed-jig = [[4.5", "effect = { lader = { bladed-jig = [[4.5",
     "schools.toml, topics.bladed-ladder.schools.two.effect.lader: there is no such column"),
    ("schools", 'default = "step"', 'default = "stepp"',
     "schools.toml, topics.bladed-ladder.default.stepp: there is no such name"),
    ("schools", "{ dress = { orientation = \"flat\" } }", "{ dress = { orientation = \"flatt\" } }",
     "schools.toml, topics.bladed-craw.schools.flat.effect.dress.orientation.flatt: there is no such name"),
]  # fmt: skip


@pytest.mark.parametrize(("file", "right", "wrong", "said"), FAULTS)
def test_a_slip_is_refused(tmp_path: Path, file: str, right: str, wrong: str, said: str) -> None:
    assert refused(tmp_path, file, right, wrong).startswith(said)


def test_a_topic_has_two_sides_and_a_default_with_a_reason(cat: Catalog) -> None:
    for topic in cat.topics.values():
        assert len(topic.schools) >= 2, topic.id
        assert topic.default in topic.schools
        assert topic.because
        assert all(s.says for s in topic.schools.values())
    assert set(cat.topics["weight-lean"].schools) == {"lighter", "usual", "heavier"}
    leans = [cat.topics["weight-lean"].schools[k].effect.lean for k in ("lighter", "usual", "heavier")]
    assert leans == [0.8, 1.0, 1.18]


def test_a_rule_says_a_sentence_of_its_own(cat: Catalog) -> None:
    said = [rule.says for rule in cat.rules.values()]
    assert all(text.endswith(".") for text in said)
    assert len(set(said)) == len(said)
    assert {rule.strength for rule in cat.rules.values()} <= {1, 2, 3}
