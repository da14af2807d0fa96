"""What a motor sounded like on a line, the last time it was heard."""

from __future__ import annotations

from sqlmodel import Session

from fenwick.data.logbook import LogWanted, entries_of
from fenwick.wording.heard import Heard

LOOKED_THROUGH = 20  #: entries


def last_heard(session: Session, line_id: int) -> Heard | None:
    """The last entry of a line that says how loud it was; None: it never was heard."""
    for entry in entries_of(session, LogWanted(kinds=("heard",), line=line_id), most=LOOKED_THROUGH):
        if entry.quiet is not None:
            return Heard(entry.quiet, entry.pitch, f"{entry.at.day} {entry.at:%B}")
    return None
