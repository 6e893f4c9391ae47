"""Targets of the angler's own: what a rig is to do, where that is not left to be judged."""

from collections.abc import Iterator
from dataclasses import dataclass, fields

from heathdrop.errors import BadInput, require_between

Band = tuple[float, float]
#: The quickest fall and pace that may be asked for, ft/s.
FASTEST_FALL_FT_S, FASTEST_PACE_FT_S = 20.0, 15.0


@dataclass(frozen=True)
class Wanted:
    """A depth to work in (ft), a fall on slack line (ft/s), how often it is to get through the cover (0 to
    1), a pace (ft/s); None: judged."""

    depth_ft: Band | None = None
    fall_ft_s: Band | None = None
    passes: float | None = None
    pace_ft_s: Band | None = None

    @property
    def yours(self) -> tuple[str, ...]:
        """The targets that are set, by name."""
        return tuple(f.name for f in fields(self) if getattr(self, f.name) is not None)

    @property
    def said(self) -> str:
        """The targets that are set, in a line: ``4 to 6 ft, falls 1.2 to 1.6 ft/s``; empty where none is."""
        parts = [
            f"{before}{band[0]:g} to {band[1]:g} {unit}"
            for before, band, unit in (
                ("", self.depth_ft, "ft"),
                ("falls ", self.fall_ft_s, "ft/s"),
                ("reeled at ", self.pace_ft_s, "ft/s"),
            )
            if band is not None
        ]
        through = [] if self.passes is None else [f"gets through {100.0 * self.passes:g} of 100"]
        return ", ".join(parts + through)

    def faults(self, bottom_ft: float) -> Iterator[BadInput]:
        """What cannot be wanted in water so deep (ft)."""
        most = {"depth_ft": bottom_ft, "fall_ft_s": FASTEST_FALL_FT_S, "pace_ft_s": FASTEST_PACE_FT_S}
        try:
            for name, high in most.items():
                band, unit = getattr(self, name), name.split("_", 1)[1].replace("_", "/")
                if band is not None:
                    require_between(f"targets.{name}", band[0], 0.0, high, unit)
                    require_between(f"targets.{name}", band[1], band[0], high, unit)
            if self.passes is not None:
                require_between("targets.passes", self.passes, 0.0, 1.0, "of all casts")
        except BadInput as refusal:
            yield refusal


#: Everything judged.
JUDGED = Wanted()
