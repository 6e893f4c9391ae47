"""A day typed in one line: what is taken, what is left over, what is refused."""

from __future__ import annotations

from datetime import date, timedelta

import pytest

from heathdrop.answers.lessons import UNCOUNTED
from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.store.files.dayline import TYPED, line_of, typed_day, typed_parts

ON = date(2026, 4, 11)


@pytest.mark.parametrize(
    ("line", "came", "casts", "rig", "stop", "hour", "degrees", "note"),
    [
        (
            "three fish, swim jig 3/8 craw, Mill bay, morning, 61F",
            ("fish",) * 3,
            None,
            ("swim-jig", 0.375, "craw"),
            "Mill bay",
            "08:00",
            61.0,
            "",
        ),
        (
            "2 fish and a short strike in 25 casts, 1/2 oz football jig with a chunk, Quarry wall, 7:30, "
            "12C, wind",
            ("fish", "fish", "short"),
            25,
            ("football-jig", 0.5, "chunk"),
            "Quarry wall",
            "07:30",
            53.6,
            "wind",
        ),
        (
            "no fish in 40 casts, 3/8 spinnerbait, paddle tail 4 in, North drain",
            (),
            40,
            ("spinnerbait", 0.375, "paddle-tail"),
            "North drain",
            "12:00",
            None,
            "",
        ),
        ("one bass on a 3/8 bladed jig with craw, dusk", ("fish",), None, ("bladed-jig", 0.375, "craw"), "",
         "20:00", None, ""),
        ("five fish, 1/4 micro jig, the 2 fish pond", ("fish",) * 5, None, ("micro-jig", 0.25, "none"),
         "the 2 fish pond", "12:00", None, ""),
        ("4 bites, spinnerbait 1/2, Point", ("bump",) * 4, None, ("spinnerbait", 0.5, "none"), "Point",
         "12:00", None, ""),
    ],
)  # fmt: skip
def test_what_is_taken(
    cat: Catalog,
    line: str,
    came: tuple[str, ...],
    casts: int | None,
    rig: tuple[str, float, str],
    stop: str,
    hour: str,
    degrees: float | None,
    note: str,
) -> None:
    day = typed_day(cat, line, ON)
    assert (day.came, day.casts, day.stop, day.note) == (came, casts, stop, note)
    assert (day.rig.family.id, day.rig.head_oz, day.rig.trailer.id) == rig
    assert (f"{day.begun:%H:%M}", day.water_temp_f) == (hour, degrees)
    assert day.begun.date() == ON


@pytest.mark.parametrize(
    ("line", "on", "said"),
    [
        ("", ON, "from 1 to 200 characters"),
        ("x" * 201, ON, "from 1 to 200 characters"),
        ("fish all day", ON, "the words of a rig"),
        ("three fish, Mill bay", ON, "the words of a rig"),
        ("swim jig 3/8 craw, Mill bay", ON, "how many"),
        ("3 fish in 2 casts, swim jig 3/8 craw", ON, "at least the 3"),
        ("no fish in 0 casts, swim jig 3/8 craw", ON, "at least 1"),
        ("90 fish, swim jig 3/8 craw", ON, "at most 50 fish"),
        ("1 fish in 400 casts, swim jig 3/8 craw", ON, "at most 50 fish and 300 casts"),
        ("1 fish, swim jig 3/8 craw, 180F", ON, "from 32 to 100"),
        ("1 fish, swim jig 3/8 craw", date.today() + timedelta(days=1), "today or before"),
    ],
)
def test_what_is_refused(cat: Catalog, line: str, on: date, said: str) -> None:
    with pytest.raises(BadInput, match=said):
        typed_day(cat, line, on)


def test_the_casts_that_are_kept(cat: Catalog) -> None:
    line = "2 fish in 5 casts, swim jig 3/8 craw, Mill bay, morning, 61F, after rain"
    made = typed_day(cat, line, ON).made(line)
    assert [c.outcome for c in made] == ["fish", "fish", "nothing", "nothing", "nothing"]
    assert made[0].trip == f"{TYPED} 2026-04-11"
    assert [c.note for c in made[:2]] == ["after rain", ""]
    assert made[0].conditions == {"water_temp_f": 61.0}
    assert [c.id for c in made] == [c.id for c in typed_day(cat, line, ON).made(line)]
    assert {c.id for c in made}.isdisjoint(c.id for c in typed_day(cat, line, ON - timedelta(1)).made(line))
    alone = "2 fish, swim jig 3/8 craw"
    assert {c.trip for c in typed_day(cat, alone, ON).made(alone)} == {UNCOUNTED}


@pytest.mark.parametrize(
    "line",
    [
        "three fish, swim jig 3/8 craw, Mill bay, morning, 61F",
        "2 fish and a short strike in 25 casts, 1/2 oz football jig with a chunk, Quarry wall, 7:30, wind",
        "no fish in 40 casts, 3/8 spinnerbait, paddle tail 4 in, North drain",
        "one bass on a 3/8 bladed jig with craw, dusk",
        "five fish, 1/4 micro jig, the 2 fish pond",
        "2 fish in 9 casts, 3/4 tungsten football jig, beaver, Dam, windy",
        "1 bump, 5/16 weighted soft plastic creature, Bay, 12C",
    ],
)
def test_a_line_said_again_means_the_same(cat: Catalog, line: str) -> None:
    """From its casts alone, as the form offers it to be said otherwise."""
    day = typed_day(cat, line, ON)
    (part,) = typed_parts(day.made(line))
    assert typed_day(cat, line_of(cat, part), ON) == day


def test_lines_of_a_day_are_told_apart_by_stop_and_rig_and_other_casts_are_none(cat: Catalog) -> None:
    lines = ["2 fish, 3/8 swim jig craw, Bay", "1 fish, 3/8 swim jig craw, Dam", "3 fish, 1/4 micro jig, Bay"]
    made = [c for line in lines for c in typed_day(cat, line, ON).made(line)]
    assert [len(part) for part in typed_parts(made)] == [2, 1, 3]
    assert typed_parts([c.model_copy(update={"trip": "2026-04-11 Plan"}) for c in made]) == []
