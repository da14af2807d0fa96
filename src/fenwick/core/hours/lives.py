"""How long filters, bags and the vacuum's tank last on a course, and what an hour of work costs; s courses at once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.formulas.filtering import cake_left
from fenwick.core.hours.ageing import AgeingMap
from fenwick.core.hours.course import Course, Filters
from fenwick.core.rules import RuleBook

LONG = 1000.0  #: hours of work beyond which nothing is followed [h]
MOST_LIVES = 60  #: that are drawn
MOST_CLEANINGS = 100  #: that are followed [-]
DOWN, BAG_FULL, NEVER = "down", "bag-full", "never"  #: what ends the first life


@dataclass(frozen=True)
class VacuumRoom:
    """What the vacuum takes; None where there is none."""

    tank: Values | None  #: of its tank, where no bag fills it [m^3]
    bag: Values | None  #: of its bag [m^3]


@dataclass(frozen=True)
class Lives:
    """Some courses from clean filters; arrays of shape (s,) unless said otherwise."""

    first: Array  #: until the air is down by a quarter, or the bag is full [h]; inf beyond `LONG`
    down: Array  #: until the air is down by a quarter [h]; inf likewise
    bag_full: Array  #: until the bag is full [h]; inf where there is none, or beyond `LONG`
    tank_full: Array  #: until the tank is full [h]; likewise
    between: Array  #: from each cleaning to the next, the first from new, shape (1 + cleanings, s) [h]; 0 once spent
    total: Array  #: hours that a filter lasts, cleaned until that is no longer worth it [h]
    cleanings: Array  #: how often it is cleaned [-]
    tank_used: Array  #: of the tank, filled when the air is first down by a quarter, or at most all of it [-]

    @property
    def ends(self) -> tuple[str, ...]:
        """What ends the first life of each course."""
        bag = self.bag_full < self.down
        never = ~np.isfinite(self.first)
        return tuple(NEVER if n else BAG_FULL if b else DOWN for b, n in zip(bag, never, strict=True))


def lives(mapped: AgeingMap, course: Course, filters: Filters, room: VacuumRoom, coated: bool) -> Lives:
    """The lives of some courses.

    Parameters
    ----------
    mapped, course, filters : marched from clean filters over `LONG` hours
    room : for dust in the vacuum
    coated : whether its filter has a film that a cake comes off more easily
    """
    rules, bulk = mapped.rules, mapped.bulk
    down = course.life(rules["filter.down"])
    endless = np.full_like(down, np.inf)
    bag_full = tank_full = endless
    if bulk is not None and room.bag is not None:
        bag_full = course.until(course.bagged, np.broadcast_to(np.asarray(room.bag) * bulk, down.shape))
    cleaned = _cleaned(course, np.minimum(down, LONG), filters, rules, coated)
    used = np.zeros_like(down)
    if bulk is not None and room.tank is not None:
        takes = np.broadcast_to(np.asarray(room.tank, dtype=float) * bulk, down.shape)
        tank_full = _tank_full(course, takes, cleaned, filters)
        used = np.minimum(course.at(course.dropped, np.minimum(down, LONG)) / takes, 1.0)
    total = np.sum(cleaned.lasts, axis=0)
    count = np.maximum(np.count_nonzero(cleaned.lasts, axis=0) - 1, 0).astype(float)
    return Lives(np.minimum(down, bag_full), down, bag_full, tank_full, cleaned.lasts, total, count, used)


@dataclass(frozen=True)
class _Cleaned:
    """A filter cleaned again and again; arrays of shape (1 + cleanings, s)."""

    lasts: Array  #: hours to the next cleaning, the first from new [h]; 0 once it is spent
    stays: Array  #: of the cake, in the filter as each begins [-]


def one_after_another(course: Course, figure: Array, found: Lives, span: float) -> tuple[Array, Array]:
    """A figure of the first course over its lives, as (hours [h], values): each ends, and the next one begins.

    A filter begins its next life with what a cleaning left in it, a new bag or a new filter clean.

    Parameters
    ----------
    course : from clean filters, one column
    figure : of it, shape (steps, 1), any unit
    found : its lives
    span : how far they are followed [h]
    """
    first = float(found.first[0])
    if not np.isfinite(first) or first <= 0.0:
        inside = course.hours <= span
        return course.hours[inside], figure[inside, 0]
    lasts = [first] if found.ends[0] == BAG_FULL or found.total[0] <= 0.0 else list(found.between[:, 0])
    hours, values, gone, n = [], [], 0.0, 0
    while gone < span and n < MOST_LIVES:
        length = lasts[n % len(lasts)] or first
        begins = first - length
        at = np.concatenate([[begins], course.hours[(course.hours > begins) & (course.hours < first)], [first]])
        hours.append(gone + at - begins)
        values.append(np.interp(at, course.hours, figure[:, 0]))
        gone, n = gone + length, n + 1
    return np.concatenate(hours), np.concatenate(values)


def stays_after(cleaning: Values, rules: RuleBook, coated: bool) -> Array:
    """Share of a cake that stays in a filter after its n-th cleaning [-].

    Parameters
    ----------
    cleaning : n, 0 for a new filter [-]
    coated : whether a film lets it off more easily
    """
    most = rules["filter.stays-coated" if coated else "filter.stays"]
    return cake_left(cleaning, most, rules["filter.blinds-over"])


def _cleaned(course: Course, first: Array, filters: Filters, rules: RuleBook, coated: bool) -> _Cleaned:
    """Cleaned whenever the air is down by a quarter, until that comes too soon; without a filter there is none."""
    counted = np.arange(MOST_CLEANINGS + 1)
    stays = np.array([np.broadcast_to(stays_after(float(n), rules, coated), first.shape) for n in counted])
    end = course.at(course.cake, first)
    lasts = np.maximum(first - np.stack([_hours_at(course, share * end) for share in stays]), 0.0)
    worth = np.cumprod(lasts >= np.asarray(rules["filter.worn"]) * first, axis=0).astype(bool)
    worth &= (counted[:, None] <= np.asarray(rules["filter.cleanings"])) & (first > 0.0)
    worth &= np.broadcast_to(filters.area, first.shape) > 0.0
    return _Cleaned(np.where(worth, lasts, 0.0), stays)


def _hours_at(course: Course, cake: Array) -> Array:
    """Hours at which each course had so much cake [h]."""
    return np.array([np.interp(value, row, course.hours) for value, row in zip(cake, course.cake.T, strict=True)])


def _tank_full(course: Course, takes: Array, cleaned: _Cleaned, filters: Filters) -> Array:
    """Hours until the tank holds what drops in it and the cake that every cleaning sheds [h]; inf beyond `LONG`."""
    full = course.until(course.dropped, takes)
    first = cleaned.lasts[0]
    a_second = course.at(course.dropped, first) / np.maximum(first, 1e-12)
    cake = course.at(course.load, first) * np.broadcast_to(filters.area, first.shape)
    gains = a_second * cleaned.lasts + cake * (1.0 - np.roll(cleaned.stays, -1, axis=0)) * (cleaned.lasts > 0.0)
    held, gone = np.cumsum(gains, axis=0), np.cumsum(cleaned.lasts, axis=0)
    over = held >= takes
    at, column = np.argmax(over, axis=0), np.arange(takes.size)
    lacks = takes - (held - gains)[at, column]
    hours = (
        gone[at, column]
        - cleaned.lasts[at, column]
        + np.minimum(lacks / np.maximum(a_second, 1e-300), cleaned.lasts[at, column])
    )
    later = np.where(over.any(axis=0), hours, np.inf)
    found = np.where(full <= first, full, later)
    return np.where(found < LONG, found, np.inf)


@dataclass(frozen=True)
class PriceRange:
    """What something costs, in the shop's money: one price, or between two."""

    low: float
    high: float

    @staticmethod
    def of(low: float | None, high: float | None = None) -> PriceRange | None:
        """Of a price that may be a range; None where it is not known.

        Parameters
        ----------
        low : the price, or the least of it [the shop's money]
        high : the most of it; None: it is one price [the shop's money]
        """
        return None if low is None else PriceRange(low, low if high is None else high)

    @staticmethod
    def total(prices: Sequence[PriceRange]) -> PriceRange:
        """Of several things together."""
        return PriceRange(sum(price.low for price in prices), sum(price.high for price in prices))

    @property
    def middle(self) -> float:
        """What it is reckoned at."""
        return 0.5 * (self.low + self.high)

    def drawn(self, share: Array) -> Array:
        """Prices between the two, evenly for shares drawn evenly.

        Parameters
        ----------
        share : of the way from the least to the most, shape (s,) [-]
        """
        return np.asarray(self.low + share * (self.high - self.low))


