"""What suction does to the bin, its rings and its lid."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array, one_value
from fenwick.core.components.bins import MATERIALS, Lid, Relief
from fenwick.core.components.separator import Separator
from fenwick.core.formulas.shell import (
    RIM_HELD,
    RIM_SLIDES,
    collapse_pressure,
    lid_deflection,
    plate_stiffness,
    relief_area,
    ring_carries,
)
from fenwick.core.judging.check import WATCH, Check, fact, figure, graded
from fenwick.core.judging.sheets import land_checks, sheet_checks
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint

UPRIGHT = "upright"  #: ribs that stand along the wall
HALF_WAY = 0.5  #: of the blocked suction, where a valve is described that need not save a bin [-]
USUAL_RELIEF = 1e-3  #: opening of such a valve [m^2]
SPARE = 1.05  #: opening of a valve against the least that would do [-]


def folding_suction(stage: Separator, line: Line) -> Array | None:
    """Suction at which the bin's weakest bay folds [Pa], shape () or (n,).

    None when wall or material are not known; flat walls, and those with upright ribs, are not judged.
    """
    bin_, made_of = stage.bin, stage.bin.made_of
    if bin_.wall is None or made_of is None or not folding_is_judged(stage):
        return None
    bays = [
        collapse_pressure(diameter, length, bin_.wall, made_of.youngs_modulus, made_of.poisson_ratio)
        for length, diameter in bin_.bays
    ]
    weakest = np.minimum.reduce(np.broadcast_arrays(*bays))
    nested = line.rules["shell.nested"] if bin_.nested else 1.0
    return np.asarray(weakest * line.rules["shell.knock-down"] * nested)


def folding_is_judged(stage: Separator) -> bool:
    """Whether the formulas speak of its wall: round, and plain or with rings."""
    return stage.bin.is_round and stage.bin.ribs != UPRIGHT


def wall_checks(stage: Separator) -> list[Check]:
    """Walls whose folding is not judged, for the reader to brace and to test."""
    if folding_is_judged(stage):
        return []
    return [fact("wall-not-judged", WATCH, stage.id, ("flat" if not stage.bin.is_round else UPRIGHT,))]


def most_suction(stage: Separator, line: Line, point: OperatingPoint) -> Array:
    """What the bin has to stand with its hose blocked [Pa], shape (n,): less with a wide relief valve."""
    sealed, relief = point.sealed_suction, stage.bin.relief
    if relief is None:
        return sealed
    enough = np.asarray(relief.area) >= wanted_relief(line, point, np.asarray(relief.opens_at))
    return np.asarray(np.where(enough, np.minimum(sealed, relief.opens_at), sealed))


def wanted_relief(line: Line, point: OperatingPoint, opens_at: Array) -> Array:
    """Opening that lets all of the fan's air in at a suction [m^2], shape (n,).

    Parameters
    ----------
    opens_at : suction, shape (n,) [Pa]
    """
    flow = fan_flow(line, opens_at)
    return relief_area(flow, opens_at, point.room_density)


def fan_flow(line: Line, suction: Array) -> Array:
    """Flow at which the fan makes a suction [m^3/s], by bisection on its falling curve.

    Parameters
    ----------
    suction : shape (n,) [Pa]
    """
    density = line.site.density
    low = np.zeros_like(np.asarray(suction, dtype=float))
    high = low + np.max(line.vacuum.curve.open_flow)
    for _ in range(50):
        middle = 0.5 * (low + high)
        above = line.vacuum.curve.suction(middle, density) > suction
        low, high = np.where(above, middle, low), np.where(above, high, middle)
    return np.asarray(0.5 * (low + high))


@dataclass(frozen=True)
class Collapse:
    """A bin against the suction of a blocked hose; arrays of shape (n,)."""

    part: str  #: id of the separator over it
    folds: Array  #: suction at which it does [Pa]; inf for a wall too short to fold
    stands: Array  #: suction it has to stand, a relief valve counted [Pa]

    @property
    def ratio(self) -> Array:
        """Folding over blocked suction [-]; below 1 it folds."""
        return self.folds / self.stands


def collapse(stage: Separator, line: Line, point: OperatingPoint) -> Collapse | None:
    """One bin with its hose blocked; None where its wall is not known."""
    folds = folding_suction(stage, line)
    if folds is None:
        return None
    return Collapse(stage.id, np.broadcast_to(folds, point.sealed_suction.shape), most_suction(stage, line, point))


def weakest_bin(line: Line, point: OperatingPoint) -> Collapse | None:
    """The bin that folds first in each variant, named by that of the first one; None where no wall is known."""
    known = [found for stage in line.separators if (found := collapse(stage, line, point)) is not None]
    if len(known) < 2:
        return next(iter(known), None)
    first = np.argmin(np.stack([found.ratio for found in known]), axis=0)
    folds, stands = (np.choose(first, [getattr(found, name) for found in known]) for name in ("folds", "stands"))
    return Collapse(known[int(first[0])].part, folds, stands)


def collapse_checks(stage: Separator, line: Line, point: OperatingPoint) -> list[Check]:
    """Whether the bin folds when the hose is blocked; none where its wall is not known."""
    found = collapse(stage, line, point)
    if found is None:
        return []
    return [Check("bin-collapse", collapse_level(found, line), found.folds, found.stands, "suction", stage.id)]


def collapse_level(found: Collapse, line: Line) -> npt.NDArray[np.intp]:
    """Level of a bin's strength."""
    margin = line.rules["verdict.collapse-margin"]
    return graded(found.folds < found.stands, found.folds < margin * found.stands)


