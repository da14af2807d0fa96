"""Tests and their runs: planned, carried out step by step, kept apart with a reason, never lost."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime

from sqlmodel import Session, col, select

from fenwick.core.testing.judge import Run
from fenwick.core.testing.order import run_order
from fenwick.core.testing.plan import Plan
from fenwick.core.testing.steps import steps
from fenwick.data.lines import NotFoundError
from fenwick.data.tables import DustLine
from fenwick.data.trial_tables import AirLog, RunEntry, RunPhoto, Trial, TrialRun
from fenwick.trial.document import read_plan, write_plan
from fenwick.trial.runs_csv import RunRow
from fenwick.trial.values import Entry, run_values

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
    note: str
    on: str  #: date it was planned
    runs: tuple[RunState, ...]

    @property
    def next_run(self) -> RunState | None:
        """The run that is under way, else the first that waits."""
        live = [run for run in self.runs if run.state in LIVE]
        return next(iter(live or [run for run in self.runs if run.state == WAITING]), None)

    @property
    def done(self) -> bool:
        """Whether no run is left to do."""
        return self.next_run is None

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
    trial = _trial(session, trial_id)
    numbers = session.exec(select(TrialRun.number).where(TrialRun.trial_id == trial.id)).all()
    run = TrialRun(trial_id=trial_id, number=max(numbers, default=0) + 1, variant=variant)
    session.add(run)
    session.commit()
    assert run.id is not None
    return run.id


def add_finished(session: Session, trial_id: int, rows: Sequence[RunRow], system: str) -> None:
    """Runs that were made elsewhere, behind the others; their texts are in one system of units."""
    for row in rows:
        run_id = add_run(session, trial_id, row.variant)
        for key, text in row.texts.items():
            save_entry(session, run_id, key, Entry(text, system, "a table"))
        run = _run(session, run_id)
        run.state, run.note, run.spoilt = DONE, row.note[:2000], row.spoilt[:300]
        run.step = len(steps(read_plan(_trial(session, trial_id).plan))) - 1
        run.started_at = run.finished_at = _now()
        _commit(session, run)


def trial_state(session: Session, trial_id: int) -> TrialState:
    """A test with its runs.

    Raises
    ------
    NotFoundError
        Also when it was taken away.
    """
    trial = _trial(session, trial_id)
    rows = session.exec(select(TrialRun).where(TrialRun.trial_id == trial_id).order_by(col(TrialRun.number))).all()
    return TrialState(
        trial_id,
        trial.line_id,
        trial.title,
        read_plan(trial.plan),
        trial.note,
        trial.created_at.date().isoformat(),
        tuple(_run_state(session, row) for row in rows),
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
    trial = trial_state(session, _run(session, run_id).trial_id)
    return trial, next(run for run in trial.runs if run.id == run_id)


def save_entry(session: Session, run_id: int, key: str, entry: Entry) -> None:
    """Keep a text of a run as it was typed; it is on disk when this returns."""
    row = session.exec(select(RunEntry).where(RunEntry.run_id == run_id, RunEntry.key == key)).first()
    row = row or RunEntry(run_id=_run_id(session, run_id), key=key, text="", system="")
    row.text, row.system, row.source, row.at = entry.text[:200], entry.system, entry.source[:60], _now()
    session.add(row)
    session.commit()


def save_note(session: Session, run_id: int, note: str) -> None:
    """Keep the note of a run."""
    run = _run(session, run_id)
    run.note = note[:2000]
    _commit(session, run)


def tick(session: Session, run_id: int, key: str, *, on: bool) -> None:
    """Tick, or untick, what has been set back before a run."""
    run = _run(session, run_id)
    ticked = [one for one in run.ticked.split(",") if one and one != key]
    run.ticked = ",".join([*ticked, key] if on else ticked)[:300]
    _commit(session, run)


def go_to_step(session: Session, run_id: int, step: int) -> None:
    """Take a run to a step; its clock is set back. The step behind the last one finishes the run."""
    run = _run(session, run_id)
    last = len(steps(read_plan(_trial(session, run.trial_id).plan)))
    run.step = min(max(step, 0), last - 1)
    run.clock_from, run.clock_before = None, 0.0
    run.started_at = run.started_at or _now()
    if step >= last:
        run.state, run.finished_at = DONE, _now()
    else:
        run.state, run.finished_at = RUNNING, None
    _commit(session, run)


def run_clock(session: Session, run_id: int, *, on: bool) -> None:
    """Start or stop the clock of a run's step."""
    run = _run(session, run_id)
    if on and run.clock_from is None:
        run.clock_from = _now()
    elif not on and run.clock_from is not None:
        run.clock_before, run.clock_from = _counted(run), None
    _commit(session, run)


