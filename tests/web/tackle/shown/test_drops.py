"""The Drops page of a small logbook, to the letter: tries, what is now expected, lessons, times to depths."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from sqlalchemy.orm import Session

from heathdrop.catalog import Catalog
from heathdrop.learning.drops import predicted_s
from heathdrop.learning.learned import learn
from heathdrop.store import observations
from heathdrop.store.own import own_of
from heathdrop.web.tackle.shown.drops import CHECK, MOST_TIMED, counts_now, drops_of, picture_of, worth_said
from tests.golden_file import holds_to
from tests.learning.seen import drops
from tests.store.conftest import database, session  # noqa: F401
from tests.store.test_observations import DEPTH, DROP, MAT, RIG

LOGBOOK = [
    ("drop", {**RIG, "depth_ft": 10, "times_s": [5.0, 5.2]}),
    ("drop", {**RIG, "depth_ft": 15, "times_s": [7.6, 7.7, 11.0]}),
    ("drop", {**RIG, "depth_ft": 10, "times_s": [9.0, 9.1], "note": "windy"}),
    ("drop", DROP),
    ("depth", {**DEPTH, "line_material": "fluorocarbon", "test_lb": 15}),
    ("mat", MAT),
    ("mat", {**MAT, "through": True, "head_oz": 1.5}),
]


def test_a_logbook_as_it_is_shown(cat: Catalog, session: Session) -> None:  # noqa: F811
    made = [observations.add(session, observations.checked(cat, kind, data)) for kind, data in LOGBOOK]
    observations.withdraw(session, made[3].id)
    shown = drops_of(cat, observations.listed(session, with_withdrawn=True), own_of(session).learned)
    assert [row.id for row in shown.rows] == [row.id for row in reversed(made)]
    assert [row.withdrawn for row in shown.rows] == [row is made[3] for row in reversed(made)]
    assert 1 <= len(shown.timed) <= MOST_TIMED
    whole = {
        "rows": [(r.what, r.detail, r.tries, r.predicted, r.odd) for r in shown.rows],
        "lessons": shown.lessons,
        "error": shown.error_said,
        "timed": shown.timed,
        "pictures": [(p.name, p.sentence, p.worth, round(p.middle, 1)) for p in shown.pictures],
    }
    holds_to("web.drops", whole, tolerance=1e-4)


def test_an_empty_logbook(cat: Catalog, session: Session) -> None:  # noqa: F811
    shown = drops_of(cat, [], own_of(session).learned)
    assert (shown.rows, shown.pictures, shown.lessons, shown.error_said, shown.timed) == ((), (), (), "", ())


@pytest.mark.parametrize("tries", [[5.0], [5.0, 5.2, 5.1, 5.05]])
def test_more_tries_are_worth_less_each(cat: Catalog, session: Session, tries: list[float]) -> None:  # noqa: F811
    observations.add(session, observations.checked(cat, "drop", {**RIG, "depth_ft": 10, "times_s": tries}))
    shown = drops_of(cat, observations.listed(session), own_of(session).learned)
    assert shown.pictures[0].before != shown.pictures[0].after
    assert shown.pictures[0].worth.startswith(("One more test", "Enough"))


@pytest.mark.parametrize(
    ("timed", "now", "tests", "said"),
    [
        (4.5, 4.6, 1, "You timed 4.5 s, 5.7 s was expected; 4.6 s counts now."),
        (
            4.5,
            5.0,
            1,
            "You timed 4.5 s, 5.7 s was expected; 5.0 s counts now, until 2 more tests agree: "
            "a depth a little off or a slow thumb would look the same.",
        ),
        (
            4.5,
            5.0,
            4,
            "You timed 4.5 s, 5.7 s was expected; 5.0 s counts now, until 1 more test agrees: "
            "a depth a little off or a slow thumb would look the same.",
        ),
    ],
)
def test_what_a_kept_test_came_to(timed: float, now: float, tests: int, said: str) -> None:
    assert counts_now(timed, 5.7, now, tests) == said


def test_one_band_on_one_page(cat: Catalog) -> None:
    """The sentence of what is known and the one of what another test is worth start from one figure."""
    test = drops(cat)[0]
    worth = re.search(r"would make ±(\d+) % about ±(\d+) %", worth_said(cat, [], test, 0.2))
    assert worth
    assert worth[1] == "20"
    assert int(worth[2]) < 20
    shown = picture_of(cat, learn(cat, [test]), test, "craw", [test])
    assert re.search(r"would make ±\d+ % about ±\d+ %|All at one depth so far", shown.worth)


def test_drops_at_one_depth_are_not_enough(cat: Catalog) -> None:
    """Twelve even tests: at one depth another depth is asked for; at two they are enough, and the depth check
    is offered for what they do not narrow."""
    test = drops(cat)[0]
    same = [replace(test, times_s=(test.times_s[0],) * 3)] * 12
    assert re.match(r"One more test, in \d+ ft|All at one depth so far", worth_said(cat, same, test, 0.1))
    seconds = predicted_s(cat, replace(test, depth_m=2.0 * test.depth_m), 1.0, 1.0, 1.0)
    deeper = replace(test, depth_m=2.0 * test.depth_m, times_s=(seconds,) * 3)
    apart = worth_said(cat, same + [deeper] * 12, test, 0.1)
    assert apart.startswith(
        ("One more test, in ", "Enough: more drops would hardly narrow the fall. " + CHECK)
    )
