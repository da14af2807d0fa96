"""Opening a shop's database, and saying in a sentence why it cannot be opened."""

from __future__ import annotations

import sqlite3
import threading
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.exc import DatabaseError, OperationalError
from sqlalchemy.orm import Session as AnySession
from sqlalchemy.orm import SessionTransaction
from sqlmodel import Session

PATIENCE = 20.0  #: with another who writes [s]
TO_WRITE = "fenwick_to_write"  #: option of a connection: nobody else writes while its transaction lasts
_TURN = "turn"
BUSY = "Another program holds the shop. Close it and try again; nothing was saved."
READ_ONLY = "The shop is read-only, so nothing was saved. Make its file and its folder writable."
NO_SHOP = "That is not a Fenwick shop, or it is damaged."
#: what SQLite says, and what that means
COMPLAINTS = {
    "readonly": READ_ONLY,
    "read-only": READ_ONLY,
    "locked": BUSY,
    "unable to open": "The shop cannot be opened. Check that its folder exists and may be read and written.",
    "not a database": NO_SHOP,
    "malformed": NO_SHOP,
    "no such table": "The shop has gone or was emptied while Fenwick was running. Restart Fenwick with a shop.",
    "full": "The disk is full, so nothing was saved.",
}


class ShopDatabaseError(Exception):
    """The shop cannot be read or written; the message is a sentence for the user."""


class Database:
    """A shop's database file with its engine."""

    def __init__(self, path: Path, *, read_only: bool = False) -> None:
        self.path = path
        self.engine = _engine(path, read_only=read_only)
        self.healed: tuple[str, ...] = ()  #: what was put right when it was opened
        self._turn = threading.Lock()  # of those who write, so that none of them has to ask the file again and again

    @contextmanager
    def session(self, *, to_write: bool = False) -> Iterator[Session]:
        """A session whose changes are on disk when it ends well, and gone when it does not.

        Raises
        ------
        ShopDatabaseError
            Whatever SQLite refuses, as a sentence.
        """
        try:
            with self.open_session(to_write=to_write) as session:
                yield session
                session.commit()
        except DatabaseError as error:
            raise ShopDatabaseError(explain(error)) from error

    def open_session(self, *, to_write: bool = False) -> Session:
        """A session whose rows stay as they were read; what it reads is of one moment, until it is committed or closed.

        One that is opened to write is the only one to do so from before its first reading until then: a change rests on
        what it has read, so two at a time would lose one of them. Others wait for it.
        """
        session = Session(self.engine, expire_on_commit=False)
        if to_write:
            try:
                self.take_turn(session)
            except OperationalError as error:
                session.close()
                if "readonly" not in str(error.orig).lower():
                    raise
                return Session(self.engine, expire_on_commit=False)  # what would write is refused when it does
        return session

    def take_turn(self, session: Session) -> None:
        """Let a session that has nothing open be the only one to write, from now until it is committed or closed."""
        if not self._turn.acquire(timeout=PATIENCE):
            raise ShopDatabaseError(BUSY)
        session.info[_TURN] = self._turn
        session.connection(execution_options={TO_WRITE: True})

    def take_over(self, other: Path) -> None:
        """Put the contents of another database in the place of this one's, all of them or none.

        Raises
        ------
        ShopDatabaseError
        """
        with self._turn, closing(sqlite3.connect(other)) as source:
            try:
                with closing(sqlite3.connect(self.path, timeout=PATIENCE)) as target:
                    target.execute("PRAGMA synchronous = FULL")
                    source.backup(target)
            except sqlite3.Error as error:
                raise ShopDatabaseError(f"The copy could not be put back ({error}); nothing was changed.") from error

    def close(self) -> None:
        """Let go of the file."""
        self.engine.dispose()


@event.listens_for(AnySession, "after_transaction_end")
def _next_turn(session: AnySession, transaction: SessionTransaction) -> None:
    if transaction.parent is None and _TURN in session.info:
        session.info.pop(_TURN).release()


def explain(error: DatabaseError) -> str:
    """SQLite's complaint in words that say what to do; they name no place on this machine."""
    text = str(error.orig).lower()
    for complaint, sentence in COMPLAINTS.items():
        if complaint in text:
            return sentence
    return f"The shop could not be used ({error.orig})."


def _engine(path: Path, *, read_only: bool) -> Engine:
    url = f"sqlite:///file:{path}?mode=ro&uri=true" if read_only else f"sqlite:///{path}"
    # as many at once as there are threads to ask
    engine = create_engine(url, connect_args={"timeout": PATIENCE}, pool_size=4, max_overflow=60)

    @event.listens_for(engine, "connect")
    def _on_connect(connection: Any, _record: Any) -> None:
        connection.isolation_level = None  # transactions begin where we say, those that change tables, too
        connection.execute("PRAGMA foreign_keys = ON")  # SQLite wants it for every connection
        with suppress(sqlite3.OperationalError):  # a read-only file keeps the journal it has
            connection.execute("PRAGMA journal_mode = WAL")
            connection.execute("PRAGMA synchronous = FULL")  # what is acknowledged outlives a power cut

    @event.listens_for(engine, "begin")
    def _on_begin(connection: Connection) -> None:
        wanted = connection.get_execution_options().get(TO_WRITE)
        connection.exec_driver_sql("BEGIN IMMEDIATE" if wanted else "BEGIN")

    return engine
