"""The trainer's questions: made from a seed, put without their answer, marked by the product's own numbers.

A question is named by its kind, its topic and its seed, and is the same each time it is made.
"""

from __future__ import annotations

import math
import random
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from heathdrop import catalog as catalogue
from heathdrop.advice.call import CALLED, Standing
from heathdrop.advice.change import COMPLAINTS, Change, changes_for
from heathdrop.answers.water import call_of, rate_rigs, sizing_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Line as LineSet
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput, require_between
from heathdrop.physics.cast import CastResult, fly
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.rated import WAYS_TO_COVER, Rated
from heathdrop.sizing.setting import line_of, setting_of
from heathdrop.sizing.size import Sizing, rated_at
from heathdrop.sizing.ways import programme
from heathdrop.training.hand import CLASSES, LONGEST_S, SHORTEST_S, tapped
from heathdrop.training.waters import random_water
from heathdrop.units import feet, ounces_as_written

#: Seconds in which turns of the handle are kept, and how many turns a topic asks for.
TURNING_S = 10.0
TURNS = {"slow": (3, 5), "middle": (6, 9), "quick": (10, 14)}
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
#: Complaints that are asked about, and the opposite one, whose changes make wrong options.
ASKED = {
    "ran-too-high": "ran-too-low",
    "ran-too-low": "ran-too-high",
    "fouled": "",
    "hung-up": "",
    "not-felt": "",
}
#: Options of a repair, at most and at least; what a change that mends but is not the smallest is worth, and
#: another way in a call.
OPTIONS, LEAST_OPTIONS, ALSO_MENDS, OTHER_WAY = 4, 2, 0.6, 0.85
#: Seeds tried for a water in which there is something to ask.
TRIES = 40
#: The kinds of question.
KINDS = ("count", "pace", "eye", "call", "repair")
#: Seeds are whole numbers below this.
SEEDS = 10**6


@lru_cache(maxsize=1)
def topics() -> dict[str, tuple[str, ...]]:
    """The topics of each kind: lengths of a count, quickness of turns, lines, covers, complaints."""
    catalog = catalogue.load()
    return {
        "count": tuple(name for name, _ in CLASSES),
        "pace": tuple(TURNS),
        "eye": tuple(catalog.lines),
        "call": tuple(catalog.tackle.cover),
        "repair": tuple(ASKED),
    }


@dataclass(frozen=True)
class Named:
    """A question's name: kind, topic, seed."""

    kind: str
    topic: str
    seed: int

    @property
    def text(self) -> str:
        """The name as one text."""
        return f"{self.kind}.{self.topic}.{self.seed}"

    @staticmethod
    def parse(text: str) -> Named:
        """The name in a text. Raises BadInput for one that names no question."""
        kind, _, rest = text[:80].partition(".")
        topic, _, seed = rest.partition(".")
        if topic in topics().get(kind, ()) and seed.isascii() and seed.isdigit() and int(seed) < SEEDS:
            return Named(kind, topic, int(seed))
        raise BadInput("id", text[:80], "the id of a question, such as eye.nylon.12")


@dataclass(frozen=True)
class Option:
    """One thing that may be changed: what, and (told after the answer) what it does and whether it mends."""

    what: str
    effect: str
    mends: bool


@dataclass(frozen=True)
class Question:
    """What is asked. ``seconds`` and ``turns`` are the hand's, ``sizing`` and ``rated`` the water and the rig
    of the others, ``options`` a repair's."""

    named: Named
    ask: str
    seconds: float = 0.0
    turns: int = 0
    scenario: Scenario | None = None
    sizing: Sizing | None = None
    rated: Rated | None = None
    options: tuple[Option, ...] = ()
    missed_ft: float | None = None


@dataclass(frozen=True)
class Placed:
    """A rig on the board after a call: its family, head, trailer, way, its score on the sheet and its
    family's standing with it."""

    family: str
    head_oz: float
    trailer: str
    way: str
    score: float
    standing: float


@dataclass(frozen=True)
class Marking:
    """How good an answer was (0 to 1), what was right, and why. ``off`` is the error (s or ft, above 0: slow
    or too deep), ``board`` the rigs of a call (the chosen one last), ``options`` those of a repair."""

    mark: float
    said: str
    why: tuple[str, ...] = ()
    off: float | None = None
    truth: float | None = None
    board: tuple[Placed, ...] = ()
    options: tuple[Option, ...] = ()
    cast: CastResult | None = None


@lru_cache(maxsize=32)
def question_of(named: Named) -> Question:
    """The question of a name. Raises BadInput where none can be made of it."""
    return MAKERS[named.kind](named, random.Random(named.text))


def mark_of(named: Named, answer: dict[str, object]) -> Marking:
    """The marking of an answer: ``tapped_s`` for the hand, ``depth_ft`` for the eye, ``way``, ``family``,
    ``head_oz`` and ``trailer`` for a call, ``option`` (from 0) for a repair. Raises BadInput."""
    return MARKERS[named.kind](question_of(named), answer)


