"""One change: what practice changes first after a cast that went wrong, and what that would do to it.

The order is the catalogue's (``changes.toml``): the hand before the tackle, the trailer before the head,
another family last. Where the model knows, a change is played from the cast as it was fished, shifted to what
was seen of it, and its effect said in feet or in chances; where it does not, a rule speaks. A change without
effect, or one that touches what it should keep off, is not offered.
"""

from dataclasses import dataclass, replace

from heathdrop.advice.change.effects import LEAST_FT, MEASURED, NEARLY_FT, Change, change_of
from heathdrop.advice.change.hand import AS_SIZED, Fished, Hand, path_of, seen_at
from heathdrop.advice.change.moves import Case, liked, may_be
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import KINDS, ROOFS, SNAGS
from heathdrop.conditions.facts import holds
from heathdrop.conditions.outcome import OLD_NAMES, WENT
from heathdrop.errors import BadInput, require_between
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.sizing.ways import WAY
from heathdrop.units import feet, metres

__all__ = [
    "AS_SIZED",
    "MEASURED",
    "MOST_MISSED_FT",
    "Change",
    "Changes",
    "Fished",
    "askable",
    "likely",
    "mended",
]

#: Changes of the pace alone.
PACES = frozenset({"faster", "slower"})
#: Cover that fouls a lure.
STEMS = tuple(kind.id for kind in KINDS if kind.does in ("stems", "mat"))
#: The most that a lure may have missed by, ft.
MOST_MISSED_FT = 30.0
#: Who mends less than this share of a miss stands behind who mends more.
HALF = 0.5
#: A pace that the fish like this much less than the one before is offered after what keeps the pace.
LIKED_LESS = 0.5


@dataclass(frozen=True)
class Changes:
    """What a cast that went wrong ran at (ft; None for what is not swum), and the changes, best first."""

    ran_ft: float | None
    changes: tuple[Change, ...]


def likely(work: str, cover_kind: str) -> tuple[str, ...]:
    """What a stop is prepared for: what a lure of this work can do wrong in this cover."""
    held = ("fouled",) if cover_kind in STEMS else ("hung",) if cover_kind in SNAGS else ()
    if work == "swim":
        return (*MEASURED, *held, "short", "nothing")
    through = ("stalled",) if cover_kind in ROOFS else ()
    return ("not-felt", *through, *(() if through else held), "short", "nothing")


def askable(sizing: Sizing, rated: Rated) -> tuple[str, ...]:
    """What a rig may have done, or met, in its water: what is asked about it."""
    kind, swum = sizing.scenario.conditions.cover.kind, rated.work == "swim"
    never = set() if swum else {"ran-high", "ran-low", "ticked-top", "rolled"}
    if sizing.scenario.conditions.cover.top_depth_ft is None:
        never |= {"ticked-top"}
    if kind not in STEMS:
        never |= {"stalled", "fouled"} if kind != "open" else {"stalled", "hung"}
    if swum:
        never |= {"stalled"}
    if kind in STEMS:
        never |= {"hung"} if swum else {"fouled"}
    if not rated.rig.family.blade:
        never |= {"blade-stops"}
    return tuple(id_ for id_ in WENT if id_ not in never)


def mended(
    catalog: Catalog,
    sizing: Sizing,
    rated: Rated,
    went: str,
    by_ft: float | None = None,
    fished: Fished = AS_SIZED,
) -> Changes:
    """What to change after a cast of ``rated`` that ``went`` so, best first; ``by_ft`` is by how much it ran
    too high or low against what was told (None: not known), ``fished`` how it was fished. Raises BadInput for
    an outcome that is none, or a miss or a hand that cannot be."""
    went = OLD_NAMES.get(went, went)
    if went not in WENT:
        raise BadInput("went", went, "one of " + ", ".join(WENT))
    if by_ft is not None:
        require_between("by_ft", by_ft, 0.1, MOST_MISSED_FT, "ft")
    setting = setting_of(catalog, replace(sizing.scenario, families=(rated.rig.family.id,)), sizing.knowledge)
    hand = _hand(setting, rated, fished)
    facts = {
        **setting.facts,
        "trailer": rated.rig.trailer.id,
        "head_oz": rated.rig.head_oz,
        "work": "bottom" if rated.along_floor else rated.work,
    }
    case, ran = Case(setting, rated, hand, went), None
    swum = facts["work"] == "swim"
    if swum:
        case = replace(case, hand=_as_told(setting, rated, hand))
        before_ft = path_of(setting, case.hand).mean_ft
        case = replace(case, told_ft=before_ft)
        ran = _ran_at(setting, went, before_ft, by_ft)
        if abs(ran - before_ft) >= LEAST_FT:
            case = replace(case, hand=seen_at(setting, case.hand, ran))
            ran = path_of(setting, case.hand).mean_ft
    order = next((o.changes for o in catalog.orders if went in o.went and holds(o.when, facts)), ())
    made = [change_of(case, id_, ran, swum) for id_ in order if may_be(case, id_)]
    changes = [change for change in made if change is not None]
    weak = {c.id for c in changes if _weak(case, c, ran)}
    less = {c.id for c in changes if _liked_less(case, c)}
    if not any(c.mends for c in changes if c.id not in weak | less):
        less = set()
    return Changes(ran, tuple(sorted(changes, key=lambda c: (c.id in weak, c.id in less))))


