"""Tests and their runs: planned, carried out step by step, kept apart with a reason, never lost."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime

from sqlalchemy import func
from sqlmodel import Session, col, select

from fenwick.core.bench.trials.judge import Run
from fenwick.core.bench.trials.order import run_order
from fenwick.core.bench.trials.plan import Plan
from fenwick.data.lines import NotFoundError
from fenwick.data.remembered import hold, kept, remembered
from fenwick.data.removal import mark_removed
from fenwick.data.tables import DustLine
from fenwick.data.trial_tables import AirLog, RunEntry, RunPhoto, Trial, TrialRun, TrialVariant
from fenwick.data.variants import VariantLine, variant_lines
from fenwick.rig import RigError
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
    lines: Mapping[int, VariantLine] = field(default_factory=dict)  #: by the place of each state that is a line

    def line_of(self, variant: int) -> int:
        """Id of the line that a state is, or that it was planned on.

        Parameters
        ----------
        variant : its place in the plan [-]
        """
        return self.lines[variant].id if variant in self.lines else self.line_id

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


def add_trial(session: Session, line_id: int, plan: Plan, title: str, lines: Mapping[int, int] | None = None) -> int:
    """Record a plan and draw the order of its runs; the test's id.

    Parameters
    ----------
    line_id : of the line it is planned on
    lines : ids of the lines that its states are, by their places in the plan; the others are only named

    Raises
    ------
    NotFoundError
    """
    line = _line(session, line_id)
    trial = Trial(line_id=line_id, title=title[:120], plan=write_plan(plan), revision=line.cursor)
    session.add(trial)
    session.flush()
    assert trial.id is not None
    for number, other in (lines or {}).items():
        cursor = _line(session, other).cursor
        session.add(TrialVariant(trial_id=trial.id, number=number, line_id=other, revision=cursor))
    for number, variant in enumerate(run_order(len(plan.variants), plan.repeats, plan.seed), start=1):
        session.add(TrialRun(trial_id=trial.id, number=number, variant=variant))
    kept(session)
    return trial.id


def _line(session: Session, line_id: int) -> DustLine:
    line = session.get(DustLine, line_id)
    if line is None:
        raise NotFoundError(f"There is no line number {line_id} in this shop.")
    return line


def add_run(session: Session, trial_id: int, variant: int) -> int:
    """One more run of a state, behind the others; its id."""
    trial = trial_row(session, trial_id)
    assert trial.id is not None
    run = TrialRun(trial_id=trial_id, number=next_number(session, trial.id), variant=variant)
    session.add(run)
    kept(session)
    assert run.id is not None
    return run.id


def next_number(session: Session, trial_id: int) -> int:
    """Number of the run that comes behind the others of a test."""
    return (session.exec(select(func.max(TrialRun.number)).where(TrialRun.trial_id == trial_id)).one() or 0) + 1


def trial_state(session: Session, trial_id: int) -> TrialState:
    """A test with its runs.

    Raises
    ------
    NotFoundError
        Also when it was taken away.
    """
    (found,) = _states(session, [trial_row(session, trial_id)])
    return found


def trials_of(session: Session, line_id: int, skip: int = 0, most: int | None = None) -> list[TrialState]:
    """The tests of a line that were not taken away and can be read, the newest first.

    Parameters
    ----------
    skip : how many of the newest to leave out
    most : how many at most; None: all
    """
    ids = list_of_trials(session, line_id).readable[skip:][:most]
    mine = select(Trial).where(col(Trial.id).in_(ids)).order_by(col(Trial.id).desc())
    return _states(session, list(session.exec(mine).all()))


@dataclass(frozen=True)
class TrialList:
    """The tests of a line that were not taken away, the newest first."""

    readable: list[int]  #: ids
    unreadable: list[str]  #: titles of those whose plan cannot be read


def list_of_trials(session: Session, line_id: int) -> TrialList:
    """Which tests a line has."""
    return remembered(session, ("tests", line_id), lambda: _list_of_trials(session, line_id))


def _list_of_trials(session: Session, line_id: int) -> TrialList:
    mine = select(Trial.id, Trial.title, Trial.plan).where(Trial.line_id == line_id, col(Trial.removed_at).is_(None))
    rows = session.exec(mine.order_by(col(Trial.id).desc())).all()
    good = {number for number, _, plan in rows if _readable(plan)}
    return TrialList(
        [number for number, _, _ in rows if number in good and number is not None],
        [title for number, title, _ in rows if number not in good],
    )


def _readable(plan: str) -> bool:
    try:
        read_plan(plan)
    except RigError:
        return False
    return True


def _states(session: Session, trials: list[Trial]) -> list[TrialState]:
    """Tests with their runs, in as many queries for many as for one."""
    of_these = col(TrialRun.trial_id).in_([trial.id for trial in trials])
    runs = session.exec(select(TrialRun).where(of_these).order_by(col(TrialRun.number))).all()
    entries, photos = defaultdict[int, list[RunEntry]](list), defaultdict[int, list[tuple[int, str]]](list)
    of_runs = [run.id for run in runs]
    for entry in session.exec(select(RunEntry).where(col(RunEntry.run_id).in_(of_runs))).all():
        entries[entry.run_id].append(entry)
    pictures = select(RunPhoto.run_id, RunPhoto.id, RunPhoto.words).where(col(RunPhoto.run_id).in_(of_runs))
    for run_id, photo_id, words in session.exec(pictures.order_by(col(RunPhoto.id))).all():
        if photo_id is not None:
            photos[run_id].append((photo_id, words))
    mine = defaultdict[int, list[RunState]](list)
    for run in runs:
        assert run.id is not None
        mine[run.trial_id].append(_run_state(run, entries[run.id], photos[run.id]))
    lines = variant_lines(session, [trial.id or 0 for trial in trials])
    return [
        _state(trial, mine[trial.id or 0], hold(session, session.get(DustLine, trial.line_id)), lines[trial.id or 0])
        for trial in trials
    ]


def _state(trial: Trial, runs: list[RunState], line: DustLine | None, lines: Mapping[int, VariantLine]) -> TrialState:
    assert trial.id is not None
    return TrialState(
        trial.id,
        trial.line_id,
        trial.title,
        read_plan(trial.plan),
        trial.created_at.date().isoformat(),
        tuple(runs),
        line is not None and line.cursor != trial.revision,
        dict(lines),
    )


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
    mark_removed(session, trial, back=back)
    return trial.line_id


def logs_of_runs(session: Session, run_ids: Sequence[int]) -> dict[int, int]:
    """Id of the newest log of each run that has one, by the run's."""
    mine = select(AirLog.run_id, AirLog.id).where(col(AirLog.run_id).in_(run_ids), col(AirLog.removed_at).is_(None))
    rows = session.exec(mine.order_by(col(AirLog.id))).all()
    return {run_id: log_id for run_id, log_id in rows if run_id is not None and log_id is not None}


def counted(run: TrialRun) -> float:
    """What the clock of a run's step has counted [s]."""
    if run.clock_from is None:
        return run.clock_before
    since = run.clock_from if run.clock_from.tzinfo else run.clock_from.replace(tzinfo=UTC)
    return run.clock_before + max((datetime.now(UTC) - since).total_seconds(), 0.0)


def _run_state(run: TrialRun, entries: list[RunEntry], photos: list[tuple[int, str]]) -> RunState:
    assert run.id is not None
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
        tuple(photos),
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
