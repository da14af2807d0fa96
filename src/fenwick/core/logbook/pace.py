"""How fast work goes on: weeks as they were logged, and the usual week where few were; what that means for the future.

A mean week and its scatter are drawn from the weeks that were logged, each weighing more or less by chance (a Bayesian
bootstrap), the jobs' usual week weighing as much as a few of them. Work after w weeks is then m·w with a scatter of
s·√w, so that the time to a given amount has a closed form.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.rules import RuleBook

WEEK = 7.0  #: [d]
MOST_WEEKS = 52  #: of the past that are looked at: a shop changes
FOLLOWED = 730.0  #: nothing is said beyond [d]


@dataclass(frozen=True)
class PastWeeks:
    """What each of n things was used in each past week, in shares of its modelled life; nan where it was not logged."""

    used: Array  #: shape (n, weeks) [-]
    usual: Array  #: by the jobs that come back every week, shape (n,) [-]; nan: not known


@dataclass(frozen=True)
class Pace:
    """Weeks to come, drawn; nan where nothing is known of them. Arrays of shape (n, draws)."""

    mean: Array  #: used in a week [-]
    scatter: Array  #: from week to week [-]
    chance: Array  #: of the weeks until the end, standard normal [-]

    def days_until(self, left: Array) -> Array:
        """Days until so much more is used [d], shape (n, draws): 0 where it is over, inf beyond what is followed.

        Parameters
        ----------
        left : to be used from today on, shape (n, draws) [-]
        """
        swing = self.scatter * self.chance
        # (√w)² m + √w s z = left, told so that nothing is lost where m or left is small
        root = np.sqrt(swing**2 + 4.0 * self.mean * np.maximum(left, 0.0))
        below = np.where(swing >= 0.0, swing + root, 1.0)
        side = np.where(swing >= 0.0, 2.0 * left / np.where(below > 0.0, below, 1.0), np.inf)
        mean = np.where(self.mean > 0.0, self.mean, 1.0)
        far = np.where(self.mean > 0.0, (root - swing) / (2.0 * mean), np.inf)
        weeks = np.where(swing >= 0.0, np.where(below > 0.0, side, np.inf), far) ** 2
        days = np.where(left <= 0.0, 0.0, WEEK * weeks)
        return np.where(np.isnan(self.mean), np.nan, np.where(days > FOLLOWED, np.inf, days))


def pace(past: PastWeeks, rules: RuleBook, count: int, seed: int) -> Pace:
    """Weeks to come, by how many were logged and by the usual one.

    Parameters
    ----------
    past : of n things
    rules : how much weeks scatter, and what the jobs weigh
    count : of draws [-]
    seed : of the chances [-]
    """
    chance, used = np.random.default_rng(seed), past.used[:, -MOST_WEEKS:]
    n, there = used.shape[0], ~np.isnan(used)
    usual_known = ~np.isnan(past.usual)
    trust = np.where(usual_known, float(rules["log.usual-weeks"]), 0.0)[:, None]
    told = chance.standard_gamma(1.0, (n, count, used.shape[1])) * there[:, None, :]
    rest = chance.standard_gamma(np.where(trust > 0.0, trust, 1.0), (n, count)) * (trust > 0.0)
    total = told.sum(axis=2) + rest
    weights = told / np.where(total > 0.0, total, 1.0)[:, :, None]
    of_rest = rest / np.where(total > 0.0, total, 1.0)
    spread = float(rules["log.scatter-week"])
    # the jobs may be off as a whole, too; a log of many weeks outweighs them
    usual = np.where(usual_known, past.usual, 0.0)[:, None] * _scattered(chance, spread, (n, count))
    filled = np.where(there, used, 0.0)[:, None, :]
    mean = np.sum(weights * filled, axis=2) + of_rest * usual
    away = np.sum(weights * (filled - mean[:, :, None]) ** 2, axis=2)
    away += of_rest * ((usual - mean) ** 2 + (spread * usual) ** 2)
    known = (there.any(axis=1) | usual_known)[:, None]
    return Pace(np.where(known, mean, np.nan), np.sqrt(away), chance.standard_normal((n, count)))


def _scattered(chance: np.random.Generator, spread: float, shape: tuple[int, int]) -> Array:
    """Log-normal factors whose mean is 1."""
    return np.asarray(np.exp(spread * chance.standard_normal(shape) - 0.5 * spread**2))
