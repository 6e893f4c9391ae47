"""`make evidence`: runs the studies, draws docs/figures, writes docs/evidence.md with the numbers."""

import math
from pathlib import Path

import matplotlib as mpl
import numpy as np

mpl.use("svg")
from matplotlib import pyplot as plt

from bench.learning_study import ANGLERS, study
from bench.studies import (
    SHARES,
    against_reference,
    band_coverage,
    draws,
    errors_of,
    refinement,
    worked_study,
)
from heathdrop import catalog as catalogue
from heathdrop.physics.cast import Cast, fly
from heathdrop.physics.line import line_by_test
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import lure_of, rig_by_name
from heathdrop.physics.water import water_at

DOCS = Path(__file__).parent.parent / "docs"
PEAT, HEATHER, GORSE, MOSS = "#211710", "#7b4b78", "#c98a12", "#51652d"
CASTS, SEED = 200, 20


def new_figure(title: str, x: str, y: str) -> tuple[plt.Figure, plt.Axes]:
    figure, axes = plt.subplots(figsize=(6.4, 3.8), layout="constrained")
    axes.set(title=title, xlabel=x, ylabel=y)
    axes.grid(alpha=0.25)
    return figure, axes


def keep(figure: plt.Figure, name: str) -> None:
    (DOCS / "figures").mkdir(exist_ok=True)
    figure.savefig(DOCS / "figures" / f"{name}.svg", dpi=130, metadata={"Date": None})
    plt.close(figure)


def reference_study() -> list[str]:
    """200 casts against the reference: a table of errors and a picture."""
    depths = against_reference(catalogue.load(), CASTS, SEED)
    figure, axes = new_figure(
        f"{CASTS} random casts, depth along the retrieve", "reference, m", "Heathdrop, m"
    )
    axes.plot([0, depths[:, 0].max()], [0, depths[:, 0].max()], color=PEAT, lw=0.8)
    for k, (name, colour) in enumerate((("display", HEATHER), ("board", GORSE), ("search", MOSS))):
        axes.plot(
            depths[:, 0].ravel(),
            depths[:, k + 1].ravel(),
            ".",
            ms=2.5,
            color=colour,
            label=name,
            rasterized=True,
        )
    axes.legend()
    keep(figure, "reference")
    rows = [
        "| fidelity | median error | of depth | 95 % of casts within | worst anywhere | casts past "
        "0.15 m and 7 % |",
        "|---|---|---|---|---|---|",
    ]
    for k, name in enumerate(("display", "board", "search")):
        e = errors_of(depths, k + 1)
        rows.append(
            f"| {name} | {e['median_m'] * 100:.1f} cm | {e['median_share'] * 100:.1f} % | "
            f"{e['p95_m'] * 100:.0f} cm "
            f"| {e['worst_m'] * 100:.0f} cm | {e['beyond']:.0f} of {CASTS} |"
        )
    return [f"## Against the reference\n\n{CASTS} casts, seed {SEED}, {len(SHARES)} places on each.\n", *rows]


def programme_study() -> list[str]:
    """Worked casts against the reference: what stopping, burning, twitching and lifting do to depth."""
    rows = [
        "\n## Worked casts against the reference\n",
        "20 random casts of each, seed 31: in mid-water at equal times, from the floor by depths exceeded",
        "for the same share of the time (strokes drift out of step). The floor is level, without grip.\n",
        "| way | median error, of depth | median of the worst, ft | worst anywhere, ft |",
        "|---|---|---|---|",
    ]
    for way, found in worked_study(catalogue.load()).items():
        share, worst = found[:, 0] / found[:, 2], found[:, 1] / 0.3048
        rows.append(
            f"| {way} | {100 * np.median(share):.1f} % | {np.median(worst):.2f} | {worst.max():.2f} |"
        )
    return rows


def refinement_study() -> list[str]:
    cat = catalogue.load()
    figure, axes = new_figure(
        "Refinement, mean of 8 casts", "segments (line), step in mm (dashes)", "mean depth error, m"
    )
    tables = [refinement(d) for d in draws(cat, 8, seed=5)]
    out = ["\n## Refinement\n"]
    for key, style, unit in (("segments", "-o", "segments"), ("step_mm", "--s", "mm")):
        xs = [x for x, _ in tables[0][key]]
        ys = np.mean([[y for _, y in t[key]] for t in tables], axis=0)
        axes.loglog(xs, ys, style, color=HEATHER if key == "segments" else GORSE)
        out.append(
            f"- by {unit}: " + ", ".join(f"{x:g}: {y * 100:.2f} cm" for x, y in zip(xs, ys, strict=True))
        )
    keep(figure, "refinement")
    return out


