"""How far off a dimension may be: before it costs a point of what is kept, a kilopascal, or a leak; and what was cut.

Some dimensions are the design's own, and the model says what they cost. Others only have to fit: a part that is too
large does not go in, one that is too small leaves a gap that a bead of sealant still fills, or does not.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import pi
from typing import Any

import numpy as np

from fenwick.core.arrays import Array, one_value
from fenwick.core.components.chambers import OpenBin
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.making.given import Making
from fenwick.core.making.parts import MadePart
from fenwick.core.search.effects import with_stage

KEPT, SUCTION, LEAK, FIT = "kept", "suction", "leak", "fit"
POINT, KILOPASCAL = 0.01, 1000.0  #: what a dimension may cost [-], [Pa]
REACH, STEPS = 0.25, 41  #: how far off a dimension is tried, as a share of it; variants


@dataclass(frozen=True)
class Tolerance:
    """Between what a dimension may lie."""

    part: str
    dim: str
    low: float  #: [m]
    high: float  #: [m]
    costs: str  #: KEPT, SUCTION, LEAK or FIT: what it costs beyond


@dataclass(frozen=True)
class Known:
    """A dimension that the model knows: where the design has it, and how much of the dimension that changes by."""

    at: str  #: field of the separator, of its shape or of its first slot
    share: float = 1.0


OUTLET = {("outlet-tube", "reach_m"): Known("outlet_length")}
SLOT = {("slotted-disc", "slot_width_m"): Known("slots.width")}
DISC_DIMS: dict[tuple[str, str], Known] = {
    ("wall", "wrap_m"): Known("chamber_diameter", 1.0 / pi),
    ("wall", "chamber_height_m"): Known("chamber_height"),
    **OUTLET,
    **SLOT,
}
HUNG_DIMS: dict[tuple[str, str], Known] = {
    ("slotted-disc", "d_m"): Known("chamber_diameter"),
    ("slotted-disc", "depth_m"): Known("chamber_height"),
    **OUTLET,
    **SLOT,
}
CYCLONE_DIMS: dict[tuple[str, str], Known] = {
    ("barrel", "wrap_m"): Known("shape.body", 1.0 / pi),
    ("barrel", "cylinder_height_m"): Known("shape.cylinder"),
    ("outlet-tube", "reach_m"): Known("shape.outlet_length"),
    ("cone", "bottom_d_m"): Known("shape.dust_outlet"),
}


def design_dims(stage: Separator) -> dict[tuple[str, str], Known]:
    """The dimensions that the model knows, by part and name."""
    if isinstance(stage, Cyclone):
        return CYCLONE_DIMS
    if isinstance(stage, OpenBin):
        return OUTLET
    assert isinstance(stage, SlottedDisc)
    return HUNG_DIMS if stage.hung else DISC_DIMS


def design_value(stage: Separator, known: Known) -> float:
    """What the design has there [m]."""
    group, _, name = known.at.rpartition(".")
    owner: Any = getattr(stage, group) if group else stage
    return one_value(getattr(owner[0] if group == "slots" else owner, name))


def with_design_value(stage: Separator, known: Known, values: Array) -> Separator:
    """The design with other values there.

    Parameters
    ----------
    values : one for each variant [m]
    """
    group, _, name = known.at.rpartition(".")
    if not group:
        return stage.changed(**{name: values})
    if group == "slots":
        assert isinstance(stage, SlottedDisc)
        return stage.changed(slots=(replace(stage.slots[0], **{name: values}), *stage.slots[1:]))
    assert isinstance(stage, Cyclone)
    return stage.changed(shape=replace(stage.shape, **{name: values}))


def tolerance_of(line: Line, stage: Separator, part: MadePart, dim: str) -> Tolerance | None:
    """How far a dimension that the model knows may be off; None where it does not know it, or what is kept.

    Parameters
    ----------
    line : as it stands, one variant
    dim : name of the dimension
    """
    known = design_dims(stage).get((part.id, dim))
    now = 0.0 if known is None else design_value(stage, known)
    if known is None or now <= 0.0:
        return None
    values = now * np.linspace(1.0 - REACH, 1.0 + REACH, STEPS)
    costs = _costs(line, stage, known, values)
    if costs is None:
        return None
    kept, suction = costs
    middle = STEPS // 2
    lost = (kept[middle] - kept) / POINT
    pulled = (suction - suction[middle]) / KILOPASCAL
    worst = np.maximum(lost, pulled)
    low, high = _crossing(values, worst, -1), _crossing(values, worst, +1)
    what = KEPT if np.max(lost) >= np.max(pulled) else SUCTION
    wanted = part.dims[dim]
    return Tolerance(part.id, dim, wanted + (low - now) / known.share, wanted + (high - now) / known.share, what)


def _costs(line: Line, stage: Separator, known: Known, values: Array) -> tuple[Array, Array] | None:
    """Kept [-] and suction that the separator costs [Pa], of every variant; None where nothing is known of dust."""
    found = assess(with_stage(line, with_design_value(stage, known, values)))
    if found.kept is None:
        return None
    drop = next(one.pressure_drop for one in found.separations if one.id == stage.id)
    return np.broadcast_to(found.kept, values.shape), np.broadcast_to(np.asarray(drop), values.shape)


def _crossing(values: Array, worst: Array, way: int) -> float:
    """Where a cost of 1 is reached, from the middle outwards; the end that was tried where it is not."""
    i = len(values) // 2
    while 0 <= i + way < len(values):
        if worst[i + way] >= 1.0:
            share = (1.0 - worst[i]) / (worst[i + way] - worst[i])
            return float(values[i] + share * (values[i + way] - values[i]))
        i += way
    return float(values[i])


@dataclass(frozen=True)
class FitRoom:
    """How much smaller and larger a dimension may be that only has to fit, as rules `make.KEY`; None: not at all."""

    less: str | None
    more: str | None
    costs: str


FITS: dict[str, FitRoom] = {
    "centre_hole_d_m": FitRoom(None, "bead", LEAK),
    "rim_hole_d_m": FitRoom(None, "bead", LEAK),
    "pipe_hole_d_m": FitRoom(None, "bead", LEAK),
    "outlet_hole_d_m": FitRoom(None, "bead", LEAK),
    "cut_out_m": FitRoom(None, "bead", LEAK),
    "cut_out_height_m": FitRoom(None, "bead", LEAK),
    "groove_radius_m": FitRoom("groove-play", "groove-play", FIT),
    "groove_width_m": FitRoom("groove-play", "bead", FIT),
    "hole_d_m": FitRoom(None, "bead", LEAK),
}


def fit_of(part: MadePart, dim: str, making: Making) -> Tolerance | None:
    """How far a dimension that only has to fit may be off; None: nothing hangs on it."""
    wanted = part.dims[dim]
    if part.id == "seat-ring" and dim == "d_m":  # pushed into the rim
        play = making.rule("push-fit")
        return Tolerance(part.id, dim, wanted - 4.0 * play, wanted + play, FIT)
    if part.id == "slotted-disc" and dim == "d_m" and "groove_radius_m" in part.dims:  # covers the rim's gasket
        return Tolerance(part.id, dim, wanted - making.rule("gasket") / 2.0, wanted + making.rule("ring"), LEAK)
    if dim not in FITS:
        return None
    fit = FITS[dim]
    low = wanted - (0.0 if fit.less is None else making.rule(fit.less))
    high = wanted + (0.0 if fit.more is None else making.rule(fit.more) / (2.0 if fit.more == "bead" else 1.0))
    return Tolerance(part.id, dim, low, high, fit.costs)


def tolerances_of(
    line: Line, stage: Separator, parts: tuple[MadePart, ...], making: Making
) -> dict[str, list[Tolerance]]:
    """Every dimension of every part that something hangs on, by part."""
    found: dict[str, list[Tolerance]] = {}
    for part in parts:
        for dim in part.dims:
            one = tolerance_of(line, stage, part, dim) or fit_of(part, dim, making)
            if one is not None:
                found.setdefault(part.id, []).append(one)
    return found
