"""The ways to a line that works: searched, solved whole, put in order; worked out once for each question."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field
from functools import lru_cache

from fenwick.core.errors import CoreError
from fenwick.core.judging.assess import assess
from fenwick.core.judging.check import ACT, Check
from fenwick.core.judging.line_figures import LineFigures, line_figures
from fenwick.core.judging.review import review
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone
from fenwick.core.search.way.count import Combination, Counter, PortWork, WayCount
from fenwick.core.search.way.options import WayLimits
from fenwick.core.search.way.search import CountedWay, pruned, search_way
from fenwick.rig import Rig, RigError, build_line
from fenwick.services.moves import Move, moves_for, with_moves
from fenwick.services.solving import solve
from fenwick.shop import ShopFile
from fenwick.shop.work import HOUR, jobs_on_line

EVENING, WEEKEND, USUAL_SPEND = 3.0, 12.0, 60.0  #: [h], [h], [money]
VERIFIED = 3  #: of the best by screening, that are solved whole
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
class WayStep:
    """One step of a way."""

    move: Move
    figures: LineFigures  #: of the line as it stands, after it
    rig: Rig  #: after it
    prepares: str | None = None  #: key of the later step that it prepares, where it lowers nothing by itself


@dataclass(frozen=True)
class FoundWay:
    """A way, in the order it is gone."""

    title: str
    steps: tuple[WayStep, ...]
    rig: Rig
    figures: LineFigures
    count: WayCount

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
    count: WayCount
    ways: tuple[FoundWay, ...]
    left: tuple[Check, ...]  #: to act on still at the end of the furthest way
    end: Rig  #: that end
    tried: int  #: combinations


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
    if masses:
        return tuple(PortWork(port, mass) for port, mass in masses.items())
    rates = [leaf.port.dust_rate for leaf in line.leaves]
    return tuple(PortWork(i, UNKNOWN_MASS if rate is None else float(rate) * HOUR) for i, rate in enumerate(rates))


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
    """Look for the ways of a line; yields where the search stands, at last what was found."""
    line = build_line(rig)
    works = works_of(rig, shop, line)
    moves = tuple(
        move for move in moves_for(rig, shop, [work.port for work in works]) if move.option.key not in asked.struck
    )
    usable = tuple(move for move in moves if not move.option.tools)
    counter = _counter(rig, usable, works)
    (today,) = counter.count([frozenset()])
    if today is None:
        raise CoreError("The line does not settle as it stands.")
    found: list[FoundWay] = []
    for title, limits in _asked_ways(asked):
        best: tuple[CountedWay, ...] = ()
        for state in search_way(counter, limits, stop):
            best = state.best
            yield WaysState(state.tried)
        way = _whole(rig, usable, counter, title, best, today)
        if way is not None and all(way.rig != one.rig for one in found):
            found.append(way)
    end = found[-1].rig if found else rig
    checks = _checks(end)
    left = tuple(check for check in checks if int(check.level[0]) == ACT)
    yield WaysState(
        len(counter.counted), FoundWays(_figures(rig), today, tuple(found), left, end, len(counter.counted))
    )


def _asked_ways(asked: WayAsked) -> list[tuple[str, WayLimits]]:
    """At most three: for nothing, for what was said, and without a limit where none was."""
    free = ("free", WayLimits(0.0, EVENING if asked.hours is None else min(asked.hours, EVENING)))
    if asked.unlimited:
        return [free, ("paid", WayLimits(USUAL_SPEND, WEEKEND)), ("best", WayLimits())]
    given = ("given", WayLimits(asked.spend, asked.hours))
    return [free, given] if asked.spend is None or asked.spend > 0.0 else [("given", WayLimits(0.0, asked.hours))]


def _counter(rig: Rig, moves: Sequence[Move], works: Sequence[PortWork]) -> Counter:
    def line_with(chosen: Combination) -> Line | None:
        changed = with_moves(rig, [moves[i] for i in chosen])
        return None if changed is None else build_line(changed)

    return Counter(line_with, [move.option for move in moves], works)


def _whole(
    rig: Rig, moves: Sequence[Move], counter: Counter, title: str, best: Sequence[CountedWay], today: WayCount
) -> FoundWay | None:
    """The best that stands up when it is solved whole, in its order; None where nothing lowers the count."""
    tried = (pruned(counter, one) for one in best[:VERIFIED] if one.count.better_than(today))
    ranked = []
    for way in {one.chosen: one for one in tried}.values():
        whole = with_moves(rig, [moves[i] for i in way.chosen])
        acts = None if whole is None or not way.chosen else _acts(whole, counter.works)
        if whole is not None and acts is not None:
            ranked.append(((acts, *way.count.rank[1:]), way, whole))
    if not ranked:
        return None
    rank, way, whole = min(ranked, key=lambda one: one[0])
    if rank[0] > (_acts(rig, counter.works) or 0):
        return None
    steps = _in_order(rig, moves, counter, way)
    return FoundWay(title, steps, whole, _figures(whole), way.count)


def _in_order(rig: Rig, moves: Sequence[Move], counter: Counter, way: CountedWay) -> tuple[WayStep, ...]:
    """The step that lowers the count most comes first; one that lowers nothing says what it prepares."""
    done: Combination = frozenset()
    (before,) = counter.count([done])
    order: list[tuple[int, bool]] = []
    while done != way.chosen:
        left = sorted(way.chosen - done)
        counts = counter.count([done | {at} for at in left])
        known = [(count.rank, at, count) for count, at in zip(counts, left, strict=True) if count is not None]
        if not known:
            known = [((0.0,), left[0], before)]  # type: ignore[list-item]
        _, at, count = min(known, key=lambda one: one[:2])
        lowers = before is not None and count is not None and count.rank < before.rank
        order.append((at, lowers))
        done, before = done | {at}, count
    return tuple(_steps(rig, moves, order))


def _steps(rig: Rig, moves: Sequence[Move], order: Sequence[tuple[int, bool]]) -> Iterator[WayStep]:
    for i, (_, lowers) in enumerate(order):
        after = with_moves(rig, [moves[at] for at, _ in order[: i + 1]]) or rig
        later = next((moves[at].option.key for at, works in order[i + 1 :] if works), None)
        yield WayStep(moves[order[i][0]], _figures(after), after, None if lowers else later)


def _figures(rig: Rig) -> LineFigures:
    solved = solve(rig)
    return line_figures(solved.line, solved.found, review(solved.line, solved.found))


def _checks(rig: Rig) -> tuple[Check, ...]:
    solved = solve(rig)
    return review(solved.line, solved.found)


def _acts(rig: Rig, works: Sequence[PortWork]) -> int | None:
    """Checks to act on, each once, over the line as it stands and all its work; None where it does not settle."""
    try:
        line = build_line(rig)
        found = {(check.id, check.part) for check in _checks(rig) if int(check.level[0]) == ACT}
        for work in works:
            lone = line_alone(line, work.port)
            found |= {(c.id, c.part) for c in review(lone, assess(lone)) if int(c.level[0]) == ACT}
    except (CoreError, RigError):
        return None
    return len(found)
