"""A run of feeding followed while its bin fills: what is kept at every fill is worked out at once, for many lines.

The heap leans with the bin, so that a run may end with the dust at the outlet.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array, one_value, take_variants
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line

FEWEST, FILLS, STEPS = 4, 33, 40  #: heights of the dust looked at, and steps in which a run is followed
FINE = 257  #: heights of a bin at which its volume is looked up


@dataclass(frozen=True)
class Fills:
    """Heights of the dust in the first bin that a run may come to."""

    heights: Array  #: from where it begins up, shape (k,) [m]
    volumes: Array  #: below them, likewise [m^3]


def fills_of(line: Line, level: float | None, volume: float) -> Fills | None:
    """The fills that a run may come to; None where there is no bin to fill.

    Parameters
    ----------
    line : as it stands for the run, one or many variants of it
    level : share of the bin's height at which it begins [-]; None: as the line stands
    volume : of what is fed, as it lies [m^3]
    """
    if not line.separators or line.stages[0] is not line.separators[0]:
        return None
    bin_ = line.separators[0].bin
    begins = one_value(np.asarray(bin_.fill_height).flat[0]) if level is None else level * bin_.height
    begins = min(begins, bin_.height)
    every = np.linspace(begins, bin_.height, FINE)
    below = np.asarray(bin_.volume_to(every))
    ends = float(np.interp(below[0] + volume, below, every))
    share = (ends - begins) / bin_.height
    heights = np.linspace(begins, ends, int(np.clip(np.ceil(FILLS * share), FEWEST, FILLS)))
    return Fills(heights, np.asarray(bin_.volume_to(heights)))


def at_every_fill(line: Line, fills: Fills, count: int) -> Line:
    """The line's variants, each at every fill, one after the other.

    Parameters
    ----------
    count : how many variants the line has [-]
    """
    wide = take_variants(line, np.repeat(np.arange(count), fills.heights.size)) if line.variants > 1 else line
    stage = wide.separators[0]
    filling = stage.changed(bin=replace(stage.bin, fill_height=np.tile(fills.heights, count)))
    trunk = tuple(filling if part is stage else part for part in wide.trunk)
    return replace(wide, trunk=trunk)


def kept_when_filled(line: Line) -> tuple[Array, Array] | None:
    """(heights of the dust from the floor to the rim [m], what is kept there [-]), shape (k,) each, of a single line.

    None without a bin that fills, or where the model cannot say.
    """
    fills = fills_of(line, 0.0, np.inf)
    if fills is None:
        return None
    kept = assess(at_every_fill(line, fills, 1)).kept
    return None if kept is None else (fills.heights, np.broadcast_to(kept, fills.heights.shape))


def followed(kept: Array, fills: Fills, volume: float) -> Array:
    """Share kept of a whole run, of which every part is kept as it is at the fill that it meets, shape (n,) [-].

    Parameters
    ----------
    kept : at every fill, shape (n, k) [-]
    volume : of what is fed, as it lies [m^3]
    """
    a_step = volume / STEPS  # if all of it were kept
    there, whole = np.full(kept.shape[0], float(fills.volumes[0])), np.zeros(kept.shape[0])
    for _ in range(STEPS):
        middle = _at(kept, fills, there)
        middle = _at(kept, fills, there + 0.5 * a_step * middle)
        there, whole = there + a_step * middle, whole + middle
    return np.asarray(whole / STEPS)


def _at(kept: Array, fills: Fills, volume: Array) -> Array:
    """What is kept with so much in the bin, shape (n,): between two fills in a straight line, flat beyond the last."""
    volumes = fills.volumes
    upper = np.clip(np.searchsorted(volumes, volume), 1, volumes.size - 1)
    width = np.maximum(volumes[upper] - volumes[upper - 1], 1e-12)
    share = np.clip((volume - volumes[upper - 1]) / width, 0.0, 1.0)
    rows = np.arange(kept.shape[0])
    return np.asarray((1.0 - share) * kept[rows, upper - 1] + share * kept[rows, upper])
