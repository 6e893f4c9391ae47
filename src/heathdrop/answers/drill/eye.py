"""The eye: how deep a cast runs half-way home, marked and explained by playing it."""

import math
import random
from dataclasses import replace

from heathdrop import catalog as catalogue
from heathdrop.answers.drill.question import TRIES, Marking, Named, Played, Question, number_in, rig_words
from heathdrop.answers.water import sizing_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Line as LineSet
from heathdrop.conditions.request import SizeRequest
from heathdrop.errors import BadInput
from heathdrop.physics.cast import CastResult, fly
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.cast import line_of
from heathdrop.sizing.rated import Rated
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import Sizing, rated_at
from heathdrop.sizing.ways import programme
from heathdrop.training.waters import random_water
from heathdrop.units import feet

#: Tests (lb) of the eye's lines.
TESTS_LB = (10.0, 50.0)
#: Paces of the eye's casts as shares of the rig's best.
PACED = (0.8, 0.9, 1.0, 1.15, 1.3)
#: A cast that skates along the surface half-way asks nothing, ft.
LEAST_RUN_FT = 0.7
#: An eye off by this (ft, and a share of the depth) is worth half a mark.
HALF_FT, HALF_SHARE = 0.5, 0.15
#: A thing that moves the lure by less than this (ft) explains nothing.
TELLING_FT = 0.15


def ask_eye(named: Named, rng: random.Random) -> Question:
    """A cast on a topic's line. Raises BadInput where none can be made of the seed."""
    catalog = catalogue.load()
    spools = catalog.lines[named.topic].diameters_mm
    test = rng.choice([lb for lb, _ in spools if TESTS_LB[0] <= lb <= TESTS_LB[1]])
    swum = [f.id for f in catalog.families.values() if f.work == "swim"]
    for _ in range(TRIES):
        body = random_water(rng)
        body["conditions"]["bottom_depth_ft"] = max(14.0, body["conditions"]["bottom_depth_ft"])
        body["conditions"]["cover"] = {"kind": "open"}
        body["conditions"]["fish_depth_ft"] = float(rng.randint(3, 11))
        body["gear"]["line"] = {"material": named.topic, "test_lb": test}
        family = rng.choice(swum)
        scenario = SizeRequest.model_validate({**body, "families": [family]}).scenario()
        sizing = sizing_of(scenario)
        rig = rng.choice(sizing.rigs[:12]).rig
        setting = setting_of(catalog, scenario)
        best = rated_at(setting, rig, None, None)
        count = float(max(1, round(best.countdown_s)))
        pace = round(10.0 * feet(best.tuned.pace_m_s) * rng.choice(PACED)) / 10.0
        rated = rated_at(setting, rig, count, pace)
        if LEAST_RUN_FT <= _halfway_ft(_played(sizing, rated)) <= scenario.conditions.bottom_depth_ft - 1.0:
            ask = (
                f"{rig_words(rig)} on {test:g} lb {named.topic}, cast "
                f"{feet(rated.cast.distance_m):.0f} ft: count {count:g}, then reel at {pace:.1f} ft/s. "
                "How deep is it half-way home?"
            )
            return Question(named, ask, scenario=scenario, sizing=sizing, rated=rated)
    raise BadInput("id", named.text, "another seed: nothing to ask here")


def _played(sizing: Sizing, rated: Rated, *, pace: float = 1.0) -> CastResult:
    phases = programme("steady", pace * rated.tuned.pace_m_s, rated.countdown_s, rated.cast.distance_m)
    return fly(rated.lure, sizing.line, sizing.water, rated.cast, phases, shapes=True)


def _halfway_ft(cast: CastResult) -> float:
    return feet(cast.depth_at(0.5 * cast.cast.distance_m))


def mark_eye(q: Question, answer: dict[str, object]) -> Marking:
    """Marked by the simulated cast, with why. Raises BadInput."""
    assert q.sizing is not None
    assert q.rated is not None
    bottom = q.sizing.scenario.conditions.bottom_depth_ft
    said_ft = number_in(answer, "depth_ft", 0.0, bottom, "ft")
    cast = _played(q.sizing, q.rated)
    truth = _halfway_ft(cast)
    off = said_ft - truth
    half = HALF_FT + HALF_SHARE * truth
    side = "too deep" if off > 0.0 else "too high"
    said = f"It runs at {truth:.1f} ft half-way" + (
        ": as you said." if abs(off) < 0.25 else f": you were {abs(off):.1f} ft {side}."
    )
    return Marking(
        1.0 / (1.0 + (off / half) ** 2),
        said,
        _telling(q, truth, off),
        off,
        truth,
        casts=(Played(q.sizing, q.rated, cast),),
    )


def _telling(q: Question, truth: float, off: float) -> tuple[str, ...]:
    """Why, by changing one thing and playing the cast again: what the line does, and of line, pace and
    trailer the one that moves the lure most toward where the answer was (the greatest of all where none
    does)."""
    assert q.sizing is not None
    assert q.rated is not None
    catalog, sizing, rated = catalogue.load(), q.sizing, q.rated
    rows: list[tuple[float, str]] = []
    line, rig = sizing.scenario.gear.line, rated.rig
    setting = setting_of(catalog, replace(sizing.scenario, families=(rig.family.id,)))

    def moved(said: str, cast: CastResult) -> None:
        there = _halfway_ft(cast)
        if not math.isnan(there) and abs(there - truth) >= TELLING_FT:
            how = f"{_length(abs(there - truth))} {'deeper' if there > truth else 'higher'}"
            rows.append((there - truth, said.format(how)))

    other = _unlike(catalog, line)
    phases = programme("steady", rated.tuned.pace_m_s, rated.countdown_s, rated.cast.distance_m)
    on = line_of(catalog, other)
    moved(
        f"The line: on {other.test_lb:g} lb {other.material} the same cast runs {{}} than on "
        f"{line.test_lb:g} lb {line.material}.",
        fly(rated.lure, on, sizing.water, rated.cast, phases),
    )
    moved("The pace: reeled a fifth slower it runs {}.", _played(sizing, rated, pace=0.8))
    moved("The pace: reeled a fifth quicker it runs {}.", _played(sizing, rated, pace=1.2))
    if not rig.trailer.bare:
        without = next(t.id for t in catalog.trailers.values() if t.bare)
        bare = rated_at(
            setting,
            RigName(rig.family.id, rig.head_oz, without).rig(catalog),
            rated.countdown_s,
            feet(rated.tuned.pace_m_s),
        )
        moved(f"The trailer: without the {rig.trailer.name.lower()} it runs {{}}.", _played(sizing, bare))
    toward = [row for row in rows if row[0] * off > 0.0]
    best = max(toward or rows, key=lambda row: abs(row[0]), default=None)
    said = [row[1] for row in rows[:1] if row[1].startswith("The line")]
    return tuple(dict.fromkeys([*said, *([best[1]] if best is not None else [])]))


def _unlike(catalog: Catalog, line: LineSet) -> LineSet:
    """The line of another material that differs most in weight, of the nearest test."""
    own = catalog.lines[line.material].density_kg_m3
    others = [spec for spec in catalog.lines.values() if spec.id != line.material]
    spec = max(others, key=lambda one: abs(one.density_kg_m3 - own))
    test = min((lb for lb, _ in spec.diameters_mm), key=lambda lb: abs(lb - line.test_lb))
    return LineSet(material=spec.id, test_lb=test)


def _length(off_ft: float) -> str:
    """Under a foot and a half in inches, else in feet."""
    return f"{12.0 * off_ft:.0f} in" if off_ft < 1.5 else f"{off_ft:.1f} ft"
