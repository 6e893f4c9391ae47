"""A stop as it is fished: its water, the rods with their rigs, the casts made there, what to throw next."""

import time
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Any

from pydantic import ValidationError
from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.answers.deck import NextUp, OnRod, next_up
from heathdrop.answers.own import Own
from heathdrop.answers.plan import Plan
from heathdrop.answers.rods_to_hand import CastTold
from heathdrop.answers.search import MOST_CASTS, Search, best_few
from heathdrop.answers.stop import Rod, Stop
from heathdrop.answers.thrown import rig_of
from heathdrop.conditions.gear import Reel
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.conditions.plan import StopBody, stop_water
from heathdrop.conditions.scenario import Scenario
from heathdrop.conditions.trip import TiedRod, TripBody, TripStop
from heathdrop.conditions.validation import bad_input, stop_scenario
from heathdrop.day.plan import job_of, the_stops
from heathdrop.errors import BadInput
from heathdrop.feeds.driven import apart_ft
from heathdrop.physics.rig_name import RigName, name_of
from heathdrop.search.hunt import Elsewhere
from heathdrop.store import casts, plans, trips
from heathdrop.store.models import SavedPlan

#: Rods tied on where there was no plan; seconds that a plan is waited for when it is taken along.
RODS, WAIT_S = 4, 40.0
#: Feet in a mile.
FT_PER_MI = 5280.0
#: The slowest pace (ft/s) that the search takes.
LEAST_PACE_FT_S = 0.1
#: A count that was off the told one by no more than this (s) kept to it.
KEPT_S = 0.25


@dataclass(frozen=True)
class Here:
    """A stop as it is fished: its water, the rods with their rigs, what was thrown there, and what bit at the
    trip's other stops."""

    name: str
    scenario: Scenario
    rods: tuple[OnRod, ...]
    made: tuple[MadeCast, ...]
    elsewhere: tuple[Elsewhere, ...] = ()


def rods_of(body: TripBody) -> tuple[OnRod, ...]:
    """A trip's rods with their rigs. Raises BadInput."""
    catalog = catalogue.load()
    return tuple(
        OnRod(
            Rod(r.name, r.line, Reel(inches_per_turn=r.inches_per_turn), r.rod),
            RigName.parse(r.rig).rig(catalog),
        )
        for r in body.rods
    )


def here_of(session: Session, stop: str) -> Here:
    """A stop of the trip under way, else of the newest plan that has it (its casts are those of the last day
    that has any). Raises BadInput for a stop that neither has."""
    under_way = trips.current(session)
    if under_way is not None:
        row, body = under_way
        at = body.stop(stop)
        if at is not None:
            made = casts.listed(session, stop, row.name)[-MOST_CASTS:]
            day = _elsewhere(casts.listed(session, trip=row.name), stop)
            return Here(stop, stop_scenario(at, body), rods_of(body), tuple(made), day)
    for plan in reversed(plans.listed(session)):
        for named, here in _stops_of(plan):
            if named.name == stop:
                made = casts.listed(session, stop)
                today = [c for c in made if c.time.date() == made[-1].time.date()][-MOST_CASTS:]
                return Here(stop, here.scenario, (), tuple(today))
    raise BadInput("stop", stop, "the name of a stop of the trip under way, or of a saved plan")


def _elsewhere(made: Sequence[MadeCast], stop: str) -> tuple[Elsewhere, ...]:
    """What each family came to at the other stops of a trip."""
    thrown, bitten = Counter[str](), Counter[str]()
    for cast in made:
        if cast.stop != stop:
            thrown[cast.family] += 1
            bitten[cast.family] += OUTCOME[cast.outcome].bitten
    return tuple(Elsewhere(family, n, bitten[family]) for family, n in sorted(thrown.items()))


def _stops_of(plan: SavedPlan) -> list[tuple[StopBody, Stop]]:
    """A plan's stops, as they were written and as the core takes them; none of one that cannot be worked out
    (without a stop yet, for one)."""
    try:
        request = plans.request_of(plan)
        return list(zip(request.stops, the_stops(request), strict=True))
    except (ValidationError, BadInput):
        return []


def next_at(session: Session, stop: str, own: Own, limit: int, rig: str = "") -> tuple[Here, NextUp]:
    """The next casts at a stop after what was thrown there; with ``rig`` (by its name) with that one alone.
    Raises BadInput when there is no such stop or rig."""
    here = here_of(session, stop)
    casts_told = [told_of(c) for c in here.made if teaches(c)]
    only = _only(here, rig) if rig else None
    up = next_up(
        here.scenario, own, rods=here.rods, casts=casts_told, limit=limit, only=only, elsewhere=here.elsewhere
    )
    if up.search.move_on and only is None:
        leave = _leave_for(session, here, up.search, own)
        up = replace(up, search=replace(up.search, move_on=leave))
    return here, up


#: Casts of the order by which another stop is judged.
LOOKED_AT = 8


