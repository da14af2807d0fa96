"""The lines of the shop that the states of a test are."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from typing import Any

from sqlmodel import Session, col, select

from fenwick.data.tables import DustLine
from fenwick.data.trial_tables import TrialVariant


@dataclass(frozen=True)
class VariantLine:
    """The line that a state of a test is."""

    id: int
    changed: bool = False  #: since the test was planned
    gone: bool = False  #: taken away since


def variant_lines(session: Session, trials: list[int]) -> dict[int, dict[int, VariantLine]]:
    """The lines that states of some tests are, by test and place."""
    found = defaultdict[int, dict[int, VariantLine]](dict)
    columns: Any = [TrialVariant.trial_id, TrialVariant.number, TrialVariant.revision]
    line: Any = [DustLine.id, DustLine.cursor, DustLine.removed]
    asked = select(*columns, *line).join(DustLine, col(DustLine.id) == TrialVariant.line_id)
    rows = session.execute(asked.where(col(TrialVariant.trial_id).in_(trials)).order_by(col(TrialVariant.number))).all()
    for trial, number, revision, line_id, cursor, removed in rows:
        found[trial][number] = VariantLine(line_id, cursor != revision, removed)
    return found
