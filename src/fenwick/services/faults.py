"""Hunts for a fault: what every fault would show on a line, remembered for as long as the line stays as it is."""

from __future__ import annotations

from functools import lru_cache

from fenwick.core.bench.faults.hunt import Case
from fenwick.core.tuning.factors import prior_covariance
from fenwick.rig import Rig, build_line


@lru_cache(maxsize=8)
def case_of(rig: Rig) -> Case:
    """A line with every fault it can have."""
    left = rig.tuning.left if rig.tuning and rig.tuning.on else {}
    return Case.of(build_line(rig), prior_covariance(left))
