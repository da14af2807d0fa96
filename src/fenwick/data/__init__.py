"""The shop on disk: SQLite through SQLModel, migrated with Alembic."""

from fenwick.data.database import Database, ShopDatabaseError
from fenwick.data.opening import create_database, open_database

__all__ = ["Database", "ShopDatabaseError", "create_database", "open_database"]
