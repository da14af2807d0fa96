"""What a line asks for: cleaning, new filters and bags, what an hour of work costs, when a separator has paid."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.vacuum import FilterMedium, Vacuum
from fenwick.core.hours.ageing import AgeingMap, Course, Filters, ageing_map, bin_hours, without_separators
from fenwick.core.hours.march import march
from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.core.line.line import Line
from fenwick.core.line.rows import cake_resistance
from fenwick.core.rules import RuleBook

LONG = 1000.0  #: hours of work beyond which nothing is followed [h]
AREAS = np.geomspace(0.02, 4.0, 13)  #: of filters tried [m^2]


@dataclass(frozen=True)
class UpkeepWay:
    """One way to run the line, from clean filters."""

    id: str  #: with, without, other-bag
    bag_area: float  #: 0: no bag [m^2]
    course: Course  #: one column
    life: float  #: until the air is down by a quarter [h]; inf beyond `LONG`
    exhaust: float  #: of the dust made, through the filter when it is clean [-]
    cleaned: Cleanings | None  #: of its filter; None where it lasts no time, or a bag takes the dust
    cost: float | None  #: filters and bags for an hour of work, in the shop's money; None: a price is not known

    @property
    def flow(self) -> float:
        """Air with clean filters [m^3/s]."""
        return float(self.course.flow[0, 0])


@dataclass(frozen=True)
class Cleanings:
    """A filter cleaned each time the air is down by a quarter, until that comes too soon."""

    between: tuple[float, ...]  #: hours of work, the first from new [h]

    @property
    def total(self) -> float:
        """Hours a filter lasts [h]."""
        return float(sum(self.between))


@dataclass(frozen=True)
class Prices:
    """In the shop's money; None where not known."""

    filter: float | None = None
    bag: float | None = None
    separator: float | None = None


@dataclass(frozen=True)
class Upkeep:
    """How the line ages, with and without its separators."""

    with_it: UpkeepWay
    without: UpkeepWay | None  #: None where it has no separator
    other_bag: UpkeepWay | None  #: with a bag where it has none, and the reverse
    now: Course | None  #: from how the filter is today; None where that is clean
    now_left: float | None  #: hours until the air is down by a quarter [h]
    today: float  #: air today over the air with a clean filter [-]
    exhaust_today: float  #: of the dust made, through the filter as it is [-]
    exhaust_clean: float  #: the same with a clean filter [-]
    bin_hours: float | None  #: from floor to mark [h]
    bin_weeks: float | None  #: likewise, at the hours a week that are worked [-]; None: not known
    payback: float | None  #: hours after which the separator has paid [h]; inf never; None where it cannot be told
    payback_weeks: float | None  #: likewise, at the hours a week that are worked [-]
    smallest: float | None  #: filter area that still lasts as long as asked [m^2]; None: none of those tried


def upkeep(
    line: Line, port: int, wanted: float, prices: Prices | None = None, weekly: float | None = None
) -> Upkeep | None:
    """Follow the line over `LONG` hours of work.

    Parameters
    ----------
    line : a single variant
    port : place among the leaves of the tool whose air is followed [-]
    wanted : hours that a filter should last between cleanings [h]
    prices : as far as they are known
    weekly : hours of work a week [h]; None: not known

    Returns
    -------
    None where the dust, its amount, the hood or a filter is not known.
    """
    mapped, prices = ageing_map(line, port), prices or Prices()
    if mapped is None:
        return None
    vacuum, rules = line.vacuum, line.rules
    bare = without_separators(line)
    mapped_bare = ageing_map(bare, port) if line.stages else None
    bag = one_value(vacuum.bag.area) if vacuum.bag is not None else 0.0
    other = 0.0 if bag else one_value(rules["bag.area"])
    with_it = _way("with", mapped, vacuum, bag, prices)
    swapped = _way("other-bag", mapped, vacuum, other, prices) if vacuum.filter is not None else None
    without = None if mapped_bare is None else _way("without", mapped_bare, vacuum, bag, prices)
    held = vacuum.filter if vacuum.filter is not None and one_value(vacuum.filter.held) > 0.0 else None
    now = march(mapped, _filters(vacuum, bag, held, line), LONG) if held is not None else None
    full, pays = bin_hours(mapped, line), payback_hours(with_it, without, prices.separator)
    clean, today = with_it.flow, with_it.flow if now is None else float(now.flow[0, 0])
    return Upkeep(
        with_it=with_it,
        without=without,
        other_bag=swapped,
        now=now,
        now_left=None if now is None else _left(now, clean, rules),
        today=today / clean,
        exhaust_today=with_it.exhaust if now is None else float(now.exhaust[0, 0]),
        exhaust_clean=with_it.exhaust,
        bin_hours=full,
        bin_weeks=full / weekly if full is not None and weekly else None,
        payback=pays,
        payback_weeks=pays / weekly if pays is not None and weekly else None,
        smallest=_smallest(mapped, vacuum, bag, wanted) if vacuum.filter is not None else None,
    )


