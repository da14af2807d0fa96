"""Runs of a test as they go on: every text kept at once, a step at a time, spoilt or given up with a reason."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime

from sqlmodel import Session, select

from fenwick.core.bench.trials.steps import steps
from fenwick.data.lines import NotFoundError
from fenwick.data.remembered import kept
from fenwick.data.trial_tables import RunEntry, RunPhoto, TrialRun
from fenwick.data.trials import ABORTED, DONE, PAUSED, RUNNING, counted, next_number, run_row, trial_row
from fenwick.trials.document import read_plan
from fenwick.trials.runs_csv import RunRow
from fenwick.trials.values import Entry


def add_finished(session: Session, trial_id: int, rows: Sequence[RunRow], system: str) -> None:
    """Runs that were made elsewhere, behind the others; their texts are in one system of units."""
    trial = trial_row(session, trial_id)
    last, now, first = len(steps(read_plan(trial.plan))) - 1, _now(), next_number(session, trial_id)
    runs = [
        TrialRun(
            trial_id=trial_id,
            number=number,
            variant=row.variant,
            state=DONE,
            step=last,
            note=row.note[:2000],
            spoilt=row.spoilt[:300],
            started_at=now,
            finished_at=now,
        )
        for number, row in enumerate(rows, start=first)
    ]
    session.add_all(runs)
    session.flush()
    session.add_all(
        RunEntry(run_id=run.id or 0, key=key, text=text[:200], system=system, source="a table", at=now)
        for run, row in zip(runs, rows, strict=True)
        for key, text in row.texts.items()
    )
    kept(session)


def save_entry(session: Session, run_id: int, key: str, entry: Entry) -> None:
    """Keep a text of a run as it was typed; it is on disk when this returns."""
    row = session.exec(select(RunEntry).where(RunEntry.run_id == run_id, RunEntry.key == key)).first()
    row = row or RunEntry(run_id=_checked(session, run_id), key=key, text="", system="")
    row.text, row.system, row.source, row.at = entry.text[:200], entry.system, entry.source[:60], _now()
    session.add(row)
    kept(session)


def save_note(session: Session, run_id: int, note: str) -> None:
    """Keep the note of a run."""
    run = run_row(session, run_id)
    run.note = note[:2000]
    _commit(session, run)


def tick(session: Session, run_id: int, key: str, *, on: bool) -> None:
    """Tick, or untick, what has been set back before a run."""
    run = run_row(session, run_id)
    ticked = [one for one in run.ticked.split(",") if one and one != key]
    run.ticked = ",".join([*ticked, key] if on else ticked)[:300]
    _commit(session, run)


def go_to_step(session: Session, run_id: int, step: int) -> None:
    """Take a run to a step; its clock is set back. The step behind the last one finishes the run."""
    run = run_row(session, run_id)
    last = len(steps(read_plan(trial_row(session, run.trial_id).plan)))
    run.step = min(max(step, 0), last - 1)
    run.clock_from, run.clock_before = None, 0.0
    run.started_at = run.started_at or _now()
    if step >= last:
        run.state, run.finished_at = DONE, _now()
    elif run.state != DONE:  # one that is done stays so while a figure of it is mended
        run.state, run.finished_at = RUNNING, None
    _commit(session, run)


def run_clock(session: Session, run_id: int, *, on: bool) -> None:
    """Start or stop the clock of a run's step."""
    run = run_row(session, run_id)
    if on and run.clock_from is None:
        run.clock_from = _now()
    elif not on and run.clock_from is not None:
        run.clock_before, run.clock_from = counted(run), None
    _commit(session, run)


def reset_clock(session: Session, run_id: int) -> None:
    """Set the clock of a run's step back to nothing."""
    run = run_row(session, run_id)
    run.clock_from, run.clock_before = None, 0.0
    _commit(session, run)


def pause(session: Session, run_id: int, *, on: bool) -> None:
    """Leave a run as it is, its clock stopped, or go on with it."""
    run = run_row(session, run_id)
    if on:
        run.clock_before, run.clock_from = counted(run), None
    run.state = PAUSED if on else RUNNING
    _commit(session, run)


def abort(session: Session, run_id: int, why: str) -> None:
    """Give a run up; what was read in it stays on record and does not count."""
    run = run_row(session, run_id)
    run.clock_before, run.clock_from = counted(run), None
    run.state, run.finished_at = ABORTED, _now()
    run.spoilt = (why or run.spoilt or "given up")[:300]
    _commit(session, run)


def spoil(session: Session, run_id: int, why: str) -> None:
    """Mark a run spoilt with a reason, or, with an empty one, let it count again."""
    run = run_row(session, run_id)
    run.spoilt = why[:300]
    if not why and run.state == ABORTED:
        run.state = RUNNING
    _commit(session, run)


def add_photo(session: Session, run_id: int, picture: bytes, words: str = "") -> int:
    """Keep a photo of a run; its id."""
    photo = RunPhoto(run_id=_checked(session, run_id), words=words[:200], picture=picture)
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
    kept(session)
    return photo.run_id


def _now() -> datetime:
    return datetime.now(UTC)


def _checked(session: Session, run_id: int) -> int:
    run_row(session, run_id)
    return run_id


def _commit(session: Session, row: TrialRun | RunPhoto) -> None:
    session.add(row)
    kept(session)
