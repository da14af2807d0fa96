"""What a test found beside what the model expected of each state, and of their difference."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.bench.trials.compare import Comparison
from fenwick.core.bench.trials.expect import Expected, expected_band
from fenwick.core.bench.trials.summary import Summary
from fenwick.core.rules import rule
from fenwick.core.tuning.fit import REACH

AGREES, HIGHER, LOWER, NOT_SURE = "agrees", "higher", "lower", "not sure"
#: what a whole test says of the model: it holds; all states lie off alike; one state does; some, not alike; nothing yet
HOLDS, ALIKE, ONE, MIXED, NOTHING = "holds", "alike", "one", "mixed", "nothing"


@dataclass(frozen=True)
class Held:
    """One figure, measured and expected, in the outcome's unit."""

    expected: Expected
    found: float
    off: float  #: found less expected
    apart: float  #: the same over what both are unsure of [-]
    verdict: str  #: agrees, higher, lower or not sure
    surer: bool  #: whether the test is surer than the model: tuned to it, the line would be the better known


def held(expected: Expected, found: float, sd: float, *, unsure: bool = False) -> Held:
    """A figure beside what was expected of it.

    Parameters
    ----------
    found : as measured, in the outcome's unit
    sd : its standard uncertainty, in the same unit
    unsure : whether not even its uncertainty is known
    """
    off = found - expected.value
    side = expected.high - expected.value if off > 0.0 else expected.value - expected.low
    reach = rule("test.off-model").value
    both = float(np.hypot(max(side, 0.0) / REACH, sd))
    apart = off / both if both > 0.0 else 0.0 if off == 0.0 else float(np.sign(off)) * np.inf
    verdict = NOT_SURE if unsure else AGREES if abs(apart) <= reach else HIGHER if off > 0.0 else LOWER
    return Held(expected, found, off, apart, verdict, not unsure and sd < expected.sd)


def held_states(drawn: Sequence[Array | None], found: Sequence[Summary | None]) -> tuple[Held | None, ...]:
    """Every state beside what was expected of it; None where either is not known.

    Parameters
    ----------
    drawn : what the model expects of each, as it stands and drawn, shape (1 + draws,) each [the outcome's unit]
    found : its repeats together
    """
    return tuple(
        None if values is None or one is None else held(expected_band(values), one.mean, one.sd, unsure=one.low is None)
        for values, one in zip(drawn, found, strict=True)
    )


def held_difference(
    first: Array | None, other: Array | None, found: object, states: tuple[Summary | None, Summary | None]
) -> Held | None:
    """The difference of two states beside what was expected of it, draw by draw; None where either is not known.

    Parameters
    ----------
    first, other : what the model expects of each, shape (1 + draws,) [the outcome's unit]
    found : the comparison of the two; of grades there is no difference
    states : the repeats of each together
    """
    if first is None or other is None or not isinstance(found, Comparison) or states[0] is None or states[1] is None:
        return None
    sd = float(np.hypot(states[0].sd, states[1].sd))
    return held(expected_band(other - first), found.difference, sd, unsure=found.low == found.high)


def what_it_says(states: Sequence[Held | None]) -> str:
    """What a test says of the model: HOLDS, ALIKE, ONE, MIXED or NOTHING."""
    told = [one for one in states if one is not None and one.verdict != NOT_SURE]
    off = [one for one in told if one.verdict != AGREES]
    if not told:
        return NOTHING
    if not off:
        return HOLDS
    if len(off) == len(told) > 1 and len({one.verdict for one in off}) == 1:
        return ALIKE
    return ONE if len(off) == 1 else MIXED
