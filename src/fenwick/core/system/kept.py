"""Shares by mass of what enters a stage, from shares of each size."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.system.capture import Capture
from fenwick.core.system.caught import caught_together
from fenwick.core.system.line import Line
from fenwick.core.system.separation import Separation
from fenwick.core.system.vacuum_path import passes_before_stages


def entering_dust(line: Line, captures: tuple[Capture, ...]) -> Array | None:
    """Dust that enters the first stage, by size, per dust made [-], shape (60, n).

    What the ports catch, or the dust as made where that is unknown or nothing is caught; None where the dust is.
    """
    if line.dust is None:
        return None
    together = caught_together(line, captures)
    if together is None:
        return line.dust.weights
    entering = line.dust.weights * together.caught
    return np.asarray(np.where(np.sum(entering, axis=0) > 0.0, entering, line.dust.weights))


def kept_share(entering: Array, kept: Array) -> Array:
    """Share by mass of what enters that is kept [-], shape (n,)."""
    fed = np.sum(entering, axis=0)
    return np.asarray(np.sum(entering * kept, axis=0) / np.maximum(fed, 1e-300))


def kept_by_stage(line: Line, stages: tuple[Separation, ...], captures: tuple[Capture, ...]) -> tuple[Array, ...]:
    """Kept share by mass of what enters each stage [-], each of shape (n,); empty for unknown dust."""
    entering = entering_dust(line, captures)
    if entering is None:
        return ()
    shares = []
    for stage, passes in zip(stages, passes_before_stages(line), strict=False):
        entering = entering * passes
        if stage.grades is None:
            continue
        shares.append(kept_share(entering, stage.grades.kept))
        entering = entering * (1.0 - stage.grades.kept)
    return tuple(shares)


def kept_in_all(shares: tuple[Array, ...]) -> Array | None:
    """What all stages together keep of what enters the first [-], shape (n,); None without any."""
    if not shares:
        return None
    past = 1.0 - shares[0]
    for share in shares[1:]:
        past = past * (1.0 - share)
    return np.asarray(1.0 - past)
