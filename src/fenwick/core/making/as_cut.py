"""What to do with a part that came out otherwise than drawn: keep it, shim it, or cut it again; what follows it."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.separator import Separator
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.making.parts import MadePart
from fenwick.core.making.tolerances import Tolerance, design_dims, design_value, with_design_value
from fenwick.core.search.effects import with_stage

KEEP, SHIM, RECUT, TRIM = "keep", "shim", "recut", "trim"
MOST_SHIM = 3e-3  #: on a side, that edge band or a sleeve still fills [m]
HOLES = ("hole_d_m", "cut_out", "inner_d_m")  #: parts of the names of dimensions that are openings

#: (part, dimension): the dimensions of other parts that follow it, and how: by radius from a length once round
FOLLOWS: dict[tuple[str, str], tuple[tuple[str, str], ...]] = {
    ("wall", "wrap_m"): (("roof", "groove_radius_m"), ("deck", "groove_radius_m"), ("slotted-disc", "groove_radius_m")),
    ("barrel", "wrap_m"): (("roof", "groove_radius_m"),),
}


@dataclass(frozen=True)
class Following:
    """A dimension of another part that goes by one that was cut."""

    part: str
    dim: str
    value: float  #: [m]


@dataclass(frozen=True)
class Verdict:
    """What a measured dimension means."""

    part: str
    dim: str
    wanted: float  #: [m]
    measured: float  #: [m]
    do: str  #: KEEP, SHIM, RECUT or TRIM
    costs: str  #: what it costs if it stays as it is; empty: nothing worth saying
    shim: float = 0.0  #: thickness all round that puts it right [m]
    follows: tuple[Following, ...] = ()  #: what is cut by it

    @property
    def off(self) -> float:
        """Above 0 where it is too large [m]."""
        return self.measured - self.wanted


def is_opening(dim: str) -> bool:
    """Whether a dimension is of a hole, which only grows when it is cut again."""
    return any(one in dim for one in HOLES)


def judge_cut(
    part: MadePart, dim: str, measured: float, tolerance: Tolerance | None, others: tuple[MadePart, ...]
) -> Verdict:
    """What to do with a dimension as it was measured.

    Parameters
    ----------
    measured : [m]
    tolerance : None: nothing is known to hang on it
    others : every part of the design
    """
    wanted = part.dims[dim]
    follows = _following(part, dim, measured, others)
    if tolerance is None or tolerance.low - 1e-9 <= measured <= tolerance.high + 1e-9:
        return Verdict(part.id, dim, wanted, measured, KEEP, "", follows=follows)
    missing = measured > wanted if is_opening(dim) else measured < wanted
    if not missing:  # there is something left to take away
        return Verdict(part.id, dim, wanted, measured, TRIM, tolerance.costs, follows=follows)
    across = dim.endswith("_d_m") or dim == "d_m"
    side = abs(measured - wanted) / (2.0 if across or is_opening(dim) else 1.0)
    do = SHIM if (across or is_opening(dim)) and side <= MOST_SHIM else RECUT
    return Verdict(part.id, dim, wanted, measured, do, tolerance.costs, side if do == SHIM else 0.0, follows)


def _following(part: MadePart, dim: str, measured: float, others: tuple[MadePart, ...]) -> tuple[Following, ...]:
    """What is cut later and goes by this one."""
    found = []
    for name, other_dim in FOLLOWS.get((part.id, dim), ()):
        other = next((one for one in others if one.id == name), None)
        if other is not None and other_dim in other.dims and abs(measured - part.dims[dim]) > 1e-9:
            found.append(Following(name, other_dim, measured / (2.0 * pi)))  # the wall's mean radius
    return tuple(found)


@dataclass(frozen=True)
class BuiltFigures:
    """The line as drawn and as built; None where nothing is known of its dust."""

    kept: tuple[float, float] | None  #: [-]
    suction: tuple[float, float]  #: that the separator costs [Pa]


def as_built(stage: Separator, part: str, dim: str, off: float) -> Separator | None:
    """The separator with a dimension off by so much; None where the model does not know it.

    Parameters
    ----------
    off : of the dimension [m]
    """
    known = design_dims(stage).get((part, dim))
    if known is None:
        return None
    value = design_value(stage, known) + off * known.share
    return with_design_value(stage, known, np.asarray(value)) if value > 0.0 else None


def built_figures(line: Line, stage: Separator, changed: Separator) -> BuiltFigures:
    """What the line does as drawn, and with the separator as it was built."""
    kept, suction = [], []
    for one in (stage, changed):
        found = assess(with_stage(line, one))
        suction.append(one_value(next(s.pressure_drop for s in found.separations if s.id == stage.id)))
        if found.kept is not None:
            kept.append(one_value(found.kept))
    return BuiltFigures((kept[0], kept[1]) if len(kept) == 2 else None, (suction[0], suction[1]))
