"""What the log told of the angler's own fish and schools, as it was agreed to."""

from typing import Annotated, Self, TypeVar

from pydantic import AliasChoices, BaseModel, ConfigDict, Field, ValidationError
from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.answers.shifts import Shift
from heathdrop.answers.trials import Trial
from heathdrop.sizing.knowledge import TRAIT, OwnFish
from heathdrop.store import settings

Kept = TypeVar("Kept", bound=BaseModel)

#: The settings that hold them, by what a shift is of and by topic.
FISH, SPOKEN = "fish", "spoken"


class AgreedShift(BaseModel):
    """A shift in use: its value (a factor on the tables, steps of the mood, a share), and the casts that told
    it. Older files call it ``factor``."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    value: Annotated[float, Field(ge=-10.0, le=10.0, validation_alias=AliasChoices("value", "factor"))]
    casts: Annotated[int, Field(ge=0, le=1_000_000)]

    def of(self, what: str) -> Self:
        """The shift, of the trait of this name. Raises ValueError where that cannot be as it says."""
        trait = TRAIT.get(what)
        if trait is not None and not trait.low <= self.value <= trait.high:
            raise ValueError(f"{what} {self.value:g}, but it lies between {trait.low:g} and {trait.high:g}")
        return self


class SpokenFor(BaseModel):
    """A school that the log chose: how many to one it spoke for it (natural log), and on how many casts."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    school: Annotated[str, Field(max_length=40)]
    ratio: Annotated[float, Field(ge=-1000, le=1000)]
    casts: Annotated[int, Field(ge=0, le=1_000_000)]

    def of(self, _: str) -> Self:
        """The same, whatever the topic."""
        return self


def shifts(session: Session) -> dict[str, AgreedShift]:
    """The shifts in use, by what they are of; what cannot be read is in use by nobody."""
    agreed = _read(session, FISH, AgreedShift, tuple(TRAIT))
    return {name: one for name, one in agreed.items() if TRAIT[name].low <= one.value <= TRAIT[name].high}


def spoken(session: Session) -> dict[str, SpokenFor]:
    """The schools that the log chose and the angler still holds to, by topic."""
    held = settings.schools(session)
    schools_held = _read(session, SPOKEN, SpokenFor, tuple(catalogue.load().topics))
    return {topic: one for topic, one in schools_held.items() if held.get(topic) == one.school}


def _read(session: Session, key: str, model: type[Kept], names: tuple[str, ...]) -> dict[str, Kept]:
    stored = settings.read(session, key, {})
    records = {}
    for name in names:
        try:
            records[name] = model.model_validate(stored[name])
        except (ValidationError, KeyError, TypeError):
            continue
    return records


def agree(session: Session, shift: Shift) -> None:
    """Use a shift from now on."""
    trait = TRAIT[shift.what]
    agreed = AgreedShift(value=min(trait.high, max(trait.low, shift.value)), casts=shift.casts)
    _keep(session, FISH, {**shifts(session), shift.what: agreed})


def withdraw(session: Session, what: str) -> None:
    """Go back to the table of what a shift is of."""
    _keep(session, FISH, {k: v for k, v in shifts(session).items() if k != what})


def hold(session: Session, trial: Trial) -> None:
    """Hold to a school because the log speaks for it."""
    settings.keep(session, settings.SCHOOLS, {**settings.schools(session), trial.topic: trial.school})
    held_school = SpokenFor(school=trial.school, ratio=trial.ratio, casts=trial.casts)
    _keep(session, SPOKEN, {**spoken(session), trial.topic: held_school})


def _keep(session: Session, key: str, records: dict[str, AgreedShift] | dict[str, SpokenFor]) -> None:
    settings.keep(session, key, {k: v.model_dump() for k, v in records.items()})


def fish_of(session: Session) -> OwnFish:
    """The angler's own fish as sizing takes them."""
    held = shifts(session)
    return OwnFish(
        **{TRAIT[name].field: one.value for name, one in held.items()},
        casts=tuple((TRAIT[name].field, one.casts) for name, one in sorted(held.items())),
    )
