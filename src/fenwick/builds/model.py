"""The record of one build as a document."""

from __future__ import annotations

from functools import lru_cache
from typing import Annotated, Literal

from pydantic import Field, StringConstraints, ValidationError

from fenwick.rig.format import fields as f
from fenwick.rig.format.problems import Problem, RigError

Time = Annotated[str, StringConstraints(pattern=r"^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ$")]
Key = Annotated[str, StringConstraints(min_length=1, max_length=80, pattern=r"^[A-Za-z0-9_.:\[\]-]+$")]
Remark = Annotated[str, StringConstraints(max_length=500)]
Decision = Literal["", "keep", "shim", "recut", "trim"]
HoursAtHand = Literal["20-minutes", "evening", "weekend", "days"]


class DoneStep(f.Part):
    """A step that is done."""

    step: Key
    at: Time


class CutFigure(f.Part):
    """A dimension as it was cut or measured."""

    part: Key
    dim: Key
    value_m: f.Depth
    decision: Decision = ""


class Clock(f.Part):
    """A cure that goes on."""

    step: Key
    since: Time


class SeenAtStart(f.Part):
    """What was seen at the first switch-on."""

    check: Key
    fine: f.Flag
    note: Remark = ""
    at: Time | None = None


class MadeFor(f.Part):
    """A part as it was wanted when it was made."""

    part: Key
    material: Key
    thickness_m: f.Depth
    dims: dict[Key, float] = Field(max_length=60)


class BuildFile(f.Part):
    """One build: `format` fenwick-build, version 1."""

    format: Literal["fenwick-build"] = "fenwick-build"
    version: Literal[1] = 1
    what: Key
    bought: f.Flag = False
    hours: HoursAtHand = "weekend"
    begun: Time | None = None
    order: tuple[Key, ...] = Field((), max_length=200)  #: of the steps, where it was changed by hand
    done: tuple[DoneStep, ...] = Field((), max_length=200)
    got: tuple[Key, ...] = Field((), max_length=200)  #: parts and sheets that are there
    cut: tuple[CutFigure, ...] = Field((), max_length=500)
    made: tuple[MadeFor, ...] = Field((), max_length=200)
    clocks: tuple[Clock, ...] = Field((), max_length=100)
    first_run: tuple[SeenAtStart, ...] = Field((), max_length=40)


def write_build(build: BuildFile) -> str:
    """The record as JSON."""
    return build.model_dump_json()


@lru_cache(maxsize=256)
def read_build(text: str) -> BuildFile:
    """The record in a document.

    Raises
    ------
    RigError
        When it is none.
    """
    try:
        return BuildFile.model_validate_json(text, strict=False)
    except ValidationError as error:
        message = error.errors()[0]["msg"]
        raise RigError((Problem("", f"the record of the build cannot be read: {message}"),)) from error
