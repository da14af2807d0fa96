"""The factors by which a line may differ from its description, and the line with them applied.

Every factor is 1 for the line as described. Rules of thumb are scaled in the rule book, so that a tuned line is an
ordinary line: everything that solves, draws or judges a line takes it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array, Values, one_value
from fenwick.core.components.vacuum import MeasuredCurve
from fenwick.core.line.line import Line
from fenwick.core.rules import RULES
from fenwick.core.rules.book import Slopes


@dataclass(frozen=True)
class Factor:
    """One factor and what is believed of it before anything is read."""

    key: str
    title: str
    spread: float  #: standard deviation of its logarithm [-]
    rules: tuple[str, ...] = ()  #: of the rule table, scaled by it
    surer: tuple[str, ...] = ()  #: further rules that are the surer once it is known: they work through the same figure


def _keys(prefix: str) -> tuple[str, ...]:
    return tuple(rule.key for rule in RULES if rule.key.startswith(prefix))


FACTORS: dict[str, Factor] = {
    factor.key: factor
    for factor in (
        Factor("fan", "Suction of the fan", 0.10),
        Factor("roughness", "Roughness of the hoses", 0.50, tuple(k for k in _keys("wall.") if k != "wall.roughest")),
        Factor("entry", "Loss at the tool", 0.30, ("entry.reading",)),
        Factor("leak", "Leaks", 0.80, ("leak.reading", "bin.leak-reading", *_keys("closure."))),
        Factor("cake", "Cake on the filter", 0.50, ("filter.k2", "filter.k2-least", "filter.k2-most")),
        Factor("cut", "Cut size of the separator", 0.35, ("swirl.cut",)),
        Factor(
            "exchange",
            "What the bin gives back",
            0.45,
            ("bin.exchange-disc", "bin.exchange-cyclone", "bin.exchange-open"),
            ("bin.stir", "bin.stir-depth", "bin.leak-weight", "bin.leak-jet"),
        ),
    )
}


#: factors that no reading of a line tells, only a test of two ways on it
TESTED: dict[str, Factor] = {"slot": Factor("slot", "What its slots give back", 0.20, ("slot.loss",))}


def tuned(
    line: Line,
    factors: Mapping[str, Values],
    left: Mapping[str, float] | None = None,
    told: tuple[Slopes, ...] = (),
) -> Line:
    """The line with some factors applied; values may be arrays over variants.

    Parameters
    ----------
    line : as described
    factors : by their keys [-]
    left : of what was believed possible of a factor, the share that readings left [-]; absent: all of it
    told : what the readings tell of rules together, for the draws of bands

    Raises
    ------
    KeyError
        When there is no such factor.
    """
    rules: dict[str, Values] = {}
    for key, value in factors.items():
        for rule in (FACTORS | TESTED)[key].rules:
            rules[rule] = np.asarray(line.rules[rule]) * value
    surer = {rule: share for key, share in (left or {}).items() for rule in (*FACTORS[key].rules, *FACTORS[key].surer)}
    changed = replace(line, rules=line.rules.with_values(rules).narrowed(surer).told_by(told))
    if "fan" in factors:
        changed = _with_fan(changed, factors["fan"])
    return changed


def _with_fan(line: Line, factor: Values) -> Line:
    """Suction goes with the square of a fan's speed: a fan of so much more suction turns faster by its root."""
    curve = line.vacuum.curve
    speed = np.sqrt(np.asarray(factor, dtype=float))
    if isinstance(curve, MeasuredCurve):  # its points have no variant axis
        return replace(line, vacuum=replace(line.vacuum, curve=curve.at_speed(one_value(speed))))
    return replace(line, vacuum=replace(line.vacuum, curve=curve.at_speed(speed)))


def batches(line: Line) -> bool:
    """Whether many sets of factors of a line can be solved in one call."""
    return not isinstance(line.vacuum.curve, MeasuredCurve)


def spreads(keys: tuple[str, ...]) -> Array:
    """Standard deviations of the logarithms of some factors [-]."""
    return np.array([FACTORS[key].spread for key in keys])


LEAST_SPREAD = 1e-3  #: that readings can leave of a factor, so that it can still be drawn [-]


def prior_covariance(left: Mapping[str, float]) -> Array:
    """Covariance of the logarithms of all factors before anything is read, shape (k, k) [-].

    Parameters
    ----------
    left : of what was believed possible of a factor, the share that earlier readings left [-]; absent: all of it
    """
    spread = spreads(tuple(FACTORS)) * np.array([left.get(key, 1.0) for key in FACTORS])
    return np.asarray(np.diag(np.square(np.maximum(spread, LEAST_SPREAD))))
