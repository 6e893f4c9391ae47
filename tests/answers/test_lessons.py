"""What a log teaches: lessons, one's own fish and schools on logs of known truth, a year in sight."""

import math
import random

import numpy as np
import pytest

from heathdrop.answers.lessons import UNCOUNTED, efforts_of, fit_bin, lessons_of, minutes_of
from heathdrop.answers.lessons import _clumped as clumped_of
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.shifts import DOUBT, Shift, _likely, _shift, shifts_of, tabled, visits_of
from heathdrop.answers.thrown import Run, rig_of, run_of
from heathdrop.answers.trials import setting_at, water_of_cast
from heathdrop.answers.year import NEARLY, PREY, Piece, missed_of, prey_of, year_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.scenario import BY_FIELD
from heathdrop.learning.rates import clumped
from heathdrop.learning.visits import Likely
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
from heathdrop.sizing.knowledge import TRAIT
from heathdrop.sizing.size import rated_at
from tests.answers.logged import HEADS, WATER, cast, fished


def test_efforts_are_counted_in_every_way_that_is_known() -> None:
    made = [cast(0, "fish"), cast(1), cast(2, conditions=None, work="twitch")]
    found = {(e.by, e.bin): (e.casts, e.bites) for e in efforts_of(made, minutes_of(made))}
    assert found["temperature", "55 to 60 °F"] == (2, 1)
    assert found["visibility", "4 to 8 ft"] == (2, 1)
    assert found["cover", "submerged grass"] == (2, 1)
    assert found["head", "3/8 oz"] == (3, 1)
    assert found["working", "twitch"] == (1, 0)
    assert found["hour", "6 to 9 h"] == (3, 1)


def test_the_fit_of_a_cast_is_the_sheets_at_its_count_and_pace() -> None:
    made = [cast(k, "fish" if k % 3 else "nothing", countdown_s=2.0) for k in range(30)]
    run, setting = run_of(made[0]), setting_at(water_of_cast(made[0]))  # type: ignore[arg-type]
    sheet = rated_at(setting, rig_of(made[0]), 2.0, made[0].pace_ft_s)
    assert run is not None
    assert run.fit == pytest.approx(100.0 * sheet.fits.score)
    edges = [fit_bin(cast(0), Run(4.0, 9.0, fit=fit)) for fit in (89.6, 89.4, 69.4)]
    assert (edges, fit_bin(cast(0), None)) == (["90 and more", "80 to 89", "0 to 69"], "")
    (rate,) = lessons_of(made).fit
    assert (rate.effort.bin, rate.effort.casts, rate.effort.bites) == (fit_bin(made[0], run), 30, 20)


def test_how_bites_clump_is_asked_by_day_and_stop() -> None:
    """Three places: the bay on two days, the point on one of them, each with its hours and bites."""
    made = [cast(0, "fish"), cast(1, "fish"), cast(2), cast(3, stop="Point"), cast(1500)]
    assert clumped_of(made, [30.0, 30.0, 60.0, 90.0, 60.0]) == clumped([2.0, 1.5, 1.0], [2, 0, 0])


LIKINGS = ("head weight", "pace", "fall rate")


def shifts(made: list[MadeCast]) -> dict[str, Shift]:
    """The shifts of a log by what they are of."""
    return {s.what: s for s in shifts_of(made, minutes_of(made), [run_of(c) for c in made], 400)}


@pytest.mark.slow
def test_ones_own_fish_shift_only_where_they_do() -> None:
    rng, held, claims = random.Random(5), 0, 0
    middle = 0.375
    for _ in range(40):
        heads = shifts(fished(rng, 200, middle * 0.7, HEADS))["head weight"]
        held += heads.high < 1.05
        same = shifts(fished(rng, 200, 0.42, HEADS))["head weight"]
        claims += same.low > 1.15 or same.high < 0.85
    assert held >= 30
    assert claims <= 2


@pytest.mark.slow
def test_fish_that_do_not_mind_want_no_shift() -> None:
    """Bites regardless of the head, whatever heads were thrown: no other weight is said to be wanted."""
    rng, told = random.Random(8), 0
    for _ in range(30):
        made = [
            cast(k, "fish" if rng.random() < 0.3 else "nothing", head_oz=rng.choice(HEADS))
            for k in range(150)
        ]
        told += any(s.sure for what, s in shifts(made).items() if what in LIKINGS)
    assert told <= 1


def test_visits_are_the_stops_of_days(cat: Catalog) -> None:
    """Casts of a stop on a day are one visit; the same cast again is less fresh by the lane."""
    made = [cast(k) for k in range(20)] + [cast(5000 + k, "fish", stop="Point") for k in range(3)]
    found, spoke = visits_of(made, [run_of(c) for c in made])
    assert [len(v.bites) for v in found] == [20, 3]
    assert [v.bites.sum() for v in found] == [0.0, 3.0]
    assert found[0].before.tolist() == sorted(found[0].before.tolist())
    assert found[0].before[-1] >= 2.0
    assert (spoke["bites"], spoke["cold"] + spoke["warm"]) == (23, 23)
    assert np.all(found[0].expected > 0.0)
    assert visits_of(made, [None] * len(made)) == ([], dict.fromkeys(spoke, 0))
    assert tabled("empty stops") == cat.search.place.absent
    assert (tabled("pace"), tabled("mood in cold water")) == (1.0, 0.0)


