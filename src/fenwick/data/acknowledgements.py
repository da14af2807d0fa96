"""Acknowledged checks: who sees one and lives with it says why, and it stays in sight."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime

from sqlmodel import Session, col, select

from fenwick.data.lines import NotFoundError
from fenwick.data.remembered import kept
from fenwick.data.tables import Acknowledgement, DustLine


@dataclass(frozen=True)
class Acknowledged:
    """One that stands."""

    id: int
    check_id: str
    part: str
    level: int
    reason: str
    on: str  #: date, as in 2026-11-26

    def covers(self, check_id: str, part: str, level: int) -> bool:
        """Whether it is of that check, and the check is no worse than it was then."""
        return (self.check_id, self.part) == (check_id, part) and level <= self.level


def acknowledged(session: Session, line_id: int) -> tuple[Acknowledged, ...]:
    """Those of a line that have not been taken back, the newest first."""
    mine = select(Acknowledgement).where(
        Acknowledgement.line_id == line_id, col(Acknowledgement.withdrawn_at).is_(None)
    )
    return tuple(
        Acknowledged(row.id, row.check_id, row.part, row.level, row.reason, row.created_at.date().isoformat())
        for row in session.exec(mine.order_by(col(Acknowledgement.id).desc())).all()
        if row.id is not None
    )


def acknowledge(
    session: Session, line_id: int, check_id: str, part: str, level: int, sentence: str, reason: str
) -> None:
    """Record that a check was seen, and why it is lived with.

    Raises
    ------
    NotFoundError
    """
    if session.get(DustLine, line_id) is None:
        raise NotFoundError(f"There is no line number {line_id} in this shop.")
    row = Acknowledgement(
        line_id=line_id, check_id=check_id, part=part, level=level, sentence=sentence[:500], reason=reason[:500]
    )
    session.add(row)
    kept(session)


def withdraw(session: Session, line_id: int, acknowledgement: int) -> bool:
    """Take an acknowledgement back; whether there was one that stood."""
    row = session.get(Acknowledgement, acknowledgement)
    if row is None or row.line_id != line_id or row.withdrawn_at is not None:
        return False
    row.withdrawn_at = datetime.now(UTC)
    session.add(row)
    kept(session)
    return True
