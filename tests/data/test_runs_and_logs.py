"""Runs, logs and devices as they are kept: every text at once, nothing half, what was taken away comes back."""

from __future__ import annotations

import numpy as np
import pytest
from sqlmodel import Session

from fenwick.air_log.cuts import BadCutsError, read_cuts, write_cuts
from fenwick.core.bench.trials.monitor import LONGEST_LOG
from fenwick.core.bench.trials.plan import MASSES, Plan
from fenwick.core.bench.trials.steps import steps
from fenwick.data import runs as kept_runs
from fenwick.data.air_logs import add_rows, begin_log, end_log, log_state, log_states, logs_of, remove_log, set_cuts
from fenwick.data.devices import add_device, device_state, devices_of, remove_device
from fenwick.data.lines import NotFoundError
from fenwick.data.trials import ABORTED, DONE, PAUSED, RUNNING, RunState, add_trial, remove_trial, run_state, trials_of
from fenwick.trials.values import Entry


@pytest.fixture
def run(session: Session) -> int:
    """The first run of a new test."""
    trial = add_trial(session, 1, Plan("separation", MASSES), "New")
    return next(one for one in trials_of(session, 1) if one.id == trial).runs[0].id


def state(session: Session, run: int) -> RunState:
    """Of a run."""
    return run_state(session, run)[1]


def test_a_text_is_kept_as_it_was_typed_and_the_last_one_counts(session: Session, run: int) -> None:
    for text in ("2143", "2143.", "2143.5 g", ""):
        kept_runs.save_entry(session, run, "bin_before", Entry(text, "metric", "scale"))
        assert state(session, run).entries["bin_before"].text == text
    kept_runs.save_entry(session, run, "bin_before", Entry("9" * 500, "inch", "s" * 100))
    entry = state(session, run).entries["bin_before"]
    assert (len(entry.text), len(entry.source), entry.system) == (200, 60, "inch")


def test_a_tick_is_set_and_taken_back_and_never_doubled(session: Session, run: int) -> None:
    for key in ("filter", "bin", "filter"):
        kept_runs.tick(session, run, key, on=True)
    assert sorted(state(session, run).ticked) == ["bin", "filter"]
    kept_runs.tick(session, run, "filter", on=False)
    kept_runs.tick(session, run, "never-ticked", on=False)
    assert list(state(session, run).ticked) == ["bin"]


@pytest.mark.parametrize(("to", "step"), [(-5, 0), (0, 0), (1, 1), (10_000, -1)])
def test_a_step_is_never_outside_the_run(session: Session, run: int, to: int, step: int) -> None:
    every = steps(Plan("separation", MASSES))
    kept_runs.go_to_step(session, run, to)
    now = state(session, run)
    assert now.step == step % len(every)
    assert now.state == (DONE if to >= len(every) else RUNNING)


def test_a_run_that_is_done_stays_so_while_a_figure_is_mended(session: Session, run: int) -> None:
    kept_runs.go_to_step(session, run, 10_000)
    kept_runs.go_to_step(session, run, 1)
    assert state(session, run).state == DONE
    kept_runs.spoil(session, run, "scale moved")
    assert state(session, run).spoilt == "scale moved"
    kept_runs.spoil(session, run, "")
    assert state(session, run).spoilt == ""


def test_a_clock_counts_on_after_a_stop_and_is_set_back_by_a_step(session: Session, run: int) -> None:
    kept_runs.go_to_step(session, run, 1)
    kept_runs.run_clock(session, run, on=True)
    kept_runs.run_clock(session, run, on=True)  # twice is once
    kept_runs.run_clock(session, run, on=False)
    stopped = state(session, run).clock
    assert stopped >= 0.0
    kept_runs.pause(session, run, on=True)
    assert state(session, run).state == PAUSED
    assert state(session, run).clock == stopped
    kept_runs.pause(session, run, on=False)
    kept_runs.go_to_step(session, run, 2)
    assert state(session, run).clock == 0.0


def test_a_run_given_up_says_why_and_can_be_taken_up_again(session: Session, run: int) -> None:
    kept_runs.abort(session, run, "")
    assert (state(session, run).state, state(session, run).spoilt) == (ABORTED, "given up")
    kept_runs.spoil(session, run, "")
    assert (state(session, run).state, state(session, run).spoilt) == (RUNNING, "")


def test_a_photo_is_kept_whole_and_thrown_away(session: Session, run: int) -> None:
    photo = kept_runs.add_photo(session, run, b"\xff\xd8picture", "cone of dust")
    assert kept_runs.photo_of(session, photo) == b"\xff\xd8picture"
    assert kept_runs.remove_photo(session, photo) == run
    for gone in (kept_runs.photo_of, kept_runs.remove_photo):
        with pytest.raises(NotFoundError):
            gone(session, photo)


