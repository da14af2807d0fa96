"""How much to weigh out for a run, and how long to feed it."""

from __future__ import annotations

import numpy as np

from fenwick.core.bench.trials.foresight import by_instrument, by_scatter
from fenwick.core.bench.trials.judge import Lies
from fenwick.core.bench.trials.plan import WAYS, Plan
from fenwick.core.rules import rule

#: masses that are weighed out [kg]
MASSES_OUT = (0.02, 0.05, 0.1, 0.15, 0.2, 0.3, 0.4, 0.5, 0.7, 1.0, 1.5, 2.0, 3.0)
PACES = (30.0, 60.0, 90.0, 120.0, 180.0, 240.0, 300.0, 420.0, 600.0, 900.0)  #: clocks to feed by [s]


def amount_to_feed(plan: Plan, expected: float | None, lies: Lies, most: float | None = None) -> float:
    """The least that lets the scatter between runs rule, not the instrument [kg].

    Parameters
    ----------
    plan : of a test that feeds
    expected : outcome that the model expects, in its unit; None where it cannot say
    lies : the bin and how the dust lies in it: no run may fill it so far that its filling rules
    most : that the scale can still carry beside what lies on it [kg]; None: no limit
    """
    top = min(rule("test.feed-most").value, np.inf if most is None else most)
    if lies.bin is not None and lies.density:
        volume = float(lies.bin.volume_to(lies.bin.height))
        top = min(top, rule("test.feed-fills").value * volume * lies.density)
    least = rule("test.feed-least").value
    usable = [one for one in MASSES_OUT if least <= one <= top] or [max(min(least, top), MASSES_OUT[0])]
    if expected is None or not WAYS[plan.way].feeds:
        return min(usable, key=lambda one: abs(one - 0.5))
    for fed in usable:
        own = by_instrument(plan, expected, fed, lies.bin, lies.density)
        if own is not None and own <= rule("test.feed-fades").value * by_scatter(plan, expected):
            return fed
    return usable[-1]


def seconds_to_feed(fed: float) -> float:
    """By the clock, so that every run is fed alike [s].

    Parameters
    ----------
    fed : in a run [kg]
    """
    needed = fed / rule("test.feed-pace").value
    return next((one for one in PACES if one >= needed), PACES[-1])
