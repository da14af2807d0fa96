"""What is measured at the first switch-on, as readings of the line, and what the line says each should be."""

from __future__ import annotations

from functools import lru_cache
from math import isfinite

from fenwick.core.errors import CoreError
from fenwick.core.line.line import Line
from fenwick.core.tuning.readings import BLOCKED, KEPT, Reading, expected, usual_sd
from fenwick.rig import Rig
from fenwick.rig.to_core.line import described_line

NOTE = "first switch-on"  #: by which its readings are known


def blocked_reading(rig: Rig, stage: str, suction: float) -> Reading:
    """Suction behind a separator with every hose shut by hand.

    Parameters
    ----------
    stage : id of the separator
    suction : as read [Pa]
    """
    return Reading(BLOCKED, suction, usual_sd(BLOCKED, suction), _open_port(described_line(rig)), stage)


def fed_reading(rig: Rig, in_bin: float, past: float) -> Reading:
    """What the bin kept of a weighed heap.

    Parameters
    ----------
    in_bin, past : what came down in the bin, and what got past it [kg]

    Raises
    ------
    ValueError
        When nothing was fed.
    """
    fed = in_bin + past
    if fed <= 0.0:
        raise ValueError("nothing was fed")
    return Reading(KEPT, in_bin / fed, usual_sd(KEPT, in_bin / fed), _open_port(described_line(rig)))


@lru_cache(maxsize=16)
def should_be(rig: Rig, reading: Reading) -> float | None:
    """What the line, as it is described, says a reading should be, SI; None where it cannot say."""
    try:
        found = float(expected(described_line(rig), [reading])[0, 0])
    except CoreError:
        return None
    return found if isfinite(found) else None


def _open_port(line: Line) -> str:
    """The tool that the line is drawn for."""
    return next((leaf.id for leaf in line.leaves if leaf.open), line.leaves[0].id)
