"""What every tool port of a line gets when it is open alone."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.dust.cakes import settled_point
from fenwick.core.line.line import Line
from fenwick.core.line.ports import alone_openings, with_openings


@dataclass(frozen=True)
class Alone:
    """Every port open alone, as far as there are gates to shut; arrays of shape (ports,)."""

    flow: Array  #: air at the tool, at room density [m^3/s]
    through: Array  #: the vacuum, at room density, leaks included [m^3/s]
    suction: Array  #: that the fan makes [Pa]


def each_alone(line: Line) -> Alone:
    """Every port of a single variant open alone, all in one batch."""
    point = settled_point(with_openings(line, {**alone_openings(line)}))
    ports = len(line.leaves)
    flow = np.diagonal(np.broadcast_to(point.port_flow, (ports, ports)))
    through = np.broadcast_to(point.mass_flow / point.room_density, (ports,))
    return Alone(np.asarray(flow), through, np.broadcast_to(point.suction, (ports,)))
