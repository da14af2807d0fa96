"""Practice: a fault hidden in a simulated line, readings at a cost, and how a good hunt would have gone."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.bench.faults.hunt import LOOK, MINUTES, Case, Hunt, hunt, next_checks
from fenwick.core.bench.faults.kinds import FAULTS, HEALTHY, SYMPTOMS, symptom_likelihood
from fenwick.core.tuning.factors import FACTORS, tuned
from fenwick.core.tuning.readings import Reading, expected

STRAYS = 0.3  #: of what is believed possible, how far the hidden line strays from its description [-]
SURE_ENOUGH = 0.85  #: belief at which a good hunt stops [-]
MOST_MOVES = 6
WRONG_LOOK = 0.04  #: chance that a look deceives [-]


@dataclass(frozen=True)
class Puzzle:
    """A hidden fault."""

    case: Case
    fault: str
    degree: float
    symptoms: tuple[str, ...]  #: that are noticed
    seed: int


@dataclass(frozen=True)
class HuntMove:
    """One reading of a good hunt, and what is believed after it."""

    reading: Reading
    minutes: float
    suspect: str
    share: float


def set_puzzle(case: Case, seed: int) -> Puzzle:
    """Hide a fault by lot, as often as it happens; a sound line is never hidden. The same seed hides the same one.

    Parameters
    ----------
    seed : of the lot; the same one hides the same fault [-]
    """
    rng = np.random.default_rng(seed)
    hidden = [(one.fault, one.degree) for one in case.lines if one.fault != HEALTHY]
    counts = {key: sum(1 for other, _ in hidden if other == key) for key, _ in hidden}
    weights = np.array([FAULTS[key].prior / counts[key] for key, _ in hidden])
    fault, degree = hidden[int(rng.choice(len(hidden), p=weights / weights.sum()))]
    noticed = tuple(one for one in SYMPTOMS if rng.random() < symptom_likelihood(one, fault))
    return Puzzle(case, fault, degree, noticed, seed)


def take_reading(puzzle: Puzzle, reading: Reading) -> Reading:
    """What a reading of the hidden line shows, noise included; the same one always shows the same."""
    place = sum(ord(letter) for letter in "~".join((reading.kind, reading.port, reading.station, reading.dust)))
    rng = np.random.default_rng([puzzle.seed, place])
    if reading.kind == LOOK:
        seen = reading.station == puzzle.fault
        return replace(reading, value=float(seen != (rng.random() < WRONG_LOOK)))
    hidden = next(one.line for one in puzzle.case.lines if (one.fault, one.degree) == (puzzle.fault, puzzle.degree))
    strays = np.random.default_rng([puzzle.seed, 1])
    factors = {key: float(np.exp(STRAYS * one.spread * strays.standard_normal())) for key, one in FACTORS.items()}
    true = float(expected(tuned(hidden, factors), [reading])[0, 0])
    return replace(reading, value=max(true + reading.sd * float(rng.standard_normal()), 0.0))


def cost(readings: Sequence[Reading]) -> float:
    """Minutes that readings take."""
    return sum(MINUTES[reading.kind] for reading in readings)


def good_hunt(puzzle: Puzzle, candidates: Sequence[Reading]) -> tuple[HuntMove, ...]:
    """The reading that tells most for its time, each time, until the fault is sure enough."""
    taken: list[Reading] = []
    moves: list[HuntMove] = []
    found: Hunt = hunt(puzzle.case, taken, puzzle.symptoms)
    left = list(candidates)
    while left and len(moves) < MOST_MOVES and found.suspects[0].share < SURE_ENOUGH:
        checks = next_checks(puzzle.case, found, left)
        if not checks:
            break
        best = checks[0].reading
        left = [one for one in left if (one.kind, one.station) != (best.kind, best.station)]
        taken.append(take_reading(puzzle, best))
        found = hunt(puzzle.case, taken, puzzle.symptoms)
        leading = found.suspects[0]
        moves.append(HuntMove(taken[-1], MINUTES[best.kind], leading.fault, leading.share))
    return tuple(moves)
