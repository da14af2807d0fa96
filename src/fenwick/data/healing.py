"""What can be amiss in a shop that was left in a hurry, or was made by an earlier Fenwick, and how it is put right."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Column, inspect, text
from sqlmodel import Session, SQLModel, col, select, update

from fenwick.data import log_tables, trial_tables  # noqa: F401 register their tables
from fenwick.data.history import OF_BUILDS, OF_LINES, OF_SHOPS, OF_WAYS, History, Numbering
from fenwick.data.tables import Build, DustLine, LineWay, Shop
from fenwick.data.trial_tables import AirLog


def heal(session: Session) -> tuple[str, ...]:
    """Put right what is amiss; what was, as sentences."""
    return (*_missing_columns(session), *_histories(session), *_live_logs(session))


def _missing_columns(session: Session) -> list[str]:
    """Columns that an earlier Fenwick's table does not have."""
    connection = session.connection()
    found = []
    for table in SQLModel.metadata.sorted_tables:
        there = {column["name"] for column in inspect(connection).get_columns(table.name)}
        for column in table.columns:
            if column.name not in there:
                kind = column.type.compile(connection.dialect)
                rest = "" if column.nullable else f" NOT NULL DEFAULT {_default(column)}"
                session.execute(text(f'ALTER TABLE "{table.name}" ADD COLUMN "{column.name}" {kind}{rest}'))
                found.append(f"The table {table.name} lacked its column {column.name}; it has it now.")
    return found


def _default(column: Column[Any]) -> str:
    value = getattr(column.default, "arg", None)
    if isinstance(value, bool | int | float):
        return str(float(value) if isinstance(value, float) else int(value))
    plain = value if isinstance(value, str) else ("" if column.type.python_type is str else "0")
    return "'" + plain.replace("'", "''") + "'"


def _histories(session: Session) -> list[str]:
    found = []
    for kind, history, rows in (
        ("line", OF_LINES, session.exec(select(DustLine)).all()),
        ("file of the shop", OF_SHOPS, session.exec(select(Shop)).all()),
        ("record of a build", OF_BUILDS, session.exec(select(Build)).all()),
        ("way of a line", OF_WAYS, session.exec(select(LineWay)).all()),
    ):
        spans = history.spans(session)
        for row in rows:
            assert row.id is not None
            span = spans.get(row.id, Numbering(0, 1, 0))
            least = 1 if kind == "line" and span.count else 0  # a shop may stand before its first state
            if span.whole and least <= row.cursor <= span.count:
                continue
            row.cursor = max(_closed(session, history, row.id, row.cursor), least)
            session.add(row)
            name = _name_of(session, row)
            found.append(f"The {kind} “{name}” had a hole in its history; it stands at the nearest state now.")
    return found


def _name_of(session: Session, row: Any) -> str:
    if isinstance(row, LineWay):
        line = session.get(DustLine, row.line_id)
        return "" if line is None else line.name
    return str(row.what if isinstance(row, Build) else row.name)


def _closed(session: Session, history: History[Any], owner: int, cursor: int) -> int:
    """Number the states of an owner from 1 without a hole; the number of the nearest one not behind the cursor."""
    numbers = history.numbers(session, owner)
    history.renumber(session, owner, numbers)
    return sum(number <= cursor for number in numbers)


def _live_logs(session: Session) -> list[str]:
    """Nobody records any more what was being recorded when Fenwick was stopped."""
    live = select(AirLog).where(col(AirLog.ended_at).is_(None), col(AirLog.removed_at).is_(None))
    names = [log.name for log in session.exec(live).all()]
    session.exec(update(AirLog).where(col(AirLog.ended_at).is_(None)).values(ended_at=datetime.now(UTC)))
    return [f"The log “{name}” was being recorded when Fenwick was stopped; it is closed now." for name in names]
