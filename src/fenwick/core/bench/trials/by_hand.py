"""Readings without instruments: a ruler in the bin, the pitch of the motor."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.components.bins import Bin
from fenwick.core.formulas.metrology import resolution_sd
from fenwick.core.rules import rule

BULK_SD = float(rule("test.bulk-sd").value)  #: of a bulk density that nobody has weighed [-]


@dataclass(frozen=True)
class Measured:
    """A figure and its standard uncertainty, in its own unit."""

    value: float
    sd: float


def volume_by_ruler(bin_: Bin, free: Sequence[float], ruler: float) -> Measured:
    """Dust in a bin from its free depth at some points [m^3].

    Parameters
    ----------
    bin_ : its profile
    free : from the rim down to the dust, at one point or more, best four [m]
    ruler : its smallest step [m]
    """
    heights = bin_.height - np.asarray(free, dtype=float)
    height = float(np.clip(np.mean(heights), 0.0, bin_.height))
    points = heights.size
    scatter = float(np.std(heights, ddof=1)) / np.sqrt(points) if points > 1 else 0.25 * float(bin_.diameter_at(height))
    sd_height = float(np.hypot(scatter, resolution_sd(ruler)))
    area = float(bin_.area_at(height))
    return Measured(float(bin_.volume_to(height)), area * sd_height)


def flow_share_by_pitch(open_pitch: float, blocked_pitch: float, now: float) -> Measured | None:
    """Rough share of its open flow that a vacuum passes, by its pitch [-]; None where the pitches cannot be.

    A universal motor speeds up as it is starved. The pitch is taken as a straight line between open and blocked, which
    is a rule of thumb, hence the wide uncertainty.

    Parameters
    ----------
    open_pitch, blocked_pitch, now : in one unit, such as Hz
    """
    if not 0.0 < open_pitch < blocked_pitch or now <= 0.0:
        return None
    share = (blocked_pitch - now) / (blocked_pitch - open_pitch)
    return Measured(float(np.clip(share, 0.0, 1.0)), rule("test.pitch-sd").value)
