"""Paths of single grains through a separator, from the same velocities that give the cut size.

The swirl is a free vortex between the wall and the outlet's radius, a solid one inside it; the air drifts inwards
evenly over the orbit's height, down along the wall and up through the middle. A grain follows the air, drifts outwards
at the speed its fall velocity gives it under the swirl, and settles. Turbulence is left out: the picture shows the
middle way.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array, one_value
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.dust.separation import Inside, Separation, inside
from fenwick.core.formulas.sizes import GRAVITY, SIZES, over_densities, terminal_velocity
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint

STEP = 1.0 / 600.0  #: of the integration [s]
LONGEST = 2.0  #: a grain is followed for [s]
WALL_SLIDE = 0.3  #: a strand of dust slides down a wall at least that fast [m/s]
KEEP_EVERY = 3  #: steps between the places that are handed on
FALL_PLACES = 12  #: places of the way inside the bin
LANES = 5  #: grains of one size, spread over the inlet's width
PAST, BACK, BIN, AFLOAT = "past", "back", "bin", "afloat"
TIMES_CUT = (0.4, 1.0, 2.0, 5.0)  #: sizes followed, in cut sizes


@dataclass(frozen=True)
class Trace:
    """One grain's way; places of shape (k,)."""

    size: float  #: [m]
    end: str  #: past: into the outlet; back: kept by the wall, given back by the bin; bin; afloat: still turning
    radius: Array  #: [m]
    angle: Array  #: from the inlet, with the swirl [rad]
    depth: Array  #: below the roof [m]


def trace_sizes(cut_size: float, median: float) -> tuple[float, ...]:
    """Sizes worth following [m]: around the cut, and the middle of the dust.

    Parameters
    ----------
    cut_size : d50, the size kept by half [m]
    median : of the dust, by mass [m]
    """
    sizes = sorted({*(times * cut_size for times in TIMES_CUT), median})
    return tuple(float(np.clip(size, SIZES[0, 0], SIZES[-1, 0])) for size in sizes)


def traces(stage: Separator, line: Line, point: OperatingPoint, found: Separation) -> tuple[Trace, ...]:
    """Ways of grains of several sizes through a separator; none where the dust is not known.

    Parameters
    ----------
    stage, line, point, found : a single variant, solved and judged
    """
    if line.dust is None or found.grades is None:
        return ()
    air = inside(stage, line, point)
    sizes = trace_sizes(float(found.grades.cut_size[0]), one_value(line.dust.median))
    every = np.repeat(np.array(sizes), LANES)
    lanes = np.tile((np.arange(LANES) + 0.5) / LANES, len(sizes))
    falls = terminal_velocity(every, line.dust.particle_density, float(air.density[0]), float(line.site.viscosity))
    body = _Body(stage, air)
    places, ended = _follow(body, falls, lanes)
    bin_keeps = over_densities(found.grades.stays_in_bin, line.dust.weights)
    stays = np.interp(np.log(every), np.log(SIZES[:, 0]), bin_keeps[:, 0])
    return tuple(
        _trace(i, float(size), lane, float(stays[i]), body, places, ended)
        for i, (size, lane) in enumerate(zip(every, lanes, strict=True))
    )


class _Body:
    """The shape and the speeds inside, for one variant."""

    def __init__(self, stage: Separator, air: Inside) -> None:
        g = stage.geometry
        self.radius, self.outlet = one_value(g.body_radius), one_value(g.outlet_radius)
        self.inlet_width, self.inlet_height = one_value(g.inlet_width), one_value(g.inlet_height)
        self.orbit = one_value(g.orbit_height)
        self.flow = float(air.flow[0])
        self.wall_speed, core = float(air.swirl.wall_velocity[0]), float(air.swirl.core_velocity[0])
        self.power = np.log(max(core / self.wall_speed, 1.0)) / np.log(self.radius / self.outlet)
        self.mouth = one_value(getattr(stage, "outlet_length", 0.0))
        self.free = max(one_value(stage.free_height), 0.0)
        self.slots: tuple[tuple[float, float], ...] = ()
        self.cone: tuple[float, float, float] | None = None
        if isinstance(stage, Cyclone):
            s = stage.shape
            self.mouth, self.depth = one_value(s.outlet_length), one_value(s.height)
            self.cone = (one_value(s.cylinder), self.depth, one_value(s.dust_outlet) / 2.0)
        elif isinstance(stage, SlottedDisc):
            self.depth = one_value(stage.chamber_height)
            self.slots = tuple((one_value(s.start), one_value(s.arc)) for s in stage.slots)
        else:
            self.depth = max(one_value(stage.bin.height - np.asarray(stage.bin.fill_height)), self.mouth + 1e-3)

    def wall(self, depth: Array) -> Array:
        """Radius of the wall at a depth [m]."""
        if self.cone is None:
            return np.full_like(depth, self.radius)
        waist, end, narrow = self.cone
        share = np.clip((depth - waist) / max(end - waist, 1e-9), 0.0, 1.0)
        return np.asarray(self.radius + share * (narrow - self.radius))

    def swirl(self, radius: Array) -> Array:
        """Tangential speed [m/s]."""
        free = self.wall_speed * np.power(self.radius / np.maximum(radius, self.outlet), self.power)
        return np.asarray(free * np.minimum(radius / self.outlet, 1.0))

    def open_below(self, angle: Array) -> npt.NDArray[np.bool_]:
        """Whether the floor is open to the bin there."""
        if not self.slots:
            return np.ones(angle.shape, dtype=bool)
        turned = np.mod(angle, 2.0 * np.pi)
        return np.asarray(np.any([np.mod(turned - start, 2.0 * np.pi) <= arc for start, arc in self.slots], axis=0))