@dataclass(frozen=True)
class Prices:
    """What things cost; None where not known."""

    filter: PriceRange | None = None
    bag: PriceRange | None = None
    separator: PriceRange | None = None
    inline: PriceRange | None = None  #: of the in-line filter, renewed whenever the air is down by a quarter

    def reckoned(self) -> Reckoned:
        """Each at its middle."""
        return Reckoned(*(None if price is None else price.middle for price in vars(self).values()))

    def drawn(self, shares: Array) -> Reckoned:
        """Each drawn between its ends.

        Parameters
        ----------
        shares : of the way, one row for each price, shape (4, s) [-]
        """
        pairs = zip(vars(self).values(), shares, strict=True)
        return Reckoned(*(None if price is None else price.drawn(share) for price, share in pairs))


@dataclass(frozen=True)
class Reckoned:
    """Prices in the shop's money, one or one for each course; None where not known."""

    filter: Values | None = None
    bag: Values | None = None
    separator: Values | None = None
    inline: Values | None = None


def cost_per_hour(found: Lives, bagged: bool, prices: Reckoned) -> Array | None:
    """Filters and bags for an hour of work, in the shop's money, shape (s,); None where a price or a life is not known.

    A bag is thrown away when it is full or the air is down by a quarter; a filter is cleaned then, and replaced when
    cleaning it is no longer worth it.

    Parameters
    ----------
    found : from clean filters
    bagged : whether a bag takes the dust
    prices : as far as they are known
    """
    price, lasts = (prices.bag, np.minimum(found.first, LONG)) if bagged else (prices.filter, found.total)
    if price is None or np.any(lasts <= 0.0):
        return None
    cost = price / lasts
    if prices.inline is not None:
        cost = cost + prices.inline / np.minimum(found.down, LONG)
    return np.asarray(cost)


def payback_hours(with_it: Array | None, without: Array | None, price: Values | None) -> Array | None:
    """Hours of work after which a separator has paid for itself [h], shape (s,): inf never.

    Parameters
    ----------
    with_it, without : cost of an hour of work [the shop's money]; None: not known
    price : of the separator [the shop's money]; None: not known
    """
    if with_it is None or without is None or price is None:
        return None
    saved = without - with_it
    return np.where(saved > 0.0, price / np.where(saved > 0.0, saved, 1.0), np.inf)
