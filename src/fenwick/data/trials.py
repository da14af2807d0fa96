"""Tests and their runs: planned, carried out step by step, kept apart with a reason, never lost."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import UTC, datetime

from sqlmodel import Session, col, select

from fenwick.core.bench.trials.judge import Run
from fenwick.core.bench.trials.order import run_order
from fenwick.core.bench.trials.plan import Plan
from fenwick.data.lines import NotFoundError
from fenwick.data.tables import DustLine
from fenwick.data.trial_tables import AirLog, RunEntry, RunPhoto, Trial, TrialRun
from fenwick.trials.document import read_plan, write_plan
from fenwick.trials.values import Entry, run_values

WAITING, RUNNING, PAUSED, DONE, ABORTED = "waiting", "running", "paused", "done", "aborted"
LIVE = (RUNNING, PAUSED)


@dataclass(frozen=True)
class RunState:
    """One run as it stands."""

    id: int
    number: int  #: from 1, in the order drawn
    variant: int
    state: str
    step: int
    spoilt: str
    note: str
    ticked: tuple[str, ...]
    clock: float  #: what the clock of its step has counted [s]
    ticking: bool
    entries: dict[str, Entry] = field(default_factory=dict)
    photos: tuple[tuple[int, str], ...] = ()  #: (id, words)
    finished: str = ""  #: when, as in 2026-11-26 10:40


@dataclass(frozen=True)
class TrialState:
    """A test as it stands."""

    id: int
    line_id: int
    title: str
    plan: Plan
    on: str  #: date it was planned
    runs: tuple[RunState, ...]
    line_changed: bool = False  #: since it was planned

    @property
    def next_run(self) -> RunState | None:
        """The run that is under way, else the first that waits."""
        live = [run for run in self.runs if run.state in LIVE]
        return next(iter(live or [run for run in self.runs if run.state == WAITING]), None)

    def judged_runs(self) -> list[Run]:
        """The runs as the core judges them."""
        return [
            Run(run.variant, run_values(self.plan, run.entries)[0], run.spoilt, run.state == DONE) for run in self.runs
        ]


def add_trial(session: Session, line_id: int, plan: Plan, title: str) -> int:
    """Record a plan and draw the order of its runs; the test's id.

    Raises
    ------
    NotFoundError
    """
    line = session.get(DustLine, line_id)
    if line is None:
        raise NotFoundError(f"There is no line number {line_id} in this shop.")
    trial = Trial(line_id=line_id, title=title[:120], plan=write_plan(plan), revision=line.cursor)
    session.add(trial)
    session.flush()
    assert trial.id is not None
    for number, variant in enumerate(run_order(len(plan.variants), plan.repeats, plan.seed), start=1):
        session.add(TrialRun(trial_id=trial.id, number=number, variant=variant))
    session.commit()
    return trial.id


def add_run(session: Session, trial_id: int, variant: int) -> int:
    """One more run of a state, behind the others; its id."""
    trial = trial_row(session, trial_id)
    numbers = session.exec(select(TrialRun.number).where(TrialRun.trial_id == trial.id)).all()
    run = TrialRun(trial_id=trial_id, number=max(numbers, default=0) + 1, variant=variant)
    session.add(run)
    session.commit()
    assert run.id is not None
    return run.id


def trial_state(session: Session, trial_id: int) -> TrialState:
    """A test with its runs.

    Raises
    ------
    NotFoundError
        Also when it was taken away.
    """
    trial = trial_row(session, trial_id)
    line = session.get(DustLine, trial.line_id)
    rows = session.exec(select(TrialRun).where(TrialRun.trial_id == trial_id).order_by(col(TrialRun.number))).all()
    return TrialState(
        trial_id,
        trial.line_id,
        trial.title,
        read_plan(trial.plan),
        trial.created_at.date().isoformat(),
        tuple(_run_state(session, row) for row in rows),
        line is not None and line.cursor != trial.revision,
    )


def trials_of(session: Session, line_id: int) -> list[TrialState]:
    """Every test of a line that was not taken away, the newest first."""
    mine = select(Trial.id).where(Trial.line_id == line_id, col(Trial.removed_at).is_(None))
    ids = session.exec(mine.order_by(col(Trial.id).desc())).all()
    return [trial_state(session, one) for one in ids if one is not None]


def run_state(session: Session, run_id: int) -> tuple[TrialState, RunState]:
    """(its test, a run).

    Raises
    ------
    NotFoundError
    """
    trial = trial_state(session, run_row(session, run_id).trial_id)
    return trial, next(run for run in trial.runs if run.id == run_id)


def remove_trial(session: Session, trial_id: int, *, back: bool = False) -> int:
    """Take a test away, or bring it back; id of its line."""
    trial = session.get(Trial, trial_id)
    if trial is None:
        raise NotFoundError(f"There is no test number {trial_id} in this shop.")
    trial.removed_at = None if back else datetime.now(UTC)
    session.add(trial)
    session.commit()
    return trial.line_id


def log_of_run(session: Session, run_id: int) -> int | None:
    """Id of the log that belongs to a run; None where it has none."""
    mine = select(AirLog.id).where(AirLog.run_id == run_id, col(AirLog.removed_at).is_(None))
    return session.exec(mine.order_by(col(AirLog.id).desc())).first()


def counted(run: TrialRun) -> float:
    """What the clock of a run's step has counted [s]."""
    if run.clock_from is None:
        return run.clock_before
    since = run.clock_from if run.clock_from.tzinfo else run.clock_from.replace(tzinfo=UTC)
    return run.clock_before + max((datetime.now(UTC) - since).total_seconds(), 0.0)


def _run_state(session: Session, run: TrialRun) -> RunState:
    assert run.id is not None
    entries = session.exec(select(RunEntry).where(RunEntry.run_id == run.id)).all()
    photos = session.exec(select(RunPhoto.id, RunPhoto.words).where(RunPhoto.run_id == run.id)).all()
    return RunState(
        run.id,
        run.number,
        run.variant,
        run.state,
        run.step,
        run.spoilt,
        run.note,
        tuple(one for one in run.ticked.split(",") if one),
        counted(run),
        run.clock_from is not None,
        {row.key: Entry(row.text, row.system, row.source) for row in entries},
        tuple((key, words) for key, words in photos if key is not None),
        run.finished_at.isoformat(" ", "minutes")[:16] if run.finished_at else "",
    )


def trial_row(session: Session, trial_id: int) -> Trial:
    """The row of a test that was not taken away.

    Raises
    ------
    NotFoundError
    """
    trial = session.get(Trial, trial_id)
    if trial is None or trial.removed_at is not None:
        raise NotFoundError(f"There is no test number {trial_id} in this shop, or it was taken away.")
    return trial


def run_row(session: Session, run_id: int) -> TrialRun:
    """The row of a run.

    Raises
    ------
    NotFoundError
    """
    run = session.get(TrialRun, run_id)
    if run is None:
        raise NotFoundError(f"There is no run number {run_id} in this shop.")
    return run
