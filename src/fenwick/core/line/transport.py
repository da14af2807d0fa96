"""Whether the air carries the dust, run by run."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint

SETTLES, MARGINAL, CARRIES = 0, 1, 2
CARRYING_WORDS = ("settles", "marginal", "carries")


@dataclass(frozen=True)
class Transport:
    """Carrying in every hose that an open port uses; arrays of shape (hoses, n)."""

    ids: tuple[str, ...]
    laden: tuple[bool, ...]  #: whether the hose carries the whole dust, ahead of any separator
    velocity: Array  #: [m/s]
    carrying: npt.NDArray[np.intp]  #: index into CARRYING_WORDS
    settles_below: float  #: [m/s]
    carries_above: float  #: [m/s]


def judge_carrying(velocity: Array, band: tuple[float, float]) -> npt.NDArray[np.intp]:
    """0 settles, 1 marginal, 2 carries, from the air speed and the dust's conveying band [m/s].

    Parameters
    ----------
    band : speeds at which dust begins to be carried, and is carried for certain [m/s]
    velocity : of the air [m/s]
    """
    return (velocity >= band[0]).astype(np.intp) + (velocity > band[1])


def transport(line: Line, point: OperatingPoint) -> Transport | None:
    """Judge every hose by the conveying velocity of the line's dust; None where the dust is not known."""
    if line.dust is None:
        return None
    stations = point.stations
    idle = line.idle_parts
    rows = [i for i, kind in enumerate(stations.kinds) if kind == "hose" and stations.ids[i] not in idle]
    first = next((i for i, kind in enumerate(stations.kinds) if kind == "separator"), len(stations.ids))
    velocity = stations.velocity[rows]
    return Transport(
        ids=tuple(stations.ids[i] for i in rows),
        laden=tuple(i < first for i in rows),
        velocity=velocity,
        carrying=judge_carrying(velocity, line.dust.conveying),
        settles_below=line.dust.conveying[0],
        carries_above=line.dust.conveying[1],
    )
