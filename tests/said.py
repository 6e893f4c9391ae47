"""What a function says of an input: its answer as plain JSON, or its refusal, for the golden files."""

from collections.abc import Callable, Iterable
from typing import Any

from pydantic import BaseModel, ValidationError

from heathdrop.errors import BadInput
from tests.golden_file import plain


def said_of(what: Callable[[], Any]) -> Any:
    """The answer (what differs from its defaults), or the sentence that refuses."""
    try:
        found = what()
    except BadInput as refusal:
        return f"refused: {refusal}"
    except ValidationError as error:
        first = error.errors()[0]
        return f"invalid: {'.'.join(map(str, first['loc']))}: {first['msg']}"
    return plain(
        found.model_dump(mode="json", exclude_defaults=True) if isinstance(found, BaseModel) else found
    )


def all_said(what: Callable[[Any], Any], inputs: Iterable[Any]) -> list[list[Any]]:
    """Each input with what is said of it."""
    return [[i if isinstance(i, str) else plain(i), said_of(lambda i=i: what(i))] for i in inputs]  # type: ignore[misc]
