"""Whether a figure that is measured again and again gets worse: against its own good days, by its own scatter."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.rules import RuleBook

MORE, LESS, SAME = 1, -1, 0  #: whether more of it is better, less, or neither
LEAST = 4  #: values, below which nothing is said
RECENT = 3  #: of the latest values, that say how it is now
SURE = 2.0  #: standard deviations of their mean, beyond which they are not chance [-]
STEADY, WORSE, RECOVERED, UNKNOWN = "steady", "worse", "recovered", "unknown"


@dataclass(frozen=True)
class FigureOverTime:
    """One figure over time; arrays of shape (k,)."""

    day: Array  #: in order [d]
    value: Array  #: any unit
    better: int = MORE  #: MORE, LESS or SAME


@dataclass(frozen=True)
class TrendFound:
    """What is said of a figure."""

    word: str  #: STEADY, WORSE, RECOVERED or UNKNOWN
    good: float  #: as it is on its good days, in its own unit; nan where nothing is said
    now: float  #: the mean of its latest values
    scatter: float  #: of one value
    since: float | None  #: day since which it has been worse, or is good again [d]


def trend_of(measured: FigureOverTime, rules: RuleBook) -> TrendFound:
    """Compare the latest values with the good days.

    Parameters
    ----------
    measured : of one figure, at one place
    rules : how much of it one would notice
    """
    value = measured.value
    if value.size < LEAST:
        now = float(value[-1]) if value.size else np.nan
        return TrendFound(UNKNOWN, np.nan, now, np.nan, None)
    scatter = _scatter(value)
    good = _good(measured)
    least = float(rules["log.trend-noticed"]) * abs(good)
    bad = _badness(measured, good)
    # beyond what one value alone may be by chance; two such in a row are a spell
    apart = bad > max(SURE * scatter / np.sqrt(2.0), least)
    spell = apart & (np.roll(apart, 1) | np.roll(apart, -1))
    bad_days = np.flatnonzero(apart)
    behind = value.size - 1 - int(bad_days[-1]) if bad_days.size else value.size
    count = min(RECENT, value.size, behind if behind >= 2 else RECENT)
    now, limit = float(value[-count:].mean()), max(SURE * scatter / np.sqrt(count), least)
    if float(bad[-count:].mean()) > limit or (spell[-1] and spell[-2]):
        before = np.flatnonzero(~apart)
        at = int(before[-1]) + 1 if before.size else 0
        return TrendFound(WORSE, good, now, scatter, float(measured.day[min(at, value.size - 1)]))
    if spell[1:-1].any():
        last = int(np.flatnonzero(spell)[-1])
        return TrendFound(RECOVERED, good, now, scatter, float(measured.day[min(last + 1, value.size - 1)]))
    return TrendFound(STEADY, good, now, scatter, None)


def _good(measured: FigureOverTime) -> float:
    """The middle of its better half; where neither way is better, of its first values."""
    if measured.better == SAME:
        return float(np.median(measured.value[: max(LEAST, measured.value.size // 2)]))
    ordered = np.sort(measured.value * measured.better)
    return float(np.median(ordered[ordered.size // 2 :]) * measured.better)


def _badness(measured: FigureOverTime, good: float) -> Array:
    away = measured.value - good
    return np.abs(away) if measured.better == SAME else np.asarray(-measured.better * away)


def _scatter(value: Array) -> float:
    """Of one value, by how neighbours differ: a step of all that follow does not count as scatter."""
    steps = np.abs(np.diff(value))
    return float(1.4826 * np.median(steps) / np.sqrt(2.0))