def _filters(vacuum: Vacuum, bag: float, held: FilterMedium | None = None, line: Line | None = None) -> Filters:
    """One course's filters, clean or as they are."""
    own = vacuum.filter
    load, cake = 0.0, 0.0
    if held is not None and line is not None:
        load, cake = one_value(held.load), one_value(cake_resistance(held, line))
    area = 0.0 if own is None else one_value(own.area)
    return Filters(
        "paper" if own is None else own.kind, np.array([area]), np.array([bag]), np.array([load]), np.array([cake])
    )


def _way(name: str, mapped: AgeingMap, vacuum: Vacuum, bag: float, prices: Prices) -> UpkeepWay:
    course = march(mapped, _filters(vacuum, bag), LONG)
    life = float(course.life(one_value(mapped.rules["filter.down"]))[0])
    cleaned = None if bag > 0.0 else cleanings(life, mapped.rules)
    cost = cost_per_hour(life, bag > 0.0, cleaned, prices)
    return UpkeepWay(name, bag, course, life, float(course.exhaust[0, 0]), cleaned, cost)


def _left(now: Course, clean: float, rules: RuleBook) -> float:
    """Hours until the air is a quarter below that of a clean filter [h]."""
    limit = one_value(rules["filter.down"]) * clean
    share = limit / float(now.flow[0, 0])
    return 0.0 if share >= 1.0 else float(now.life(share)[0])


def _smallest(mapped: AgeingMap, vacuum: Vacuum, bag: float, wanted: float) -> float | None:
    """The least of `AREAS`, drawn between them, that lasts as long as wanted."""
    assert vacuum.filter is not None
    none = np.zeros_like(AREAS)
    tried = Filters(vacuum.filter.kind, AREAS, none + bag, none, none)
    lives = march(mapped, tried, max(wanted, 0.1) * 4.0).life(one_value(mapped.rules["filter.down"]))
    good = np.flatnonzero(lives >= wanted)
    if good.size == 0:
        return None
    k = int(good[0])
    if k == 0 or not np.isfinite(lives[k]):
        return float(AREAS[k])
    low, high = np.log(lives[k - 1]), np.log(lives[k])
    return float(np.exp(np.interp(np.log(wanted), [low, high], np.log(AREAS[k - 1 : k + 1]))))


def cleanings(life: float, rules: RuleBook) -> Cleanings | None:
    """How often a filter is worth cleaning, each cleaning leaving some of the cake in it; None where it lasts no time.

    A life that was not followed to its end counts as `LONG`.

    Parameters
    ----------
    life : hours between two cleanings [h]; inf where it was not followed to its end
    """
    life = min(life, LONG)
    if life <= 0.0:
        return None
    leaves, worn = one_value(rules["filter.blinds"]), one_value(rules["filter.worn"])
    between: list[float] = []
    share = 1.0
    while share >= worn and len(between) < 100:
        between.append(life * share)
        share *= 1.0 - leaves
    return Cleanings(tuple(between))


def life_level(life: float, wanted: float, rules: RuleBook) -> int:
    """How a filter's life stands to the hours asked of it [h]: OK, WATCH or ACT.

    Parameters
    ----------
    life : of the filter [h]
    wanted : hours asked of it [h]
    """
    if life >= wanted:
        return OK
    return WATCH if life >= one_value(rules["filter.short"]) * wanted else ACT


def cake_level(today: float, rules: RuleBook) -> int:
    """Whether to leave a cake on (OK), clean it soon (WATCH) or now (ACT), by the air it leaves [-].

    Parameters
    ----------
    today : air with the cake on, as a share of the air without it [-]
    """
    if today < one_value(rules["filter.down"]):
        return ACT
    return WATCH if today < one_value(rules["filter.leave"]) else OK


def cost_per_hour(life: float, bagged: bool, cleaned: Cleanings | None, prices: Prices) -> float | None:
    """Filters and bags for an hour of work, in the shop's money; None where a price or the life is not known.

    A bag is thrown away when the air is down by a quarter; a filter is cleaned then, and replaced when worn out.

    Parameters
    ----------
    life : until the air is down by a quarter [h]
    bagged : whether a bag takes the dust
    cleaned : how the filter fares without one
    prices : as far as they are known
    """
    if bagged:
        return None if prices.bag is None or life <= 0.0 else prices.bag / min(life, LONG)
    return None if cleaned is None or prices.filter is None else prices.filter / cleaned.total


def payback_hours(with_it: UpkeepWay, without: UpkeepWay | None, price: float | None) -> float | None:
    """Hours of work after which a separator of a price, in the shop's money, has paid for itself [h].

    inf never; None where that cannot be told.

    Parameters
    ----------
    price : of the separator [the shop's money]; None: not known
    """
    if without is None or price is None or with_it.cost is None or without.cost is None:
        return None
    saved = without.cost - with_it.cost
    return price / saved if saved > 0.0 else float("inf")
