"""What a test shows, in words: honest about what it cannot."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.bench.trials.budget import DoubtSource
from fenwick.core.bench.trials.compare import CANNOT_SHOW, NOT_SHOWN, REAL, Comparison
from fenwick.core.bench.trials.foresight import Foresight, SharePair
from fenwick.core.bench.trials.judge import Judged, better
from fenwick.core.bench.trials.plan import LOOK, MASSES, RULER, WAYS, Plan
from fenwick.core.bench.trials.ranks import Ranked, fewest
from fenwick.core.bench.trials.summary import Summary, dry, nearly_all
from fenwick.units import format_value
from fenwick.wording.say import Voice
from fenwick.wording.trials import CATCH_WORDS, OUTCOME_WORDS, outcome_text

#: verdict to (badge, its state)
VERDICTS = {REAL: ("real", "ok"), NOT_SHOWN: ("not shown", "none"), CANNOT_SHOW: ("cannot be shown", "watch")}


def badge(plan: Plan, found: Comparison | Ranked | None) -> tuple[str, str] | None:
    """(verdict, its state) of the first comparison; None where there is none."""
    if found is None:
        return None
    words, state = VERDICTS[found.verdict]
    told = {1: (f"{words}: better", "ok"), -1: (f"{words}: worse", "act")}
    return told.get(better(plan, found), (words, state))


def percent(share: float) -> str:
    """A share as people say it."""
    return f"{100.0 * share:.1f}".removesuffix(".0")


def half_words(plan: Plan, half: float, voice: Voice) -> str:
    """A width in the outcome's unit; of shares in points."""
    way = WAYS[plan.way]
    if way.quantity == "share":
        return f"{100.0 * half:.1f} points" if half >= 0.0005 or half == 0.0 else f"{100.0 * half:.1g} points"
    # a width is told to two figures, or one finer than the outcome's own steps would be nothing
    return format_value(float(f"{half:.2g}"), way.quantity, voice.system, field=True, unit=True)


def state_words(plan: Plan, state: Summary, n: int, voice: Voice) -> str:
    """One state over its repeats."""
    mean = outcome_text(plan, state.mean, voice)
    if WAYS[plan.way].ordinal:
        return f"{mean} on average of {n}"
    if state.low is None or state.high is None:
        return f"{mean} ({n} run{'s' if n > 1 else ''}: neither the instrument's doubt nor any scatter is known)"
    runs = "one run: no scatter is known, this is the instrument alone" if n == 1 else f"{n} runs"
    low, high = outcome_text(plan, state.low, voice, unit=False), outcome_text(plan, state.high, voice)
    return f"{mean}, between {low} and {high} ({runs})"


def honest_words(plan: Plan, state: Summary, n: int) -> str:
    """What may be said of a share that looks like all of it; empty elsewhere."""
    if plan.way not in (MASSES, RULER) or not nearly_all(state) or state.low is None:
        return ""
    if n < 2:
        return (
            f"One run cannot carry “{percent(state.mean)} %”: say “at least {percent(state.low)} %”, "
            "of this dust, fed this way."
        )
    return (
        f"Say “at least {percent(state.low)} %, of this dust, at this flow, with this bin”. By mass the coarse dust "
        "decides; of what harms the lungs, far less may be kept."
    )


def verdict_words(plan: Plan, found: Comparison | Ranked | None, name: str, first: str, voice: Voice) -> str:
    """A state against the first."""
    if found is None:
        return f"“{name}” against “{first}” takes two runs of each that count."
    if isinstance(found, Ranked):
        return _ranked(found, name, first)
    size = half_words(plan, abs(found.difference), voice)
    low, high = (_signed(plan, end, voice) for end in (found.low, found.high))
    more = "more" if found.difference > 0.0 else "less"
    interval = f"between {low} and {high}"
    if found.verdict == REAL:
        good = {1: " — better", -1: " — worse"}.get(better(plan, found), "")
        effect = "" if found.effect is None else f"; {abs(found.effect):.1f} times what runs scatter by"
        return f"“{name}” is {size} {more} than “{first}”{good}: {interval}{effect}."
    seen = f"A difference of {size} was seen, {interval}: it may be chance."
    needed = f" {found.repeats} runs of each would show {half_words(plan, plan.hoped, voice)}." if found.repeats else ""
    if found.verdict == CANNOT_SHOW:
        least = half_words(plan, found.smallest, voice)
        return f"{seen} With this instrument and so few runs, less than {least} cannot be shown.{needed}"
    return f"{seen} A difference worth knowing of ({half_words(plan, plan.hoped, voice)}) would most likely have shown."


def _signed(plan: Plan, value: float, voice: Voice) -> str:
    sign = "+" if value > 0.0 else "−"
    return f"{sign}{half_words(plan, abs(value), voice)}"


def _way(found: Ranked) -> str:
    return "higher" if found.higher >= 0.5 else "lower"


