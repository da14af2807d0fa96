"""What a line asks for: cleaning, new filters and bags, what an hour of work costs, when a separator has paid."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.vacuum import FilterMedium, Vacuum
from fenwick.core.dust.cakes import with_cakes
from fenwick.core.hours.ageing import AgeingMap, ageing_map, bin_hours, without_separators
from fenwick.core.hours.course import Course, Filters
from fenwick.core.hours.lives import LONG, Lives, Prices, Reckoned, VacuumRoom, cost_per_hour, lives, payback_hours
from fenwick.core.hours.march import march
from fenwick.core.judging.check import ACT, OK, WATCH
from fenwick.core.line.filters import BAG, OWN, bag_area, bag_volume, cake_on, tank_volume
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook

AREAS = np.geomspace(0.02, 4.0, 13)  #: of filters tried [m^2]


@dataclass(frozen=True)
class UpkeepWay:
    """One way to run the line, from clean filters."""

    id: str  #: with, without, other-bag
    bag_area: float  #: 0: no bag [m^2]
    course: Course  #: one column
    lives: Lives  #: likewise
    exhaust: float  #: of the dust made, through the filter when it is clean [-]
    cost: float | None  #: filters and bags for an hour of work, in the shop's money; None: a price is not known

    @property
    def flow(self) -> float:
        """Air with clean filters [m^3/s]."""
        return float(self.course.flow[0, 0])

    @property
    def life(self) -> float:
        """Until the air is down by a quarter, or the bag is full [h]; inf beyond `LONG`."""
        return float(self.lives.first[0])

    @property
    def tank_full(self) -> float:
        """Until the vacuum's tank is full [h]; inf beyond `LONG`, or where a bag takes the dust."""
        return float(self.lives.tank_full[0])


@dataclass(frozen=True)
class Upkeep:
    """How the line ages, with and without its separators."""

    with_it: UpkeepWay
    without: UpkeepWay | None  #: None where it has no separator
    other_bag: UpkeepWay | None  #: with a bag where it has none, and the reverse
    now: Course | None  #: from how filter and bag are today; None where both are clean
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
    mapped, reckoned = ageing_map(line, port), (prices or Prices()).reckoned()
    if mapped is None:
        return None
    vacuum, rules = line.vacuum, line.rules
    mapped_bare = ageing_map(without_separators(line), port) if line.stages else None
    bag, other = own_bag(vacuum), other_bag(vacuum, rules)
    ways = [clean_filters(vacuum, bag), clean_filters(vacuum, other)]
    if _loaded(vacuum):
        ways.append(filters_now(line))
    courses = march(mapped, Filters.together(ways), LONG)
    with_it = _way("with", mapped, vacuum, bag, courses.column(0), reckoned)
    swapped = None
    if vacuum.filter is not None:
        swapped = _way("other-bag", mapped, vacuum, other, courses.column(1), reckoned)
    now = courses.column(2) if len(ways) > 2 else None
    without = None
    if mapped_bare is not None:
        course = march(mapped_bare, clean_filters(vacuum, bag), LONG)
        without = _way("without", mapped_bare, vacuum, bag, course, reckoned)
    full, pays = bin_hours(mapped, line), _payback(with_it, without, reckoned)
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


def own_bag(vacuum: Vacuum) -> float:
    """Area of the bag in a vacuum [m^2]; 0 without one."""
    return one_value(vacuum.bag.area) if vacuum.bag is not None else 0.0


def other_bag(vacuum: Vacuum, rules: RuleBook) -> float:
    """Area of the bag that a vacuum without one could have [m^2]; 0 for one with a bag: then it is dropped."""
    return 0.0 if vacuum.bag is not None else one_value(bag_area(bag_volume(vacuum, rules), rules))


def room_in(vacuum: Vacuum, bag: float, rules: RuleBook) -> VacuumRoom:
    """What a vacuum takes with a bag, or without.

    Parameters
    ----------
    vacuum, rules : whose tank it is
    bag : area of its bag, 0 without one [m^2]
    """
    return VacuumRoom(None, bag_volume(vacuum, rules)) if bag > 0.0 else VacuumRoom(tank_volume(vacuum, rules), None)


def clean_filters(vacuum: Vacuum, bag: float, courses: int = 1) -> Filters:
    """Clean filters of some courses; `bag` is the area of the bag, 0 without one [m^2].

    Parameters
    ----------
    vacuum : whose filter it is
    bag : area of its bag [m^2]
    courses : how many [-]
    """
    own, none = vacuum.filter, np.zeros(courses)
    area = 0.0 if own is None else one_value(own.area)
    return Filters("paper" if own is None else own.kind, none + area, none + bag, none, none)


def coated(vacuum: Vacuum) -> bool:
    """Whether its filter has a film that a cake comes off more easily."""
    return vacuum.filter is not None and vacuum.filter.coated


def _loaded(vacuum: Vacuum) -> bool:
    media = (vacuum.filter, vacuum.bag)
    return any(medium is not None and one_value(medium.held) > 0.0 for medium in media)


def filters_now(line: Line) -> Filters:
    """One course's filters as they are today: each with the resistance that it has on the line."""
    line = with_cakes(line)
    vacuum = line.vacuum

    def held(medium: FilterMedium | None, place: str) -> tuple[float, float]:
        if medium is None:
            return 0.0, 0.0
        return one_value(medium.load), one_value(cake_on(medium, line, place))

    load, cake = held(vacuum.filter, OWN)
    bag_load, bag_cake = held(vacuum.bag, BAG)
    clean = clean_filters(vacuum, own_bag(vacuum))
    arrays = [np.array([value]) for value in (load, cake, bag_load, bag_cake)]
    return Filters(clean.kind, clean.area, clean.bag_area, *arrays)


def _way(name: str, mapped: AgeingMap, vacuum: Vacuum, bag: float, course: Course, prices: Reckoned) -> UpkeepWay:
    filters = clean_filters(vacuum, bag)
    found = lives(mapped, course, filters, room_in(vacuum, bag, mapped.rules), coated(vacuum))
    cost = cost_per_hour(found, bag > 0.0, prices)
    return UpkeepWay(name, bag, course, found, float(course.exhaust[0, 0]), None if cost is None else one_value(cost))


def _payback(with_it: UpkeepWay, without: UpkeepWay | None, prices: Reckoned) -> float | None:
    costs = [None if way is None or way.cost is None else np.array([way.cost]) for way in (with_it, without)]
    pays = payback_hours(costs[0], costs[1], prices.separator)
    return None if pays is None else one_value(pays)


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
    found = march(mapped, tried, max(wanted, 0.1) * 4.0).life(one_value(mapped.rules["filter.down"]))
    good = np.flatnonzero(found >= wanted)
    if good.size == 0:
        return None
    k = int(good[0])
    if k == 0 or not np.isfinite(found[k]):
        return float(AREAS[k])
    low, high = np.log(found[k - 1]), np.log(found[k])
    return float(np.exp(np.interp(np.log(wanted), [low, high], np.log(AREAS[k - 1 : k + 1]))))


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
