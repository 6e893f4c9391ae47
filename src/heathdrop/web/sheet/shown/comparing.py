"""The chosen rig beside others: their figures side by side, and the difference in words."""

from dataclasses import dataclass

from heathdrop import catalog as catalogue
from heathdrop.answers.cast import difference
from heathdrop.answers.compare import OTHER_LINE, OTHER_LURE, Compared
from heathdrop.physics.cast import CastResult
from heathdrop.sizing.hour import per_hour
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import counted, feet, ounces_as_written, turns_said

#: Why a lure is called before one that fits better.
BY_RULES = "it weighs what these fish and this water ask for too, see Water"


@dataclass(frozen=True)
class Side:
    """A rig of the comparison: its letter, its name, its figures in the order of ``FIGURES``, the difference
    in words, the address without it; the chosen rig is A."""

    mark: str
    name: str
    figures: tuple[str, ...]
    said: str = ""
    without: str = ""


@dataclass(frozen=True)
class Comparing:
    """The comparison: what its rows are, the chosen rig and the others."""

    rows: tuple[str, ...]
    sides: tuple[Side, ...]

    @property
    def others(self) -> tuple[Side, ...]:
        """Those that the chosen rig is held against."""
        return self.sides[1:]


#: Rows of the comparison.
FIGURES = ("Fit", "Runs at", "In band", "Count", "Turns", "Falls", "Clean")


def comparing_of(
    sizing: Sizing,
    rated: Rated,
    own: CastResult,
    runs_ft: float,
    others: tuple[Compared, ...],
    without: tuple[str, ...],
) -> Comparing | None:
    """The comparison, ``without`` the addresses that take each off; None where there is nothing to compare.
    ``runs_ft`` is what the strip says of the chosen rig's cast."""
    if not others:
        return None
    sides = [Side("A", rig_name(rated), _figures(sizing, rated, runs_ft))]
    for one, address in zip(others, without, strict=True):
        name, said = _said_of(one, sizing, rated, own, runs_ft)
        figures = _figures(one.sizing, one.rated)
        if one.kind == "line":  # its depth was flown; what else another line changes was not asked
            at_ft = feet(float(one.result.worked().mean()))
            figures = ("–", f"{at_ft:.1f} ft", "–", figures[3], figures[4], "–", "–")
        sides.append(Side(one.mark, name, figures, said, address))
    return Comparing(FIGURES, tuple(sides))


def _figures(sizing: Sizing, r: Rated, runs_ft: float | None = None) -> tuple[str, ...]:
    """A rig's figures as it is sized."""
    odds, swum = r.cover, r.work == "swim"
    clean = 100.0 * odds.passes * (1.0 - odds.fouls) * (1.0 - odds.hangs)
    runs = feet(r.tuned.mean_m) if runs_ft is None else runs_ft
    return (
        f"{100.0 * r.fits.score:.0f}",
        f"{runs:.1f} ft",
        f"{100.0 * r.tuned.in_band:.0f} %" if swum else "–",
        f"{r.countdown_s:.1f} s",
        f"{turns_said(sizing.scenario.gear.turns_per_s(feet(r.tuned.pace_m_s)))} in 20 s" if swum else "–",
        f"{r.fall_ft_s:.1f} ft/s",
        f"{clean:.0f} of 100",
    )


def more_options(sizing: Sizing, rated: Rated) -> tuple[tuple[str, tuple[tuple[str, str], ...]], ...]:
    """What else than a pair of the board can be compared: other lures at their best, other lines."""
    catalog = catalogue.load()
    lures = tuple(
        (OTHER_LURE + f.id, f"{f.name}, its best") for f in catalog.families.values() if f != rated.rig.family
    )
    lines = tuple(
        (f"{OTHER_LINE}{x.id}:{lb:g}", f"{lb:g} lb {x.name}")
        for x in catalog.lines.values()
        for lb, _ in x.diameters_mm
    )
    return ("Another lure", lures), ("Another line", lines)


def rig_name(rated: Rated) -> str:
    return f"{ounces_as_written(rated.rig.head_oz)} oz, {rated.rig.trailer.name}"


def _said_of(one: Compared, sizing: Sizing, rated: Rated, own: CastResult, runs_ft: float) -> tuple[str, str]:
    """What a side is called, and the difference in words."""
    if one.kind == "lure":
        best = one.rated
        name = f"{ounces_as_written(best.rig.head_oz)} oz {best.rig.family.name}, {best.rig.trailer.name}"
        return name, _their_best(name, one, sizing, rated, runs_ft)
    if one.kind == "line":
        _, material, test = one.key.split(":")
        name = f"{test} lb {material}"
    else:
        name = rig_name(one.rated)
    return name, said_difference(name, own, one.result, runs_ft, one.together)


def _their_best(name: str, one: Compared, sizing: Sizing, rated: Rated, runs_ft: float) -> str:
    """Another lure at its best, in words."""
    catalog, best = catalogue.load(), one.rated
    this_rate, other = per_hour(catalog, sizing, rated), per_hour(catalog, one.sizing, best)
    hours = f"{other.casts:.0f} casts an hour against {this_rate.casts:.0f}"
    fit = f"fit {100 * best.fits.score:.0f} against {100 * rated.fits.score:.0f}, {hours}"
    if one.call_stands:
        fit += f". The call stands: {BY_RULES}"
    if one.result.useful().size == 0:
        return f"{name} at its best works on the bottom for {one.result.bottom_s:.0f} s; {fit}."
    pace = f"{counted(best.countdown_s)}, {feet(best.tuned.pace_m_s):.1f} ft/s"
    runs = f"runs at {feet(best.tuned.mean_m):.1f} ft against {runs_ft:.1f} ft"
    return f"{name} at its best {runs}, {pace}; {fit}."


def said_difference(
    name: str, own: CastResult, other: CastResult, runs_ft: float, together: bool = True
) -> str:
    """The difference in mean depth, in inches and in words, from what the strip says of this one."""
    d = difference(own, other)
    if d.own_ft is None or d.other_ft is None:
        return f"{name} spends {d.other_bottom_s:.0f} s on the bottom against {d.own_bottom_s:.0f} s."
    inches = 12.0 * (d.own_ft - d.other_ft)
    if abs(inches) < 0.5:
        return f"{name} runs at the same depth, within 0.5 in."
    side = "higher" if inches > 0 else "deeper"
    other_ft = runs_ft - (d.own_ft - d.other_ft)
    return f"{name} runs {abs(inches):.0f} in {side}: {other_ft:.1f} ft against {runs_ft:.1f} ft" + (
        ", same count and pace." if together else "."
    )
