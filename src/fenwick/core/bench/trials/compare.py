"""A against B: whether a change is real, not shown, or cannot be shown with this scale and so few repeats."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.formulas.metrology import repeats_needed, smallest_difference, student, welch_freedom

SURE = 0.95  #: that nothing is called real that is not [-]
REAL, NOT_SHOWN, CANNOT_SHOW = "real", "not-shown", "cannot-show"


@dataclass(frozen=True)
class Comparison:
    """B less A."""

    difference: float  #: of the means, in the readings' unit
    low: float
    high: float  #: of its interval, as sure as was asked
    effect: float | None  #: in standard deviations between runs; None where they do not scatter
    verdict: str  #: real, not-shown or cannot-show
    smallest: float  #: difference that such a test would show four times in five
    repeats: int | None  #: of each, that would show the difference seen or hoped for; None: more than fifty


def sure_of_each(states: int) -> float:
    """How sure each of several states against one must be, so that one test in twenty errs, not one pair [-].

    Parameters
    ----------
    states : how many are compared with one [-]
    """
    return 1.0 - (1.0 - SURE) / max(states - 1, 1)


def compare(
    a: Sequence[float], b: Sequence[float], reading_sd: float, hoped: float, sure: float = SURE
) -> Comparison | None:
    """Two lots of repeats; None where one has fewer than two.

    Parameters
    ----------
    a, b : results of the runs, in one unit
    reading_sd : standard uncertainty of one run by the instrument alone [unit of the values]; runs scatter no less
    hoped : difference worth knowing of, above 0 [unit of the values]
    sure : that nothing is called real that is not [-]
    """
    if len(a) < 2 or len(b) < 2:
        return None
    one, two = np.asarray(a, dtype=float), np.asarray(b, dtype=float)
    # a lucky run of equal readings must not pass for certainty: the instrument's own part is the least there is
    var_a, var_b = (max(float(np.var(x, ddof=1)), reading_sd**2) for x in (one, two))
    spread = float(np.sqrt(var_a / one.size + var_b / two.size))
    difference = float(np.mean(two) - np.mean(one))
    sd = float(np.sqrt(0.5 * (var_a + var_b)))
    if spread <= 0.0:
        same = difference == 0.0
        # neither the instrument's doubt nor any scatter is known: nothing is certain for that
        return Comparison(difference, difference, difference, None, NOT_SHOWN if same else CANNOT_SHOW, hoped, None)
    half = float(student(sure, welch_freedom(var_a, one.size, var_b, two.size))) * spread
    least = float(smallest_difference(sd, min(one.size, two.size), sure))
    unseen = CANNOT_SHOW if least > hoped else NOT_SHOWN
    verdict = REAL if abs(difference) > half else unseen
    needed = repeats_needed(sd, max(abs(difference), hoped) if verdict == REAL else hoped, sure)
    return Comparison(difference, difference - half, difference + half, difference / sd, verdict, least, needed)
