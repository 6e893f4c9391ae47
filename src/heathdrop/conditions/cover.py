"""Cover as the angler says it: a row each."""

from dataclasses import dataclass
from typing import Annotated

from heathdrop.conditions.quantity import STRICT, Quantity, same


@dataclass(frozen=True)
class Kind:
    """A kind of cover. ``does`` says what it does to a lure: ``stems`` foul it, a ``mat`` stops it, ``wood``
    and ``stone`` hang it (empty: nothing). Its top (said so) ``must`` or ``may`` be told; it may have holes
    and an edge that fish keep to, be dense or sparse; a lure may be swum ``beside`` it, and goes in ``under``
    it; fish are ``within`` it from its top down."""

    id: str
    does: str = ""
    top: str = ""
    top_said: str = "top"
    holes: bool = False
    edge: bool = False
    dense: bool = False
    beside: bool = False
    under: bool = False
    within: bool = False


#: Brush and timber have tops, stones a height, reeds may be laid under, a dock may float over what stands
#: beneath.
KINDS = (
    Kind("open"),
    Kind("submerged-grass", "stems", "must", "grass tops", holes=True, edge=True, dense=True),
    Kind("matted-grass", "mat", top_said="mat", holes=True, edge=True, under=True),
    Kind("pads", "stems", top_said="pads", holes=True, edge=True, dense=True),
    Kind("reeds", "stems", "may", "reed tops", holes=True, edge=True, dense=True, beside=True),
    Kind("wood", "wood", "may", "tops of the wood", edge=True, dense=True, beside=True, within=True),
    Kind("rock", "stone", "may", "tops of the stones"),
    Kind("docks", "wood", "may", edge=True, dense=True, beside=True, under=True),
)
KIND = {kind.id: kind for kind in KINDS}
#: Cover whose top depth must be told, and cover whose top may be.
WITH_TOP = tuple(kind.id for kind in KINDS if kind.top == "must")
MAY_TOP = tuple(kind.id for kind in KINDS if kind.top == "may")
#: Cover that may have holes in it, and cover with an edge that fish keep to.
HOLED = tuple(kind.id for kind in KINDS if kind.holes)
EDGED = tuple(kind.id for kind in KINDS if kind.edge)
#: Cover that is a roof: fish near it are under it, however high they stand; and cover that a lure hangs in.
ROOFS = tuple(kind.id for kind in KINDS if kind.does == "mat")
SNAGS = tuple(kind.id for kind in KINDS if kind.does in ("wood", "stone"))
TEXTURES = same("duckweed", "algae", "milfoil", "hydrilla", "hyacinth", "reeds")
#: How dense cover stands where nobody said.
USUAL_DENSITY = "moderate"


@dataclass(frozen=True, kw_only=True)
class Cover:
    """Cover by kind: how deep its top is, how dense it stands, a mat's thickness and texture, wood's or
    rock's kind."""

    __pydantic_config__ = STRICT

    kind: Annotated[
        str,
        Quantity(
            "Cover",
            words=same(*KIND),
            group="first",
            start="submerged-grass",
            fact="cover",
        ),
    ] = "open"
    top_depth_ft: Annotated[
        float | None,
        Quantity(
            "Tops at",
            "ft",
            0,
            60,
            0.5,
            group="first",
            start=7.0,
            cover=WITH_TOP,
            optional=MAY_TOP,
            optional_control="tops_ft",
            optional_blank="as usual",
            optional_from="fish_depth_ft",
            about="How deep its top is: grass, reeds, the highest branches, the tops of the stones. A lure "
            "that stays above it neither fouls nor hangs. Left empty for wood, rock, docks and reeds: as "
            "such cover usually stands.",
        ),
    ] = None
    density: Annotated[
        str | None,
        Quantity(
            "It stands",
            words=same("sparse", "moderate", "thick"),
            group="water",
            cover=tuple(kind.id for kind in KINDS if kind.dense),
            fact="density",
        ),
    ] = USUAL_DENSITY
    thickness_in: Annotated[
        float | None,
        Quantity(
            "Mat",
            "in thick",
            0.5,
            36,
            group="first",
            start=3.0,
            cover=ROOFS,
            fact="thickness_in",
            edge=1.0,
        ),
    ] = None
    texture: Annotated[
        str | None,
        Quantity("Mat of", words=TEXTURES, group="first", start="milfoil", cover=ROOFS, fact="texture"),
    ] = None
    detail: Annotated[
        str | None,
        Quantity(
            "Kind",
            by=(
                ("wood", same("laydown", "brush", "standing-timber")),
                ("rock", same("chunk", "gravel", "riprap", "bluff")),
            ),
            group="first",
            cover=("wood", "rock"),
            fact="detail",
        ),
    ] = None

    hole_ft: Annotated[
        float | None,
        Quantity(
            "Holes",
            "ft",
            0.5,
            60,
            group="water",
            optional=HOLED,
            optional_control="hole_ft",
            optional_blank="none",
            fact="hole_ft",
            edge=1.0,
            about="How wide the openings are that you fish: a lure dropped into one meets no stems.",
        ),
    ] = None
    edge: Annotated[
        bool,
        Quantity(
            "Edge",
            group="water",
            cover=EDGED,
            flag=("no", "along it"),
            about="Along an edge a lure passes beside the cover and loses no fish by it.",
        ),
    ] = False

    @property
    def row(self) -> Kind:
        """All that goes by its kind."""
        return KIND[self.kind]

    @property
    def stands(self) -> str:
        """How dense it stands, the usual where nobody said."""
        return self.density or USUAL_DENSITY


#: No cover at all.
OPEN = Cover()
