"""Builds and their history: a tick is a step of the history, and can be taken back."""

from __future__ import annotations

from dataclasses import dataclass

from sqlmodel import Session, select

from fenwick.builds.model import BuildFile, read_build, write_build
from fenwick.data.history import OF_BUILDS
from fenwick.data.remembered import kept
from fenwick.data.tables import Build


@dataclass(frozen=True)
class BuildState:
    """A build as it stands."""

    id: int | None  #: None: nothing was done of it yet
    file: BuildFile
    undo_label: str | None = None
    redo_label: str | None = None
    revision: int = 0  #: id of the state that this is; 0: nothing was done yet


def build_state(session: Session, line_id: int, what: str) -> BuildState:
    """The build of one thing as it stands; an empty one where nothing was done yet.

    Raises
    ------
    RigError
        When what is stored cannot be read.
    """
    row = _row(session, line_id, what)
    if row is None:
        return BuildState(None, BuildFile(what=what))
    assert row.id is not None
    near = OF_BUILDS.near(session, row.id, row.cursor)
    file = BuildFile(what=what) if near.here is None else read_build(near.here.document)
    undo = None if near.here is None else near.here.label
    redo = near.after.label if near.after else None
    return BuildState(row.id, file, undo, redo, (near.here.id or 0) if near.here else 0)


def change_build(session: Session, line_id: int, what: str, file: BuildFile, label: str) -> None:
    """Put a changed record in force."""
    row = _row(session, line_id, what)
    if row is None:
        row = Build(line_id=line_id, what=what)
        session.add(row)
        session.flush()
    assert row.id is not None
    row.cursor = OF_BUILDS.add(session, row.id, row.cursor, label, write_build(file)).number
    session.add(row)
    kept(session)


def step_build(session: Session, line_id: int, what: str, by: int) -> str | None:
    """Undo (−1) or redo (+1); what was taken back or brought back, or None at the end of the history."""
    row = _row(session, line_id, what)
    if row is None or row.id is None:
        return None
    near = OF_BUILDS.near(session, row.id, row.cursor)
    target = near.here if by < 0 else near.after
    if target is None:
        return None
    row.cursor += by
    session.add(row)
    kept(session)
    return target.label


def _row(session: Session, line_id: int, what: str) -> Build | None:
    return session.exec(select(Build).where(Build.line_id == line_id, Build.what == what)).first()
