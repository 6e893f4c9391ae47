"""A year in sight: counted by hand over a few casts, prey from notes first, what is worn, idle and missed."""

from __future__ import annotations

import pytest

from heathdrop.answers.lessons import UNCOUNTED
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.year import NEARLY, PREY, Piece, missed_of, prey_of, year_of
from heathdrop.conditions.scenario import BY_FIELD
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
from tests.answers.logged import WATER, cast

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
    assert year.worn == ()


def test_trailers_wear_out_by_their_casts_or_their_fish() -> None:
    blanks = [cast(k) for k in range(299)]
    (worn,) = year_of("2027", blanks, [CRAW, CHUNK]).worn
    assert (worn.piece, worn.used) == (CRAW, pytest.approx(299 / 150))
    fish = [cast(k, "fish") for k in range(12)]
    (worn,) = year_of("2027", fish, [CRAW]).worn
    assert worn.used == pytest.approx(12 / 5)
    assert year_of("2027", fish, [Piece("trailer", "craw", 4.0, 9)]).worn == ()
    # Twelve fish are 2.4 trailers: of three that is not all, of two it is.
    assert year_of("2027", fish, [Piece("trailer", "craw", 4.0, 3)]).worn == ()
    assert len(year_of("2027", fish, [Piece("trailer", "craw", 4.0, 2)]).worn) == 1
    assert year_of("2027", fish, [Piece("trailer", "craw", 3.0, 1)]).worn == ()


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


def test_a_rig_that_two_waters_wanted_is_named_once() -> None:
    near = {**MATTED, "wind_mph": 6}
    made = [
        *(cast(k, conditions=MATTED, stop="Mats") for k in range(4)),
        *(cast(30 + k, conditions=near, stop="Pocket") for k in range(3)),
    ]
    own = Own(tackle=tackle_of([OwnedHead("underspin", 0.25)], [OwnedTrailer("pin-tail", 4.0)]))
    (missed,) = missed_of(made, own)
    assert (missed.stops, missed.casts) == (("Mats", "Pocket"), 7)
