"""The way that a line is on, and its history: a tick is a step of the history, and can be taken back."""

from __future__ import annotations

from collections.abc import Collection
from contextlib import suppress
from dataclasses import dataclass

from sqlmodel import Session, select

from fenwick.data.history import OF_WAYS
from fenwick.data.remembered import kept
from fenwick.data.tables import LineWay
from fenwick.rig import RigError
from fenwick.way_kept.model import KeptWay, read_way, write_way


@dataclass(frozen=True)
class WayState:
    """A way as it stands."""

    way: KeptWay
    undo_label: str | None = None
    redo_label: str | None = None


def way_state(session: Session, line_id: int) -> WayState:
    """The way of a line as it stands; an empty one where none was taken up.

    Raises
    ------
    RigError
        When what is stored cannot be read.
    """
    row = _row(session, line_id)
    if row is None:
        return WayState(KeptWay())
    assert row.id is not None
    near = OF_WAYS.near(session, row.id, row.cursor)
    way = KeptWay() if near.here is None else read_way(near.here.document)
    return WayState(way, None if near.here is None else near.here.label, near.after.label if near.after else None)


def ways_of(session: Session, lines: Collection[int]) -> list[tuple[int, KeptWay]]:
    """(line, way) of some lines as they stand; one that cannot be read is left out."""
    found = []
    for line, document in OF_WAYS.in_force(session, LineWay, lines):
        with suppress(RigError):  # its own page says what is wrong with it
            found.append((line, read_way(document)))
    return found


def change_way(session: Session, line_id: int, way: KeptWay, label: str) -> None:
    """Put a changed record in force."""
    row = _row(session, line_id)
    if row is None:
        row = LineWay(line_id=line_id)
        session.add(row)
        session.flush()
    assert row.id is not None
    row.cursor = OF_WAYS.add(session, row.id, row.cursor, label, write_way(way)).number
    session.add(row)
    kept(session)


def step_way(session: Session, line_id: int, by: int) -> str | None:
    """Undo (−1) or redo (+1); what was taken back or brought back, or None at the end of the history."""
    row = _row(session, line_id)
    label = None if row is None else OF_WAYS.step(session, row, by)
    if label is not None:
        kept(session)
    return label


def _row(session: Session, line_id: int) -> LineWay | None:
    return session.exec(select(LineWay).where(LineWay.line_id == line_id)).first()
