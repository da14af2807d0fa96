"""The steps of one run, each with what it asks for and its clock."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.bench.trials.plan import (
    AFTER,
    BEFORE,
    CARRY,
    FEED,
    LEAK,
    MASSES,
    MONITOR,
    READ,
    RULER,
    WAYS,
    Ask,
    Plan,
)
from fenwick.core.rules import rule


@dataclass(frozen=True)
class Step:
    """One step."""

    key: str  #: reset, before, feed, run-on, after, shut, cool, still-air, read or look
    asks: tuple[Ask, ...] = ()
    seconds: float | None = None  #: on its clock; None: it has none


def steps(plan: Plan) -> tuple[Step, ...]:
    """The steps of a run of a plan, in order: set back first, look and note last."""
    return (Step("reset"), *_middle(plan), Step("look"))


def _middle(plan: Plan) -> tuple[Step, ...]:
    def asked(stage: str) -> tuple[Ask, ...]:
        return tuple(ask for ask in WAYS[plan.way].asks if ask.stage == stage)

    if plan.way in (MASSES, RULER, CARRY):
        weigh = Step("weigh-feed", asked(FEED))
        feed, clear = Step("feed", (), plan.feed_seconds), Step("run-on", (), rule("test.run-on").value)
        return (Step("before", asked(BEFORE)), weigh, feed, clear, Step("after", asked(AFTER)))
    if plan.way == LEAK:
        shut, cool = rule("test.shut").value, Step("cool", (), rule("test.cool").value)
        return (Step("sealed", asked(BEFORE), shut), cool, Step("shut", asked(READ), shut), cool)
    if plan.way == MONITOR:
        return (Step("still-air", (), rule("test.still-air").value), Step("cut", asked(READ)))
    first = asked(BEFORE)
    return (*((Step("before", first),) if first else ()), Step("read", asked(READ)))


def fed_by_clock(plan: Plan, step: int, counted: float) -> bool:
    """Whether a step that feeds has had its time; one that does not feed always has.

    Parameters
    ----------
    step : its place among the steps of a run [-]
    counted : by its clock [s]
    """
    here = steps(plan)[step]
    if here.key != "feed" or here.seconds is None:
        return True
    return counted >= rule("test.feed-early").value * here.seconds