def _leave_for(session: Session, here: Here, search: Search, own: Own) -> str | None:
    """The word to leave a stop that is worked out: to the best of the trip's others, each as it was left and
    with the ride to it; None where none of them brings more. Without others it stays as it is."""
    under_way = trips.current(session)
    others = [s for s in under_way[1].stops if s.name != here.name] if under_way else []
    at = next((s for s in under_way[1].stops if s.name == here.name), None) if under_way else None
    if not others or at is None:
        return search.move_on
    numbers = catalogue.load().search.place
    worth = {}
    for stop in others:
        try:
            there = here_of(session, stop.name)
            casts_told = [told_of(c) for c in there.made if teaches(c)]
            up = next_up(there.scenario, own, rods=there.rods, casts=casts_told, limit=LOOKED_AT)
        except BadInput:
            continue  # a water that cannot be is said at its own stop
        ride_min = numbers.settle_min + _apart_mi(at, stop) / numbers.ride_mph * 60.0
        worth[stop.name] = up.search.ten_min * numbers.stay_min / (numbers.stay_min + ride_min), ride_min
    if not worth:
        return search.move_on
    best = max(worth, key=lambda name: worth[name][0])
    bites, ride_min = worth[best]
    if bites <= search.ten_min:
        return None
    return (
        f"Move on to {best}: ten minutes there bring {bites:.2f} bites, {ride_min:.0f} minutes to get there "
        f"counted; ten more here {search.ten_min:.2f}."
    )


def _apart_mi(a: TripStop, b: TripStop) -> float:
    """Miles between two stops; none where either has no position."""
    if a.position is None or b.position is None:
        return 0.0
    return apart_ft(a.position.lat, a.position.lon, b.position.lat, b.position.lon) / FT_PER_MI


def teaches(c: MadeCast) -> bool:
    """Whether a cast can be searched with: one whose pace is not on record cannot."""
    return c.pace_ft_s >= LEAST_PACE_FT_S


def told_of(c: MadeCast) -> CastTold:
    """A kept cast as the search takes it: by the count that was thrown, to the half second, where it was
    taken; one that kept to what was told is that."""
    count = c.countdown_s
    if c.count_s is not None and abs(c.count_s - count) > KEPT_S:
        count = min(round(2.0 * c.count_s) / 2.0, 120.0)
    cadence = c.work if c.work in catalogue.load().cadences else ""
    return CastTold(
        rig=rig_of(c), count_s=count, pace_ft_s=c.pace_ft_s, outcome=c.outcome, at_s=c.at_s, cadence=cadence
    )


def _only(here: Here, rig: str) -> OnRod:
    """The rod that a rig is on; one that is tied on none goes on the stop's own line."""
    wanted = RigName.parse(rig)
    for tied in here.rods:
        if wanted.rig(catalogue.load()) == tied.rig:
            return tied
    gear = here.scenario.gear
    line = here.rods[0].rod if here.rods else Rod("", gear.line, gear.reel)
    return OnRod(replace(line, name=""), wanted.rig(catalogue.load()))


def trip_of_plan(row: SavedPlan, own: Own) -> tuple[str, TripBody]:
    """A plan as a trip, with its name: its rods with what it ties on, its stops. Raises BadInput."""
    asked = plans.body_of(row)
    rods = [
        TiedRod(
            name=t.rod.name,
            line=t.rod.line,
            inches_per_turn=t.rod.reel.inches_per_turn,
            rod=t.rod.rated,
            rig=name_of(t.rig).text(),
        )
        for t in _worked_out(asked, own).rods
    ]
    stops, names = [], set()
    for stop in asked["stops"]:
        name, k = stop["name"], 2
        while name in names:
            name, k = f"{stop['name'][:52]} ({k})", k + 1
        names.add(name)
        stop_fields = {
            k: stop[k]
            for k in ("conditions", "cast_ft", "rod_tip_height_ft", "targets", "position")
            if k in stop
        }
        stops.append(TripStop(name=name, **stop_fields))
    body = TripBody(
        date=date.today(),
        box=asked.get("box", "standard"),
        schools=asked.get("schools", {}),
        rods=rods,
        stops=stops,
    )
    return f"{date.today().isoformat()} {row.name}", body


def _worked_out(asked: dict[str, Any], own: Own) -> Plan:
    """The plan, waited for where it is still being worked out. Raises BadInput."""
    try:
        job = job_of(asked, own)
    except ValidationError as error:
        raise bad_input(error.errors()) from error
    until = time.monotonic() + WAIT_S
    while not job.done and time.monotonic() < until:
        time.sleep(0.05)
    if job.answer is None:
        raise BadInput("plan", "not worked out", job.refusal or "one that is: try again in a moment")
    return job.answer


def trip_of_water(asked: dict[str, Any], own: Own) -> tuple[str, TripBody]:
    """A water (the body of a size request) as a trip of one stop, with its name: the best few rigs on its
    line. Raises BadInput."""
    gear = asked.get("gear", {})
    stop = TripStop(name="This water", **stop_water(asked))
    body = TripBody(
        date=date.today(), box=asked.get("box", "standard"), schools=asked["schools"], stops=[stop]
    )
    turn = gear.get("reel", {}).get("inches_per_turn", 29.0)
    rods = [
        TiedRod(name=chr(65 + k), line=gear.get("line", {}), inches_per_turn=turn, rig=name_of(rig).text())
        for k, rig in enumerate(best_few(stop_scenario(stop, body), own, RODS))
    ]
    return f"{date.today().isoformat()} on the water", body.model_copy(update={"rods": rods})
