"""What is typed is read as far as it goes, a day in one line included."""

from datetime import date, timedelta
from typing import Any

import pytest

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.store.files.dayline import line_of, typed_day, typed_parts
from heathdrop.store.files.readback import Read, read_lines
from heathdrop.store.files.readday import read_day

TODAY = date(2026, 12, 1)  # a Tuesday


def one(cat: Catalog, what: str, line: str) -> Read:
    (found,) = read_lines(cat, what, line, today=TODAY)
    return found


def told(found: Read) -> list[dict[str, Any]]:
    return [{"kind": kind, **{k: v for k, v in data.items() if v != ""}} for kind, data in found.items]


#: Line, its pieces as "kind field=value …", what it lacks or leaves unused ("-", "~"), "?" where it is asked.
TACKLE = """
half dozen 3/8 swim jigs black/blue | head quantity=6 family=swim-jig weight_oz=0.375 colour=black/blue
couple of 1/2 oz football jigs | head quantity=2 family=football-jig weight_oz=0.5
bag of 8 craws 4 in | trailer quantity=8 shape=craw length_in=4.0
bag of craws 4in | trailer shape=craw length_in=4.0 | -quantity
2 packs of beavers 4 in | trailer shape=beaver length_in=4.0 | -quantity
10 ct 3.5 paddle tails pearl | trailer quantity=10 shape=paddle-tail length_in=3.5 colour=pearl
8 4" flat tails | trailer quantity=8 shape=flat-tail length_in=4.0
five eighths bladed jig | head family=bladed-jig weight_oz=0.625
one and a half oz punch rig tungsten | head family=punch-rig weight_oz=1.5 material=tungsten
three quarter ounce football jig | head family=football-jig weight_oz=0.75
swim jig 0,375 oz white | head family=swim-jig weight_oz=0.375 colour=white
3/8 flipping jig 4/0 heavy wire | head family=flipping-jig weight_oz=0.375 | ~4/0 ~heavy
1/4 underspin #2 willow | head family=underspin weight_oz=0.25 | ~#2
1/2 spinnerbait colorado/willow | head family=spinnerbait weight_oz=0.5 | ~colorado/willow
1/2 oz jig 5/0 hook | head weight_oz=0.5 | -family ~5/0
3/16 round head | head weight_oz=0.1875 colour=round | -family
futball jig 1/2 brown | head family=football-jig weight_oz=0.5 colour=brown | ?football
15lb flouro | line material=fluorocarbon test_lb=15.0 | ?fluoro
3/8 or 1/2 casting jig | head family=casting-jig weight_oz=0.375 ; head family=casting-jig weight_oz=0.5
3/8 swim jig and 4 in craw | head family=swim-jig weight_oz=0.375 ; trailer shape=craw length_in=4.0
paddletail 3.5 and 4.5 | trailer shape=paddle-tail length_in=3.5 ; trailer shape=paddle-tail length_in=4.5
swim jig black or craw | head family=swim-jig colour=black ; trailer shape=craw | -weight_oz -length_in
4 craws | trailer shape=craw | -length_in ?4
football jig 1/2 brown 3/4 | head family=football-jig weight_oz=0.5 colour=brown | ?3/4
worm 7" | trailer length_in=7.0 colour=worm | -shape
30 lb braid with 15 lb fluoro leader | line material=braid test_lb=30.0 | ~leader
reel 7.3:1 | reel | -inches_per_turn ~7.3:1
reel 7.3:1 30 in per turn | reel inches_per_turn=30.0 | ~7.3:1
medium heavy rod | rod name=medium_heavy | -length_ft
banana | | ?Not
1 dozen 3/8oz swim jigs white | head quantity=12 family=swim-jig weight_oz=0.375 colour=white
two packs of 8 craws 3.5 inch | trailer quantity=16 shape=craw length_in=3.5
3/4 bladed jgi black | head family=bladed-jig weight_oz=0.75 colour=black | ?bladed
1 oz tungsten punch weights, 4 of them | head quantity=4 family=punch-rig weight_oz=1.0 material=tungsten
football jigs: 1/2 and 1 oz, brown | head family=football-jig weight_oz=0.5 colour=brown ; head family=football-jig weight_oz=1.0 colour=brown
1/4 3/8 underspins, two of each | head quantity=2 family=underspin weight_oz=0.25 ; head quantity=2 family=underspin weight_oz=0.375
3 swim jigs 3/8oz, 2 swim jigs 1/2oz white | head quantity=3 family=swim-jig weight_oz=0.375 ; head quantity=2 family=swim-jig weight_oz=0.5 colour=white
four inch craw trailers, brown, 10 | trailer quantity=10 shape=craw length_in=4.0 colour=brown
2 3/8oz football jig (brown) | head family=football-jig quantity=2 weight_oz=0.375 colour=brown
two packs beavers, 4", 8 per pack | trailer quantity=16 shape=beaver length_in=4.0
finesse jigs 3/16 x2, 1/4 x3 | head quantity=2 family=finesse-jig weight_oz=0.1875 ; head quantity=3 family=finesse-jig weight_oz=0.25
3/8 swim jigs times four | head quantity=4 family=swim-jig weight_oz=0.375
3/8 bladed jig white trailers flat tail 4" | head family=bladed-jig weight_oz=0.375 colour=white ; trailer shape=flat-tail length_in=4.0
jig 10.5 g, 2 pcs | head quantity=2 weight_oz=0.37 | -family
grub twin tail 5 inch white 10 | trailer shape=twin-tail length_in=5.0 colour=grub_white | ?10
6 x 1/4 oz spinnerbaits, white/chart, tandem | head quantity=6 family=spinnerbait weight_oz=0.25 colour=white/chart
micro jig 1/16 olive ×3 | head quantity=3 family=micro-jig weight_oz=0.0625 colour=olive
punch weights, tungsten, 1 oz x4 and 1.25 oz x2 | head quantity=4 family=punch-rig weight_oz=1.0 material=tungsten ; head quantity=2 family=punch-rig weight_oz=1.25 material=tungsten
one 3/4 oz. punch rig | head family=punch-rig weight_oz=0.75
1/2 bladed jigs x2 - golden shiner | head quantity=2 family=bladed-jig weight_oz=0.5 colour=golden_shiner
casting jig (no trailer) 3/8 brown | head family=casting-jig weight_oz=0.375 colour=brown
heavy rod 7-6 casting 3/8-1.5 | rod low_oz=0.375 high_oz=1.5 power=heavy style=casting length_ft=7.5
3/8 & 1/2 swim jig and 4" craw x10 | head family=swim-jig weight_oz=0.375 ; head family=swim-jig weight_oz=0.5 ; trailer quantity=10 shape=craw length_in=4.0
2.8 inch swimbaits 8 per pack | trailer quantity=8 shape=paddle-tail length_in=2.8
rod: 7'6" heavy, casting, 1/2-1 1/2 | rod low_oz=0.5 high_oz=1.5 power=heavy style=casting length_ft=7.5
1/4 oz underspin, pearl, 1 left | head quantity=1 family=underspin weight_oz=0.25 colour=pearl
beavers: 6 black, 7 green pumpkin | trailer shape=beaver colour=black,_green_pumpkin | -length_in ?6
football jig 3/4, green pumpkin, pair | head quantity=2 family=football-jig weight_oz=0.75 colour=green_pumpkin
2 packs 4" beavers, 8 each | trailer quantity=16 shape=beaver length_in=4.0
3/8 jig trailer craw | trailer shape=craw colour=jig | -length_in ?3/8
100 m of 12lb fc | line material=fluorocarbon test_lb=12.0 | ~100
"""


