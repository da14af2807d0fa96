"""Chances drawn together: what readings have told of several rules at once ties their draws to one another.

A reading that several rules could explain leaves each of them nearly as unsure as before, and their sum very sure.
Drawn one by one they would give a band far wider than the reading itself.
"""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.rules.book import Slopes


def keys_told(told: tuple[Slopes, ...]) -> tuple[str, ...]:
    """Everything that readings tell something of, in the order in which it is first told."""
    return tuple(dict.fromkeys(key for row in told for key, _ in row))


@lru_cache(maxsize=64)
def tied(told: tuple[Slopes, ...]) -> Mapping[str, tuple[tuple[str, float], ...]]:
    """Of what each key's draw is made, so that all are drawn as the readings left them: (key, weight) of fresh draws.

    The weights are the symmetric root of the covariance (1 + GᵀG)⁻¹ of standard normal rules after readings with the
    slopes G: the root nearest to leaving every draw what it was.

    Parameters
    ----------
    told : slopes of the readings over their uncertainty, by one standard deviation of each rule [-]
    """
    keys = keys_told(told)
    if not keys:
        return {}
    slopes = np.array([[dict(row).get(key, 0.0) for key in keys] for row in told])
    _, strength, directions = np.linalg.svd(slopes, full_matrices=False)
    shrunk = 1.0 - 1.0 / np.sqrt(1.0 + np.square(strength))
    root = np.eye(len(keys)) - directions.T @ (shrunk[:, None] * directions)
    return {
        key: tuple((of, float(weight)) for of, weight in zip(keys, row, strict=True))
        for key, row in zip(keys, root, strict=True)
    }


def left_of(told: tuple[Slopes, ...], key: str) -> float:
    """Of the spread of a rule, the share that readings left to it, whatever the others are [-]."""
    weights = tied(told).get(key)
    return 1.0 if weights is None else float(np.sqrt(sum(weight**2 for _, weight in weights)))


SETTLED = 1e3  #: times surer than before: what is told more surely than that is told no better [-]


def few_rows(slopes: Array, keys: tuple[str, ...], least: float) -> tuple[Slopes, ...]:
    """What many readings tell, in as few rows as tell the same.

    Parameters
    ----------
    slopes : of the readings by the keys, shape (m, k) [-]
    least : of a row's length and of a slope in it, below which it tells nothing [-]
    """
    _, strength, directions = np.linalg.svd(np.asarray(slopes, dtype=float), full_matrices=False)
    rows = np.minimum(strength, SETTLED)[:, None] * directions
    found = []
    for row, length in zip(rows, strength, strict=True):
        if length >= least:
            found.append(tuple((k, round(float(v), 3)) for k, v in zip(keys, row, strict=True) if abs(v) >= least))
    return tuple(row for row in found if row)
