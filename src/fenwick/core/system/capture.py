"""What each tool port catches of the dust made there."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.components.dust import Dust
from fenwick.core.formulas.capture import airborne_share, captured_airborne_share, velocity_at_distance
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.formulas.sizes import SIZES
from fenwick.core.rules import CONTAINMENT_M3_H, RELEASE_VELOCITY
from fenwick.core.system.line import Leaf, Line
from fenwick.core.system.operating import OperatingPoint
from fenwick.core.system.transport import SETTLES, judge_carrying


@dataclass(frozen=True)
class Capture:
    """One open port with a known hood; arrays of shape (n,) unless said otherwise."""

    id: str
    velocity: Array  #: at the dust [m/s]
    needed: float  #: middle of the band for this release [m/s]
    airborne: Array  #: share of the floating dust caught [-]
    caught: Array  #: share of each size caught [-], shape (60, n)
    floating: Array  #: share of each size that floats [-], shape (60, 1)
    total: Array  #: share of all dust caught, by mass [-]


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
    port, hood = leaf.port, leaf.port.hood
    assert hood is not None
    low, high = RELEASE_VELOCITY[hood.release]
    needed = float(np.sqrt(low * high))
    velocity = velocity_at_distance(flow, bore_area(port.bore), hood.distance, port.entry == "flanged")
    floats = airborne_share(SIZES, line.rules["capture.airborne-size"])
    airborne = captured_airborne_share(velocity, needed, line.rules["capture.missed"], line.rules["capture.power"])
    # what the tool throws into the port stays caught only while the port carries it
    thrown = hood.thrown_share * (judge_carrying(bore_velocity, dust.conveying) > SETTLES)
    caught = floats * airborne + (1.0 - floats) * thrown
    total = np.sum(dust.weights * caught, axis=0)
    return Capture(leaf.id, velocity, needed, airborne, caught, floats, total)


@dataclass(frozen=True)
class Caught:
    """What all open ports catch together; shares of the dust made there."""

    caught: Array  #: of each size [-], shape (60, n)
    missed_floating: Array  #: of each size [-], shape (60, n)


def caught_together(line: Line, captures: tuple[Capture, ...]) -> Caught | None:
    """All open ports weighted by the dust made at each; None where a hood, or with several a rate, is not known."""
    working = [leaf for leaf in line.leaves if leaf.open]
    if not captures or len(captures) != len(working):
        return None
    rates = [leaf.port.dust_rate for leaf in working]
    if len(working) == 1:
        rates = [1.0]
    if any(rate is None for rate in rates):
        return None
    made = [np.asarray(rate, dtype=float) for rate in rates]
    total = np.asarray(sum(made))
    if not np.all(total > 0.0):
        return None
    shares = [rate / total for rate in made]
    return Caught(
        np.asarray(sum(s * port.caught for s, port in zip(shares, captures, strict=True))),
        np.asarray(sum(s * port.floating * (1.0 - port.airborne) for s, port in zip(shares, captures, strict=True))),
    )


def containment_flow(machine: str | None) -> tuple[float, float] | None:
    """Flow that contains fine dust at a machine, (low, high) [m^3/s]; None where it is not known."""
    if machine is None or machine not in CONTAINMENT_M3_H:
        return None
    low, high = CONTAINMENT_M3_H[machine]
    return low / 3600.0, high / 3600.0
