"""A plan as a document: written as JSON, and read again with everything checked."""

from __future__ import annotations

from functools import lru_cache
from math import isfinite, pi

from pydantic import TypeAdapter, ValidationError

from fenwick.core.bench.trials.plan import CATCHES, KINDS, MOST_REPEATS, MOST_VARIANTS, Condition, Plan
from fenwick.core.components.dust import DUSTS
from fenwick.rig.format.problems import Problem, RigError

_PLAN: TypeAdapter[Plan] = TypeAdapter(Plan)


def write_plan(plan: Plan) -> str:
    """The plan as JSON."""
    return _PLAN.dump_json(plan).decode()


@lru_cache(maxsize=512)
def read_plan(text: str) -> Plan:
    """The plan in a document.

    Raises
    ------
    RigError
        When it is no plan, or one that cannot be carried out.
    """
    try:
        plan = _PLAN.validate_json(text)
    except ValidationError as error:
        raise RigError((Problem("", f"the plan cannot be read: {error.errors()[0]['msg']}"),)) from error
    problems = plan_problems(plan)
    if problems:
        raise RigError(tuple(Problem(key, words) for key, words in problems.items()))
    return plan


def plan_problems(plan: Plan) -> dict[str, str]:
    """What cannot be in a plan, by the name of its field."""
    wrong: dict[str, str] = {}
    if plan.kind not in KINDS:
        wrong["kind"] = "There is no such test."
    elif plan.way not in KINDS[plan.kind].ways:
        wrong["way"] = "This test cannot be read that way."
    if not 1 <= plan.repeats <= MOST_REPEATS:
        wrong["repeats"] = f"From 1 to {MOST_REPEATS} runs of each."
    names = [name.strip().lower() for name in plan.variants]
    if not 1 <= len(names) <= MOST_VARIANTS:
        wrong["variants"] = f"From 1 to {MOST_VARIANTS} states can be compared."
    elif len(set(names)) < len(names) or not all(names):
        wrong["variants"] = "Each state needs a name of its own."
    wrong |= _not_positive(plan)
    wrong |= _not_standing(plan)
    setup = plan.setup
    if setup.catch not in CATCHES:
        wrong["catch"] = "Choose what is weighed."
    if setup.repeat_sd < 0.0:
        wrong["repeat_sd"] = "Cannot be below 0."
    if plan.feed_seconds > 3600.0:
        wrong["feed_seconds"] = "At most an hour."
    return wrong


def _not_standing(plan: Plan) -> dict[str, str]:
    wrong = {}
    if len(plan.conditions) > MOST_VARIANTS or not all(map(_can_stand, plan.conditions)):
        wrong["conditions"] = "A state leans by 0 to 90°, is filled to 0 to 100 %, and is fed a dust that is known."
    if plan.dust and plan.dust not in DUSTS:
        wrong["dust"] = "There is no such dust."
    return wrong


def _can_stand(one: Condition) -> bool:
    """Whether a state can stand as it says; a figure that is none cannot."""
    leans = one.lean is None or 0.0 <= one.lean <= 0.5 * pi + 1e-9
    filled = one.level is None or 0.0 <= one.level <= 1.0
    return leans and filled and (not one.dust or one.dust in DUSTS)


def _not_positive(plan: Plan) -> dict[str, str]:
    setup = plan.setup
    positive = {
        "hoped": plan.hoped, "fed": plan.fed, "feed_seconds": plan.feed_seconds, "bin_step": setup.bin_step,
        "past_step": setup.past_step, "ruler_step": setup.ruler_step, "gauge_step": setup.gauge_step,
        "force_step": setup.force_step, "squares": setup.squares,
    }  # fmt: skip
    return {key: "Must be above 0." for key, value in positive.items() if not (isfinite(value) and value > 0.0)}
