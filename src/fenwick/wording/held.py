"""What a test found beside what the model expected, in words: how far off it was, and what that says."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.bench.trials.expect import Expected
from fenwick.core.bench.trials.held import AGREES, ALIKE, HIGHER, HOLDS, LOWER, MIXED, NOT_SURE, ONE, Held, what_it_says
from fenwick.core.bench.trials.plan import DROP, LEAK, MASSES, RULER, SUCTION, Plan
from fenwick.wording.results import half_words
from fenwick.wording.say import Voice
from fenwick.wording.trials import OUTCOME_WORDS, outcome_text

#: state of a verdict on the page
HELD_STATES = {AGREES: "ok", HIGHER: "watch", LOWER: "watch", NOT_SURE: "none"}
HELD_BADGES = {
    AGREES: "within its doubt",
    HIGHER: "more than expected",
    LOWER: "less than expected",
    NOT_SURE: "not sure",
}
#: where to look when a state is off: (less than expected, more than expected)
WHERE_TO_LOOK: dict[str, tuple[str, str]] = {
    MASSES: (
        "a leak below the separator, a heap that reaches its outlet, or a dust finer than the one described",
        "a tighter bin, or a coarser dust, than the one described",
    ),
    SUCTION: (
        "a leak, an open port, a tired fan or a cake on the filter nearer the vacuum",
        "a hose that is blocked or kinked ahead of the place, or a fan stronger than described",
    ),
    DROP: ("a leak ahead of the hose, or less air than described", "a blockage, a kink or a rougher wall"),
    LEAK: ("joints that are tighter than described", "a joint that leaks more than described"),
}
NOT_AS_DESCRIBED = "something that is not as described"
WHERE_TO_LOOK[RULER] = WHERE_TO_LOOK[MASSES]


def expected_words(plan: Plan, found: Expected, voice: Voice) -> str:
    """A figure with what is believed of it: “75.4 % (52.4 to 86.6)”."""
    low, high = outcome_text(plan, found.low, voice, unit=False), outcome_text(plan, found.high, voice, unit=False)
    return f"{outcome_text(plan, found.value, voice)} ({low} to {high})"


def held_words(plan: Plan, one: Held, voice: Voice) -> str:
    """One state: how far off it was, beside what both are unsure of."""
    size = half_words(plan, abs(one.off), voice)
    side = "more" if one.off > 0.0 else "less"
    found = outcome_text(plan, one.found, voice)
    told = f"{found} found, {expected_words(plan, one.expected, voice)} expected"
    if one.verdict == NOT_SURE:
        return f"{told}: how sure the test is is not known."
    if one.verdict == AGREES:
        within = f"{size} {side}, within what both are unsure of" if abs(one.off) > 0.0 else "the same"
        return f"{told}: {within}."
    return f"{told}: {size} {side}, {abs(one.apart):.1f} times what both are unsure of."


def difference_words(plan: Plan, one: Held, name: str, first: str, voice: Voice) -> str:
    """The difference of two states, beside what was expected of it."""
    low = _signed(plan, one.expected.low, voice).removesuffix(" points")
    high = _signed(plan, one.expected.high, voice)
    said = f"Of “{name}” against “{first}” the model expected {_signed(plan, one.expected.value, voice)}"
    told = f"{said} ({low} to {high}); {_signed(plan, one.found, voice)} was found"
    if one.verdict == AGREES:
        if one.expected.low <= 0.0 <= one.expected.high and abs(one.found) > 0.0:
            return f"{told}: the model could not have said which is ahead."
        return f"{told}: the model had the difference right."
    if one.verdict == NOT_SURE:
        return f"{told}."
    if one.expected.value * one.found < 0.0:
        return f"{told}: the other way round than the model has it."
    small = abs(one.found) > abs(one.expected.value)
    return f"{told}: the model has the difference too {'small' if small else 'large'}."


def _signed(plan: Plan, value: float, voice: Voice) -> str:
    sign = "+" if value > 0.0 else "−" if value < 0.0 else "±"
    return f"{sign}{half_words(plan, abs(value), voice)}"


def says_words(plan: Plan, states: Sequence[Held | None], names: Sequence[str]) -> str:
    """What the whole test says of the model; empty where it says nothing yet."""
    told = [(one, name) for one, name in zip(states, names, strict=True) if one is not None and one.verdict != NOT_SURE]
    off = [(one, name) for one, name in told if one.verdict != AGREES]
    says = what_it_says(states)
    if says == HOLDS:
        if not any(one.surer for one, _ in told):
            return "Nothing here speaks against the model, and it is the surer of the two."
        return (
            "Nothing here speaks against the model, and the test is the surer: taken as a reading, it narrows what is "
            "believed."
        )
    if says == ALIKE:
        shared = _look(plan, off[0][0])
        return f"All states lie off alike, so that it is something they share: {shared}. {_shared(plan)}"
    if says == ONE:
        one, name = off[0]
        others = " The others are as expected." if len(told) > 1 else ""
        which = f"“{name}”" if plan.compares else "The line"
        return f"{which} is not as it is described: look for {_look(plan, one)}.{others}"
    if says == MIXED:
        each = "; ".join(f"{_look(plan, one)} (“{name}”)" for one, name in off)
        return f"The states lie off differently: look at each for {each}"
    return ""


def _look(plan: Plan, one: Held) -> str:
    less, more = WHERE_TO_LOOK.get(plan.way, (NOT_AS_DESCRIBED, NOT_AS_DESCRIBED))
    return more if one.off > 0.0 else less


def _shared(plan: Plan) -> str:
    if plan.way in (MASSES, RULER):
        return "Of their difference that takes little away."
    return f"Their difference in {OUTCOME_WORDS[plan.way]} tells less of it."
