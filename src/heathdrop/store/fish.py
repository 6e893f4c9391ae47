"""What the log told of the angler's own fish and schools, as it was agreed to."""

from __future__ import annotations

from typing import Annotated, TypeVar

from pydantic import BaseModel, ConfigDict, Field, ValidationError
from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.answers.trials import Shift, Trial
from heathdrop.sizing.known import AS_TABLED, OwnFish
from heathdrop.store import settings

__all__ = ["HEAD", "AgreedShift", "agree", "hold", "shifts", "withdraw"]

Kept = TypeVar("Kept", bound=BaseModel)

#: The settings that hold them, by what a shift is of and by topic.
FISH, SPOKEN = "fish", "spoken"
#: What a shift is of.
HEAD, PACE = "head weight", "pace"


class AgreedShift(BaseModel):
    """A shift in use: a factor on the tables, and the casts that told it."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    factor: Annotated[float, Field(ge=0.3, le=3.0)]
    casts: Annotated[int, Field(ge=0, le=1_000_000)]


class SpokenFor(BaseModel):
    """A school that the log chose: how many to one it spoke for it (natural log), and on how many casts."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    school: Annotated[str, Field(max_length=40)]
    ratio: Annotated[float, Field(ge=-1000, le=1000)]
    casts: Annotated[int, Field(ge=0, le=1_000_000)]


def shifts(session: Session) -> dict[str, AgreedShift]:
    """The shifts in use, by what they are of; what cannot be read is in use by nobody."""
    return _read(session, FISH, AgreedShift, (HEAD, PACE))


def spoken(session: Session) -> dict[str, SpokenFor]:
    """The schools that the log chose and the angler still holds to, by topic."""
    held = settings.schools(session)
    found = _read(session, SPOKEN, SpokenFor, tuple(catalogue.load().topics))
    return {topic: one for topic, one in found.items() if held.get(topic) == one.school}


def _read(session: Session, key: str, model: type[Kept], names: tuple[str, ...]) -> dict[str, Kept]:
    kept = settings.read(session, key, {})
    found = {}
    for name in names:
        try:
            found[name] = model.model_validate(kept[name])
        except (ValidationError, KeyError, TypeError):
            continue
    return found


def agree(session: Session, shift: Shift) -> None:
    """Use a shift from now on."""
    mine = AgreedShift(factor=min(3.0, max(0.3, shift.factor)), casts=shift.casts)
    _keep(session, FISH, {**shifts(session), shift.what: mine})


def withdraw(session: Session, what: str) -> None:
    """Go back to the table of what a shift is of."""
    _keep(session, FISH, {k: v for k, v in shifts(session).items() if k != what})


def hold(session: Session, trial: Trial) -> None:
    """Hold to a school because the log speaks for it."""
    settings.keep(session, settings.SCHOOLS, {**settings.schools(session), trial.topic: trial.school})
    mine = SpokenFor(school=trial.school, ratio=trial.ratio, casts=trial.casts)
    _keep(session, SPOKEN, {**spoken(session), trial.topic: mine})


def _keep(session: Session, key: str, found: dict[str, AgreedShift] | dict[str, SpokenFor]) -> None:
    settings.keep(session, key, {k: v.model_dump() for k, v in found.items()})


def fish_of(session: Session) -> OwnFish:
    """The angler's own fish as sizing takes them."""
    held = shifts(session)
    head, pace = held.get(HEAD), held.get(PACE)
    return OwnFish(
        head=head.factor if head else AS_TABLED.head,
        pace=pace.factor if pace else AS_TABLED.pace,
        head_casts=head.casts if head else 0,
        pace_casts=pace.casts if pace else 0,
    )
