"""What an hour at one tool uses of the lives of bin, filter, bag and tank: the figures of `upkeep`, and no others."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, one_value
from fenwick.core.hours.ageing import ageing_map, bin_hours
from fenwick.core.hours.lives import LONG, lives
from fenwick.core.hours.march import march
from fenwick.core.hours.upkeep import clean_filters, coated, own_bag, room_in
from fenwick.core.line.line import Line

SHARES = np.linspace(0.0, 2.0, 41)  #: of a filter's life, at which the dust on it is told [-]


@dataclass(frozen=True)
class Wear:
    """One tool, its port open alone, from clean filters; an hour count is inf where that never ends, or beyond."""

    bin: float | None  #: hours from the bin's floor to its mark [h]; None where that cannot be told
    filter: float  #: until the air is down by a quarter [h]
    bag: float  #: until the bag is full, or the air down by a quarter [h]; inf without one
    tank: float  #: until the vacuum's own tank is full [h]; inf with a bag
    left: tuple[float, ...]  #: of the filter's life that is over as it goes on after its n-th cleaning [-]
    held: Array  #: dust on the filter at `SHARES` of its life [kg]


def wear_of(line: Line, port: int) -> Wear | None:
    """What a line asks for while one port works; None where the dust, its amount, the hood or a filter is not known.

    Parameters
    ----------
    line : a single variant, its gates as that tool works
    port : place among the leaves of the tool [-]
    """
    mapped = ageing_map(line, port)
    if mapped is None:
        return None
    vacuum, bag = line.vacuum, own_bag(line.vacuum)
    filters = clean_filters(vacuum, bag)
    course = march(mapped, filters, LONG)
    found = lives(mapped, course, filters, room_in(vacuum, bag, mapped.rules), coated(vacuum))
    down, between = float(found.down[0]), found.between[:, 0]
    area = 0.0 if vacuum.filter is None else one_value(vacuum.filter.area)
    end = min(down, LONG)
    left = tuple(float(1.0 - one / between[0]) for one in between if one > 0.0) if between[0] > 0.0 else (0.0,)
    return Wear(
        bin=bin_hours(mapped, line),
        filter=down,
        bag=float(found.first[0]) if bag > 0.0 else np.inf,
        tank=float(found.tank_full[0]),
        left=left,
        held=area * np.interp(SHARES * end, course.hours, course.load[:, 0]),
    )
