"""What a test is used for elsewhere: as readings of the line, as rows of a table."""

from __future__ import annotations

from fenwick.core.testing.expect import readings_of_test
from fenwick.core.testing.plan import WAYS
from fenwick.core.tuning.readings import Reading
from fenwick.data.trials import TrialState
from fenwick.trial.runs_csv import RunRow
from fenwick.trial.values import text_in
from fenwick.web.trial.bench_of import Workbench
from fenwick.web.trial.judging import judged_trial, runs_of
from fenwick.web.units import unit_system


def readings_from(trial: TrialState, variant: int, bench: Workbench) -> list[Reading]:
    """A state's outcome as readings that the line can be tuned to; none where it has no outcome."""
    if not 0 <= variant < len(trial.plan.variants):
        return []
    judged = judged_trial(trial, bench)
    state = judged.states[variant]
    if state is None:
        return []
    counted = [
        run.values
        for run, counts in zip(runs_of(trial), judged.counted, strict=True)
        if counts and run.variant == variant
    ]
    return readings_of_test(trial.plan, bench.places, state, counted)


def rows_of(trial: TrialState) -> list[RunRow]:
    """The runs as rows of a table, in this request's units."""
    system = unit_system()
    asks = {ask.key: ask for ask in WAYS[trial.plan.way].asks}
    return [
        RunRow(
            run.variant,
            {key: text_in(entry, asks[key], system) for key, entry in run.entries.items() if key in asks},
            run.note,
            run.spoilt,
            run.state,
        )
        for run in trial.runs
    ]
