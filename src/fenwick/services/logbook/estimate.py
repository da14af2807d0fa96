"""What the log says of every holder today: how much of its life is used, and when that is all of it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.logbook.due import Between, Forecast, forecast
from fenwick.core.logbook.entries import BAG, BIN, CLEANED, ENDED, FILTER, TANK
from fenwick.core.logbook.lives import IN_TIME, LifeBelief, belief, usual_of
from fenwick.core.logbook.pace import WEEK
from fenwick.core.logbook.story import Story, TurningPoint, UsedWork, past_lives, past_weeks, story_of
from fenwick.core.logbook.usage import dust_held, life_of_mix, times_left
from fenwick.core.rules import RuleBook
from fenwick.logged import Logged
from fenwick.rig import Rig
from fenwick.services.logbook.holders import Holder, holders_of, share_of_bin
from fenwick.services.logbook.work import (
    LineAtWork,
    LogRead,
    julian,
    lines_at_work,
    usual_week,
    usual_work_on,
    work_mix,
    work_on,
)
from fenwick.shop import ShopFile

LEARNS = {BIN: "bin", FILTER: "filter", BAG: "filter", TANK: "bin"}  #: whose rules say how far the model may be off


@dataclass(frozen=True)
class Likely:
    """A figure, and between what it is believed to lie."""

    likely: float
    low: float
    high: float

    @staticmethod
    def of(several: Between, row: int = 0) -> Likely:
        """One of several."""
        return Likely(*(float(values[row]) for values in (several.likely, several.low, several.high)))


@dataclass(frozen=True)
class JobLeft:
    """How often a job can still be done."""

    name: str
    times: float
    unit: str  #: what is counted: hour, board or cut


@dataclass(frozen=True)
class HolderToday:
    """One holder."""

    holder: Holder
    story: Story
    used: Likely  #: of its life, 1 when it is due [-]
    days: Likely  #: until it is due; 0: it is, inf: not in two years, nan: not known how the work goes [d]
    past_due: float  #: how likely it is over [-]
    hours: float | None  #: that the model gives it, at the work logged since it began [h]
    typical: float  #: how long its lives last here, over the model's [-]
    last_hours: float | None  #: of work that were logged in its last life [h]; None: none were
    last_modelled: float | None  #: that the model gives a life at that work [h]
    held: float | None  #: of a filter, dust on it [kg]
    jobs: tuple[JobLeft, ...]  #: until it is due

    @property
    def known(self) -> bool:
        """Whether the log says since when its life runs."""
        return self.story.begun is not None


def holders_today(
    read: LogRead, rigs: Sequence[tuple[int, Rig]], shop: ShopFile | None, rules: RuleBook
) -> list[HolderToday]:
    """Every holder of the lines that the log knows of, in the order of the lines.

    Parameters
    ----------
    read : the log
    rigs : (number, rig) of the lines there are
    shop : its jobs say how the work goes where no hours are logged
    rules : how far a model may be off, how weeks scatter
    """
    there = [(line_id, rig) for line_id, rig in rigs if line_id in read.spans]
    lines = lines_at_work(read, there, shop, rules)
    holders = holders_of(there, shop)
    works = {
        one.key: UsedWork.of([work_on(one, lines, read.today), usual_work_on(one, lines, read)]) for one in holders
    }
    stories = {one.key: story_of(works[one.key], _turns(one, lines, read), read.today) for one in holders}
    found = []
    for kind in ("bin", "filter"):
        group = [one for one in holders if LEARNS[one.kind] == kind]
        if group:
            found += _forecast(group, kind, lines, works, stories, read, rules)
    order = {one.key: i for i, one in enumerate(holders)}
    return sorted(found, key=lambda one: order[one.holder.key])


def _turns(holder: Holder, lines: Mapping[int, LineAtWork], read: LogRead) -> list[TurningPoint]:
    wears = [wear for one in holder.lines for wear in lines[one].wears.values()]
    left = wears[0].left if wears else (0.0,)
    found, cleanings = [], 0
    for event in read.events:
        if event.line not in holder.lines:
            continue
        if event.kind == "changed":
            found.append(TurningPoint(julian(event.at), fresh=False, anew=True))
        turn = _bin_turn(event, lines[event.line].rig) if holder.kind == BIN else None
        if (holder.kind, event.kind) in ((BAG, "bag"), (TANK, "tank")) or (
            holder.kind == FILTER and event.kind == "replaced"
        ):
            cleanings = 0
            turn = _ending(event, 0.0)
        elif holder.kind == FILTER and event.kind in CLEANED:
            cleanings += 1
            turn = _ending(event, left[min(cleanings, len(left) - 1)])
        if turn is not None:
            found.append(turn)
    return found


def _ending(event: Logged, left: float) -> TurningPoint:
    ended = ENDED.get(event.finding)
    return TurningPoint(julian(event.at), None if ended is None else 1.0, ended or IN_TIME, left=left)


def _bin_turn(event: Logged, rig: Rig) -> TurningPoint | None:
    """Emptied, or looked at: the share of its room up to the mark that was full, as far as that was said."""
    if event.kind not in ("emptied", "looked"):
        return None
    return TurningPoint(julian(event.at), share_of_bin(event, rig), fresh=event.kind == "emptied")


def _forecast(
    holders: Sequence[Holder],
    kind: str,
    lines: Mapping[int, LineAtWork],
    works: Mapping[str, UsedWork],
    stories: Mapping[str, Story],
    read: LogRead,
    rules: RuleBook,
) -> list[HolderToday]:
    """Those of one kind, side by side."""
    told = [stories[one.key] for one in holders]
    firsts = [[f for line in one.lines if (f := lines[line].first) is not None] for one in holders]
    weeks = past_weeks(
        [works[one.key] for one in holders],
        [min(one, default=None) for one in firsts],
        [usual_week(one, lines) for one in holders],
        read.today,
    )
    ahead = belief(past_lives(told), usual_of(kind, rules))
    used, seen = np.array([one.used for one in told]), np.array([one.seen for one in told])
    found = forecast(used, seen, ahead, weeks, rules)
    return [_told(one, row, told[row], found, ahead, lines) for row, one in enumerate(holders)]


def _told(
    holder: Holder, row: int, story: Story, found: Forecast, ahead: LifeBelief, lines: Mapping[int, LineAtWork]
) -> HolderToday:
    used, typical = Likely.of(found.used, row), float(ahead.typical[row])
    mix = work_mix(holder, lines)
    last = _hours_of_last(holder, story, lines)
    return HolderToday(
        holder,
        story,
        used,
        Likely.of(found.days, row),
        float(found.past_due[row]),
        life_of_mix(mix, holder.kind),
        typical,
        last,
        None if last is None else last / story.ratios[-1],
        dust_held(mix, used.likely) if holder.kind == FILTER else None,
        _jobs_left(holder, used.likely, typical, lines),
    )


def _hours_of_last(holder: Holder, story: Story, lines: Mapping[int, LineAtWork]) -> float | None:
    """Hours that were logged in the latest of its past lives; None without one, or where not all were logged."""
    if not story.ratios or story.last_from is None:
        return None
    firsts = [lines[one].first for one in holder.lines if lines[one].first is not None or lines[one].usual]
    if any(first is None or story.last_from < first - WEEK for first in firsts):  # some of it is of the jobs
        return None
    worked = [one for line in holder.lines for one in lines[line].hours if one.tool in lines[line].wears]
    inside = ((one.at > story.last_from) & (one.at <= story.days[-1]) for one in worked)
    total = sum(float(one.hours[within].sum()) for one, within in zip(worked, inside, strict=True))
    return total or None


def _jobs_left(holder: Holder, used: float, typical: float, lines: Mapping[int, LineAtWork]) -> tuple[JobLeft, ...]:
    """How often each job can still be done; those that do not use it are left out."""
    jobs = [
        (job, lines[line].wears[job.tool])
        for line in holder.lines
        for job in lines[line].jobs
        if job.tool in lines[line].wears
    ]
    left = [(job, times_left(wear, holder.kind, job.hours, used, typical)) for job, wear in jobs]
    return tuple(JobLeft(job.name, times, job.unit) for job, times in left if np.isfinite(times))
