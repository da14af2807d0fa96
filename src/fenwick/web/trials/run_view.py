"""What the page of a run shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fenwick.core.bench.trials.outcome import run_outcome
from fenwick.core.bench.trials.plan import LEAK, PITCH, WAYS, Ask, Plan
from fenwick.core.bench.trials.steps import Step, steps
from fenwick.data.devices import DeviceState
from fenwick.data.trials import DONE, RunState, TrialState
from fenwick.services.trials import TrialBench, logged
from fenwick.trials.values import run_values, text_in
from fenwick.units import format_value, unit_label
from fenwick.web.kit.database import session
from fenwick.web.kit.pieces import Tick
from fenwick.wording.results import half_words
from fenwick.wording.say import Voice
from fenwick.wording.trials import (
    OUTCOME_WORDS,
    RUN_FAULTS,
    ask_words,
    caution,
    outcome_text,
    resets_of,
    run_step_words,
)

#: why a run is mostly spoilt
SPOILT = ("fed unevenly", "spilled", "the lid was open", "a hose came off", "weighed wrongly", "something else changed")


@dataclass(frozen=True)
class AskRow:
    """One figure of a step."""

    key: str
    label: str
    unit: str
    text: str
    needed: bool
    error: str
    source: str  #: device it came from
    place: str  #: what lies on a scale for it
    devices: list[DeviceState]  #: that could tell it
    choices: tuple[str, ...]


@dataclass(frozen=True)
class StepRow:
    """One step."""

    index: int
    key: str
    title: str
    what: str
    seconds: float | None
    asks: list[AskRow]
    place: str  #: behind, here or ahead
    told: str  #: figures of a step that lies behind


@dataclass(frozen=True)
class Weigh:
    """What is to be weighed out, in the user's unit."""

    out: str
    near: str  #: how near it must be
    unit: str


@dataclass(frozen=True)
class RunView:
    """The page."""

    trial: TrialState
    run: RunState
    variant: str
    rows: list[StepRow]
    here: StepRow
    last: bool
    clock: float
    resets: list[Tick]
    weigh: Weigh | None  #: in the step that weighs out
    outcome: str
    closes: str
    faults: tuple[str, ...]
    shut: bool  #: whether a motor is shut in it
    caution: str
    spoilt: tuple[str, ...]
    log_id: int | None
    devices: list[DeviceState]


def run_view(
    trial: TrialState,
    run: RunState,
    bench: TrialBench,
    devices: list[DeviceState],
    log_id: int | None,
    errors: Mapping[str, str] | None = None,
) -> RunView:
    """Prepare the page; `errors` are what is wrong with figures, by their keys."""
    plan = trial.plan
    values, wrong = run_values(plan, run.entries)
    wrong |= dict(errors or {})
    rows = [_step_row(i, step, plan, run, bench.voice, wrong, devices) for i, step in enumerate(steps(plan))]
    told = run_words(plan, run, values, bench)
    return RunView(
        trial=trial,
        run=run,
        variant=plan.variants[run.variant],
        rows=rows,
        here=rows[min(run.step, len(rows) - 1)],
        last=run.step >= len(rows) - 1,
        clock=run.clock,
        resets=[Tick(key, words, key in run.ticked) for key, words in resets_of(plan)],
        weigh=_weigh(plan, bench.voice.system) if rows[min(run.step, len(rows) - 1)].key == "weigh-feed" else None,
        outcome=f"{told.outcome} {OUTCOME_WORDS[plan.way]}" if told.outcome else "",
        closes=told.closes,
        faults=told.faults,
        shut=plan.way in (LEAK, PITCH),
        caution=caution(plan),
        spoilt=SPOILT,
        log_id=log_id,
        devices=[device for device in devices if device.kind in {ask.device for ask in WAYS[plan.way].asks}],
    )


def _weigh(plan: Plan, system: str) -> Weigh:
    out, about = (format_value(mass, "weighed", system, field=True) for mass in (plan.fed, plan.fed_within))
    return Weigh(out, about, unit_label("weighed", system))


@dataclass(frozen=True)
class RunWords:
    """A run in words; empty where there is nothing to tell."""

    outcome: str  #: what it came to so far
    closes: str  #: how much of the feed was found again
    faults: tuple[str, ...]  #: what is wrong with it


def run_words(plan: Plan, run: RunState, values: Mapping[str, float], bench: TrialBench) -> RunWords:
    """What a run came to so far."""
    if plan.way == "monitor":
        values = {**values, **logged(session(), [run.id])[run.id]}
    lies = bench.states[run.variant].lies
    outcome = run_outcome(plan, values, lies.bin, lies.density)
    faults = tuple(RUN_FAULTS[key] for key in outcome.faults if key != "missing" or run.state == DONE)
    if outcome.value is None:
        return RunWords("", "", faults)
    told = outcome_text(plan, outcome.value, bench.voice)
    if outcome.sd > 0.0 and not WAYS[plan.way].ordinal:
        told += f" ± {half_words(plan, outcome.sd, bench.voice)}"
    closes = outcome.found.closes if outcome.found else None
    found_again = "" if closes is None else f"{100.0 * closes:.1f} % of what was fed was found again"
    return RunWords(told, found_again, faults)


def _step_row(
    index: int,
    step: Step,
    plan: Plan,
    run: RunState,
    voice: Voice,
    wrong: Mapping[str, str],
    devices: list[DeviceState],
) -> StepRow:
    asks = [_ask_row(ask, plan, run, voice.system, wrong, devices) for ask in step.asks]
    title, what = run_step_words(plan, step.key, voice)
    place = "here" if index == run.step else "behind" if index < run.step or run.state == DONE else "ahead"
    told = ", ".join(f"{ask.label} {ask.text} {ask.unit}".strip() for ask in asks if ask.text)
    return StepRow(index, step.key, title, what, step.seconds, asks, place, told)


def _ask_row(
    ask: Ask, plan: Plan, run: RunState, system: str, wrong: Mapping[str, str], devices: list[DeviceState]
) -> AskRow:
    entry = run.entries.get(ask.key)
    return AskRow(
        ask.key,
        ask_words(plan, ask.key),
        unit_label(ask.quantity, system),
        text_in(entry, ask, system) if entry else "",
        ask.needed,
        wrong.get(ask.key, ""),
        entry.source if entry else "",
        plan.setup.catch if ask.place == "past" else ask.place,
        [device for device in devices if device.kind == ask.device],
        ask.choices,
    )
