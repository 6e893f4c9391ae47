"""Casts from the water: kept once each, and what to throw next at a stop of a plan."""

from __future__ import annotations

from pydantic import BaseModel
from sqlalchemy.orm import Session

from heathdrop.answers.own import Own
from heathdrop.answers.search import MOST_CASTS, Told, search_water
from heathdrop.api.planning import the_stops
from heathdrop.api.searching import SearchAnswer, written
from heathdrop.conditions.made import MadeCasts
from heathdrop.errors import BadInput
from heathdrop.store import casts, plans


class KeptAnswer(BaseModel):
    """Every id that was sent, in order: each is kept, whether now or before."""

    kept: list[str]


def keep_casts(session: Session, made: MadeCasts) -> KeptAnswer:
    """Keep what was sent; sent twice it is kept once, and the answer is the same. Raises BadInput."""
    casts.keep(session, made.root)
    return KeptAnswer(kept=[str(c.id) for c in made.root])


def next_casts(session: Session, stop: str, own: Own, limit: int) -> SearchAnswer:
    """The next casts at a stop of the newest plan that has one of this name, after what was thrown there.
    Raises BadInput when no plan has it."""
    for row in reversed(plans.listed(session)):
        request = plans.request_of(row)
        for body, found in zip(request.stops, the_stops(request), strict=True):
            if body.name == stop:
                made = casts.listed(session, stop)[-MOST_CASTS:]
                told = [Told(casts.rig_of(c), c.countdown_s, c.pace_ft_s, c.outcome, c.at_s) for c in made]
                return written(search_water(found.scenario, own, (), told, limit))
    raise BadInput("stop", stop, "the name of a stop of a saved plan")
