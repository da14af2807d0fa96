"""The search for ways: a beam over growing combinations, every round one change more."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from fenwick.core.search.way.count import Combination, Counter, WayCount
from fenwick.core.search.way.options import WayLimits, WayOption, go_together

WIDTH = 120  #: combinations that are carried on from round to round
SHOWN = 12  #: of the best, that are handed on
ROUND = 4000  #: combinations that are counted in a round at most


@dataclass(frozen=True)
class CountedWay:
    """A combination with what it comes to."""

    chosen: Combination
    count: WayCount


@dataclass(frozen=True)
class WaySearch:
    """Where a search for one way stands."""

    tried: int
    best: tuple[CountedWay, ...]  #: the least count first


def search_way(
    counter: Counter, limits: WayLimits, stop: Callable[[], bool] = lambda: False, width: int = WIDTH
) -> Iterator[WaySearch]:
    """Look for the least count within limits; yields after every round.

    A round that brings nothing better is followed by one more, since some changes only help together.

    Parameters
    ----------
    limits : money, time, how many changes
    stop : asked between rounds
    width : combinations that are carried on [-]
    """
    options = counter.options
    counter.count([frozenset()])
    beam = _known(counter, limits)[:width]  # what was counted for another way is not lost
    best, idle = _best(counter, limits), 0
    for _ in range(limits.changes):
        grown = _grown(options, beam, limits)
        if not grown or stop():
            break
        found = _counted(counter, grown[:ROUND])
        beam = sorted({one.chosen: one for one in (*beam, *found)}.values(), key=_rank)[:width]
        before, best = best, _best(counter, limits)
        idle = idle + 1 if best[:1] == before[:1] else 0
        yield WaySearch(len(counter.counted), tuple(best))
        if idle > 1:
            break
    yield WaySearch(len(counter.counted), tuple(best))


def _best(counter: Counter, limits: WayLimits) -> list[CountedWay]:
    """What was counted and is within limits, the most worth doing first."""
    return _known(counter, limits)[:SHOWN]


def _known(counter: Counter, limits: WayLimits) -> list[CountedWay]:
    """All that was counted and is within limits, the least first."""
    counted = ((one, count) for one, count in counter.counted.items() if count is not None)
    within = (CountedWay(one, count) for one, count in counted if limits.allows(count.cost, count.hours))
    return sorted((one for one in within if len(one.chosen) <= limits.changes), key=_rank)


def _rank(one: CountedWay) -> tuple[tuple[float, ...], tuple[int, ...]]:
    return one.count.rank, tuple(sorted(one.chosen))


def _counted(counter: Counter, combinations: Sequence[Combination]) -> list[CountedWay]:
    counts = counter.count(combinations)
    return [CountedWay(one, count) for one, count in zip(combinations, counts, strict=True) if count is not None]


def _grown(options: Sequence[WayOption], beam: Sequence[CountedWay], limits: WayLimits) -> list[Combination]:
    """Every combination with one option more that the limits allow, the best first."""
    found: dict[Combination, None] = {}
    for one in beam:
        if len(one.chosen) >= limits.changes:
            continue
        for new in range(len(options)):
            more = options[new]
            within = limits.allows(one.count.cost + more.cost, one.count.hours + more.hours)
            if new not in one.chosen and within and go_together(options, one.chosen, new):
                found.setdefault(one.chosen | {new})
    return list(found)


def pruned(counter: Counter, way: CountedWay) -> CountedWay:
    """The way without what nobody would notice: each change is left out once, the dearest first."""
    best = way
    for at in sorted(way.chosen, key=lambda i: (-counter.options[i].cost, -counter.options[i].hours, i)):
        (shorter,) = counter.count([best.chosen - {at}])
        if shorter is not None and shorter.as_good_as(best.count):
            best = CountedWay(best.chosen - {at}, shorter)
    return best
