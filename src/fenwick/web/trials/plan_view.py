"""What the page of a plan shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fenwick.core.bench.trials.foresight import foresee
from fenwick.core.bench.trials.order import run_order
from fenwick.core.bench.trials.plan import Plan
from fenwick.data.lines import LineState
from fenwick.services.trials import Workbench, workbench
from fenwick.web.trials.plan_form import PlanForm, plan_form
from fenwick.wording.results import foresight_words, pair_words
from fenwick.wording.trials import (
    OUTCOME_WORDS,
    TEST_KINDS,
    TestWords,
    caution,
    outcome_text,
    resets_of,
)


@dataclass(frozen=True)
class PlanView:
    """The page."""

    state: LineState
    form: PlanForm
    seed: int
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
    form = plan_form(bench.line, bench.voice, bench.kinds, typed, seed)
    plan = form.plan
    expected = bench.expects(plan)
    found = foresee(plan, expected, bench.bin, bench.bulk_density(plan))
    return PlanView(
        state=state,
        form=form,
        seed=seed,
        kinds=TEST_KINDS,
        tells=foresight_words(plan, found, expected, bench.voice),
        pairs=pair_words(found.pairs),
        resets=[words for _, words in resets_of(plan)],
        order=ordered_states(plan),
        time=time_words(plan.minutes),
        caution=caution(plan),
    )


def expects_words(plan: Plan, expected: float | None, bench: Workbench) -> str:
    """What the model expects, so that a surprise is one."""
    if expected is None:
        return ""
    return f"The model expects {outcome_text(plan, expected, bench.voice)} {OUTCOME_WORDS[plan.way]}."


def ordered_states(plan: Plan) -> list[tuple[int, str]]:
    """(number, state) of every run in the order drawn."""
    order = run_order(len(plan.variants), plan.repeats, plan.seed)
    return [(number, plan.variants[variant]) for number, variant in enumerate(order, start=1)]


def time_words(minutes: float) -> str:
    """About how long."""
    if minutes < 60.0:
        return f"about {minutes:.0f} minutes"
    return f"about {minutes / 60.0:.1f} hours".replace(".0 ", " ")
