"""The figures that a shop's log holds again and again, with what happened meanwhile, and whether they get worse."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import pairwise

import numpy as np
from sqlmodel import Session

from fenwick.core.logbook.entries import BAG, FILTER, GRADED_AT, PIECES
from fenwick.core.logbook.trend import (
    LESS,
    MORE,
    RECOVERED,
    SAME,
    STEADY,
    UNKNOWN,
    WORSE,
    FigureOverTime,
    TrendFound,
    trend_of,
)
from fenwick.core.rules import RuleBook
from fenwick.data.lines import readable_lines
from fenwick.logged import Logged
from fenwick.services.logbook.elsewhere import ON_WAY, DoneElsewhere, steps_on_ways
from fenwick.services.logbook.today import ShopToday, shop_today
from fenwick.services.logbook.work import LogRead, julian

KEPT, LIFE, SUCTION, WIPED, BETWEEN = "kept", "life", "suction", "wiped", "between"
# a bin that takes longer to fill may mean less work, or that less is kept
BETTER = {KEPT: MORE, LIFE: MORE, SUCTION: SAME, WIPED: LESS, BETWEEN: SAME}
ORDER = (KEPT, LIFE, SUCTION, WIPED, BETWEEN)


@dataclass(frozen=True)
class Happened:
    """Something that explains a step."""

    day: float  #: from today; below 0 it is past [d]
    what: str  #: key of PIECES, or the kind of entry
    let_go: bool
    words: str  #: as they were logged


@dataclass(frozen=True)
class TrendSeries:
    """One figure of one line, its days counted from today."""

    kind: str  #: one of ORDER
    place: str  #: station, or name of the vacuum; empty: the line as a whole
    measured: FigureOverTime
    found: TrendFound


@dataclass(frozen=True)
class LineTrend:
    """All figures of a line."""

    line: int
    name: str
    series: tuple[TrendSeries, ...]
    happened: tuple[Happened, ...]

    @property
    def worst(self) -> TrendSeries | None:
        """What speaks loudest: worse before good again, before steady; None where nothing can be said."""
        said = [one for one in self.series if one.found.word != UNKNOWN]
        rank = {WORSE: 0, RECOVERED: 1, STEADY: 2}
        return min(said, key=lambda one: (rank[one.found.word], ORDER.index(one.kind)), default=None)


def trends_in(session: Session, now: datetime) -> list[LineTrend]:
    """Every line of which the log holds such a figure, the one that it spoke of last first."""
    today = shop_today(session, now)
    names = {line_id: rig.name for line_id, rig in readable_lines(session, today.read.spans)[0]}
    steps = steps_on_ways(session, list(names))
    found = [_of_line(line, names[line], today, steps) for line in today.read.latest_first if line in names]
    return [one for one in found if one.series]


def _of_line(line: int, name: str, today: ShopToday, steps: Sequence[DoneElsewhere]) -> LineTrend:
    events = [event for event in today.read.events if event.line == line]
    parts = (_kept(events, today.read), _lives(line, today), _suctions(events, today.read), _wiped(events, today.read))
    series = [one for part in (*parts, _between(events, today.read)) for one in part]
    happened = tuple(
        Happened(
            julian(event.at) - today.read.today,
            event.thing if event.thing in PIECES else event.kind,
            event.finding == "let-go",
            event.words,
        )
        for event in events
        if event.kind in ("renewed", "changed") or event.finding == "let-go"
    )
    happened += tuple(
        Happened(julian(step.at) - today.read.today, ON_WAY, False, step.words) for step in steps if step.line == line
    )
    return LineTrend(line, name, tuple(series), happened)


def _series(kind: str, place: str, days: Iterable[float], values: Iterable[float], today: float) -> list[TrendSeries]:
    day, value = np.array(list(days)) - today, np.array(list(values))
    if not value.size:
        return []
    measured = FigureOverTime(day, value, BETTER[kind])
    return [TrendSeries(kind, place, measured, trend_of(measured, RuleBook()))]


def _kept(events: list[Logged], read: LogRead) -> list[TrendSeries]:
    told = [(julian(event.at), event.kept) for event in events if event.kind == "kept" and event.kept is not None]
    return _series(KEPT, "", (day for day, _ in told), (value for _, value in told), read.today)


def _lives(line: int, today: ShopToday) -> list[TrendSeries]:
    """How long filters lasted, over what the model gives them: a bin that leaks shows here first."""
    found = []
    for one in today.of_line(line):
        # what several lines share stands at the one that was logged last
        mine = next(other for other in today.read.latest_first if other in one.holder.lines) == line
        if mine and one.holder.kind in (FILTER, BAG) and one.hours is not None:
            hours = (ratio * one.hours for ratio in one.story.ratios)
            found += _series(LIFE, one.holder.name, one.story.days, hours, today.read.today)
    return found


def _suctions(events: list[Logged], read: LogRead) -> list[TrendSeries]:
    places: dict[str, list[tuple[float, float]]] = {}
    for event in events:
        if event.kind == "suction" and event.suction is not None:
            places.setdefault(event.thing, []).append((julian(event.at), event.suction))
    return [
        one
        for place, told in places.items()
        for one in _series(SUCTION, place, (day for day, _ in told), (value for _, value in told), read.today)
    ]


def _wiped(events: list[Logged], read: LogRead) -> list[TrendSeries]:
    """Each place by itself: a filter is never as clean as a hose."""
    told = [event for event in events if event.kind == "wiped" and event.grade is not None]
    found = []
    for key, words in GRADED_AT.items():
        there = [(julian(one.at), float(one.grade or 0.0)) for one in told if (one.thing or "tank") == key]
        place = "" if key == "tank" else words
        found += _series(WIPED, place, (day for day, _ in there), (value for _, value in there), read.today)
    return found


def _between(events: list[Logged], read: LogRead) -> list[TrendSeries]:
    """Days from one emptying of the bin to the next."""
    days = [julian(event.at) for event in events if event.kind == "emptied"]
    spans = [after - before for before, after in pairwise(days)]
    return _series(BETWEEN, "", days[1:], spans, read.today)
