"""The shop's log: entries by the thousand, every change of them a step that can be taken back."""

from __future__ import annotations

import json
from collections.abc import Iterable, Sequence
from dataclasses import asdict, dataclass
from datetime import UTC, datetime
from typing import Any

import numpy as np
from sqlalchemy import ColumnElement, func, insert
from sqlmodel import Session, col, delete, select, update

from fenwick.core.arrays import Array
from fenwick.data.lines import NotFoundError
from fenwick.data.log_tables import LogEntry, LogPhoto, LogStep
from fenwick.data.remembered import kept, remembered
from fenwick.data.shops import the_shop
from fenwick.logged import Logged

AMOUNTS = ("level", "volume", "mass", "hours", "count", "money", "suction", "kept", "grade", "pitch", "quiet")
PARTS = 500  #: ids named in one statement


@dataclass(frozen=True)
class LogStanding:
    """Where the log stands in its history: what undo would take back, and redo bring again."""

    cursor: int
    newest: int  #: id of the newest entry; with the cursor it tells two states of the log apart
    undo_label: str | None = None
    redo_label: str | None = None


@dataclass(frozen=True)
class LogWanted:
    """Which entries are wanted; None, or empty, does not narrow them."""

    kinds: tuple[str, ...] = ()
    line: int | None = None
    since: datetime | None = None
    text: str = ""  #: in their words, or in what they are about


def standing_of_log(session: Session) -> LogStanding:
    """Where the log stands."""
    return remembered(session, ("standing of the log",), lambda: _standing(session))


def _standing(session: Session) -> LogStanding:
    shop = the_shop(session)
    near = (LogStep.shop_id == shop.id, col(LogStep.number).in_((shop.log_cursor, shop.log_cursor + 1)))
    labels = dict(session.exec(select(LogStep.number, LogStep.label).where(*near)).all())
    newest = session.exec(select(func.max(LogEntry.id))).one() or 0
    return LogStanding(shop.log_cursor, newest, labels.get(shop.log_cursor), labels.get(shop.log_cursor + 1))


def entries_of(session: Session, wanted: LogWanted, *, start: int = 0, most: int | None = None) -> list[Logged]:
    """Entries that count, the newest first."""
    order = (col(LogEntry.at).desc(), col(LogEntry.id).desc())
    columns: Any = [getattr(LogEntry, name) for name in (*_TOLD, "id", "line_id")]
    asked = select(*columns).where(*_narrowed(wanted)).order_by(*order).offset(start).limit(most)
    return [_logged(row) for row in session.execute(asked).all()]


def count_of(session: Session, wanted: LogWanted) -> int:
    """How many entries count."""
    return session.exec(select(func.count()).select_from(LogEntry).where(*_narrowed(wanted))).one()


def entry_of(session: Session, entry: int) -> Logged:
    """One entry that counts.

    Raises
    ------
    NotFoundError
    """
    row = session.get(LogEntry, entry)
    if row is None or row.removed_at is not None:
        raise NotFoundError("There is no such entry in the log, or it was taken away.")
    return _logged([getattr(row, name) for name in (*_TOLD, "id", "line_id")])


def add_entries(session: Session, entries: Sequence[Logged], label: str) -> list[int]:
    """Write entries into the log as one step; their ids."""
    added = _insert(session, entries)
    _step(session, label, added, [])
    return added


def begin_log(session: Session, entries: Sequence[Logged]) -> list[int]:
    """Entries with which a log begins, before any step of its history; their ids."""
    added = _insert(session, entries)
    kept(session)
    return added


def change_entry(session: Session, entry: int, changed: Logged, label: str) -> int:
    """Put another entry, with the photos of the old one, in its place; its id.

    Raises
    ------
    NotFoundError
    """
    entry_of(session, entry)
    (new,) = _insert(session, [changed])
    session.exec(update(LogPhoto).where(col(LogPhoto.entry_id) == entry).values(entry_id=new))
    _count(session, [entry], counts=False)
    _step(session, label, [new], [entry])
    return new


def remove_entries(session: Session, entries: Sequence[int], label: str) -> None:
    """Take entries out of the log as one step."""
    _count(session, entries, counts=False)
    _step(session, label, [], list(entries))


def step_log(session: Session, by: int) -> str | None:
    """Undo (−1) or redo (+1) a change of the log; what it was, None at the end of the history."""
    shop = the_shop(session)
    number = shop.log_cursor if by < 0 else shop.log_cursor + 1
    step = session.exec(select(LogStep).where(LogStep.shop_id == shop.id, LogStep.number == number)).first()
    if step is None:
        return None
    added, removed = json.loads(step.added), json.loads(step.removed)
    _count(session, added, counts=by > 0)
    _count(session, removed, counts=by < 0)
    if len(added) == len(removed) == 1:  # photos go with what counts
        old, new = (added[0], removed[0]) if by < 0 else (removed[0], added[0])
        session.exec(update(LogPhoto).where(col(LogPhoto.entry_id) == old).values(entry_id=new))
    shop.log_cursor += by
    session.add(shop)
    kept(session)
    return step.label


def add_log_photo(session: Session, entry: int, picture: bytes) -> int:
    """Keep a photo of an entry; its id.

    Raises
    ------
    NotFoundError
    """
    entry_of(session, entry)
    shop = the_shop(session)
    assert shop.id is not None
    photo = LogPhoto(shop_id=shop.id, entry_id=entry, picture=picture)
    session.add(photo)
    kept(session)
    assert photo.id is not None
    return photo.id


