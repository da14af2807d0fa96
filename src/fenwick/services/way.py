"""The ways to a line that works: searched, solved whole, put in order; worked out once for each question."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field
from functools import lru_cache

from fenwick.core.errors import CoreError
from fenwick.core.judging.check import Check
from fenwick.core.judging.line_figures import LineFigures
from fenwick.core.line.line import Line
from fenwick.core.search.way.count import NOTHING, Counter, WayCount, places_of
from fenwick.core.search.way.options import EVENING, USUAL_SPEND, WEEKEND, WayLimits
from fenwick.core.search.way.search import CountedWay, in_order, pruned, search_way
from fenwick.core.search.work import PortWork
from fenwick.rig import Rig, build_line
from fenwick.services.moves import Move, as_made, moves_for, with_moves
from fenwick.services.way_steps import WayStep, WholeCount, as_it_stands, steps_of, whole_count
from fenwick.shop import ShopFile
from fenwick.shop.work import HOUR, jobs_on_line

VERIFIED = 5  #: of the best by screening, that are solved whole
UNKNOWN_MASS = 1.0  #: of dust a week at a port of which nothing is known [kg]


@dataclass(frozen=True)
class WayAsked:
    """What may be spent; None: not said."""

    spend: float | None = None  #: in the shop's money
    hours: float | None = None  #: [h]
    struck: tuple[str, ...] = ()  #: keys of moves that are out of the question

    @property
    def unlimited(self) -> bool:
        """Whether neither money nor time was given."""
        return self.spend is None and self.hours is None


@dataclass(frozen=True)
class FoundWay:
    """A way, in the order it is gone."""

    limits: WayLimits  #: that it was found within
    steps: tuple[WayStep, ...]
    rig: Rig
    figures: LineFigures  #: of the line as it stands then
    count: WayCount  #: over the week's work

    @property
    def cost(self) -> float:
        """Of all its steps, in the shop's money."""
        return sum(step.move.option.cost for step in self.steps)

    @property
    def hours(self) -> float:
        """Of all its steps, hands-on [h]."""
        return sum(step.move.option.hours for step in self.steps)


@dataclass(frozen=True)
class FoundWays:
    """What there is to do about a line."""

    today: LineFigures
    count: WayCount  #: today, over the week's work
    works: tuple[PortWork, ...]
    ways: tuple[FoundWay, ...]
    left: tuple[Check, ...]  #: to act on still at the end of the furthest way
    notices: tuple[Check, ...]  #: to watch there
    tried: int  #: combinations
    lacking: tuple[str, ...]  #: tools for want of which something cannot be made
    possible: int  #: moves that there are


@dataclass(frozen=True)
class WaysState:
    """Where a search stands."""

    tried: int
    found: FoundWays | None = field(default=None)


def works_of(rig: Rig, shop: ShopFile | None, line: Line) -> tuple[PortWork, ...]:
    """The week's work at the line's ports: the shop's jobs, else an hour at each."""
    jobs = jobs_on_line(shop, rig, line.rules)[0] if shop is not None else []
    masses: dict[int, float] = {}
    for job in jobs:
        masses[job.port] = masses.get(job.port, 0.0) + job.mass * job.times
    if any(masses.values()):
        return tuple(PortWork(port, mass) for port, mass in masses.items() if mass > 0.0)
    rates = [leaf.port.dust_rate for leaf in line.leaves]
    return tuple(PortWork(i, UNKNOWN_MASS if rate is None else float(rate) * HOUR) for i, rate in enumerate(rates))


def week_today(rig: Rig, shop: ShopFile | None) -> tuple[tuple[PortWork, ...], WholeCount]:
    """The week's work of a line, and what the line as it is comes to over it.

    Raises
    ------
    CoreError
        When it does not settle.
    """
    works = works_of(rig, shop, build_line(rig))
    today = whole_count(rig, works, shop)
    if today is None:
        raise CoreError("The line does not settle as it stands.")
    return works, today


@lru_cache(maxsize=16)
def ways_to(rig: Rig, shop: ShopFile | None, asked: WayAsked) -> FoundWays:
    """The ways of a line.

    Raises
    ------
    CoreError
        When the line cannot be solved.
    """
    *_, last = search_ways(rig, shop, asked)
    assert last.found is not None
    return last.found


