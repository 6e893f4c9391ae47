"""One rig at one setting: its fall, its odds in the cover, its way there, and how well each part fits."""

import math
from dataclasses import dataclass, replace
from functools import cached_property, partial

from heathdrop.physics.cast import Cast
from heathdrop.physics.cover import CoverOdds
from heathdrop.physics.kernels.records import Tuned
from heathdrop.physics.kernels.search import eased
from heathdrop.physics.rig import Lure, Rig, liveliness
from heathdrop.physics.rig_name import RigName, name_of
from heathdrop.sizing.cadence import Cadenced, work_in
from heathdrop.sizing.fit import (
    LEAST_BULK_CM2,
    Fits,
    action_fit,
    action_of,
    cover_fit,
    joined,
    seconds_worth,
    within,
)
from heathdrop.sizing.remembered import Closed, TrailerPart, tail_key
from heathdrop.sizing.setting import Setting
from heathdrop.units import feet

#: Time (s) beyond everything: never sinks.
NEVER_S = 1e6


@dataclass(frozen=True)
class Rated:
    """A candidate with its best setting, fall, cover odds and fits; ``liking`` is what rules, schools and the
    day make of its trailer (1: the best liked), ``way`` how it goes to the cover (``WAYS_TO_COVER``),
    ``cadence`` how it is worked where a steady retrieve is not the best, ``cast`` as far as it flies,
    ``felt`` the chance that a landing or a tick of it is felt, ``strong_enough`` line and rod bear it,
    ``fishes_oz`` the head as it fishes (:mod:`heathdrop.sizing.bearing`), ``through`` the odds of going
    through the cover that it is brought along beside."""

    rig: Rig
    lure: Lure
    tuned: Tuned
    countdown_s: float
    fall_ft_s: float
    cover: CoverOdds
    fits: Fits
    cast: Cast
    felt: float
    strong_enough: bool = True
    liking: float = 1.0
    way: str = "open"
    cadence: Cadenced | None = None
    fishes_oz: float = 0.0
    through: CoverOdds | None = None

    @property
    def name(self) -> RigName:
        """The rig's one name."""
        return name_of(self.rig)

    @property
    def work(self) -> str:
        """What the hands do with it here: its family's work, or what its cadence makes of that."""
        return work_in(self.rig.family, None if self.cadence is None else self.cadence.cadence)

    @property
    def along_floor(self) -> bool:
        """Whether it is worked along the floor: dragged or hopped, or swum so that it keeps touching."""
        return self.work == "bottom" or (self.cadence is not None and self.cadence.cadence.floor)

    @cached_property
    def key(self) -> str:
        """The rig's one name as text, for addresses."""
        return self.name.text()


def closed_of(setting: Setting, rig: Rig) -> Closed:
    """What no cast of a rig changes in its setting, worked out once."""

    def find(rig: Rig) -> Closed:
        lure, fishes_oz = setting.lure(rig), setting.as_it_fishes_oz(rig)
        return Closed(
            tail=_tail_of(setting, rig),
            fishes_oz=fishes_oz,
            weight=setting.weights.fit(fishes_oz),
            held=setting.tackle(rig, lure),
            felt=setting.felt(lure.net_weight_n, setting.line),
        )

    return setting.remembers.closed.of(rig, find)


def _tail_of(setting: Setting, rig: Rig) -> TrailerPart:
    """A trailer's part, one for all heads."""
    key = tail_key(rig)
    cached = setting.remembers.tails.get(key)
    if cached is None:
        catalog, targets = setting.catalog, setting.targets
        edge = catalog.judgement.fit.profile_edge
        level = action_of(catalog, rig) * liveliness(catalog, rig, setting.temperature_f)
        liking = setting.liking.of(rig)
        # A school that is held to has the say on shape and action: the mood does not mark its pick down.
        named = rig.trailer.id in setting.liking.named
        bulk = 1.0 if named else within(max(rig.bulk_cm2, LEAST_BULK_CM2), targets.bulk_cm2, edge)
        cached = setting.remembers.tails[key] = TrailerPart(
            level=level,
            action=1.0 if named else action_fit(catalog, rig, level, targets),
            liking=liking,
            profile=liking * bulk,
        )
    return cached


#: A path with less of it in the cover goes over it, with less of it ticks its tops.
CLEAR_OF, TICKING = 0.05, 0.5
#: The ways a lure goes to the cover.
WAYS_TO_COVER = ("over", "ticking", "through", "beside", "into", "under", "open")


