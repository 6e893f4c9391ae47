"""What to change after a cast that went wrong, as JSON."""

from typing import Annotated

from pydantic import BaseModel, Field

from heathdrop import catalog as catalogue
from heathdrop.advice.change import MOST_MISSED_FT, Change, Fished
from heathdrop.answers.change import after_cast
from heathdrop.answers.own import STRANGER, Own
from heathdrop.api.planning import RigOnRod, rig_on_rod
from heathdrop.api.searching import rig_in
from heathdrop.conditions.given import RigGiven
from heathdrop.conditions.request import Body, Id, SizeRequest
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import RigName


class FishedBody(Body):
    """How the cast was fished; what is left out or null is as it was sized."""

    countdown_s: Annotated[float, Field(ge=0, le=120)] | None = None
    pace_ft_s: Annotated[float, Field(ge=0.2, le=8)] | None = None
    rod_tip_height_ft: Annotated[float, Field(ge=0, le=12)] | None = None
    work: Id | None = None


class NamedRigBody(RigGiven):
    """A rig field by field, or by the ``name`` that an answer gave it."""

    name: Annotated[str, Field(max_length=200)] | None = None

    def whole(self) -> Rig:
        """The rig. Raises BadInput."""
        return rig_in(self, "rig.") if self.name is None else RigName.parse(self.name).rig(catalogue.load())


class ChangesRequest(SizeRequest):
    """A size body with the rig that was thrown, how it was fished, what it ``went`` like, and by how much
    (ft) where it ran high or low."""

    rig: NamedRigBody
    fished: FishedBody = FishedBody()
    went: Id
    by_ft: Annotated[float, Field(ge=0.1, le=MOST_MISSED_FT)] | None = None


class FishedAnswer(BaseModel):
    countdown_s: float | None
    pace_ft_s: float | None
    rod_tip_height_ft: float | None
    work: str | None


class ChangeAnswer(BaseModel):
    """One change; ``by`` says whether the model or a rule speaks, ``mends`` whether it is enough by itself;
    rig and hand are those after it."""

    id: str
    what: str
    effect: str
    mends: bool
    by: str
    rig: RigOnRod
    fished: FishedAnswer
    runs_ft: float | None
    family: str


class ChangesAnswer(BaseModel):
    """What the cast ran at (ft; null for a lure that is not swum), and what to change, best first."""

    ran_ft: float | None
    changes: list[ChangeAnswer]


def changes_answer(request: ChangesRequest, own: Own = STRANGER) -> ChangesAnswer:
    """What to change. Raises BadInput."""
    fished = Fished(**request.fished.model_dump())
    changes = after_cast(request.scenario(), request.rig.whole(), request.went, request.by_ft, fished, own)
    ran = None if changes.ran_ft is None else round(changes.ran_ft, 2)
    return ChangesAnswer(ran_ft=ran, changes=[_written(change) for change in changes.changes])


def _written(change: Change) -> ChangeAnswer:
    f = change.fished
    return ChangeAnswer(
        id=change.id,
        what=change.what,
        effect=change.effect,
        mends=change.mends,
        by=change.by,
        rig=rig_on_rod(RigName.parse(change.rig).rig(catalogue.load())),
        fished=FishedAnswer(
            countdown_s=None if f.countdown_s is None else round(f.countdown_s, 2),
            pace_ft_s=None if f.pace_ft_s is None else round(f.pace_ft_s, 3),
            rod_tip_height_ft=None if f.rod_tip_height_ft is None else round(f.rod_tip_height_ft, 2),
            work=f.work,
        ),
        runs_ft=None if change.runs_ft is None else round(change.runs_ft, 2),
        family=change.family,
    )
