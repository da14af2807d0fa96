"""Readings of a line: kept as they were taken, left out or taken away by name, never lost."""

from __future__ import annotations

from dataclasses import dataclass

from sqlalchemy import select as sa_select
from sqlmodel import Session, col

from fenwick.core.tuning.readings import Reading as Read
from fenwick.data.lines import NotFoundError
from fenwick.data.remembered import kept
from fenwick.data.removal import mark_removed
from fenwick.data.tables import DustLine, ReadingRow


@dataclass(frozen=True)
class Taken:
    """A reading with its place in the record."""

    id: int
    reading: Read
    note: str
    left_out: str  #: why it does not count; empty: it does
    on: str  #: date, as in 2026-11-26


TUNING, HUNT = "tuning", "hunt"


def readings_of(session: Session, line_id: int, purpose: str = TUNING) -> list[Taken]:
    """All readings of a line for a purpose that have not been taken away, in the order they were taken."""
    row = ReadingRow
    told = (row.id, row.kind, row.value, row.sd, row.port, row.station, row.dust, row.fed, row.level)
    about = (row.note, row.left_out, row.created_at)
    mine = (col(row.line_id) == line_id, col(row.purpose) == purpose, col(row.removed_at).is_(None))
    found = session.execute(sa_select(*told, *about).where(*mine).order_by(col(row.id))).all()  # type: ignore[call-overload]
    return [
        Taken(number, Read(*read), note, left_out, on.date().isoformat()) for number, *read, note, left_out, on in found
    ]


def take(session: Session, line_id: int, reading: Read, note: str = "", purpose: str = TUNING) -> int:
    """Record a reading; its id.

    Raises
    ------
    NotFoundError
    """
    if session.get(DustLine, line_id) is None:
        raise NotFoundError(f"There is no line number {line_id} in this shop.")
    row = ReadingRow(
        line_id=line_id,
        purpose=purpose,
        kind=reading.kind,
        value=reading.value,
        sd=reading.sd,
        port=reading.port,
        station=reading.station,
        dust=reading.dust,
        fed=reading.fed,
        level=reading.level,
        note=note[:300],
    )
    session.add(row)
    kept(session)
    assert row.id is not None
    return row.id


def leave_out(session: Session, line_id: int, reading: int, why: str) -> bool:
    """Keep a reading apart with a reason, or, with an empty one, let it count again; whether there was one."""
    row = _mine(session, line_id, reading)
    if row is None:
        return False
    row.left_out = why[:300]
    session.add(row)
    kept(session)
    return True


def take_away(session: Session, line_id: int, reading: int, *, back: bool = False) -> bool:
    """Take a reading out of the list, or bring it back; whether there was one."""
    row = session.get(ReadingRow, reading)
    if row is None or row.line_id != line_id or (row.removed_at is None) == back:
        return False
    mark_removed(session, row, back=back)
    return True


def _mine(session: Session, line_id: int, reading: int) -> ReadingRow | None:
    row = session.get(ReadingRow, reading)
    return row if row is not None and row.line_id == line_id and row.removed_at is None else None
