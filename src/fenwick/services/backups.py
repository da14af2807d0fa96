"""Copies of the shop: made, compared with what stands there now, and put back."""

from __future__ import annotations

import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from sqlmodel import Session

from fenwick.data import Database, ShopDatabaseError, open_database
from fenwick.data.backups import BROUGHT, DAILY, RESTORE, Backup, back_up, backups_of, copy_checked, free_path
from fenwick.data.contents import Contents, LineContents, contents_of

GOES, COMES, ALTERS, STAYS = "goes", "comes", "changes", "stays"
BEGIN = 16  #: bytes that tell a database
DATABASE = b"SQLite format 3\x00"


@dataclass(frozen=True)
class LineChange:
    """What becomes of one line when a copy is put back."""

    name: str  #: as it is called now, or in the copy where it is not there now
    way: str  #: goes, comes, changes or stays
    states: tuple[int, int]  #: how many it has had, now and in the copy


@dataclass(frozen=True)
class CountChange:
    """How many of something there are."""

    what: str
    now: int
    then: int  #: in the copy


@dataclass(frozen=True)
class WhatChanges:
    """What putting a copy back would change."""

    lines: tuple[LineChange, ...]
    shop: bool  #: whether the shop's own file is another
    counts: tuple[CountChange, ...]
    log: bool = False  #: whether the log is another

    @property
    def nothing(self) -> bool:
        """Whether all would be as it is."""
        same = all(one.way == STAYS for one in self.lines) and all(one.now == one.then for one in self.counts)
        return same and not self.shop and not self.log


def what_changes(shop: Database, copy: Path) -> WhatChanges:
    """Compare a copy with the shop as it stands.

    Raises
    ------
    ShopDatabaseError
        When the copy is none, or is damaged.
    """
    with opened_copy(copy) as then, then.session() as old, shop.session() as now:
        return compare(now, old)


def restore(shop: Database, copy: Path) -> Backup:
    """Put a copy in the place of the shop; the copy that was made of the shop before.

    Raises
    ------
    ShopDatabaseError
        When the copy is none or is damaged, or nothing can be written; the shop is as it was then.
    """
    with opened_copy(copy) as then:
        then.close()
        before = back_up(shop, RESTORE)
        shop.take_over(then.path)
    return before


def daily(shop: Database, now: datetime) -> Backup | None:
    """The copy of the day, where there is none yet and something has changed since the last; None: nothing to do.

    Raises
    ------
    ShopDatabaseError
    """
    newest = next(iter(backups_of(shop.path)), None)
    if newest is not None:
        changed = max(datetime.fromtimestamp(file.stat().st_mtime) for file in _files(shop.path))
        if newest.at.date() == now.date() or changed < newest.at:
            return None
    return back_up(shop, DAILY, now=now)


def bring(shop: Database, file: Path, now: datetime) -> Backup:
    """Lay a copy from elsewhere beside the shop's own.

    Raises
    ------
    ShopDatabaseError
        When it is none, or is damaged.
    """
    with opened_copy(file) as found:
        found.close()
        path = free_path(shop.path, now, BROUGHT)
        copy_checked(found.path, path)
    return next(one for one in backups_of(shop.path) if one.path == path)


def _files(path: Path) -> list[Path]:
    beside = path.with_name(path.name + "-wal")
    return [path, beside] if beside.exists() else [path]


@contextmanager
def opened_copy(copy: Path) -> Iterator[Database]:
    """A copy of the copy, brought up to date: what is stored is only looked at."""
    with tempfile.TemporaryDirectory(prefix="fenwick-") as folder:
        path = Path(folder) / "shop.db"
        try:
            with copy.open("rb") as file:
                if file.read(BEGIN) != DATABASE:
                    raise ShopDatabaseError(f"{copy.name} is not a copy of a Fenwick shop.")
            copy_checked(copy, path)
        except (OSError, sqlite3.Error) as error:
            raise ShopDatabaseError(f"{copy.name} cannot be read, or is damaged ({error}).") from error
        found = open_database(path)
        try:
            yield found
        finally:
            found.close()


def compare(now: Session, old: Session) -> WhatChanges:
    """What would change if another shop stood in the place of the one that stands now."""
    here, there = contents_of(now), contents_of(old)
    lines = tuple(
        _line(here.lines.get(key), there.lines.get(key)) for key in dict.fromkeys((*here.lines, *there.lines))
    )
    return WhatChanges(lines, here.shop != there.shop, _counts(here, there), here.log != there.log)


def _counts(here: Contents, there: Contents) -> tuple[CountChange, ...]:
    return tuple(CountChange(what, count, there.counts[what]) for what, count in here.counts.items())


def _line(here: LineContents | None, there: LineContents | None) -> LineChange:
    named = here or there
    assert named is not None
    states = (here.states if here else 0, there.states if there else 0)
    if here is None or there is None:
        return LineChange(named.name, COMES if here is None else GOES, states)
    return LineChange(named.name, STAYS if here == there else ALTERS, states)
