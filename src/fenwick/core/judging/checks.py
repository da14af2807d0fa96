"""What breaks, clogs or does not belong together, each with its figure and its limit."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.components.wet import WetStage
from fenwick.core.dust.capture import Capture, containment_flow, tool_flow
from fenwick.core.dust.separation import Separation
from fenwick.core.formulas.cyclone import natural_length
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.judging.check import ACT, OK, WATCH, Check, graded
from fenwick.core.judging.strength import collapse_checks
from fenwick.core.line.catch import tools_of
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint
from fenwick.core.line.transport import CARRIES, SETTLES, Transport


def checks(
    line: Line,
    point: OperatingPoint,
    carrying: Transport | None,
    separations: tuple[Separation, ...],
    captures: tuple[Capture, ...],
    kept: Array | None,
) -> tuple[Check, ...]:
    """Every check this line's description allows; what cannot be judged is left out.

    Parameters
    ----------
    kept : of what enters the first stage, what all of them keep [-]
    """
    found = [*_flow_checks(line, point), *_caught_checks(line, captures)]
    found += carrying_check(carrying) if carrying else []
    found += _kept_checks(line, point, kept)
    for stage, result in zip(line.stages, separations, strict=True):
        if isinstance(stage, Separator):
            found += _bin_checks(stage, line, point, result)
            found += _swirl_checks(stage, line, point)
        else:
            found += _wet_checks(stage, line, point)
    found += _believable_vacuum(line)
    return tuple(found)


def containment_level(drawn: Array, limit: Array) -> npt.NDArray[np.intp]:
    """Level of the air drawn at a tool against what contains its fine dust: a standing notice, never to act on.

    No shop vacuum brings that air to a stationary machine: a red that nothing clears would hide those that work
    does. The mask and the room's air answer it, however near or far the air is.

    Parameters
    ----------
    drawn : air at the tool [m^3/s]
    limit : air that contains its fine dust [m^3/s]
    """
    return np.where(drawn < limit, WATCH, OK).astype(np.intp)


def _flow_checks(line: Line, point: OperatingPoint) -> list[Check]:
    found = []
    for i, leaf in enumerate(line.leaves):
        if not leaf.open and len(line.leaves) > 1:
            continue
        flow = point.port_flow[i]
        least = np.full_like(flow, line.rules["verdict.least-flow"])
        found.append(Check("air-at-tool", graded(flow < least, flow < least), flow, least, "flow", leaf.id))
        band = containment_flow(leaf.port.machine)
        if band is not None and leaf.open:
            limit = np.full_like(flow, band[0])
            drawn = tool_flow(line, point, i)
            level = containment_level(drawn, limit)
            found.append(Check("containment", level, drawn, limit, "flow", leaf.id))
    return found


def _caught_checks(line: Line, captures: tuple[Capture, ...]) -> Iterator[Check]:
    """What is caught of each tool's dust, by all its ports; named by the first of them."""
    known = {port.id: port for port in captures}
    for group in tools_of(line):
        port = next((known[line.leaves[i].id] for i in group if line.leaves[i].id in known), None)
        if port is not None:
            caught = port.tool_total
            good = np.full_like(caught, line.rules["verdict.caught-good"])
            yield Check("caught", caught_level(port, line), caught, good, "share", port.id)


def _kept_checks(line: Line, point: OperatingPoint, kept: Array | None) -> Iterator[Check]:
    """What the separators keep; without any, nothing is: all of it goes on to the vacuum."""
    if line.dust is None or (line.stages and kept is None):
        return
    share = kept if line.stages and kept is not None else np.zeros_like(point.mass_flow)
    good = np.full_like(share, line.rules["verdict.kept-good"])
    yield Check("kept", kept_level(share, line), share, good, "share", line.stages[0].id if line.stages else None)


def caught_level(port: Capture, line: Line) -> npt.NDArray[np.intp]:
    """Level of all that is caught of a tool's dust."""
    return graded(
        port.tool_total < line.rules["verdict.caught-poor"], port.tool_total < line.rules["verdict.caught-good"]
    )


def speed_level(velocity: Array, needed: float, line: Line) -> npt.NDArray[np.intp]:
    """Level of an air speed against the one needed [m/s].

    Parameters
    ----------
    needed : air speed that carries the dust [m/s]
    velocity : of the air, shape (n,) [m/s]
    """
    return graded(velocity < line.rules["verdict.far-short"] * needed, velocity < needed)


def kept_level(kept: Array, line: Line) -> npt.NDArray[np.intp]:
    """Level of a kept share.

    Parameters
    ----------
    kept : share kept, shape (n,) [-]
    """
    return graded(kept < line.rules["verdict.kept-poor"], kept < line.rules["verdict.kept-good"])


def carrying_check(carrying: Transport, along: frozenset[str] | None = None) -> list[Check]:
    """The slowest dust-laden hose, of all or of those named in `along`; empty where there is none."""
    rows = [i for i, laden in enumerate(carrying.laden) if laden and (along is None or carrying.ids[i] in along)]
    if not rows:
        return []
    worst = np.argmin(carrying.velocity[rows], axis=0)
    value = np.min(carrying.velocity[rows], axis=0)
    state = np.min(carrying.carrying[rows], axis=0)
    limit = np.full_like(value, carrying.settles_below)
    level = graded(state == SETTLES, state < CARRIES)
    return [Check("settling", level, value, limit, "speed", carrying.ids[rows[int(worst[0])]])]