def test_a_run_that_is_not_there_is_told(session: Session) -> None:
    with pytest.raises(NotFoundError):
        kept_runs.save_entry(session, 10**6, "bin_before", Entry("1", "metric", ""))
    with pytest.raises(NotFoundError):
        kept_runs.add_photo(session, 10**6, b"")


def test_a_test_taken_away_comes_back_with_its_runs(session: Session, run: int) -> None:
    trial = run_state(session, run)[0].id
    remove_trial(session, trial)
    assert trial not in [one.id for one in trials_of(session, 1)]
    remove_trial(session, trial, back=True)
    assert run in [one.id for t in trials_of(session, 1) if t.id == trial for one in t.runs]


def test_a_log_is_kept_as_it_was_read_and_put_in_order_when_looked_at(session: Session) -> None:
    log = begin_log(session, 1, "n" * 300)
    add_rows(session, log, [(20.0, 3e-8), (0.0, 1e-8), (10.0, 2e-8)], unreadable=2)
    add_rows(session, log, [])
    found = log_state(session, log)
    assert found.live
    assert len(found.name) == 120
    assert np.all(np.diff(found.log.time) > 0.0)
    end_log(session, log, "bench by the window")
    end_log(session, log)
    assert (log_state(session, log).live, log_state(session, log).notes) == (False, "bench by the window")


def test_cuts_are_kept_whole_however_many_there_are(session: Session) -> None:
    log = begin_log(session, 1, "many")
    add_rows(session, log, [(0.0, 1e-8), (LONGEST_LOG, 1e-8)])
    cuts = [(LONGEST_LOG - 2000.0 + i, LONGEST_LOG - 1999.5 + i) for i in range(1500)]
    set_cuts(session, log, cuts)
    assert log_state(session, log).cuts == tuple(cuts)
    set_cuts(session, log, [])
    assert log_state(session, log).cuts == ()


def test_a_cut_of_a_monitor_whose_clock_was_set_back_lies_before_its_log(session: Session) -> None:
    """It was switched off and on while it was being recorded, and counts from nothing again."""
    log = begin_log(session, 1, "power-cycled")
    add_rows(session, log, [(0.0, 1e-8), (10.0, 1e-8), (-90.0, 2e-8), (-80.0, 9e-8), (-70.0, 2e-8), (-60.0, 1e-8)])
    set_cuts(session, log, [(-85.0, -75.0)])
    found = log_state(session, log)
    assert found.cuts == ((-85.0, -75.0),)
    assert read_cuts(write_cuts(found.cuts)) == [(pytest.approx(-85.2), -75.0)]


def test_typed_cuts_that_no_log_can_hold_are_refused_in_words() -> None:
    assert read_cuts("") == read_cuts(" ; \n") == []
    assert read_cuts(write_cuts([(300.0, 330.0), (0.0, 6.0)])) == [(0.0, 6.0), (300.0, 330.0)]
    far = "9" * 308
    for text, why in (
        (f"0–{far}", "is no cut"),
        ("0–99999999", "beyond a week"),
        ("-99999999–0", "beyond a week"),
        ("6–5", "stops before it starts"),
        ("5–7; 6–8", "lie over each other"),
        ("²–3", "is no cut"),
    ):
        with pytest.raises(BadCutsError, match=why):
            read_cuts(text)


def test_a_log_taken_away_comes_back_and_one_of_no_line_is_refused(session: Session) -> None:
    log = begin_log(session, 1, "gone")
    assert remove_log(session, log) == 1
    assert log not in [one.id for one in logs_of(session, 1)]
    assert log_states(session, [log]) == {}
    with pytest.raises(NotFoundError):
        log_state(session, log)
    assert remove_log(session, log, back=True) == 1
    assert logs_of(session, 1)[0].id == log  # the newest first
    with pytest.raises(NotFoundError):
        begin_log(session, 99, "nowhere")


def test_a_device_taken_away_comes_back_as_it_was(session: Session) -> None:
    device = add_device(session, "n" * 90, "scale", "/dev/ttyUSB0", 2400, "g")
    found = device_state(session, device)
    assert (len(found.name), found.baud, found.unit) == (60, 2400, "g")
    remove_device(session, device)
    assert device not in [one.id for one in devices_of(session)]
    with pytest.raises(NotFoundError):
        device_state(session, device)
    remove_device(session, device, back=True)
    assert device_state(session, device) == found
    with pytest.raises(NotFoundError):
        remove_device(session, 10**6)
