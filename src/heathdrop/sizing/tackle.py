"""What line and rod can bear: strength for hook, head and cover, a lure that the line throws, a line that is
seen. Each falls off softly; a family's rows and the factors of cover are practice (``tackle.toml``)."""

import math
from dataclasses import dataclass

import numpy as np

from heathdrop.catalog import Catalog, Family
from heathdrop.catalog.judgement_records import TackleNumbers
from heathdrop.conditions.cover import ROOFS
from heathdrop.conditions.gear import Gear, Rod
from heathdrop.conditions.gear import Line as LineSet
from heathdrop.conditions.scenario import Conditions, fading
from heathdrop.sizing.fit import ebbing
from heathdrop.units import KG_PER_OZ

USUAL = "moderate"
BRAID = "braid"


@dataclass(frozen=True)
class TackleFit:
    """How line and rod suit a rig here, 0 to 1 each; ``need_lb`` is the line that would hold, ``test_lb`` the
    weakest of what is tied."""

    strength: float
    throws: float
    seen: float
    rod: float
    need_lb: float
    test_lb: float

    @property
    def fit(self) -> float:
        """All of them together."""
        return self.strength * self.throws * self.seen * self.rod


def _weakest_lb(line: LineSet) -> float:
    """The weakest of what is tied, lb."""
    return line.test_lb if line.leader is None else min(line.test_lb, line.leader.test_lb)


def cover_factor(catalog: Catalog, c: Conditions) -> float:
    """How much more line the cover asks for."""
    rows = catalog.tackle.cover[c.cover.kind]
    return rows.get(c.cover.stands, rows[USUAL])


def like_fluorocarbon_lb(catalog: Catalog, diameter_mm: float) -> float:
    """The test (lb) of fluorocarbon as thick as this."""
    rows = catalog.lines["fluorocarbon"].diameters_mm
    return float(np.interp(diameter_mm, [mm for _, mm in rows], [lb for lb, _ in rows]))


@dataclass(frozen=True)
class Holding:
    """What line and rod can do for a family in a water: the line (lb) that its hook and the cover ask for,
    the weakest of what is tied, the lightest lure (oz) that the line throws well, how little it is seen (0
    to 1)."""

    numbers: TackleNumbers
    hook_lb: float
    test_lb: float
    lightest_oz: float
    seen: float
    rod: Rod | None

    def fit(self, head_oz: float, mass_kg: float) -> TackleFit:
        """How the gear suits a rig with this head (oz) and this mass (kg, whole)."""
        numbers, whole_oz = self.numbers, mass_kg / KG_PER_OZ
        need = max(self.hook_lb, numbers.lb_per_oz * head_oz)
        strength = ebbing(max(0.0, math.log(need / self.test_lb)) / numbers.weak_edge)
        throws = ebbing(max(0.0, math.log(self.lightest_oz / whole_oz)) / numbers.light_edge)
        return TackleFit(
            strength=strength,
            throws=throws,
            seen=self.seen,
            rod=_rod(numbers, self.rod, whole_oz),
            need_lb=need,
            test_lb=self.test_lb,
        )


def holding_of(catalog: Catalog, family: Family, c: Conditions, gear: Gear) -> Holding:
    """What the gear can do for a family in these conditions."""
    numbers, line = catalog.tackle.numbers, gear.line
    hook = catalog.tackle.hook_lb[family.id] * cover_factor(catalog, c)
    if gear.rod is not None and gear.rod.spinning:
        hook *= numbers.spinning_hook
    like = like_fluorocarbon_lb(catalog, _diameter_mm(catalog, line.material, line.test_lb))
    lightest = numbers.light_oz * (like / numbers.light_lb) ** numbers.light_power
    return Holding(
        numbers=numbers,
        hook_lb=hook,
        test_lb=_weakest_lb(line),
        lightest_oz=lightest,
        seen=_seen(catalog, family, c, line),
        rod=gear.rod,
    )


def _diameter_mm(catalog: Catalog, material: str, test: float) -> float:
    """A spool's diameter (mm) by its test."""
    rows = catalog.lines[material].diameters_mm
    return float(np.interp(math.sqrt(test), [math.sqrt(lb) for lb, _ in rows], [mm for _, mm in rows]))


def _seen(catalog: Catalog, family: Family, c: Conditions, line: LineSet) -> float:
    """How little the line beside the lure is seen."""
    numbers = catalog.tackle.numbers
    if c.cover.kind in ROOFS:
        return 1.0
    tied = line if line.leader is None else line.leader
    mm = _diameter_mm(catalog, tied.material, tied.test_lb)
    mm *= numbers.braid_seen if tied.material == BRAID else 1.0
    clear = 1.0 - fading(c.clarity_ft, *numbers.seen_ft)
    by = numbers.seen_finesse if catalog.tackle.hook_lb[family.id] <= FINESSE_LB else numbers.seen_other
    return ebbing(by * clear * max(0.0, math.log(mm / numbers.seen_mm)) / numbers.seen_edge)


#: Families whose hook asks for no more line than this (lb) are finesse: their line is seen most.
FINESSE_LB = 6.0


def _rod(numbers: TackleNumbers, rod: Rod | None, whole_oz: float) -> float:
    """How a lure's weight suits the rod's rating; 1 where no rod is said."""
    if rod is None:
        return 1.0
    most = min(rod.high_oz, numbers.spinning_most_oz) if rod.spinning else rod.high_oz
    off = max(0.0, math.log(rod.low_oz / whole_oz), math.log(whole_oz / (most * LURE_OVER_HEAD)))
    return ebbing(off / numbers.rod_edge)


#: A rating speaks of heads; hook, skirt and plastic come on top (practice).
LURE_OVER_HEAD = 1.6
