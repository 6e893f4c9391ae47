"""What to throw next with the rods as tied: the search on each rod's own line, the first change, cautions."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.answers.deck import OnRod, next_up
from heathdrop.answers.own import STRANGER
from heathdrop.answers.plan import plan_day
from heathdrop.answers.rods_to_hand import Told
from heathdrop.answers.stop import Rod, Stop
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Line, Reel
from heathdrop.conditions.outcome import OUTCOMES, ROWS
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.rig import rig_by_name
from heathdrop.physics.rig_name import name_of
from heathdrop.units import feet
from tests.waters import GRASS, WINTER_ROCK

DAY = Scenario(GRASS)

WRONG = {row.id: row.wrong for row in ROWS if row.wrong}


def tied(cat: Catalog, name: str, family: str, oz: float, trailer: str, line: Line = Line()) -> OnRod:  # noqa: B008
    return OnRod(Rod(name, line, Reel()), rig_by_name(cat, family, oz, trailer))


def test_what_went_wrong_is_mended_and_nothing_else() -> None:
    assert set(OUTCOMES) - set(WRONG) == {"nothing", "bump", "fish", "found-bottom"}


def test_only_rods_to_hand_are_thrown(cat: Catalog) -> None:
    rods = [tied(cat, "A", "swim-jig", 0.375, "craw"), tied(cat, "B", "bladed-jig", 0.5, "paddle-tail")]
    found = next_up(DAY, STRANGER, rods, limit=5)
    names = {name_of(r.rig).text(): r.rod.name for r in rods}
    assert [s.next.cast.rig in names for s in found.search.steps] == [True] * 5
    first = found.rod_of(found.search.steps[0].next.cast.rig)
    assert first is not None
    assert first.rod.name in ("A", "B")
    assert found.rod_of("swim-jig:1:chunk") is None
    assert found.mend is None


def test_four_casts_are_said_where_nobody_says_how_many(cat: Catalog) -> None:
    rods = [tied(cat, "A", "swim-jig", 0.375, "craw")]
    assert len(next_up(DAY, STRANGER, rods).search.steps) == 4
    assert len(next_up(DAY, STRANGER, rods, limit=2).search.steps) == 2


@pytest.mark.parametrize("outcome", ["fish", "bump", "short", "nothing"])
def test_the_rod_that_was_picked_is_thrown_whatever_bit_on_another(cat: Catalog, outcome: str) -> None:
    rods = [tied(cat, "A", "swim-jig", 0.375, "craw"), tied(cat, "B", "bladed-jig", 0.5, "paddle-tail")]
    told = [Told(rods[0].rig, 3.0, 2.0, outcome, None)]
    found = next_up(DAY, STRANGER, rods, told, only=rods[1])
    first = found.search.steps[0].next
    tied_on = found.rod_of(first.cast.rig)
    assert tied_on is not None
    assert tied_on.rod.name == "B"
    assert first.change != "same"
    again = next_up(DAY, STRANGER, rods, told, only=rods[0]).search.steps[0].next
    assert again.cast.rig == name_of(rods[0].rig).text()


def test_every_rod_has_its_own_first_cast_also_one_that_fouled(cat: Catalog) -> None:
    rods = [tied(cat, "A", "swim-jig", 0.375, "craw"), tied(cat, "B", "bladed-jig", 0.5, "paddle-tail")]
    names = [name_of(r.rig).text() for r in rods]
    fouled = [Told(rods[0].rig, 3.0, 2.0, "fouled", None)] * 2
    for told in ([], fouled):
        found = next_up(DAY, STRANGER, rods, told).search
        assert [s.next.cast.rig for s in found.each] == names
        assert all(s.next.cast.sized for s in found.each) or told
    assert {s.next.cast.rig for s in found.steps} == {names[1]}
    assert next_up(DAY, STRANGER, rods, fouled, only=rods[0]).search.each == ()


def test_what_is_in_the_hand_counts_as_a_rod(cat: Catalog) -> None:
    rods = [tied(cat, "A", "swim-jig", 0.375, "craw")]
    other = rig_by_name(cat, "underspin", 0.375, "paddle-tail")
    found = next_up(DAY, STRANGER, rods, [Told(other, 3.0, 2.0, "nothing", None)])
    assert [r.rod.name for r in found.rods] == ["", "A"]
    assert len(next_up(DAY, STRANGER, rods, [Told(rods[0].rig, 3.0, 2.0, "nothing", None)]).rods) == 1
    alone = next_up(DAY, STRANGER, rods, [Told(other, 3.0, 2.0, "nothing", None)], only=rods[0])
    assert alone.rods == (rods[0],)


@pytest.mark.parametrize(("outcome", "symptom"), [*WRONG.items(), ("nothing", ""), ("bump", "")])
def test_the_smallest_change_after_a_fault(cat: Catalog, outcome: str, symptom: str) -> None:
    rods = [tied(cat, "A", "swim-jig", 0.375, "craw")]
    mend = next_up(DAY, STRANGER, rods, [Told(rods[0].rig, 2.0, 2.2, outcome, None)]).mend
    if not symptom:
        assert mend is None
        return
    assert mend is not None
    assert mend.symptom == symptom
    assert mend.change
    assert mend.effect


def test_each_rod_is_searched_on_its_own_line(cat: Catalog) -> None:
    thin = tied(cat, "A", "swim-jig", 0.375, "craw", Line(material="braid", test_lb=10))
    thick = replace(thin, rod=replace(thin.rod, line=Line(material="nylon", test_lb=25)))
    one, other = (next_up(DAY, STRANGER, [rod]).search.steps[0].next.cast for rod in (thin, thick))
    assert (one.count_s, one.pace_ft_s) != (other.count_s, other.pace_ft_s) or one.covers != other.covers


def test_cautions_of_the_water_come_along(cat: Catalog) -> None:
    rods = [tied(cat, "A", "football-jig", 0.625, "small-craw")]
    said = " ".join(next_up(Scenario(WINTER_ROCK), STRANGER, rods).cautions)
    assert "life jacket" in said
    bare = next_up(Scenario(WINTER_ROCK), STRANGER, [])
    assert bare.rods == ()
    assert bare.search.steps


def test_the_same_question_is_worked_out_once(cat: Catalog) -> None:
    rods = [tied(cat, "A", "swim-jig", 0.375, "craw")]
    told = [Told(rods[0].rig, 2.0, 2.2, "nothing")]
    found = next_up(DAY, STRANGER, rods, told, limit=1)
    again = [tied(cat, "A", "swim-jig", 0.375, "craw")]
    assert next_up(DAY, STRANGER, again, [Told(again[0].rig, 2.0, 2.2, "nothing")], limit=1) is found
    for other in (
        next_up(DAY, STRANGER, rods, [replace(told[0], count_s=2.5)], limit=1),
        next_up(DAY, STRANGER, rods, [replace(told[0], outcome="bump")], limit=1),
        next_up(DAY, STRANGER, [tied(cat, "A", "swim-jig", 0.5, "craw")], told, limit=1),
        next_up(DAY, STRANGER, rods, told, limit=2),
        next_up(DAY, STRANGER, rods, told, 1, rods[0]),
    ):
        assert other is not found


def test_a_stop_is_opened_as_the_plan_serves_it() -> None:
    """The seam of plan and deck: one rod, one count, one pace, or a sentence why not."""
    stops = [Stop("Bay", DAY), Stop("Stones", Scenario(WINTER_ROCK)), Stop("Right over", Scenario(GRASS))]
    plan = plan_day(stops, 3, closely=False)
    rods = [OnRod(t.rod, t.rig) for t in plan.rods]
    opened = 0
    for stop, planned in zip(stops, plan.stops, strict=True):
        served = planned.served
        found = next_up(stop.scenario, STRANGER, rods)
        first = found.search.steps[0].next.cast
        if first.rig != served.rated.key:
            assert found.left
            continue
        opened += 1
        assert not found.left
        assert first.sized
        assert first.count_s == pytest.approx(served.rated.countdown_s, abs=0.006)
        assert first.pace_ft_s == pytest.approx(feet(served.rated.tuned.pace_m_s), abs=0.001)
    assert opened == len(stops)