def _pairs(found: Ranked) -> str:
    return percent(max(found.higher, 1.0 - found.higher))


def _ranked(found: Ranked, name: str, first: str) -> str:
    pairs = f"“{name}” was graded {_way(found)} than “{first}” in {_pairs(found)} of 100 pairs"
    if found.verdict == REAL:
        return f"{pairs}; chance alone does that in {100.0 * found.chance:.1f} of 100 tests."
    if found.verdict == CANNOT_SHOW:
        return f"{pairs}. So few grades cannot show anything: {fewest()} of each are the least."
    return f"{pairs}; chance alone does as much in {100.0 * found.chance:.0f} of 100 tests."


def foresight_words(plan: Plan, found: Foresight, expected: str, voice: Voice) -> list[str]:
    """What a plan will be able to tell, before anything is read, `expected` in words."""
    if plan.way == LOOK:
        return [_look_words(plan, found)]
    if found.one is None or found.half is None:
        return ["What it will tell depends on what is found: the line gives no figure to expect."]
    runs = "one run leaves" if plan.repeats == 1 else f"{plan.repeats} runs leave"
    about = f"The model expects {expected}; " if expected else ""
    scatter = ", if runs scatter as usual" if plan.repeats == 1 else ""
    first = f"{about}{runs} it at ± {half_words(plan, found.half, voice)}{scatter}."
    said = [f"{first[:1].upper()}{first[1:]}"]
    if plan.compares and found.smallest is None:
        said.append("One run of each shows no difference: two of each are the least.")
    if plan.compares and found.smallest is not None:
        said.append(f"A difference of {half_words(plan, found.smallest, voice)} or more would show.")
    if plan.compares:
        hoped = half_words(plan, plan.hoped, voice)
        if found.repeats is None:
            said.append(f"{hoped} cannot be shown this way, not even by fifty runs of each.")
        elif found.repeats > plan.repeats:
            said.append(f"To show {hoped} takes {found.repeats} runs of each.")
    return said


def _look_words(plan: Plan, found: Foresight) -> str:
    if not plan.compares:
        return "Grades have an order, no distance: of one state they say how it looks, nothing of how much is kept."
    if found.repeats is not None and plan.repeats < found.repeats:
        return f"So few looks can show nothing: from {found.repeats} of each they can show which is darker."
    return "Grades have an order, no distance: so many looks can show which state is darker, not by how much."


def pair_words(pairs: Sequence[SharePair]) -> list[tuple[str, bool]]:
    """(“90 from 95 %”, whether it can tell them apart)."""
    return [(f"{percent(pair.one)} from {percent(pair.other)} %", pair.can) for pair in pairs]


def budget_words(plan: Plan, sources: Sequence[DoubtSource], state: Summary, voice: Voice) -> list[tuple[str, str]]:
    """What the uncertainty of a state's mean owes to what: (source, standard uncertainty)."""
    if not sources:
        return []
    said = {
        "bin": "scale, bin, two weighings",
        "past": f"scale, {CATCH_WORDS[plan.setup.catch]}, two weighings",
        "instrument": "the instrument",
        "scatter": "scatter between runs, which holds the above too",
    }
    rows = [(said[one.key], half_words(plan, one.sd, voice)) for one in sources]
    rows.append(("in the mean: the larger of both", half_words(plan, state.sd, voice)))
    return rows


def whistle_words(heard: int, listened: int) -> str:
    """What a whistle says; empty where nobody listened."""
    if not listened:
        return ""
    if not heard:
        return "No whistle was heard: a leak may still be wide and quiet."
    return f"A whistle was heard in {heard} of {listened} runs: air comes in nearby. Feel along it with a wet hand."


def headline(plan: Plan, judged: Judged, voice: Voice) -> tuple[str, str]:
    """(figure, what it is) of the first state; of a test that compares the difference of the second."""
    found = judged.against_first[0] if judged.against_first else None
    if isinstance(found, Comparison):
        sign = "+" if found.difference > 0.0 else "−"
        return f"{sign}{half_words(plan, abs(found.difference), voice)}", OUTCOME_WORDS[plan.way]
    if isinstance(found, Ranked):
        return f"{_pairs(found)} of 100 pairs", f"graded {_way(found)}"
    state = judged.states[0]
    if state is None:
        return "", OUTCOME_WORDS[plan.way]
    return outcome_text(plan, state.mean, voice), OUTCOME_WORDS[plan.way]


def dry_words(state: Summary) -> str:
    """Whether it is dry behind a wet stage."""
    told = {
        True: "Dry behind the wet stage, as far as this scale can tell.",
        False: "Not dry behind it: water reaches the vacuum. Lower the water, or the flow, or add a catch behind it.",
    }
    unsure = "It cannot be told whether it is dry behind it: more runs, more water, or a finer scale."
    found = dry(state)
    return unsure if found is None else told[found]
