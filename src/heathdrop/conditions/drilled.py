"""A question of the trainer that was answered, as it is kept and handed over."""

import uuid
from typing import Annotated

from pydantic import AfterValidator, Field

from heathdrop.conditions.request import Body, Moment
from heathdrop.errors import plain_text

#: The longest name of a question.
LONGEST_NAME = 80


class Drilled(Body):
    """An answer: the question's name, when, its mark (0 to 1); ``asked_s`` and ``tapped_s`` of a hand's
    round, ``off`` by how much it missed (s or ft). ``id`` is the client's own: sent twice it is kept once."""

    id: uuid.UUID
    question: Annotated[str, Field(min_length=5, max_length=LONGEST_NAME), AfterValidator(plain_text)]
    time: Moment
    mark: Annotated[float, Field(ge=0, le=1)]
    off: Annotated[float, Field(ge=-1000, le=1000)] | None = None
    asked_s: Annotated[float, Field(ge=2, le=20)] | None = None
    tapped_s: Annotated[float, Field(ge=0.2, le=60)] | None = None