def search_ways(
    rig: Rig, shop: ShopFile | None, asked: WayAsked, stop: Callable[[], bool] = lambda: False
) -> Iterator[WaysState]:
    """Look for the ways of a line; yields where the search stands, at last what was found.

    Raises
    ------
    CoreError
        When the line does not settle as it stands.
    """
    works, today = week_today(rig, shop)
    yield WaysState(1)
    moves = [one for one in moves_for(rig, shop, [work.port for work in works]) if one.option.key not in asked.struck]
    usable = tuple(one for one in moves if not one.option.tools)
    counter = _counter(rig, usable, works, today.count.acts)
    asks = asked_limits(asked)
    best: tuple[tuple[CountedWay, ...], ...] = ((),) * len(asks)
    for state in search_way(counter, asks, stop):
        best = state.best
        yield WaysState(state.tried)
    found: list[FoundWay] = []
    for limits, ranked in zip(asks, best, strict=True):
        way = _whole(rig, shop, usable, counter, limits, ranked, found[-1].count if found else today.count)
        if way is not None:
            found.append(way)
    end = whole_count(found[-1].rig if found else rig, works, shop)
    assert end is not None
    lacking = sorted({tool for one in moves for tool in one.option.tools})
    tried = len(counter.counted)
    yield WaysState(
        tried,
        FoundWays(
            as_it_stands(rig), today.count, works, tuple(found), end.acting, end.watching, tried, tuple(lacking),
            len(usable),
        ),
    )  # fmt: skip


def asked_limits(asked: WayAsked) -> list[WayLimits]:
    """At most three: for nothing this evening, for what was said, and without a limit where none was."""
    free = WayLimits(0.0, EVENING if asked.hours is None else min(asked.hours, EVENING))
    if asked.unlimited:
        return [free, WayLimits(USUAL_SPEND, WEEKEND), WayLimits()]
    given = WayLimits(asked.spend, asked.hours)
    return [given] if given == free or asked.spend == 0.0 else [free, given]


def _counter(rig: Rig, moves: Sequence[Move], works: tuple[PortWork, ...], acts: int) -> Counter:
    made: dict[tuple[Move, ...], Rig | None] = {(): rig}

    def rig_with(chosen: tuple[Move, ...]) -> Rig | None:
        if chosen not in made:  # one move on top of what is known
            before = rig_with(chosen[:-1])
            made[chosen] = None if before is None else with_moves(before, chosen[-1:])
        return made[chosen]

    def line_with(chosen: tuple[int, ...]) -> Line | None:
        changed = rig_with(tuple(as_made([moves[i] for i in chosen])))
        return None if changed is None else build_line(changed)

    options = [move.option for move in moves]
    seen = Counter(line_with, options, works).count([NOTHING])[0]
    return Counter(line_with, options, works, 0 if seen is None else acts - seen.acts)


def _whole(
    rig: Rig, shop: ShopFile | None, moves: Sequence[Move], counter: Counter, limits: WayLimits,
    best: Sequence[CountedWay], before: WayCount,
) -> FoundWay | None:  # fmt: skip
    """The best that stands up when it is solved whole, in its order; None where nothing is better than before."""
    stands: list[tuple[tuple[float, ...], int, WayCount]] = []
    for chosen in sorted({pruned(counter, one).chosen for one in best[:VERIFIED] if one.chosen}):
        chosen = _without_idle(rig, shop, moves, counter.works, chosen)
        count = _solved(rig, shop, [moves[i] for i in places_of(chosen)], counter.works) if chosen else None
        if count is not None and count.better_than(before):
            options = [moves[i].option for i in places_of(chosen)]
            spent = (sum(one.cost for one in options), sum(one.hours for one in options))
            stands.append(((*count.worth[:3], *spent), chosen, count))
    if not stands:
        return None
    _, chosen, count = min(stands, key=lambda one: one[:2])
    steps = steps_of(rig, [moves[i] for i in in_order(counter, chosen)], counter.works, shop)
    whole = with_moves(rig, [moves[i] for i in places_of(chosen)])
    assert whole is not None
    return FoundWay(limits, steps, whole, as_it_stands(whole), count)


def _without_idle(
    rig: Rig, shop: ShopFile | None, moves: Sequence[Move], works: tuple[PortWork, ...], chosen: int
) -> int:
    """A combination without what clears nothing any more, such as a strap for a bin that is exchanged anyway."""
    for at in places_of(chosen):
        if moves[at].option.still:
            left = chosen & ~(1 << at)
            with_it = _solved(rig, shop, [moves[i] for i in places_of(chosen)], works)
            without = _solved(rig, shop, [moves[i] for i in places_of(left)], works)
            if with_it is not None and without is not None and without.as_good_as(with_it):
                chosen = left
    return chosen


def _solved(rig: Rig, shop: ShopFile | None, moves: Sequence[Move], works: tuple[PortWork, ...]) -> WayCount | None:
    changed = with_moves(rig, moves)
    whole = None if changed is None else whole_count(changed, works, shop)
    return None if whole is None else whole.count
