"""What is typed is read as far as it goes: right, or asked back with the right row; never wrong in silence."""

from __future__ import annotations

from datetime import date
from typing import Any

import pytest

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.store.files.readback import Read, read_lines

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
"""
RODS = """
C: 12 fluoro | rod name=C material=fluorocarbon test_lb=12.0 inches_per_turn=29.0
B 50 braid 31 in a turn | rod name=B material=braid test_lb=50.0 inches_per_turn=31.0
30# braid to 15 lb fluoro leader | rod name=A material=braid test_lb=30.0 leader=fluorocarbon leader_lb=15.0 leader_ft=8.0 inches_per_turn=29.0
spin: 10 lb braid 6'10" M spinning 1/8-1/2 | rod name=spin material=braid test_lb=10.0 inches_per_turn=29.0 style=spinning power=medium low_oz=0.125 high_oz=0.5
heavy rod | rod name=A | -material -test_lb
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
