"""Cover as the angler says it: a row each."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from heathdrop.conditions.quantity import STRICT, Quantity, same

#: Cover whose top depth must be told.
WITH_TOP = ("submerged-grass",)
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
            words=same("open", "submerged-grass", "matted-grass", "pads", "reeds", "wood", "rock", "docks"),
            group="first",
            start="submerged-grass",
            fact="cover",
        ),
    ] = "open"
    top_depth_ft: Annotated[
        float | None, Quantity("Tops at", "ft", 0, 60, 0.5, group="first", start=7.0, cover=WITH_TOP)
    ] = None
    density: Annotated[
        str | None,
        Quantity(
            "It stands",
            words=same("sparse", "moderate", "thick"),
            group="first",
            cover=("submerged-grass", "pads", "reeds", "wood", "docks"),
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
            cover=("matted-grass",),
            fact="thickness_in",
            edge=1.0,
        ),
    ] = None
    texture: Annotated[
        str | None,
        Quantity(
            "Mat of", words=TEXTURES, group="first", start="milfoil", cover=("matted-grass",), fact="texture"
        ),
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

    @property
    def stands(self) -> str:
        """How dense it stands, the usual where nobody said."""
        return self.density or USUAL_DENSITY


#: No cover at all.
OPEN = Cover()
