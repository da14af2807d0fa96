"""The search for ways: a beam over growing combinations, every round one change more."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from heapq import nsmallest
from itertools import islice

from fenwick.core.search.way.count import NOTHING, Combination, Counter, WayCount, places_of
from fenwick.core.search.way.options import WayLimits, WayOption, excluded

WIDTH = 60  #: of the best combinations, that are carried on from round to round
SHOWN = 12  #: of the best, that are handed on
NICHE = 2  #: of the best with each option and without it, that are carried on
ROUND = 7000  #: combinations that are counted in a round at most


@dataclass(frozen=True)
class CountedWay:
    """A combination with what it comes to."""

    chosen: Combination
    count: WayCount


@dataclass(frozen=True)
class WaySearch:
    """Where a search stands."""

    tried: int
    best: tuple[tuple[CountedWay, ...], ...]  #: within each of the limits, the least count first


def search_way(
    counter: Counter, limits: Sequence[WayLimits], stop: Callable[[], bool] = lambda: False, width: int = WIDTH
) -> Iterator[WaySearch]:
    """Look for the least count within each of some limits at once; yields after every round.

    Every round is gone to the end, whether the one before brought anything or not: some changes only help together.

    Parameters
    ----------
    limits : money, time, how many changes
    stop : asked between rounds
    width : combinations that are carried on within each of the limits [-]
    """
    shut = excluded(counter.options)
    beam = _counted(counter, [NOTHING])
    best = tuple(_best(beam, within) for within in limits)
    for _ in range(max((within.changes for within in limits), default=0)):
        grown = _grown(counter.options, shut, beam, limits)
        if not grown or stop():
            break
        found = _counted(counter, grown[:ROUND])
        best = tuple(_best((*known, *found), within) for known, within in zip(best, limits, strict=True))
        ranked = sorted({one.chosen: one for one in (*beam, *found)}.values(), key=_rank)
        carried = [_carried([one for one in ranked if _within(one, limit)], width) for limit in limits]
        beam = sorted({one.chosen: one for part in carried for one in part}.values(), key=_rank)
        yield WaySearch(len(counter.counted), best)
    yield WaySearch(len(counter.counted), best)


def _within(one: CountedWay, limits: WayLimits) -> bool:
    few = one.chosen.bit_count() <= limits.changes
    return few and limits.allows(one.count.cost, one.count.hours)


def _best(found: Sequence[CountedWay], limits: WayLimits) -> tuple[CountedWay, ...]:
    """Of what was counted and is within limits, what is most worth doing."""
    return tuple(nsmallest(SHOWN, (one for one in found if _within(one, limits)), key=_rank))


def _carried(ranked: Sequence[CountedWay], width: int) -> list[CountedWay]:
    """The best of all, and of every option the best that have it and that have it not: what leads far starts low."""
    carried = list(ranked[:width])
    having: dict[int, int] = {}
    for one in ranked:
        for at in places_of(one.chosen):
            having[at] = having.get(at, 0) + 1
            if having[at] <= NICHE:
                carried.append(one)
    for at in having:
        carried += islice((one for one in ranked if not one.chosen >> at & 1), NICHE)
    return carried


def _rank(one: CountedWay) -> tuple[tuple[float, ...], int]:
    return one.count.rank, one.chosen


def _counted(counter: Counter, combinations: Sequence[Combination]) -> list[CountedWay]:
    counts = counter.count(combinations)
    return [CountedWay(one, count) for one, count in zip(combinations, counts, strict=True) if count is not None]


def _grown(
    options: Sequence[WayOption], shut: Sequence[int], beam: Sequence[CountedWay], limits: Sequence[WayLimits]
) -> list[Combination]:
    """Every combination with one option more that some of the limits allow, the best first."""
    found: dict[Combination, None] = {}
    takes = [(1 << at, shut[at], one.cost, one.hours) for at, one in enumerate(options)]
    for one in beam:
        chosen, cost, hours = one.chosen, one.count.cost, one.count.hours
        open_ = [within for within in limits if chosen.bit_count() < within.changes]
        for bit, mask, more, longer in takes:
            if not chosen & mask and any(within.allows(cost + more, hours + longer) for within in open_):
                found.setdefault(chosen | bit)
    return list(found)


def pruned(counter: Counter, way: CountedWay) -> CountedWay:
    """The way without what nobody would notice: each change is left out once, the dearest first."""
    best = way
    for at in sorted(places_of(way.chosen), key=lambda i: (-counter.options[i].cost, -counter.options[i].hours, i)):
        (shorter,) = counter.count([best.chosen & ~(1 << at)])
        if shorter is not None and shorter.as_good_as(best.count):
            best = CountedWay(best.chosen & ~(1 << at), shorter)
    return best


def in_order(counter: Counter, chosen: Combination) -> list[int]:
    """The places of a way's options, what lowers the count most first."""
    done, order = NOTHING, list[int]()
    while done != chosen:
        left = places_of(chosen & ~done)
        counts = counter.count([done | 1 << at for at in left])
        known = [(count.rank, at) for count, at in zip(counts, left, strict=True) if count is not None]
        order.append(min(known)[1] if known else left[0])
        done |= 1 << order[-1]
    return order
