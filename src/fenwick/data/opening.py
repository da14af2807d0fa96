"""Opening a shop: made where there is none, brought up to date after a copy, and put right where something is amiss.

Whatever changes the file is one transaction, so that a stop at any moment leaves it as it was before or as it is to be.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import TYPE_CHECKING

from sqlalchemy import Connection, inspect
from sqlalchemy.exc import DatabaseError

from fenwick.data.backups import MIGRATION, back_up
from fenwick.data.database import TO_WRITE, Database, ShopDatabaseError, explain
from fenwick.data.healing import heal
from fenwick.data.home import OWNERS_FILE, Home
from fenwick.data.shops import the_shop

if TYPE_CHECKING:
    from alembic.config import Config
    from alembic.script import ScriptDirectory

MIGRATIONS = Path(__file__).parent / "migrations"


def open_database(path: Path) -> Database:
    """Open an existing shop, bringing an older one up to date; `Database.healed` says what was put right.

    Raises
    ------
    ShopDatabaseError
        Missing, unreadable, not a shop, or made by a newer Fenwick.
    """
    if not path.is_file():
        raise ShopDatabaseError(f"There is no shop at {path}. “fenwick demo” makes one to try.")
    with suppress(OSError):  # one that was made by an earlier Fenwick, or came from elsewhere
        path.chmod(OWNERS_FILE)
    database = Database(path)
    try:
        _migrate(database)
        with database.session(to_write=True) as session:
            database.healed = heal(session)
            the_shop(session)
    except DatabaseError as error:
        database.close()
        raise ShopDatabaseError(f"{path}: {explain(error)}") from error
    except ShopDatabaseError:
        database.close()
        raise
    return database


def create_database(path: Path) -> Database:
    """Make an empty shop that nobody else may read; an existing file is opened instead.

    Raises
    ------
    ShopDatabaseError
        When the folder or file cannot be written.
    """
    try:
        Home.of(path).make()
        path.touch(exist_ok=True, mode=OWNERS_FILE)
    except OSError as error:
        raise ShopDatabaseError(f"No shop can be made at {path}: {error.strerror}.") from error
    return open_database(path)


def revision_of(database: Database) -> str | None:
    """Which migration a shop has reached; None: an empty file.

    Raises
    ------
    ShopDatabaseError
        When it is no shop, or one of a newer Fenwick.
    """
    from alembic.runtime.migration import MigrationContext

    try:
        with database.engine.connect() as connection:
            current = MigrationContext.configure(connection).get_current_revision()
            foreign = current is None and bool(inspect(connection).get_table_names())
    except DatabaseError as error:
        raise ShopDatabaseError(f"{database.path}: {explain(error)}") from error
    if foreign:
        raise ShopDatabaseError(f"{database.path} is a database, but not a Fenwick shop.")
    if current is not None and current not in known_schemas():
        raise ShopDatabaseError(
            f"The shop {database.path} was made by a newer Fenwick. Update Fenwick to open it; nothing was changed."
        )
    return current


def known_schemas() -> set[str]:
    """Every state of the tables that this Fenwick can bring up to date."""
    return {revision.revision for revision in _scripts()[1].walk_revisions()}


def empty_at(path: Path, schema: str) -> None:
    """Make an empty shop with the tables of one of `known_schemas`.

    Raises
    ------
    ShopDatabaseError
    """
    from alembic import command

    path.touch(mode=OWNERS_FILE)
    database = Database(path)
    try:
        with _alone(database) as connection:
            config = _scripts()[0]
            config.attributes["connection"] = connection
            command.upgrade(config, schema)
    finally:
        database.close()


def _scripts() -> tuple[Config, ScriptDirectory]:
    from alembic.config import Config
    from alembic.script import ScriptDirectory

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    return config, ScriptDirectory.from_config(config)


def _migrate(database: Database) -> None:
    from alembic import command  # slow to import, needed once a start

    config, script = _scripts()
    current = revision_of(database)
    if current == script.get_current_head():
        return
    if current is not None:
        back_up(database, MIGRATION)
    with _alone(database) as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


@contextmanager
def _alone(database: Database) -> Iterator[Connection]:
    """A connection in a transaction that nobody else writes beside; a table made anew loses none that hang on it."""
    with database.engine.connect().execution_options(**{TO_WRITE: True}) as connection:
        connection.detach()  # nobody uses it afterwards
        raw = connection.connection.dbapi_connection
        assert raw is not None
        raw.execute("PRAGMA foreign_keys = OFF")  # within a transaction it would have no effect
        with connection.begin():
            yield connection
