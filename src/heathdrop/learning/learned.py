"""Everything learned, and how it is put to a rig: the posterior in place of the prior."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from heathdrop.catalog import Catalog
from heathdrop.learning.checks import OneFactor, learn_lift, learn_mats
from heathdrop.learning.drops import Factors, learn_drops, measured_fall
from heathdrop.learning.observations import DepthCheck, DropTest, MatCheck, body_key, lift_key, trailer_key
from heathdrop.physics.line import Line
from heathdrop.physics.rig import UNMEASURED, Rig, areas_of, spread_of
from heathdrop.sizing.knowledge import AS_TABLED, Handle, OwnFish

#: Normal quantile of a two-sided 90 % band.
NINETY = 1.645
#: Rigs that are remembered with what was learned of them.
APPLIED_KEPT = 4000
Observation = DropTest | DepthCheck | MatCheck


@dataclass(frozen=True, eq=False)
class Learned:
    """Factors on fall areas and line friction, on lift by rig, on mats by texture; the error of one's own
    count, how one's own hand turns the handle, what one's own fish want (told apart by identity)."""

    falls: Factors = field(default_factory=Factors)
    lifts: dict[str, OneFactor] = field(default_factory=dict)
    mats: dict[str, OneFactor] = field(default_factory=dict)
    counted: float | None = None
    turned: Handle | None = None
    fish: OwnFish = AS_TABLED
    _applied: dict[int, tuple[Rig, Rig]] = field(default_factory=dict, init=False, repr=False)

    def own_fish(self) -> OwnFish:
        """What the angler's own fish want otherwise than the tables, where that was agreed to."""
        return self.fish

    def count_error(self) -> float | None:
        """One sigma of a second as this hand counts it (a share); None: the one assumed."""
        return self.counted

    def handle(self) -> Handle | None:
        """How this hand turns the handle; None: as assumed."""
        return self.turned

    def applied(self, rig: Rig) -> Rig:
        """The rig with everything learned of its parts; the same rig when there is nothing. Asked again it is
        the same object, so that it is worked out once."""
        cached = self._applied.get(id(rig))
        if cached is None or cached[0] is not rig:
            if len(self._applied) >= APPLIED_KEPT:
                self._applied.clear()
            cached = self._applied[id(rig)] = rig, self._measured(rig)
        return cached[1]

    def _measured(self, rig: Rig) -> Rig:
        own = measured_fall(self.falls, body_key(rig), trailer_key(rig), rig.measured)
        lift = self.lifts.get(lift_key(rig))
        if lift is not None:
            own = replace(own, lift=lift.factor, lift_spread=lift.spread)
        return rig if own == rig.measured else replace(rig, measured=own)

    def line(self, line: Line, material: str) -> Line:
        """The line with the friction learned of its material."""
        factor = self.falls.factor(f"line:{material}")
        return line if factor == 1.0 else replace(line, friction=line.friction * factor)

    def mat_factor(self, texture: str) -> float:
        """Factor on a texture's half-way weight."""
        return self.mats[texture].factor if texture in self.mats else 1.0


NOTHING = Learned()


def learn(catalog: Catalog, seen: Sequence[Observation], hand: float | None = None) -> Learned:
    """Learn from all observations at once; leaving one out takes its lesson back. ``hand`` is the scatter of
    the angler's own count (one sigma, a share) where it is known."""
    drops = [o for o in seen if isinstance(o, DropTest)]
    depths = [o for o in seen if isinstance(o, DepthCheck)]
    mats = [o for o in seen if isinstance(o, MatCheck)]
    if not seen and hand is None:
        return NOTHING
    falls = learn_drops(catalog, drops, hand)
    return Learned(falls, learn_lift(catalog, depths), learn_mats(catalog, mats), hand)


@dataclass(frozen=True)
class BeforeAfter:
    """A rig's fall before and after learning: factor on the speed, 90 % half-widths, and the sentence."""

    speed: float
    before: float
    after: float
    sentence: str


def before_after(
    catalog: Catalog, learned: Learned, rig: Rig, name: str, temperature_f: float
) -> BeforeAfter:
    """What the drops said of a rig's fall, in one plain sentence."""
    plain = replace(
        rig, measured=replace(UNMEASURED, head_g=rig.measured.head_g, trailer_g=rig.measured.trailer_g)
    )
    own = learned.applied(plain)
    was, now = (spread_of(catalog, r, temperature_f).fall for r in (plain, own))
    area = fall_area_cm2(catalog, own, temperature_f) / fall_area_cm2(catalog, plain, temperature_f)
    speed = area**-0.5
    before, after = (math.exp(NINETY * 0.5 * s) - 1.0 for s in (was, now))
    change = 100.0 * (speed - 1.0)
    if abs(change) < 1.0:
        how = "falls as assumed"
    else:
        how = f"falls {abs(change):.0f} % {'faster' if change > 0 else 'slower'} than assumed"
    sentence = f"Your {name} {how}, now known to ±{100 * after:.0f} % (before: ±{100 * before:.0f} %)."
    return BeforeAfter(speed, before, after, sentence)


def fall_area_cm2(catalog: Catalog, rig: Rig, temperature_f: float) -> float:
    """A rig's whole fall area, cm²."""
    return sum(areas_of(catalog, rig, temperature_f).fall)
