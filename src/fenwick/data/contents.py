"""What a shop holds, as far as one needs it to tell two states of it apart."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from sqlalchemy import func
from sqlmodel import Session, SQLModel, col, select

from fenwick.data.log_tables import LogPhoto
from fenwick.data.shops import the_shop
from fenwick.data.tables import BuildPhoto, DustLine, ReadingRow, Revision, ShopRevision
from fenwick.data.trial_tables import AirLog, AirLogRow, RunEntry, RunPhoto, Trial

#: what is counted, in words
COUNTED: dict[str, type[SQLModel]] = {
    "tests": Trial,
    "figures of runs": RunEntry,
    "photos": RunPhoto,
    "readings": ReadingRow,
    "particle logs": AirLog,
    "rows of logs": AirLogRow,
    "photos of the log": LogPhoto,
    "photos of builds": BuildPhoto,
}


@dataclass(frozen=True)
class LineContents:
    """A line, as far as it tells two states apart."""

    name: str
    states: int
    document: str  #: in force


@dataclass(frozen=True)
class Contents:
    """A shop, likewise."""

    shop: str  #: its file in force; empty: nobody has described it yet
    lines: dict[int, LineContents]  #: those that were not taken away, by their ids
    counts: dict[str, int]  #: by the words of COUNTED, and entries of the log that count
    log: str  #: a digest of the log


def contents_of(session: Session) -> Contents:
    """What the shop of a session holds."""
    states = dict(session.exec(select(Revision.line_id, func.count()).group_by(col(Revision.line_id))).all())
    here = (Revision.line_id == DustLine.id) & (Revision.number == DustLine.cursor)
    there = select(DustLine.id, DustLine.name, Revision.document).join(Revision, here)  # type: ignore[arg-type]
    rows = session.exec(there.where(col(DustLine.removed).is_(False)).order_by(col(DustLine.id))).all()
    lines = {i: LineContents(name, states.get(i, 0), document) for i, name, document in rows if i is not None}
    shop = the_shop(session)
    wanted = select(ShopRevision.document).where(ShopRevision.shop_id == shop.id, ShopRevision.number == shop.cursor)
    counts = {what: session.exec(select(func.count()).select_from(table)).one() for what, table in COUNTED.items()}
    entries, digest = _log(session)
    return Contents(session.exec(wanted).first() or "", lines, {**counts, "entries of the log": entries}, digest)


def _log(session: Session) -> tuple[int, str]:
    """(entries of the log that count, a digest of them)."""
    statement = "SELECT * FROM log_entry WHERE removed_at IS NULL ORDER BY id"
    rows: Iterable[Any] = session.connection().exec_driver_sql(statement).cursor  # type: ignore[assignment]
    digest, count = hashlib.sha256(), 0
    for row in rows:
        digest.update(repr(row).encode())
        count += 1
    return count, digest.hexdigest()
