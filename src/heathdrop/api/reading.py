"""What was typed, read back as JSON: nothing is kept by it."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from heathdrop import catalog as catalogue
from heathdrop.conditions.request import Body
from heathdrop.store.files.readback import Read, read_lines


class ReadRequest(Body):
    """Lines as people type them: tackle, the rods of a plan, or days on the water."""

    what: Literal["tackle", "rods", "day"]
    text: Annotated[str, Field(min_length=1, max_length=40_000)]


class LineRead(BaseModel):
    """A line with the pieces it names (each with its ``kind``), fields that are missing, words that were not
    used, what is asked (null: nothing), and whether it can be kept as it is."""

    line: str
    items: list[dict[str, Any]]
    missing: list[str]
    unused: list[str]
    ask: str | None
    ready: bool


class ReadAnswer(BaseModel):
    lines: list[LineRead]


def read_answer(request: ReadRequest) -> ReadAnswer:
    """The lines read. Raises BadInput for too many, or none."""
    return ReadAnswer(lines=[_line(one) for one in read_lines(catalogue.load(), request.what, request.text)])


def _line(one: Read) -> LineRead:
    return LineRead(
        line=one.line,
        items=[{"kind": kind, **{k: v for k, v in data.items() if v != ""}} for kind, data in one.items],
        missing=list(one.missing),
        unused=list(one.unused),
        ask=one.ask or None,
        ready=one.ready,
    )
