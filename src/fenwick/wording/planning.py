"""What one wants to know, what one has got, and which test tells it, in words."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from fenwick.core.bench.trials.plan import MASSES, WAYS
from fenwick.core.bench.trials.planning import GOALS, Proposal
from fenwick.wording.results import half_words
from fenwick.wording.say import Voice
from fenwick.wording.trials import CATCH_WORDS, WAY_WORDS, feed_words

#: what people want to know, as they ask it
GOAL_WORDS: Mapping[str, str] = {
    "kept": "How much does it keep?",
    "builds": "Which of two builds keeps more?",
    "changed": "Did the changed slot, disc or tube help?",
    "lean": "What does leaning cost?",
    "full": "From which level does the bin give dust back?",
    "dusts": "How does it do with another dust?",
    "hoses": "Is the other hose better?",
    "blocked": "Is a hose blocked?",
    "leaks": "Does it leak?",
    "tune": "What suction is there, to tune the line by?",
    "hood": "Does the hood catch more than before?",
    "air": "How dusty is the air, and for how long?",
    "dry": "Is it dry behind the wet stage?",
    "holds": "Which sealant holds better?",
}
assert set(GOAL_WORDS) == set(GOALS)

#: what would help, as a thing to get
MISSING_WORDS: Mapping[str, str] = {
    "scale": "a kitchen scale that shows 1 g",
    "fine": "a small scale that shows 0.1 g, for what gets past",
    "gauge": "a tube of water, or a gauge that shows 50 Pa",
    "monitor": "a particle monitor",
    "force": "a hanging scale",
    "time": "four times the time",
}


def test_time_words(minutes: float) -> str:
    """About how long."""
    if minutes < 60.0:
        return f"about {minutes:.0f} minutes"
    return f"about {minutes / 60.0:.1f} hours".replace(".0 ", " ")


def made_how_words(one: Proposal, voice: Voice, like: Sequence[str] = ()) -> str:
    """How a test is made: runs, what is fed, what is weighed.

    Parameters
    ----------
    like : what else may be weighed just as well for what gets past
    """
    plan = one.plan
    runs = f"{plan.repeats} run{'s' if plan.repeats > 1 else ''}{' of each' if plan.compares else ''}"
    said = [f"{runs}, {test_time_words(plan.minutes)}"]
    if WAYS[plan.way].feeds:
        said.append(f"{feed_words(plan, voice)}, fed over {plan.feed_seconds:.0f} s by a clock")
    if plan.way == MASSES:
        step = voice.figure(plan.setup.past_step, "weighed")
        others = "".join(f", or {CATCH_WORDS[catch]}" for catch in like)
        said.append(f"the bin weighed, and {CATCH_WORDS[plan.setup.catch]}{others} on the scale that shows {step}")
    return "; ".join(said)


def tells_words(one: Proposal, voice: Voice) -> str:
    """What it will be able to tell."""
    plan, hoped = one.plan, half_words(one.plan, one.plan.hoped, voice)
    if WAYS[plan.way].ordinal:
        return "Grades by eye: they can show which is darker, not by how much." if plan.compares else "A grade by eye."
    if one.reach is None:
        return "What it will tell depends on what is found: the model has no figure to expect."
    reach = half_words(plan, one.reach, voice)
    if not plan.compares:
        enough = "" if one.answers else f"; {hoped} would be worth knowing"
        return f"Leaves it at ± {reach}{enough}."
    if one.answers:
        return f"Shows a difference of {reach} or more."
    if one.needed is None:
        return f"Shows {reach} at the least; {hoped} cannot be shown this way."
    return f"Shows {reach} at the least; {hoped} would take {one.needed} runs of each."


def title_words(one: Proposal) -> str:
    """What it is read with."""
    return WAY_WORDS[one.plan.way]
