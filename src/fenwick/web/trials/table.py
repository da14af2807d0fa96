"""The runs of a test as rows of a table."""

from __future__ import annotations

from fenwick.core.bench.trials.plan import WAYS
from fenwick.data.trials import TrialState
from fenwick.trials.runs_csv import RunRow
from fenwick.trials.values import text_in


def rows_of(trial: TrialState, system: str) -> list[RunRow]:
    """The runs as rows of a table, in some units."""
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