def _number(answer: dict[str, object], field: str, low: float, high: float, unit: str) -> float:
    value = answer.get(field)
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise BadInput(field, value, f"a number of {unit}, {low:g} to {high:g}")
    return require_between(field, float(value), low, high, unit)


def _count(named: Named, rng: random.Random) -> Question:
    ends = [SHORTEST_S, *(most for _, most in CLASSES)]
    k = [name for name, _ in CLASSES].index(named.topic)
    seconds = round(2.0 * rng.uniform(ends[k] + (0.5 if k else 0.0), ends[k + 1])) / 2.0
    return Question(named, f"Tap at the splash, count {seconds:g} s without a clock, tap again.", seconds)


def _pace(named: Named, rng: random.Random) -> Question:
    turns = rng.randint(*TURNS[named.topic])
    ask = f"Keep {turns} turns in {TURNING_S:g} s: tap as you begin, and again after the last turn."
    return Question(named, ask, TURNING_S, turns)


def _mark_hand(q: Question, answer: dict[str, object]) -> Marking:
    one = tapped(q.seconds, _number(answer, "tapped_s", 0.2, 3.0 * LONGEST_S, "s"))
    off = one.tapped_s - one.asked_s
    share = abs(one.off)
    late = "slow" if off > 0.0 else "fast"
    said = f"{one.tapped_s:.1f} s for {one.asked_s:g}: {100.0 * abs(math.expm1(one.off)):.0f} % {late}."
    return Marking(math.exp(-((share / 0.15) ** 2)), said, (), off, one.asked_s)


def _eye(named: Named, rng: random.Random) -> Question:
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
                f"{_words(rig)} on {test:g} lb {named.topic}, cast "
                f"{feet(rated.cast.distance_m):.0f} ft: count {count:g}, then reel at {pace:.1f} ft/s. "
                "How deep is it half-way home?"
            )
            return Question(named, ask, scenario=scenario, sizing=sizing, rated=rated)
    raise BadInput("id", named.text, "another seed: nothing to ask here")


def _words(rig: Rig) -> str:
    """A rig in words."""
    bare = rig.trailer.bare
    tail = "no trailer" if bare else f"{rig.trailer_length_in:g} in {rig.trailer.name.lower()}"
    return f"{ounces_as_written(rig.head_oz)} oz {rig.family.name.lower()}, {tail}"


def _played(sizing: Sizing, rated: Rated, *, pace: float = 1.0) -> CastResult:
    phases = programme("steady", pace * rated.tuned.pace_m_s, rated.countdown_s, rated.cast.distance_m)
    return fly(rated.lure, sizing.line, sizing.water, rated.cast, phases, shapes=True)


def _halfway_ft(cast: CastResult) -> float:
    return feet(cast.depth_at(0.5 * cast.cast.distance_m))


def _mark_eye(q: Question, answer: dict[str, object]) -> Marking:
    assert q.sizing is not None
    assert q.rated is not None
    bottom = q.sizing.scenario.conditions.bottom_depth_ft
    said_ft = _number(answer, "depth_ft", 0.0, bottom, "ft")
    cast = _played(q.sizing, q.rated)
    truth = _halfway_ft(cast)
    off = said_ft - truth
    half = HALF_FT + HALF_SHARE * truth
    side = "too deep" if off > 0.0 else "too high"
    said = f"It runs at {truth:.1f} ft half-way" + (
        ": as you said." if abs(off) < 0.25 else f": you were {abs(off):.1f} ft {side}."
    )
    return Marking(1.0 / (1.0 + (off / half) ** 2), said, _telling(q, truth, off), off, truth, cast=cast)


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


def _call(named: Named, rng: random.Random) -> Question:
    for _ in range(TRIES * 4):
        body = random_water(rng)
        if body["conditions"]["cover"]["kind"] == named.topic:
            scenario = SizeRequest.model_validate(body).scenario()
            return Question(named, "Which way, lure, head and trailer for this water?", scenario=scenario)
    raise BadInput("id", named.text, "another seed: nothing to ask here")


