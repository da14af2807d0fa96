"""Whether the largest pieces pass: up a vertical run and through the tightest place; and when all of it is out."""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil

import numpy as np

from fenwick.core.arrays import Array, Values, one_value
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.dust import Dust
from fenwick.core.components.elements import Element, Gate, Hose, Leak, Plate, Reducer
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas.sizes import SIZES, all_densities, terminal_velocity
from fenwick.core.judging.check import Check, graded
from fenwick.core.line.beds import Beds
from fenwick.core.line.catch import ahead_of_stages
from fenwick.core.line.line import Leaf, Line
from fenwick.core.line.operating import OperatingPoint

COARSEST = 0.99  #: share of the mass that is finer than the largest grain counted [-]


def largest_piece(dust: Dust) -> float:
    """The longest chip, or the size than which all but a hundredth of the mass is finer [m]."""
    if dust.longest_chip is not None:
        return dust.longest_chip
    finer = np.cumsum(all_densities(dust.weights)[:, 0])
    return float(SIZES[np.searchsorted(finer, COARSEST * finer[-1])].item())


def ahead_of_separator(line: Line, leaf: Leaf) -> list[Element]:
    """The parts that carry the whole dust of a tool: to the separator, or to the vacuum where there is none."""
    return [*(part for branch in leaf.way for part in branch.elements), *ahead_of_stages(line)]


def lift_checks(line: Line, point: OperatingPoint) -> list[Check]:
    """Every rising hose with dust in it: air speed against the fall of the largest piece."""
    if line.dust is None:
        return []
    found = []
    seen: set[str] = set()
    for leaf in line.leaves:
        if not leaf.open:
            continue
        for part in ahead_of_separator(line, leaf):
            if isinstance(part, Hose) and part.id not in seen and np.max(part.rise) > 0.0:
                seen.add(part.id)
                row = point.stations.index(part.id)
                speed, density = point.stations.velocity[row], point.stations.density_mean[row]
                falls = terminal_velocity(
                    largest_piece(line.dust), line.dust.particle_density, density, line.site.viscosity
                )
                sure = line.rules["chip.lift"] * falls
                found.append(
                    Check(
                        "vertical-lift", graded(speed < falls, speed < sure), speed, np.asarray(falls), "speed", part.id
                    )
                )
    return found


def bed_checks(line: Line, settled: Beds | None) -> list[Check]:
    """The bed that leaves its run the least room for the longest chip, of those that grow in every variant."""
    if settled is None or line.dust is None or not np.any(settled.share > 0.0):
        return []
    room = settled.passage / np.maximum(settled.least, 1e-9)
    worst = np.argmin(np.where(settled.share > 0.0, room, np.inf), axis=0)
    column = np.arange(worst.size)
    passage, least, share = (values[worst, column] for values in (settled.passage, settled.least, settled.share))
    chips = line.rules["chip.passage"] * (line.dust.longest_chip or 0.0)
    first = int(worst[0])
    notes = tuple(float(values[first, 0]) for values in (settled.volume, settled.suction, settled.share))
    plugs = (share > 0.0) & (passage <= least)
    level = graded(plugs, (share > 0.0) & (passage < chips))
    return [Check("bed", level, passage, least, "length", settled.ids[first], notes=notes)]


def bridging_checks(line: Line, point: OperatingPoint) -> list[Check]:
    """The tightest place on every open tool's way, against its longest chip; none for dust without chips."""
    if line.dust is None or line.dust.longest_chip is None:
        return []
    found = []
    n = point.mass_flow.shape
    chip = np.full(n, line.dust.longest_chip)
    limit = line.rules["chip.passage"] * chip
    for leaf in line.leaves:
        if not leaf.open:
            continue
        places = list(_passages(line, leaf))
        widths = np.stack([np.broadcast_to(np.asarray(width, dtype=float), n) for _, width in places])
        tightest = np.argmin(widths, axis=0)
        width = np.min(widths, axis=0)
        part = places[int(tightest[0])][0]
        found.append(Check("bridging", graded(width < chip, width < limit), width, limit, "length", part))
    return found


def _passages(line: Line, leaf: Leaf) -> Iterator[tuple[str, Values]]:
    yield leaf.id, leaf.port.bore
    for branch in leaf.way:
        if branch.gate_opening is not None:
            own = [width for part in branch.elements if (width := _width(part)) is not None]
            yield branch.id, _open_width(own[-1] if own else leaf.port.bore, branch.gate_opening)
    for part in ahead_of_separator(line, leaf):
        width = _width(part)
        if width is not None:
            yield part.id, width
    first = next(iter(line.separators), None)  # what passes it is dust, not chips
    if first is not None:
        g = first.geometry
        yield first.id, np.minimum(g.inlet_height, g.inlet_width) if _has_slit(first) else first.hose_bore


def _has_slit(stage: Separator) -> bool:
    """Whether the inlet is a rectangle, whose narrow side counts, rather than a round hose."""
    return isinstance(stage, Cyclone) or (isinstance(stage, SlottedDisc) and stage.inlet_rectangle is not None)


def _width(part: Element) -> Values | None:
    """The narrowest place of a part [m]; None for a gap in the wall."""
    match part:
        case Leak():
            return None
        case Reducer():
            return np.minimum(part.bore_in, part.bore_out)
        case Gate():
            return _open_width(part.bore, part.opening)
        case Plate():
            return np.minimum(part.bore, np.sqrt(4.0 * np.asarray(part.open_area) / np.pi))
        case WetStage():
            return part.throat_diameter
        case Separator():
            return part.hose_bore
        case _:
            return part.bore


def _open_width(bore: Values, opening: Values) -> Array:
    """How far a half-shut gate's slot opens across the bore, nearly [m]."""
    return np.asarray(np.asarray(bore) * np.asarray(opening))


def clearing_time(line: Line, point: OperatingPoint, port: int) -> Array:
    """Time until the last dust of a tool is at the separator, after it stops [s], shape (n,).

    Σ L / (0.7 v) + 1 s over the hoses on the way, v each one's own air speed; infinite where nothing flows.

    Parameters
    ----------
    port : its place among the leaves of the line [-]
    """
    rules = line.rules
    total = np.full(point.mass_flow.shape, one_value(rules["clear.extra"]))
    for part in ahead_of_separator(line, line.leaves[port]):
        if isinstance(part, Hose):
            speed = point.stations.velocity[point.stations.index(part.id)]
            with np.errstate(divide="ignore"):
                total = total + np.asarray(part.length) / (rules["clear.speed"] * speed)
    return np.asarray(total)


def run_on_seconds(clears: float) -> float:
    """What a switch must let the vacuum run on for, in whole seconds, never too few [s].

    Parameters
    ----------
    clears : that the line takes to clear [s]
    """
    return float(ceil(clears - 1e-9))
