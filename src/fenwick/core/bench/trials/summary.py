"""Repeats of one state together: the mean, its interval, and what it owes to the instrument and to the scatter."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.formulas.metrology import student
from fenwick.core.rules import rule

SURE = 0.95  #: of an interval [-]


@dataclass(frozen=True)
class Summary:
    """Repeats together, in the readings' unit."""

    mean: float
    low: float | None
    high: float | None  #: of the interval at `SURE`; None: neither the instrument's doubt nor any scatter is known
    scatter: float | None  #: standard deviation between runs; None from a single run
    by_instrument: float  #: standard uncertainty that the instrument alone leaves in the mean
    by_repeats: float | None  #: that the scatter leaves in it

    @property
    def sd(self) -> float:
        """Standard uncertainty of the mean: the scatter holds the instrument's part already."""
        return max(self.by_instrument, self.by_repeats or 0.0)


def summary(values: Sequence[float], sds: Sequence[float], within: tuple[float, float]) -> Summary | None:
    """Repeats together; None where there are none.

    The instrument's part is independent from run to run; the scatter between runs holds it already, so that the wider
    of the two intervals speaks for the mean.

    Parameters
    ----------
    values : of the runs [unit of the kind of test]
    sds : standard uncertainty of each by the instrument alone [the same unit]
    within : least and most that can be, to which the interval is cut [the same unit]
    """
    n = len(values)
    if n == 0:
        return None
    mean = float(np.mean(values))
    by_instrument = float(np.sqrt(np.sum(np.square(sds)))) / n
    half, scatter, by_repeats = float(student(SURE, 1e6)) * by_instrument, None, None
    if n > 1:
        scatter = float(np.std(values, ddof=1))
        by_repeats = scatter / float(np.sqrt(n))
        half = max(half, float(student(SURE, n - 1)) * by_repeats)
    if half <= 0.0:
        return Summary(mean, None, None, scatter, by_instrument, by_repeats)
    low, high = max(mean - half, within[0]), min(mean + half, within[1])
    return Summary(mean, low, high, scatter, by_instrument, by_repeats)


def nearly_all(state: Summary) -> bool:
    """Whether a share may be all there is, so that people would say “99 %” of it."""
    return state.high is not None and state.high >= rule("test.nearly-all").value


def dry(state: Summary) -> bool | None:
    """Whether it is dry behind a wet stage; None: it cannot be told."""
    limit = rule("test.dry").value
    if state.low is None or state.high is None:
        return None
    return True if state.high <= limit else False if state.low > limit else None
