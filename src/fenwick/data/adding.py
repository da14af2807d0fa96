"""Lines of one shop added to another with all that hangs on them, under numbers of their own."""

from __future__ import annotations

from typing import Any

from sqlalchemy import Connection, Table, func, insert, select
from sqlmodel import Session

from fenwick.data.remembered import kept
from fenwick.data.shops import the_shop
from fenwick.data.whole_shop import whole_tables

OWN = ("shop", "shop_revision", "device", "log_entry", "log_photo", "log_step")  #: what does not hang on a line
ROWS = 5000  #: copied at once


def add_lines_of(source: Connection, target: Session, lines: list[int]) -> dict[int, int]:
    """Copy lines with their history, builds, tests, readings and logs of monitors; new numbers by old ones."""
    shop = the_shop(target)
    connection = target.connection()
    numbers: dict[str, dict[int, int]] = {"shop": dict.fromkeys(_ids(source, "shop"), shop.id or 0)}
    for table in whole_tables():
        if table.name not in OWN:
            wanted = lines if table.name == "dust_line" else None
            numbers[table.name] = _copy(source, connection, table, numbers, wanted)
    kept(target)
    return numbers["dust_line"]


def _ids(source: Connection, table: str) -> list[int]:
    return [row[0] for row in source.exec_driver_sql(f'SELECT id FROM "{table}"').all()]


def _copy(
    source: Connection, target: Connection, table: Table, numbers: dict[str, dict[int, int]], wanted: list[int] | None
) -> dict[int, int]:
    """Copy what hangs on rows that were copied; new numbers of its own by old ones."""
    keys = {key.parent.name: key.column.table.name for key in table.foreign_keys}
    if any(name not in numbers for name in keys.values()):
        return {}
    following = (target.execute(select(func.max(table.c.id))).scalar_one() or 0) + 1
    found: dict[int, int] = {}
    rows: list[dict[str, Any]] = []
    for row in source.execute(select(table).order_by(table.c.id)).mappings():
        moved = _moved(dict(row), keys, numbers)
        if moved is None or (wanted is not None and row["id"] not in wanted):
            continue
        found[row["id"]] = moved["id"] = following
        following += 1
        rows.append(moved)
        if len(rows) >= ROWS:
            target.execute(insert(table), rows)
            rows = []
    if rows:
        target.execute(insert(table), rows)
    return found


def _moved(row: dict[str, Any], keys: dict[str, str], numbers: dict[str, dict[int, int]]) -> dict[str, Any] | None:
    """A row that points to what was copied; None where that was not."""
    for column, table in keys.items():
        old = row[column]
        if old is not None and old not in numbers[table]:
            return None
        row[column] = None if old is None else numbers[table][old]
    return row
