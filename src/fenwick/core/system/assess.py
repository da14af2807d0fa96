"""Everything Fenwick says about a line, in one call."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.rules import rule
from fenwick.core.system.capture import Capture, capture, caught_together
from fenwick.core.system.checks import Check, checks
from fenwick.core.system.fate import Fate, fate
from fenwick.core.system.line import Line
from fenwick.core.system.operating import OperatingPoint, operating_point
from fenwick.core.system.passage import bridging_checks, lift_checks
from fenwick.core.system.separation import Separation, separation
from fenwick.core.system.transport import Transport, transport

#: rules whose believable ranges make the band on the kept share
BAND_RULES = ("swirl.friction-shop", "bin.exchange-disc", "swirl.cut")


@dataclass(frozen=True)
class Assessment:
    """A line judged; arrays end in the variant axis."""

    point: OperatingPoint
    carrying: Transport | None  #: None where the dust is not known
    separations: tuple[Separation, ...]
    efficiency: tuple[Array, ...]  #: of each separator, of what enters it, by mass [-]; empty for unknown dust
    captures: tuple[Capture, ...]
    fate: Fate | None
    checks: tuple[Check, ...]


def assess(line: Line) -> Assessment:
    """Solve and judge a line for all its variants."""
    point = operating_point(line)
    separations = tuple(separation(disc, line, point) for disc in line.separators)
    captures = capture(line, point)
    carrying = transport(line, point)
    return Assessment(
        point=point,
        carrying=carrying,
        separations=separations,
        efficiency=_efficiency(line, separations, captures),
        captures=captures,
        fate=fate(line, captures, separations),
        checks=(*checks(line, point, carrying, separations), *lift_checks(line, point), *bridging_checks(line, point)),
    )


def _efficiency(line: Line, stages: tuple[Separation, ...], captures: tuple[Capture, ...]) -> tuple[Array, ...]:
    """Kept share by mass of what enters each stage: what the port caught, or the dust as made where that is unknown."""
    if line.dust is None:
        return ()
    together = caught_together(line, captures)
    entering = line.dust.weights * (together.caught if together is not None else 1.0)
    shares = []
    for stage in stages:
        if stage.grades is None:
            continue
        grade = stage.grades.kept
        fed = np.sum(entering, axis=0)
        kept = np.sum(entering * grade, axis=0)
        made = np.sum(line.dust.weights * grade, axis=0)
        shares.append(np.asarray(np.where(fed > 0.0, kept / np.maximum(fed, 1e-300), made)))
        entering = entering * (1.0 - grade)
    return tuple(shares)


def efficiency_band(line: Line) -> tuple[tuple[float, float], ...]:
    """Kept share of each separator, low and high, for what the uncertain rules leave open [-].

    Each of `BAND_RULES` is moved to both ends of its believable range, alone, with its own operating point; the shifts
    are combined as the root of their summed squares, downwards and upwards apart.

    Parameters
    ----------
    line : a single variant
    """
    if not line.separators or line.dust is None:
        return ()
    middle = [line.rules[key] for key in BAND_RULES]
    moves = [(i, end) for i, key in enumerate(BAND_RULES) for end in (rule(key).low, rule(key).high)]
    grid = np.array([[end if i == row else middle[row] for i, end in moves] for row in range(len(middle))])
    values = {key: np.append(grid[row], middle[row]) for row, key in enumerate(BAND_RULES)}
    varied = replace(line, rules=line.rules.with_values(values))
    return tuple(_combined(share) for share in _kept(varied))


def _kept(line: Line) -> tuple[Array, ...]:
    """Kept share of each separator [-], shape (n,), without the rest of an assessment."""
    point = operating_point(line)
    stages = tuple(separation(disc, line, point) for disc in line.separators)
    return _efficiency(line, stages, capture(line, point))


def _combined(share: Array) -> tuple[float, float]:
    shifts, middle = share[:-1] - share[-1], float(share[-1])
    down = float(np.sqrt(np.sum(np.square(np.minimum(shifts, 0.0)))))
    up = float(np.sqrt(np.sum(np.square(np.maximum(shifts, 0.0)))))
    return max(0.0, middle - down), min(1.0, middle + up)
