"""Practice: faults hidden in a simulated line, readings at a cost, and how a good hunt would have gone.

A fault that is named rightly is mended; where another one is hidden, the hunt goes on with what is left.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.bench.faults.hunt import LOOK, MINUTES, Case, Hunt, hunt, next_checks
from fenwick.core.bench.faults.kinds import FAULTS, HEALTHY, SYMPTOMS, FaultyLine, symptom_likelihood
from fenwick.core.errors import CoreError
from fenwick.core.line.line import Line
from fenwick.core.tuning.factors import FACTORS, tuned
from fenwick.core.tuning.readings import Reading, expected

SURE_ENOUGH = 0.85  #: belief at which a good hunt stops [-]
MOST_MOVES = 12  #: of a good hunt for one fault
PLAIN_SYMPTOM = 0.5  #: likelihood from which an easy hunt tells a symptom for certain [-]
TRIES = 40  #: to find a second fault that goes together with the first


@dataclass(frozen=True)
class Level:
    """How hard a hunt is."""

    strays: float  #: of what is believed possible, how far the hidden line strays from its description [-]
    deceives: float  #: chance that a look deceives [-]
    plain: bool = False  #: whether the fault is a gross one, and everything it usually shows is told
    faults: int = 1


EASY, USUAL, TWO = "easy", "usual", "two"
LEVELS: Mapping[str, Level] = {
    EASY: Level(0.0, 0.0, plain=True),
    USUAL: Level(0.3, 0.04),
    TWO: Level(0.3, 0.04, faults=2),
}


@dataclass(frozen=True)
class Puzzle:
    """What is hidden, or what is still left of it."""

    case: Case
    hidden: tuple[FaultyLine, ...]  #: faults, each with its degree, the first alone in the line
    line: Line  #: with all that is left
    symptoms: tuple[str, ...]  #: that are noticed
    seed: int
    level: str = USUAL
    mended: int = 0  #: how many have been mended

    @property
    def fault(self) -> str:
        """The first that is left."""
        return self.hidden[0].fault

    @property
    def faults(self) -> tuple[str, ...]:
        """All that are left."""
        return tuple(one.fault for one in self.hidden)


@dataclass(frozen=True)
class HuntMove:
    """One reading of a good hunt, and what is believed after it."""

    reading: Reading
    minutes: float
    suspect: str
    share: float


@dataclass(frozen=True)
class HuntStage:
    """A good hunt for one fault, to its end."""

    moves: tuple[HuntMove, ...]
    named: str  #: what it names
    alike: tuple[str, ...]  #: what it cannot tell from that; none where it is sure

    @property
    def minutes(self) -> float:
        """What it took [min]."""
        return sum(move.minutes for move in self.moves)


def set_puzzle(case: Case, seed: int, level: str = USUAL) -> Puzzle:
    """Hide faults by lot, as often as they happen; a sound line is never hidden. The same seed hides the same.

    Parameters
    ----------
    seed : of the lot; the same one hides the same [-]
    level : of LEVELS
    """
    rng, how = np.random.default_rng(seed), LEVELS[level]
    first = _drawn(case, rng, gross=how.plain)
    hidden: tuple[FaultyLine, ...] = (first,)
    line = first.line
    for _ in range(TRIES if how.faults > 1 else 0):
        other = _drawn(case, rng, gross=False)
        both = None if other.fault == first.fault else _together(line, other)
        if both is not None:
            hidden, line = (first, other), both
            break
    noticed = tuple(one for one in SYMPTOMS if _is_noticed(one, hidden, rng, plain=how.plain))
    return Puzzle(case, hidden, line, noticed, seed, level)


def _drawn(case: Case, rng: np.random.Generator, *, gross: bool) -> FaultyLine:
    hidden = [one for one in case.lines if one.fault != HEALTHY]
    if gross:  # the last degree of each is the worst
        hidden = list({one.fault: one for one in hidden}.values())
    counts = {one.fault: sum(1 for other in hidden if other.fault == one.fault) for one in hidden}
    weights = np.array([FAULTS[one.fault].prior / counts[one.fault] for one in hidden])
    return hidden[int(rng.choice(len(hidden), p=weights / weights.sum()))]


def _together(line: Line, other: FaultyLine) -> Line | None:
    """A line with a second fault; None where the two do not go together."""
    both = FAULTS[other.fault].change(line, other.degree)
    if both is None:
        return None
    try:
        expected(both, [Reading("sealed", 0.0, 1.0)])
    except CoreError:
        return None
    return both


def _is_noticed(symptom: str, hidden: Sequence[FaultyLine], rng: np.random.Generator, *, plain: bool) -> bool:
    missed = float(np.prod([1.0 - symptom_likelihood(symptom, one.fault) for one in hidden]))
    drawn = float(rng.random())
    return 1.0 - missed >= PLAIN_SYMPTOM if plain else drawn < 1.0 - missed


def is_right(puzzle: Puzzle, named: str) -> bool:
    """Whether a fault that is named is one of those that are left."""
    return named in puzzle.faults


def mend(puzzle: Puzzle, named: str) -> Puzzle | None:
    """What is left once a fault is mended; None: nothing."""
    left = tuple(one for one in puzzle.hidden if one.fault != named)
    if not left:
        return None
    return replace(puzzle, hidden=left, line=left[0].line, symptoms=(), mended=puzzle.mended + 1)


def take_reading(puzzle: Puzzle, reading: Reading) -> Reading:
    """What a reading of the hidden line shows, noise included; the same one always shows the same."""
    place = sum(ord(letter) for letter in "~".join((reading.kind, reading.port, reading.station, reading.dust)))
    how = LEVELS[puzzle.level]
    rng = np.random.default_rng([puzzle.seed, place, *([puzzle.mended] if puzzle.mended else [])])
    if reading.kind == LOOK:
        seen = reading.station in puzzle.faults
        return replace(reading, value=float(seen != (rng.random() < how.deceives)))
    strays = np.random.default_rng([puzzle.seed, 1])
    factors = {key: float(np.exp(how.strays * one.spread * strays.standard_normal())) for key, one in FACTORS.items()}
    true = float(expected(tuned(puzzle.line, factors), [reading])[0, 0])
    return replace(reading, value=max(true + reading.sd * float(rng.standard_normal()), 0.0))


def cost(readings: Sequence[Reading]) -> float:
    """Minutes that readings take."""
    return sum(MINUTES[reading.kind] for reading in readings)


def good_hunt(puzzle: Puzzle, candidates: Sequence[Reading]) -> tuple[HuntMove, ...]:
    """The reading that tells most for its time, each time, until the fault is sure enough or nothing parts the rest."""
    return good_stage(puzzle, candidates).moves


def good_stage(puzzle: Puzzle, candidates: Sequence[Reading]) -> HuntStage:
    """A good hunt for one fault of those that are left, to its end: the fault, or what it cannot tell from it.

    Parameters
    ----------
    puzzle : with what is left
    candidates : what could be read
    """
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
    leading = found.suspects[0]
    alike = () if leading.share >= SURE_ENOUGH else tuple(one.fault for one in found.named[1:])
    return HuntStage(tuple(moves), leading.fault, alike)


def good_stages(puzzle: Puzzle, candidates: Sequence[Reading]) -> tuple[HuntStage, ...]:
    """A good hunt for all that is hidden: what is named rightly is mended, then it goes on with what is left."""
    stages = []
    left: Puzzle | None = puzzle
    while left is not None:
        stage = good_stage(left, candidates)
        stages.append(stage)
        named = next((one for one in (stage.named, *stage.alike) if is_right(left, one)), None)
        if named is None:
            break
        left = mend(left, named)
    return tuple(stages)
