"""Particle logs: rows kept as they were read, put in order and judged only when they are looked at."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from itertools import chain

import numpy as np
from sqlalchemy import insert
from sqlmodel import Session, col, delete, select

from fenwick.core.arrays import Array
from fenwick.core.bench.trials.monitor import Log, Monitored, monitored, ordered
from fenwick.data.lines import NotFoundError
from fenwick.data.remembered import hold, kept, remembered
from fenwick.data.removal import mark_removed
from fenwick.data.tables import DustLine
from fenwick.data.trial_tables import AirLog, AirLogCut, AirLogRow


@dataclass(frozen=True)
class LogState:
    """A log as it stands."""

    id: int
    line_id: int
    run_id: int | None
    name: str
    on: str
    live: bool
    notes: str
    cuts: tuple[tuple[float, float], ...]  #: (start, stop) [s]
    log: Log
    monitored: Monitored


def begin_log(session: Session, line_id: int, name: str, run_id: int | None = None) -> int:
    """A new log, being read live; its id."""
    if session.get(DustLine, line_id) is None:
        raise NotFoundError(f"There is no line number {line_id} in this shop.")
    log = AirLog(line_id=line_id, run_id=run_id, name=name[:120])
    session.add(log)
    kept(session)
    assert log.id is not None
    return log.id


def add_rows(session: Session, log_id: int, rows: Sequence[tuple[float, float]], unreadable: int = 0) -> None:
    """Keep rows (time [s], value [kg/m^3]) as they were read, and count what could not be."""
    if rows:
        session.execute(insert(AirLogRow), [{"log_id": log_id, "time": t, "value": v} for t, v in rows])
    if unreadable:
        log = _log(session, log_id)
        log.unreadable += unreadable
        session.add(log)
    kept(session)


def end_log(session: Session, log_id: int, notes: str = "") -> None:
    """The log is whole."""
    log = _log(session, log_id)
    log.ended_at = log.ended_at or datetime.now(UTC)
    log.notes = (notes or log.notes)[:1000]
    session.add(log)
    kept(session)


def set_cuts(session: Session, log_id: int, cuts: Sequence[tuple[float, float]]) -> None:
    """When was cut, (start, stop) of each [s]; they take the place of those there were."""
    _log(session, log_id)
    session.exec(delete(AirLogCut).where(col(AirLogCut.log_id) == log_id))
    session.add_all(AirLogCut(log_id=log_id, start=start, stop=stop) for start, stop in sorted(cuts))
    kept(session)


def log_state(session: Session, log_id: int) -> LogState:
    """A log, put in order and judged.

    Raises
    ------
    NotFoundError
    """
    _log(session, log_id)
    return log_states(session, [log_id])[log_id]


def log_states(session: Session, log_ids: Sequence[int]) -> dict[int, LogState]:
    """Logs that were not taken away, by their ids, put in order and judged; in as many queries as for one."""
    wanted = select(AirLog).where(col(AirLog.id).in_(log_ids), col(AirLog.removed_at).is_(None))
    logs = session.exec(wanted).all() if log_ids else []
    there = [log.id for log in logs if log.id is not None]
    cuts = defaultdict[int, list[tuple[float, float]]](list)
    of_these = select(AirLogCut).where(col(AirLogCut.log_id).in_(there)).order_by(col(AirLogCut.start))
    for cut in session.exec(of_these).all() if there else []:
        cuts[cut.log_id].append((cut.start, cut.stop))
    rows = _rows_of(session, there)
    return {log.id: _log_state(log, rows[log.id], tuple(cuts[log.id])) for log in logs if log.id is not None}


def _rows_of(session: Session, log_ids: Sequence[int]) -> dict[int, Array]:
    """(time, value) of the rows of logs, as they were read; by the hundred thousand, so never as objects."""
    marks = ", ".join("?" for _ in log_ids)
    statement = f"SELECT log_id, time, value FROM air_log_row WHERE log_id IN ({marks}) ORDER BY id"
    read: Iterable[tuple[float, ...]] = ()
    if log_ids:
        read = session.connection().exec_driver_sql(statement, tuple(log_ids)).cursor  # type: ignore[assignment]
    found: Array = np.fromiter(chain.from_iterable(read), dtype=np.float64).reshape(-1, 3)
    return {log_id: found[found[:, 0] == log_id, 1:] for log_id in log_ids}


def _log_state(log: AirLog, read: Array, cuts: tuple[tuple[float, float], ...]) -> LogState:
    assert log.id is not None
    rows = ordered(read, log.unreadable)
    return LogState(
        log.id,
        log.line_id,
        log.run_id,
        log.name,
        log.created_at.date().isoformat(),
        log.ended_at is None,
        log.notes,
        cuts,
        rows,
        monitored(rows, cuts),
    )


@dataclass(frozen=True)
class LogName:
    """A log in a list."""

    id: int
    name: str
    on: str


def logs_of(session: Session, line_id: int) -> list[LogName]:
    """A line's logs, the newest first."""
    mine = select(AirLog).where(AirLog.line_id == line_id, col(AirLog.removed_at).is_(None))
    wanted = mine.order_by(col(AirLog.id).desc())
    rows = remembered(session, ("air logs", line_id), lambda: list(session.exec(wanted).all()))
    return [LogName(log.id, log.name, log.created_at.date().isoformat()) for log in rows if log.id is not None]


def remove_log(session: Session, log_id: int, *, back: bool = False) -> int:
    """Take a log away, or bring it back; id of its line."""
    log = session.get(AirLog, log_id)
    if log is None:
        raise NotFoundError(f"There is no log number {log_id} in this shop.")
    mark_removed(session, log, back=back)
    return log.line_id


def _log(session: Session, log_id: int) -> AirLog:
    log = session.get(AirLog, log_id)
    if log is None or log.removed_at is not None:
        raise NotFoundError(f"There is no log number {log_id} in this shop, or it was taken away.")
    return hold(session, log)