def _follow(body: _Body, falls: Array, lanes: Array) -> tuple[Array, dict[int, tuple[int, str]]]:
    """Places of every grain, shape (3, steps, grains), and at which step and how each ended."""
    steps = int(LONGEST / STEP)
    r = body.radius - lanes * body.inlet_width
    angle = np.zeros_like(r)
    z = np.full_like(r, 0.5 * body.inlet_height)
    places = np.empty((3, steps, r.size))
    ended: dict[int, tuple[int, str]] = {}
    alive = np.ones(r.size, dtype=bool)
    for step in range(steps):
        places[:, step] = r, angle, z
        r, angle, z = _move(body, falls, r, angle, z)
        at_wall = r >= body.wall(z) - 1e-4
        out = (r <= 0.9 * body.outlet) & (z <= body.mouth + 1e-3)
        down = at_wall & (z >= body.depth - 1e-4) & body.open_below(angle)
        for gone, end in ((out, PAST), (down, BIN)):
            for i in np.flatnonzero(gone & alive):
                ended[int(i)] = (step, end)
        alive &= ~(out | down)
        if not alive.any():
            return places[:, : step + 1], ended
    return places, ended


def _move(body: _Body, falls: Array, r: Array, angle: Array, z: Array) -> tuple[Array, Array, Array]:
    """One step of the integration."""
    wall = body.wall(z)
    turning = body.swirl(r)
    outwards = falls * np.square(turning) / (GRAVITY * r)
    below_mouth = z >= body.mouth
    inwards = np.where(below_mouth, body.flow / (2.0 * np.pi * np.maximum(r, body.outlet) * body.orbit), 0.0)
    left = np.clip(1.0 - (z - body.mouth) / max(body.orbit, 1e-6), 0.0, 1.0)  # of the air still on its way down
    ring = np.pi * np.maximum(np.square(wall) - body.outlet**2, 1e-5)
    inside = r < body.outlet
    axial = np.where(inside, -left * body.flow / (np.pi * body.outlet**2), left * body.flow / ring) + falls
    axial = np.where(inside & ~below_mouth, -body.flow / (np.pi * body.outlet**2), axial)
    r = np.clip(r + STEP * (outwards - inwards), 0.2 * body.outlet, None)
    r = np.where(below_mouth, r, np.maximum(r, body.outlet))  # the tube's wall
    angle = angle + STEP * turning / np.maximum(r, 1e-3)
    z = np.clip(z + STEP * np.where(r >= wall - 1e-4, np.maximum(axial, WALL_SLIDE), axial), 0.0, body.depth)
    return np.minimum(r, body.wall(z)), angle, z


def _trace(
    i: int, size: float, lane: float, stays: float, body: _Body, places: Array, ended: dict[int, tuple[int, str]]
) -> Trace:
    last, end = ended.get(i, (places.shape[1] - 1, AFLOAT))
    if end == BIN and lane > stays:
        end = BACK  # of the grains that reach the bin, this share comes back up
    chosen = np.unique([*range(0, last, KEEP_EVERY), last])
    way = places[:, chosen, i]
    if end in (BIN, BACK):
        way = np.concatenate([way, _below(way[:, -1], end, body)], axis=1)
    return Trace(size, end, *way)


def _below(last: Array, end: str, body: _Body) -> Array:
    """What the model says of the bin only as a share, drawn: down to the dust, or part of the way and up the middle."""
    radius, angle, depth = last
    t = np.linspace(0.0, 1.0, FALL_PLACES)
    turned = angle + 2.0 * t
    if end == BIN:
        return np.stack([np.full_like(t, radius), turned, depth + body.free * t])
    down = np.stack([radius + (0.4 * body.outlet - radius) * t, turned, depth + 0.6 * body.free * t])
    up = np.stack(
        [np.full_like(t, 0.4 * body.outlet), turned[-1] + 4.0 * t, depth + body.free * 0.6 * (1.0 - t) - depth * t]
    )
    return np.concatenate([down, up], axis=1)
