"""A rig's one name: what it is made of, as text for addresses and records, and back again.

``swim-jig:0.5:craw`` is a half-ounce swim jig with a craw and everything else as usual; whatever is
not as usual follows as ``key=value``, so that two rigs that differ never share a name.
"""

from collections.abc import Mapping
from dataclasses import dataclass, fields, replace
from typing import Any

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.physics.rig import UNMEASURED, Rig, rig_by_name

#: The usual choice where a name says nothing.
USUAL = {"head_material": "lead", "plastic": "neutral", "softness": "soft", "orientation": "flat"}
LONGEST = 200


@dataclass(frozen=True, order=True)
class RigName:
    """Family, head and trailer, and what differs from the usual. Empty text and 0 mean: as usual, not
    measured."""

    family: str
    head_oz: float
    trailer: str
    length_in: float = 0.0
    material: str = ""
    skirt: str = ""
    shape: str = ""
    plastic: str = ""
    softness: str = ""
    turned: str = ""
    blades: str = ""
    fused: bool = False
    head_g: float = 0.0
    trailer_g: float = 0.0
    width: float = 0.0

    def text(self) -> str:
        """The name as one text."""
        parts = [self.family, f"{self.head_oz:.6g}", self.trailer]
        for field in fields(self)[3:]:
            value = getattr(self, field.name)
            if value:
                said = "yes" if value is True else f"{value:.6g}" if isinstance(value, float) else value
                parts.append(f"{field.name}={said}")
        return ":".join(parts)

    @staticmethod
    def parse(text: str) -> "RigName":
        """The name in a text. Raises BadInput for a text that names no rig."""
        wrong = BadInput("pick", text, "a rig's name, such as swim-jig:0.5:craw")
        parts = text.split(":")
        if len(parts) < 3 or len(text) > LONGEST:
            raise wrong
        more: dict[str, object] = {}
        kinds = {f.name: f.type for f in fields(RigName)[3:]}
        for part in parts[3:]:
            key, _, value = part.partition("=")
            if key not in kinds or not value or key in more:
                raise wrong
            try:
                more[key] = value == "yes" if kinds[key] is bool else kinds[key](value)  # type: ignore[operator]
            except ValueError:
                raise wrong from None
        try:
            return RigName(parts[0], float(parts[1]), parts[2], **more)  # type: ignore[arg-type]
        except ValueError:
            raise wrong from None

    def rig(self, catalog: Catalog) -> Rig:
        """The rig of this name. Raises BadInput for an unknown part or an impossible number."""
        renamed = {GIVEN_AS.get(f.name, f.name): getattr(self, f.name) for f in fields(self)}
        return rig_given(catalog, renamed, at="pick ")


#: Fields of a name that go by another word where a rig is given field by field.
GIVEN_AS = {
    "length_in": "trailer_length_in",
    "material": "head_material",
    "shape": "head_shape",
    "turned": "orientation",
}
#: Fields that a rig is looked up by, besides family, head and trailer.
LOOKED_UP = ("trailer_length_in", "skirt", "head_shape", "plastic", "softness", "orientation", "blades")


def rig_given(catalog: Catalog, given: Mapping[str, Any], at: str = "") -> Rig:
    """The rig of a record's fields (:class:`heathdrop.conditions.given.RigGiven`), weighed and measured where
    it was. Raises BadInput naming a field under ``at`` for an unknown part or an impossible number."""
    plain = rig_by_name(
        catalog,
        given["family"],
        given["head_oz"],
        given["trailer"],
        head_material=given["head_material"] or USUAL["head_material"],
        fused=bool(given["fused"]),
        at=at,
        **{k: given[k] or None for k in LOOKED_UP},
    )
    head_g, trailer_g, width = (given[k] or None for k in ("head_g", "trailer_g", "width"))
    for what, grams in (("head_g", head_g), ("trailer_g", trailer_g)):
        if grams is not None and not 0.2 <= grams <= 200.0:
            raise BadInput(f"{at}{what}", grams, "from 0.2 to 200 g")
    if width is not None and not 0.05 <= width <= 20.0:
        raise BadInput(f"{at}width", width, "from 0.05 to 20 times the usual")
    own = replace(UNMEASURED, head_g=head_g, trailer_g=trailer_g, width=width or 1.0)
    return replace(plain, measured=own)


def given_of(rig: Rig) -> dict[str, Any]:
    """A rig's fields as a record carries them, all of them said: :func:`rig_given` turned round."""
    name = name_of(rig)
    return {
        "family": name.family,
        "head_oz": name.head_oz,
        "trailer": name.trailer,
        "trailer_length_in": 0.0 if rig.trailer.bare else rig.trailer_length_in,
        "head_material": rig.head_material.id,
        "skirt": rig.skirt.id,
        "head_shape": rig.head_shape.id,
        "plastic": rig.plastic.id,
        "softness": rig.softness.id,
        "orientation": rig.orientation.id,
        "blades": rig.blades.id if rig.blades else None,
        "fused": name.fused or None,
        "head_g": name.head_g or None,
        "trailer_g": name.trailer_g or None,
        "width": name.width or None,
    }


def name_of(rig: Rig) -> RigName:
    """The name of a rig: what was weighed and measured is part of it, what was learned is not."""
    family, own = rig.family, rig.measured

    def unless(value: str, usual: str) -> str:
        return "" if value == usual else value

    return RigName(
        family=family.id,
        head_oz=rig.head_oz,
        trailer=rig.trailer.id,
        length_in=0.0 if rig.trailer_length_in == rig.trailer.length_in else rig.trailer_length_in,
        material=unless(rig.head_material.id, USUAL["head_material"]),
        skirt=unless(rig.skirt.id, family.skirt),
        shape=unless(rig.head_shape.id, family.head_shape),
        plastic=unless(rig.plastic.id, USUAL["plastic"]),
        softness=unless(rig.softness.id, USUAL["softness"]),
        turned=unless(rig.orientation.id, USUAL["orientation"]),
        blades=unless(rig.blades.id, family.blades) if rig.blades else "",
        fused=rig.fused,
        head_g=own.head_g or 0.0,
        trailer_g=own.trailer_g or 0.0,
        width=0.0 if own.width == 1.0 else own.width,
    )
