"""The shop as its log has it today, worked out once for each state of log, lines and shop."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlmodel import Session

from fenwick.core.logbook.entries import KINDS
from fenwick.core.rules import RuleBook
from fenwick.data.lines import readable_lines
from fenwick.data.logbook import HoursAtTool, LogWanted, entries_of, hours_logged, log_stamp
from fenwick.data.remembered import remembered
from fenwick.data.shops import readable_shop
from fenwick.logged import Logged
from fenwick.rig import Rig
from fenwick.services.logbook.estimate import HolderToday, holders_today
from fenwick.services.logbook.work import LogRead, julian
from fenwick.services.recent import Recent
from fenwick.shop import ShopFile

EVENTS = tuple(kind for kind in KINDS if kind != "worked")  #: hours are read as numbers
A_DAY = 24.0  #: the state of today is worked out once an hour
Read = tuple[tuple[Logged, ...], tuple[HoursAtTool, ...]]


@dataclass(frozen=True)
class ShopToday:
    """A shop as its log has it."""

    read: LogRead
    holders: tuple[HolderToday, ...]

    def of_line(self, line_id: int) -> list[HolderToday]:
        """Those that a line has."""
        return [one for one in self.holders if line_id in one.holder.lines]


_READ: Recent[Read] = Recent(4)
_TODAY: Recent[ShopToday] = Recent(16)


def log_read(session: Session, now: datetime) -> LogRead:
    """The log up to a moment, by the shop's clock."""
    events, hours = _READ.get(log_stamp(session), lambda: _read(session))
    today = -(-julian(now) * A_DAY // 1) / A_DAY  # the end of this hour: what was just logged is over
    return LogRead(events, hours, today)


def shop_today(session: Session, now: datetime) -> ShopToday:
    """Every bin, filter, bag and tank of the lines that the log knows of."""
    return remembered(
        session, ("shop today", now.replace(minute=0, second=0, microsecond=0)), lambda: _today(session, now)
    )


def _today(session: Session, now: datetime) -> ShopToday:
    read = log_read(session, now)
    rigs = readable_lines(session, read.spans)[0]
    shop = readable_shop(session)
    key = (log_stamp(session), read.today, tuple(rigs), shop)
    return _TODAY.get(key, lambda: _worked_out(read, rigs, shop))


def _worked_out(read: LogRead, rigs: Sequence[tuple[int, Rig]], shop: ShopFile | None) -> ShopToday:
    return ShopToday(read, tuple(holders_today(read, rigs, shop, RuleBook())))


def _read(session: Session) -> Read:
    events = entries_of(session, LogWanted(kinds=EVENTS))
    return tuple(reversed(events)), tuple(hours_logged(session))
