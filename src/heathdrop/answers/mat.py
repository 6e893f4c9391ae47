"""A mat's entry curve: how often this rig's trailer and head shape go through, against head weight."""

from dataclasses import dataclass, replace

from heathdrop import catalog as catalogue
from heathdrop.physics.cover import counting_oz, halfway_oz, mat_odds
from heathdrop.sizing.size import Rated, Sizing, setting_of

#: The curve's heaviest head (oz) and its points.
MOST_OZ, POINTS = 2.0, 60


@dataclass(frozen=True)
class MatCurve:
    """Heads (oz), chances of a quiet and of a lobbed entry, this rig's own chance, and the head that goes
    half the time."""

    heads_oz: tuple[float, ...]
    quiet: tuple[float, ...]
    lobbed: tuple[float, ...]
    passes: float
    halfway_oz: float


def mat_curve(sizing: Sizing, rated: Rated) -> MatCurve | None:
    """The entry curve of a rig in its mat, what was learned of it included; None without a mat."""
    if sizing.scenario.conditions.cover.kind != "matted-grass":
        return None
    catalog = catalogue.load()
    scenario = replace(sizing.scenario, families=(rated.rig.family.id,))
    setting = setting_of(catalog, scenario, sizing.knowledge)
    half = setting.mat_factor * halfway_oz(catalog, setting.stand)
    heads = tuple(MOST_OZ * k / POINTS for k in range(1, POINTS + 1))

    def odds(lobbed: bool) -> tuple[float, ...]:
        stand = replace(setting.stand, lobbed=lobbed)
        return tuple(
            mat_odds(catalog, replace(rated.rig, head_oz=oz), stand, 0.0, half).passes for oz in heads
        )

    needed = half * rated.rig.head_oz / counting_oz(rated.rig)
    return MatCurve(heads, odds(False), odds(True), rated.cover.passes, needed)
