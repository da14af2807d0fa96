"""A test judged with all that was read of it, a monitor's log included."""

from __future__ import annotations

from dataclasses import replace

from fenwick.core.testing.judge import Judged, Run, judge
from fenwick.core.testing.plan import MONITOR
from fenwick.data.logs import log_state
from fenwick.data.trials import TrialState, log_of_run
from fenwick.web.database import session
from fenwick.web.trial.bench_of import Workbench


def runs_of(trial: TrialState) -> list[Run]:
    """The runs as the core judges them."""
    runs = trial.judged_runs()
    if trial.plan.way != MONITOR:
        return runs
    return [replace(run, values=logged(row.id)) for run, row in zip(runs, trial.runs, strict=True)]


def logged(run_id: int) -> dict[str, float]:
    """What a run's log says, by the keys of its way; empty: nothing yet."""
    log_id = log_of_run(session(), run_id)
    added = None if log_id is None else log_state(session(), log_id).monitored.added
    if added is None:
        return {}
    value, sd = added
    return {"log": value} if sd is None else {"log": value, "log_sd": sd}


def judged_trial(trial: TrialState, bench: Workbench) -> Judged:
    """The whole test."""
    return judge(trial.plan, runs_of(trial), bench.box, bench.bulk_density(trial.plan))