def strength_checks(stage: Separator, line: Line, point: OperatingPoint) -> list[Check]:
    """Rings, relief valve, lid and bent sheet; those that are not described are left out. The first variant."""
    return [
        *wall_checks(stage),
        *_rings(stage, line, point),
        *_relief(stage, line, point),
        *_lid(stage, line, point),
        *sheet_checks(stage, line.rules),
        *land_checks(stage, line.rules),
    ]


def _rings(stage: Separator, line: Line, point: OperatingPoint) -> list[Check]:
    """Every ring whose section is known: it must carry the blocked suction with its margin."""
    bin_ = stage.bin
    blocked = float(most_suction(stage, line, point)[0])
    margin = one_value(line.rules["verdict.collapse-margin"])
    marks = [0.0, *sorted(h for h in bin_.stiffeners if 0.0 < h < bin_.height), bin_.height]
    found = []
    for height, stiffness in zip(bin_.stiffeners, bin_.ring_stiffness, strict=False):
        if stiffness is None or not 0.0 < height < bin_.height:  # at its rim or its floor it carries no wall
            continue
        at = marks.index(height)
        share = 0.5 * (marks[at + 1] - marks[at - 1])
        diameter = float(bin_.diameter_at(height))
        carries = float(ring_carries(stiffness, diameter, share))
        wanted = margin * blocked
        needed = wanted * diameter**3 * share / 24.0
        found.append(
            figure("ring-stiff", carries < blocked, carries < wanted, carries, wanted, "suction", stage.id, needed)
        )
    return found


def _relief(stage: Separator, line: Line, point: OperatingPoint) -> list[Check]:
    """A valve's opening against what the fan needs."""
    relief, folds = stage.bin.relief, folding_suction(stage, line)
    if relief is None:
        return []
    opens_at = np.full(1, one_value(relief.opens_at))
    wanted = float(wanted_relief(line, point, opens_at)[0])
    area = one_value(relief.area)
    late = folds is not None and one_value(folds) < float(opens_at[0])
    return [figure("relief", area < wanted or late, False, area, wanted, "gap", stage.id, float(opens_at[0]))]


def relief_that_would_do(stage: Separator, line: Line, point: OperatingPoint) -> Relief | None:
    """A valve that would save the bin of the first variant; None where it does not fold, or its wall is not known."""
    folds = folding_suction(stage, line)
    margin = one_value(line.rules["verdict.collapse-margin"])
    if folds is None or one_value(folds) >= margin * float(point.sealed_suction[0]):
        return None
    opens_at = np.full(1, one_value(folds) / margin)
    return Relief(float(opens_at[0]), float(wanted_relief(line, point, opens_at)[0]))


def relief_to_begin_with(stage: Separator, line: Line, point: OperatingPoint) -> Relief:
    """A valve to describe first: one that would save the bin, with something to spare; else one that opens half way."""
    found = relief_that_would_do(stage, line, point)
    if found is None:
        return Relief(round(HALF_WAY * float(point.sealed_suction[0]), -2), USUAL_RELIEF)
    return Relief(round(float(found.opens_at), -2), round(SPARE * float(found.area), 6))


def _lid(stage: Separator, line: Line, point: OperatingPoint) -> list[Check]:
    lid = stage.bin.lid
    if lid is None or not stage.bin.is_round:
        return []
    width = float(stage.bin.diameter_at(stage.bin.height))
    drawn = float(lid_bends(lid, width, float(most_suction(stage, line, point)[0])))
    limit = width / one_value(line.rules["shell.lid-bends"])
    watch = one_value(line.rules["shell.lid-watch"])
    return [figure("lid-bends", drawn > limit, drawn > watch * limit, drawn, limit, "length", stage.id)]


def lid_bends(lid: Lid, width: float, suction: float) -> Array:
    """How far the middle of a lid is drawn in [m], a disc glued on included; `width` [m], `suction` [Pa].

    Parameters
    ----------
    width : between its supports [m]
    suction : [Pa]
    """
    made_of = MATERIALS[lid.material]
    stiffness = plate_stiffness(made_of.youngs_modulus, lid.thickness, made_of.poisson_ratio)
    thickness = np.asarray(lid.thickness)
    if lid.stiffener is not None:
        glued = MATERIALS[lid.stiffener[0]]
        stiffness = stiffness + plate_stiffness(glued.youngs_modulus, lid.stiffener[1], glued.poisson_ratio)
        thickness = thickness + np.asarray(lid.stiffener[1])
    rim = RIM_HELD if lid.rim_held else RIM_SLIDES
    return lid_deflection(suction, 0.5 * width, stiffness, thickness, made_of.poisson_ratio, rim)
