"""The place Test: what has been tested, what is under way, and what could be tested."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.bench.trials.plan import RULER
from fenwick.data.lines import LineState
from fenwick.data.trials import DONE, LIVE, TrialState
from fenwick.services.trials import Workbench, bench_of_states, judged_trial
from fenwick.web.kit.database import session
from fenwick.web.kit.paging import Paging
from fenwick.wording.results import badge, headline, state_words
from fenwick.wording.trials import OUTCOME_WORDS, TestWords


@dataclass(frozen=True)
class TrialRow:
    """One test of the list."""

    id: int
    title: str
    on: str
    progress: str
    run: int | None  #: to go on with
    live: bool
    result: str
    badge: tuple[str, str] | None  #: (verdict, state)


@dataclass(frozen=True)
class HubView:
    """The page."""

    state: LineState
    rows: list[TrialRow]
    kinds: dict[str, TestWords]
    unreadable: list[str]  #: titles of tests that are there and cannot be read
    pages: Paging


def trial_row(trial: TrialState, own: Workbench) -> TrialRow:
    """A test in one row."""
    # only a ruler asks for another line than this one: its bin
    lines = trial.lines if trial.plan.way == RULER else {}
    bench = bench_of_states(session(), trial.plan, own, lines)
    judged = judged_trial(session(), trial, bench)
    done = sum(run.state == DONE for run in trial.runs)
    coming = trial.next_run
    first = judged.states[0]
    result = ""
    if first is not None:
        n = len(judged.values(trial.judged_runs(), 0))
        result = f"{state_words(trial.plan, first, n, bench.voice)} {OUTCOME_WORDS[trial.plan.way]}"
    if trial.plan.compares and judged.against_first[0] is not None:
        figure, of_what = headline(trial.plan, judged, bench.voice)
        result = f"{figure} {of_what}, {trial.plan.variants[1]} against {trial.plan.variants[0]}"
    elif trial.plan.compares and result:
        result = f"{trial.plan.variants[0]}: {result}"
    return TrialRow(
        trial.id,
        trial.title,
        trial.on,
        f"{done} of {len(trial.runs)} runs done",
        coming.id if coming else None,
        coming is not None and coming.state in LIVE,
        result,
        badge(trial.plan, judged.against_first[0] if judged.against_first else None),
    )