def _hand(setting: Setting, rated: Rated, fished: Fished) -> Hand:
    """The hand that fished a rig: what was not said is as it was sized. Raises BadInput."""
    count, pace, tip = fished.countdown_s, fished.pace_ft_s, fished.rod_tip_height_ft
    if count is not None:
        require_between("fished.countdown_s", count, 0.0, 120.0, "s")
    if pace is not None:
        require_between("fished.pace_ft_s", pace, 0.2, 8.0, "ft/s")
    if tip is not None:
        require_between("fished.rod_tip_height_ft", tip, 0.0, 12.0, "ft")
    sized = rated.cadence
    way = "steady" if sized is None or sized.cadence.floor or pace is not None else sized.way
    if fished.work in WAY and fished.work not in ("slow-roll", "hop", "drag", "shake", "yo-yo"):
        way = fished.work
    return Hand(
        rig=rated.rig,
        line=setting.line,
        count_s=rated.countdown_s if count is None else count,
        pace_m_s=rated.tuned.pace_m_s if pace is None else metres(pace),
        tip_m=setting.cast.rod_tip_m if tip is None else metres(tip),
        way=way,
    )


def _as_told(setting: Setting, rated: Rated, hand: Hand) -> Hand:
    """The hand with what the rig's own cast is told to run deeper than it is played: one figure for both."""
    own = replace(
        hand, count_s=rated.countdown_s, pace_m_s=rated.tuned.pace_m_s, tip_m=setting.cast.rod_tip_m
    )
    sized = rated.cadence
    if sized is not None and not sized.cadence.floor:
        own = replace(own, way=sized.way, pace_m_s=sized.handle_m_s)
    return replace(hand, told_ft=feet(rated.tuned.mean_m) - path_of(setting, own).mean_ft)


def _ran_at(setting: Setting, went: str, told_ft: float, by_ft: float | None) -> float:
    """Where it ran (ft): off what is told by so much as was said; where that is not known as told when that
    is out of the band on that side already, else off it by the usual miss, and clearly out of the band."""
    down = MEASURED.get(went)
    if down is None:
        return told_ft
    top, low = setting.targets.depth_ft
    if by_ft is None:
        if (told_ft < top - NEARLY_FT) if down > 0.0 else (told_ft > low + NEARLY_FT):
            return told_ft
        usual = setting.catalog.judgement.change.needed_ft
        out_of_band = told_ft - top if down > 0.0 else low - told_ft
        by_ft = max(usual, out_of_band + 0.5 * usual)
    return min(setting.scenario.conditions.bottom_depth_ft, max(0.0, told_ft - down * by_ft))


def _weak(case: Case, change: Change, ran_ft: float | None) -> bool:
    """Whether a change of depth brings less than half of what is needed."""
    if case.went not in MEASURED or ran_ft is None:
        return False
    top, low = case.setting.targets.depth_ft
    needed, runs = abs(min(low, max(top, case.told_ft)) - ran_ft), change.runs_ft
    return runs is None or (not change.mends and abs(runs - ran_ft) < HALF * needed)


def _liked_less(case: Case, change: Change) -> bool:
    """Whether a change of pace leaves the fish one that they like clearly less."""
    if not {change.id} & PACES or change.fished.pace_ft_s is None:
        return False
    then = replace(case.hand, pace_m_s=metres(change.fished.pace_ft_s))
    return liked(case, then) < LIKED_LESS * liked(case, case.hand)
