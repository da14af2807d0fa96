"""What each tool port catches of the dust made there."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.components.dust import Dust
from fenwick.core.components.hood import Hood, Opening
from fenwick.core.line.catch import (
    HoodLaw,
    dust_at,
    floating_caught,
    floating_share,
    thrown_caught,
    tools_of,
)
from fenwick.core.line.extra_fan import extra_flow
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint
from fenwick.core.rules import CONTAINMENT_M3_H, RELEASE_VELOCITY


@dataclass(frozen=True)
class WayOfWorking:
    """A hood in one way of working; arrays of shape (n,)."""

    name: str
    share: float  #: of the time [-]
    area: Array  #: the air comes in through [m^2]
    face: Array  #: air speed in that area [m/s]
    velocity: Array  #: at the dust [m/s]
    airborne: Array  #: share of the floating dust caught [-]


@dataclass(frozen=True)
class Capture:
    """One open port with a known hood; arrays of shape (n,) unless said otherwise."""

    id: str
    ways: tuple[WayOfWorking, ...]
    velocity: Array  #: at the dust, in the worst way of working [m/s]
    face: Array  #: in the hood's opening, likewise [m/s]
    needed: float  #: middle of the band for this release [m/s]
    band: tuple[float, float]  #: of that release [m/s]
    drawn: Array  #: share of the floating dust drawn in, what gets past every hood left aside [-]
    airborne: Array  #: share of the floating dust caught, over all ways of working, an extra fan included [-]
    mouth: Array  #: air speed in the mouth that chips are thrown at [m/s]
    thrown: Array  #: share of the flying dust that goes into the port [-]
    to_line: Array  #: of what floats and is caught, the share the hose takes; an extra fan takes the rest [-]
    total: Array  #: share of all dust that this port catches, an extra fan included, by mass [-]
    tool_total: Array  #: likewise, that all open ports of the tool catch together [-]


def capture(line: Line, point: OperatingPoint) -> tuple[Capture, ...]:
    """Capture at every open port whose hood is described; the others are left out, never guessed."""
    if line.dust is None:
        return ()
    found: dict[int, Capture] = {}
    for group in tools_of(line):
        dust = dust_at(line, group) or line.dust
        ports = {i: _capture(i, hood, line, dust, point) for i in group if (hood := line.leaves[i].port.hood)}
        if len(ports) > 1:
            floating = floating_caught([port.drawn for port in ports.values()], line)
            total = _by_mass(dust, floating, thrown_caught([port.thrown for port in ports.values()]), line)
            ports = {i: replace(port, tool_total=total) for i, port in ports.items()}
        found |= ports
    return tuple(found[i] for i in sorted(found))


def _by_mass(dust: Dust, airborne: Array, thrown: Array, line: Line) -> Array:
    """Share of all dust of a tool caught, from shares of what floats and of what flies, by mass [-]."""
    floats = floating_share(dust, line)
    return np.asarray(np.sum(dust.weights * (floats * airborne + (1.0 - floats) * thrown), axis=0))


def _capture(at: int, hood: Hood, line: Line, dust: Dust, point: OperatingPoint) -> Capture:
    leaf, flow = line.leaves[at], point.port_flow[at]
    law = HoodLaw(leaf, hood, line)
    air = law.at(flow)
    past = line.rules["capture.past"]
    through = air.through if hood.encloses else flow  # an extra fan of an open hood has a mouth of its own
    rows = zip(law.openings, law.often, air.velocity, air.drawn, strict=True)
    ways = tuple(_way(opening, share, through, speed, (1.0 - past) * drawn) for opening, share, speed, drawn in rows)
    worst = np.argmin(np.stack(air.velocity), axis=0)
    airborne = np.asarray((1.0 - past) * air.drawn_in)
    total = _by_mass(dust, airborne, air.thrown, line)
    return Capture(
        id=leaf.id,
        ways=ways,
        velocity=np.asarray(np.choose(worst, air.velocity)),
        face=np.asarray(np.choose(worst, [way.face for way in ways])),
        needed=float(np.ravel(law.needed)[0]),
        band=RELEASE_VELOCITY[hood.release],
        drawn=air.drawn_in,
        airborne=airborne,
        mouth=air.mouth,
        thrown=air.thrown,
        to_line=air.to_line,
        total=total,
        tool_total=total,
    )


def _way(opening: Opening, often: float, through: Array, velocity: Array, airborne: Array) -> WayOfWorking:
    area = np.broadcast_to(np.asarray(opening.area, dtype=float), through.shape)
    return WayOfWorking(opening.name, often, area, through / area, velocity, airborne)


def tool_flow(line: Line, point: OperatingPoint, port: int) -> Array:
    """Air drawn at a tool by all its open ports and extra fans, at room density [m^3/s], shape (n,).

    Parameters
    ----------
    port : its place among the leaves of the line [-]
    """
    members = next((group for group in tools_of(line) if port in group), (port,))
    total: Array = np.zeros_like(point.port_flow[port])
    for i in members:
        hood = line.leaves[i].port.hood
        total = np.asarray(total + point.port_flow[i] + (extra_flow(hood.extra_fan, line) if hood else 0.0))
    return total


def containment_flow(machine: str | None) -> tuple[float, float] | None:
    """Flow that contains fine dust at a machine, (low, high) [m^3/s]; None where it is not known."""
    if machine is None or machine not in CONTAINMENT_M3_H:
        return None
    low, high = CONTAINMENT_M3_H[machine]
    return low / 3600.0, high / 3600.0
