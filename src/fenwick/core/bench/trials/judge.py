"""A test judged: each state over its repeats, every state against the first, and what was kept apart."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.bench.trials.compare import REAL, Comparison, compare, sure_of_each
from fenwick.core.bench.trials.outcome import RunOutcome, run_outcome
from fenwick.core.bench.trials.plan import WAYS, Plan
from fenwick.core.bench.trials.ranks import Ranked, compare_ranks
from fenwick.core.bench.trials.summary import Summary, summary
from fenwick.core.components.bins import Bin

#: least and most that an outcome can be, by its quantity
WITHIN = {"share": (0.0, 1.0), "suction": (-np.inf, np.inf)}
HUGE = (0.0, np.inf)


@dataclass(frozen=True)
class Run:
    """One run as it was read."""

    variant: int  #: place in the plan's variants
    values: Mapping[str, float]  #: by the keys of the way's asks; SI
    spoilt: str = ""  #: why it does not count; empty: it does
    done: bool = True


@dataclass(frozen=True)
class Lies:
    """Where a state's dust lies, for a ruler."""

    bin: Bin | None = None
    density: float | None = None  #: of the dust as it lies [kg/m^3]; None: not known


@dataclass(frozen=True)
class Judged:
    """What a test shows."""

    outcomes: tuple[RunOutcome, ...]  #: of every run, in their order
    counted: tuple[bool, ...]  #: which of them count
    states: tuple[Summary | None, ...]  #: of every variant; None: no run of it counts
    against_first: tuple[Comparison | Ranked | None, ...]  #: of every other variant; None: too few runs

    def values(self, runs: Sequence[Run], variant: int) -> list[float]:
        """Outcomes of one variant that count.

        Parameters
        ----------
        variant : its number in the plan [-]
        """
        return [
            float(one.value)
            for run, one, counts in zip(runs, self.outcomes, self.counted, strict=True)
            if counts and run.variant == variant and one.value is not None
        ]


def judge(plan: Plan, runs: Sequence[Run], lies: Sequence[Lies] = ()) -> Judged:
    """Judge a test; spoilt, unfinished and impossible runs are kept apart, never averaged in.

    Parameters
    ----------
    lies : where the dust of every state lies, in the order of the plan; those left out have no bin
    """
    there = [*lies, *[Lies()] * (len(plan.variants) - len(lies))]
    outcomes = tuple(run_outcome(plan, run.values, there[run.variant].bin, there[run.variant].density) for run in runs)
    counted = tuple(run.done and not run.spoilt and outcome.counts for run, outcome in zip(runs, outcomes, strict=True))
    within = WITHIN.get(WAYS[plan.way].quantity, HUGE)
    lots = [
        [one for run, one, counts in zip(runs, outcomes, counted, strict=True) if counts and run.variant == variant]
        for variant in range(len(plan.variants))
    ]
    values = [[float(one.value) for one in lot if one.value is not None] for lot in lots]
    sds = [[one.sd for one in lot] for lot in lots]
    states = tuple(summary(v, s, within) for v, s in zip(values, sds, strict=True))
    sure = sure_of_each(len(plan.variants))
    pairs = tuple(_against(plan, values[0], values[k], sds[0] + sds[k], sure) for k in range(1, len(lots)))
    return Judged(outcomes, counted, states, pairs)


def better(plan: Plan, found: Comparison | Ranked) -> int:
    """Whether a state is really better than the first (+1) or worse (−1); 0 where that is not shown, or no matter."""
    if found.verdict != REAL:
        return 0
    change = found.difference if isinstance(found, Comparison) else found.higher - 0.5
    return int(np.sign(change)) * WAYS[plan.way].better


def _against(
    plan: Plan, a: Sequence[float], b: Sequence[float], sds: Sequence[float], sure: float
) -> Comparison | Ranked | None:
    if WAYS[plan.way].ordinal:
        return compare_ranks(a, b, sure)
    reading = float(np.sqrt(np.mean(np.square(sds)))) if sds else 0.0
    return compare(a, b, reading, plan.hoped, sure)
