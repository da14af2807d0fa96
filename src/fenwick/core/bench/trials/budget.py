"""What the uncertainty of a state's mean is made of, source by source (JCGM 100:2008)."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.bench.trials.outcome import RunOutcome, scales
from fenwick.core.bench.trials.plan import AFTER, BEFORE, MASSES, WAYS, Plan
from fenwick.core.bench.trials.summary import Summary
from fenwick.core.formulas.metrology import difference_sd

BIN, PAST, INSTRUMENT, SCATTER = "bin", "past", "instrument", "scatter"


@dataclass(frozen=True)
class DoubtSource:
    """One source."""

    key: str  #: bin, past, instrument or scatter
    sd: float  #: that it leaves in the mean, in the outcome's unit


def budget(
    plan: Plan, state: Summary, counted: Sequence[RunOutcome], values: Sequence[dict[str, float]]
) -> list[DoubtSource]:
    """Sources of a state's uncertainty, each as it stands in the mean; none for grades.

    Parameters
    ----------
    plan, state : of the test, and the state's repeats together
    counted, values : outcomes of the runs that count [unit of the kind of test], and what was read in them
    """
    if WAYS[plan.way].ordinal:
        return []
    found = _by_mass(plan, values) if plan.way == MASSES else [DoubtSource(INSTRUMENT, state.by_instrument)]
    if state.by_repeats is not None:
        found.append(DoubtSource(SCATTER, state.by_repeats))
    return [one for one in found if one.sd > 0.0 and counted]


def _by_mass(plan: Plan, values: Sequence[dict[str, float]]) -> list[DoubtSource]:
    """Both scales apart: the share follows the bin's mass by past/total², and what gets past by bin/total²."""
    n = len(values)
    kept, past = (
        np.array([one[f"{thing}_{AFTER}"] - one[f"{thing}_{BEFORE}"] for one in values]) for thing in ("bin", "past")
    )
    total = np.square(kept + past)
    by_bin, by_past = (float(difference_sd(one.resolution, one.repeat_sd)) for one in scales(plan))
    return [
        DoubtSource(BIN, float(np.sqrt(np.sum(np.square(past * by_bin / total)))) / n),
        DoubtSource(PAST, float(np.sqrt(np.sum(np.square(kept * by_past / total)))) / n),
    ]
