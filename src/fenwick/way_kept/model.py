"""The record of a way as a document."""

from __future__ import annotations

from functools import lru_cache
from typing import Annotated, Literal

from pydantic import Field, StringConstraints, ValidationError

from fenwick.rig.format import fields as f
from fenwick.rig.format.problems import Problem, RigError

MOST_STEPS, MOST_STRUCK = 60, 400
DoneDay = Annotated[str, StringConstraints(pattern=r"^\d{4}-\d\d-\d\d$")]
MoveKey = Annotated[str, StringConstraints(min_length=1, max_length=200)]
StepWords = Annotated[str, StringConstraints(max_length=300)]
Takes = Annotated[float, Field(ge=0.0, le=1e9)]


class KeptStep(f.Part):
    """A step of the way."""

    key: MoveKey
    words: StepWords  #: as it read when it was taken up
    cost: Takes
    hours: Takes
    done: DoneDay | None = None


class KeptWay(f.Part):
    """The way of one line: `format` fenwick-way, version 1."""

    format: Literal["fenwick-way"] = "fenwick-way"
    version: Literal[1] = 1
    spend: Takes | None = None
    hours: Takes | None = None
    struck: tuple[MoveKey, ...] = Field((), max_length=MOST_STRUCK)
    steps: tuple[KeptStep, ...] = Field((), max_length=MOST_STEPS)

    @property
    def to_do(self) -> tuple[KeptStep, ...]:
        """What is not done yet, in order."""
        return tuple(step for step in self.steps if step.done is None)

    @property
    def done(self) -> tuple[KeptStep, ...]:
        """What is done, in the order it was."""
        return tuple(step for step in self.steps if step.done is not None)


def write_way(way: KeptWay) -> str:
    """The record as JSON."""
    return way.model_dump_json()


@lru_cache(maxsize=64)
def read_way(text: str) -> KeptWay:
    """The record in a document.

    Raises
    ------
    RigError
        When it is none.
    """
    try:
        return KeptWay.model_validate_json(text, strict=False)
    except ValidationError as error:
        message = error.errors()[0]["msg"]
        raise RigError((Problem("", f"the record of the way cannot be read: {message}"),)) from error
