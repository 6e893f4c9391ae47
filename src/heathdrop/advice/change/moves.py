"""What each change is, in a water with a rig: the steps of hand and tackle that it may be made of."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from heathdrop.advice.call import points_of
from heathdrop.advice.change.hand import Hand, neighbour_head, neighbour_trailer, other_line, with_part
from heathdrop.catalog import Trailer
from heathdrop.conditions.cover import ROOFS
from heathdrop.physics.line import line_by_test
from heathdrop.sizing.candidates import standard_trailers
from heathdrop.sizing.fit import ebbing
from heathdrop.sizing.setting import Setting, limits_for
from heathdrop.sizing.size import Rated, size
from heathdrop.sizing.tackle import BRAID
from heathdrop.units import count_said, feet, inches_said, metres, ounces_as_written, turns_said

#: Steps of pace and of the count that are tried, the highest rod tip, and a tip too low to be lowered (ft).
PACE_STEPS, COUNT_STEPS, TIP_MOST_FT, TIP_LOW_FT = 16, 6, 12.0, 3.0
#: How far the next heads are away: a lure that skates needs more than one.
HEADS_APART = ("One head", "Two heads", "Three heads")
#: A trailer shortened by so much, and the shortest (in).
SHORTER_IN, SHORTEST_IN = 0.5, 1.0
#: Other families are asked in this many of those that the rules put first.
ASKED = 4


@dataclass(frozen=True)
class Step:
    """One step: what to do, the hand that does it; its line where another is spooled (material and lb)."""

    what: str
    hand: Hand
    test_lb: float | None = None
    material: str = ""


Steps = Iterator[Step]


@dataclass(frozen=True)
class Case:
    """What is to be changed: where, the rig as sized and as fished, what it ``went`` like, and the depth (ft)
    that it was meant to run at so fished."""

    setting: Setting
    rated: Rated
    hand: Hand
    went: str
    told_ft: float = 0.0


def _pace(down: float) -> Callable[[Case], Steps]:
    def steps(case: Case) -> Steps:
        setting, hand = case.setting, case.hand
        gear, numbers, limits = setting.scenario.gear, setting.catalog.judgement.change, limits_for(setting)
        here = feet(hand.pace_m_s)
        least = max(numbers.slowest_ft_s, feet(limits.slowest_m_s) if setting.family.blade else 0.0)
        turns_seen = {turns_said(gear.turns_per_s(here))}
        for k in range(1, PACE_STEPS + 1):
            pace = here - down * 0.25 * k * numbers.pace_step_in_s / 12.0
            turns = turns_said(gear.turns_per_s(pace))
            if least <= pace <= feet(limits.fastest_m_s) and turns not in turns_seen:
                turns_seen.add(turns)
                word = "Slow" if down > 0 else "Speed up"
                yield Step(f"{word} to {turns} turns in 20 s", replace(hand, pace_m_s=metres(pace)))

    return steps


def _count(down: float) -> Callable[[Case], Steps]:
    def steps(case: Case) -> Steps:
        hand, step = case.hand, case.setting.catalog.judgement.change.count_step_s
        for k in range(1, COUNT_STEPS + 1):
            count = max(0.0, hand.count_s + down * 0.5 * k * step)
            if count_said(count) == count_said(hand.count_s):
                continue
            seconds = f"{count_said(count)} s" if count_said(count) != "at once" else ""
            what = f"Count {'longer' if down > 0 else 'less'}: {seconds}" if seconds else "Reel at once"
            yield Step(what, replace(hand, count_s=count))
            if count == 0.0:
                return

    return steps


def _tip(down: float) -> Callable[[Case], Steps]:
    def steps(case: Case) -> Steps:
        tip = feet(case.hand.tip_m) - down * case.setting.catalog.judgement.change.tip_step_ft
        tip = min(TIP_MOST_FT, max(0.0, tip))
        if abs(tip - feet(case.hand.tip_m)) > 0.4:
            way = "down" if down > 0 else "up"
            yield Step(f"Rod tip {way}, to {tip:g} ft", replace(case.hand, tip_m=metres(tip)))

    return steps


def _head(steps_up: int) -> Callable[[Case], Steps]:
    def steps(case: Case) -> Steps:
        for k, word in enumerate(HEADS_APART, 1):
            oz = neighbour_head(case.hand.rig, k * steps_up)
            if oz is not None:
                side = "up" if steps_up > 0 else "down"
                rig = with_part(case.setting, case.hand.rig, oz=oz)
                yield Step(f"{word} {side}: {ounces_as_written(oz)} oz", replace(case.hand, rig=rig))

    return steps


def _line(thinner: bool) -> Callable[[Case], Steps]:
    def steps(case: Case) -> Steps:
        others = other_line(case.setting, thinner=thinner)
        if others is not None:
            test, line = others
            word, material = "Thinner" if thinner else "Thicker", case.setting.scenario.gear.line.material
            yield Step(f"{word} line: {test:g} lb {material}", replace(case.hand, line=line), test)
        if case.went == "not-felt" and thinner:
            yield from _braid(case)

    return steps


def _braid(case: Case) -> Steps:
    """A braid as strong as the line that is on, as spools are sold; nothing on braid."""
    line, catalog = case.setting.scenario.gear.line, case.setting.catalog
    if line.material == BRAID:
        return
    tests = [lb for lb, _ in catalog.lines[BRAID].diameters_mm]
    test = next((lb for lb in tests if lb >= line.test_lb), tests[-1])
    what = f"{test:g} lb braid, with a leader where it is clear"
    on = replace(case.hand, line=line_by_test(catalog, BRAID, test))
    yield Step(what, on, test, BRAID)


def _tail(case: Case, id_: str, word: str) -> Step:
    rig = with_part(case.setting, case.hand.rig, trailer=id_)
    return Step(f"{word}: {rig.trailer.name}", replace(case.hand, rig=rig))


def _bulkier(case: Case) -> Steps:
    for k in (1, 2):
        tail = neighbour_trailer(case.setting.catalog, case.hand.rig, k)
        if tail is not None:
            yield _tail(case, tail, "A bulkier trailer" if k == 1 else "Two steps bulkier")


def _slimmer(case: Case) -> Steps:
    """A slimmer shape, the nearest first; where it nips or is refused the same one shorter before that."""
    rig = case.hand.rig
    if rig.trailer.bare:
        return
    if case.went in ("short", "rolled", "blade-stops"):
        length = rig.trailer_length_in - SHORTER_IN
        if length >= SHORTEST_IN:
            shorter = replace(rig, trailer_length_in=length)
            what = f"Shorten the trailer to {inches_said(length)} in"
            yield Step(what, replace(case.hand, rig=shorter))
    if case.went in ("fouled", "stalled", "hung"):
        tail = _slicker(case)
        if tail is not None:
            yield _tail(case, tail, "A slicker trailer")
        return
    for k in (-1, -2):
        tail = neighbour_trailer(case.setting.catalog, rig, k)
        if tail is not None and not case.setting.catalog.trailers[tail].bare:
            yield _tail(case, tail, "A slimmer trailer" if k == -1 else "Two steps slimmer")


def _slicker(case: Case) -> str | None:
    """The next trailer that catches less, or goes through a mat more often; None for the slickest."""
    catalog, own = case.setting.catalog, case.hand.rig.trailer

    def slick(tail: Trailer) -> float:
        return tail.punching if case.setting.stand.kind in ROOFS else -tail.catching

    better = [t for t in standard_trailers(catalog) if slick(catalog.trailers[t]) > slick(own) + 0.02]
    return min(better, key=lambda t: slick(catalog.trailers[t])) if better else None


def _quieter(case: Case) -> Steps:
    """The next slimmer trailer that moves less."""
    catalog, rig = case.setting.catalog, case.hand.rig
    slim_first = [catalog.trailers[id_] for id_ in standard_trailers(catalog)]
    quieter = [
        t
        for t in slim_first
        if t.run_drag_area_cm2 <= rig.trailer.run_drag_area_cm2 and t.action < rig.trailer.action
    ]
    if quieter and not rig.trailer.bare:
        yield _tail(case, quieter[-1].id, "A quieter trailer")


def _livelier(case: Case) -> Steps:
    catalog, rig = case.setting.catalog, case.hand.rig
    livelier = [
        id_ for id_ in standard_trailers(catalog) if catalog.trailers[id_].action > rig.trailer.action
    ]
    if livelier and not rig.trailer.bare:
        yield _tail(case, livelier[0], "A livelier trailer")


def _bare(case: Case) -> Steps:
    if case.hand.rig.family.takes_trailer_hook and not case.hand.rig.trailer.bare:
        bare = with_part(case.setting, case.hand.rig, trailer="none")
        yield Step("Take the trailer off", replace(case.hand, rig=bare))


def _shape(case: Case) -> Steps:
    """Another shape at about the size: two arms right a blade in wood, a body without a kick ends a dead
    blade, a beaver slips through."""
    rig, shapes = case.hand.rig, case.setting.catalog.shapes
    if case.went in ("hung", "fouled") and case.setting.stand.row.does in ("wood", "stone"):
        if rig.family.two_right < 1.0 and rig.trailer.appendages < 2:
            yield _tail(case, shapes["hung"], "Two arms behind it")
        return
    wanted = case.setting.catalog.trailers[shapes.get(case.went, shapes["else"])]
    if rig.trailer != wanted and not rig.trailer.bare:
        yield _tail(case, wanted.id, "Another shape")


def _family(case: Case) -> Steps:
    """The best rig of another family, of the few that the rules put first, by fit and rules together; for
    fish that have quit one that is worked on the floor, for what hangs or fouls one that does so less."""
    setting, hand = case.setting, case.hand
    catalog, scenario = setting.catalog, setting.scenario
    roofed = setting.stand.kind in ROOFS
    others = [
        f for f in catalog.families.values() if f is not setting.family and (roofed or f.drop_way != "punch")
    ]
    if case.went == "nothing":
        others = [f for f in others if f.work == "bottom"]
    weighed = {}
    for family in others:
        points, school = points_of(catalog, setting.facts, scenario, family)
        weighed[family.id] = sum(p for _, p in points) + school
    candidates: list[tuple[float, Rated]] = []
    for id_ in sorted(weighed, key=lambda f: -weighed[f])[:ASKED]:
        # Of the standard set: whether the box holds such a head is not known here.
        other = replace(scenario, families=(id_,), box="standard")
        best = size(catalog, other, knowledge=setting.knowledge).rigs[0]
        if case.went in ("hung", "fouled", "stalled"):
            spoils = "hangs" if setting.stand.row.does in ("wood", "stone") else "fouls"
            if getattr(best.cover, spoils) > 0.7 * getattr(case.rated.cover, spoils):
                continue
        candidates.append((best.fits.score * math.exp(weighed[id_]), best))
    for _, best in sorted(candidates, key=lambda row: -row[0])[:1]:
        name = f"{ounces_as_written(best.rig.head_oz)} oz {best.rig.family.name}"
        tail = "" if best.rig.trailer.bare else f", {best.rig.trailer.name}"
        way = "drag it underneath" if case.went == "nothing" else "its own best here"
        yield Step(
            f"{name}{tail}: {way}",
            replace(
                hand,
                rig=best.rig,
                count_s=best.countdown_s,
                pace_m_s=best.tuned.pace_m_s,
                way="steady",
                factor=1.0,
            ),
        )


def liked(case: Case, hand: Hand) -> float:
    """How the fish like the pace of a hand, 0 to 1, against that of the cast that was fished."""
    limits = limits_for(case.setting)
    low, high = limits.liked_slow_m_s, limits.liked_fast_m_s
    off = max(0.0, low / hand.pace_m_s - 1.0, hand.pace_m_s / high - 1.0)
    return ebbing(off / limits.slower)


STEPS: dict[str, Callable[[Case], Steps]] = {
    "slower": _pace(1.0),
    "faster": _pace(-1.0),
    "longer-count": _count(1.0),
    "shorter-count": _count(-1.0),
    "rod-tip-down": _tip(1.0),
    "rod-tip-up": _tip(-1.0),
    "heavier-head": _head(1),
    "lighter-head": _head(-1),
    "thinner-line": _line(thinner=True),
    "thicker-line": _line(thinner=False),
    "bulkier-trailer": _bulkier,
    "slimmer-trailer": _slimmer,
    "quieter-trailer": _quieter,
    "livelier-trailer": _livelier,
    "no-trailer": _bare,
    "other-shape": _shape,
    "other-family": _family,
}


def may_be(case: Case, id_: str) -> bool:
    """Whether a change can be made at all with this rig and gear, here."""
    rig, gear, tip = case.hand.rig, case.setting.scenario.gear, feet(case.hand.tip_m)
    if id_ == "line-with-give":
        return gear.line.material == BRAID
    if id_ == "trailer-hook":
        return rig.family.takes_trailer_hook and case.setting.stand.row.does not in ("wood", "mat", "stems")
    if id_ == "trim-skirt":
        return rig.skirt.fall_drag_area_cm2 > 0.0
    if id_ == "rethread":
        return not rig.trailer.bare
    if id_ == "rod-tip-down":
        return tip > TIP_LOW_FT or case.went not in ("missed", "lost")
    if id_ == "lob-it":
        return case.setting.stand.row.does == "mat" and not case.setting.stand.lobbed
    return True
