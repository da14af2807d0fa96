"""Tests of a line as the services judge them: what can be read where, what is expected, what becomes a reading."""

from __future__ import annotations

import pytest
from sqlmodel import Session

from fenwick.core.bench.trials.plan import KINDS, MASSES, Plan
from fenwick.core.tuning.candidates import READ_AT
from fenwick.data.lines import line_state
from fenwick.data.trials import add_run, add_trial, trial_state, trials_of
from fenwick.services.trials import (
    Workbench,
    judged_trial,
    logged,
    readings_from,
    runs_of,
    trial_bench,
    workbench,
)
from fenwick.units import INCH, METRIC


@pytest.fixture
def bench(session: Session) -> Workbench:
    """The demo line's."""
    return workbench(line_state(session, 1), METRIC)


def test_suction_is_read_only_where_a_gauge_can_be_put(bench: Workbench) -> None:
    assert bench.places
    assert all(bench.kinds[name] in READ_AT for name in bench.places)
    order = list(bench.kinds)
    assert [order.index(name) for name in bench.places] == sorted(order.index(name) for name in bench.places)


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_what_the_model_expects_is_a_share_a_ratio_or_nothing(bench: Workbench, kind: str) -> None:
    for way in KINDS[kind].ways:
        expected = bench.expects(Plan(kind, way))
        assert expected is None or expected == expected  # a number, or not said at all


def test_the_expected_does_not_depend_on_the_units_it_is_shown_in(session: Session) -> None:
    state = line_state(session, 1)
    for kind in KINDS.values():
        plan = Plan(kind.key, kind.ways[0])
        assert workbench(state, METRIC).expects(plan) == workbench(state, INCH).expects(plan)


def test_a_test_that_has_not_been_run_has_no_outcome_and_gives_no_reading(session: Session, bench: Workbench) -> None:
    trial = trial_state(session, add_trial(session, 1, Plan("separation", MASSES), "New"))
    judged = judged_trial(session, trial, trial_bench(session, trial, bench))
    assert all(state is None for state in judged.states)
    assert readings_from(session, trial, 0, trial_bench(session, trial, bench)) == []


def test_a_run_begun_and_not_read_counts_for_nothing(session: Session, bench: Workbench) -> None:
    number = add_trial(session, 1, Plan("separation", MASSES), "New")
    add_run(session, number, 0)
    trial = trial_state(session, number)
    assert len(runs_of(session, trial)) == trial.plan.repeats + 1  # one more than was planned
    assert not any(judged_trial(session, trial, trial_bench(session, trial, bench)).counted)
    assert readings_from(session, trial, 0, trial_bench(session, trial, bench)) == []


@pytest.mark.parametrize("variant", [-1, 7, 10_000])
def test_a_state_that_a_test_does_not_have_gives_no_reading(session: Session, bench: Workbench, variant: int) -> None:
    for trial in trials_of(session, 1):
        assert readings_from(session, trial, variant, trial_bench(session, trial, bench)) == []


def test_every_run_of_the_demo_is_judged_once_and_in_its_order(session: Session) -> None:
    judged_some = False
    for line_id in (1, 2, 3):
        bench = workbench(line_state(session, line_id), METRIC)
        for trial in trials_of(session, line_id):
            judged = judged_trial(session, trial, trial_bench(session, trial, bench))
            assert len(judged.counted) == len(trial.runs)
            assert len(judged.states) == len(trial.plan.variants)
            judged_some = judged_some or any(judged.counted)
    assert judged_some


def test_readings_of_a_test_can_be_put_to_its_line(session: Session) -> None:
    taken = 0
    for line_id in (1, 2, 3):
        bench = workbench(line_state(session, line_id), METRIC)
        for trial in trials_of(session, line_id):
            for variant in range(len(trial.plan.variants)):
                for reading in readings_from(session, trial, variant, trial_bench(session, trial, bench)):
                    assert reading.sd > 0.0
                    assert not reading.station or reading.station in bench.places
                    taken += 1
    assert taken > 0


def test_runs_without_a_log_say_nothing_yet(session: Session) -> None:
    assert logged(session, []) == {}
    runs = [run.id for trial in trials_of(session, 1) for run in trial.runs]
    assert set(logged(session, runs)) == set(runs)


def test_of_a_dust_of_its_own_a_plan_knows_how_it_lies(bench: Workbench) -> None:
    assert bench.bulk_density(Plan("separation", MASSES)) == bench.line.dust.bulk_density  # type: ignore[union-attr]
    other = bench.bulk_density(Plan("separation", MASSES, dust="planer"))
    assert other is not None
    assert other > 0.0
