"""What the log says was spent, on what, and what the separator saved of it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

import numpy as np
from sqlmodel import Session

from fenwick.core.logbook.entries import BAG, FILTER, SPENT_ON
from fenwick.core.logbook.lives import belief, usual_of
from fenwick.core.logbook.money import Spent, saved
from fenwick.core.logbook.story import past_lives
from fenwick.core.logbook.usage import OneOff, one_off
from fenwick.core.rules import RuleBook
from fenwick.data.lines import readable_lines
from fenwick.data.shops import readable_shop
from fenwick.logged import Logged
from fenwick.rig import Rig
from fenwick.rig.edits.ports import alone
from fenwick.services.hours import upkeep_of
from fenwick.services.logbook.estimate import HolderToday, Likely
from fenwick.services.logbook.holders import bin_on, emptied, share_of_bin, vacuum_key, wears_of
from fenwick.services.logbook.today import ShopToday, shop_today
from fenwick.shop import ShopFile, money_sign

WANTED = 20.0  #: of a filter between cleanings: moves none of the figures taken from `upkeep` here [h]
OF_KIND = {"replaced": "filter", "bag": "bag", "renewed": "parts"}


@dataclass(frozen=True)
class MoneyLine:
    """What was spent on something."""

    what: str  #: key of SPENT_ON
    booked: float
    times: int


@dataclass(frozen=True)
class MoneyToday:
    """The shop's money since its log begins."""

    sign: str  #: of the shop's money
    since: datetime | None
    lines: tuple[MoneyLine, ...]
    hours: float  #: of work that were logged [h]
    dust: float | None  #: that was taken out of bins [kg]; None: nobody said
    upkeep: float  #: spent on filters and bags
    modelled: float | None  #: by the model for those hours, with the separator; None: a price is not known
    without: Likely | None  #: what they would have been without it
    paid_after: Likely | None  #: days from the beginning [d]
    days: float  #: that the log covers [d]

    @property
    def an_hour(self) -> float | None:
        """Filters and bags for an hour of work; None where none was logged."""
        return self.upkeep / self.hours if self.hours > 0.0 and self.upkeep > 0.0 else None

    @property
    def a_kilogram(self) -> float | None:
        """Filters and bags for a kilogram kept in bins; None where nobody said how much that was."""
        return self.upkeep / self.dust if self.dust and self.upkeep > 0.0 else None


def money_today(session: Session, now: datetime) -> MoneyToday:
    """Work out what was spent and saved."""
    today, shop = shop_today(session, now), readable_shop(session)
    rigs = dict(readable_lines(session, today.read.spans)[0])
    booked = _booked(today.read.events)
    begins = min((first for first, _ in today.read.spans.values()), default=today.read.today)
    days = today.read.today - begins
    hours = sum(float(one.hours.sum()) for one in today.read.hours)
    upkeep = sum(one.booked for one in booked if one.what in ("filter", "bag"))
    prices = _modelled(today, {line: _priced(rig, today.read.events, shop) for line, rig in rigs.items()})
    without = paid = None
    if prices.without is not None and hours > 0.0:
        without, paid = _saved(today, booked, upkeep, hours, days, prices.without / hours)
    return MoneyToday(
        money_sign(shop),
        today.read.moment(begins - today.read.today) if today.read.spans else None,
        booked,
        hours,
        _dust(today, rigs),
        upkeep,
        prices.with_it,
        without,
        paid,
        days,
    )


def _booked(events: tuple[Logged, ...]) -> tuple[MoneyLine, ...]:
    sums: dict[str, list[float]] = {}
    for event in events:
        if event.money is not None:
            what = event.thing if event.kind == "spent" else OF_KIND.get(event.kind, "other")
            sums.setdefault(what if what in SPENT_ON else "other", []).append(event.money)
    return tuple(MoneyLine(what, sum(sums[what]), len(sums[what])) for what in SPENT_ON if what in sums)


