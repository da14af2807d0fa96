"""A separation test by mass: what stayed in the bin of what went in, run by run and over repeats."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.formulas.metrology import closure, difference_sd, separation_sd, separation_share, student

CLOSES = (0.97, 1.03)  #: of what was fed, what should be found again [-]
SURE = 0.95  #: of an interval [-]


@dataclass(frozen=True)
class Scale:
    """A scale as it is used."""

    resolution: float  #: [kg]
    repeat_sd: float = 0.0  #: by which the same weighing scatters [kg]


@dataclass(frozen=True)
class MassRun:
    """One run; each mass is after less before [kg]. None where nobody weighed it."""

    fed: float | None
    kept: float  #: gained by the bin
    past: float  #: gained by filter, bag, tank or a weighed cloth
    held: float | None = None  #: gained by the hoses
    spoilt: str = ""  #: why it does not count; empty: it does


@dataclass(frozen=True)
class Found:
    """One run's separation."""

    share: float  #: [-]
    sd: float  #: by the scale alone [-]
    closes: float | None  #: of what was fed, what was found again [-]
    closes_sd: float | None
    faults: tuple[str, ...]  #: more-out, less-out, negative, nothing, coarse


@dataclass(frozen=True)
class Separated:
    """Repeats together."""

    runs: tuple[Found, ...]  #: that count
    share: float  #: [-]
    low: float
    high: float  #: of the interval at `SURE`
    scatter: float | None  #: standard deviation between runs [-]; None from a single run
    by_scale: float  #: standard uncertainty that the scale alone leaves in the mean [-]
    by_repeats: float | None  #: that the scatter leaves in it [-]

    @property
    def sd(self) -> float:
        """Of the mean [-]."""
        return float(np.hypot(self.by_scale, self.by_repeats or 0.0))


def run_found(run: MassRun, kept_scale: Scale, past_scale: Scale) -> Found:
    """One run's separation, with what is wrong with it."""
    kept_sd = float(difference_sd(kept_scale.resolution, kept_scale.repeat_sd))
    past_sd = float(difference_sd(past_scale.resolution, past_scale.repeat_sd))
    faults = list(_mass_faults(run, past_scale))
    kept, past = max(run.kept, 0.0), max(run.past, 0.0)
    if kept + past <= 0.0:
        return Found(float("nan"), float("nan"), None, None, ("nothing", *faults))
    share = float(separation_share(kept, past))
    sd = float(separation_sd(kept, past, kept_sd, past_sd))
    closes = closes_sd = None
    if run.fed is not None and run.fed > 0.0:
        closes = float(closure(run.kept, run.past, run.held or 0.0, run.fed))
        closes_sd = float(np.hypot(kept_sd, past_sd)) / run.fed
        reach = 2.0 * closes_sd
        if closes - reach > CLOSES[1]:
            faults.append("more-out")
        if closes + reach < CLOSES[0]:
            faults.append("less-out")
    return Found(share, sd, closes, closes_sd, tuple(faults))


def _mass_faults(run: MassRun, past_scale: Scale) -> list[str]:
    faults = []
    if min(run.kept, run.past) < -3.0 * float(difference_sd(past_scale.resolution, past_scale.repeat_sd)):
        faults.append("negative")
    if 0.0 <= run.past < past_scale.resolution:
        faults.append("coarse")
    return faults


def separated(runs: Sequence[MassRun], kept_scale: Scale, past_scale: Scale) -> Separated | None:
    """Repeats together; spoilt runs and those with impossible masses are kept apart. None where none counts.

    The scale's part is independent from run to run; the scatter between runs holds it already, so that the larger of
    the two speaks for the mean.
    """
    counted = [run_found(run, kept_scale, past_scale) for run in runs if not run.spoilt]
    good = [one for one in counted if not {"negative", "nothing", "more-out"} & set(one.faults)]
    if not good:
        return None
    shares = np.array([one.share for one in good])
    n = shares.size
    mean = float(np.mean(shares))
    by_scale = float(np.sqrt(np.sum(np.square([one.sd for one in good])))) / n
    if n == 1:
        half = float(student(SURE, 1e6)) * by_scale
        return Separated(tuple(good), mean, *_within(mean, half), None, by_scale, None)
    scatter = float(np.std(shares, ddof=1))
    by_repeats = scatter / np.sqrt(n)
    half = max(float(student(SURE, n - 1)) * by_repeats, float(student(SURE, 1e6)) * by_scale)
    return Separated(tuple(good), mean, *_within(mean, half), scatter, by_scale, float(by_repeats))


def _within(mean: float, half: float) -> tuple[float, float]:
    return max(mean - half, 0.0), min(mean + half, 1.0)


def tells_apart(fed: float, share: float, kept_scale: Scale, past_scale: Scale, repeats: int, scatter: float) -> float:
    """Half-width of the interval that a test as planned would leave [-], before anything is weighed.

    Parameters
    ----------
    fed : in each run [kg]
    share : expected [-]
    kept_scale, past_scale : as they are used
    repeats : runs
    scatter : expected between runs [-]
    """
    kept_sd = difference_sd(kept_scale.resolution, kept_scale.repeat_sd)
    past_sd = difference_sd(past_scale.resolution, past_scale.repeat_sd)
    one = float(separation_sd(fed * share, fed * (1.0 - share), kept_sd, past_sd))
    each = float(np.hypot(one, scatter))
    reach = float(student(SURE, repeats - 1)) if repeats > 1 else float(student(SURE, 1e6))
    return reach * each / float(np.sqrt(repeats))
