"""The Rig view: the drawing, what is settled, what to change when it goes wrong, and a mat's entry curve."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from heathdrop.advice.change import COMPLAINTS, Change, changes_for
from heathdrop.advice.finish import Settled, finish_of
from heathdrop.catalog import Catalog
from heathdrop.physics.cover import counting_oz, halfway_oz, mat_odds
from heathdrop.sizing.size import Rated, Sizing, setting_of
from heathdrop.units import ounces_as_written
from heathdrop.web.presenters.rigdraw import RigDrawing, draw_rig

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
class MatCurve:
    """Chance of a quiet and of a lobbed entry against head weight, as polylines, with the chosen head."""

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
    nothing_to_do: bool


def rigging_of(catalog: Catalog, sizing: Sizing, rated: Rated, wrong: str, link: Link) -> Rigging:
    """The Rig view of a chosen rig. Raises BadInput for an unknown complaint."""
    settled = finish_of(catalog, sizing, rated)
    by_slot = {s.slot: s.text for s in settled}
    rig = rated.rig
    if by_slot.get("orientation") == "on edge" and rig.trailer.appendages >= 2:
        rig = replace(rig, orientation=catalog.orientation["vertical"])
    cut = by_slot.get("skirt", "").startswith("cut")
    drawing = draw_rig(rig, skirt_cut=cut, body_cut_in=0.45 if "shorten" in by_slot.get("cut", "") else 0.0)
    changes = changes_for(catalog, sizing, rated, wrong) if wrong else ()
    return Rigging(
        drawing=drawing,
        settled=settled,
        faults=tuple(Fault(words, link(wrong=k), k == wrong) for k, words in COMPLAINTS.items()),
        changes=tuple(Advised(c, link(**dict(c.tries), wrong="", view="size") if c.tries else "") for c in changes),
        nothing_to_do=bool(wrong) and not changes,
    )


def mat_curve(catalog: Catalog, sizing: Sizing, rated: Rated) -> MatCurve | None:
    """The entry curve of this rig's trailer and head shape, None without a mat. The picture is 260 by 110."""
    if sizing.scenario.conditions.cover.kind != "matted-grass":
        return None
    setting, _ = setting_of(catalog, sizing.scenario, sizing.known)
    half = setting.mat_factor * halfway_oz(catalog, setting.stand)
    most = 2.0
    x = [30.0 + 220.0 * k / 60 for k in range(1, 61)]
    ounces = [most * k / 60 for k in range(1, 61)]

    def line(lobbed: bool) -> str:
        stand = replace(setting.stand, lobbed=lobbed)
        odds = [mat_odds(catalog, replace(rated.rig, head_oz=oz), stand, 0.0, half).passes for oz in ounces]
        return " ".join(f"{a:.1f},{92.0 - 80.0 * p:.1f}" for a, p in zip(x, odds, strict=True))

    head = min(rated.rig.head_oz, most)
    needed = half * rated.rig.head_oz / counting_oz(catalog, rated.rig)
    return MatCurve(
        quiet=line(False),
        lobbed=line(True),
        x=30.0 + 110.0 * head,
        y=92.0 - 80.0 * rated.cover.passes,
        ticks=tuple((30.0 + 110.0 * oz, ounces_as_written(oz)) for oz in (0.5, 1.0, 1.5, 2.0)),
        said=f"This rig goes through {rated.cover.passes * 100:.0f} times of 100; half the time from {needed:.2f} oz on.",
    )