def photos_of(session: Session, entries: Iterable[int]) -> dict[int, list[int]]:
    """Ids of the photos of some entries, by entry."""
    found: dict[int, list[int]] = {}
    asked = select(LogPhoto.entry_id, LogPhoto.id).where(col(LogPhoto.entry_id).in_(list(entries)))
    for entry, photo in session.exec(asked.order_by(col(LogPhoto.id))).all():
        if photo is not None:
            found.setdefault(entry, []).append(photo)
    return found


def log_photo(session: Session, photo: int) -> bytes:
    """A photo, as JPEG.

    Raises
    ------
    NotFoundError
    """
    row = session.get(LogPhoto, photo)
    if row is None:
        raise NotFoundError("There is no such photo.")
    return row.picture


def remove_log_photo(session: Session, photo: int) -> int:
    """Throw a photo away; the entry that it was of.

    Raises
    ------
    NotFoundError
    """
    row = session.get(LogPhoto, photo)
    if row is None:
        raise NotFoundError("There is no such photo.")
    entry = row.entry_id
    session.delete(row)
    kept(session)
    return entry


_TOLD = ("kind", "at", "thing", "job", "finding", "words", *AMOUNTS)


def _logged(row: Sequence[Any]) -> Logged:
    told = dict(zip((*_TOLD, "id", "line"), row, strict=True))
    return Logged(**told)


def _narrowed(wanted: LogWanted) -> list[ColumnElement[bool]]:
    found: list[ColumnElement[bool]] = [col(LogEntry.removed_at).is_(None)]
    if wanted.kinds:
        found.append(col(LogEntry.kind).in_(wanted.kinds))
    if wanted.line is not None:
        found.append(col(LogEntry.line_id) == wanted.line)
    if wanted.since is not None:
        found.append(col(LogEntry.at) >= wanted.since)
    if wanted.text:
        told = col(LogEntry.words) + " " + col(LogEntry.thing) + " " + col(LogEntry.job)
        found.append(told.icontains(wanted.text, autoescape=True))
    return found


def _insert(session: Session, entries: Sequence[Logged]) -> list[int]:
    """Rows of entries, by the thousand; their ids, which follow each other as nobody else writes meanwhile."""
    shop, now = the_shop(session), datetime.now(UTC)
    first = (session.exec(select(func.max(LogEntry.id))).one() or 0) + 1
    rows = []
    for i, entry in enumerate(entries):
        told = asdict(entry)
        line = told.pop("line")
        rows.append({**told, "id": first + i, "line_id": line, "shop_id": shop.id, "created_at": now})
    if rows:
        session.execute(insert(LogEntry), rows)
    return list(range(first, first + len(rows)))


def _count(session: Session, entries: Sequence[int], *, counts: bool) -> None:
    when = None if counts else datetime.now(UTC)
    for at in range(0, len(entries), PARTS):
        these = col(LogEntry.id).in_(entries[at : at + PARTS])
        session.exec(update(LogEntry).where(these).values(removed_at=when))


def _step(session: Session, label: str, added: list[int], removed: list[int]) -> None:
    shop = the_shop(session)
    assert shop.id is not None
    # what had been undone stands behind no step any more; its rows stay
    session.exec(delete(LogStep).where(col(LogStep.shop_id) == shop.id, col(LogStep.number) > shop.log_cursor))
    shop.log_cursor += 1
    lists = json.dumps(added), json.dumps(removed)
    session.add(LogStep(shop_id=shop.id, number=shop.log_cursor, label=label[:300], added=lists[0], removed=lists[1]))
    session.add(shop)
    kept(session)


@dataclass(frozen=True)
class HoursAtTool:
    """All that was logged at one tool of one line, in order of time; arrays of shape (k,)."""

    line: int | None
    tool: str
    at: Array  #: Julian day, by the shop's clock [d]
    hours: Array  #: [h]


def hours_logged(session: Session) -> list[HoursAtTool]:
    """Every hour that counts, by line and tool; by the ten thousand, so never as objects."""
    statement = (
        "SELECT line_id, thing, julianday(at), hours FROM log_entry "
        "WHERE kind = 'worked' AND removed_at IS NULL AND hours IS NOT NULL ORDER BY at"
    )
    found: dict[tuple[int | None, str], tuple[list[float], list[float]]] = {}
    rows: Iterable[Any] = session.connection().exec_driver_sql(statement).cursor  # type: ignore[assignment]
    for line, tool, at, hours in rows:
        days, worked = found.setdefault((line, tool), ([], []))
        days.append(at)
        worked.append(hours)
    return [HoursAtTool(*whose, np.array(days), np.array(worked)) for whose, (days, worked) in found.items()]


def log_stamp(session: Session) -> tuple[str, ...]:
    """What tells two states of two logs apart, without reading them."""
    return remembered(session, ("stamp of the log",), lambda: _stamp(session))


def _stamp(session: Session) -> tuple[str, ...]:
    shop, bind = the_shop(session), session.get_bind()
    statement = (
        "SELECT (SELECT max(id) FROM log_entry), (SELECT created_at FROM log_step WHERE shop_id = ? AND number = ?)"
    )
    row = session.connection().exec_driver_sql(statement, (shop.id, shop.log_cursor)).one()
    return str(getattr(bind, "url", bind)), str(shop.log_cursor), str(row[0]), str(row[1])
