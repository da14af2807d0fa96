"""A test judged with all that was read of it, a monitor's log included."""

from __future__ import annotations

from dataclasses import replace
from math import isfinite

import numpy as np

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
    found = []
    for run, row in zip(runs, trial.runs, strict=True):
        value = logged(row.id)
        found.append(run if value is None else replace(run, values={"log": value}))
    return found


def logged(run_id: int) -> float | None:
    """What a run's log says: dust over the baseline while cutting, mean over its cuts [kg/m^3]; None: nothing yet."""
    log_id = log_of_run(session(), run_id)
    if log_id is None:
        return None
    values = [cut.during for cut in log_state(session(), log_id).monitored.cuts if isfinite(cut.during)]
    return float(np.mean(values)) if values else None


def judged_trial(trial: TrialState, bench: Workbench) -> Judged:
    """The whole test."""
    return judge(trial.plan, runs_of(trial), bench.box, bench.bulk_density(trial.plan))
