"""The shipped catalogue loads; a slip of the pen anywhere in it is refused with file and key."""

from __future__ import annotations

import shutil
from importlib import resources
from pathlib import Path

import pytest

from heathdrop.catalog import BadCatalog, Catalog, read_catalog
from heathdrop.errors import BadInput

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
    ("usual", "swim-jig = { by", "swimjig = { by", "usual.toml, families.swim-jig: there is no such name"),
    ("fitted", "[points]", "[points]\nno-rule = { swim-jig = 0.1 }",
     "fitted.toml, points.no-rule: there is no such name"),
    ("rules", 'finish = { colour = "black and blue" }', 'finish = { colr = "black and blue" }',
     "rules.toml, rules.black-and-blue.finish.colr: there is no such name"),
    ("rules", "when = { fish_depth_ft = [10, 60]", "when = { fish_depth_ft = [60, 10]",
     "rules.toml, rules.blade-rises.when.fish_depth_ft: it must be two numbers, the lower first"),
    ("rules", "when = { temp_f = [32, 55] }", "when = { temp_f = 32 }",
     "rules.toml, rules.soft-in-the-cold.when.temp_f: it must be a list"),
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
    ("families", 'usual_trailer = "paddle-tail"', 'usual_trailer = "paddletail"',
     "families.toml, families.swim-jig.usual_trailer.paddletail: there is no such name"),
    ("trailers", "appendages = 0", "appendages = \"none\"", "trailers.toml, trailers.none.appendages: "),
    ("trailers", "glide = 0.0\n", "", "trailers.toml, trailers.none.glide: it is missing"),
    ("cover", "hydrilla = { base_oz", "hydrila = { base_oz",
     "cover.toml, mats.textures.hydrilla: there is no such name"),
    ("cover", "laydown = 1.0", "laydowns = 1.0", "cover.toml, wood.kinds.laydown: there is no such name"),
    ("judgement", "weights = { depth", "weights = { deepness",
     "judgement.toml, fit.weights.deepness: there is no such name"),
    ("plastics", 'material = "salted"', 'material = "salty"',
     "plastics.toml, plastic.salted.material.salty: there is no such name"),
    ("model", 'origin = "practice"', 'origin = "hearsay"', "model.toml, provenance.count_error.origin: "),
]  # fmt: skip


def data(folder: Path) -> Path:
    with resources.as_file(resources.files("heathdrop.catalog") / "data") as shipped:
        shutil.copytree(shipped, folder / "data")
    return folder / "data"


def test_the_shipped_files_read_the_same_from_anywhere(cat: Catalog, tmp_path: Path) -> None:
    assert read_catalog(data(tmp_path)) == cat


@pytest.mark.parametrize(("file", "right", "wrong", "said"), FAULTS)
def test_a_slip_is_refused_with_file_and_key(
    tmp_path: Path, file: str, right: str, wrong: str, said: str
) -> None:
    path = data(tmp_path) / f"{file}.toml"
    text = path.read_text("utf-8")
    assert right in text
    path.write_text(text.replace(right, wrong, 1), "utf-8")
    with pytest.raises(BadCatalog) as fault:
        read_catalog(path.parent)
    assert str(fault.value).startswith(said)


def test_pick_names_the_field_and_the_choices(cat: Catalog) -> None:
    assert cat.pick(cat.skirts, "x", "full").id == "full"
    with pytest.raises(BadInput, match="skirt was “kilt”; it must be one of full, trimmed, thin, none"):
        cat.pick(cat.skirts, "skirt", "kilt")
    assert cat.spread("lines", "diameters_mm") == 0.06


def test_every_number_of_the_judgement_has_an_origin(cat: Catalog) -> None:
    assert set(cat.provenance["judgement"]) == set(vars(cat.judgement))
