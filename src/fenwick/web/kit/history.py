"""The history of a line, as a request changes it."""

from __future__ import annotations

from fenwick.data.lines import step_line
from fenwick.rig import Rig
from fenwick.services import lines
from fenwick.web.kit.database import session


def save(line_id: int, rig: Rig, label: str) -> None:
    """Put a rig in force that can be solved; one that cannot raises CoreError and leaves the line as it is."""
    lines.store(session(), line_id, rig, label)


def step(line_id: int, way: str) -> None:
    """Take the last change of a line back (undo), or bring it again (redo)."""
    step_line(session(), line_id, -1 if way == "undo" else +1)
