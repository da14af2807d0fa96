"""Choosing among many by several wishes at once."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array


def undominated(values: Array) -> npt.NDArray[np.bool_]:
    """Which of some points nobody beats [-], shape (n,): none is as good in every wish and better in one.

    Parameters
    ----------
    values : larger is better in every row, shape (wishes, n) [any unit]
    """
    left, points, at = np.arange(values.shape[1]), values.T, 0
    while at < len(points):
        beaten = np.all(points <= points[at], axis=1) & np.any(points < points[at], axis=1)
        points, left = points[~beaten], left[~beaten]
        at = int(np.sum(~beaten[:at])) + 1
    keep = np.zeros(values.shape[1], dtype=bool)
    keep[left] = True
    return keep


def weighted_score(values: Array, weights: Sequence[float]) -> Array:
    """Weighted mean of wishes, each against the span of its values [-], shape (n,), 0 … 1.

    Parameters
    ----------
    values : larger is better in every row, shape (wishes, n) [any unit]
    weights : of the wishes; all nothing counts as all alike [-]
    """
    low, high = values.min(axis=1, keepdims=True), values.max(axis=1, keepdims=True)
    share = np.where(high > low, (values - low) / np.where(high > low, high - low, 1.0), 1.0)
    heavy = np.asarray(weights, dtype=float) if any(weights) else np.ones(len(weights))
    return np.asarray(np.sum(heavy[:, None] * share, axis=0) / heavy.sum())
