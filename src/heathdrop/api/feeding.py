"""The boat's instruments as JSON: each figure with its age, live, stale or lost."""

from typing import Any

from pydantic import BaseModel

from heathdrop.feeds.feed import NAMES, Feed
from heathdrop.measures import sentence


class FigureAnswer(BaseModel):
    """A figure; a lost one has no value."""

    value: Any
    age_s: float | None
    state: str
    said: str = "–"


class FeedAnswer(BaseModel):
    connected: bool
    depth_ft: FigureAnswer
    water_temp_f: FigureAnswer
    position: FigureAnswer
    speed_mph: FigureAnswer
    wind_mph: FigureAnswer
    pressure_hpa: FigureAnswer
    pressure_trend: str | None


#: How a figure is said: unit and decimals.
SAID = {
    "depth_ft": ("ft", 1),
    "water_temp_f": ("°F", 0),
    "speed_mph": ("mph", 1),
    "wind_mph": ("mph", 0),
    "pressure_hpa": ("hPa", 0),
}


def said_of(name: str, value: Any) -> str:
    """A figure as it is said, in the units of now; a dash for none."""
    if name not in SAID or value is None:
        return "–"
    unit, places = SAID[name]
    return sentence(f"{value:.{places}f} {unit}")


def feed_answer(feed: Feed | None) -> FeedAnswer:
    """What the instruments say now; everything lost where none are read."""
    feed = feed or Feed()
    figures = {}
    for name in NAMES:
        figure = feed.figure(name)
        value = round(figure.value, 2) if isinstance(figure.value, float) else figure.value
        age = None if figure.age_s is None else round(figure.age_s, 1)
        figures[name] = FigureAnswer(
            value=value, age_s=age, state=figure.state, said=said_of(name, figure.value)
        )
    return FeedAnswer(connected=feed.connected, pressure_trend=feed.trend(), **figures)