def way_to(setting: Setting, in_cover: float, work: str) -> str:
    """How a lure worked so goes to the cover, ``in_cover`` for that share of its path."""
    kind = setting.stand.kind
    if kind == "open":
        return "open"
    if work in ("drop", "hang"):
        return "under" if setting.stand.row.under else "into"
    if work == "bottom":
        return "through"
    if in_cover < CLEAR_OF:
        return "over"
    return "ticking" if in_cover < TICKING else "through"


def rated_one(
    setting: Setting,
    rig: Rig,
    lure: Lure,
    tuned: Tuned,
    seconds: float,
    cadence: Cadenced | None = None,
    landed_s: float | None = None,
) -> Rated:
    """One candidate's fall, cover odds and fits at a setting, the better of the ways that it can go to the
    cover; ``cadence`` where it is not reeled steadily (its own measures are ``tuned``, then), ``landed_s``
    how long it takes to its start where the count goes on after that."""
    catalog, targets = setting.catalog, setting.targets
    work = rig.family.work if cadence is None else work_in(rig.family, cadence.cadence)
    numbers = catalog.judgement.fit
    falling = seconds if landed_s is None else landed_s
    fall = feet(tuned.start_depth_m / falling) if 0.0 < falling < NEVER_S else 0.0
    cast, closed = setting.cast_for(rig), closed_of(setting, rig)
    tail, held, felt = closed.tail, closed.held, closed.felt
    liking, action = tail.liking, tail.action
    if cadence is not None and rig.trailer.id not in setting.liking.named:
        action = action_fit(catalog, rig, tail.level * cadence.cadence.action, targets)
        if cadence.cadence.glide_ft > 0.0:
            glides = min(1.0, cadence.glides_ft / cadence.cadence.glide_ft)
            action *= numbers.unglided + (1.0 - numbers.unglided) * glides
    strong_enough = min(held.strength, held.rod) >= catalog.tackle.numbers.said_below
    parts = {
        "fall": within(fall, targets.fall_ft_s, numbers.fall_edge),
        "action": action,
        "profile": tail.profile,
        "weight": closed.weight,
        "tackle": max(numbers.least_part, held.fit),
    }
    matted = setting.stand.row.does == "mat"
    among = eased(min(1.0, tuned.soft_share), numbers.eased) * seconds_worth(catalog, tuned.useful_s)
    whole = partial(
        Rated,
        rig=rig,
        lure=lure,
        tuned=tuned,
        countdown_s=seconds,
        fall_ft_s=fall,
        felt=felt,
        strong_enough=strong_enough,
        liking=liking,
        cadence=cadence,
        fishes_oz=closed.fishes_oz,
    )
    if work != "swim":
        odds = setting.odds(rig, lure, tuned, work=work)
        hung = numbers.met_outside + (1.0 - numbers.met_outside) * among
        parts |= {
            "depth": hung if work == "hang" else setting.met_on_floor(fall),
            "cover": max(numbers.least_part, cover_fit(catalog, odds, matted)),
            "touch": min(1.0, math.sqrt(felt / numbers.enough)),
        }
        way, away = way_to(setting, tuned.in_cover, work), replace(cast, over_limb=True)
        return whole(cover=odds, fits=joined(catalog, parts), cast=away if work == "hang" else cast, way=way)
    parts["pace"] = max(numbers.least_part, tuned.comfort)
    swum = tuned.soft_share if cadence is not None and cadence.cadence.floor else among
    worked: list[Rated] = []
    for way, loses in _ways_past(setting, tuned):
        odds = setting.odds(rig, lure, tuned, beside=way == "beside", work=work)
        more = {
            "depth": numbers.met_outside + (1.0 - numbers.met_outside) * swum * (1.0 - loses),
            "cover": max(numbers.least_part, cover_fit(catalog, odds, matted)),
        }
        through = worked[0].cover if worked else None
        worked.append(
            whole(cover=odds, fits=joined(catalog, parts | more), cast=cast, way=way, through=through)
        )
    return max(worked, key=lambda r: r.fits.score)


def _ways_past(setting: Setting, tuned: Tuned) -> list[tuple[str, float]]:
    """The ways a swum lure's path can go to the cover, each with the share of the fish that it loses."""
    way, loses = way_to(setting, tuned.in_cover, "swim"), setting.passing_loss
    if loses is None or way in ("open", "over"):
        return [(way, 0.0)]
    return [(way, 0.0), ("beside", loses)]
