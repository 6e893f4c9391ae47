"""The Rig view: the drawing, what is settled, what to change when it goes wrong, and a mat's entry curve."""

from collections.abc import Callable
from dataclasses import dataclass

from heathdrop.advice.change import MEASURED, Change, askable, mended
from heathdrop.advice.finish import Settled, finish_of
from heathdrop.answers.mat import MOST_OZ, mat_curve
from heathdrop.catalog import Catalog
from heathdrop.conditions.outcome import OLD_NAMES, WENT
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet, ounces_as_written, turns_said
from heathdrop.web.sheet.shown.rigdraw import RigDrawing, draw_rig

Link = Callable[..., str]


@dataclass(frozen=True)
class Fault:
    """Something that went wrong: words, the address that asks about it, whether it is asked now."""

    name: str
    address: str
    chosen: bool


@dataclass(frozen=True)
class Advised:
    """A change with the address that tries it here ('' when the hand does it)."""

    change: Change
    address: str


@dataclass(frozen=True)
class Thrown:
    """The cast that went wrong, as the fields are prefilled: count (s), turns in 20 s ('' for a lure that is
    not reeled), and in a line with the rod tip what it did."""

    count: str
    turns: str
    said: str


@dataclass(frozen=True)
class MatDrawing:
    """A mat's entry curve as polylines: quiet and lobbed, with the chosen head. The picture is 260 by 110."""

    quiet: str
    lobbed: str
    x: float
    y: float
    ticks: tuple[tuple[float, str], ...]
    said: str


@dataclass(frozen=True)
class Rigging:
    """Everything the Rig view shows."""

    drawing: RigDrawing
    settled: tuple[Settled, ...]
    faults: tuple[Fault, ...]
    changes: tuple[Advised, ...]
    misses: tuple[Fault, ...]
    fished: Thrown


def rigging_of(
    catalog: Catalog,
    sizing: Sizing,
    rated: Rated,
    wrong: str,
    missed_ft: float | None,
    link: Link,
) -> Rigging:
    """The Rig view of a chosen rig, at the count and pace that it stands at. Raises BadInput for an outcome
    that is none."""
    wrong = OLD_NAMES.get(wrong, wrong)
    settled = finish_of(catalog, sizing, rated)
    by_slot = {s.slot: s.text for s in settled}
    cut = by_slot.get("skirt", "").startswith(("cut", "trimmed"))
    drawing = draw_rig(
        rated.rig, skirt_cut=cut, body_cut_in=0.45 if "shorten" in by_slot.get("cut", "") else 0.0
    )
    mend = mended(catalog, sizing, rated, wrong, missed_ft) if wrong else None
    changes = mend.changes if mend else ()
    return Rigging(
        drawing=drawing,
        settled=settled,
        faults=tuple(Fault(WENT[k], link(wrong=k, missed_ft=""), k == wrong) for k in askable(sizing, rated)),
        fished=_fished(sizing, rated, mend.ran_ft if mend else None),
        changes=tuple(Advised(c, link(**TRIED, **dict(c.tries)) if c.tries else "") for c in changes),
        misses=_misses(wrong, missed_ft, link) if rated.work == "swim" else (),
    )


def _fished(sizing: Sizing, rated: Rated, ran_ft: float | None) -> Thrown:
    gear, swum = sizing.scenario.gear, rated.work == "swim"
    turns = turns_said(gear.turns_per_s(feet(rated.tuned.pace_m_s))) if swum else ""
    tip = f"Rod tip {gear.rod_tip_height_ft:g} ft up, as under Gear."
    ran = "" if ran_ft is None else f" So fished it ran at about {ran_ft:.1f} ft."
    return Thrown(f"{rated.countdown_s:.1f}" if swum else "", turns, tip + ran)


#: A change is looked at on the board, and what went wrong with the cast before it is not asked again.
TRIED = {"turns": "", "wrong": "", "missed_ft": "", "view": "size"}
#: By how much a lure may be said to have missed, ft; 0: not known.
MISSES_FT = (0.0, 0.5, 1.0, 2.0, 4.0)


def _misses(wrong: str, missed_ft: float | None, link: Link) -> tuple[Fault, ...]:
    """By how much it ran too high or too low, to choose from; none for other complaints."""
    if wrong not in MEASURED:
        return ()
    return tuple(
        Fault(
            f"{ft:g} ft" if ft else "not sure",
            link(missed_ft=f"{ft:g}" if ft else ""),
            (missed_ft or 0.0) == ft,
        )
        for ft in MISSES_FT
    )


#: The curve's picture: where it begins, how wide and how tall it is, where nothing goes through.
CURVE_LEFT, CURVE_WIDTH, CURVE_HEIGHT, CURVE_FLOOR = 30.0, 220.0, 80.0, 92.0


def mat_drawing(sizing: Sizing, rated: Rated) -> MatDrawing | None:
    """The entry curve of this rig's trailer and head shape, None without a mat."""
    curve = mat_curve(sizing, rated)
    if curve is None:
        return None
    across = CURVE_WIDTH / MOST_OZ

    def line(odds: tuple[float, ...]) -> str:
        points = zip(curve.heads_oz, odds, strict=True)
        return " ".join(
            f"{CURVE_LEFT + across * oz:.1f},{CURVE_FLOOR - CURVE_HEIGHT * p:.1f}" for oz, p in points
        )

    often = f"This rig goes through {curve.passes * 100:.0f} times of 100"
    return MatDrawing(
        quiet=line(curve.quiet),
        lobbed=line(curve.lobbed),
        x=CURVE_LEFT + across * min(rated.rig.head_oz, MOST_OZ),
        y=CURVE_FLOOR - CURVE_HEIGHT * curve.passes,
        ticks=tuple((CURVE_LEFT + across * oz, ounces_as_written(oz)) for oz in (0.5, 1.0, 1.5, 2.0)),
        said=f"{often}; half the time from {curve.halfway_oz:.2f} oz on.",
    )
