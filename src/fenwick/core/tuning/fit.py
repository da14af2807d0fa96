"""Fitting the factors of a line to readings: least squares with log-normal priors, and what each reading is worth."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from scipy.optimize import least_squares

from fenwick.core.arrays import Array
from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.core.line.line import Line
from fenwick.core.tuning.factors import FACTORS, batches, spreads, tuned
from fenwick.core.tuning.readings import Reading, expected

MOST_REACH = 5.0  #: of a logarithm, beyond which an interval says nothing [-]
STEP = 0.03  #: of a logarithm, for slopes [-]
REACH = 1.645  #: of a central 90 % interval, in standard deviations
SHRUNK = 0.8  #: of its prior interval, below which a factor counts as fixed by the readings [-]
MUCH_WRONG = 2.0  #: standard deviations by which one reading in twenty misses
MOST_WRONG = 3.0  #: standard deviations by which a reading may miss before the model is doubted
KEYS = tuple(FACTORS)


def miss_level(miss: float) -> int:
    """How bad it is that the model misses a reading by so many of its uncertainties [-]: OK, WATCH or ACT.

    Parameters
    ----------
    miss : difference over its standard uncertainty [-]
    """
    return ACT if abs(miss) > MOST_WRONG else WATCH if abs(miss) > MUCH_WRONG else OK


@dataclass(frozen=True)
class FittedFactor:
    """One factor before and after."""

    key: str
    value: float
    low: float
    high: float  #: of the 90 % interval
    prior_low: float
    prior_high: float
    fixed: bool  #: by these readings, rather than by belief
    by: tuple[tuple[int, float], ...]  #: readings that fixed it most: (place, share of its spread that goes with it)


@dataclass(frozen=True)
class Fit:
    """All factors fitted to readings; rows of arrays are those readings that the model can speak of."""

    line: Line  #: as described
    readings: tuple[Reading, ...]
    used: tuple[int, ...]  #: places of the readings that count
    logs: Array  #: of the factors at the fit, shape (k,)
    covariance: Array  #: of those, shape (k, k)
    slopes: Array  #: of the readings over their uncertainty by the logs, shape (m, k)
    before: Array  #: what the line as described says, shape (m,)
    after: Array  #: what the tuned line says, shape (m,)

    @property
    def factors(self) -> dict[str, float]:
        """Every factor at the fit [-]."""
        return {key: float(np.exp(log)) for key, log in zip(KEYS, self.logs, strict=True)}

    @property
    def left(self) -> dict[str, float]:
        """Of what was believed possible of every factor, the share that the readings left [-]."""
        shares = np.sqrt(np.diag(self.covariance)) / spreads(KEYS)
        return {key: float(min(share, 1.0)) for key, share in zip(KEYS, shares, strict=True)}

    @cached_property
    def misses(self) -> Array:
        """Reading less tuned line, in the reading's standard uncertainty, shape (m,)."""
        return self._over(self.after)

    @cached_property
    def left_out(self) -> Array:
        """The same with each reading predicted from all the others, shape (m,)."""
        leverage = np.einsum("ij,jk,ik->i", self.slopes, self.covariance, self.slopes)
        return np.asarray(self.misses / np.maximum(1.0 - leverage, 1e-6))

    @property
    def doubted(self) -> tuple[int, ...]:
        """Places of readings that the tuned line still misses by much."""
        return tuple(self.used[i] for i in np.flatnonzero(np.abs(self.misses) > MOST_WRONG))

    def _over(self, said: Array) -> Array:
        values = np.array([self.readings[i].value for i in self.used])
        return np.asarray((values - said) / np.array([self.readings[i].sd for i in self.used]))

    def fitted(self) -> list[FittedFactor]:
        """Every factor before and after, with the readings that fixed it."""
        prior = spreads(KEYS)
        found = []
        for j, key in enumerate(KEYS):
            sd = float(np.sqrt(self.covariance[j, j]))
            value = float(np.exp(self.logs[j]))
            reach = np.exp(REACH * sd)
            wide = float(np.exp(REACH * prior[j]))
            by = tuple((self.used[i], share) for i, share in self._worth(j) if share > 0.02)
            fixed = sd < SHRUNK * prior[j]
            found.append(FittedFactor(key, value, value / reach, value * reach, 1.0 / wide, wide, fixed, by))
        return found

    def _worth(self, j: int) -> list[tuple[int, float]]:
        """(row, share of the factor's variance that goes with that reading), the most first."""
        here = self.covariance[j, j]
        columns = self.slopes @ self.covariance
        leverage = np.sum(columns * self.slopes, axis=1)
        without = here + np.square(columns[:, j]) / np.maximum(1.0 - leverage, 1e-9)
        worth = 1.0 - here / without
        return [(int(i), float(worth[i])) for i in np.argsort(-worth, kind="stable")]


