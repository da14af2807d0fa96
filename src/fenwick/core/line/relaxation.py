"""How far to go along each step of a repeated substitution: Aitken's rule, value by value.

What creeps towards its end by the same share of the way each time is taken there at once, what swings about it is held
back; both are told by comparing a step with the one before it. Steps are ratios, since the values are resistances.
"""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values

MAX_PASSES = 60
PATIENT_PASSES = 480  #: more, for what creeps towards a flow of next to nothing: a stage whose water holds the air back
BOLD_PASSES, CALM_PASSES = 40, 80  #: of them by turns
MOST_PASSES = MAX_PASSES + PATIENT_PASSES
STRAGGLING_PASSES = 20  #: after which steps and a node's momentum are held back
LEAST_TAKE, MOST_TAKE = 0.08, 2.5  #: of the step at hand, where it swings and where it creeps [-]
HELD_TAKE = 0.7  #: at most of it, once two values may be rocking one another [-]
BOLD_TAKE, CALM_TAKE = 30.0, 0.3
FARTHEST = 20.0  #: that a value is taken at once, as the logarithm of its ratio [-]
NO_STEP = 1e-9  #: below which a step says nothing [-]


class Relaxation:
    """The steps of one set of values that are put in again and again."""

    def __init__(self) -> None:
        self._take: Values = 1.0
        self._last: Array | None = None

    def next(self, used: Array, found: Array, most: float = MOST_TAKE) -> Array:
        """What to put in next; what is nothing, or becomes it, is taken as found.

        Parameters
        ----------
        used : what was put in, not below nothing, of any shape [any unit]
        found : what came out of it [the same unit]
        most : of a step that is taken at once: `HELD_TAKE` once two values that hang on one another in opposite ways
            may be rocking each other, `BOLD_TAKE` for those that go on and on by the same share [-]
        """
        there = (used > 0.0) & (found > 0.0)
        growth = np.log(np.divide(found, used, out=np.ones_like(found), where=there))
        return np.where(there, used * np.exp(self._taken(growth, most)), found)

    def _taken(self, step: Array, most: float) -> Array:
        if self._last is not None:
            tells = np.abs(self._last) > NO_STEP
            ratio = np.divide(step, self._last, out=np.zeros_like(step), where=tells)
            self._take = np.clip(self._take / np.maximum(1.0 - ratio, NO_STEP), LEAST_TAKE, most)
        self._last = step
        return np.clip(self._take * step, -FARTHEST, FARTHEST)


def most_taken(passes: int) -> float:
    """Of a step at once: less once values may be rocking one another, then more for what creeps, then little of all.

    Parameters
    ----------
    passes : so far [-]
    """
    if passes >= MAX_PASSES:
        return CALM_TAKE if _calm(passes) else BOLD_TAKE
    return HELD_TAKE if passes > STRAGGLING_PASSES else MOST_TAKE


def part_taken(passes: int) -> float:
    """Of what else is put in again from the pass before, the air's density above all.

    Parameters
    ----------
    passes : so far [-]
    """
    return CALM_TAKE if _calm(passes) else 1.0


def _calm(passes: int) -> bool:
    """Whether all goes in small steps."""
    return passes >= MAX_PASSES and (passes - MAX_PASSES) % (BOLD_PASSES + CALM_PASSES) >= BOLD_PASSES
