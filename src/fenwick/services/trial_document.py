"""What a test shows as JSON: every state beside what the model expected of it, and what that says."""

from __future__ import annotations

from typing import Any

from sqlmodel import Session

from fenwick.core.bench.trials.compare import Comparison
from fenwick.core.bench.trials.expect import expected_band
from fenwick.core.bench.trials.held import Held, held_difference, held_states, what_it_says
from fenwick.core.bench.trials.plan import WAYS
from fenwick.core.bench.trials.ranks import Ranked
from fenwick.core.bench.trials.summary import Summary
from fenwick.data.lines import line_state
from fenwick.data.trials import trial_state
from fenwick.services.trials import judged_trial, trial_bench, workbench
from fenwick.units import METRIC, QUANTITIES
from fenwick.wording.held import says_words


def trial_document(session: Session, trial_id: int) -> dict[str, Any]:
    """A test with its states and what may be said of them, in SI.

    Raises
    ------
    NotFoundError
    """
    trial = trial_state(session, trial_id)
    bench = trial_bench(session, trial, workbench(line_state(session, trial.line_id), METRIC))
    judged, drawn = judged_trial(session, trial, bench), bench.drawn
    ordinal = WAYS[trial.plan.way].ordinal
    beside = (None,) * len(drawn) if ordinal else held_states(drawn, judged.states)
    counts = [len(judged.values(trial.judged_runs(), k)) for k in range(len(drawn))]
    return {
        "format": "fenwick-test",
        "version": 1,
        "title": trial.title,
        "kind": trial.plan.kind,
        "way": trial.plan.way,
        "unit": QUANTITIES[WAYS[trial.plan.way].quantity].stored_label,
        "fed_kg": trial.plan.fed if WAYS[trial.plan.way].feeds else None,
        "states": [
            {
                "name": state.name,
                "line": trial.line_of(k) if state.told else None,
                "runs": counts[k],
                "expected": None if drawn[k] is None else _band(drawn[k]),
                "found": _summary(judged.states[k]),
                "beside_model": _held(beside[k]),
            }
            for k, state in enumerate(bench.states)
        ],
        "against_first": [
            {
                **_compared(found),
                "beside_model": _held(held_difference(drawn[0], drawn[k], found, (judged.states[0], judged.states[k]))),
            }
            for k, found in enumerate(judged.against_first, start=1)
        ],
        "says": what_it_says(beside),
        "words": says_words(trial.plan, beside, trial.plan.variants),
    }


def _band(drawn: Any) -> dict[str, float]:
    band = expected_band(drawn)
    return {"value": band.value, "low": band.low, "high": band.high}


def _summary(found: Summary | None) -> dict[str, float | None] | None:
    return None if found is None else {"mean": found.mean, "low": found.low, "high": found.high}


def _held(found: Held | None) -> dict[str, Any] | None:
    if found is None:
        return None
    return {"off": found.off, "apart": found.apart, "verdict": found.verdict, "surer": found.surer}


def _compared(found: Comparison | Ranked | None) -> dict[str, Any]:
    if isinstance(found, Comparison):
        ends = {"difference": found.difference, "low": found.low, "high": found.high}
        return {**ends, "verdict": found.verdict, "repeats_needed": found.repeats}
    if isinstance(found, Ranked):
        return {"graded_higher": found.higher, "verdict": found.verdict}
    return {"verdict": None}