def reset_clock(session: Session, run_id: int) -> None:
    """Set the clock of a run's step back to nothing."""
    run = _run(session, run_id)
    run.clock_from, run.clock_before = None, 0.0
    _commit(session, run)


def pause(session: Session, run_id: int, *, on: bool) -> None:
    """Leave a run as it is, its clock stopped, or go on with it."""
    run = _run(session, run_id)
    if on:
        run.clock_before, run.clock_from = _counted(run), None
    run.state = PAUSED if on else RUNNING
    _commit(session, run)


def abort(session: Session, run_id: int, why: str) -> None:
    """Give a run up; what was read in it stays on record and does not count."""
    run = _run(session, run_id)
    run.clock_before, run.clock_from = _counted(run), None
    run.state, run.finished_at = ABORTED, _now()
    run.spoilt = (why or run.spoilt or "given up")[:300]
    _commit(session, run)


def spoil(session: Session, run_id: int, why: str) -> None:
    """Mark a run spoilt with a reason, or, with an empty one, let it count again."""
    run = _run(session, run_id)
    run.spoilt = why[:300]
    if not why and run.state == ABORTED:
        run.state = RUNNING
    _commit(session, run)


def add_photo(session: Session, run_id: int, picture: bytes, words: str = "") -> int:
    """Keep a photo of a run; its id."""
    photo = RunPhoto(run_id=_run_id(session, run_id), words=words[:200], picture=picture)
    _commit(session, photo)
    assert photo.id is not None
    return photo.id


def photo_of(session: Session, photo_id: int) -> bytes:
    """A photo.

    Raises
    ------
    NotFoundError
    """
    photo = session.get(RunPhoto, photo_id)
    if photo is None:
        raise NotFoundError("There is no such photo.")
    return photo.picture


def remove_photo(session: Session, photo_id: int) -> int:
    """Throw a photo away; id of its run."""
    photo = session.get(RunPhoto, photo_id)
    if photo is None:
        raise NotFoundError("There is no such photo.")
    session.delete(photo)
    session.commit()
    return photo.run_id


def remove_trial(session: Session, trial_id: int, *, back: bool = False) -> int:
    """Take a test away, or bring it back; id of its line."""
    trial = session.get(Trial, trial_id)
    if trial is None:
        raise NotFoundError(f"There is no test number {trial_id} in this shop.")
    trial.removed_at = None if back else _now()
    _commit(session, trial)
    return trial.line_id


def log_of_run(session: Session, run_id: int) -> int | None:
    """Id of the log that belongs to a run; None where it has none."""
    mine = select(AirLog.id).where(AirLog.run_id == run_id, col(AirLog.removed_at).is_(None))
    return session.exec(mine.order_by(col(AirLog.id).desc())).first()


def _now() -> datetime:
    return datetime.now(UTC)


def _counted(run: TrialRun) -> float:
    if run.clock_from is None:
        return run.clock_before
    since = run.clock_from if run.clock_from.tzinfo else run.clock_from.replace(tzinfo=UTC)
    return run.clock_before + max((_now() - since).total_seconds(), 0.0)


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
        _counted(run),
        run.clock_from is not None,
        {row.key: Entry(row.text, row.system, row.source) for row in entries},
        tuple((key, words) for key, words in photos if key is not None),
        run.finished_at.isoformat(" ", "minutes")[:16] if run.finished_at else "",
    )


def _commit(session: Session, row: TrialRun | RunPhoto | Trial) -> None:
    session.add(row)
    session.commit()


def _trial(session: Session, trial_id: int) -> Trial:
    trial = session.get(Trial, trial_id)
    if trial is None or trial.removed_at is not None:
        raise NotFoundError(f"There is no test number {trial_id} in this shop, or it was taken away.")
    return trial


def _run(session: Session, run_id: int) -> TrialRun:
    run = session.get(TrialRun, run_id)
    if run is None:
        raise NotFoundError(f"There is no run number {run_id} in this shop.")
    return run


def _run_id(session: Session, run_id: int) -> int:
    _run(session, run_id)
    return run_id
