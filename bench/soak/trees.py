"""Random trees at the bounds of the rig file: each is solved, or told why not in a sentence."""

from __future__ import annotations

import warnings
from dataclasses import dataclass, field
from multiprocessing import Pool

from bench.soak.rigs import random_rig
from fenwick.core.doubt.uncertainty import sureness
from fenwick.core.errors import CoreError
from fenwick.core.judging.assess import assess
from fenwick.rig import build_line


@dataclass
class Solved:
    """What came of it."""

    valid: int = 0
    solved: int = 0
    told: list[str] = field(default_factory=list)  #: could not be solved, and said so
    tracebacks: list[str] = field(default_factory=list)


def trees(count: int, banded: int, first: int = 0) -> Solved:
    """Solve so many valid trees, the first of them with their Monte Carlo."""
    found, seed = Solved(), first
    with Pool() as pool:
        while found.valid < count:
            jobs = [(one, one - first < 2 * banded) for one in range(seed, seed + 500)]
            for outcome in pool.imap_unordered(_solve, jobs, chunksize=20):
                _count(found, *outcome)
            seed += 500
    return found


def _count(found: Solved, seed: int, kind: str, words: str) -> None:
    found.valid += kind != "none"
    found.solved += kind == "solved"
    if kind == "told":
        found.told.append(f"{seed}: {words}")
    if kind == "traceback":
        found.tracebacks.append(f"{seed}: {words}")


def _solve(job: tuple[int, bool]) -> tuple[int, str, str]:
    seed, banded = job
    warnings.simplefilter("error")
    rig = random_rig(seed)
    if rig is None:
        return seed, "none", ""
    try:
        line = build_line(rig)
        assess(line)
        if banded:
            sureness(line)
    except CoreError as error:
        return seed, "told", str(error)
    except Exception as error:  # what nobody foresaw is what is sought
        return seed, "traceback", f"{type(error).__name__}: {error}"
    return seed, "solved", ""
