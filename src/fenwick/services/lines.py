"""Lines of a shop: solved before they are stored."""

from __future__ import annotations

from sqlmodel import Session

from fenwick.data.lines import add_line, change_line
from fenwick.data.tables import Shop
from fenwick.rig import Rig
from fenwick.services.solving import solve


def store(session: Session, line_id: int, rig: Rig, label: str) -> None:
    """Put a changed rig in force; one that cannot be solved leaves the line as it is.

    Raises
    ------
    NotFoundError
    CoreError
        When it cannot be solved.
    """
    solve(rig)
    change_line(session, line_id, rig, label)


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
