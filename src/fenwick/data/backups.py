"""Copies of a shop: written whole or not at all, checked before they count, and kept by their age."""

from __future__ import annotations

import os
import re
import sqlite3
from collections.abc import Sequence
from contextlib import closing
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path

from fenwick.data.database import Database, ShopDatabaseError
from fenwick.data.home import OWNERS_FILE, OWNERS_FOLDER, Home
from fenwick.data.whole_file import sync_folder

DAILY, BY_HAND, MIGRATION, IMPORT, RESTORE = "daily", "by-hand", "migration", "import", "restore"
BROUGHT = "brought"  #: from elsewhere
REASONS = (DAILY, BY_HAND, MIGRATION, IMPORT, RESTORE, BROUGHT)
DAYS, WEEKS, MONTHS = 14, 8, 24  #: of which the newest copy each is kept
FRESH, MOST_FRESH = timedelta(days=2), 20  #: how long, and how many, copies are kept one and all
STALE = 3600.0  #: after which what is half written is of no copy under way [s]
_NAME = re.compile(rf"([0-9]{{8}}-[0-9]{{6}})(?:-[0-9]+)?-({'|'.join(REASONS)})\.db")
_STAMP = "%Y%m%d-%H%M%S"


@dataclass(frozen=True)
class Backup:
    """One copy."""

    path: Path
    at: datetime  #: by this machine's clock
    why: str  #: one of REASONS
    size: int  #: [bytes]

    @property
    def name(self) -> str:
        """Of its file."""
        return self.path.name


def backups_of(shop: Path) -> list[Backup]:
    """The copies of a shop, the newest first."""
    folder = Home.of(shop).backups
    found = [_backup(path) for path in folder.iterdir()] if folder.is_dir() else []
    return sorted((one for one in found if one is not None), key=lambda one: (one.at, one.name), reverse=True)


def back_up(shop: Database, why: str, *, now: datetime | None = None) -> Backup:
    """Write a copy of a shop beside it, check it, and let go of those that are too old.

    Raises
    ------
    ShopDatabaseError
        When it cannot be written, or does not come out whole; there is no such copy then.
    """
    at = now or datetime.now()
    try:
        made = free_path(shop.path, at, why)
        copy_checked(shop.path, made)
    except (OSError, sqlite3.Error) as error:
        why_not = error.strerror if isinstance(error, OSError) else error
        sentence = f"No copy of the shop could be written beside it ({why_not}), so nothing was changed."
        raise ShopDatabaseError(sentence) from error
    _let_go(shop.path, at)
    found = _backup(made)
    assert found is not None
    return found


def copy_checked(source: Path, target: Path) -> None:
    """Copy a database in use; the target is there whole, or not at all.

    Raises
    ------
    OSError, sqlite3.Error
    """
    part = target.with_suffix(".part")
    part.unlink(missing_ok=True)
    part.touch(mode=OWNERS_FILE)
    try:
        with _connect(source, read_only=True) as there, _connect(part) as here:
            there.backup(here)
            here.execute("PRAGMA journal_mode = DELETE")  # one file, without a second beside it
            (verdict,) = here.execute("PRAGMA integrity_check").fetchone()
            if verdict != "ok":
                raise sqlite3.DatabaseError(f"the copy is not whole: {verdict}")
        _to_disk(part)
        part.replace(target)
        sync_folder(target.parent)
    finally:
        part.unlink(missing_ok=True)


def _connect(path: Path, *, read_only: bool = False) -> closing[sqlite3.Connection]:
    return closing(sqlite3.connect(f"{path.absolute().as_uri()}{'?mode=ro' if read_only else ''}", uri=True))


def _to_disk(path: Path) -> None:
    with path.open("rb") as file:
        os.fsync(file.fileno())


def free_path(shop: Path, at: datetime, why: str) -> Path:
    """Where the next copy is to lie.

    Raises
    ------
    OSError
        When there can be no such folder.
    """
    folder = Home.of(shop).backups
    folder.mkdir(mode=OWNERS_FOLDER, exist_ok=True)
    names = (f"{at.strftime(_STAMP)}{f'-{i}' if i else ''}-{why}.db" for i in range(1000))
    return next(folder / name for name in names if not (folder / name).exists())


def _backup(path: Path) -> Backup | None:
    found = _NAME.fullmatch(path.name)
    try:
        return Backup(path, datetime.strptime(found[1], _STAMP), found[2], path.stat().st_size) if found else None
    except (OSError, ValueError):  # taken away meanwhile, or a name that is no time
        return None


def _let_go(shop: Path, now: datetime) -> None:
    for left in Home.of(shop).backups.glob("*.part"):  # of one that was stopped
        if now.timestamp() - left.stat().st_mtime > STALE:
            left.unlink(missing_ok=True)
    there = backups_of(shop)
    keep = kept_of([one.at for one in there], now)
    for one in there:
        if one.at not in keep:
            one.path.unlink(missing_ok=True)


def kept_of(times: Sequence[datetime], now: datetime) -> set[datetime]:
    """Which of some copies are kept: the newest of each day, week and month for a while, and what is fresh."""
    newest_first = sorted(times, reverse=True)
    keep = {at for at in newest_first if now - at < FRESH}
    keep = set(sorted(keep, reverse=True)[:MOST_FRESH])
    for most, key in ((DAYS, "%Y-%j"), (WEEKS, "%G-%V"), (MONTHS, "%Y-%m")):
        newest: dict[str, datetime] = {}
        for at in newest_first:
            newest.setdefault(at.strftime(key), at)
        keep |= set(sorted(newest.values(), reverse=True)[:most])
    return keep
