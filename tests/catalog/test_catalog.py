"""The shipped catalogue loads; a slip of the pen anywhere in it is refused with file and key."""

from pathlib import Path

import pytest

from heathdrop.catalog import Catalog, read_catalog
from heathdrop.errors import BadInput
from tests.catalog.slips import data, refused


def test_the_shipped_files_read_the_same_from_anywhere(cat: Catalog, tmp_path: Path) -> None:
    assert read_catalog(data(tmp_path)) == cat


def test_pick_names_the_field_and_the_choices(cat: Catalog) -> None:
    assert cat.pick(cat.skirts, "x", "full").id == "full"
    with pytest.raises(BadInput, match="skirt was “kilt”; it must be one of full, trimmed, thin, none"):
        cat.pick(cat.skirts, "skirt", "kilt")
    assert cat.spread("lines", "diameters_mm") == 0.06


def test_every_number_of_the_judgement_has_an_origin(cat: Catalog) -> None:
    assert set(cat.provenance["judgement"]) == set(vars(cat.judgement))


FAULTS = [
    ("cover", "hydrilla = { base_oz", "hydrila = { base_oz",
     "cover.toml, mats.textures.hydrilla: there is no such name"),
    ("cover", "laydown = 1.0", "laydowns = 1.0", "cover.toml, wood.kinds.laydown: there is no such name"),
    ("cover", "rises = { laydown = 1.0, brush", "rises = { laydown = 1.0, bush",
     "cover.toml, wood.rises.brush: there is no such name"),
    ("cover", "pads = 0.45, reeds = 1.1", "pads = 0.45",
     "cover.toml, stems.share.reeds: there is no such name"),
    ("cover", "two_tails = { pads", "two_tails = { docks",
     "cover.toml, stems.two_tails.docks: there is no such name"),
    ("tackle", "micro-jig = 4\n", "", "tackle.toml, hook_lb.micro-jig: there is no such name"),
    ("tackle", "docks = { moderate = 1.2 }", "", "tackle.toml, cover.docks: there is no such name"),
    ("usual", "swim-jig = { by", "swimjig = { by", "usual.toml, families.swim-jig: there is no such name"),
    ("fitted", "[points]", "[points]\nno-rule = { swim-jig = 0.1 }",
     "fitted.toml, points.no-rule: there is no such name"),
    ("judgement", "weights = { depth", "weights = { deepness",
     "judgement.toml, fit.weights.deepness: there is no such name"),
    ("families", 'usual_trailer = "paddle-tail"', 'usual_trailer = "paddletail"',
     "families.toml, families.swim-jig.usual_trailer.paddletail: there is no such name"),
    ("trailers", "appendages = 0", "appendages = \"none\"", "trailers.toml, trailers.none.appendages: "),
    ("trailers", "glide = 0.0\n", "", "trailers.toml, trailers.none.glide: it is missing"),
    ("plastics", 'material = "salted"', 'material = "salty"',
     "plastics.toml, plastic.salted.material.salty: there is no such name"),
    ("model", 'origin = "practice"', 'origin = "hearsay"', "model.toml, provenance.count_error.origin: "),
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
    ("search", "slices = 8", "slicess = 8", "search.toml, search.grid.slices: it is missing"),
    ("search", "[minutes]", "[minute]", "search.toml, search.minutes: it is missing"),
    ("search", "per_s = [0.003", 'per_s = ["often", 0.003', "search.toml, search.bite.per_s.0: "),
    ("search", 'weight = 0.6', 'weight = 0.6\nwhen = { temprature = [32, 50] }',
     "search.toml, start[0].when.temprature: no such fact"),
]  # fmt: skip


@pytest.mark.parametrize(("file", "right", "wrong", "said"), FAULTS)
def test_a_slip_is_refused(tmp_path: Path, file: str, right: str, wrong: str, said: str) -> None:
    assert refused(tmp_path, file, right, wrong).startswith(said)


def test_bands_rise_with_the_mood(cat: Catalog) -> None:
    """Livelier fish take a quicker fall, a quicker pace, more action; one row for each mood."""
    rows = cat.targets
    assert [t.activity for t in rows] == [0.0, 1.0, 2.0, 3.0, 4.0]
    for slow, quick in zip(rows, rows[1:], strict=False):
        assert slow.fall_ft_s[0] <= quick.fall_ft_s[0]
        assert slow.pace_ft_s[0] < quick.pace_ft_s[0]
        assert slow.pace_ft_s[1] < quick.pace_ft_s[1]
        assert slow.action < quick.action
    assert len(cat.mood.names) == 5
    assert [f for f, _ in cat.mood.base] == sorted(f for f, _ in cat.mood.base)


def test_usual_weights_are_bands_by_rising_depth(cat: Catalog) -> None:
    for family, usual in cat.usual.items():
        depths = [row[0] for row in usual.rows]
        assert depths == sorted(set(depths)), family
        assert all(0 < light < heavy for _, light, heavy in usual.rows), family
        assert usual.by == ("target" if cat.families[family].work == "swim" else "bottom"), family


def test_lengths_weights_and_lines_rise(cat: Catalog) -> None:
    """What is listed is in order, positive, and holds the listed length itself."""
    for family in cat.families.values():
        assert list(family.weights_oz) == sorted(set(family.weights_oz))
        assert family.weights_oz[0] >= 1 / 32
        assert family.weights_oz[-1] <= 4.0
    for trailer in cat.trailers.values():
        assert trailer.bare or trailer.length_in in trailer.lengths_in
        assert list(trailer.lengths_in) == sorted(set(trailer.lengths_in))
    for line in cat.lines.values():
        tests, diameters = zip(*line.diameters_mm, strict=True)
        assert list(tests) == sorted(set(tests))
        assert list(diameters) == sorted(diameters)
        assert line.usual_lb in tests


def test_a_line_weighs_what_its_material_does(cat: Catalog) -> None:
    """Published densities, kg/m³: fluorocarbon sinks, nylon hardly, polyethylene braid floats."""
    assert {k: v.density_kg_m3 for k, v in cat.lines.items()} == {
        "fluorocarbon": 1780.0,
        "nylon": 1140.0,
        "braid": 970.0,
    }
    assert {k: cat.materials[k].density_g_cm3 for k in ("lead", "tungsten")} == {
        "lead": 11.0,
        "tungsten": 17.5,
    }