def fit(line: Line, readings: Sequence[Reading]) -> Fit | None:
    """Tune a line to readings; None where the model can speak of none of them. A single variant."""
    said = expected(line, readings)[:, 0]
    used = tuple(int(i) for i in np.flatnonzero(np.isfinite(said)))
    if not used:
        return None
    kept = [readings[i] for i in used]
    values, sds = np.array([r.value for r in kept]), np.array([r.sd for r in kept])
    prior = spreads(KEYS)
    known: dict[bytes, tuple[Array, Array]] = {}

    def look(logs: Array) -> tuple[Array, Array]:
        """(what is expected, its slopes) over the readings' uncertainty."""
        key = logs.tobytes()
        if key not in known:
            known[key] = slopes_at(line, kept, logs)
        mean, slope = known[key]
        return mean / sds, slope / sds[:, None]

    def miss(logs: Array) -> Array:
        return np.concatenate([look(logs)[0] - values / sds, logs / prior])

    def slope(logs: Array) -> Array:
        return np.vstack([look(logs)[1], np.diag(1.0 / prior)])

    solved = least_squares(miss, np.zeros(len(KEYS)), jac=slope, method="lm", max_nfev=40)
    mean, slopes = look(solved.x)
    covariance = np.asarray(np.linalg.inv(slopes.T @ slopes + np.diag(1.0 / prior**2)), dtype=float)
    return Fit(line, tuple(readings), used, solved.x, covariance, slopes, said[list(used)], np.asarray(mean * sds))


def believed_before(line: Line) -> Fit:
    """A line of which nothing is read yet: its factors as they are believed before. A single variant."""
    prior, none = spreads(KEYS), np.zeros(0)
    return Fit(line, (), (), np.zeros(len(KEYS)), np.diag(prior**2), np.zeros((0, len(KEYS))), none, none)


def stretched(value: float, sd: float) -> tuple[float, float]:
    """Central 90 % interval of a figure that cannot fall below 0, as wide to either side by its logarithm.

    Parameters
    ----------
    value, sd : the figure and its standard deviation, in one unit
    """
    if value <= 0.0:
        return 0.0, REACH * sd
    reach = float(np.exp(min(REACH * sd / value, MOST_REACH)))
    return value / reach, value * reach


def stretched_share(value: float, sd: float) -> tuple[float, float]:
    """Central 90 % interval of a share, which stays between none and all of it.

    Parameters
    ----------
    value, sd : the share and its standard deviation [-]
    """
    if not 0.0 < value < 1.0:
        return max(min(value, 1.0) - REACH * sd, 0.0), min(max(value, 0.0) + REACH * sd, 1.0)
    odds, reach = value / (1.0 - value), float(np.exp(min(REACH * sd / (value * (1.0 - value)), MOST_REACH)))
    low, high = odds / reach, odds * reach
    return low / (1.0 + low), high / (1.0 + high)


def slopes_at(line: Line, readings: Sequence[Reading], logs: Array) -> tuple[Array, Array]:
    """(what is expected, shape (m,); its slopes by the logs of all factors, shape (m, k)), in the readings' units.

    Parameters
    ----------
    logs : of the factors, shape (k,) [-]
    """
    k = len(KEYS)
    columns = np.repeat(logs[:, None], 2 * k + 1, axis=1)
    for j in range(k):
        columns[j, 1 + 2 * j] += STEP
        columns[j, 2 + 2 * j] -= STEP
    said = expected_at(line, readings, columns)
    slopes = (said[:, 1::2] - said[:, 2::2]) / (2.0 * STEP)
    return said[:, 0], np.where(np.isfinite(slopes), slopes, 0.0)


def expected_at(line: Line, readings: Sequence[Reading], logs: Array) -> Array:
    """What is expected for columns of logs, shape (m, n).

    Parameters
    ----------
    logs : of the factors, one column for each variant, shape (k, n) [-]
    """
    factors = np.exp(logs)
    if batches(line):
        return expected(tuned(line, dict(zip(KEYS, factors, strict=True))), readings)
    columns = [
        expected(tuned(line, {key: float(f) for key, f in zip(KEYS, column, strict=True)}), readings)[:, :1]
        for column in factors.T
    ]
    return np.hstack(columns)


@dataclass(frozen=True)
class Worth:
    """A reading that could be taken, and what it would do to a figure."""

    reading: Reading  #: its value is what the tuned line expects
    before: float  #: standard deviation of the figure now, in its unit
    after: float  #: with the reading


def next_readings(fitted: Fit, candidates: Sequence[Reading], figure: Reading) -> list[Worth]:
    """Readings ranked by how much each would shrink the spread of a figure of the tuned line, the most first.

    Parameters
    ----------
    fitted : so far
    candidates : what could be read; only kind, place, condition and uncertainty count
    figure : what one wants to know, as a reading nobody takes
    """
    mean, slopes = slopes_at(fitted.line, [figure, *candidates], fitted.logs)
    covariance, towards = fitted.covariance, slopes[0]
    before = float(np.sqrt(max(towards @ covariance @ towards, 0.0)))
    found = []
    for reading, value, row in zip(candidates, mean[1:], slopes[1:], strict=True):
        if not np.isfinite(value):
            continue
        column = covariance @ (row / reading.sd)
        gain = float(towards @ column) ** 2 / (1.0 + float(row / reading.sd @ column))
        told = Reading(reading.kind, float(value), reading.sd, reading.port, reading.station, reading.dust)
        found.append(Worth(told, before, float(np.sqrt(max(before**2 - gain, 0.0)))))
    return sorted(found, key=lambda worth: worth.after)


def figures_at(fitted: Fit, figure: Reading) -> tuple[tuple[float, float], tuple[float, float]] | None:
    """((value, standard deviation) as described, the same tuned) of a figure; None where it cannot be told."""
    prior = np.diag(spreads(KEYS) ** 2)
    said = []
    for logs, covariance in ((np.zeros(len(KEYS)), prior), (fitted.logs, fitted.covariance)):
        mean, slopes = slopes_at(fitted.line, [figure], logs)
        if not np.isfinite(mean[0]):
            return None
        said.append((float(mean[0]), float(np.sqrt(max(slopes[0] @ covariance @ slopes[0], 0.0)))))
    return said[0], said[1]
