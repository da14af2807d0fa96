"""Comparing grades, which have an order but no distance: by ranks, over every way the runs could have fallen."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import comb

import numpy as np
from scipy import stats

from fenwick.core.bench.trials.compare import CANNOT_SHOW, NOT_SHOWN, REAL, SURE

MOST_WAYS = 20_000  #: beyond which chance picks among them


@dataclass(frozen=True)
class Ranked:
    """B against A."""

    higher: float  #: share of the pairs in which B is graded higher, ties counted by half [-]
    chance: float  #: of a difference as great where there is none [-]
    verdict: str  #: real, not-shown or cannot-show


def compare_ranks(a: Sequence[float], b: Sequence[float], sure: float = SURE) -> Ranked | None:
    """Two lots of grades (a permutation test of the Mann–Whitney statistic); None where one has fewer than two.

    Parameters
    ----------
    a, b : grades of the runs [-]
    sure : that nothing is called real that is not [-]
    """
    if len(a) < 2 or len(b) < 2:
        return None
    one, two = np.asarray(a, dtype=float), np.asarray(b, dtype=float)
    higher = _higher(one, two)
    if np.ptp(np.concatenate([one, two])) == 0.0:
        chance = 1.0
    else:
        found = stats.permutation_test(
            (one, two), _higher, n_resamples=MOST_WAYS, alternative="two-sided", rng=np.random.default_rng(0)
        )
        chance = float(found.pvalue)
    if chance <= 1.0 - sure:
        return Ranked(higher, chance, REAL)
    least = 2.0 / comb(one.size + two.size, one.size)
    return Ranked(higher, chance, CANNOT_SHOW if least > 1.0 - sure else NOT_SHOWN)


def _higher(a: np.ndarray, b: np.ndarray) -> float:
    return float(np.mean((b[None, :] > a[:, None]) + 0.5 * (b[None, :] == a[:, None])))


def fewest(sure: float = SURE) -> int:
    """Fewest repeats of each from which grades can show anything at all [-].

    Parameters
    ----------
    sure : wanted probability of being right [-]
    """
    return next(n for n in range(2, 20) if 2.0 / comb(2 * n, n) <= 1.0 - sure)
