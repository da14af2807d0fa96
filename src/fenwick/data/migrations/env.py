"""Alembic's entry: runs on the connection that the application hands over."""

from alembic import context
from sqlmodel import SQLModel

from fenwick.data import log_tables, tables, trial_tables  # noqa: F401 registers the tables

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=SQLModel.metadata, render_as_batch=True)
with context.begin_transaction():
    context.run_migrations()
