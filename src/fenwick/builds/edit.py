"""Changes of a build's record: each takes the record and gives another, and does nothing that is done already."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from fenwick.builds.model import BuildFile, Clock, CutFigure, DoneStep, MadeFor, SeenAtStart


def _with(build: BuildFile, **changes: Any) -> BuildFile:
    return BuildFile.model_validate({**build.model_dump(), **changes})


def tick(build: BuildFile, step: str, at: str, *, cures: bool) -> BuildFile:
    """A step done; its cure begins.

    Parameters
    ----------
    at : date and time, UTC
    cures : whether it cures
    """
    if any(one.step == step for one in build.done):
        return build
    clocks = (*(one for one in build.clocks if one.step != step), *((Clock(step=step, since=at),) if cures else ()))
    return _with(build, done=(*build.done, DoneStep(step=step, at=at)), clocks=clocks, begun=build.begun or at)


def remember(build: BuildFile, made: Sequence[MadeFor]) -> BuildFile:
    """Parts as they were wanted when they were begun; what is known of one already stays."""
    known = {one.part for one in build.made}
    return _with(build, made=(*build.made, *(one for one in made if one.part not in known)))


def forget(build: BuildFile, part: str) -> BuildFile:
    """A part that is made anew."""
    return _with(build, made=tuple(one for one in build.made if one.part != part))


def untick(build: BuildFile, step: str) -> BuildFile:
    """A step that is not done after all."""
    return _with(
        build,
        done=tuple(one for one in build.done if one.step != step),
        clocks=tuple(one for one in build.clocks if one.step != step),
    )


def note_cut(build: BuildFile, part: str, dim: str, value: float | None) -> BuildFile:
    """A dimension as it was cut; None: not measured after all.

    Parameters
    ----------
    value : [m]
    """
    kept = tuple(one for one in build.cut if (one.part, one.dim) != (part, dim))
    new = () if value is None else (CutFigure(part=part, dim=dim, value_m=value),)
    return _with(build, cut=(*kept, *new))


def decide(build: BuildFile, part: str, dim: str, decision: str) -> BuildFile:
    """What is done about a dimension as it was cut."""
    return _with(
        build,
        cut=tuple(
            {**one.model_dump(), "decision": decision} if (one.part, one.dim) == (part, dim) else one
            for one in build.cut
        ),
    )


def get(build: BuildFile, thing: str, *, there: bool) -> BuildFile:
    """A part or a sheet that is there, or is not."""
    kept = tuple(one for one in build.got if one != thing)
    return _with(build, got=(*kept, thing) if there else kept)


def move(build: BuildFile, order: Sequence[str], step: str, by: int) -> BuildFile:
    """A step earlier (−1) or later (+1) in an order.

    Parameters
    ----------
    order : ids of all steps as they stand
    by : places [-]
    """
    names = list(order)
    if step not in names:
        return build
    at = names.index(step)
    to = min(max(at + by, 0), len(names) - 1)
    names.insert(to, names.pop(at))
    return _with(build, order=tuple(names))


def choose(build: BuildFile, **choices: Any) -> BuildFile:
    """Bought or made, hours at hand; the order as it was listed."""
    return _with(build, **choices)


def see(build: BuildFile, check: str, at: str, *, fine: bool, note: str) -> BuildFile:
    """What was seen at the first switch-on.

    Parameters
    ----------
    at : time in UTC
    fine : whether it is as it should be
    note : in one's own words
    """
    if any((one.check, one.fine, one.note) == (check, fine, note) for one in build.first_run):
        return build
    kept = tuple(one for one in build.first_run if one.check != check)
    return _with(build, first_run=(*kept, SeenAtStart(check=check, fine=fine, note=note, at=at)))
