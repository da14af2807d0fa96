"""Lines of a shop: solved before they are stored, and put together with what was changed meanwhile."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlmodel import Session

from fenwick.data.lines import (
    add_line,
    all_line_ids,
    change_line,
    first_line_id,
    line_as_of,
    line_standing,
    line_state,
    step_line,
)
from fenwick.data.tables import Shop
from fenwick.rig import Rig, RigError
from fenwick.rig.edits.edit import check_change
from fenwick.rig.format.guesses import prune_guesses
from fenwick.services.logbook.shown import keep_in_log, to_store
from fenwick.services.solving import solve
from fenwick.services.together import MadeFrom, MovedOnError, put_together


def store(session: Session, line_id: int, rig: Rig, label: str, made_from: MadeFrom | None = None) -> bool:
    """Put a changed rig in force; one that cannot be solved leaves the line as it is. Whether it is logged, too.

    Parameters
    ----------
    session : opened to write
    line_id : of the line
    rig : as it is to be
    label : what was done
    made_from : the state that the change was made to; None: the one that stands

    Raises
    ------
    NotFoundError
    ClashError
        When it does not go with what was changed since.
    CoreError
        When it cannot be solved.
    """
    now = line_state(session, line_id)
    if made_from is not None and made_from.shown != now.revision:
        base = line_as_of(session, line_id, made_from.shown)
        if base.rig != now.rig:
            last = (now.revision, now.undo_label or "")
            rig = put_together(base.rig, rig, now.rig, made_from, last, lambda document: _checked(now.rig, document))
    if rig != now.rig:  # somebody else may have done the same
        solve(rig)
        change = to_store(session, line_id, now.rig, rig, datetime.now())
        keep_in_log(session, line_id, change)
        if change.rig is not None:
            change_line(session, line_id, change.rig, label)
        return change.entry is not None
    return False


def line_to_open(session: Session) -> int | None:
    """The line that a shop opens on: the one with the most tools, of several the first; None in an empty shop."""
    best, most = first_line_id(session), -1
    for line_id in all_line_ids(session):
        try:
            tools = len(line_state(session, line_id).rig.line.ways)
        except RigError:  # its own page says why it cannot be read
            continue
        if tools > most:
            best, most = line_id, tools
    return best


def _checked(now: Rig, document: Any) -> Rig:
    prune_guesses(document)
    return check_change(now, document)


def step(session: Session, line_id: int, by: int, made_from: MadeFrom | None = None) -> None:
    """Take the last change back (−1), or bring it again (+1), if it is still the one that was shown.

    Raises
    ------
    NotFoundError
    MovedOnError
    """
    now = line_standing(session, line_id)  # a state that cannot be read can be left all the same
    if made_from is not None and made_from.shown != now.revision:
        raise MovedOnError(now.undo_label or "")
    step_line(session, line_id, by)


def add(session: Session, shop: Shop, *rigs: Rig) -> list[int]:
    """New lines of a shop; their ids. None is added where one of them cannot be solved.

    Raises
    ------
    CoreError
        When one cannot be solved.
    """
    for rig in rigs:
        solve(rig)
    return [add_line(session, shop, rig) for rig in rigs]
