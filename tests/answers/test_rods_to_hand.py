"""The rods to hand: suit, what gets in, fouling learned, counts as a voice counts them."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.answers.own import STRANGER
from heathdrop.answers.rods_to_hand import Bench, Told, _count_said
from heathdrop.answers.water import first_belief
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig import rig_by_name

DAY = Conditions(water_temp_f=66, bottom_depth_ft=9, fish_depth_ft=6, clarity_ft=3, season="summer")
MAT = replace(DAY, bottom_depth_ft=5, fish_depth_ft=3, cover=Cover(kind="matted-grass", thickness_in=3))


def bench_of(c: Conditions) -> Bench:
    scenario = Scenario(c, families=())
    return Bench(scenario, STRANGER, first_belief(scenario))


def test_counts_as_a_voice_counts_them() -> None:
    assert [_count_said(s) for s in (0.2, 0.3, 3.74, 3.76, 4.4, 11.6)] == [0.0, 0.5, 3.5, 4.0, 4.0, 12.0]


def test_what_suits_and_what_gets_in(cat: Catalog) -> None:
    bench = bench_of(MAT)
    punch, blade = rig_by_name(cat, "punch-rig", 1.25, "beaver"), rig_by_name(cat, "bladed-jig", 0.5, "craw")
    bench.learn((), [punch, blade])
    assert bench.suit(punch) > 10.0 * bench.suit(blade)
    (drop,) = bench.casts(punch)
    assert drop.gets_in == bench.rated(bench.key(punch)).cover.passes > 0.8
    assert all(c.gets_in < 0.05 for c in bench.casts(blade))


def test_fouling_is_learned_and_two_of_three_tire_a_rig(cat: Catalog) -> None:
    jig = rig_by_name(cat, "swim-jig", 0.375, "craw")
    clear, told = bench_of(DAY), bench_of(DAY)
    clear.learn((), [jig])
    told.learn([Told(jig, 2.0, 2.0, "fouled"), Told(jig, 2.0, 2.0, "fouled")], [jig])
    odds = clear.rated(clear.key(jig)).cover
    before = 1.0 - (1.0 - odds.fouls) * (1.0 - odds.hangs)
    assert clear.cut(jig) == pytest.approx(1.0 - 0.5 * before)
    assert told.cut(jig) == pytest.approx(1.0 - 0.5 * (4.0 * before + 2.0) / 6.0)
    assert not clear.fouls(clear.key(jig))
    assert told.fouls(told.key(jig))
    assert told.suit(jig) == pytest.approx(0.3 * clear.suit(jig))


def test_a_swum_rig_has_its_counts_and_paces_and_a_way_that_is_none_is_refused(cat: Catalog) -> None:
    bench, jig = bench_of(DAY), rig_by_name(cat, "swim-jig", 0.375, "craw")
    casts = bench.casts(jig)
    assert len({c.pace_ft_s for c in casts}) >= 2
    assert {c.count_s for c in casts} >= {0.0}
    assert all(c.seconds.sum() >= 0.0 and c.minutes > 0.0 for c in casts)
    with pytest.raises(BadInput, match=r"casts\.cadence"):
        bench.cast(jig, 2.0, 2.0, "dance")
    bench.shift(Told(jig, 2.0, 2.0, "ran-high"))
    high = bench.cast(jig, 2.0, 2.0)
    assert high.depth_at(10.0) < bench_of(DAY).cast(jig, 2.0, 2.0).depth_at(10.0)
