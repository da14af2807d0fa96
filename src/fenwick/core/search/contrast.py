"""Two ways to build a line, draw by draw under the same assumptions: what differs, and whether the model can tell."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.doubt.uncertainty import SEED, WITHIN
from fenwick.core.line.line import Line
from fenwick.core.search.drawn import drawn_line

DRAWS = 600
FIGURES = ("kept", "air", "exhaust", "folding")
LEAST = {"kept": 0.002, "air": 1e-4, "exhaust": 2e-4, "folding": 0.05}  #: a difference worth telling, in its own unit


@dataclass(frozen=True)
class Shift:
    """One figure of two lines; 90 % of the draws lie between low and high."""

    figure: str  #: of FIGURES
    first: float  #: of the first line as it stands
    second: float  #: of the second line, likewise
    low: float  #: of the second less the first
    high: float

    @property
    def middle(self) -> float:
        """The second less the first, as they stand."""
        return self.second - self.first

    @property
    def matters(self) -> bool:
        """Whether some draw in the band moves the figure worth telling."""
        return max(abs(self.low), abs(self.high)) >= LEAST[self.figure]

    @property
    def told(self) -> bool:
        """Whether the model can tell the two apart."""
        return (self.low > 0.0 or self.high < 0.0) and abs(self.middle) >= LEAST[self.figure]


def outcomes(line: Line, port: int, draws: int = DRAWS, seed: int = SEED) -> dict[str, Array]:
    """Kept [-], air at a port [m^3/s], blown back out [-], folding over blocked suction [-]; each (1 + draws,).

    The first of each is the line as it stands. What the line's description does not allow is left out.

    Parameters
    ----------
    port : its place among the leaves of the line [-]
    draws : how many, besides the line as it stands [-]
    seed : of the chances drawn; the same one draws the same again [-]
    """
    drawn = drawn_line(line, draws, seed)
    judged = drawn.found
    kept, ends, weakest = judged.kept, judged.fate, judged.collapse
    found = {
        "air": judged.point.port_flow[port],
        "kept": kept,
        "exhaust": None if ends is None else ends.exhaust,
        "folding": weakest.ratio if weakest is not None and np.all(np.isfinite(weakest.ratio)) else None,
    }
    return {name: np.broadcast_to(v, (drawn.count,)) for name, v in found.items() if v is not None}


def contrast(first: Line, second: Line, port: int, draws: int = DRAWS, seed: int = SEED) -> tuple[Shift, ...]:
    """What the second line does otherwise than the first, for every figure both have.

    Parameters
    ----------
    first, second : single variants of one shop's line
    port : place of the tool among the leaves of both [-]
    draws, seed : of the Monte Carlo [-]
    """
    a, b = outcomes(first, port, draws, seed), outcomes(second, port, draws, seed)
    tail = (1.0 - WITHIN) / 2.0
    shifts = []
    for figure in FIGURES:
        if figure in a and figure in b:
            low, high = np.quantile((b[figure] - a[figure])[1:], [tail, 1.0 - tail])
            shifts.append(Shift(figure, float(a[figure][0]), float(b[figure][0]), float(low), float(high)))
    return tuple(shifts)
