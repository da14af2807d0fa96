"""What becomes of dust inside the vacuum: tank, bag, filter, exhaust; size by size."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.components.vacuum import Vacuum
from fenwick.core.formulas.filtering import tank_drop_share
from fenwick.core.line.filters import medium_penetration
from fenwick.core.rules import RuleBook


@dataclass(frozen=True)
class InVacuum:
    """Shares of each size of what enters [-], shape (60, n); they add up to what enters."""

    tank: Array
    bag: Array
    filter: Array
    exhaust: Array


def in_vacuum(entering: Array, sizes: Array, vacuum: Vacuum, rules: RuleBook) -> InVacuum:
    """Split what enters the vacuum; a bag fills the tank, and takes its place.

    Parameters
    ----------
    entering : mass by class of grains, shape (60 k, n) [any unit]
    sizes : of the classes, shape (60 k, 1) [m]
    """
    rest, nothing = entering, np.zeros_like(entering)
    tank, bag, held = nothing, nothing, nothing
    if vacuum.bag is not None:
        past = rest * medium_penetration(vacuum.bag, sizes, rules)
        bag, rest = rest - past, past
    else:
        tank = rest * tank_drop_share(sizes, rules["filter.tank-drop"])
        rest = rest - tank
    if vacuum.filter is not None:
        past = rest * medium_penetration(vacuum.filter, sizes, rules)
        held, rest = rest - past, past
    return InVacuum(tank, bag, held, rest)
