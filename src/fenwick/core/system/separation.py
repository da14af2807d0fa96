"""What each separator keeps, size by size."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.dust import Dust
from fenwick.core.components.separator import SlottedDisc
from fenwick.core.formulas import bin as bin_rules
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.formulas.sizes import SIZES, terminal_velocity
from fenwick.core.formulas.swirl import Swirl, cut_size_orbit, grade_efficiency, limit_load, swirl_velocities
from fenwick.core.rules import RuleBook
from fenwick.core.system.layout import bin_leak_id, dust_load
from fenwick.core.system.line import Line
from fenwick.core.system.operating import OperatingPoint

MARK_STEPS = 401  #: heights tried for the fill mark


@dataclass(frozen=True)
class Grades:
    """What happens to each size of a known dust."""

    cut_size: Array  #: kept by half at the wall, shape (n,) [m]
    reaches_wall: Array  #: share of each size thrown to the wall [-], shape (60, n)
    stays_in_bin: Array  #: share of each size that the bin does not give back [-], shape (60, n)

    @property
    def kept(self) -> Array:
        """Share of each size that ends in the bin [-], shape (60, n)."""
        return self.reaches_wall * self.stays_in_bin


@dataclass(frozen=True)
class Separation:
    """One separator at work; arrays of shape (n,) unless said otherwise."""

    id: str
    inlet_velocity: Array  #: [m/s]
    pressure_drop: Array  #: [Pa]
    leak_share: Array  #: air drawn in below the separator over its flow [-]
    free_height: Array  #: from the disc to the dust [m]
    grades: Grades | None  #: None where the dust is not known


def separation(disc: SlottedDisc, line: Line, point: OperatingPoint) -> Separation:
    """A slotted disc at the line's operating point."""
    row = point.stations.index(disc.id)
    density = point.stations.density_mean[row]
    mass = point.stations.mass_flow[row]
    flow = mass / density
    load = dust_load(line, mass)
    swirl = swirl_velocities(disc.geometry, flow, line.rules["swirl.friction-shop"], load)
    leak = point.leak_flow[point.leak_ids.index(bin_leak_id(disc.id))]
    return Separation(
        id=disc.id,
        inlet_velocity=swirl.inlet_velocity,
        pressure_drop=point.stations.loss[row],
        leak_share=leak * point.room_density / np.maximum(mass, 1e-12),
        free_height=np.broadcast_to(np.asarray(disc.free_height, dtype=float), flow.shape),
        grades=None if line.dust is None else _grades(disc, line, line.dust, _Stream(swirl, flow, density, load, leak)),
    )


@dataclass(frozen=True)
class _Stream:
    """The air inside the separator; arrays of shape (n,)."""

    swirl: Swirl
    flow: Array
    density: Array
    load: Array
    leak: Array


def _grades(disc: SlottedDisc, line: Line, dust: Dust, stream: _Stream) -> Grades:
    geometry, rules = disc.geometry, line.rules
    cut = cut_size_orbit(
        geometry, stream.swirl, stream.flow, dust.particle_density, stream.density, line.site.viscosity
    )
    cut = np.asarray(rules["swirl.cut"] * cut)
    grade = grade_efficiency(SIZES, cut, rules["swirl.steepness-shop"])
    return Grades(cut, _with_surplus(grade, stream.load, cut, dust.median), _stays(disc, line, dust, stream))


def _with_surplus(grade: Array, load: Array, cut: Array, median: float) -> Array:
    """Above the limit load the surplus drops at once, whatever its size."""
    carried = np.where(load > 0.0, limit_load(load, cut, median) / np.maximum(load, 1e-300), 1.0)
    return np.asarray(1.0 - carried * (1.0 - grade))


def _stays(disc: SlottedDisc, line: Line, dust: Dust, stream: _Stream) -> Array:
    rules, box = line.rules, disc.bin
    surface = box.diameter_at(box.fill_height)
    free = disc.free_height
    zone = box.height - rules["bin.swirl-zone"] * surface
    ledges: Values = 0.0
    for ledge in box.ledges:
        swept = (ledge.height > zone) & (ledge.height > np.asarray(box.fill_height))
        ledges = np.asarray(ledges + np.where(swept, ledge.depth, 0.0))
    swirl, flow = stream.swirl, stream.flow
    exchange = bin_rules.exchange_share(
        disc.opening, swirl.wall_velocity, flow, rules["bin.exchange-disc"], rules["bin.exchange-most"]
    )
    exchange = np.asarray(np.minimum(exchange + bin_rules.ledge_exchange(ledges, rules["bin.ledge"]), 1.0))
    stir = bin_rules.stirring(free, surface, rules["bin.stir"], rules["bin.stir-depth"])
    air = bin_rules.BinAir(flow, stream.leak, exchange, stir, bore_area(surface), disc.opening)
    falling = terminal_velocity(SIZES, dust.particle_density, stream.density, line.site.viscosity)
    kept = bin_rules.retention(falling, air, rules["bin.leak-weight"], rules["bin.leak-jet"])
    upright = bin_rules.tilt_share(disc.tilt, rules["bin.tilt-power"])
    return np.asarray(kept * bin_rules.brim_share(free, surface, rules["bin.brim"]) * upright)


def fill_mark(disc: SlottedDisc, rules: RuleBook) -> tuple[float, float]:
    """(height above the floor [m], volume below it [m^3]) up to which the bin may fill before the air stirs it up.

    0 where even an empty bin is too shallow. For the first variant.
    """
    heights = np.linspace(0.0, disc.bin.height, MARK_STEPS)
    surface = disc.bin.diameter_at(heights)
    slope = 0.5 * surface * np.tan(np.max(disc.tilt))
    spare = disc.bin.height - heights - slope - np.max(rules["bin.stir-depth"]) * surface
    height = float(np.max(heights[spare >= 0.0], initial=0.0))
    return height, float(disc.bin.volume_to(height))
