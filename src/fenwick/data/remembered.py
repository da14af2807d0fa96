"""What a session has read and nobody has changed since: a page asks for the same few things several times."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar

from sqlalchemy import event
from sqlalchemy.orm import Session as AnySession
from sqlmodel import Session

T = TypeVar("T")
_KEY, _HELD = "remembered", "held"


def remembered(session: Session, key: tuple[Any, ...], read: Callable[[], T]) -> T:
    """What `read` gives, read once until something is committed or taken back."""
    there: dict[tuple[Any, ...], Any] = session.info.setdefault(_KEY, {})
    if key not in there:
        there[key] = read()
    found: T = there[key]
    return found


def known(session: Session, key: tuple[Any, ...]) -> Any:
    """What has been read under a key; None where nothing has."""
    return session.info.get(_KEY, {}).get(key)


def remember(session: Session, key: tuple[Any, ...], value: object) -> None:
    """Keep what is known without reading it again."""
    session.info.setdefault(_KEY, {})[key] = value


def kept(session: Session) -> None:
    """What was changed goes into the session's transaction; what was read before is asked for again."""
    session.flush()
    _forget(session)


def hold(session: Session, row: T) -> T:
    """Keep a row in the session for as long as that lives, so that asking for it again is no query."""
    session.info.setdefault(_HELD, []).append(row)
    return row


@event.listens_for(AnySession, "after_commit")
@event.listens_for(AnySession, "after_rollback")
def _forget(session: AnySession) -> None:
    session.info.pop(_KEY, None)
