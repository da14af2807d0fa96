"""The order of runs: shuffled in blocks, so that what drifts with the day falls on every variant alike."""

from __future__ import annotations

import numpy as np


def run_order(variants: int, repeats: int, seed: int) -> tuple[int, ...]:
    """Variant of every run: each block holds every variant once, in an order of chance.

    Parameters
    ----------
    variants : how many [-]
    repeats : of each [-]
    seed : the same one gives the same order [-]
    """
    rng = np.random.default_rng(seed)
    return tuple(int(i) for _ in range(repeats) for i in rng.permutation(variants))
