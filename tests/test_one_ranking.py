"""One ranking: page, JSON, Water table and command line say the same first rig with the same figures."""

from __future__ import annotations

import json
import random
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner

from bench.steady import random_water, scenario_of
from heathdrop.answers.own import Own
from heathdrop.answers.water import call_of, family_called, size_water
from heathdrop.cli import app
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of


@pytest.mark.slow
@pytest.mark.long
def test_every_door_gives_the_same_first_rig(tmp_path: Path) -> None:
    rng, runner = random.Random(41), CliRunner()
    for k in range(40):
        body: dict[str, Any] = {**random_water(rng), "limit": 20}
        scenario = scenario_of(body)
        rows = size_water(scenario).rows
        first = rows[0]
        family = family_called(scenario)
        page = size_water(replace(scenario, families=(family,))).rows[0]
        assert first.rated.rig.family.id == family
        assert (first.rated.key, first.rated.fits, first.rated.tuned) == (
            page.rated.key,
            page.rated.fits,
            page.rated.tuned,
        )
        assert first.band == page.band
        shown = [(s.family.id, s.best.key, s.fit) for s in call_of(scenario, places=5).standings]
        families = list(dict.fromkeys(r.rated.rig.family.id for r in rows))
        assert families == [f for f, _, _ in shown[:4]]
        assert max(sum(r.rated.rig.family.id == f for r in rows) for f in families) <= 5
        if k % 8 == 0:
            whole = [(s.family.id, s.best.key, s.fit) for s in call_of(scenario).standings]
            assert shown == whole[:5]
            case = tmp_path / f"{k}.json"
            case.write_text(json.dumps(body), "utf-8")
            done = runner.invoke(app, ["size", str(case), "--data", str(tmp_path / "d.sqlite")])
            assert done.exit_code == 0
            said = json.loads(done.stdout)["rigs"][0]
            assert (said["name"], said["score"]) == (page.rated.key, round(page.rated.fits.score, 3))


def test_a_small_limit_still_shows_the_families_called() -> None:
    scenario = scenario_of(random_water(random.Random(5)))
    for limit, families in ((1, 1), (3, 3), (4, 4), (8, 4)):
        rows = size_water(scenario, limit=limit).rows
        assert len(rows) == limit
        assert len({r.rated.rig.family.id for r in rows}) == families


def test_what_is_owned_goes_first_within_the_noise() -> None:
    """The same water from the standard set and a box: an owned rig as good as the best is the first."""
    scenario = replace(scenario_of(random_water(random.Random(5))), families=("swim-jig",))
    standard = size_water(scenario).rows
    near = [r.rated for r in standard if r.rated.fits.score >= standard[0].rated.fits.score - 0.015]
    own = near[-1].rig
    tackle = tackle_of(
        [OwnedHead("swim-jig", own.head_oz)], [OwnedTrailer(own.trailer.id, own.trailer_length_in)]
    )
    both = size_water(replace(scenario, box="both"), Own(tackle=tackle)).rows[0].rated.rig
    assert (both.head_oz, both.trailer.id) == (own.head_oz, own.trailer.id)
