"""The instruments' status in the head of every page, and the sheet filled from it."""

from dataclasses import dataclass

from fastapi import APIRouter, Request
from fastapi.responses import Response

from heathdrop.feeds.feed import Feed
from heathdrop.web.shell.rendering import page

router = APIRouter(include_in_schema=False)
#: Figures that the head shows: name, its control on the sheet, unit, decimals.
SHOWN = (
    ("depth_ft", "bottom_depth_ft", "ft", 1),
    ("water_temp_f", "water_temp_f", "°F", 0),
    ("wind_mph", "wind_mph", "mph", 0),
)


#: What a moving pressure says of a front: falling before it, rising behind it.
FRONT_OF = {"falling": "coming", "steady": "none", "rising": "passed"}


@dataclass(frozen=True)
class Chip:
    """A figure in the head: what it says, its state, the control that it fills and the value put there."""

    said: str
    state: str
    age: str
    control: str
    value: str


def chips_of(feed: Feed) -> list[Chip]:
    """The figures that the head shows. A lost one says so and fills nothing."""
    chips = []
    for name, control, unit, places in SHOWN:
        figure = feed.figure(name)
        value = "" if figure.value is None else f"{figure.value:.{places}f}"
        age = "" if figure.age_s is None else f"{figure.age_s:.0f} s"
        chips.append(Chip(f"{value} {unit}" if value else "–", figure.state, age, control, value))
    pressure, trend = feed.figure("pressure_hpa"), feed.trend()
    if pressure.value is not None and trend is not None:
        age = f"{pressure.age_s:.0f} s"
        chips.append(Chip(f"{pressure.value:.0f} hPa {trend}", pressure.state, age, "front", FRONT_OF[trend]))
    return chips


@router.get("/feed")
def status(request: Request) -> Response:
    """The figures with their states, asked again every two seconds."""
    feed = request.app.state.feed or Feed()
    return page(request, "shell/feed.html", {"chips": chips_of(feed), "connected": feed.connected})
