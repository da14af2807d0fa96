"""What filters let past, and what becomes of dust inside the vacuum: tank, bag, filter, exhaust; size by size."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.components.elements import Element, InlineFilter
from fenwick.core.components.separator import Separator
from fenwick.core.components.vacuum import FilterMedium, Vacuum
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas.filtering import caked_penetration, clean_penetration, tank_drop_share
from fenwick.core.formulas.sizes import SIZES
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook


@dataclass(frozen=True)
class InVacuum:
    """Shares of each size of what enters [-], shape (60, n); they add up to what enters."""

    tank: Array
    bag: Array
    filter: Array
    exhaust: Array


def in_vacuum(entering: Array, vacuum: Vacuum, rules: RuleBook) -> InVacuum:
    """Split what enters the vacuum; a bag fills the tank, and takes its place.

    Parameters
    ----------
    entering : mass by size class, shape (k, n) [any unit]
    """
    rest, nothing = entering, np.zeros_like(entering)
    tank, bag, held = nothing, nothing, nothing
    if vacuum.bag is not None:
        past = rest * medium_penetration(vacuum.bag, rules)
        bag, rest = rest - past, past
    else:
        tank = rest * tank_drop_share(SIZES, rules["filter.tank-drop"])
        rest = rest - tank
    if vacuum.filter is not None:
        past = rest * medium_penetration(vacuum.filter, rules)
        held, rest = rest - past, past
    return InVacuum(tank, bag, held, rest)


def medium_penetration(medium: FilterMedium, rules: RuleBook) -> Array:
    """Share of each size that passes a filter or bag as it is loaded [-], shape (60, 1) or (60, n)."""
    return caked_penetration(clean_medium(medium.kind, rules), medium.load, rules["filter.cake"])


def clean_medium(kind: str, rules: RuleBook) -> Array:
    """Share of each size that passes a clean medium: paper, hepa or bag [-], shape (60, 1)."""
    if kind == "hepa":
        return np.asarray(np.ones_like(SIZES) * rules["hepa.passes"])
    return clean_penetration(SIZES, rules[f"{kind}.base"], rules[f"{kind}.size"], rules[f"{kind}.power"])


def passes_filters(parts: Sequence[Element], rules: RuleBook) -> Array:
    """Share of each size that passes the in-line filters among some parts [-]; 1 where there are none."""
    passes = np.asarray(1.0)
    for part in parts:
        if isinstance(part, InlineFilter):
            passes = passes * medium_penetration(part.medium, rules)
    return passes


def passes_before_stages(line: Line) -> list[Array]:
    """Share of each size that passes the in-line filters of the trunk ahead of each stage, and behind the last [-]."""
    runs: list[list[Element]] = [[]]
    for part in line.trunk:
        if isinstance(part, Separator | WetStage):
            runs.append([])
        else:
            runs[-1].append(part)
    return [passes_filters(run, line.rules) for run in runs]
