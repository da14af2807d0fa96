"""What the page of the log shows: one tap for the usual, what is due next, and what was done, day by day."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from itertools import groupby

from flask import url_for

from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.logbook.due import used_level
from fenwick.core.logbook.entries import BAG, BIN, FILTER, KINDS, TANK
from fenwick.data.logbook import LogStanding
from fenwick.logged import Logged
from fenwick.logged.words import details_of, title_of
from fenwick.services.logbook.due import DueItem
from fenwick.services.logbook.elsewhere import BUILT, ON_WAY, TESTED, DoneElsewhere
from fenwick.services.logbook.estimate import HolderToday
from fenwick.web.kit.due import DueRow, due_rows
from fenwick.web.kit.paging import Paging
from fenwick.web.kit.quick import QuickLog
from fenwick.wording.logbook import DAYS, MONTHS

ON_A_PAGE = 40
HOLDER_WORDS = {BIN: "Bin", FILTER: "Filter", BAG: "Bag", TANK: "Tank"}
ELSEWHERE_WORDS = {ON_WAY: "Step of the way", BUILT: "Built", TESTED: "Tested"}
DUE_SHOWN = 4  #: on the page of the log; the rest stands on its own


@dataclass(frozen=True)
class EntryRow:
    """An entry in the list."""

    id: int
    kind: str
    time: str
    title: str
    details: tuple[str, ...]
    words: str
    line: str
    photos: tuple[int, ...]
    link: str


@dataclass(frozen=True)
class LogDay:
    """What was done on a day."""

    words: str
    rows: tuple[EntryRow, ...]


@dataclass(frozen=True)
class TodayRow:
    """A bin, filter, bag or tank as the log has it today."""

    what: str
    used: float  #: for its bar [-]
    words: str
    level: str


@dataclass(frozen=True)
class TodaySwitch:
    """Whether a line shows that."""

    line: int
    name: str
    on: bool


@dataclass(frozen=True)
class LogView:
    """The page."""

    shop: str
    quick: tuple[QuickLog, ...]
    due: tuple[DueRow, ...]
    overdue: int
    days: tuple[LogDay, ...]
    pages: Paging
    standing: LogStanding
    narrowed: bool
    today: tuple[TodayRow, ...]
    switches: tuple[TodaySwitch, ...]


def log_days(
    entries: Sequence[Logged], elsewhere: Sequence[DoneElsewhere], photos: Mapping[int, Sequence[int]],
    lines: Mapping[int, str], system: str, money: str, now: datetime,
) -> tuple[LogDay, ...]:  # fmt: skip
    """The entries of a page by the day, with what was done on other pages meanwhile."""
    rows = [(one.at, _row(one, photos, lines, system, money)) for one in entries]
    rows += [(one.at, _row_elsewhere(one, lines)) for one in elsewhere]
    rows.sort(key=lambda one: one[0], reverse=True)
    return tuple(
        LogDay(day_words(day, now), tuple(row for _, row in group))
        for day, group in groupby(rows, lambda one: one[0].date())
    )


def _row_elsewhere(one: DoneElsewhere, lines: Mapping[int, str]) -> EntryRow:
    links = {
        ON_WAY: lambda: url_for("line.way", line_id=one.line),
        BUILT: lambda: url_for("build.show", line_id=one.line, what=one.what),
        TESTED: lambda: url_for("trials.show", trial_id=one.test),
    }
    time = one.at.strftime("%H:%M") if one.timed else ""
    return EntryRow(
        0, one.kind, time, ELSEWHERE_WORDS[one.kind], (one.words,), "", lines.get(one.line, ""), (), links[one.kind]()
    )


def meanwhile(
    found: Sequence[DoneElsewhere], entries: Sequence[Logged], after: Logged | None, *, first: bool
) -> list[DoneElsewhere]:
    """What falls between the entries of a page.

    Parameters
    ----------
    found : all that was done on other pages
    entries : of the page, the newest first
    after : the first entry of the next page; None: this is the last
    first : whether this page is the first, up to now
    """
    newest = None if first or not entries else entries[0].at
    return [one for one in found if (newest is None or one.at <= newest) and (after is None or one.at > after.at)]


def _row(
    entry: Logged, photos: Mapping[int, Sequence[int]], lines: Mapping[int, str], system: str, money: str
) -> EntryRow:
    assert entry.id is not None
    return EntryRow(
        entry.id,
        entry.kind,
        entry.at.strftime("%H:%M"),
        title_of(entry),
        tuple(details_of(entry, system, money)),
        entry.words,
        "" if entry.line is None else lines.get(entry.line, f"line {entry.line}, taken away"),
        tuple(photos.get(entry.id, ())),
        url_for("log.edit", entry_id=entry.id),
    )


def day_words(day: date, now: datetime) -> str:
    """A day as one says it."""
    away = (now.date() - day).days
    if away in (0, 1):
        return ("Today", "Yesterday")[away]
    year = f" {day.year}" if day.year != now.year else ""
    return f"{DAYS[day.weekday()]}, {day.day} {MONTHS[day.month - 1]}{year}"


def shown_due(due: Sequence[DueItem], now: datetime) -> tuple[DueRow, ...]:
    """The first few of what is due."""
    return tuple(due_rows(due[:DUE_SHOWN], now))


def label_of(entry: Logged) -> str:
    """What a step of the log's history is called."""
    return title_of(entry) if entry.kind in KINDS else "Entry"


def today_rows(holders: Sequence[HolderToday]) -> tuple[TodayRow, ...]:
    """Every holder of which the log knows since when its life runs."""
    return tuple(
        TodayRow(
            f"{HOLDER_WORDS[one.holder.kind]} · {one.holder.name}",
            one.used.likely,
            f"{100 * one.used.likely:.0f} %, within {100 * one.used.low:.0f} to {100 * one.used.high:.0f}",
            LEVEL_WORDS[used_level(one.used.likely, one.used.high)],
        )
        for one in holders
        if one.known
    )
