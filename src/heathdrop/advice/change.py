"""One change: the smallest single thing that should mend what went wrong, then the next smallest.

Where the model knows, each change is simulated and its effect said in feet or
in chances; where it does not, the rules speak.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.physics.cast import Cast, fly
from heathdrop.physics.fall import depth_after_s
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Rig, rig_by_name
from heathdrop.physics.rig_name import name_of
from heathdrop.sizing.candidates import standard_trailers
from heathdrop.sizing.size import Rated, Setting, Sizing, setting_of
from heathdrop.sizing.tune import BOARD
from heathdrop.units import feet, metres, ounces_as_written

COMPLAINTS = {
    "ran-too-high": "It ran too high",
    "ran-too-low": "It ran too low",
    "fouled": "It fouled",
    "hung-up": "It hung up",
    "short-strikes": "Short strikes",
    "will-not-go-through": "It will not go through",
    "not-felt": "I could not feel it",
    "nothing": "Nothing at all",
}
#: Among stems a lure is reckoned to swim at least this far, ft.
LEAST_WAY_FT = 2.0


@dataclass(frozen=True)
class Change:
    """One change: what to do, its effect in words, whether the model or a rule says so, and how to try it
    here."""

    what: str
    effect: str
    by: str
    mends: bool
    tries: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True)
class Hand:
    """How a rig is being fished: seconds counted, pace (m/s), rod tip (m), and the tackle."""

    rig: Rig
    line: Line
    count_s: float
    pace_m_s: float
    tip_m: float


def changes_for(catalog: Catalog, sizing: Sizing, rated: Rated, complaint: str) -> tuple[Change, ...]:
    """Changes for a complaint, smallest that mends first. Raises BadInput for an unknown complaint."""
    if complaint not in COMPLAINTS:
        raise BadInput("wrong", complaint, "one of " + ", ".join(COMPLAINTS))
    setting, _ = setting_of(catalog, sizing.scenario, sizing.known)
    hand = Hand(rated.rig, setting.line, rated.countdown_s, rated.tuned.pace_m_s, sizing.cast.rod_tip_m)
    makers: dict[str, Callable[[Setting, Rated, Hand], list[Change]]] = {
        "ran-too-high": lambda s, r, h: _depth(s, r, h, 1.0),
        "ran-too-low": lambda s, r, h: _depth(s, r, h, -1.0),
        "fouled": _fouled,
        "hung-up": _hung,
        "short-strikes": _short,
        "will-not-go-through": _through,
        "not-felt": _felt,
        "nothing": _nothing,
    }
    found = makers[complaint](setting, rated, hand)
    return tuple(sorted(found, key=lambda c: not c.mends))


def mean_depth_ft(setting: Setting, hand: Hand) -> float:
    """Mean depth (ft) of the useful retrieve as fished by ``hand``."""
    lure = setting.lure(hand.rig)
    start = max(0.05, depth_after_s(lure, hand.count_s, hand.line, setting.water))
    cast = Cast(setting.cast.distance_m, hand.tip_m, setting.cast.bottom)
    program = [Phase("fall", slack=True, to_depth_m=start), Phase("retrieve", speed_m_s=hand.pace_m_s)]
    depths = fly(lure, hand.line, setting.water, cast, program, fidelity=BOARD).useful()
    return feet(float(depths.mean())) if depths.size else 0.0


def _neighbour_trailer(catalog: Catalog, rig: Rig, steps: int) -> str | None:
    """The standard trailer ``steps`` places bulkier (negative: slimmer), None at the end of the row."""
    order = standard_trailers(catalog, bare=True)
    if rig.trailer.id not in order:
        return None
    k = order.index(rig.trailer.id) + steps
    return order[k] if 0 <= k < len(order) else None


def _neighbour_head(rig: Rig, steps: int) -> float | None:
    weights = rig.family.weights_oz
    k = min(range(len(weights)), key=lambda i: abs(weights[i] - rig.head_oz)) + steps
    return weights[k] if 0 <= k < len(weights) else None


def _with(setting: Setting, rig: Rig, *, oz: float | None = None, trailer: str | None = None) -> Rig:
    """The rig with another head weight or trailer, everything else as it is, and what is known of those."""
    name = name_of(rig)
    if oz is not None:
        name = replace(name, head_oz=oz, head_g=0.0)
    if trailer is not None:
        name = replace(name, trailer=trailer, length_in=0.0, trailer_g=0.0, width=0.0, fused=False)
    return setting.known.applied(name.rig(setting.catalog))


def _pick(rig: Rig) -> tuple[tuple[str, str], ...]:
    return (("family", rig.family.id), ("pick", name_of(rig).text()))


def _depth(setting: Setting, rated: Rated, hand: Hand, down: float) -> list[Change]:
    """Changes that bring the path down (``down`` 1) or up (−1), in the order of their smallness."""
    numbers = setting.catalog.judgement.change
    before = mean_depth_ft(setting, hand)
    steps = [*_hand_steps(setting, hand, down), *_tackle_steps(setting, hand, down)]
    found = []
    for what, moved, tries in steps:
        change_ft = mean_depth_ft(setting, moved) - before
        side = "deeper" if change_ft > 0 else "higher"
        effect = f"runs {abs(change_ft):.1f} ft {side}: {before + change_ft:.1f} ft instead of {before:.1f}"
        found.append(
            Change(what, effect, "model", down * change_ft >= numbers.enough * numbers.needed_ft, tries)
        )
    if found and found[0].mends and found[1:] and found[1].what.startswith(steps[0][0].split(" by ")[0]):
        del found[1]  # the small change of pace is enough: the big one is only noise
    return [c for c in found if c.mends] + [c for c in found if not c.mends and "0.0 ft" not in c.effect]


Step = tuple[str, Hand, tuple[tuple[str, str], ...]]


def _hand_steps(setting: Setting, hand: Hand, down: float) -> list[Step]:
    """Pace, count and rod tip: nothing is retied."""
    found: list[Step] = []
    slow = "Slow" if down > 0 else "Speed up"
    gear, numbers = setting.scenario.gear, setting.catalog.judgement.change
    for k in (1, 2):
        pace = feet(hand.pace_m_s) - down * k * numbers.pace_step_in_s / 12.0
        if pace >= numbers.slowest_ft_s:
            turns = gear.turns_per_s(pace) * 10
            what = f"{slow} by {k * numbers.pace_step_in_s:g} in/s, to {turns:.0f} turns in 10 s"
            found.append((what, replace(hand, pace_m_s=metres(pace)), ()))
    count = hand.count_s + down * numbers.count_step_s
    if count > 0.3:
        more = "longer" if down > 0 else "less"
        found.append((f"Count a second {more}", replace(hand, count_s=count), ()))
    tip = max(0.0, feet(hand.tip_m) - down * numbers.tip_step_ft)
    if abs(tip - feet(hand.tip_m)) > 0.4 and tip <= 12.0:
        way = "down" if down > 0 else "up"
        tries = (("rod_tip_height_ft", f"{tip:g}"),)
        found.append((f"Rod tip {way}, to {tip:g} ft", replace(hand, tip_m=metres(tip)), tries))
    return found


def _tackle_steps(setting: Setting, hand: Hand, down: float) -> list[Step]:
    """Trailer, head, line: something is changed over."""
    catalog, found = setting.catalog, list[Step]()
    step = -1 if down > 0 else 1
    for k in (1, 2):
        tail = _neighbour_trailer(catalog, hand.rig, step * k)
        if tail is not None:
            rig = _with(setting, hand.rig, trailer=tail)
            word = "slimmer" if down > 0 else "bulkier"
            found.append(
                (
                    f"{'One step' if k == 1 else 'Two steps'} {word}: {rig.trailer.name}",
                    replace(hand, rig=rig),
                    _pick(rig),
                )
            )
    oz = _neighbour_head(hand.rig, int(down))
    if oz is not None:
        rig = _with(setting, hand.rig, oz=oz)
        word = "up" if down > 0 else "down"
        found.append((f"One head {word}: {ounces_as_written(oz)} oz", replace(hand, rig=rig), _pick(rig)))
    line = _other_line(setting, thinner=down > 0)
    if line is not None:
        test, moved = line
        name = f"{test:g} lb {setting.scenario.gear.line.material}"
        word = "Thinner" if down > 0 else "Thicker"
        found.append((f"{word} line: {name}", replace(hand, line=moved), (("test_lb", f"{test:g}"),)))
    return found


def _other_line(setting: Setting, thinner: bool) -> tuple[float, Line] | None:
    """The next test down or up of the same material."""
    gear = setting.scenario.gear
    tests = [lb for lb, _ in setting.catalog.lines[gear.line.material].diameters_mm]
    beyond = [t for t in tests if (t < gear.line.test_lb if thinner else t > gear.line.test_lb)]
    if not beyond:
        return None
    test = max(beyond) if thinner else min(beyond)
    return test, line_by_test(setting.catalog, gear.line.material, test)


def _odds(setting: Setting, rated: Rated, rig: Rig) -> tuple[float, float, float]:
    """(through, fouls, hangs) of another rig over the same way through the cover."""
    odds = setting.odds(rig, setting.lure(rig), rated.tuned, LEAST_WAY_FT)
    return odds.passes, odds.fouls, odds.hangs


def _percent(share: float) -> str:
    return f"{share * 100:.0f} of 100"


def _slicker(catalog: Catalog, rig: Rig) -> str | None:
    """The next trailer that catches less."""
    better = [
        t for t in standard_trailers(catalog) if catalog.trailers[t].catching < rig.trailer.catching - 0.05
    ]
    return max(better, key=lambda t: catalog.trailers[t].catching) if better else None


def _fouled(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """Slicker trailer, higher line, lighter head, another family: in that order."""
    catalog, rig = setting.catalog, rated.rig
    _, before, _ = _odds(setting, rated, rig)
    found = []
    tail = _slicker(catalog, rig)
    if tail is not None:
        slick = _with(setting, rig, trailer=tail)
        _, after, _ = _odds(setting, rated, slick)
        effect = f"fouls {_percent(after)} casts instead of {_percent(before)}"
        found.append(
            Change(
                f"Slicker trailer: {slick.trailer.name}", effect, "model", after < 0.85 * before, _pick(slick)
            )
        )
    high = replace(
        hand, tip_m=min(metres(12.0), hand.tip_m + metres(setting.catalog.judgement.change.tip_step_ft))
    )
    lift = mean_depth_ft(setting, hand) - mean_depth_ft(setting, high)
    tries = (("rod_tip_height_ft", f"{feet(high.tip_m):g}"),)
    found.append(
        Change(
            "Rod tip up three feet",
            f"runs {lift:.1f} ft higher, clear of more of it",
            "model",
            lift > 0.5,
            tries,
        )
    )
    oz = _neighbour_head(rig, -1)
    if oz is not None:
        light = _with(setting, rig, oz=oz)
        rise = mean_depth_ft(setting, hand) - mean_depth_ft(setting, replace(hand, rig=light))
        what = f"One head down: {ounces_as_written(oz)} oz"
        found.append(Change(what, f"runs {rise:.1f} ft higher", "model", rise > 0.5, _pick(light)))
    return found + _other_family(setting, rated, 1, "fouls")


def _other_family(setting: Setting, rated: Rated, column: int, verb: str) -> list[Change]:
    """The family of the same way of working that meets this cover best."""
    catalog, rig = setting.catalog, rated.rig
    before = _odds(setting, rated, rig)[column]
    best: tuple[float, Rig] | None = None
    for family in catalog.families.values():
        if family.id == rig.family.id or family.work != rig.family.work:
            continue
        other = rig_by_name(catalog, family.id, rig.head_oz, family.usual_trailer)
        odds = _odds(setting, rated, other)[column]
        if best is None or odds < best[0]:
            best = (odds, other)
    if best is None or best[0] >= before - 0.01:
        return []
    what = f"Another family: {best[1].family.name}"
    effect = f"{verb} {_percent(best[0])} casts instead of {_percent(before)}"
    return [
        Change(what, effect, "model", best[0] < 0.8 * before, (("family", best[1].family.id), ("pick", "")))
    ]


def _hung(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """Wood and rock: two arms behind a blade, a lighter head between stones, a family that sheds it."""
    rig = rated.rig
    _, _, before = _odds(setting, rated, rig)
    found = [
        Change(
            "Rod tip up, and slow as it touches",
            "lifts over instead of under; ease it until it comes free",
            "rule",
            False,
        )
    ]
    if rig.family.two_right < 1.0 and rig.trailer.appendages < 2:
        arms = _with(setting, rig, trailer="small-craw")
        after = _odds(setting, rated, arms)[2]
        effect = (
            f"hangs {_percent(after)} casts instead of {_percent(before)}: two arms right it when it rolls"
        )
        found.append(
            Change("Two arms behind it: small craw", effect, "model", after < 0.85 * before, _pick(arms))
        )
    oz = _neighbour_head(rig, -1)
    if oz is not None and setting.stand.kind == "rock":
        light = _with(setting, rig, oz=oz)
        after = _odds(setting, rated, light)[2]
        effect = f"hangs {_percent(after)} casts instead of {_percent(before)}"
        found.append(
            Change(
                f"One head down: {ounces_as_written(oz)} oz",
                effect,
                "model",
                after < before - 0.005,
                _pick(light),
            )
        )
    return found + _other_family(setting, rated, 2, "hangs")


def _short(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """Short strikes: take plastic off, then help the hook."""
    catalog, rig = setting.catalog, rated.rig
    rule = catalog.rules["short-strikes"]
    found = []
    before = mean_depth_ft(setting, hand)
    if not rig.trailer.bare:
        if rig.family.takes_trailer_hook:
            other, what = _with(setting, rig, trailer="none"), "Take the trailer off"
        else:
            shorter = max(1.0, rig.trailer_length_in - 0.5)
            other, what = (
                replace(rig, trailer_length_in=shorter),
                f"Shorten the trailer by half an inch, to {shorter:g} in",
            )
        off = mean_depth_ft(setting, replace(hand, rig=other)) - before
        found.append(
            Change(
                what,
                f"less to nip at; runs {abs(off):.1f} ft {'deeper' if off > 0 else 'higher'}",
                "model",
                True,
            )
        )
    if rig.family.takes_trailer_hook and setting.stand.kind not in ("wood", "docks"):
        found.append(Change("Add a trailer hook, where local rules allow", rule.says, "rule", True))
    found.append(
        Change("A touch slower, with a pause now and then", "gives them time to get all of it", "rule", False)
    )
    return found


def _through(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """It will not go through: slicker, heavier, then louder."""
    catalog, rig = setting.catalog, rated.rig
    before = _odds(setting, rated, rig)[0]
    found = []
    tail = _slicker(catalog, rig)
    for other, what in (
        (_with(setting, rig, trailer=tail) if tail else None, "Slicker trailer"),
        (_with(setting, rig, oz=_neighbour_head(rig, 1)) if _neighbour_head(rig, 1) else None, "One head up"),
    ):
        if other is not None:
            after = _odds(setting, rated, other)[0]
            name = (
                other.trailer.name if what.startswith("Slick") else f"{ounces_as_written(other.head_oz)} oz"
            )
            effect = f"goes through {_percent(after)} times instead of {_percent(before)}"
            found.append(Change(f"{what}: {name}", effect, "model", after > before + 0.1, _pick(other)))
    if setting.stand.kind == "matted-grass" and not setting.stand.lobbed:
        loud = replace(setting.stand, lobbed=True)
        after = setting.odds(rig, setting.lure(rig), rated.tuned, LEAST_WAY_FT, loud).passes
        effect = f"goes through {_percent(after)} times instead of {_percent(before)}; it is loud"
        found.append(Change("Lob it in, high and hard", effect, "model", after > before + 0.1))
    return found


def _felt(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """Not felt: thinner line or a heavier head, by the share of what the hand feels that is lure."""
    rig = rated.rig

    def touch(other: Rig, line: Line) -> float:
        return setting.touch(setting.lure(other).net_weight_n, line)

    before = touch(rig, setting.line)
    found = [
        Change(
            "Watch the line, not the hand",
            "a slight bow that goes slack has landed; count the seconds to it",
            "rule",
            False,
        )
    ]
    moves: list[tuple[str, Rig, Line, tuple[tuple[str, str], ...]]] = []
    oz = _neighbour_head(rig, 1)
    if oz is not None:
        heavy = _with(setting, rig, oz=oz)
        moves.append((f"One head up: {ounces_as_written(oz)} oz", heavy, setting.line, _pick(heavy)))
    thin = _other_line(setting, thinner=True)
    if thin is not None:
        name = f"{thin[0]:g} lb {setting.scenario.gear.line.material}"
        moves.append((f"Thinner line: {name}", rig, thin[1], (("test_lb", f"{thin[0]:g}"),)))
    for what, other, line, tries in moves:
        after = touch(other, line)
        effect = f"{after * 100:.0f} % of what the hand feels is the lure, instead of {before * 100:.0f} %"
        found.append(Change(what, effect, "model", after > before + 0.02, tries))
    return found


def _nothing(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """Nothing: vary the working, then the depth, then the mood; one at a time."""
    vary, under = setting.catalog.rules["vary-it"], setting.catalog.rules["back-underneath"]
    numbers = setting.catalog.judgement.change
    step = metres(numbers.pace_step_in_s / 12.0)
    before = mean_depth_ft(setting, hand)
    slower = replace(hand, pace_m_s=max(metres(numbers.slowest_ft_s), hand.pace_m_s - step))
    off = mean_depth_ft(setting, slower) - before
    longer = replace(hand, count_s=hand.count_s + numbers.count_step_s)
    deep = mean_depth_ft(setting, longer) - before
    return [
        Change("Stop, pop or kill it once a cast", vary.says, "rule", True),
        Change("Slow by 4 in/s", f"runs {off:.1f} ft deeper, and they have longer to look", "model", True),
        Change("Count a second longer", f"runs {deep:.1f} ft deeper", "model", True),
        Change(
            "Go back through underneath, on the bottom",
            under.says,
            "rule",
            False,
            (("family", "football-jig"), ("pick", "")),
        ),
    ]
