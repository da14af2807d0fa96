"""What was tested, and when: every test of which a run is done."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import func
from sqlmodel import Session, col, select

from fenwick.data.remembered import remembered
from fenwick.data.trial_tables import Trial, TrialRun
from fenwick.data.trials import DONE


def last_tested(session: Session) -> dict[int, datetime]:
    """When each line was last tested, by its number; lines without a run that is done are left out."""
    return remembered(session, ("last tested",), lambda: _last_tested(session))


def _last_tested(session: Session) -> dict[int, datetime]:
    when = func.max(func.coalesce(TrialRun.finished_at, Trial.created_at))
    asked = select(Trial.line_id, when).join(TrialRun, col(TrialRun.trial_id) == Trial.id)
    done = (TrialRun.state == DONE, col(Trial.removed_at).is_(None))
    rows = session.exec(asked.where(*done).group_by(col(Trial.line_id))).all()
    return {line: datetime.fromisoformat(str(at)) for line, at in rows}


@dataclass(frozen=True)
class DoneTest:
    """A test of which a run is done."""

    test: int
    line: int
    title: str
    runs: int
    at: datetime  #: when the last of them was done, UTC


def tests_done(session: Session) -> list[DoneTest]:
    """Every test with a run that is done."""
    when: Any = func.max(func.coalesce(TrialRun.finished_at, Trial.created_at))
    columns: Any = [Trial.id, Trial.line_id, Trial.title, func.count(), when]
    asked = select(*columns).join(TrialRun, col(TrialRun.trial_id) == Trial.id)
    done = (TrialRun.state == DONE, col(Trial.removed_at).is_(None))
    rows = session.execute(asked.where(*done).group_by(col(Trial.id))).all()
    return [DoneTest(test, line, title, runs, datetime.fromisoformat(str(at))) for test, line, title, runs, at in rows]
