"""Weight as it fishes: the ounces of the head that, dressed as the family usually is, would sink and ride as
a rig does.

A lure sinks and rides by its net weight over its area in the water. A bulky trailer, a full skirt, a thick
line add area and carry a head of more ounces as the usual rig carries fewer: a half with a chunk fishes like
three eighths with a flat tail. Anglers make up a part of that with weight and the rest with pace and count;
the part is ``bearing_share`` (judgement.toml).
"""

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property

from heathdrop.catalog import Catalog, Family
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.rig import Lure, Rig, rig_by_name

#: Half of the drag of the line's upright reach hangs on the lure, the other half on the rod.
ON_THE_LURE = 0.5
#: Drag coefficient of line across the stream: 1 + 10 Re^(−2/3) at a Reynolds number of 150 (0.35 mm at half
#: a metre a second).
ACROSS = 1.35


def usual_line(catalog: Catalog, family: Family) -> Line:
    """The line that most have on for a family: the middle of the first that suits it."""
    material, low, high = family.lines[0]
    return line_by_test(catalog, str(material), 0.5 * (float(low) + float(high)))


@dataclass(frozen=True)
class Bearing:
    """What bears on a family's heads in a water: its usual rig and line against those that are fished.

    ``depth_m`` is where the lure is to work, ``lure`` makes a lure of a rig in this water.
    """

    catalog: Catalog
    family: Family
    line: Line
    depth_m: float
    lure: Callable[[Rig], Lure]
    _usual: dict[float, float] = field(default_factory=dict, init=False, compare=False, repr=False)

    def holds_up_m2(self, lure: Lure) -> float:
        """The area (m²) of a lure that holds it up: on the move for what is swum, in the fall else."""
        if self.family.work == "swim":
            return lure.run_drag_area_m2 + lure.run_lift_area_m2
        return lure.fall_drag_area_m2

    def head_oz(self, head_oz: float, net_weight_n: float, holds_up_m2: float) -> float:
        """The equivalent head (oz) of a rig with so heavy a head, of so much weight and area."""
        usual = self._usual.get(head_oz)
        if usual is None:
            plain = self.lure(rig_by_name(self.catalog, self.family.id, head_oz, self.family.usual_trailer))
            line = self._line_m2(usual_line(self.catalog, self.family))
            usual = self._usual[head_oz] = _load(plain.net_weight_n, self.holds_up_m2(plain) + line)
        share = self.catalog.judgement.fit.bearing_share
        return head_oz * math.pow(_load(net_weight_n, holds_up_m2 + self._own_line_m2) / usual, share)

    @cached_property
    def _own_line_m2(self) -> float:
        return self._line_m2(self.line)

    def _line_m2(self, line: Line) -> float:
        """The line's part (m²) of the area that holds a lure up."""
        if self.family.work == "swim":
            return ON_THE_LURE * ACROSS * line.mean_diameter_m(self.depth_m) * self.depth_m
        return ON_THE_LURE * float(line.skin_area_m2(self.depth_m))


def _load(net_weight_n: float, area_m2: float) -> float:
    """Net weight over the area that holds it up, N/m²."""
    return max(net_weight_n, 1e-6) / area_m2