RODS = """
C: 12 fluoro | rod name=C material=fluorocarbon test_lb=12.0 inches_per_turn=29.0
B 50 braid 31 in a turn | rod name=B material=braid test_lb=50.0 inches_per_turn=31.0
30# braid to 15 lb fluoro leader | rod name=A material=braid test_lb=30.0 leader=fluorocarbon leader_lb=15.0 leader_ft=8.0 inches_per_turn=29.0
spin: 10 lb braid 6'10" M spinning 1/8-1/2 | rod name=spin material=braid test_lb=10.0 inches_per_turn=29.0 style=spinning power=medium low_oz=0.125 high_oz=0.5
heavy rod | rod name=A | -material -test_lb
D - 20 lb nylon | rod name=D material=nylon test_lb=20.0 inches_per_turn=29.0
#2 - 50# braid, 32 IPT | rod name=2 material=braid test_lb=50.0 inches_per_turn=32.0
E: braid 30, 7.1:1 | rod name=E material=braid test_lb=30.0 inches_per_turn=29.0
1. 7'3 mh casting, 15lb fluoro, 7.3:1 | rod name=1 material=fluorocarbon test_lb=15.0 inches_per_turn=29.0 style=casting power=medium-heavy low_oz=0.25 high_oz=1.0
Rod B - 30 braid to 12 fluoro leader 6ft, medium 1/4-1/2 | rod name=B material=braid test_lb=30.0 leader=fluorocarbon leader_lb=12.0 leader_ft=6.0 inches_per_turn=29.0 style=casting power=medium low_oz=0.25 high_oz=0.5
Spinning: 15 braid, ML | rod name=Spinning material=braid test_lb=15.0 inches_per_turn=29.0 style=spinning power=medium-light low_oz=0.125 high_oz=0.375
30/10 braid to fluoro spinning | rod name=A material=braid test_lb=30.0 leader=fluorocarbon leader_lb=10.0 leader_ft=8.0 inches_per_turn=29.0 style=spinning power=medium-heavy low_oz=0.25 high_oz=1.0
B, 20 lb mono, heavy | rod name=B material=nylon test_lb=20.0 inches_per_turn=29.0 style=casting power=heavy low_oz=0.375 high_oz=1.5
#3: braid 40 / leader fluoro 15 | rod name=#3 material=braid test_lb=40.0 leader=fluorocarbon leader_lb=15.0 leader_ft=8.0 inches_per_turn=29.0
20 braid w/ 12ft of 10 lb fluorocarbon | rod name=A material=braid test_lb=20.0 leader=fluorocarbon leader_lb=10.0 leader_ft=12.0 inches_per_turn=29.0
G: 0.30 mm fluorocarbon | rod name=G material=fluorocarbon | -test_lb
"""


