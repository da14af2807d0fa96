"""Hole plates worth trying on a vacuum, so that the readings spread over its curve as it is believed to be."""

from __future__ import annotations

from fenwick.core.arrays import one_value
from fenwick.core.formulas.fan import hole_plate_flow
from fenwick.core.line.line import Line

HOLE = 0.02  #: a hole that every drill box can make [m]
SHARES = (0.15, 0.35, 0.55, 0.75)  #: of the open flow, where a reading tells most [-]


def holes_worth_trying(line: Line) -> tuple[int, ...]:
    """How many holes of `HOLE` each plate should have, the fewest first; for a single variant."""
    density, curve = one_value(line.site.density), line.vacuum.curve
    counts = []
    for share in SHARES:
        flow = share * one_value(curve.open_flow)
        suction = one_value(curve.suction(flow, density))
        counts.append(round(flow / float(hole_plate_flow(HOLE, 1, suction, density))))
    return tuple(dict.fromkeys(count for count in counts if count >= 1))
