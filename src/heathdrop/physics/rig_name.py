"""A rig's one name: what it is made of, as text for addresses and records, and back again.

``swim-jig:0.5:craw`` is a half-ounce swim jig with a craw and everything else as usual; whatever is
not as usual follows as ``key=value``, so that two rigs that differ never share a name.
"""

from __future__ import annotations

from dataclasses import dataclass, fields, replace

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.physics.rig import UNMEASURED, Rig, rig_by_name

__all__ = ["USUAL", "RigName", "name_of"]

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
    def parse(text: str) -> RigName:
        """The name in a text. Raises BadInput for a text that names no rig."""
        wrong = BadInput("pick", text, "a rig's name, such as swim-jig:0.5:craw")
        parts = text.split(":")
        if len(parts) < 3 or len(text) > LONGEST:
            raise wrong
        more: dict[str, object] = {}
        known = {f.name: f.type for f in fields(RigName)[3:]}
        for part in parts[3:]:
            key, _, value = part.partition("=")
            if key not in known or not value or key in more:
                raise wrong
            try:
                more[key] = (
                    float(value)
                    if known[key] == "float"
                    else value == "yes"
                    if known[key] == "bool"
                    else value
                )
            except ValueError:
                raise wrong from None
        try:
            return RigName(parts[0], float(parts[1]), parts[2], **more)  # type: ignore[arg-type]
        except ValueError:
            raise wrong from None

    def rig(self, catalog: Catalog) -> Rig:
        """The rig of this name. Raises BadInput for an unknown part or an impossible number."""
        plain = rig_by_name(
            catalog,
            self.family,
            self.head_oz,
            self.trailer,
            head_material=self.material or USUAL["head_material"],
            trailer_length_in=self.length_in or None,
            skirt=self.skirt or None,
            head_shape=self.shape or None,
            plastic=self.plastic or None,
            softness=self.softness or None,
            orientation=self.turned or None,
            blades=self.blades or None,
            fused=self.fused,
            at="pick ",
        )
        for what, grams in (("head_g", self.head_g), ("trailer_g", self.trailer_g)):
            if grams and not 0.2 <= grams <= 200.0:
                raise BadInput(f"pick {what}", grams, "from 0.2 to 200 g")
        if self.width and not 0.05 <= self.width <= 20.0:
            raise BadInput("pick width", self.width, "from 0.05 to 20 times the usual")
        own = replace(
            UNMEASURED, head_g=self.head_g or None, trailer_g=self.trailer_g or None, width=self.width or 1.0
        )
        return replace(plain, measured=own)


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