RIG = "family=swim-jig weight_oz=0.375 shape=craw trailer_length_in=4.0"


DAYS = f"""
11/22, 3 fish, swim jig 3/8 craw, Mill_bay, morning, 61F | fish quantity=3 date=2026-11-22 time=08:00 stop=Mill_bay {RIG} water_temp_f=61.0
22 November, 3 fish on 3/8 swim jig craw | fish quantity=3 date=2026-11-22 time=12:00 {RIG}
yesterday, skunked in 40 casts, 3/8 swim jig craw | fish quantity=0 date=2026-11-30 time=12:00 {RIG} ; cast quantity=40 date=2026-11-30 time=12:00 {RIG}
Saturday evening: 2 bass 4 lb and 3.5 lb, 3/8 swim jig craw | fish quantity=2 weights_lb=[4.0,3.5] date=2026-11-28 time=19:00 {RIG}
last tuesday 1 fish 18 inches 3/8 swim jig craw | fish quantity=1 lengths_in=[18.0] date=2026-11-24 time=12:00 {RIG}
2026-11-22, two fish, 17 in, 16 in, 3/8 swim jig craw, 3:30 pm | fish quantity=2 lengths_in=[17.0,16.0] date=2026-11-22 time=15:30 {RIG}
caught 4 on 3/8 swim jig craw, Nov 28th, dusk | fish quantity=4 date=2026-11-28 time=20:00 {RIG}
2 bites, 3/8 swim jig craw, 15:10 | fish quantity=2 outcome=bump time=15:10 {RIG}
3/4, 2 fish, 3/8 swim jig craw | fish quantity=2 time=12:00 {RIG} | -date
13/13, 2 fish, 3/8 swim jig craw | fish quantity=2 time=12:00 {RIG} | -date
skunked | fish quantity=0 time=12:00 | -rig
11/20 - 3 largemouth, 2 lb 4 oz, 3/8 swim jig craw, grass_edge | fish quantity=3 weights_lb=[2.25] date=2026-11-20 time=12:00 stop=grass_edge {RIG}
lost two on a 3/8 swim jig craw, missed one | fish quantity=2 outcome=lost time=12:00 {RIG} ; fish quantity=1 outcome=missed time=12:00 {RIG}
got 5 between 6 and 8 am on 3/8 swim jig craw, 52 degrees | fish quantity=5 time=06:00 {RIG} water_temp_f=52.0
3 fish between 11 and 1 pm, 3/8 swim jig craw | fish quantity=3 time=11:00 {RIG}
no bites in 40 casts, 3/8 swim jig w/ 4 in craw | fish quantity=0 time=12:00 {RIG} ; cast quantity=40 time=12:00 {RIG}
two bumps then a 4 lber, 3/8 swim jig craw, 3 hours | fish quantity=1 weights_lb=[4.0] time=12:00 {RIG} note=3_hours ; fish quantity=2 outcome=bump time=12:00 {RIG} note=3_hours
half a dozen small ones, best 4-2, 3/8 swim jig craw | fish quantity=6 weights_lb=[4.125] time=12:00 {RIG}
fish: 3, casts: 60, 3/8 swim jig craw, cove | fish quantity=3 time=12:00 stop=cove {RIG} ; cast quantity=60 time=12:00 stop=cove {RIG}
2 x 17" at the_dam on a 3/8 swim jig craw | fish quantity=2 lengths_in=[17.0] time=12:00 stop=the_dam {RIG}
5 fish (3 keepers), 3/8 swim jig craw | fish quantity=5 time=12:00 {RIG} note=3_keepers
2 @ 16", 7am-noon, 3/8 swim jig craw, dock | fish quantity=2 lengths_in=[16.0] time=07:00 stop=dock {RIG}
four on the swim jig 3/8 craw at the_point, 3 short | fish quantity=4 time=12:00 stop=the_point {RIG} ; fish quantity=3 outcome=short time=12:00 stop=the_point {RIG}
a 5-3 on the swim jig 3/8 craw, last weekend | fish quantity=1 weights_lb=[5.1875] time=12:00 {RIG} | -date
3 fish on a white swim jig, far_shore | fish quantity=3 time=12:00 stop=far_shore family=swim-jig | -rig
2 fish and a short strike in 25 casts, 3/8 swim jig with a craw, Quarry_wall, 7:30, 12C, wind | fish quantity=2 time=07:30 stop=Quarry_wall {RIG} water_temp_f=53.6 note=wind ; fish quantity=1 outcome=short time=07:30 stop=Quarry_wall {RIG} water_temp_f=53.6 note=wind ; cast quantity=25 time=07:30 stop=Quarry_wall {RIG} water_temp_f=53.6 note=wind
five fish, 3/8 swim jig craw, the_2_fish_pond | fish quantity=5 time=12:00 stop=the_2_fish_pond {RIG}
sat 3 fish 3/8 swim jig craw 61 deg reed bank 2h | fish quantity=3 date=2026-11-28 time=12:00 stop=reed_bank {RIG} water_temp_f=61.0 note=2h
two fish, 3/8 swim jig white craw, reeds | fish quantity=2 time=12:00 stop=reeds {RIG} note=white
Sat Oct 10 - reed bank - 3/8 swim jig craw - 4 bass, wind 15 | fish quantity=4 date=2026-10-10 time=12:00 stop=reed_bank {RIG} note=wind_15
best: 21 inches, 3/8 swim jig craw, pads | fish quantity=1 lengths_in=[21.0] time=12:00 stop=pads {RIG} note=best
Tuesday 11/24 dam_wall, half day, muddy, 22', 3/8 swim jig craw, 1 fish | fish quantity=1 date=2026-11-24 time=12:00 stop=dam_wall {RIG} note=half_day;_22';_muddy
8-11am, Mill_bay: lost 2 landed 1, two hours 3/8 swim jig craw; windy | fish quantity=2 outcome=lost time=08:00 stop=Mill_bay {RIG} note=two_hours;_windy ; fish quantity=1 time=08:00 stop=Mill_bay {RIG} note=two_hours;_windy
two on the 3/8, one on the 1/2 swim jig | fish quantity=2 time=12:00 note=the_3/8 | -rig
had 3 follow, 1 eat. 3/8 swim jig craw, clear water, short strikes. Water 57. | fish quantity=3 outcome=followed time=12:00 {RIG} water_temp_f=57.0 note=clear_water;_short_strikes ; fish quantity=1 outcome=bump time=12:00 {RIG} water_temp_f=57.0 note=clear_water;_short_strikes
lost a 5 pounder on 3/8 swim jig craw, 15 ft over 30 | fish quantity=1 outcome=lost time=12:00 {RIG} note=15_ft;_over_30;_5_lb
one 17 incher, one 15, 3/8 swim jig craw | fish quantity=2 lengths_in=[17.0,15.0] time=12:00 {RIG}
bay: nothing. dam: 2 on 3/8 swim jig craw | fish time=12:00 stop=bay {RIG} note=dam | -quantity
2 fish, 3/8 swim jig craw, Big_creek, fish_at_12 | fish quantity=2 time=12:00 stop=Big_creek {RIG} note=fish_at_12
16, 17, 18.25 in, 3/8 swim jig craw | fish quantity=3 lengths_in=[16.0,17.0,18.25] time=12:00 {RIG}
3/8 swim jig craw: 4 fish. 1/2 swim jig: 1 fish | fish quantity=5 time=12:00 family=swim-jig | -rig
yesterday from 6 till 10, 4 on a 3/8 swim jig craw, dam | fish quantity=4 date=2026-11-30 time=06:00 stop=dam {RIG}
on friday I caught six, 3/8 swim jig craw, Reed bank | fish quantity=6 date=2026-11-27 time=12:00 stop=Reed_bank {RIG}
blank. 60 casts. 3/8 swim jig craw. | fish quantity=0 time=12:00 {RIG} ; cast quantity=60 time=12:00 {RIG}
0 for 30 casts w/ 3/8 swim jig craw | fish quantity=0 time=12:00 {RIG} ; cast quantity=30 time=12:00 {RIG}
lost a big one at the dam 3/8 swim jig craw | fish quantity=1 outcome=lost time=12:00 stop=dam {RIG}
1 fish/22 casts, 3/8 swim jig craw, water was 47 | fish quantity=1 time=12:00 {RIG} water_temp_f=47.0 ; cast quantity=22 time=12:00 {RIG} water_temp_f=47.0
five (best 4 lb 2 oz) on 3/8 swim jig craw this morning | fish quantity=5 weights_lb=[4.125] time=08:00 {RIG}
six fish between 12 and 17 in, 3/8 swim jig craw | fish quantity=6 time=12:00 {RIG} note=between_12_and_17_in
2 fish on a 3/8 black jig, pads | fish quantity=2 time=12:00 stop=pads | -rig
15 Nov, Mill bay, 7 to 10, 2 fish 15 and 16.5", 3/8 swim jig craw | fish quantity=2 lengths_in=[15.0,16.5] date=2026-11-15 time=07:00 stop=Mill_bay {RIG}
4 fish, best 3lb 8, 3/8 swim jig craw, 30 casts | fish quantity=4 weights_lb=[3.5] time=12:00 {RIG} ; cast quantity=30 time=12:00 {RIG}
2 lmb on 3/8 swim jig craw in the mat, 82 | fish quantity=2 time=12:00 stop=mat {RIG} note=82
1 fish per hour for 4 hours, 3/8 swim jig craw | fish time=12:00 {RIG} note=for_4_hours | -quantity
nine fish Nov 20-21, 3/8 swim jig craw | fish quantity=9 date=2026-11-20 time=12:00 {RIG}
2 fish on a 3/8 swim jig craw, 22 ft, stone | fish quantity=2 time=12:00 stop=stone {RIG} note=22_ft
best 5 lb, four fish total, 3/8 swim jig craw, laydowns | fish quantity=4 weights_lb=[5.0] time=12:00 stop=laydowns {RIG}
monday: 2 short 17.5 and 14 inch fish 3/8 swim jig craw dam | fish quantity=2 lengths_in=[17.5,14.0] date=2026-11-30 time=12:00 stop=dam {RIG} ; fish quantity=2 outcome=short date=2026-11-30 time=12:00 stop=dam {RIG}
zero in 2 hours, 3/8 swim jig craw, dam | fish quantity=0 time=12:00 stop=dam {RIG} note=2_hours
fished 3 hrs w 3/8 swim jig craw no bites cold front | fish quantity=0 time=12:00 {RIG} note=3_hrs;_cold_front
swim jig 3/8 craw, dam | fish time=12:00 stop=dam {RIG} | -quantity
"""