def band_study() -> list[str]:
    found = band_coverage(catalogue.load())
    fall, mean = (np.array([f[k] for f in found]) for k in ("fall", "mean"))
    figure, axes = new_figure("80 % bands against sampling", "random rig and cast", "share of samples inside")
    axes.axhline(0.8, color=PEAT, lw=0.8)
    axes.plot(fall, "o", color=HEATHER, label="fall rate")
    axes.plot(mean, "s", color=GORSE, label="mean depth")
    axes.set_ylim(0.5, 1.0)
    axes.legend()
    keep(figure, "bands")
    ratio = np.nanmedian([f["mean_ratio"] for f in found])
    return [
        "\n## Bands\n",
        f"20 casts, 300 samples each: fall {fall.mean() * 100:.0f} % inside ({fall.min() * 100:.0f} "
        f"to {fall.max() * 100:.0f}), "
        f"mean depth {mean.mean() * 100:.0f} % ({mean.min() * 100:.0f} to {mean.max() * 100:.0f}); "
        "our depth band is "
        f"{ratio:.2f} times the sampled one (median).",
    ]


def line_study() -> list[str]:
    """The old argument: the same jig, count and pace on four lines."""
    cat, water = catalogue.load(), water_at(58)
    lure = lure_of(cat, rig_by_name(cat, "swim-jig", 0.375, "paddle-tail"), water.density_kg_m3, 60.0)
    figure, axes = new_figure(
        "3/8 oz swim jig, paddle-tail, 1.6 ft/s: four lines", "ft from the rod", "depth, ft"
    )
    out, base = ["\n## Lines\n"], math.nan
    for (material, test), colour in zip(
        (("fluorocarbon", 15), ("fluorocarbon", 20), ("nylon", 15), ("nylon", 20)),
        (PEAT, HEATHER, GORSE, MOSS),
        strict=True,
    ):
        cast = Cast(25.0, 0.6, ((0.0, 20.0), (300.0, 20.0)))
        program = [Phase("fall", slack=True, to_depth_m=2.0), Phase("retrieve", speed_m_s=1.6 * 0.3048)]
        r = fly(lure, line_by_test(cat, material, test), water, cast, program)
        axes.plot(r.distance_m / 0.3048, r.depth_m / 0.3048, color=colour, label=f"{test} lb {material}")
        mean = float(r.useful().mean() / 0.3048)
        base = mean if math.isnan(base) else base
        out.append(
            f"- {test} lb {material}: {mean:.1f} ft, {(base - mean) * 12:.0f} in higher than 15 lb "
            "fluorocarbon"
        )
    axes.invert_yaxis()
    axes.legend()
    keep(figure, "lines")
    return out


def learning() -> list[str]:
    """Simulated anglers with known truth: what three tests of three tries teach."""
    cat = catalogue.load()
    out = [
        "\n## Learning\n",
        "200 simulated anglers of each kind, seed 1, three tests of three tries from 2 to 4 m (ten from "
        "1.5 to 7 m); a drop that the page asks about is scrapped.\n",
        "| angler | median fall error before | after | 80 % band holds the truth | 90 % band | asked about "
        "before learning |",
        "|---|---|---|---|---|---|",
    ]
    for angler in ANGLERS:
        f = study(cat, angler)
        cells = (f["before"], f["after"], f["held_80"], f["held"], f["asked"])
        out.append(f"| {angler.name} | " + " | ".join(f"{100 * c:.1f} %" for c in cells) + " |")
    return out


def main() -> None:
    mpl.rcParams.update({"svg.fonttype": "none", "svg.hashsalt": "heathdrop", "font.size": 9})
    parts = [reference_study(), programme_study(), refinement_study(), band_study(), line_study(), learning()]
    head = "# Evidence\n\nMade by `make evidence`; do not edit. docs/model.md says what it means.\n"
    (DOCS / "evidence.md").write_text("\n".join([head, *(line for part in parts for line in part)]) + "\n")
    print((DOCS / "evidence.md").read_text())


if __name__ == "__main__":
    main()
