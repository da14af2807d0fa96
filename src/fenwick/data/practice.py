"""Hunts for practice as they were made: every reading kept, and a record of those that came to an end."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime

from sqlmodel import Session, col, select

from fenwick.data.remembered import kept
from fenwick.data.tables import PracticeHunt

SPLIT = "\n"


@dataclass(frozen=True)
class HuntRecord:
    """A hunt as it stands."""

    seed: int
    level: str
    read: tuple[str, ...] = ()  #: keys of the readings taken, each with the stage that it was taken in
    named: tuple[str, ...] = ()  #: faults, in the order they were named
    ended: bool = False
    right: bool = False
    minutes: float = 0.0
    good_minutes: float | None = None  #: of a good hunt; None: not ended
    at: datetime | None = None


def hunt_record(session: Session, line_id: int, seed: int, level: str) -> HuntRecord:
    """A hunt; an empty one where nobody has begun it."""
    row = _row(session, line_id, seed, level)
    return HuntRecord(seed, level) if row is None else _record(row)


def keep_hunt(session: Session, line_id: int, record: HuntRecord) -> None:
    """Keep a hunt as it stands now."""
    row, now = _row(session, line_id, record.seed, record.level), datetime.now(UTC)
    row = row or PracticeHunt(line_id=line_id, seed=record.seed, level=record.level, at=now)
    row.read, row.named = SPLIT.join(record.read)[:2000], SPLIT.join(record.named)[:200]
    row.ended, row.right, row.at = record.ended, record.right, now
    row.minutes, row.good_minutes = record.minutes, record.good_minutes
    session.add(row)
    kept(session)


def open_hunt(session: Session, line_id: int) -> HuntRecord | None:
    """The newest hunt of a line that has not come to its end; None: there is none."""
    mine = (PracticeHunt.line_id == line_id, col(PracticeHunt.ended).is_(False))
    row = session.exec(select(PracticeHunt).where(*mine).order_by(col(PracticeHunt.at).desc())).first()
    return None if row is None else _record(row)


def ended_hunts(session: Session, line_id: int, most: int) -> list[HuntRecord]:
    """The hunts of a line that came to an end, the newest first.

    Parameters
    ----------
    most : how many [-]
    """
    mine = (PracticeHunt.line_id == line_id, col(PracticeHunt.ended).is_(True))
    rows = session.exec(select(PracticeHunt).where(*mine).order_by(col(PracticeHunt.at).desc()).limit(most)).all()
    return [_record(row) for row in rows]


def _row(session: Session, line_id: int, seed: int, level: str) -> PracticeHunt | None:
    mine = (PracticeHunt.line_id == line_id, PracticeHunt.seed == seed, PracticeHunt.level == level)
    return session.exec(select(PracticeHunt).where(*mine)).first()


def _record(row: PracticeHunt) -> HuntRecord:
    read, named = (tuple(one for one in text.split(SPLIT) if one) for text in (row.read, row.named))
    return HuntRecord(row.seed, row.level, read, named, row.ended, row.right, row.minutes, row.good_minutes, row.at)
