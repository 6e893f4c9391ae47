"""What the log teaches: whiskers on one scale, sentences, and what can be done about them."""

from __future__ import annotations

from dataclasses import replace

from heathdrop.answers.lessons import Lessons
from heathdrop.answers.shifts import Shift
from heathdrop.answers.trials import Trial
from heathdrop.learning.rates import Effort, rates_of
from heathdrop.store.fish import AgreedShift
from heathdrop.web.log.taught import WIDTH, Held, _whisker, first_of, looks_of, sayings_of, traits_of


def lessons(**more: object) -> Lessons:
    rows = [
        Effort("head", "1/4 oz", 30, 2.0, 6),
        Effort("head", "1/2 oz", 30, 2.0, 1),
        Effort("light", "low", 60, 4.0, 7),
    ]
    found: dict[str, object] = {"like_today": (), "rates": tuple(rates_of(rows)), "schools": (), "own": ()}
    return Lessons(60, 7, **{**found, **more})  # type: ignore[arg-type]


def test_whiskers_lie_on_one_scale() -> None:
    (look,) = looks_of(lessons())  # a category of one bin compares nothing
    assert look.name == "head"
    assert all(0.0 <= r.low < r.dot < r.high <= WIDTH + 1e-9 for r in look.rows)
    rate = replace(lessons().rates[0], per_hour=1.25, low=0.8, high=2.04)
    said = [_whisker(replace(rate, enough=enough), 10.0).said for enough in (False, True)]
    assert said == ["too few yet", "1.2 an hour, 0.8 to 2.0"]


def test_three_things_are_said_first() -> None:
    """What differs with its plain counts, what does not yet, what is too little known to tell."""
    rows = [
        Effort("head", "1/4 oz", 300, 20.0, 60),
        Effort("head", "1/2 oz", 300, 20.0, 6),
        Effort("light", "low", 300, 20.0, 33),
        Effort("light", "bright", 300, 20.0, 33),
        Effort("trailer", "craw", 300, 20.0, 60),
        Effort("trailer", "pin-tail", 295, 19.5, 6),
        Effort("trailer", "chunk", 5, 0.5, 0),
    ]
    first = first_of(looks_of(lessons(rates=tuple(rates_of(rows)))))
    assert first.differs == (
        "Head 1/4 oz: 60 bites in 300 casts, 20 in 100, more than the rest of your log",
        "Head 1/2 oz: 6 bites in 300 casts, 2 in 100, fewer than the rest of your log",
        "Trailer craw: 60 bites in 300 casts, 20 in 100, more than the rest of your log",
        "Trailer pin-tail: 6 bites in 295 casts, 2 in 100, fewer than the rest of your log",
    )
    assert (first.same, first.more) == (
        ("light",),
        "trailer chunk (no bite in 5 casts) and light low (33 bites in 300 casts, 11 in 100)",
    )


def test_only_what_is_known_is_said() -> None:
    assert sayings_of(lessons(), {}, {}) == []
    few = Trial("weight-lean", "lighter", 0.4, "too few", 9)
    much = Trial("weight-lean", "lighter", 4.0, "strongly for it", 150)
    known, unknown = Shift("pace", 0.8, 0.7, 0.95, 90, told=True), Shift("head weight", 1.1, 1.02, 1.3, 90)
    found = lessons(schools=(few, much), own=(known, unknown))
    assert [(s.text, s.button, s.about) for s in sayings_of(found, {}, {})] == [
        (
            "A step of weight, “a step lighter”: your log strongly for it (150 casts).",
            "Hold to it",
            "weight-lean/lighter",
        ),
        (
            "Your fish, pace: 20 % slower than the tables have it (90 casts). "
            "Nothing is changed by that until you use it.",
            "Use it",
            "pace",
        ),
    ]
    agreed = sayings_of(found, {"pace": AgreedShift(value=0.8, casts=90)}, {"weight-lean": "lighter"})
    assert [(s.text[-40:], s.button, s.used) for s in agreed] == [
        ("log strongly for it (150 casts). You hold to it."[-40:], "", False),
        ("slower than the tables have it (90 casts)."[-40:], "Back to the tables", True),
    ]
    empty = Shift("empty stops", 0.71, 0.6, 0.8, 300, told=True, unit="share", table=0.5)
    colder = Shift("mood in cold water", -0.6, -1.0, -0.2, 300, told=True, unit="steps", table=0.0)
    assert [s.text.split(" Nothing")[0] for s in sayings_of(lessons(own=(empty, colder)), {}, {})] == [
        "Your fish, empty stops: 71 % instead of 50 %, more of them (300 casts).",
        "Your fish, mood in cold water: 0.6 steps lazier than the tables have it (300 casts).",
    ]
    used = {"the same cast again": AgreedShift(value=0.6, casts=200)}
    assert [s.text for s in sayings_of(lessons(), used, {})] == [
        "In use: the same cast again 60 % instead of 75 %, they tire sooner (200 casts)."
    ]
    against = Trial("weight-lean", "lighter", -4.0, "strongly against it", 150)
    assert sayings_of(lessons(schools=(against,)), {}, {})[0].button == ""


def test_every_trait_stands_beside_its_table_told_or_not() -> None:
    own = (
        Shift("pace", 0.86, 0.7, 1.05, 90),
        Shift("mood in cold water", -0.62, -1.1, 0.02, 60, unit="steps", table=0.0),
        Shift("empty stops", 0.31, 0.2, 0.44, 300, told=True, unit="share", table=0.5),
    )
    assert traits_of(lessons(own=own)) == [
        Held("pace", "× 1.00", "× 0.86", "0.70 to 1.05", 90),
        Held("mood in cold water", "0 steps", "-0.6 steps", "-1.1 to 0", 60),
        Held("empty stops", "50 %", "31 %", "20 to 44", 300),
    ]
    assert traits_of(lessons()) == []
