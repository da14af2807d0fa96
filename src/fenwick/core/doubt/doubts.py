"""Where a line leaves the range in which its figures can be trusted; the figures stand, with a warning."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import one_value
from fenwick.core.components.chambers import OneBody
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.elements import Branch, Element, Hose, Leak, Reducer
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.components.wet import WetStage
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint
from fenwick.core.rules import RuleBook


@dataclass(frozen=True)
class Doubt:
    """One reason to read the figures with care, for the first variant."""

    #: shut, blocked, no-fan, all-open, starved, no-filter, rough, kinked, overlap, linked, step or unknown-dust
    kind: str
    part: str | None = None
    value: float = 0.0  #: a flow [m^3/s] for shut, blocked and starved, a suction [Pa] for no-fan, a ratio for step


def doubts(line: Line, point: OperatingPoint) -> tuple[Doubt, ...]:
    """Every doubt about a line at its operating point, in the order to say them."""
    return (*_about_flow(line, point), *_about_parts(line))


def _about_flow(line: Line, point: OperatingPoint) -> Iterator[Doubt]:
    for i, leaf in enumerate(line.leaves):
        flow = float(point.port_flow[i, 0])
        if not leaf.open:
            if len(line.leaves) == 1:  # with several tools, shut gates are how it is meant
                yield Doubt("shut", leaf.id, flow)
        elif flow < np.max(line.rules["verdict.least-flow"]):
            yield Doubt("blocked", leaf.id, flow)
    sealed, made = float(point.sealed_suction[0]), float(point.suction[0])
    if sealed < np.max(line.rules["verdict.least-suction"]):
        yield Doubt("no-fan", None, sealed)
    elif made < np.max(line.rules["verdict.all-open"]) * sealed:
        yield Doubt("all-open")
    through = float(point.mass_flow[0] / point.room_density[0])
    if is_starved(line, through):
        yield Doubt("starved", "vacuum", through)


def is_starved(line: Line, flow: float) -> bool:
    """Whether a fan made for wide hoses passes so little that a small hose wastes it.

    Parameters
    ----------
    line : any; its first variant counts
    flow : through the vacuum, at room density [m^3/s]
    """
    curve, rules = line.vacuum.curve, line.rules
    weak = one_value(curve.sealed_suction) < one_value(rules["fan.low-suction"])
    return weak and flow < one_value(rules["fan.starved"]) * one_value(curve.open_flow)


def _about_parts(line: Line) -> Iterator[Doubt]:
    if line.vacuum.filter is None and line.vacuum.bag is None:
        yield Doubt("no-filter")
    for part in (*_branch_parts(line.branches), *line.trunk):
        if isinstance(part, Hose) and part.id not in line.idle_parts:
            yield from _about_hose(part, line)
    for stage in line.separators:
        yield from _about_stage(stage, line)
    if line.stages and isinstance(line.stages[0], WetStage):
        yield Doubt("wet-first", line.stages[0].id)
    yield from _about_steps(line)
    if line.dust is None:
        yield Doubt("unknown-dust")


def _about_hose(hose: Hose, line: Line) -> Iterator[Doubt]:
    roughness = line.rules[f"wall.{hose.wall}"] if hose.roughness is None else hose.roughness
    if np.max(roughness / np.asarray(hose.bore)) > np.max(line.rules["wall.roughest"]):
        yield Doubt("rough", hose.id)
    if any(np.min(bend.radius) < np.max(hose.bore) for bend in hose.bends):
        yield Doubt("kinked", hose.id)


def _about_steps(line: Line) -> Iterator[Doubt]:
    """Bores that change so far from one part to the next that a unit must have been mistaken."""
    most = one_value(line.rules["bore.most-step"])
    for run, before in _runs(line):
        for part in run:
            ends = _end_bores(part)
            if ends is None:
                continue
            for bore in ends:
                if before is not None and max(bore / before, before / bore) >= most:
                    yield Doubt("step", part.id, max(bore / before, before / bore))
                before = bore


def _runs(line: Line) -> Iterator[tuple[tuple[Element, ...], float | None]]:
    """Every run of parts, with the bore of the port ahead of it."""

    def visit(branches: tuple[Branch, ...]) -> Iterator[tuple[tuple[Element, ...], float | None]]:
        for branch in branches:
            yield branch.elements, one_value(branch.port.bore) if branch.port else None
            yield from visit(branch.branches)

    yield from visit(line.branches)
    yield line.trunk, None


def _end_bores(part: Element) -> tuple[float, float] | None:
    """Bores at which the air enters and leaves a part [m]; None for a gap in the wall."""
    match part:
        case Leak():
            return None
        case Reducer():
            return one_value(part.bore_in), one_value(part.bore_out)
        case Separator():
            return one_value(part.hose_bore), one_value(part.outlet_bore)
        case WetStage():
            return None
        case _:
            return one_value(part.bore), one_value(part.bore)


def _about_stage(stage: Separator, line: Line) -> Iterator[Doubt]:
    if np.any(has_short_tube(stage, line.rules)):
        yield Doubt("short-tube", stage.id)
    if np.any(overlaps(stage)):
        yield Doubt("overlap", stage.id)
    if isinstance(stage, OneBody) and any(part.id != stage.id for part in behind(stage, line)):
        yield Doubt("linked", stage.id)


def has_short_tube(stage: Separator, rules: RuleBook) -> npt.NDArray[np.bool_]:
    """Whether the outlet tube ends above the bottom of the inlet: air can take a short cut; shape () or (n,)."""
    hangs = stage.shape.outlet_length if isinstance(stage, Cyclone) else getattr(stage, "outlet_length", np.inf)
    return np.asarray(np.asarray(hangs) < rules["swirl.tube"] * np.asarray(stage.geometry.inlet_height) * (1.0 - 1e-9))


def overlaps(stage: Separator) -> npt.NDArray[np.bool_]:
    """Whether the inlet reaches in over the outlet tube: then the orbit model is indicative; shape () or (n,)."""
    geometry = stage.geometry
    return np.asarray(geometry.outlet_radius + geometry.inlet_width > np.asarray(geometry.body_radius) * (1.0 + 1e-9))


def doubted(stage: Separator, rules: RuleBook) -> npt.NDArray[np.bool_]:
    """Whether anything in Fenwick would doubt a separator's sizes, so that they are not advised; shape () or (n,)."""
    found = has_short_tube(stage, rules) | overlaps(stage)
    if isinstance(stage, Cyclone):
        found = found | (np.asarray(stage.shape.outlet) > stage.shape.width_at_tube)
    if isinstance(stage, SlottedDisc):
        narrowest = np.minimum.reduce(np.broadcast_arrays(*(np.asarray(slot.width) for slot in stage.slots)))
        found = found | (narrowest < rules["slot.least"])
        clear = stage.clearance(rules["swirl.elbow-reach"])
        if clear is not None:
            found = found | (np.asarray(clear) < rules["slot.clearance"])
    return np.asarray(found)


def behind(stage: Separator, line: Line) -> list[Element]:
    """The hoses and fittings between a separator and the vacuum, or the next stage."""
    at = [part.id for part in line.trunk].index(stage.id)
    found: list[Element] = []
    for part in line.trunk[at + 1 :]:
        if isinstance(part, Separator | WetStage):
            break
        found.append(part)
    return found


def _branch_parts(branches: tuple[Branch, ...]) -> list[Element]:
    return [part for branch in branches for part in (*branch.elements, *_branch_parts(branch.branches))]