def _mark_call(q: Question, answer: dict[str, object]) -> Marking:
    assert q.scenario is not None
    catalog = catalogue.load()
    family = catalog.pick(catalog.families, "family", str(answer.get("family")))
    trailer = catalog.pick(catalog.trailers, "trailer", str(answer.get("trailer")))
    oz = _number(answer, "head_oz", family.weights_oz[0], family.weights_oz[-1], "oz")
    way = str(answer.get("way", ""))
    if way not in WAYS_TO_COVER:
        raise BadInput("way", way[:40], "one of " + ", ".join(WAYS_TO_COVER))
    board = call_of(q.scenario, places=CALLED).standings
    mine = call_of(replace(q.scenario, families=(family.id,)), places=None).standings
    stands = next(s for s in (*board, *mine) if s.family.id == family.id)
    rated = _rated(stands.sizing, family.id, oz, trailer.id)
    best = board[0]
    own = _row(stands, rated)
    noise = catalog.judgement.fit.noise
    lost = best.standing - own.standing
    mark = 1.0 if lost <= noise * max(1.0, best.standing) else max(0.0, own.standing / best.standing)
    mark *= 1.0 if way == own.way else OTHER_WAY
    said = (
        f"The sheet calls the {_words(best.best.rig)}: {100.0 * best.fit:.0f}. "
        f"Yours fits {100.0 * own.score:.0f}" + ("." if lost > noise else ", as good within the noise.")
    )
    why = [f"For the {best.family.name.lower()}: {rule.name}." for rule in best.fors[:2]]
    if stands.family.id != best.family.id:
        why += [f"Against the {stands.family.name.lower()}: {rule.name}." for rule in stands.againsts[:2]]
    if way != own.way:
        why.append(f"It goes {own.way} here, not {way}.")
    rows = (*(_row(s, s.best) for s in board), own)
    return Marking(min(1.0, mark), said, tuple(why), board=rows)


def _rated(sizing: Sizing, family: str, oz: float, trailer: str) -> Rated:
    """The rig of a head and a trailer as the sheet has it: the best of that kind on the board, or rated like
    the others."""
    for rated in sizing.rigs:
        if abs(rated.rig.head_oz - oz) < 1e-6 and rated.rig.trailer.id == trailer:
            return rated
    return rate_rigs(sizing, [RigName(family, oz, trailer).rig(catalogue.load())])[0]


def _row(standing: Standing, rated: Rated) -> Placed:
    rig = rated.rig
    whole = rated.fits.score * math.exp(standing.points)
    return Placed(
        family=rig.family.id,
        head_oz=rig.head_oz,
        trailer=rig.trailer.id,
        way=rated.way,
        score=rated.fits.score,
        standing=whole,
    )


def _repair(named: Named, rng: random.Random) -> Question:
    catalog = catalogue.load()
    for _ in range(TRIES):
        scenario = SizeRequest.model_validate(random_water(rng)).scenario()
        best = call_of(scenario, places=1).standings[0]
        sizing, rated = best.sizing, best.best
        if named.topic.startswith("ran") and rated.rig.family.work != "swim":
            continue
        missed = round(rng.uniform(1.0, 2.5), 1) if named.topic.startswith("ran") else None
        right = changes_for(catalog, sizing, rated, named.topic, missed)
        if not right or not right[0].mends:
            continue
        opposite = ASKED[named.topic]
        wrong = changes_for(catalog, sizing, rated, opposite) if opposite else ()
        options = _options(right, wrong)
        if len(options) < LEAST_OPTIONS:
            continue
        rng.shuffle(options)
        by = "" if missed is None else f" by {missed:g} ft"
        ask = (
            f"{COMPLAINTS[named.topic]}{by}: {_words(rated.rig)}. What is the smallest change that mends it?"
        )
        return Question(
            named=named,
            ask=ask,
            seconds=0.0,
            turns=0,
            scenario=scenario,
            sizing=sizing,
            rated=rated,
            options=tuple(options),
            missed_ft=missed,
        )
    raise BadInput("id", named.text, "another seed: nothing to ask here")


def _options(right: Sequence[Change], wrong: Sequence[Change]) -> list[Option]:
    """Up to four options: the smallest change that mends, others that are offered, and what mends the
    opposite."""
    found = [Option(c.what, c.effect, c.mends) for c in right[:2]]
    said = {c.what for c in right}
    for change in wrong:
        if len(found) < OPTIONS and change.what not in said:
            found.append(Option(change.what, change.effect, False))
    more = [Option(c.what, c.effect, c.mends) for c in right[2:]]
    return found + more[: OPTIONS - len(found)]


def _mark_repair(q: Question, answer: dict[str, object]) -> Marking:
    assert q.sizing is not None
    assert q.rated is not None
    chosen = q.options[int(_number(answer, "option", 0, len(q.options) - 1, "an option"))]
    right = changes_for(catalogue.load(), q.sizing, q.rated, q.named.topic, q.missed_ft)
    smallest = right[0]
    if chosen.what == smallest.what:
        mark, said = 1.0, f"Yes: {smallest.what}."
    elif chosen.mends:
        mark, said = ALSO_MENDS, f"It mends, but there is a smaller change: {smallest.what}."
    else:
        mark, said = 0.0, f"That does not mend it. Rather: {smallest.what}."
    return Marking(mark, said, (smallest.effect,), options=q.options)


MAKERS: dict[str, Callable[[Named, random.Random], Question]] = {
    "count": _count,
    "pace": _pace,
    "eye": _eye,
    "call": _call,
    "repair": _repair,
}
MARKERS: dict[str, Callable[[Question, dict[str, object]], Marking]] = {
    "count": _mark_hand,
    "pace": _mark_hand,
    "eye": _mark_eye,
    "call": _mark_call,
    "repair": _mark_repair,
}
