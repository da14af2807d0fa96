"""Two ways to build a line, draw by draw under the same assumptions: what differs, and whether the model can tell."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.rules import rule
from fenwick.core.system.capture import capture
from fenwick.core.system.fate import fate
from fenwick.core.system.kept import entering_dust
from fenwick.core.system.line import Line
from fenwick.core.system.operating import operating_point
from fenwick.core.system.separation import Grades, separations
from fenwick.core.system.strength import folding_suction
from fenwick.core.system.uncertainty import SEED, WITHIN, by_model, spread_values, vary

DRAWS = 600
FIGURES = ("kept", "air", "exhaust", "folding")
LEAST = {"kept": 0.002, "air": 1e-4, "exhaust": 2e-4, "folding": 0.05}  #: a difference worth telling, in its own unit


@dataclass(frozen=True)
class Shift:
    """One figure of two lines; 90 % of the draws lie between low and high."""

    figure: str  #: of FIGURES
    first: float  #: median of the first line
    second: float  #: median of the second line
    low: float  #: of the second less the first
    middle: float
    high: float

    @property
    def matters(self) -> bool:
        """Whether some draw in the band moves the figure worth telling."""
        return max(abs(self.low), abs(self.high)) >= LEAST[self.figure]

    @property
    def told(self) -> bool:
        """Whether the model can tell the two apart."""
        return (self.low > 0.0 or self.high < 0.0) and abs(self.middle) >= LEAST[self.figure]


def outcomes(line: Line, port: int, draws: int = DRAWS, seed: int = SEED) -> dict[str, Array]:
    """Kept [-], air at a port [m^3/s], blown back out [-], folding over blocked suction [-]; each of shape (draws,).

    What the line's description does not allow is left out.
    """
    varied, _, models = vary(line, draws, seed)
    knock = spread_values(rule("shell.knock-down"), np.random.default_rng(seed).standard_normal(draws))
    varied = replace(varied, rules=varied.rules.with_values({"shell.knock-down": knock}))
    point = operating_point(varied)
    found = {"air": np.broadcast_to(point.port_flow[port], (draws,))}
    captures = capture(varied, point)
    chosen = []
    entering = fed = entering_dust(varied, captures)
    for stage in separations(varied, point):
        _, kept = by_model(stage, models)
        if kept is not None and entering is not None:
            entering = entering * (1.0 - kept)
            assert stage.grades is not None
            whole = Grades(stage.grades.cut_size, kept, np.ones_like(kept))
            stage = replace(stage, grades=whole, others={})
        chosen.append(stage)
    if fed is not None and entering is not None and chosen:
        share = 1.0 - np.sum(entering, axis=0) / np.maximum(np.sum(fed, axis=0), 1e-300)
        found["kept"] = np.broadcast_to(share, (draws,))
    ends = fate(varied, captures, tuple(chosen))
    if ends is not None:
        found["exhaust"] = np.broadcast_to(ends.exhaust, (draws,))
    if varied.separators:
        folds = folding_suction(varied.separators[0], varied)
        if folds is not None and np.all(np.isfinite(folds)):
            found["folding"] = np.broadcast_to(folds / point.sealed_suction, (draws,))
    return found


def contrast(first: Line, second: Line, port: int, draws: int = DRAWS, seed: int = SEED) -> tuple[Shift, ...]:
    """What the second line does otherwise than the first, for every figure both have.

    Parameters
    ----------
    first, second : single variants of one shop's line
    port : place of the tool among the leaves of both
    draws, seed : of the Monte Carlo
    """
    a, b = outcomes(first, port, draws, seed), outcomes(second, port, draws, seed)
    tail = (1.0 - WITHIN) / 2.0
    shifts = []
    for figure in FIGURES:
        if figure in a and figure in b:
            low, middle, high = np.quantile(b[figure] - a[figure], [tail, 0.5, 1.0 - tail])
            medians = (float(np.median(a[figure])), float(np.median(b[figure])))
            shifts.append(Shift(figure, *medians, float(low), float(middle), float(high)))
    return tuple(shifts)
