"""At a stop: what to throw next with the rods as tied, what a rod is worth to it, casts looked at again."""

from dataclasses import replace

import pytest

from heathdrop.answers.deck import OnRod, next_up
from heathdrop.answers.last_time import days_like
from heathdrop.answers.own import STRANGER
from heathdrop.answers.plan import plan_day
from heathdrop.answers.rods_to_hand import CastTold, RodsToHand
from heathdrop.answers.stop import (
    Rod,
    Stop,
    parts_of,
    suited,
    worth_at,
    worths_of,
)
from heathdrop.answers.thrown import rig_of
from heathdrop.answers.water import first_belief, placed
from heathdrop.api.planning import rig_written
from heathdrop.catalog import Catalog, load
from heathdrop.conditions.gear import Line, Reel
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.outcome import ROWS
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig import rig_by_name
from heathdrop.physics.rig_name import RigName, name_of
from heathdrop.units import feet
from tests.answers.logged import WATER, cast
from tests.waters import BAIT, GRASS, WINTER_ROCK

DAY = Scenario(GRASS)


WRONG = {row.id: row.wrong for row in ROWS if row.wrong}


def tied(cat: Catalog, name: str, family: str, oz: float, trailer: str, line: Line = Line()) -> OnRod:  # noqa: B008
    return OnRod(Rod(name, line, Reel()), rig_by_name(cat, family, oz, trailer))


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


@pytest.mark.parametrize("outcome", ["fish", "bump", "short", "nothing"])
def test_the_rod_that_was_picked_is_thrown_whatever_bit_on_another(cat: Catalog, outcome: str) -> None:
    rods = [tied(cat, "A", "swim-jig", 0.375, "craw"), tied(cat, "B", "bladed-jig", 0.5, "paddle-tail")]
    told = [CastTold(rods[0].rig, 3.0, 2.0, outcome, None)]
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
    fouled = [CastTold(rods[0].rig, 3.0, 2.0, "fouled", None)] * 2
    for told in ([], fouled):
        found = next_up(DAY, STRANGER, rods, told).search
        assert [s.next.cast.rig for s in found.each] == names
        assert all(s.next.cast.sized for s in found.each) or told
    assert {s.next.cast.rig for s in found.steps} == {names[1]}
    assert next_up(DAY, STRANGER, rods, fouled, only=rods[0]).search.each == ()


def test_what_is_in_the_hand_counts_as_a_rod(cat: Catalog) -> None:
    rods = [tied(cat, "A", "swim-jig", 0.375, "craw")]
    other = rig_by_name(cat, "underspin", 0.375, "paddle-tail")
    found = next_up(DAY, STRANGER, rods, [CastTold(other, 3.0, 2.0, "nothing", None)])
    assert [r.rod.name for r in found.rods] == ["", "A"]
    assert len(next_up(DAY, STRANGER, rods, [CastTold(rods[0].rig, 3.0, 2.0, "nothing", None)]).rods) == 1
    alone = next_up(DAY, STRANGER, rods, [CastTold(other, 3.0, 2.0, "nothing", None)], only=rods[0])
    assert alone.rods == (rods[0],)


@pytest.mark.parametrize(("outcome", "symptom"), [*WRONG.items(), ("nothing", ""), ("bump", "")])
def test_the_smallest_change_after_a_fault(cat: Catalog, outcome: str, symptom: str) -> None:
    rods = [tied(cat, "A", "swim-jig", 0.375, "craw")]
    mend = next_up(DAY, STRANGER, rods, [CastTold(rods[0].rig, 2.0, 2.2, outcome, None)]).mend
    if not symptom:
        assert mend is None
        return
    assert mend is not None
    assert mend.symptom == symptom
    assert mend.change
    assert mend.effect


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


def test_the_day_most_like_this_one_comes_first_and_says_what_was_alike() -> None:
    cold = {**WATER, "water_temp_f": 41, "season": "winter", "cover": {"kind": "rock"}}
    near = {**WATER, "water_temp_f": 60}
    made = [
        cast(0, "fish"),
        cast(1, family="bladed-jig"),
        cast(3000, "fish", conditions=near, stop="Point"),
        cast(6000, "fish", conditions=cold, stop="Dam"),
    ]
    first, second = days_like(made, Scenario(replace(GRASS, season="fall"), families=("swim-jig",)))
    assert (first.stop, first.bites, first.casts) == ("Bay", 1, 2)
    assert first.bit == ("3/8 oz swim jig, craw 4 in, count 2",)
    assert first.in_vain == ("3/8 oz bladed jig, craw 4 in",)
    assert "temperature 58 °F" in first.alike
    assert second.stop == "Point"
    assert second.distance > first.distance
    assert days_like([], Scenario(GRASS)) == []


