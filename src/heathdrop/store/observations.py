"""Drop tests, depth checks and mats as kept, and as the learning takes them."""

from collections.abc import Sequence
from typing import Annotated, Any, ClassVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError
from sqlalchemy.orm import Session

from heathdrop.catalog import Catalog
from heathdrop.conditions.limits import OneOf, refused
from heathdrop.conditions.scenario import BY_FIELD
from heathdrop.errors import BadInput, plain_text
from heathdrop.learning.observations import DepthCheck, DropTest, MatCheck
from heathdrop.physics.cover import Stand, counting_oz, halfway_oz
from heathdrop.physics.line import Line, line_by_size, line_by_test
from heathdrop.physics.rig import Rig
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, pair
from heathdrop.store import rows
from heathdrop.store.models import Observation, new_uid
from heathdrop.store.versions import CURRENT, upgraded
from heathdrop.units import metres

Seconds = Annotated[float, Field(ge=0.3, le=120.0)]


class RigRecord(BaseModel):
    """The rig that was tested, by its names and what was weighed."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    kind: ClassVar[str] = ""
    family: Annotated[str, Field(max_length=40)]
    head_oz: Annotated[float, Field(ge=1 / 32, le=4.0)]
    head_material: str = "lead"
    head_g: Annotated[float, Field(ge=0.2, le=200.0)] | None = None
    skirt: str | None = None
    trailer: Annotated[str, Field(max_length=40)]
    trailer_length_in: Annotated[float, Field(ge=0.5, le=10.0)]
    trailer_g: Annotated[float, Field(ge=0.2, le=200.0)] | None = None
    plastic: str = "neutral"
    line_material: Annotated[str, OneOf(tuple(BY_FIELD["material"].all_words))] = "fluorocarbon"
    test_lb: Annotated[float, Field(ge=2, le=100)] = 15.0
    diameter_mm: Annotated[float, Field(ge=0.05, le=2.0)] | None = None
    water_temp_f: Annotated[float, Field(ge=32, le=100)] = 60.0
    note: Annotated[str, Field(max_length=200), AfterValidator(plain_text)] = ""

    def rig(self, catalog: Catalog) -> Rig:
        """The rig. Raises BadInput for an unknown name."""
        head = OwnedHead(self.family, self.head_oz, self.head_material, self.head_g, self.skirt)
        return pair(
            catalog,
            head,
            OwnedTrailer(self.trailer, self.trailer_length_in, self.trailer_g, None, self.plastic),
        )

    def line(self, catalog: Catalog) -> Line:
        """The line, measured or by its test. Raises BadInput."""
        if self.diameter_mm is not None:
            return line_by_size(catalog, self.diameter_mm, catalog.lines[self.line_material].density_kg_m3)
        return line_by_test(catalog, self.line_material, self.test_lb)


class DropRecord(RigRecord):
    """Timed drops: seconds to ``depth_ft`` on slack line, thrown or pulled ``off_reel``."""

    kind: ClassVar[str] = "drop"
    depth_ft: Annotated[float, Field(ge=1, le=60)]
    times_s: Annotated[list[Seconds], Field(min_length=1, max_length=12)]
    off_reel: bool = False

    def seen(self, catalog: Catalog) -> DropTest:
        depth = metres(self.depth_ft)
        dragged = 0.5 * depth if self.off_reel else 0.0
        return DropTest(
            rig=self.rig(catalog),
            line=self.line(catalog),
            line_material=self.line_material,
            depth_m=depth,
            times_s=tuple(self.times_s),
            temperature_f=self.water_temp_f,
            surface_line_m=dragged,
        )


class DepthRecord(RigRecord):
    """It ran at about ``depth_ft`` at this pace after this count."""

    kind: ClassVar[str] = "depth"
    pace_ft_s: Annotated[float, Field(ge=0.3, le=8)]
    count_s: Annotated[float, Field(ge=0, le=120)]
    cast_ft: Annotated[float, Field(ge=15, le=180)] = 80.0
    rod_tip_height_ft: Annotated[float, Field(ge=0, le=12)] = 2.0
    depth_ft: Annotated[float, Field(ge=0.5, le=60)]

    def seen(self, catalog: Catalog) -> DepthCheck:
        return DepthCheck(
            rig=self.rig(catalog),
            line=self.line(catalog),
            pace_m_s=metres(self.pace_ft_s),
            count_s=self.count_s,
            cast_m=metres(self.cast_ft),
            depth_m=metres(self.depth_ft),
            rod_tip_m=metres(self.rod_tip_height_ft),
            temperature_f=self.water_temp_f,
        )


class MatRecord(RigRecord):
    """A quiet entry that went through, or stalled."""

    kind: ClassVar[str] = "mat"
    texture: Annotated[str, OneOf(tuple(BY_FIELD["texture"].all_words))] = "milfoil"
    thickness_in: Annotated[float, Field(ge=0.5, le=36)]
    through: bool

    def seen(self, catalog: Catalog) -> MatCheck:
        stand = Stand("matted-grass", texture=self.texture, thickness_in=self.thickness_in)
        return MatCheck(
            self.texture, counting_oz(self.rig(catalog)), halfway_oz(catalog, stand), self.through
        )


Record = DropRecord | DepthRecord | MatRecord
KINDS: dict[str, type[Record]] = {k.kind: k for k in (DropRecord, DepthRecord, MatRecord)}


def checked(catalog: Catalog, kind: str, data: dict[str, Any], at: str = "") -> Record:
    """A record of ``kind``; BadInput names the field, what was given and what is allowed."""
    if kind not in KINDS:
        raise BadInput(f"{at}kind", kind, "one of " + ", ".join(KINDS))
    try:
        record = KINDS[kind].model_validate(data)
    except ValidationError as error:
        raise refused(KINDS[kind], error, "such a test", at) from error
    try:
        record.seen(catalog)
    except BadInput as refusal:
        raise BadInput(at + refusal.field, refusal.given, refusal.allowed) from refusal
    return record


def add(session: Session, record: Record, uid: str | None = None) -> Observation:
    """Keep a record, under its name for good when it has one."""
    body = record.model_dump(exclude_none=True)
    row = Observation(kind=record.kind, body=body, version=CURRENT["observation"], uid=uid or new_uid())
    session.add(row)
    session.flush()
    return row


def body_of(row: Observation) -> dict[str, Any]:
    """A row's fields, in today's form."""
    return upgraded("observation", row.kind, row.version, row.body)


def record_of(row: Observation) -> Record:
    """A kept row as its record."""
    return KINDS[row.kind].model_validate(body_of(row))


def listed(session: Session, with_withdrawn: bool = False) -> Sequence[Observation]:
    """Observations in the order they were made."""
    return rows.listed(session, Observation, with_withdrawn)


def withdraw(session: Session, id_: int, back: bool = False) -> Observation | None:
    """Withdraw an observation, or take the withdrawal ``back``; None when there is none."""
    return (rows.take_back if back else rows.put_away)(session, Observation, id_)
