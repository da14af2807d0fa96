"""A form that is sent again because its answer was lost does nothing twice."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

from sqlmodel import Session, col, delete

from fenwick.data.remembered import kept
from fenwick.data.tables import DoneOnce

KEPT_FOR = timedelta(days=30)
LONGEST = 40  #: characters of a token


def first_time(session: Session, token: str) -> bool:
    """Whether a token is met for the first time; it is noted, and goes back if the change that it stands for does."""
    if not token or len(token) > LONGEST:
        return True
    if session.get(DoneOnce, token) is not None:
        return False
    session.exec(delete(DoneOnce).where(col(DoneOnce.at) < datetime.now(UTC) - KEPT_FOR))
    session.add(DoneOnce(token=token))
    kept(session)
    return True
