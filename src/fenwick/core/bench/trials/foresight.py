"""What a test as planned will be able to tell, before anything is read."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from fenwick.core.bench.trials.by_hand import BULK_SD
from fenwick.core.bench.trials.compare import sure_of_each
from fenwick.core.bench.trials.outcome import scales
from fenwick.core.bench.trials.plan import (
    CARRY,
    DEPTHS,
    DROP,
    FORCE,
    LEAK,
    LOOK,
    MASSES,
    RULER,
    SHEET,
    SUCTION,
    WAYS,
    Plan,
)
from fenwick.core.bench.trials.ranks import fewest
from fenwick.core.bench.trials.summary import SURE
from fenwick.core.components.bins import Bin
from fenwick.core.formulas.metrology import (
    difference_sd,
    repeats_needed,
    resolution_sd,
    separation_sd,
    smallest_difference,
    student,
)
from fenwick.core.rules import rule

#: shares that people want told apart [-]
PAIRS = ((0.80, 0.90), (0.90, 0.95), (0.95, 0.99), (0.99, 0.999))


@dataclass(frozen=True)
class SharePair:
    """Two shares kept that people want told apart."""

    one: float  #: [-]
    other: float  #: [-]
    can: bool  #: whether the plan can


@dataclass(frozen=True)
class Foresight:
    """In the unit of the outcome."""

    one: float | None  #: standard deviation of one run, instrument and scatter; None: not known
    half: float | None  #: half-width of the interval over the repeats
    smallest: float | None  #: difference of two lots that would show four times in five; None: not known, or one run
    repeats: int | None  #: of each, for the difference hoped for; None: more than fifty, or not known
    pairs: tuple[SharePair, ...]


def foresee(
    plan: Plan,
    expected: float | None,
    bin_: Bin | None = None,
    bulk_density: float | None = None,
    other: float | None = None,
) -> Foresight:
    """What the plan will be able to tell.

    Parameters
    ----------
    plan : of the test
    expected : outcome that the model expects, in its unit; None where it cannot say
    bin_, bulk_density : the bin and what lies in it [kg/m^3], for a ruler
    other : outcome that the model expects of the state that is set against it, in the same unit; None: not known
    """
    if plan.way == LOOK:
        return Foresight(rule("test.scatter-look").value, None, None, fewest(sure_of_each(len(plan.variants))), ())
    one = None if expected is None else _usual_run(plan, expected, other, bin_, bulk_density)
    asked = PAIRS if plan.way in (MASSES, RULER) else ()
    pairs = tuple(SharePair(a, b, _apart(plan, a, b, bin_, bulk_density)) for a, b in asked)
    if one is None:
        return Foresight(None, None, None, None, pairs)
    n = plan.repeats
    reach = float(student(SURE, n - 1 if n > 1 else 1e6))
    sure = sure_of_each(len(plan.variants))
    smallest = float(smallest_difference(one, n, sure)) if n > 1 else None
    needed = repeats_needed(one, plan.hoped, sure)
    return Foresight(one, reach * one / float(np.sqrt(n)), smallest, needed, pairs)


def _usual_run(
    plan: Plan, expected: float, other: float | None, bin_: Bin | None, bulk_density: float | None
) -> float | None:
    """Standard deviation of a run of either state: less of what scatters, scatters less."""
    if not plan.compares:
        return one_run(plan, expected, bin_, bulk_density)
    if other is None:  # as if it were better by as much as is worth knowing
        other = expected + (WAYS[plan.way].better or 1) * plan.hoped
        other = min(other, 1.0) if WAYS[plan.way].quantity == "share" else max(other, 0.0)
    sds = [one_run(plan, value, bin_, bulk_density) for value in (expected, other)]
    return None if sds[0] is None or sds[1] is None else float(np.sqrt(0.5 * (sds[0] ** 2 + sds[1] ** 2)))


def _apart(plan: Plan, a: float, b: float, bin_: Bin | None, bulk_density: float | None) -> bool:
    sds = [one_run(plan, share, bin_, bulk_density) for share in (a, b)]
    if sds[0] is None or sds[1] is None:
        return False
    both = float(np.sqrt(0.5 * (sds[0] ** 2 + sds[1] ** 2)))
    if plan.repeats > 1:
        return float(smallest_difference(both, plan.repeats, sure_of_each(len(plan.variants)))) <= b - a
    if plan.compares:
        return False  # one run of each is never judged
    # a single run beside what is usual: as if the usual scatter were known
    return float(student(SURE, 1e6)) * both * float(np.sqrt(2.0)) <= b - a


def one_run(plan: Plan, value: float, bin_: Bin | None = None, bulk_density: float | None = None) -> float | None:
    """Standard deviation of one run's outcome about the truth, instrument and usual scatter; None: not known.

    Parameters
    ----------
    value : what the run would come to, in the unit of its kind of test
    bulk_density : of the dust as it lies [kg/m^3]; None: not known
    """
    own = by_instrument(plan, value, plan.fed, bin_, bulk_density)
    return None if own is None else float(np.hypot(own, by_scatter(plan, value)))


def by_instrument(
    plan: Plan, value: float, fed: float, bin_: Bin | None = None, bulk_density: float | None = None
) -> float | None:
    """What the instrument alone leaves in one run's outcome, a standard deviation in its unit; None: not known.

    Parameters
    ----------
    value : what the run would come to, in the unit of its kind of test
    fed : in the run [kg]
    bulk_density : of the dust as it lies [kg/m^3]; None: not known
    """
    match plan.way:
        case "masses":
            kept, past = (float(difference_sd(s.resolution, s.repeat_sd)) for s in scales(plan))
            return float(separation_sd(fed * value, fed * (1.0 - value), kept, past))
        case "ruler":
            if bin_ is None or not bulk_density:
                return None
            area = float(bin_.area_at(0.5 * bin_.height))
            level = np.hypot(rule("test.level").value, resolution_sd(plan.setup.ruler_step)) / np.sqrt(DEPTHS)
            return float(np.sqrt(2.0) * area * float(level) * bulk_density / fed)
        case "pitch":
            return rule("test.pitch-sd").value
        case way:
            return _STEP[way](plan) if way in _STEP else 0.0


def by_scatter(plan: Plan, value: float) -> float:
    """How one run's outcome scatters as usual, whatever it is read with, a standard deviation in its unit.

    Parameters
    ----------
    value : what the run would come to, in the unit of its kind of test
    """
    match plan.way:
        case "masses":
            return _scatter("past") * (1.0 - value)
        case "ruler":
            return BULK_SD * value
        case "pitch":
            return 0.0
        case way:
            return _scatter(_SCATTER[way]) * value


def _scatter(key: str) -> float:
    return rule(f"test.scatter-{key}").value


_SCATTER = {
    SUCTION: "suction",
    DROP: "suction",
    LEAK: "suction",
    SHEET: "sheet",
    FORCE: "force",
    CARRY: "carry",
    "monitor": "air",
}
_STEP: dict[str, Callable[[Plan], float]] = {
    SUCTION: lambda plan: float(resolution_sd(plan.setup.gauge_step)),
    DROP: lambda plan: float(difference_sd(plan.setup.gauge_step)),
    LEAK: lambda plan: float(difference_sd(plan.setup.gauge_step)),
    SHEET: lambda plan: 0.5 / plan.setup.squares,
    FORCE: lambda plan: float(resolution_sd(plan.setup.force_step)),
    CARRY: lambda plan: float(difference_sd(plan.setup.past_step, plan.setup.repeat_sd)),
}
