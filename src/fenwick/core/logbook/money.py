"""What a separator saves, by what was really spent: against what the same hours would have cost without it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.doubt.uncertainty import SEED
from fenwick.core.logbook.due import DRAWS, Between, between
from fenwick.core.logbook.lives import LifeBelief


@dataclass(frozen=True)
class Spent:
    """Money and hours of n shops or lines since their logs begin; arrays of shape (n,), in the shop's money."""

    upkeep: Array  #: on filters and bags
    separator: Array  #: on the separator and what it is made of
    hours: Array  #: of work [h]
    days: Array  #: that this took [d]
    without: Array  #: filters and bags for an hour without it, by the model; nan: not known


@dataclass(frozen=True)
class Saved:
    """What that comes to; shape (n,)."""

    without: Between  #: what filters and bags would have cost without the separator
    paid_after: Between  #: days from the log's beginning until it has paid [d]; inf: never


def saved(spent: Spent, life: LifeBelief) -> Saved:
    """Draw what the hours would have cost without a separator, with the lives of filters as they are in this shop.

    Parameters
    ----------
    spent : what was logged
    life : how long filters last here over what the model gives them
    """
    ratio = life.draws(DRAWS, SEED)
    without = spent.without[:, None] * spent.hours[:, None] / ratio
    gained = without - spent.upkeep[:, None]
    a_day = gained / np.maximum(spent.days, 1e-9)[:, None]
    with np.errstate(divide="ignore", invalid="ignore"):
        paid = np.where(a_day > 0.0, spent.separator[:, None] / np.where(a_day > 0.0, a_day, 1.0), np.inf)
    return Saved(between(without), between(np.where(np.isnan(a_day), np.nan, paid)))