def cases(what: str, table: str) -> list[Any]:
    return [
        pytest.param(what, *(p.strip() for p in f"{row} | ".split("|")[:3]), id=row.split("|")[0])
        for row in table.strip().splitlines()
    ]


@pytest.mark.parametrize(
    ("what", "line", "items", "rest"), [*cases("tackle", TACKLE), *cases("rods", RODS), *cases("day", DAYS)]
)
def test_what_a_line_says(cat: Catalog, what: str, line: str, items: str, rest: str) -> None:
    found = one(cat, what, line.replace("_", " ") if what == "day" else line)
    said = [
        " ".join(
            [
                i.pop("kind"),
                *(f"{k}={str(v).replace(' ', '' if isinstance(v, list) else '_')}" for k, v in i.items()),
            ]
        )
        for i in told(found)
    ]
    assert said == [i.strip() for i in items.split(" ; ") if i.strip()]
    marks = rest.split()
    assert list(found.missing) == [m[1:] for m in marks if m[0] == "-"]
    assert all(any(m[1:] in u for u in found.unused) for m in marks if m[0] == "~")
    assert all(m[1:] in found.ask for m in marks if m[0] == "?")
    assert found.ready == (not any(m[0] in "-?" for m in marks))
    assert bool(found.ask) != found.ready


