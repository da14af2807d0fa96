"""Opening a shop's database, and saying in a sentence why it cannot be opened."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import Any

from sqlalchemy import Engine, create_engine, event, inspect
from sqlalchemy.exc import DatabaseError, OperationalError
from sqlmodel import Session

MIGRATIONS = Path(__file__).parent / "migrations"


class ShopDatabaseError(Exception):
    """The shop cannot be read or written; the message is a sentence for the user."""


class Database:
    """A shop's database file with its engine."""

    def __init__(self, path: Path, *, read_only: bool = False) -> None:
        self.path = path
        self.engine = _engine(path, read_only=read_only)

    @contextmanager
    def session(self) -> Iterator[Session]:
        """A session that is closed afterwards; what SQLite refuses comes out as a sentence.

        Raises
        ------
        ShopDatabaseError
        """
        try:
            with open_session(self.engine) as session:
                yield session
        except DatabaseError as error:
            raise ShopDatabaseError(explain(error, self.path)) from error

    def close(self) -> None:
        """Let go of the file."""
        self.engine.dispose()


def open_session(engine: Engine, *, to_write: bool = False) -> Session:
    """A session whose rows stay as they were read; it lives as long as one request.

    One that is opened to write is the only one to do so from before its first reading until it commits, is rolled back
    or closed: a change rests on what it has read, so two at a time would lose one of them. Others wait for it.
    """
    session = Session(engine, expire_on_commit=False)
    if to_write:
        try:
            session.connection().exec_driver_sql("BEGIN IMMEDIATE")
        except OperationalError as error:
            session.close()
            if "readonly" not in str(error.orig).lower():
                raise
            return Session(engine, expire_on_commit=False)  # what would write is refused when it does
    return session


def explain(error: DatabaseError, path: Path) -> str:
    """SQLite's complaint in words that say what to do."""
    text = str(error.orig).lower()
    if "readonly" in text or "read-only" in text:
        return f"The shop {path} is read-only, so nothing was saved. Make the file and its folder writable."
    if "locked" in text:
        return f"Another program holds the shop {path}. Close it and try again; nothing was saved."
    if "unable to open" in text:
        return f"The shop {path} cannot be opened. Check that the folder exists and may be read and written."
    if "not a database" in text or "malformed" in text:
        return f"{path} is not a Fenwick shop, or it is damaged."
    if "no such table" in text:
        return f"The shop {path} has gone or was emptied while Fenwick was running. Restart Fenwick with a shop."
    if "full" in text:
        return f"The disk is full, so nothing was saved to {path}."
    return f"The shop {path} could not be used ({error.orig})."


def open_database(path: Path) -> Database:
    """Open an existing shop, bringing an older one up to date.

    Raises
    ------
    ShopDatabaseError
        Missing, unreadable, not a shop, or made by a newer Fenwick.
    """
    if not path.is_file():
        raise ShopDatabaseError(f"There is no shop at {path}. “fenwick demo” makes one to try.")
    database = Database(path)
    try:
        _migrate(database)
    except DatabaseError as error:
        database.close()
        raise ShopDatabaseError(explain(error, path)) from error
    except ShopDatabaseError:
        database.close()
        raise
    return database


def create_database(path: Path) -> Database:
    """Make an empty shop; an existing file is opened instead.

    Raises
    ------
    ShopDatabaseError
        When the folder or file cannot be written.
    """
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        path.touch(exist_ok=True)
    except OSError as error:
        raise ShopDatabaseError(f"No shop can be made at {path}: {error.strerror}.") from error
    return open_database(path)


def _engine(path: Path, *, read_only: bool) -> Engine:
    url = f"sqlite:///file:{path}?mode=ro&uri=true" if read_only else f"sqlite:///{path}"
    engine = create_engine(url, connect_args={"timeout": 5.0})

    @event.listens_for(engine, "connect")
    def _on_connect(connection: Any, _record: Any) -> None:
        connection.execute("PRAGMA foreign_keys = ON")  # SQLite wants it for every connection
        with suppress(sqlite3.OperationalError):  # a read-only file keeps the journal it has
            connection.execute("PRAGMA journal_mode = WAL")
            connection.execute("PRAGMA synchronous = NORMAL")

    return engine


def _migrate(database: Database) -> None:
    from alembic import command  # slow to import, needed once a start
    from alembic.config import Config
    from alembic.runtime.migration import MigrationContext
    from alembic.script import ScriptDirectory

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    script = ScriptDirectory.from_config(config)
    with database.engine.connect() as connection:
        current = MigrationContext.configure(connection).get_current_revision()
        foreign = current is None and bool(inspect(connection).get_table_names())
    if foreign:
        raise ShopDatabaseError(f"{database.path} is a database, but not a Fenwick shop.")
    known = {revision.revision for revision in script.walk_revisions()}
    if current is not None and current not in known:
        raise ShopDatabaseError(
            f"The shop {database.path} was made by a newer Fenwick. Update Fenwick to open it; nothing was changed."
        )
    if current != script.get_current_head():
        with database.engine.begin() as connection:
            config.attributes["connection"] = connection
            command.upgrade(config, "head")
