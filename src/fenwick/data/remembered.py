"""What a session has read and nobody has changed since: a page asks for the same few things several times."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar

from sqlalchemy import event
from sqlalchemy.orm import Session as AnySession
from sqlmodel import Session

T = TypeVar("T")
_KEY = "remembered"


def remembered(session: Session, key: tuple[Any, ...], read: Callable[[], T]) -> T:
    """What `read` gives, read once until something is committed or taken back."""
    known: dict[tuple[Any, ...], Any] = session.info.setdefault(_KEY, {})
    if key not in known:
        known[key] = read()
    found: T = known[key]
    return found


@event.listens_for(AnySession, "after_commit")
@event.listens_for(AnySession, "after_rollback")
def _forget(session: AnySession) -> None:
    session.info.pop(_KEY, None)