def _priced(rig: Rig, events: tuple[Logged, ...], shop: ShopFile | None) -> Rig:
    """A rig whose filter and bag have a price: its own, that of the shop's vacuum, or what was paid for one."""
    owned = next((one for one in (shop.vacuums if shop else ()) if one.id == vacuum_key(rig, shop)), None)
    media = {}
    for name, kind in (("filter", "replaced"), ("bag", "bag")):
        medium, theirs = getattr(rig.vacuum, name), getattr(owned, name, None)
        paid = [event.money for event in events if event.kind == kind and event.money]
        if medium is not None and medium.price is None:
            price = theirs.price if theirs is not None and theirs.price is not None else None
            price = sum(paid) / len(paid) if price is None and paid else price
            medium = medium.model_copy(update={"price": price})
        media[name] = medium
    return rig.model_copy(update={"vacuum": rig.vacuum.model_copy(update=media)})


@dataclass(frozen=True)
class _Modelled:
    """Filters and bags for all hours that were logged, by the model; None where a price is not known."""

    with_it: float | None
    without: float | None


def _modelled(today: ShopToday, rigs: dict[int, Rig]) -> _Modelled:
    with_it, without = 0.0, 0.0
    known = [True, True]
    for one in today.read.hours:
        rig = rigs.get(one.line or 0)
        lone = None if rig is None else _alone(rig, one.tool)
        if lone is None:
            continue
        found = upkeep_of(*lone, WANTED, None)
        worked = float(one.hours.sum())
        costs = [None if found is None else found.with_it.cost, None]
        if found is not None and found.without is not None:
            costs[1] = found.without.cost
        for i, cost in enumerate(costs):
            known[i] &= cost is not None
        with_it += worked * (costs[0] or 0.0)
        without += worked * (costs[1] or 0.0)
    return _Modelled(with_it if known[0] else None, without if known[1] else None)


def _alone(rig: Rig, tool: str) -> tuple[Rig, int] | None:
    """(the rig while one tool works alone, place of its port); None where it has no such tool."""
    for place, way in enumerate(rig.line.ways):
        if way[0].port is not None and way[0].port.name == tool:
            return emptied(alone(rig, way[0].id) or rig), place
    return None


def _saved(
    today: ShopToday, booked: tuple[MoneyLine, ...], upkeep: float, hours: float, days: float, an_hour: float
) -> tuple[Likely, Likely]:
    """(what it would have cost without, days after which the separator has paid)."""
    filters = [one for one in today.holders if one.holder.kind in (FILTER, BAG)]
    stories = [one.story for one in filters[:1]]
    life = belief(past_lives(stories), usual_of("filter", RuleBook()))
    separator = sum(one.booked for one in booked if one.what in ("separator", "parts"))
    arrays = [np.array([value]) for value in (upkeep, separator, hours, days, an_hour)]
    found = saved(Spent(*arrays), life)
    return Likely.of(found.without), Likely.of(found.paid_after)


def _dust(today: ShopToday, rigs: dict[int, Rig]) -> float | None:
    """Weight of what was taken out of bins, as far as was said."""
    total = 0.0
    for event in today.read.events:
        rig = rigs.get(event.line or 0)
        if event.kind != "emptied" or rig is None:
            continue
        there, share = bin_on(emptied(rig)), share_of_bin(event, rig)
        if event.mass is not None:
            total += event.mass
        elif there is not None and there.bulk and share is not None:
            total += share * there.volume * there.bulk
    return total or None


def one_off_on(rig: Rig, tool: str, hours: float, holders: list[HolderToday]) -> OneOff | None:
    """So many hours at a tool of a line [h], with lives as they are here; None where that is not known."""
    wear, there = wears_of(emptied(rig)).get(tool), bin_on(emptied(rig))
    typical = {one.holder.kind: one.typical for one in holders}
    return None if wear is None else one_off(wear, hours, typical, None if there is None else there.volume)