SWIM, PUNCH = Piece("head", "swim-jig", 0.375, 3), Piece("head", "punch-rig", 1.25, 1)


CRAW, CHUNK = Piece("trailer", "craw", 4.0, 1), Piece("trailer", "chunk", 3.0, 6)


MATTED = {
    **WATER,
    "water_temp_f": 80,
    "cover": {"kind": "matted-grass", "thickness_in": 4},
    "season": "summer",
}


def test_a_year_counted_by_hand() -> None:
    made = [
        cast(0, "fish", fish={"length_in": 15.5}),
        cast(1, "bump"),
        cast(2, "hung"),
        cast(3, "hung"),
        cast(60 * 24 * 40, "fish", stop="Point", conditions={**WATER, "water_temp_f": 66}),
        cast(60 * 24 * 40 + 1, "fish", stop="Point", trip=UNCOUNTED),
    ]
    year = year_of("2027", made, [SWIM, PUNCH, CRAW, CHUNK])
    assert (year.days, year.casts, year.bites, year.fish, year.longest_in) == (2, 5, 4, 3, 15.5)
    assert year.hours == pytest.approx(5 * 1.0 / 60.0)
    assert [(m.number, m.days, m.casts, m.fish, m.warm_f) for m in year.months] == [
        (4, 1, 4, 1, (58.0, 58.0)),
        (5, 1, 1, 2, (58.0, 66.0)),
    ]
    assert [(p.name, p.days, p.casts, p.fish) for p in year.places] == [("Bay", 1, 4, 1), ("Point", 1, 1, 2)]
    assert year.lost == (("3/8 oz swim jig", 2, pytest.approx(0.4)),)
    assert [p.said for p in year.idle] == ["1 1/4 oz punch rig", "chunk 3 in"]
    assert year.trailers_worn == ()


def test_trailers_wear_out_by_their_casts_or_their_fish() -> None:
    blanks = [cast(k) for k in range(299)]
    (worn,) = year_of("2027", blanks, [CRAW, CHUNK]).trailers_worn
    assert (worn.piece, worn.used) == (CRAW, pytest.approx(299 / 150))
    fish = [cast(k, "fish") for k in range(12)]
    (worn,) = year_of("2027", fish, [CRAW]).trailers_worn
    assert worn.used == pytest.approx(12 / 5)
    assert year_of("2027", fish, [Piece("trailer", "craw", 4.0, 9)]).trailers_worn == ()
    # Twelve fish are 2.4 trailers: of three that is not all, of two it is.
    assert year_of("2027", fish, [Piece("trailer", "craw", 4.0, 3)]).trailers_worn == ()
    assert len(year_of("2027", fish, [Piece("trailer", "craw", 4.0, 2)]).trailers_worn) == 1
    assert year_of("2027", fish, [Piece("trailer", "craw", 3.0, 1)]).trailers_worn == ()


def test_prey_is_what_notes_name_before_what_the_water_was_set_to() -> None:
    bluegill = {**WATER, "forage": "bluegill"}
    assert prey_of([cast(0), cast(1, conditions=bluegill)]) == (("bluegill",), False)
    noted = [
        cast(0, conditions=bluegill, note="Shad flicking on top"),
        cast(1, note="spat up a crawdad"),
        cast(2, stop="Point", note="shad again"),
        cast(3, note="screws loose on the baitcaster"),
    ]
    assert prey_of(noted) == (("baitfish", "crawfish"), True)
    assert prey_of([]) == ((), False)
    assert set(PREY) == set(BY_FIELD["forage"].all_words)


def test_what_the_waters_wanted_and_the_box_answers_less_well() -> None:
    made = [*(cast(k, conditions=MATTED, stop="Mats") for k in range(9)), cast(20, conditions={"light": 3})]
    head, tail = OwnedHead("underspin", 0.25), OwnedTrailer("pin-tail", 4.0)
    (missed,) = missed_of(made, Own(tackle=tackle_of([head], [tail])))
    assert (missed.stops, missed.casts) == (("Mats",), 9)
    assert "underspin" in missed.instead
    assert "underspin" not in missed.rig
    assert missed.stands < 100 * NEARLY
    assert missed_of(made, STRANGER) == []


def test_a_posterior_is_told_by_its_trait() -> None:
    """Factors as their logs, steps and shares as they are; told only where the other sign is unlikely."""
    grid = np.linspace(-1.0, 1.0, 41)
    slower = _likely(grid, -0.5 * ((grid + 0.3) / 0.08) ** 2)
    found = _shift(TRAIT["pace"], slower, 90)
    assert (found.unit, found.table, found.casts) == ("factor", 1.0, 90)
    assert found.value == pytest.approx(math.exp(-0.3), rel=1e-3)
    assert found.low < found.value < found.high < 1.0
    assert found.sure
    unsure = _shift(TRAIT["mood in cold water"], _likely(grid, -0.5 * ((grid - 0.3) / 0.3) ** 2), 90)
    assert (unsure.unit, unsure.table, unsure.sure) == ("steps", 0.0, False)
    assert slower.below(0.0) > 1.0 - DOUBT
    empty = _shift(TRAIT["empty stops"], Likely(np.array([0.1, 0.2, 0.3]), np.array([0.2, 0.6, 0.2])), 9)
    assert (empty.value, empty.table, empty.sure) == (pytest.approx(0.2), tabled("empty stops"), True)
