"""When something is due: what is used of its life today, and the day on which that is all of it, with their bands."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.doubt.uncertainty import SEED, WITHIN
from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.core.logbook.lives import LifeBelief
from fenwick.core.logbook.pace import PastWeeks, pace
from fenwick.core.rules import RuleBook

DRAWS = 800  #: of lives and of weeks to come


@dataclass(frozen=True)
class Between:
    """Figures of n things, as likely as not, and between what nine in ten lie; arrays of shape (n,)."""

    likely: Array
    low: Array
    high: Array


@dataclass(frozen=True)
class Forecast:
    """What n things that wear out by work stand at; a thing whose work is not known has nan."""

    used: Between  #: of its life, as it will really be [-]; above 1 it is over
    days: Between  #: from today until it is due [d]; 0: it is, inf: not within two years
    past_due: Array  #: how likely it is over already, shape (n,) [-]


def forecast(used: Array, seen: Array, ahead: LifeBelief, weeks: PastWeeks, rules: RuleBook) -> Forecast:
    """Draw the rest of n lives.

    Parameters
    ----------
    used : of the modelled life since it began, or since it was looked at, shape (n,) [-]
    seen : of its real life that was over when it was looked at, shape (n,) [-]; 0 where it began new
    ahead : what is believed of this life
    weeks : how the work went
    rules : how much it scatters
    """
    life = ahead.draws(DRAWS, SEED)
    share = seen[:, None] + used[:, None] / life
    days = pace(weeks, rules, DRAWS, SEED + 1).days_until((1.0 - share) * life)
    return Forecast(between(share), between(days), np.asarray(np.mean(share >= 1.0, axis=1)))


def between(draws: Array) -> Between:
    """The middle of draws, and the nine in ten around it.

    Parameters
    ----------
    draws : shape (n, draws), any unit
    """
    tail = (1.0 - WITHIN) / 2.0
    low, likely, high = np.quantile(draws, [tail, 0.5, 1.0 - tail], axis=1, method="inverted_cdf")
    return Between(likely, low, high)


def due_level(days: float, rules: RuleBook) -> int:
    """How pressing something is by the likely day: OK, WATCH or ACT.

    Parameters
    ----------
    days : from today until it is due [d]; nan: nobody can say
    rules : what is soon
    """
    if days <= 0.0:
        return ACT
    return WATCH if days <= float(rules["log.soon"]) else OK


def used_level(likely: float, high: float) -> int:
    """How far a life is used: OK, WATCH where it may be over, ACT where it likely is.

    Parameters
    ----------
    likely, high : shares of it, as likely as not and at the upper end of its band [-]
    """
    if likely >= 1.0:
        return ACT
    return WATCH if high >= 1.0 else OK