def test_line_by_line_and_no_more_than_are_read(cat: Catalog) -> None:
    both = read_lines(cat, "tackle", "craw\n\n 3/8 swim jig ")
    assert [(r.line, r.ready) for r in both] == [("craw", False), ("3/8 swim jig", True)]
    assert [r.items[0][1]["name"] for r in read_lines(cat, "rods", "15 lb fluoro\n30 lb braid")] == ["A", "B"]
    (long,) = read_lines(cat, "tackle", "9" * 40_000)  # and none so long that a pattern would take its time
    assert (long.ready, long.items, len(long.line)) == (False, (), 200)
    two = read_lines(cat, "tackle", "paddletail 8 and 10", "metric")[0]
    assert [data["length_in"] for _, data in two.items] == pytest.approx([3.1496, 3.937], abs=1e-3)
    for what, text in (("tackle", " \n "), ("tackle", "craw\n" * 201), ("boats", "one")):
        with pytest.raises(BadInput):
            read_lines(cat, what, text)


@pytest.mark.parametrize(
    ("said", "on"),
    [
        ("2026-11-22", date(2026, 11, 22)),
        ("22 Nov", date(2026, 11, 22)),
        ("Dec 3rd", date(2025, 12, 3)),
        ("3 December 2024", date(2024, 12, 3)),
        ("11/22/25", date(2025, 11, 22)),
        ("22.11.2026", date(2026, 11, 22)),
        ("today", TODAY),
        ("Tuesday", date(2026, 11, 24)),
        ("last sun", date(2026, 11, 29)),
        ("Sat", date(2026, 11, 28)),
        ("in the sun", None),
        ("12 marsh", None),
        ("30 February", None),
    ],
)
def test_the_day_that_is_named(cat: Catalog, said: str, on: date | None) -> None:
    found = read_day(cat, f"{said}, 2 fish, 3/8 swim jig craw", TODAY)
    assert found.on == on
    assert bool(found.unsure) == (said == "30 February")
    assert found.rig is not None
    assert dict(found.counts) == {"fish": 2}


def test_lengths_are_of_fish_and_not_of_trailers(cat: Catalog) -> None:
    found = read_day(cat, '17", 16.5 in, 4 lb 8 oz, 3/8 swim jig with craw 4 in', TODAY)
    assert (found.lengths_in, found.weights_lb, found.counts["fish"]) == ((17.0, 16.5), (4.5,), 2)
    assert found.rig is not None
    assert found.rig.trailer_length_in == 4.0


ON = date(2026, 4, 11)


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


@pytest.mark.parametrize(
    "line",
    [
        "three fish, swim jig 3/8 craw, Mill bay, morning, 61F",
        "2 fish and a short strike in 25 casts, 1/2 oz football jig with a chunk, Quarry wall, 7:30, wind",
        "no fish in 40 casts, 3/8 spinnerbait, paddle tail 4 in, North drain",
        "one bass on a 3/8 bladed jig with craw, dusk",
        "five fish, 1/4 micro jig, the 2 fish pond",
        "2 fish in 9 casts, 3/4 tungsten football jig, beaver, Dam, windy",
        "1 bump and 2 followers, 5/16 weighted soft plastic creature, Bay, 12C",
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
