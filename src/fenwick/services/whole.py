"""The whole shop in one file: written, looked at, added to a shop or put in its place."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, replace
from datetime import datetime
from pathlib import Path

from sqlmodel import Session

from fenwick.data import Database
from fenwick.data.adding import add_lines_of
from fenwick.data.backups import IMPORT, Backup, back_up
from fenwick.data.contents import Contents, contents_of
from fenwick.data.lines import all_names, change_line, line_state, readable_lines
from fenwick.data.logbook import LogWanted, add_entries, add_log_photo, count_of, entries_of, log_photo, photos_of
from fenwick.data.readings import readings_of
from fenwick.data.shops import the_shop
from fenwick.data.whole_read import read_whole_shop
from fenwick.data.whole_shop import Beside, TellShare, write_whole_shop
from fenwick.logged import Logged
from fenwick.logged.table import write_log
from fenwick.rig import edit_rig, write_rig
from fenwick.rig.format.readings_csv import write_readings
from fenwick.services.backups import WhatChanges, bring, compare, opened_copy
from fenwick.units import METRIC


def _silent(_share: float) -> None:
    """Nobody looks at the progress."""


def export_shop(shop: Database, out: Path, progress: TellShare = _silent) -> None:
    """Write a shop into one zip: all of it as JSON and photos, and tables to read beside it.

    Parameters
    ----------
    shop : an open database
    out : where the zip goes
    progress : is told the share that is done

    Raises
    ------
    ShopDatabaseError
    """
    with shop.session() as session:
        beside = _beside(session)
    write_whole_shop(shop, out, beside, progress)


def _beside(session: Session) -> list[Beside]:
    """What people read with a spreadsheet, or open as a line: Fenwick takes nothing from it."""
    rigs, _ = readable_lines(session)
    names = {line_id: rig.name for line_id, rig in rigs}
    found = [Beside("csv/log.csv", write_log(entries_of(session, LogWanted()), names, METRIC))]
    for line_id, rig in rigs:
        found.append(Beside(f"lines/{line_id:04d}.json", write_rig(rig).decode()))
        taken = [one.reading for one in readings_of(session, line_id) if not one.left_out]
        if taken:
            found.append(Beside(f"csv/readings-{line_id:04d}.csv", write_readings(taken)))
    return found


@dataclass(frozen=True)
class WholeShown:
    """What reading a whole shop in would do."""

    name: str  #: of the shop in the file
    empty: bool  #: the shop here holds nothing: the file's is simply taken
    replaces: WhatChanges  #: where it is put in the place of the shop here
    adds: tuple[str, ...]  #: names of lines that are not here
    same: tuple[str, ...]  #: names of lines that are here already, as they are
    entries: int  #: of the log, that are not here


def show_whole(shop: Database, packed: Path) -> WholeShown:
    """Look at a zip without changing anything.

    Raises
    ------
    ShopDatabaseError
        When it is none, is damaged, or was made by a newer Fenwick.
    """
    with _unpacked(packed) as there:
        return _compared(shop, there)


def replace_whole(shop: Database, packed: Path, progress: TellShare = _silent) -> tuple[WholeShown, Backup]:
    """Put the shop of a zip in the place of the one here; the copy that was made of the latter before.

    Raises
    ------
    ShopDatabaseError
    """
    with _unpacked(packed, progress) as there:
        shown = _compared(shop, there)
        there.close()
        before = back_up(shop, IMPORT)
        shop.take_over(there.path)
    return shown, before


def add_whole(shop: Database, packed: Path, progress: TellShare = _silent) -> tuple[WholeShown, Backup]:
    """Add the lines and entries of a zip that are not here; an empty shop takes all of it, number for number.

    Raises
    ------
    ShopDatabaseError
    """
    with _unpacked(packed, progress) as there:
        return _added(shop, there)


def bring_whole(shop: Database, packed: Path, now: datetime, progress: TellShare = _silent) -> Backup:
    """Lay the shop of a zip beside the copies of the one here, to be looked at before anything is done with it.

    Raises
    ------
    ShopDatabaseError
    """
    with _unpacked(packed, progress) as there:
        there.close()
        return bring(shop, there.path, now)


def show_copy(shop: Database, copy: Path) -> WholeShown:
    """What adding a copy would bring.

    Raises
    ------
    ShopDatabaseError
    """
    with opened_copy(copy) as there:
        return _compared(shop, there)


def add_copy(shop: Database, copy: Path) -> tuple[WholeShown, Backup]:
    """Add what a copy holds and the shop does not.

    Raises
    ------
    ShopDatabaseError
    """
    with opened_copy(copy) as there:
        return _added(shop, there)


@contextmanager
def _unpacked(packed: Path, progress: TellShare = _silent) -> Iterator[Database]:
    with tempfile.TemporaryDirectory(prefix="fenwick-") as folder:
        found = read_whole_shop(packed, Path(folder), progress)
        try:
            yield found
        finally:
            found.close()


def _compared(shop: Database, there: Database) -> WholeShown:
    with there.session() as theirs, shop.session() as mine:
        return _shown(mine, theirs)


def _added(shop: Database, there: Database) -> tuple[WholeShown, Backup]:
    shown = _compared(shop, there)
    before = back_up(shop, IMPORT)
    if shown.empty:
        there.close()
        shop.take_over(there.path)
    else:
        with there.session() as theirs, shop.session(to_write=True) as mine:
            _add(mine, theirs)
    return shown, before


def _shown(mine: Session, theirs: Session) -> WholeShown:
    here, there = contents_of(mine), contents_of(theirs)
    new = _new_lines(here, there)
    empty = not here.lines and not here.shop and not count_of(mine, LogWanted())
    return WholeShown(
        the_shop(theirs).name,
        empty,
        compare(mine, theirs),
        tuple(there.lines[line].name for line in new),
        tuple(one.name for line, one in there.lines.items() if line not in new),
        len(_new_entries(mine, theirs)),
    )


def _new_lines(here: Contents, there: Contents) -> list[int]:
    """Lines of the other shop that are not here as they are."""
    known = {(one.name, one.document) for one in here.lines.values()}
    return [line for line, one in there.lines.items() if (one.name, one.document) not in known]


def _told(entry: Logged, names: dict[int, str]) -> tuple[Logged, str]:
    """An entry as it is told apart from others: without a number of its own, with the name of its line."""
    return replace(entry, id=None, line=None), names.get(entry.line or 0, "")


def _new_entries(mine: Session, theirs: Session) -> list[Logged]:
    """Entries of the other log that are not in this one."""
    here, there = (dict(_named(session)) for session in (mine, theirs))
    known = {_told(entry, here) for entry in entries_of(mine, LogWanted())}
    return [entry for entry in entries_of(theirs, LogWanted()) if _told(entry, there) not in known]


def _named(session: Session) -> list[tuple[int, str]]:
    return [(line_id, rig.name) for line_id, rig in readable_lines(session)[0]]


def _add(mine: Session, theirs: Session) -> None:
    here, there = contents_of(mine), contents_of(theirs)
    entries = _new_entries(mine, theirs)
    taken, new = all_names(mine), _new_lines(here, there)
    numbers = add_lines_of(theirs.connection(), mine, new)
    for old, number in numbers.items():
        _name_apart(mine, number, there.lines[old].name, taken)
    same = {(one.name, one.document): line for line, one in here.lines.items()}
    numbers |= {old: same[(one.name, one.document)] for old, one in there.lines.items() if old not in numbers}
    moved = [replace(one, id=None, line=None if one.line is None else numbers.get(one.line)) for one in entries]
    if moved:
        added = add_entries(mine, moved, f"Read in from a whole shop: {len(moved)} entries"[:300])
        old_ids = [one.id for one in entries if one.id is not None]
        pictures = photos_of(theirs, old_ids)
        for old, new_id in zip(old_ids, added, strict=True):
            for photo in pictures.get(old, []):
                add_log_photo(mine, new_id, log_photo(theirs, photo))


def _name_apart(session: Session, line: int, name: str, taken: set[str]) -> None:
    """Give a line that came a name that no other has."""
    if name in taken:
        free = next(n for i in range(2, 10_000) if (n := f"{name} {i}") not in taken)
        change_line(session, line, edit_rig(line_state(session, line).rig, {"name": free}), f"Read in as “{free}”")
        taken.add(free)
    taken.add(name)