def test_what_bit_most_can_be_taken_with_its_length_and_setting() -> None:
    """The rig and count bitten most, the latest of equals; nothing where nothing bit."""
    short = {"trailer_length_in": 3.0, "countdown_s": 4.0, "pace_ft_s": 1.8}
    made = [cast(0, "fish"), cast(1, "fish", **short), cast(2, "fish", **short), cast(3)]
    (day,) = days_like(made, Scenario(GRASS))
    assert day.take is not None
    name, count, pace = day.take
    assert (name.trailer, name.length_in, count, pace) == ("craw", 3.0, 4.0, 1.8)
    worn = {"skirt": "trimmed", "orientation": "vertical", "head_material": "tungsten"}
    (dressed,) = days_like([cast(0, "fish"), *(cast(k, "fish", **worn) for k in (1, 2))], Scenario(GRASS))
    assert dressed.take is not None
    assert dressed.take[0].text() == "swim-jig:0.375:craw:material=tungsten:skirt=trimmed:turned=vertical"
    assert dressed.bit == tuple(f"3/8 oz {m}swim jig, craw 4 in, count 2" for m in ("", "tungsten "))
    (last,) = days_like([cast(0, "fish", **short), cast(1, "fish")], Scenario(GRASS))
    assert last.take is not None
    assert (last.take[0].length_in, last.take[1]) == (0.0, 2.0)
    assert days_like([cast(0)], Scenario(GRASS))[0].take is None


SUMMER = Conditions(water_temp_f=66, bottom_depth_ft=9, fish_depth_ft=6, clarity_ft=3, season="summer")


def bench_of(c: Conditions) -> RodsToHand:
    scenario = Scenario(c, families=())
    return RodsToHand(scenario, STRANGER, first_belief(scenario))


def test_fouling_is_learned_and_two_of_three_tire_a_rig(cat: Catalog) -> None:
    jig = rig_by_name(cat, "swim-jig", 0.375, "craw")
    clear, told = bench_of(SUMMER), bench_of(SUMMER)
    clear.learn((), [jig])
    told.learn([CastTold(jig, 2.0, 2.0, "fouled"), CastTold(jig, 2.0, 2.0, "fouled")], [jig])
    odds = clear.rated(clear.key(jig)).cover
    before = 1.0 - (1.0 - odds.fouls) * (1.0 - odds.hangs)
    assert clear.cut(jig) == pytest.approx(1.0 - 0.5 * before)
    assert told.cut(jig) == pytest.approx(1.0 - 0.5 * (4.0 * before + 2.0) / 6.0)
    assert not clear.fouls(clear.key(jig))
    assert told.fouls(told.key(jig))
    assert told.suit(jig) == pytest.approx(0.3 * clear.suit(jig))


def test_a_swum_rig_has_its_counts_and_paces_and_a_way_that_is_none_is_refused(cat: Catalog) -> None:
    bench, jig = bench_of(SUMMER), rig_by_name(cat, "swim-jig", 0.375, "craw")
    casts = bench.casts(jig)
    assert len({c.pace_ft_s for c in casts}) >= 2
    assert {c.count_s for c in casts} >= {0.0}
    assert all(c.seconds.sum() >= 0.0 and c.minutes > 0.0 for c in casts)
    with pytest.raises(BadInput, match=r"casts\.cadence"):
        bench.cast(jig, 2.0, 2.0, "dance")
    bench.shift(CastTold(jig, 2.0, 2.0, "ran-high"))
    high = bench.cast(jig, 2.0, 2.0)
    assert high.depth_at(10.0) < bench_of(SUMMER).cast(jig, 2.0, 2.0).depth_at(10.0)


UNKNOWN = Scenario(replace(BAIT, fish_span_ft=(0.0, 30.0)))


def test_thirds_that_one_lure_passes_together_are_one_part(cat: Catalog) -> None:
    narrow = Scenario(replace(BAIT, fish_depth_ft=15.0, fish_span_ft=(13.0, 17.0)))
    (part,) = parts_of(narrow)
    assert part.scenario == placed(narrow)
    assert (part.top_ft, part.low_ft) == (13.0, 17.0)
    wide = [p.scenario.conditions.fish_depth_ft for p in parts_of(UNKNOWN)]
    reach = cat.search.reach
    assert min(b - a for a, b in zip(wide, wide[1:], strict=False)) >= reach.above_ft + reach.below_ft


@pytest.mark.slow
def test_a_floor_rig_is_worth_most_to_the_fish_near_the_floor(cat: Catalog) -> None:
    stop = Stop("", Scenario(replace(WINTER_ROCK, fish_span_ft=(0.0, WINTER_ROCK.bottom_depth_ft))))
    jig = rig_by_name(cat, "football-jig", 0.75, "twin-tail")
    top, middle, low = worths_of(stop, [jig], suited(jig, Reel()), STRANGER)[0]
    assert top < middle < low
    assert low > 1.4 * top
    assert worth_at(stop, jig, suited(jig, Reel()), STRANGER) == pytest.approx((top + middle + low) / 3)


def test_the_record_of_a_cast_keeps_what_was_on_the_line_whole() -> None:
    """A weighed, measured, fused or dense rig is the same rig after its cast."""
    text = "swim-jig:0.375:craw:shape=football:softness=dense:fused=yes:head_g=11.2:trailer_g=9.5:width=1.2"
    rig = RigName.parse(text).rig(load())
    kept = cast(0, **rig_written(rig).model_dump())
    assert name_of(rig_of(MadeCast.model_validate(kept.model_dump(mode="json")))).text() == text
