"""Which of two lines does better, drawn alike: what is not known of both is drawn the same in both.

Most of what is uncertain of a figure moves both lines the same way: two bands that overlap widely may still belong to
lines of which one is better in every draw. So the difference is judged, draw by draw.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, one_value
from fenwick.core.doubt.uncertainty import DRAWS, SEED, WITHIN
from fenwick.core.judging.assess import Assessment
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone
from fenwick.core.rules import rule
from fenwick.core.search.drawn import drawn_line
from fenwick.core.search.figures import Figures, figures_at

BETTER, WORSE, SAME, CANNOT_TELL = "better", "worse", "same", "cannot tell"
#: figures of a port, and whether more of it is better
PORT_FIGURES: Mapping[str, bool] = {
    "flow": True,
    "speed": True,
    "caught": True,
    "kept": True,
    "in_bin": True,
}  #: fmt: skip
LINE_FIGURES: Mapping[str, bool] = {"cut_size": False, "folding": True}  #: likewise, of the line as a whole
NOTICED = rule("way.noticed").value  #: of a figure, that nobody would notice [-]


@dataclass(frozen=True)
class DrawnFigure:
    """A figure of one line, as it stands and drawn many times over."""

    now: float
    low: float  #: 5 % of the draws lie below
    high: float  #: 5 % of the draws lie above


@dataclass(frozen=True)
class FigureApart:
    """A figure of two lines; None where it is not known of one."""

    left: DrawnFigure | None
    right: DrawnFigure | None
    verdict: str | None  #: of the right one beside the left: better, worse, same, cannot tell
    surely: float | None  #: share of the draws in which that is so [-]


@dataclass(frozen=True)
class DrawnPort:
    """A port of a line, open alone, drawn many times over; arrays of shape (1 + draws,), None: not known."""

    figures: Figures
    cut_size: Array | None  #: of the first stage, for what comes by this port [m]

    def value(self, name: str) -> Array | None:
        """A figure by its name among `PORT_FIGURES` and `LINE_FIGURES`."""
        values: Array | None = self.cut_size if name == "cut_size" else getattr(self.figures, name)
        return values


def drawn_port(line: Line, port: int, draws: int = DRAWS, seed: int = SEED) -> DrawnPort:
    """A port of a single line, open alone as far as there are gates to shut; two lines draw alike by the seed.

    Parameters
    ----------
    port : its place among the leaves [-]
    draws : how many [-]
    seed : of the draws [-]
    """
    drawn = drawn_line(line_alone(line, port), draws, seed)
    return DrawnPort(figures_at(drawn.line, drawn.found, port), _cut_size(drawn.found, drawn.count))


def _cut_size(found: Assessment, count: int) -> Array | None:
    first = next((stage for stage in found.separations if not stage.wet), None)
    return None if first is None or first.grades is None else np.broadcast_to(first.grades.cut_size, (count,))


def figures_apart(left: DrawnPort | None, right: DrawnPort | None) -> dict[str, FigureApart]:
    """Every figure of a port that one of two lines has; None: the line has no such port."""
    found = {}
    for name, more in {**PORT_FIGURES, **LINE_FIGURES}.items():
        one, other = (None if side is None else side.value(name) for side in (left, right))
        if one is not None or other is not None:
            found[name] = apart(one, other, more_is_better=more)
    return found


def apart(left: Array | None, right: Array | None, *, more_is_better: bool) -> FigureApart:
    """Two figures told apart by their difference, draw by draw; a draw in which it is not finite tells nothing.

    Parameters
    ----------
    left, right : as the line stands, then drawn, in one unit, shape (1 + draws,) or (1,); None: not known
    """
    sides = _drawn(left), _drawn(right)
    if left is None or right is None or sides[0] is None or sides[1] is None:
        return FigureApart(*sides, None, None)
    with np.errstate(invalid="ignore"):  # of two that are not finite there is no difference
        gain = np.atleast_1d(right - left) * (1.0 if more_is_better else -1.0)
    scale = NOTICED * np.maximum(np.abs(np.atleast_1d(left)), np.abs(np.atleast_1d(right)))
    gain, scale = np.broadcast_arrays(gain, scale)
    draws = gain[1:] if gain.size > 1 else gain
    noticed = scale[1:] if gain.size > 1 else scale
    tells = np.isfinite(draws)
    shares = {
        BETTER: float(np.mean(tells & (draws > noticed))),
        WORSE: float(np.mean(tells & (draws < -noticed))),
        SAME: float(np.mean(tells & (np.abs(draws) <= noticed))),
    }
    word, share = max(shares.items(), key=lambda item: item[1])
    return FigureApart(*sides, word if share >= WITHIN else CANNOT_TELL, share)


def _drawn(values: Array | None) -> DrawnFigure | None:
    if values is None:
        return None
    draws = np.atleast_1d(values)
    draws = draws[np.isfinite(draws)] if np.isfinite(draws[0]) else draws[:0]
    if draws.size < WITHIN * np.size(values):  # too often there is no such figure
        return None
    tail = (1.0 - WITHIN) / 2.0
    low, high = np.quantile(draws[1:] if draws.size > 1 else draws, [tail, 1.0 - tail])
    return DrawnFigure(one_value(draws[0]), float(low), float(high))
