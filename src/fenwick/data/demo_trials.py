"""The demo shop's tests, with honest scatter: real, not shown, spoilt, one that cannot be, one half done."""

from __future__ import annotations

import json
from datetime import UTC, datetime, timedelta
from importlib import resources

from sqlmodel import Session, col, select, update

from fenwick.air_log.log_csv import read_log
from fenwick.data.air_logs import add_rows, begin_log, end_log, set_cuts
from fenwick.data.remembered import kept
from fenwick.data.trial_tables import RunEntry, Trial, TrialRun
from fenwick.data.trials import DONE, add_trial
from fenwick.trials.document import read_plan

APART = timedelta(days=13)  #: from one test to the next: they fill the half year of the demo's log
CUTS = ((300.0, 420.0), (1500.0, 1620.0))  #: in the demo's log [s]


def seed_trials(session: Session, lines: list[int]) -> None:
    """Add the tests and the log to the demo's lines."""
    folder = resources.files("fenwick.data")
    tests = json.loads(folder.joinpath("demo_trials.json").read_text())["tests"]
    noon = datetime.now(UTC).replace(hour=12, minute=0, second=0, microsecond=0)
    for number, test in enumerate(tests):
        at = noon - (len(tests) - number) * APART
        states = {k: lines[place - 1] for k, place in enumerate(test.get("lines", ()))}
        plan = read_plan(json.dumps(test["plan"]))
        trial = add_trial(session, lines[test["line"] - 1], plan, test["title"], states)
        rows = session.exec(select(TrialRun).where(TrialRun.trial_id == trial)).all()
        for run, told in zip(rows, test["runs"], strict=True):
            _fill(session, run, told, at)
        session.exec(update(Trial).where(col(Trial.id) == trial).values(created_at=at))
    kept(session)
    table = read_log(folder.joinpath("demo_air.csv").read_bytes())
    log = begin_log(session, lines[0], "Two boards at the drum sander")
    add_rows(session, log, table.rows, table.unreadable)
    set_cuts(session, log, CUTS)
    end_log(session, log, "; ".join(table.notes))


def _fill(session: Session, run: TrialRun, told: dict[str, object], at: datetime) -> None:
    assert run.id is not None
    entries = told["entries"]
    assert isinstance(entries, dict)
    session.add_all(RunEntry(run_id=run.id, key=key, text=text, system="metric") for key, text in entries.items())
    run.state, run.step = str(told.get("state", DONE)), int(str(told.get("step", 0)))
    run.note, run.spoilt = str(told.get("note", "")), str(told.get("spoilt", ""))
    run.finished_at = at if run.state == DONE else None
    session.add(run)
