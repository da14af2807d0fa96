"""Lines of a shop: solved before they are stored."""

from __future__ import annotations

from sqlmodel import Session

from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.line.line import Line
from fenwick.data.lines import add_line, change_line
from fenwick.data.tables import Shop
from fenwick.rig import Rig, build_line


def solve(rig: Rig) -> tuple[Line, Assessment]:
    """The core's line of a rig, and what it comes to.

    Raises
    ------
    CoreError
        When it cannot be solved.
    """
    line = build_line(rig)
    return line, assess(line)


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
