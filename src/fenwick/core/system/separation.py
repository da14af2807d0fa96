"""What each separator keeps, size by size."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.separator import SlottedDisc
from fenwick.core.formulas import bin as bin_rules
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.formulas.sizes import SIZES, terminal_velocity
from fenwick.core.formulas.swirl import cut_size_orbit, grade_efficiency, limit_load, swirl_velocities
from fenwick.core.system.layout import bin_leak_id, dust_load
from fenwick.core.system.line import Line
from fenwick.core.system.operating import OperatingPoint


@dataclass(frozen=True)
class Separation:
    """One separator at work; arrays of shape (n,) unless said otherwise."""

    id: str
    inlet_velocity: Array  #: [m/s]
    cut_size: Array  #: kept by half at the wall [m]
    pressure_drop: Array  #: [Pa]
    reaches_wall: Array  #: share of each size thrown to the wall [-], shape (60, n)
    stays_in_bin: Array  #: share of each size that the bin does not give back [-], shape (60, n)
    leak_share: Array  #: air drawn in below the separator over its flow [-]
    free_height: Array  #: from the disc to the dust [m]

    @property
    def kept(self) -> Array:
        """Share of each size that ends in the bin [-], shape (60, n)."""
        return self.reaches_wall * self.stays_in_bin


def separation(disc: SlottedDisc, line: Line, point: OperatingPoint) -> Separation:
    """A slotted disc at the line's operating point."""
    rules, dust, site = line.rules, line.dust, line.site
    row = point.stations.index(disc.id)
    density = point.stations.density_mean[row]
    mass = point.stations.mass_flow[row]
    flow = mass / density
    load = dust_load(line, mass)
    geometry = disc.geometry
    swirl = swirl_velocities(geometry, flow, rules["swirl.friction-shop"], load)
    cut = rules["swirl.cut"] * cut_size_orbit(geometry, swirl, flow, dust.particle_density, density, site.viscosity)
    grade = grade_efficiency(SIZES, cut, rules["swirl.steepness-shop"])
    leak = point.leak_flow[point.leak_ids.index(bin_leak_id(disc.id))]
    return Separation(
        id=disc.id,
        inlet_velocity=swirl.inlet_velocity,
        cut_size=np.asarray(cut),
        pressure_drop=point.stations.loss[row],
        reaches_wall=_with_surplus(grade, load, cut, dust.median),
        stays_in_bin=_stays(disc, line, flow, swirl.wall_velocity, leak, density),
        leak_share=leak * point.room_density / np.maximum(mass, 1e-12),
        free_height=np.broadcast_to(np.asarray(disc.free_height, dtype=float), flow.shape),
    )


def _with_surplus(grade: Array, load: Array, cut: Array, median: float) -> Array:
    """Above the limit load the surplus drops at once, whatever its size."""
    carried = np.where(load > 0.0, limit_load(load, cut, median) / np.maximum(load, 1e-300), 1.0)
    return np.asarray(1.0 - carried * (1.0 - grade))


def _stays(disc: SlottedDisc, line: Line, flow: Array, wall_velocity: Array, leak: Array, density: Array) -> Array:
    rules, box = line.rules, disc.bin
    surface = box.diameter_at(box.fill_height)
    free = disc.free_height
    zone = box.height - rules["bin.swirl-zone"] * surface
    ledges: Values = 0.0
    for ledge in box.ledges:
        swept = (ledge.height > zone) & (ledge.height > np.asarray(box.fill_height))
        ledges = np.asarray(ledges + np.where(swept, ledge.depth, 0.0))
    exchange = bin_rules.exchange_share(disc.opening, wall_velocity, flow, rules["bin.exchange-disc"], ledges)
    falling = terminal_velocity(SIZES, line.dust.particle_density, density, line.site.viscosity)
    kept = bin_rules.retention(
        falling, exchange, bin_rules.stirring(free, surface), flow, bore_area(surface), leak, disc.opening
    )
    upright = bin_rules.tilt_share(disc.tilt, rules["bin.tilt-power"])
    return np.asarray(kept * bin_rules.brim_share(free, surface) * upright)
