"""A rig as phones, files and programs give it: by catalogue names, weighed and measured where it was."""

from heathdrop.conditions.request import Body, Id, Number


class RigGiven(Body):
    """A rig field by field; what is left out is the family's usual, and not weighed. ``head_g`` and
    ``trailer_g`` are weighed (g), ``width`` is the trailer's measured over its usual width."""

    family: Id
    head_oz: Number
    trailer: Id
    trailer_length_in: Number | None = None
    head_material: Id = "lead"
    skirt: Id | None = None
    head_shape: Id | None = None
    plastic: Id | None = None
    softness: Id | None = None
    orientation: Id | None = None
    blades: Id | None = None
    fused: bool | None = None
    head_g: Number | None = None
    trailer_g: Number | None = None
    width: Number | None = None


#: The fields of a rig, for doors that take it out of a longer record.
RIG_FIELDS = tuple(RigGiven.model_fields)
