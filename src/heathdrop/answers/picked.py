"""One rig at its water as it is thrown: rated, worked in a way, played, with its bands. Sheet, printed card,
depth chart and plan show this one answer."""

from dataclasses import dataclass

from heathdrop import catalog as catalogue
from heathdrop.answers.cast import WorkedCast, worked_of
from heathdrop.answers.water import at_setting, with_rig
from heathdrop.physics.cast import CastResult
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.bands import Bands, bands_for
from heathdrop.sizing.program import play, usual_way
from heathdrop.sizing.size import Rated, Sizing


@dataclass(frozen=True)
class Hand:
    """How an angler works a rig: a way with its lift (m) and hold (s), a count (s), a pace (ft/s), the factor
    on drag and lift that a cast showed. Empty means as it is sized."""

    way: str = ""
    lift_m: float | None = None
    hold_s: float | None = None
    count_s: float | None = None
    pace_ft_s: float | None = None
    seen: float = 1.0

    @property
    def own_setting(self) -> bool:
        """Whether count, pace or what a cast showed are not as sized."""
        return self.count_s is not None or self.pace_ft_s is not None or self.seen != 1.0


AS_SIZED = Hand()


@dataclass(frozen=True)
class Picked:
    """A rig in its sizing: its rating, its bands, its usual way, the one it is worked in, that cast and its
    figures."""

    sizing: Sizing
    rated: Rated
    bands: Bands
    usual: str
    way: str
    cast: CastResult
    worked: WorkedCast

    @property
    def as_usual(self) -> bool:
        """Whether it is worked as the family usually is."""
        return self.way == self.usual


def picked(sizing: Sizing, rig: str = "", hand: Hand = AS_SIZED, *, closely: bool = True) -> Picked:
    """The best rig of a sizing, or the one named, in a hand; ``closely`` plays another way again for its own
    bands. Raises BadInput for a rig that there is not."""
    rated = sizing.rigs[0]
    if rig:
        sizing, rated = with_rig(sizing, RigName.parse(rig))
    if hand.own_setting:
        rated = at_setting(sizing, rated, hand.count_s, hand.pace_ft_s, hand.seen)
    catalog = catalogue.load()
    usual = usual_way(catalog, sizing, rated)
    way = hand.way or usual
    bands = bands_for(catalog, sizing, [rated])[0]
    cast = play(sizing, rated, way, hand.lift_m, hand.hold_s)
    worked = worked_of(sizing, rated, bands, cast, way, hand.lift_m, hand.hold_s, closely=closely)
    return Picked(sizing, rated, bands, usual, way, cast, worked)