def _bin_checks(stage: Separator, line: Line, point: OperatingPoint, result: Separation) -> list[Check]:
    n = point.sealed_suction.shape
    found = collapse_checks(stage, line, point)
    leak, watch = result.leak_share, line.rules["verdict.leak-watch"]
    level = graded(leak > line.rules["verdict.leak-act"], leak > watch)
    found.append(Check("bin-leak", level, leak, np.full_like(leak, watch), "share", stage.id))
    surface = np.broadcast_to(stage.bin.diameter_at(stage.bin.fill_height), n)
    free = result.free_height
    least = np.asarray(line.rules["bin.stir-depth"] * surface)
    level = graded(free < line.rules["bin.brim"] * surface, free < least)
    found.append(Check("bin-full", level, free, least, "length", stage.id))
    if isinstance(stage, SlottedDisc):
        found += _slot_checks(stage, line, n)
    return found


def _slot_checks(stage: SlottedDisc, line: Line, n: tuple[int, ...]) -> list[Check]:
    """Slots too narrow for dust or chips, and a disc too close under its elbow."""
    narrowest = np.broadcast_to(np.minimum.reduce(np.broadcast_arrays(*(np.asarray(s.width) for s in stage.slots))), n)
    least = np.broadcast_to(np.asarray(line.rules["slot.least"], dtype=float), n)
    never = narrowest < 0.0
    found = [Check("slot-narrow", graded(never, narrowest < least), narrowest, least, "length", stage.id)]
    clear = stage.clearance(line.rules["swirl.elbow-reach"])
    if clear is not None:
        room, wanted = (np.broadcast_to(np.asarray(v, dtype=float), n) for v in (clear, line.rules["slot.clearance"]))
        found.append(Check("elbow-clear", graded(room < 0.0, room < wanted), room, wanted, "length", stage.id))
    if line.dust is not None and line.dust.longest_chip is not None:
        chip = np.full(n, line.dust.longest_chip)
        found.append(Check("slot-bridging", graded(chip < 0, chip > narrowest), narrowest, chip, "length", stage.id))
    return found


def _swirl_checks(stage: Separator, line: Line, point: OperatingPoint) -> list[Check]:
    """Hoses on the wrong ports; a vortex that reaches into the bin."""
    n = point.sealed_suction.shape
    found = []
    kept = np.broadcast_to(np.asarray(line.rules["swirl.swapped"] if stage.swapped else 1.0, dtype=float), n)
    found.append(Check("swapped-hoses", np.full(n, ACT if stage.swapped else OK), kept, np.ones(n), "share", stage.id))
    if isinstance(stage, Cyclone):
        wide, there = (
            np.broadcast_to(np.asarray(v, dtype=float), n) for v in (stage.shape.outlet, stage.shape.width_at_tube)
        )
        found.append(Check("tube-in-cone", graded(wide > there, wide < 0.0), wide, there, "length", stage.id))
        room = np.broadcast_to(np.asarray(stage.shape.height - stage.shape.outlet_length, dtype=float), n)
        tail = np.broadcast_to(natural_length(stage.shape), n)
        found.append(Check("vortex-tail", graded(tail < 0.0, tail > room), tail, room, "length", stage.id))
    return found


def _wet_checks(stage: WetStage, line: Line, point: OperatingPoint) -> list[Check]:
    """Droplets that the rising air takes along, and water that meets the outlet."""
    row = point.stations.index(stage.id)
    rise = point.stations.flow[row] / bore_area(stage.vessel_diameter)
    limit = np.full_like(rise, line.rules["wet.carry-over"])
    level = graded(rise > limit, rise > line.rules["wet.watch"] * limit)
    found = [Check("carry-over", level, rise, limit, "speed", stage.id)]
    lean = stage.lean
    if stage.outlet_height is not None and lean is not None:
        n = rise.shape
        water, outlet = (np.broadcast_to(np.asarray(v, dtype=float), n) for v in (stage.level, stage.outlet_height))
        line_at = outlet - line.rules["wet.splash"]
        over = graded(water >= outlet, water > line_at)
        found.append(Check("wet-overfull", over, water, line_at, "length", stage.id))
        leans, least = np.broadcast_to(np.degrees(lean), n), np.full(n, line.rules["wet.lean"])
        found.append(Check("wet-lean", graded(leans < 0.0, leans < least), leans, least, "angle", stage.id))
    return found


def _believable_vacuum(line: Line) -> list[Check]:
    power = line.vacuum.electrical_power
    if power is None:
        return []
    share = np.atleast_1d(np.asarray(line.vacuum.curve.peak_air_power / power))
    limit = np.full_like(share, line.rules["fan.believable"])
    return [Check("fan-believable", graded(share < 0, share > limit), share, limit, "share", "vacuum")]
