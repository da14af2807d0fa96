"""A particle monitor's log: rows put in order and cleaned, then baseline, peaks, decay, and back to normal."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.formulas.metrology import decay_fit, resolution_sd
from fenwick.core.rules import rule

BACK = rule("test.back").value  #: of the baseline, at which the air is back to normal [-]
#: of the peak above the baseline, between which its decay is fitted [-]
DECAY_FROM, DECAY_TO = rule("test.decay-from").value, rule("test.decay-to").value
LEAST_DECAY = 4  #: readings
HOUR = 3600.0  #: [s]
LONGEST_LOG = 7 * 24 * 3600.0  #: a cut is not sought beyond [s]
SHORTEST = 1.0  #: cut [s]
Cuts = tuple[tuple[float, float], ...]  #: (start, stop) of each [s]; one that stops as it starts is still open
SELDOM = 3  #: times that a clock is set back within a log
SLIPS = 60.0  #: by which rows may stand out of order without the clock having been set back [s]


@dataclass(frozen=True)
class Log:
    """Readings in order of time, and what was kept apart."""

    time: Array  #: [s]
    value: Array  #: in the monitor's unit
    duplicates: int  #: rows at the time of another
    out_of_order: int  #: rows that stood before an earlier time
    jumps: tuple[float, ...]  #: times at which the clock went back or leapt [s]
    unreadable: int  #: rows that were no pair of numbers, or below 0
    beyond: int = 0  #: rows on the other side of a leap of the clock, kept apart


@dataclass(frozen=True)
class Cut:
    """One cut in a log."""

    start: float  #: [s]
    stop: float  #: [s]
    peak: float | None  #: None: nothing was read in it
    during: float | None  #: mean over the baseline from its start to its stop; None: no baseline, or nothing read
    area: float | None  #: over the baseline, until the next cut or the log's end [unit·s]; None: no baseline
    back_after: float | None  #: after the cut stops, until back to normal [s]; None: not within the log
    changes: float | None  #: air changes by its decay [1/h]; None: too few readings, or no decay
    changes_sd: float | None
    readings: int = 0  #: from its start to its stop


@dataclass(frozen=True)
class Monitored:
    """What a log says."""

    baseline: float | None  #: median before the first cut; None: nothing was read before it
    cuts: tuple[Cut, ...]
    still: int = 0  #: readings before the first cut
    noise: float | None = None  #: standard deviation of one reading in still air; None: fewer than two were read there

    @property
    def added(self) -> tuple[float, float | None] | None:
        """(dust over the baseline while cutting, mean over the cuts; what the monitor's noise leaves in it).

        None where no cut has one, the second where the noise is not known.
        """
        known = [cut for cut in self.cuts if cut.during is not None]
        if not known:
            return None
        mean = float(np.mean([cut.during for cut in known]))
        if self.noise is None:
            return mean, None
        # the readings of each cut average out, and so do those of the baseline, which all cuts share
        cutting = np.sum([1.0 / max(cut.readings, 1) for cut in known]) / len(known) ** 2
        return mean, self.noise * float(np.sqrt(cutting + 1.0 / max(self.still, 1)))


def ordered(rows: Sequence[tuple[float, float]] | Array, unreadable: int = 0, leap: float = HOUR) -> Log:
    """Rows in order of time; nothing is averaged in silently.

    Parameters
    ----------
    rows : (time [s], value) as they were read, one after the other
    unreadable : rows that could not be read before [-]
    leap : step of the clock ahead that counts as a jump [s]
    """
    read = np.asarray(rows, dtype=float).reshape(-1, 2)
    good = read[np.isfinite(read).all(axis=1) & (read[:, 1] >= 0.0)]
    unreadable += len(read) - len(good)
    # where the clock was set, what lies before and behind does not belong together: the longest part is judged
    step = np.diff(good[:, 0])
    back, ahead = np.flatnonzero(step < -SLIPS) + 1, np.flatnonzero(step > leap) + 1
    # a clock is set seldom: rows that go back again and again are a table out of order
    set_at = np.sort(np.concatenate((back, ahead))) if len(back) <= SELDOM else np.array([], dtype=int)
    part = max(np.split(good, set_at), key=len)
    # two values at one time: the monitor repeated itself; what it said first is kept, the others are counted
    time, first = np.unique(part[:, 0], return_index=True)
    return Log(
        time,
        part[first, 1],
        len(part) - len(time),
        int(np.sum(np.diff(part[:, 0]) < 0.0)),
        tuple(good[set_at, 0].tolist()),
        unreadable,
        len(good) - len(part),
    )


def monitored(log: Log, cuts: Sequence[tuple[float, float]]) -> Monitored:
    """Read a log around its cuts.

    Parameters
    ----------
    log : in order
    cuts : (start, stop) of each [s], in order
    """
    before = log.value[log.time < cuts[0][0]] if cuts else log.value
    baseline = float(np.median(before)) if before.size else None
    ends = [*(start for start, _ in cuts[1:]), float("inf")][: len(cuts)]
    found = tuple(_cut(log, cut, end, baseline) for cut, end in zip(cuts, ends, strict=True))
    return Monitored(baseline, found, int(before.size), _noise(log, before))


def _noise(log: Log, before: Array) -> float | None:
    """Scatter of readings in still air, never less than the monitor's own step leaves."""
    if before.size < 2:
        return None
    steps = np.diff(np.unique(log.value))
    step = float(np.min(steps)) if steps.size else 0.0
    return max(float(np.std(before, ddof=1)), float(resolution_sd(step)))


def _cut(log: Log, cut: tuple[float, float], end: float, baseline: float | None) -> Cut:
    start, stop = cut
    inside = (log.time >= start) & (log.time < end)
    time, value = log.time[inside], log.value[inside]
    if time.size == 0:
        return Cut(start, stop, None, None, None, None, None, None)
    peak = float(np.max(value))
    cutting = time <= stop
    if baseline is None:  # over what? it is not known
        return Cut(start, stop, peak, None, None, None, None, None, int(cutting.sum()))
    above = np.maximum(value - baseline, 0.0)
    area = float(np.trapezoid(above, time)) if time.size > 1 else 0.0
    after = (time >= stop) & (value <= BACK * baseline)
    back = float(time[after][0] - stop) if after.any() else None
    during = float(np.mean(above[cutting])) if cutting.any() else None
    rate, sd = _decay(time, above, stop)
    hourly = [None if one is None else one * HOUR for one in (rate, sd)]
    return Cut(start, stop, peak, during, area, back, hourly[0], hourly[1], int(cutting.sum()))


def open_cut(cuts: Cuts, now: float) -> Cuts:
    """The cuts with one more that starts now [s]; one that was still open stops.

    Parameters
    ----------
    now : time of the log [s]
    """
    return (*close_cuts(cuts, now), (now, now))


def close_cuts(cuts: Cuts, now: float) -> Cuts:
    """The cuts with the one that is still open stopped now [s].

    Parameters
    ----------
    now : time of the log [s]
    """
    return tuple((start, max(now, start + SHORTEST)) if stop <= start else (start, stop) for start, stop in cuts)


def _decay(time: Array, above: Array, stop: float) -> tuple[float | None, float | None]:
    """Rate of the decay after a cut [1/s] from its own peak on; none where there is too little of it."""
    tail = time >= stop
    if not tail.any():
        return None, None
    time, above = time[tail], above[tail]
    top = int(np.argmax(above))
    time, above = time[top:], above[top:]
    used = (above <= DECAY_FROM * above[0]) & (above >= DECAY_TO * above[0]) & (above > 0.0)
    # once below the last limit it only rattles about the baseline
    under = np.flatnonzero(above < DECAY_TO * above[0])
    if under.size:
        used[under[0] :] = False
    if int(used.sum()) < LEAST_DECAY:
        return None, None
    rate, sd = decay_fit(time[used], above[used])
    return (rate, sd) if rate > 0.0 else (None, None)
