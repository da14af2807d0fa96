"""A line over hours of work, worked out once for each."""

from __future__ import annotations

from functools import lru_cache

from fenwick.core.hours.upkeep import Upkeep, upkeep
from fenwick.rig import Rig, build_line
from fenwick.rig.to_core.prices import prices_of


@lru_cache(maxsize=32)
def upkeep_of(rig: Rig, port: int, wanted: float, weekly: float | None) -> Upkeep | None:
    """How a rig ages at a port; None where the dust, its amount, the hood or a filter is not known.

    Parameters
    ----------
    rig : its gates as they stand while it works
    port : place among the leaves
    wanted : hours that a filter should last between cleanings [h]
    weekly : hours of work a week [h]; None: not known
    """
    return upkeep(build_line(rig), port, wanted, prices_of(rig), weekly)
