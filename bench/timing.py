"""Timing of calls."""

from __future__ import annotations

import time
from collections.abc import Callable

import numpy as np


def best(call: Callable[[], object], repeats: int) -> float:
    """Shortest of several runs [s]: the least disturbed one."""
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        call()
        times.append(time.perf_counter() - start)
    return min(times)


def median(call: Callable[[], object], repeats: int) -> float:
    """Median of several runs [s]."""
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        call()
        times.append(time.perf_counter() - start)
    return float(np.median(times))
