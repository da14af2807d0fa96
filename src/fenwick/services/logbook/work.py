"""The log's work on each line: hours as they were logged, the jobs of the week where none were, and what they use."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import cached_property

import numpy as np

from fenwick.core.hours.wear import Wear
from fenwick.core.logbook.pace import WEEK
from fenwick.core.logbook.story import UsedWork, steady
from fenwick.core.logbook.usage import ToolHours, life_at
from fenwick.core.rules import RuleBook
from fenwick.data.logbook import HoursAtTool
from fenwick.logged import Logged
from fenwick.rig import Rig
from fenwick.services.logbook.holders import Holder, emptied, wears_of
from fenwick.shop import ShopFile
from fenwick.shop.work import jobs_on_line

JULIAN = 1721424.5  #: days before the first of the calendar that dates count from [d]
HOUR = 3600.0  #: [s]


@dataclass(frozen=True)
class LogRead:
    """A log as it is worked out: what happened in order of time, and the hours that were worked."""

    events: tuple[Logged, ...]
    hours: tuple[HoursAtTool, ...]
    today: float  #: Julian day [d]

    @cached_property
    def spans(self) -> dict[int, tuple[float, float]]:
        """First and last day on which the log speaks of each line that it knows [d]."""
        found: dict[int, tuple[float, float]] = {}
        for event in self.events:
            if event.line is not None:
                day = julian(event.at)
                first, last = found.get(event.line, (day, day))
                found[event.line] = min(first, day), max(last, day)
        for worked in self.hours:
            if worked.line is not None:
                first, last = found.get(worked.line, (float(worked.at[0]), float(worked.at[-1])))
                found[worked.line] = min(first, float(worked.at[0])), max(last, float(worked.at[-1]))
        return found

    def moment(self, days: float) -> datetime:
        """The moment so many days from today [d], by the shop's clock."""
        return datetime.fromordinal(1) + timedelta(days=self.today + days - JULIAN - 1.0)

    @property
    def latest_first(self) -> list[int]:
        """The lines that the log knows of, the one that it spoke of last first."""
        return sorted(self.spans, key=lambda line: self.spans[line][1], reverse=True)


def julian(moment: datetime) -> float:
    """A moment as a Julian day, by the shop's clock [d]."""
    midnight = moment.replace(hour=0, minute=0, second=0, microsecond=0)
    return JULIAN + moment.toordinal() + (moment - midnight).total_seconds() / 86400.0


@dataclass(frozen=True)
class JobDone:
    """A job of the week, done once."""

    name: str
    line: int
    tool: str  #: name of the port
    hours: float  #: each time [h]
    times: float  #: a week [-]
    unit: str  #: what is counted: hour, board or cut


@dataclass(frozen=True)
class LineAtWork:
    """A line at work, as far as it uses holders."""

    rig: Rig
    wears: Mapping[str, Wear]
    hours: tuple[HoursAtTool, ...]
    jobs: tuple[JobDone, ...]
    usual: Mapping[str, float]  #: hours a week of the jobs at each of its ports [h]
    first: float | None  #: day since which its hours are logged [d]


def jobs_done(shop: ShopFile | None, line_id: int, rig: Rig, rules: RuleBook, taken: set[str]) -> tuple[JobDone, ...]:
    """The shop's jobs on a line of which the hours are known, but for those that are `taken`; they are then, too."""
    found = []
    for job in jobs_on_line(shop, rig, rules)[0] if shop else []:
        port = rig.line.ways[job.port][0].port
        if port is not None and job.seconds is not None and job.id not in taken:
            taken.add(job.id)
            found.append(JobDone(job.name, line_id, port.name, job.seconds / HOUR, job.times, job.unit))
    return tuple(found)


def lines_at_work(
    read: LogRead, rigs: Sequence[tuple[int, Rig]], shop: ShopFile | None, rules: RuleBook
) -> dict[int, LineAtWork]:
    """Lines by their numbers; a job counts on the one that the log spoke of last."""
    found: dict[int, LineAtWork] = {}
    taken: set[str] = set()
    for line_id, rig in sorted(rigs, key=lambda one: read.spans[one[0]][1], reverse=True):
        here = jobs_done(shop, line_id, rig, rules, taken)
        usual: dict[str, float] = {}
        for job in here:
            usual[job.tool] = usual.get(job.tool, 0.0) + job.hours * job.times
        hours = tuple(one for one in read.hours if one.line == line_id)
        first = min((float(one.at[0]) for one in hours), default=None)
        found[line_id] = LineAtWork(rig, wears_of(emptied(rig)), hours, here, usual, first)
    return found


def work_on(holder: Holder, lines: Mapping[int, LineAtWork], today: float) -> UsedWork:
    """What the logged hours used of it."""
    parts = []
    for line in (lines[one] for one in holder.lines):
        for worked in line.hours:
            wear = line.wears.get(worked.tool)
            if wear is not None:
                until = np.searchsorted(worked.at, today, side="right")
                parts.append(UsedWork(worked.at[:until], worked.hours[:until] / life_at(wear, holder.kind)))
    return UsedWork.of(parts)


def usual_week(holder: Holder, lines: Mapping[int, LineAtWork], only: int | None = None) -> float | None:
    """What a week of the usual jobs uses of it [-]; None where no job is known."""
    shares = [
        hours / life_at(line.wears[tool], holder.kind)
        for line_id, line in lines.items()
        if line_id in holder.lines and only in (None, line_id)
        for tool, hours in line.usual.items()
        if tool in line.wears
    ]
    return sum(shares) if shares else None


def usual_work_on(holder: Holder, lines: Mapping[int, LineAtWork], read: LogRead) -> UsedWork:
    """What the usual jobs used of it while no hours were logged, since the log first speaks of the line."""
    parts = []
    for line_id in holder.lines:
        week, first = usual_week(holder, lines, line_id), lines[line_id].first
        if week:
            # who logs hours within a week of the first word has logged them all
            parts.append(steady(week, read.spans[line_id][0], read.today if first is None else first - WEEK))
    return UsedWork.of(parts)


def work_mix(holder: Holder, lines: Mapping[int, LineAtWork]) -> list[ToolHours]:
    """Tools that use a holder, by the hours that were logged at each, else by those of the jobs."""
    found = []
    for line in (lines[one] for one in holder.lines):
        logged = {one.tool: float(one.hours.sum()) for one in line.hours}
        for tool, hours in (logged or line.usual).items():
            if tool in line.wears and hours > 0.0:
                found.append(ToolHours(line.wears[tool], hours))
    return found
