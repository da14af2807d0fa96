"""What each tool port catches of the dust made there."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.components.dust import Dust
from fenwick.core.components.hood import Hood
from fenwick.core.formulas.capture import airborne_share, captured_airborne_share
from fenwick.core.formulas.sizes import SIZES
from fenwick.core.line.line import Leaf, Line
from fenwick.core.line.operating import OperatingPoint
from fenwick.core.line.transport import SETTLES, judge_carrying
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
    airborne: Array  #: share of the floating dust caught, over all ways of working [-]
    thrown: Array  #: share of the flying dust that goes into the port [-]
    to_line: Array  #: of what floats and is caught, the share the hose takes; an extra fan takes the rest [-]
    caught: Array  #: share of each size that goes into the hose [-], shape (60, n)
    floating: Array  #: share of each size that floats [-], shape (60, 1)
    total: Array  #: share of all dust that goes into the hose, by mass [-]


def capture(line: Line, point: OperatingPoint) -> tuple[Capture, ...]:
    """Capture at every open port whose hood is described; the others are left out, never guessed."""
    if line.dust is None:
        return ()
    return tuple(
        _capture(leaf, line, line.dust, point.port_flow[i], point.port_velocity[i])
        for i, leaf in enumerate(line.leaves)
        if leaf.port.hood is not None and leaf.open
    )


def _capture(leaf: Leaf, line: Line, dust: Dust, flow: Array, bore_velocity: Array) -> Capture:
    hood = leaf.port.hood
    assert hood is not None
    band = RELEASE_VELOCITY[hood.release]
    needed = float(np.sqrt(band[0] * band[1]))
    extra = 0.0 if hood.extra_fan is None else np.asarray(hood.extra_fan.flow)
    ways = _ways(leaf, hood, flow, flow + extra, needed, line)
    worst = np.argmin(np.stack([way.velocity for way in ways]), axis=0)
    floats = airborne_share(SIZES, line.rules["capture.airborne-size"])
    airborne = np.asarray(sum(way.share * way.airborne for way in ways))
    thrown = np.asarray(_thrown(hood, line) * (judge_carrying(bore_velocity, dust.conveying) > SETTLES))
    to_line = np.asarray(flow / (flow + extra)) if hood.extra_fan else np.ones_like(flow)
    caught = floats * airborne * to_line + (1.0 - floats) * thrown
    return Capture(
        id=leaf.id,
        ways=ways,
        velocity=np.asarray(np.choose(worst, [way.velocity for way in ways])),
        face=np.asarray(np.choose(worst, [way.face for way in ways])),
        needed=needed,
        band=band,
        airborne=airborne,
        thrown=np.broadcast_to(thrown, flow.shape),
        to_line=to_line,
        caught=caught,
        floating=floats,
        total=np.sum(dust.weights * caught, axis=0),
    )


def _ways(leaf: Leaf, hood: Hood, own: Array, flow: Array, needed: float, line: Line) -> tuple[WayOfWorking, ...]:
    """`own` flow goes into the hose; `flow` includes that of an extra fan."""
    openings = hood.openings(leaf.port.bore)
    often = sum(opening.share for opening in openings)
    ways = []
    for opening in openings:
        velocity = np.broadcast_to(hood.speed(flow, opening, leaf.port.entry == "flanged"), flow.shape)
        caught = captured_airborne_share(velocity, needed, line.rules["capture.missed"], line.rules["capture.power"])
        area = np.broadcast_to(np.asarray(opening.area, dtype=float), flow.shape)
        through = flow if hood.encloses else own  # an extra fan of an open hood has a mouth of its own
        ways.append(WayOfWorking(opening.name, opening.share / often, area, through / area, velocity, caught))
    return tuple(ways)


def _thrown(hood: Hood, line: Line) -> Array:
    """Share of the flying dust that reaches the port, a plate behind the tool included [-]."""
    aimed = np.asarray(hood.thrown_share)
    return np.asarray(aimed + line.rules["capture.rebound"] * (1.0 - aimed)) if hood.rebound else aimed


def tools_of(line: Line) -> tuple[tuple[int, ...], ...]:
    """Places of the open ports among the leaves, those of one tool together, in the order of the file."""
    groups: dict[str, list[int]] = {}
    for i, leaf in enumerate(line.leaves):
        if leaf.open:
            groups.setdefault(f"tool {leaf.port.tool}" if leaf.port.tool else f"port {leaf.id}", []).append(i)
    return tuple(tuple(group) for group in groups.values())


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
        total = np.asarray(total + point.port_flow[i] + (hood.extra_fan.flow if hood and hood.extra_fan else 0.0))
    return total


def containment_flow(machine: str | None) -> tuple[float, float] | None:
    """Flow that contains fine dust at a machine, (low, high) [m^3/s]; None where it is not known."""
    if machine is None or machine not in CONTAINMENT_M3_H:
        return None
    low, high = CONTAINMENT_M3_H[machine]
    return low / 3600.0, high / 3600.0
