"""Own targets that cannot all be had: which gives, and what a rig costs that keeps the others."""

from collections.abc import Sequence

from heathdrop.conditions.wanted import Wanted
from heathdrop.sizing.hits import hits_of, missed_by
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet, feet_said, ounces_as_written

#: What each target is called.
NAMED = {"depth": "the depth", "fall": "the fall", "passes": "the cover", "pace": "the pace"}


def gives_said(sizings: Sequence[Sizing]) -> str | None:
    """What has to give where no rig of the sizings does all that was set, with the rig that does the rest and
    what it does instead; None where one does."""
    wanted = sizings[0].scenario.wanted
    rigs = [r for sizing in sizings for r in sizing.rigs]
    if not wanted.yours or any(all(hits_of(wanted, r).values()) for r in rigs):
        return None
    said = [f"No rig here {_all_said(wanted)}."]
    for name in hits_of(wanted, rigs[0]):
        rest = _without(wanted, name)
        best = min(rigs, key=lambda r: (missed_by(rest, r), missed_by(wanted, r), -r.fits.score))
        if all(hits_of(rest, best).values()):
            rig = best.rig
            said.append(
                f"Let {NAMED[name]} go: {ounces_as_written(rig.head_oz)} oz {rig.family.name} with "
                f"{rig.trailer.name} {_does(name, best)}."
            )
    return " ".join(said)


def _without(wanted: Wanted, name: str) -> Wanted:
    """The targets but for one."""
    left = {"depth": wanted.depth_ft, "fall": wanted.fall_ft_s, "pace": wanted.pace_ft_s}
    left[name] = None
    passes = None if name == "passes" else wanted.passes
    return Wanted(left["depth"], left["fall"], passes, left["pace"])


def _all_said(wanted: Wanted) -> str:
    """All that was set, as a rig would do it."""
    parts = []
    if wanted.fall_ft_s is not None:
        parts.append(f"falls {wanted.fall_ft_s[0]:g} to {wanted.fall_ft_s[1]:g} ft/s")
    if wanted.depth_ft is not None:
        top, low = (feet_said(v) for v in wanted.depth_ft)
        parts.append(f"works at {top} to {low} ft")
    if wanted.passes is not None:
        parts.append(f"gets through {wanted.passes * 100:.0f} times of 100")
    if wanted.pace_ft_s is not None:
        parts.append(f"comes at {wanted.pace_ft_s[0]:g} to {wanted.pace_ft_s[1]:g} ft/s")
    return " and ".join([", ".join(parts[:-1]), parts[-1]] if len(parts) > 1 else parts)


def _does(name: str, rated: Rated) -> str:
    """What a rig does of one target."""
    return {
        "depth": f"works at {feet(rated.tuned.mean_m):.1f} ft",
        "fall": f"falls {rated.fall_ft_s:.1f} ft/s",
        "passes": f"gets through {rated.cover.passes * 100:.0f} times of 100",
        "pace": f"comes at {feet(rated.tuned.pace_m_s):.1f} ft/s",
    }[name]
