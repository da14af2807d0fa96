"""Builds and their history: a tick is a step of the history, and can be taken back."""

from __future__ import annotations

from collections.abc import Collection
from contextlib import suppress
from dataclasses import dataclass

from sqlmodel import Session, col, select

from fenwick.builds.model import BuildFile, read_build, write_build
from fenwick.data.history import OF_BUILDS
from fenwick.data.lines import NotFoundError
from fenwick.data.remembered import kept
from fenwick.data.tables import Build, BuildPhoto
from fenwick.rig import RigError


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


def builds_of(session: Session, lines: Collection[int]) -> list[tuple[int, BuildFile]]:
    """(line, record) of every build of some lines as it stands; one that cannot be read is left out."""
    found = []
    for line, document in OF_BUILDS.in_force(session, Build, lines):
        with suppress(RigError):  # its own page says what is wrong with it
            found.append((line, read_build(document)))
    return found


def change_build(session: Session, line_id: int, what: str, file: BuildFile, label: str) -> None:
    """Put a changed record in force."""
    row = _begun(session, line_id, what)
    assert row.id is not None
    row.cursor = OF_BUILDS.add(session, row.id, row.cursor, label, write_build(file)).number
    session.add(row)
    kept(session)


def step_build(session: Session, line_id: int, what: str, by: int) -> str | None:
    """Undo (−1) or redo (+1); what was taken back or brought back, or None at the end of the history."""
    row = _row(session, line_id, what)
    label = None if row is None else OF_BUILDS.step(session, row, by)
    if label is not None:
        kept(session)
    return label


def add_build_photo(session: Session, line_id: int, what: str, step: str, picture: bytes) -> int:
    """Keep a photo of a step; its id."""
    build = _begun(session, line_id, what)
    assert build.id is not None
    photo = BuildPhoto(build_id=build.id, step=step, picture=picture)
    session.add(photo)
    kept(session)
    assert photo.id is not None
    return photo.id


def photos_of_step(session: Session, build_id: int | None, step: str) -> list[int]:
    """Ids of the photos of a step, in the order they were taken."""
    mine = select(BuildPhoto.id).where(BuildPhoto.build_id == build_id, BuildPhoto.step == step)
    return [one for one in session.exec(mine.order_by(col(BuildPhoto.id))).all() if one is not None]


def build_photo(session: Session, line_id: int, photo_id: int) -> BuildPhoto:
    """A photo of a line's build.

    Raises
    ------
    NotFoundError
        When the line has none of that number.
    """
    photo = session.get(BuildPhoto, photo_id)
    build = None if photo is None else session.get(Build, photo.build_id)
    if photo is None or build is None or build.line_id != line_id:
        raise NotFoundError("There is no such photo.")
    return photo


def remove_build_photo(session: Session, line_id: int, photo_id: int) -> str:
    """Throw a photo away; the step that it was of.

    Raises
    ------
    NotFoundError
    """
    photo = build_photo(session, line_id, photo_id)
    session.delete(photo)
    kept(session)
    return photo.step


def _begun(session: Session, line_id: int, what: str) -> Build:
    """The row of a build, made where there is none."""
    row = _row(session, line_id, what)
    if row is None:
        row = Build(line_id=line_id, what=what)
        session.add(row)
        session.flush()
    return row


def _row(session: Session, line_id: int, what: str) -> Build | None:
    return session.exec(select(Build).where(Build.line_id == line_id, Build.what == what)).first()
