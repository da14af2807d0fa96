"""Changes of a way's record: each takes the record and gives another, and does nothing that is done already."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from fenwick.way_kept.model import MOST_STEPS, MOST_STRUCK, KeptStep, KeptWay


def _with(way: KeptWay, **changes: Any) -> KeptWay:
    return KeptWay.model_validate({**way.model_dump(), **changes})


def ask(way: KeptWay, spend: float | None, hours: float | None) -> KeptWay:
    """What may be spent.

    Parameters
    ----------
    spend : in the shop's money, None: no limit [money]
    hours : None: no limit [h]
    """
    return _with(way, spend=spend, hours=hours)


def take(way: KeptWay, steps: Sequence[KeptStep]) -> KeptWay:
    """The steps of a way that was found, in the place of those that were to do; what is done stays."""
    done = way.done[-(MOST_STEPS // 2) :]
    known = {step.key for step in done}
    return _with(way, steps=(*done, *(step for step in steps if step.key not in known)))


def leave(way: KeptWay) -> KeptWay:
    """The way given up: what is done stays on record."""
    return _with(way, steps=way.done)


def tick(way: KeptWay, key: str, day: str) -> KeptWay:
    """A step done; it goes behind those that were done before it.

    Parameters
    ----------
    day : YYYY-MM-DD
    """
    step = next((one for one in way.to_do if one.key == key), None)
    if step is None:
        return way
    others = [one for one in way.to_do if one.key != key]
    return _with(way, steps=(*way.done, KeptStep(**{**step.model_dump(), "done": day}), *others))


def untick(way: KeptWay, key: str) -> KeptWay:
    """A step that is not done after all; it is the next to do."""
    if key not in {step.key for step in way.done}:
        return way
    back = [KeptStep(**{**step.model_dump(), "done": None}) for step in way.done if step.key == key]
    return _with(way, steps=(*(step for step in way.done if step.key != key), *back, *way.to_do))


def strike(way: KeptWay, key: str) -> KeptWay:
    """A step that is out of the question, in this way and in every other."""
    steps = tuple(step for step in way.steps if step.key != key or step.done is not None)
    struck = way.struck if key in way.struck else (*way.struck, key)
    return _with(way, steps=steps, struck=struck[-MOST_STRUCK:])


def unstrike(way: KeptWay, key: str) -> KeptWay:
    """A step that may be thought of again."""
    return _with(way, struck=tuple(one for one in way.struck if one != key))


def move(way: KeptWay, key: str, by: int) -> KeptWay:
    """A step that is to do, earlier or later among those.

    Parameters
    ----------
    by : places, negative is earlier [-]
    """
    steps = list(way.to_do)
    at = next((i for i, step in enumerate(steps) if step.key == key), None)
    if at is None:
        return way
    step = steps.pop(at)
    steps.insert(max(0, min(len(steps), at + by)), step)
    return _with(way, steps=(*way.done, *steps))
