"""What the page of a plan shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.bench.trials.expect import Expected, expected_band
from fenwick.core.bench.trials.foresight import foresee
from fenwick.core.bench.trials.judge import HUGE, WITHIN
from fenwick.core.bench.trials.order import run_order
from fenwick.core.bench.trials.plan import WAYS, Plan
from fenwick.data.lines import LineState, line_names
from fenwick.data.variants import VariantLine
from fenwick.drawing.runs_chart import StateRow, render_runs, runs_scene
from fenwick.services.trials import StateBench, TrialBench, bench_of_states, workbench
from fenwick.web.kit.database import session
from fenwick.web.trials.plan_form import PlanForm, plan_form
from fenwick.wording.held import expected_words
from fenwick.wording.planning import test_time_words
from fenwick.wording.results import foresight_words, pair_words
from fenwick.wording.say import Voice
from fenwick.wording.trials import TEST_KINDS, TestWords, caution, resets_of


@dataclass(frozen=True)
class PlanView:
    """The page."""

    state: LineState
    form: PlanForm
    seed: int
    expects: list[tuple[str, str]]  #: (state, what the model expects of it)
    bands: Markup  #: the same, drawn
    kinds: dict[str, TestWords]
    tells: list[str]
    pairs: list[tuple[str, bool]]
    resets: list[str]
    order: list[tuple[int, str]]
    time: str
    caution: str


def plan_view(state: LineState, typed: Mapping[str, str], seed: int, system: str) -> PlanView:
    """Read the form and say what the test will be able to tell."""
    bench = workbench(state, system)
    form = plan_form(bench, line_names(session(), state.id), typed, seed)
    plan = form.plan
    trial = bench_of_states(session(), plan, bench, {k: VariantLine(line) for k, line in form.lines.items()})
    drawn = [None if one is None else expected_band(one) for one in trial.drawn]
    first = next((one for one in drawn if one is not None), None)
    other = next((one.value for one in drawn[1:] if one is not None), None)
    found = foresee(plan, None if first is None else first.value, bench.bin, bench.bulk_density(plan), other)
    return PlanView(
        state=state,
        form=form,
        seed=seed,
        kinds=TEST_KINDS,
        expects=expected_rows(trial, drawn),
        bands=_bands(trial, drawn),
        tells=foresight_words(plan, found, _said(plan, first, bench.voice), bench.voice),
        pairs=pair_words(found.pairs),
        resets=[words for _, words in resets_of(plan)],
        order=ordered_states(plan),
        time=test_time_words(plan.minutes),
        caution=caution(plan),
    )


def _said(plan: Plan, first: Expected | None, voice: Voice) -> str:
    return "" if plan.compares or first is None else expected_words(plan, first, voice)


def _bands(trial: TrialBench, drawn: Sequence[Expected | None]) -> Markup:
    """What the model expects of every state, drawn; empty where there is one only, or it cannot say."""
    plan = trial.plan
    if not plan.compares or all(one is None for one in drawn):
        return Markup()
    states = [StateRow(s.name, (), None, None, None, one) for s, one in zip(trial.states, drawn, strict=True)]
    quantity = WAYS[plan.way].quantity
    return render_runs(runs_scene(states, quantity, trial.voice, WITHIN.get(quantity, HUGE)))


def expected_rows(trial: TrialBench, drawn: Sequence[Expected | None]) -> list[tuple[str, str]]:
    """(state, what the model expects of it), so that a surprise is one; none where it can say nothing at all."""
    if all(one is None for one in drawn):
        return []
    return [
        (state.name, expected_words(trial.plan, one, trial.voice) if one is not None else _why_not(state))
        for state, one in zip(trial.states, drawn, strict=True)
    ]


def _why_not(state: StateBench) -> str:
    if state.bench is None:
        return "its line is no longer in the shop"
    return "not modelled" if state.told else "only named: choose its line, and the model speaks of it, too"


def ordered_states(plan: Plan) -> list[tuple[int, str]]:
    """(number, state) of every run in the order drawn."""
    order = run_order(len(plan.variants), plan.repeats, plan.seed)
    return [(number, plan.variants[variant]) for number, variant in enumerate(order, start=1)]
