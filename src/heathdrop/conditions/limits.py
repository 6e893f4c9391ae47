"""What a field may hold, in words for a refusal: read off the model, so that it is said once, there."""

from dataclasses import dataclass
from functools import cache
from typing import Any

from pydantic import BaseModel, GetCoreSchemaHandler, ValidationError
from pydantic_core import CoreSchema, core_schema

from heathdrop.errors import BadInput
from heathdrop.reading import unit_of
from heathdrop.units import ounces_as_written


@dataclass(frozen=True)
class OneOf:
    """A word of a list, in the schema too: ``Annotated[str, OneOf(words)]``."""

    words: tuple[str, ...]

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        """One of the words."""
        return core_schema.literal_schema(list(self.words))


@cache
def _fields(model: type[BaseModel]) -> dict[str, Any]:
    """The JSON schemas of a model's fields, made once: a file of faulty rows asks for them row by row."""
    fields: dict[str, Any] = model.model_json_schema()["properties"]
    return fields


def schema_of(model: type[BaseModel], name: str) -> dict[str, Any]:
    """A field's JSON schema; the part that is not null where it may be left out."""
    schema: dict[str, Any] = _fields(model)[name]
    return next((one for one in schema.get("anyOf", ()) if one.get("type") != "null"), schema)


def allowed(model: type[BaseModel], name: str) -> str:
    """What a field may hold: ``from 1/32 to 4 oz``, ``one of light, heavy``, ``yes or no``."""
    return _allowed(schema_of(model, name), name)


def _allowed(schema: dict[str, Any], name: str) -> str:
    unit = unit_of(name).replace("°f", "°F").replace("/turn", " a turn")
    if "enum" in schema:
        return "one of " + ", ".join(schema["enum"])
    if "minimum" in schema:
        plain = ounces_as_written if unit == "oz" else "{:g}".format
        whole = "a whole number " if schema["type"] == "integer" else ""
        return f"{whole}from {plain(schema['minimum'])} to {plain(schema['maximum'])} {unit}".rstrip()
    if schema["type"] == "array":
        each = _allowed(schema["items"], name).removeprefix("from ")
        return f"{schema['minItems']} to {schema['maxItems']} times of {each}"
    if schema["type"] == "boolean":
        return "yes or no"
    return f"a text of at most {schema['maxLength']} characters" if "maxLength" in schema else "a text"


def unread(text: str) -> str:
    """A typed text that no number was read from, for its field to refuse; marked where Python alone reads
    one (``5e0``), which nobody turned into the field's unit."""
    try:
        float(text)
    except ValueError:
        return text
    return f"{text} (not read)"


def refused(model: type[BaseModel], error: ValidationError, what: str, at: str = "") -> BadInput:
    """The first refusal of ``model`` (``what`` it is of) in words, ``at`` before its field."""
    first = error.errors()[0]
    name, given = str(first["loc"][0]), first["input"]
    if first["type"] == "extra_forbidden":
        return BadInput(at + name, given, f"left out: {what} has no such field")
    if isinstance(given, list):
        given = ", ".join(map(str, given)) or "empty"
    return BadInput(at + name, None if first["type"] == "missing" else given, allowed(model, name))
