"""How long things really last: what past lives say of the model's, as a belief over a grid, for many things at once.

A life is told as its ratio to the one that the model gives, at the work that was really done. Its logarithm is normal
about what is special of this shop, with a scatter from life to life; both are unsure, and every life that ends says
something of both. One that was ended before it was due, or after, bounds it from one side.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import log_ndtr, ndtri

from fenwick.core.arrays import Array
from fenwick.core.rules import RuleBook

GRID = np.linspace(-6.0, 6.0, 121)  #: of the shop's own shift, over what may be believed of it [sd]
SCATTERS = np.exp(np.linspace(-1.0, 1.0, 9))  #: over the usual scatter [-]
SCATTER_UNSURE = 0.5  #: in the logarithm of the scatter [-]
IN_TIME, BEFORE, AFTER = 0, 1, -1  #: whether a life was ended when it was due, too early, or too late
LEAST_RATIO = 1e-3  #: a life shorter than that says no more [-]


@dataclass(frozen=True)
class Usual:
    """What is believed of the lives of one kind of thing before any was seen; natural logarithms."""

    unsure: float  #: how far the model may be off in one's own shop [-]
    scatter: float  #: from one life to the next [-]


@dataclass(frozen=True)
class PastLives:
    """Lives of n things that have ended, k at most, the rest filled with nan; arrays of shape (n, k)."""

    ratio: Array  #: of the modelled life that had passed as each ended [-]
    ended: Array  #: IN_TIME, BEFORE or AFTER


@dataclass(frozen=True)
class LifeBelief:
    """What is believed of the next life of n things: weights over a grid, shape (n, shifts, scatters)."""

    shift: Array  #: of the logarithm, shape (shifts,) [-]
    scatter: Array  #: shape (scatters,) [-]
    weight: Array

    def draws(self, count: int, seed: int) -> Array:
        """Lives that may come next, over the modelled one, shape (n, count).

        Parameters
        ----------
        count : of draws [-]
        seed : of the chances [-]
        """
        chance = np.random.default_rng(seed)
        even = (np.arange(count) + chance.random(count)) / count
        cells = self.weight.reshape(self.weight.shape[0], -1).cumsum(axis=1)
        at = np.stack([np.searchsorted(row, even * row[-1], side="right") for row in cells])
        at = np.minimum(at, cells.shape[1] - 1)
        noise = ndtri((chance.permutation(count) + 0.5) / count)
        shift, scatter = np.divmod(at, self.scatter.size)
        step = self.shift[1] - self.shift[0]
        within = step * (chance.random(count) - 0.5)  # a grid is only where its points stand
        return np.asarray(np.exp(self.shift[shift] + within + self.scatter[scatter] * noise))

    @property
    def typical(self) -> Array:
        """The middle of what is believed of the shop's own ratio, shape (n,) [-]."""
        return np.asarray(np.exp(np.sum(self.weight.sum(axis=2) * self.shift, axis=1)))


def usual_of(kind: str, rules: RuleBook) -> Usual:
    """What is believed of a kind of thing (bin, filter or seal) before anything was logged."""
    return Usual(float(rules[f"log.unsure-{kind}"]), float(rules[f"log.scatter-{kind}"]))


def belief(past: PastLives, usual: Usual) -> LifeBelief:
    """What past lives leave to be believed.

    Parameters
    ----------
    past : of n things; none at all is a row of nan
    usual : before any of them
    """
    shift, scatter = usual.unsure * GRID, usual.scatter * SCATTERS
    log_weight = -0.5 * GRID[:, None] ** 2 - 0.5 * (np.log(SCATTERS) / SCATTER_UNSURE) ** 2
    seen = np.log(np.maximum(past.ratio, LEAST_RATIO))[:, :, None, None]
    away = (seen - shift[:, None]) / scatter
    in_time = -0.5 * away**2 - np.log(scatter)
    told = np.select(
        [past.ended[:, :, None, None] == BEFORE, past.ended[:, :, None, None] == AFTER],
        [log_ndtr(-away), log_ndtr(away)],
        in_time,
    )
    total = log_weight + np.sum(np.where(np.isnan(seen), 0.0, told), axis=1)
    weight = np.exp(total - total.max(axis=(1, 2), keepdims=True))
    return LifeBelief(shift, scatter, weight / weight.sum(axis=(1, 2), keepdims=True))
