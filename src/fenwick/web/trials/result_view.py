"""What the page of a test shows: its runs, what they come to, and what may be said of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.arrays import Array
from fenwick.core.bench.trials.budget import budget
from fenwick.core.bench.trials.expect import Expected, expected_band
from fenwick.core.bench.trials.held import Held, held_difference, held_states
from fenwick.core.bench.trials.judge import HUGE, WITHIN, Judged
from fenwick.core.bench.trials.plan import CARRY, WAYS
from fenwick.core.bench.trials.steps import steps
from fenwick.core.components.separator import SlottedDisc
from fenwick.data.lines import LineState
from fenwick.data.trials import ABORTED, DONE, LIVE, WAITING, RunState, TrialState
from fenwick.drawing.runs_chart import RunMark, RunsScene, StateRow, render_runs, runs_scene
from fenwick.services.trials import SLOT, StateBench, TrialBench, judged_trial, trial_bench, workbench
from fenwick.trials.values import run_values
from fenwick.web.kit.database import session
from fenwick.web.trials.plan_form import plan_query
from fenwick.web.trials.plan_view import expected_rows
from fenwick.web.trials.run_view import run_words
from fenwick.wording.held import difference_words, held_words, says_words
from fenwick.wording.results import (
    badge,
    budget_words,
    dry_words,
    headline,
    honest_words,
    state_words,
    verdict_words,
    whistle_words,
)
from fenwick.wording.say import Voice
from fenwick.wording.trials import (
    TEST_KINDS,
    WAY_WORDS,
    ask_words,
    caution,
    resets_of,
    run_step_words,
)

RUN_WORDS = {WAITING: "to do", "running": "under way", "paused": "paused", DONE: "done", ABORTED: "given up"}


@dataclass(frozen=True)
class ShownRun:
    """One run."""

    id: int
    number: int
    variant: str
    state: str
    live: bool
    done: bool
    outcome: str
    closes: str
    faults: list[str]
    spoilt: str
    counts: bool
    note: str
    finished: str
    photos: tuple[tuple[int, str], ...]


@dataclass(frozen=True)
class HeldRow:
    """A state beside what was expected of it."""

    name: str
    words: str
    verdict: str


@dataclass(frozen=True)
class UsableState:
    """A state whose outcome its line can be tuned to."""

    variant: int  #: its place in the plan
    name: str
    line: str


@dataclass(frozen=True)
class SheetStep:
    """A step of a run on the sheet to print."""

    title: str
    what: str  #: to do
    asks: list[str]  #: figures
    seconds: float | None


@dataclass(frozen=True)
class ResultView:
    """The page."""

    state: LineState
    trial: TrialState
    kind: str
    way: str
    headline: str
    of_what: str
    badge: tuple[str, str] | None
    verdicts: list[str]
    states: list[tuple[str, str]]  #: (state, what it came to)
    honest: str
    scene: RunsScene | None
    chart: Markup
    expects: list[tuple[str, str]]  #: (state, what the model expects of it), where nothing has been read
    held: list[HeldRow]  #: what was found beside what was expected
    says: list[str]  #: of the difference, and what the test says of the model
    budgets: list[tuple[str, list[tuple[str, str]]]]
    rows: list[ShownRun]
    next_run: RunState | None
    apart: int
    usable: list[UsableState]
    not_usable: list[str]  #: why others are not
    changed: list[str]  #: lines that have been changed since
    tells_slots: bool  #: whether it can tell what the slots of the line give back
    resets: list[str]
    sheet: list[SheetStep]
    caution: str
    again: dict[str, str]  #: to plan the same again


def result_view(trial: TrialState, state: LineState, system: str) -> ResultView:
    """Judge the test and prepare the page."""
    bench = trial_bench(session(), trial, workbench(state, system))
    plan, voice = trial.plan, bench.voice
    judged = judged_trial(session(), trial, bench)
    counts = [len(judged.values(trial.judged_runs(), k)) for k in range(len(plan.variants))]
    figure, of_what = headline(plan, judged, voice)
    found = judged.against_first[0] if judged.against_first else None
    first = judged.states[0]
    rows = [_run_row(run, trial, judged, i, bench) for i, run in enumerate(trial.runs)]
    drawn = bench.drawn
    bands = [None if one is None else expected_band(one) for one in drawn]
    beside = held_states(drawn, judged.states) if not WAYS[plan.way].ordinal else (None,) * len(drawn)
    scene = _scene(trial, judged, bands, voice)
    honest = [honest_words(plan, one, n) for one, n in zip(judged.states, counts, strict=True) if one is not None]
    return ResultView(
        state=state,
        trial=trial,
        kind=TEST_KINDS[plan.kind].title,
        way=WAY_WORDS[plan.way],
        headline=figure,
        of_what=of_what,
        badge=badge(plan, found),
        verdicts=[
            verdict_words(plan, pair, name, plan.variants[0], voice)
            for pair, name in zip(judged.against_first, plan.variants[1:], strict=True)
        ],
        states=[
            (name, "nothing that counts yet" if one is None else state_words(plan, one, n, voice))
            for name, one, n in zip(plan.variants, judged.states, counts, strict=True)
        ],
        honest=next((words for words in honest if words), "")
        or (dry_words(first) if plan.way == CARRY and first is not None else "")
        or _whistles(trial, judged),
        scene=scene,
        chart=render_runs(scene),
        expects=expected_rows(bench, bands),
        held=[
            HeldRow(s.name, held_words(plan, one, voice), one.verdict)
            for s, one in zip(bench.states, beside, strict=True) if one is not None
        ],
        says=_says(bench, drawn, judged, beside),
        budgets=_budgets(trial, judged, bench),
        rows=rows,
        next_run=trial.next_run,
        apart=sum(row.done and not row.counts for row in rows),
        usable=usable(bench, judged),
        not_usable=not_usable(bench, judged),
        changed=[s.line_name or s.bench.state.rig.name for s in bench.states if s.changed and s.bench is not None],
        tells_slots=plan.kind == SLOT and any(_has_slots(s) for s in bench.states),
        resets=[words for _, words in resets_of(plan)],
        sheet=[
            SheetStep(
                *run_step_words(plan, step.key, voice), [ask_words(plan, ask.key) for ask in step.asks], step.seconds
            )
            for step in steps(plan)
        ],
        caution=caution(plan),
        again=plan_query(plan, {k: one.id for k, one in trial.lines.items() if not one.gone}, system),
    )  # fmt: skip


def _has_slots(state: StateBench) -> bool:
    line = None if state.bench is None else state.bench.line
    return line is not None and bool(line.stages) and isinstance(line.stages[0], SlottedDisc)


def _says(bench: TrialBench, drawn: Sequence[Array | None], judged: Judged, beside: Sequence[Held | None]) -> list[str]:
    """Every difference beside what was expected of it, and what the whole test says of the model."""
    plan, names = bench.plan, bench.plan.variants
    said = []
    for k, found in enumerate(judged.against_first, start=1):
        one = held_difference(drawn[0], drawn[k], found, (judged.states[0], judged.states[k]))
        if one is not None:
            said.append(difference_words(plan, one, names[k], names[0], bench.voice))
    return [words for words in (*said, says_words(plan, beside, names)) if words]


def usable(bench: TrialBench, judged: Judged) -> list[UsableState]:
    """The states whose outcome their line can be tuned to.

    Where states are only named, it is asked which of them is the line as it is described.
    """
    named = not any(state.told for state in bench.states[1:])
    return [
        UsableState(k, state.name, state.line_name or bench.own.state.rig.name)
        for k, (state, one) in enumerate(zip(bench.states, judged.states, strict=True))
        if one is not None and state.bench is not None and (state.told or named)
        and state.plan.condition(k).stands_as_its_line and state.bench.drawn(state.plan, k) is not None
    ]  # fmt: skip


def not_usable(bench: TrialBench, judged: Judged) -> list[str]:
    """Why states that have an outcome are no readings of a line."""
    said = []
    for k, (state, one) in enumerate(zip(bench.states, judged.states, strict=True)):
        if one is None:
            continue
        if state.bench is None:
            said.append(f"“{state.name}”: its line is no longer in the shop.")
        elif not state.plan.condition(k).stands_as_its_line:
            said.append(f"“{state.name}” leant for this test: no reading of a line that stands otherwise.")
    return said


def _budgets(trial: TrialState, judged: Judged, bench: TrialBench) -> list[tuple[str, list[tuple[str, str]]]]:
    """(state, what its uncertainty is made of)."""
    runs, found = trial.judged_runs(), []
    for k, name in enumerate(trial.plan.variants):
        state = judged.states[k]
        mine = [i for i, run in enumerate(runs) if judged.counted[i] and run.variant == k]
        if state is not None:
            outcomes, values = [judged.outcomes[i] for i in mine], [dict(runs[i].values) for i in mine]
            sources = budget(trial.plan, state, outcomes, values)
            if sources:
                found.append((name, budget_words(trial.plan, sources, state, bench.voice)))
    return found


def _whistles(trial: TrialState, judged: Judged) -> str:
    """What a whistle says in a test of leaks."""
    listened = [
        run.values["whistle"]
        for run, counts in zip(trial.judged_runs(), judged.counted, strict=True)
        if counts and "whistle" in run.values
    ]
    return whistle_words(int(sum(listened)), len(listened))


def _run_row(run: RunState, trial: TrialState, judged: Judged, i: int, bench: TrialBench) -> ShownRun:
    values, wrong = run_values(trial.plan, run.entries)
    told = run_words(trial.plan, run, values, bench)
    faults = [*told.faults, *(f"{ask_words(trial.plan, key)}: {words}" for key, words in wrong.items())]
    return ShownRun(
        run.id,
        run.number,
        trial.plan.variants[run.variant],
        RUN_WORDS[run.state],
        run.state in LIVE,
        run.state == DONE,
        told.outcome,
        told.closes,
        faults if run.state == DONE else [],
        run.spoilt,
        judged.counted[i],
        run.note,
        run.finished,
        run.photos,
    )


def _scene(trial: TrialState, judged: Judged, expected: Sequence[Expected | None], voice: Voice) -> RunsScene | None:
    plan = trial.plan
    states = []
    for k, name in enumerate(plan.variants):
        runs = tuple(
            RunMark(run.number, float(outcome.value), counts)
            for run, outcome, counts in zip(trial.runs, judged.outcomes, judged.counted, strict=True)
            if run.variant == k and outcome.value is not None and run.state == DONE
        )
        one = judged.states[k]
        ends = (None, None) if one is None or WAYS[plan.way].ordinal else (one.low, one.high)
        states.append(StateRow(name, runs, None if one is None else one.mean, *ends, expected[k]))
    quantity = WAYS[plan.way].quantity
    return runs_scene(states, quantity, voice, WITHIN.get(quantity, HUGE)) if any(s.runs for s in states) else None
