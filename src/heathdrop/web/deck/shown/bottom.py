"""A run as it is drawn: depth over distance, what is out of line marked, the smoothed bottom as a line."""

from dataclasses import dataclass

from heathdrop.errors import BadInput
from heathdrop.feeds.driven import Sounding, driven_of
from heathdrop.measures import marks

#: The picture, px, and its margins.
WIDTH, HEIGHT, LEFT, TOP, FOOT = 900.0, 320.0, 44.0, 12.0, 24.0
#: Steps of its axes, and the least depth that it shows, ft.
STEPS, LEAST_FT = (1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0, 200.0, 500.0, 1000.0), 6.0
#: Soundings drawn at most.
DRAWN = 600


@dataclass(frozen=True)
class RunDrawing:
    """A run ready to draw: dots, those out of line, the line, the shape below it, axes, words."""

    dots: tuple[tuple[float, float], ...]
    off: tuple[tuple[float, float], ...]
    line: str
    floor: str
    depths: tuple[tuple[float, str], ...]
    ways: tuple[tuple[float, str], ...]
    said: str
    width: float = WIDTH
    height: float = HEIGHT
    left: float = LEFT
    top: float = TOP
    low: float = HEIGHT - FOOT


def drawing_of(soundings: list[Sounding]) -> RunDrawing | None:
    """The drawing of a run; None before there is enough of it."""
    try:
        run = driven_of(soundings)
    except BadInput:
        return None
    whole, deepest = max(float(run.ran_ft[-1]), 1.0), max(float(run.smooth_ft.max()) * 1.08, LEAST_FT)

    def x(ft: float) -> float:
        return round(LEFT + (WIDTH - LEFT - 8.0) * ft / whole, 1)

    def y(ft: float) -> float:
        return round(TOP + (HEIGHT - TOP - FOOT) * min(ft / deepest, 1.0), 1)

    every = max(1, len(soundings) // DRAWN)
    points = list(zip(run.ran_ft.tolist(), run.depth_ft.tolist(), run.off.tolist(), strict=True))
    line = [f"{x(r)},{y(d)}" for r, d in zip(run.ran_ft[::every], run.smooth_ft[::every], strict=True)]
    low, left, right = HEIGHT - FOOT, x(0.0), x(whole)
    count = int(run.off.sum())
    marked = f", {count} of them out of line" if count else ""
    return RunDrawing(
        dots=tuple((x(r), y(d)) for r, d, off in points[::every] if not off),
        off=tuple((x(r), y(d)) for r, d, off in points if off),
        line=" ".join(line),
        floor=" ".join([*line, f"{right},{low}", f"{left},{low}"]),
        depths=tuple((y(d), said) for d, said in marks(deepest, "ft", STEPS, 7)),
        ways=tuple((x(d), said) for d, said in marks(whole, "ft", STEPS, 9)[1:]),
        said=f"{len(soundings)} soundings over {whole:.0f} ft{marked}: from {run.smooth_ft.min():.1f} ft to "
        f"{run.smooth_ft.max():.1f} ft deep.",
    )
