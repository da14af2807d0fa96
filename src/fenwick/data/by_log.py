"""Which lines are shown as the log has them today, and what is stored of them all the same."""

from __future__ import annotations

from sqlmodel import Session

from fenwick.data.lines import line_row, stored_document
from fenwick.data.remembered import kept
from fenwick.rig import Rig, read_rig


def shows_by_log(session: Session, line_id: int) -> bool:
    """Whether a line is shown as the log has it, as far as the log says anything.

    Raises
    ------
    NotFoundError
    """
    return line_row(session, line_id).by_log


def show_by_log(session: Session, line_id: int, *, on: bool) -> None:
    """Show a line as the log has it today, or as it is described.

    Raises
    ------
    NotFoundError
    """
    line = line_row(session, line_id)
    line.by_log = on
    session.add(line)
    kept(session)


def stored_rig(session: Session, line_id: int) -> Rig:
    """A line as it is stored, whatever the log says.

    Raises
    ------
    NotFoundError
    RigError
    """
    return read_rig(stored_document(session, line_id).encode())
