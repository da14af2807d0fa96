"""A row that is taken away is only marked, so that it can be brought back."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Protocol

from sqlmodel import Session

from fenwick.data.remembered import kept


class Removable(Protocol):
    """A row that can be taken away."""

    removed_at: datetime | None


def mark_removed(session: Session, row: Removable, *, back: bool) -> None:
    """Take a row away, or bring it back."""
    row.removed_at = None if back else datetime.now(UTC)
    session.add(row)
    kept(session)
