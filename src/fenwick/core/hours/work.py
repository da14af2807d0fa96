"""A week's work: how much dust each job makes, where it goes, and when the bin is full."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.dust.fate import ENDS, Fate
from fenwick.core.dust.separation import fill_mark
from fenwick.core.formulas.sizes import share_below
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone


@dataclass(frozen=True)
class Job:
    """Work at one tool port that comes back every week."""

    id: str
    name: str
    port: int  #: place among the leaves
    mass: float  #: of dust made each time [kg]
    times: float  #: a week [-]
    seconds: float | None  #: the tool runs each time [s]; None: not known
    unit: str = "hour"  #: what is counted: hour, board or cut


@dataclass(frozen=True)
class Done:
    """A job on this line, its port open alone."""

    job: Job
    line: Line
    found: Assessment
    heap: float | None  #: it leaves in the bin each time [m^3]; None where that cannot be told
    until_full: float | None  #: how often it can be done until the bin is full to its mark [-]

    @property
    def mass_a_week(self) -> float:
        """Dust made [kg]."""
        return self.job.mass * self.job.times


@dataclass(frozen=True)
class Week:
    """All the week's work."""

    jobs: tuple[Done, ...]
    ends: dict[str, float]  #: of `ENDS`, mass that ends there [kg]
    made: float  #: by all jobs whose fate is known [kg]
    heap: float | None  #: in the bin [m^3]
    bin_lasts: float | None  #: weeks from empty to the mark [-]


def done(line: Line, job: Job) -> Done:
    """Follow the dust of a job."""
    alone = line_alone(line, job.port)
    found = assess(alone)
    heap = until = None
    if found.fate is not None and alone.dust is not None and alone.dust.bulk_density and alone.separators:
        heap = job.mass * float(found.fate.bin[0]) / alone.dust.bulk_density
        room = room_in_bin(alone)
        until = room / heap if room is not None and heap > 0.0 else None
    return Done(job, alone, found, heap, until)


def room_in_bin(line: Line) -> float | None:
    """From the dust that lies there to the mark at which the first bin is emptied [m^3]; None without a bin."""
    if not line.separators:
        return None
    stage = line.separators[0]
    _, full = fill_mark(stage, line.rules)
    return max(float(full) - one_value(stage.bin.volume_to(stage.bin.fill_height)), 0.0)


def week(line: Line, jobs: Sequence[Job]) -> Week:
    """Follow the dust of a week; jobs of unknown fate are left out of the sums."""
    followed = tuple(done(line, job) for job in jobs)
    known = [one for one in followed if one.found.fate is not None]
    ends = {end: sum(one.mass_a_week * _share(one.found.fate, end) for one in known) for end in ENDS}
    heaps = [one.heap for one in known]
    heap = (
        None if not heaps or any(h is None for h in heaps) else sum((one.heap or 0.0) * one.job.times for one in known)
    )
    lasts = None
    if heap and line.separators:
        lasts = float(fill_mark(line.separators[0], line.rules)[1]) / heap
    return Week(followed, ends, sum(one.mass_a_week for one in known), heap, lasts)


def _share(fate: Fate | None, end: str) -> float:
    return 0.0 if fate is None else float(fate.share(end)[0])


def by_class(fate: Fate, limits: tuple[float, float]) -> list[tuple[float, dict[str, float]]]:
    """(share of the dust made, shares of it by end) of the fine, the middle and the coarse dust [-].

    Parameters
    ----------
    fate : the first variant counts
    limits : fine up to the first, coarse above the second [m]
    """
    fine, coarse = share_below(limits[0])[:, 0], 1.0 - share_below(limits[1])[:, 0]
    classes = []
    for inside in (fine, 1.0 - fine - coarse, coarse):
        masses = {end: float(np.sum(inside * share[:, 0])) for end, share in fate.by_size.items()}
        total = sum(masses.values())
        classes.append((total, {end: mass / total if total > 0.0 else 0.0 for end, mass in masses.items()}))
    return classes
