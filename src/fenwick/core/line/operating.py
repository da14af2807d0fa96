"""The operating point of a line and what a gauge would read at every station."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values, join_variants, take_variants
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.line.catch import Catch
from fenwick.core.line.layout import lay_out
from fenwick.core.line.line import Line
from fenwick.core.line.solver import Fan, Flows, RoomAir, solve_network

CHUNK = 4000  #: variants solved together: large enough for numpy, small enough for the processor's cache


@dataclass(frozen=True)
class Stations:
    """Every part of the line in the order of the air; arrays of shape (stations, n)."""

    ids: tuple[str, ...]
    kinds: tuple[str, ...]
    mass_flow: Array  #: [kg/s]
    flow: Array  #: at local density, where the part ends [m^3/s]
    velocity: Array  #: likewise [m/s]
    loss: Array  #: total suction spent in the part [Pa]
    total_suction: Array  #: where the part ends [Pa]
    static_suction: Array  #: as a gauge on the wall reads it, where the part ends [Pa]
    density_mean: Array  #: over the part [kg/m^3]

    def index(self, name: str) -> int:
        """Row of a part; ValueError when there is none of that name."""
        return self.ids.index(name)


@dataclass(frozen=True)
class OperatingPoint:
    """Solved flows; arrays of shape (n,) unless said otherwise."""

    stations: Stations
    port_flow: Array  #: at room density, shape (ports, n) [m^3/s]
    port_velocity: Array  #: in the port's bore, at room density, shape (ports, n) [m/s]
    leak_ids: tuple[str, ...]
    leak_flow: Array  #: at room density, shape (leaks, n) [m^3/s]
    mass_flow: Array  #: at the vacuum [kg/s]
    suction: Array  #: total suction the fan makes [Pa]
    flow: Array  #: at the vacuum, local density [m^3/s]
    room_density: Array  #: [kg/m^3]
    sealed_suction: Array  #: with everything shut [Pa]
    caught: Array  #: dust that enters the first stage, or the vacuum [kg/s]; 0 where it is not known
    residual: Array  #: [Pa]
    passes: int


def operating_point(line: Line) -> OperatingPoint:
    """Solve a line for all its variants.

    Raises
    ------
    NotConvergedError
        When some variant does not settle.
    """
    n = line.variants
    if n <= CHUNK:
        return _solve_chunk(line, n)
    parts = [_solve_chunk(take_variants(line, slice(at, at + CHUNK)), min(CHUNK, n - at)) for at in range(0, n, CHUNK)]
    return join_variants(parts)


def _solve_chunk(line: Line, n: int) -> OperatingPoint:
    site, curve = line.site, line.vacuum.curve

    def per_variant(value: Values) -> Array:
        return np.broadcast_to(np.asarray(value, dtype=float), (n,))

    density = per_variant(site.density)
    fan = Fan(curve, density)
    catch = Catch(line)
    network = lay_out(line, catch)
    flows = solve_network(network, fan, RoomAir(site.pressure, site.temperature, site.viscosity))
    stations = _stations(network.ids, network.kinds, network.area_out, flows)
    entries = [network.ids.index(f"{leaf.id}:entry") for leaf in line.leaves]
    port_flow = flows.mass_flow[entries] / density
    areas = np.stack([per_variant(bore_area(leaf.port.bore)) for leaf in line.leaves])
    leak_flow = np.zeros((0, n))
    if flows.leak_flow:
        leak_flow = np.stack([per_variant(flow) for flow in flows.leak_flow.values()]) / density
    return OperatingPoint(
        stations=stations,
        port_flow=port_flow,
        port_velocity=port_flow / areas,
        leak_ids=tuple(flows.leak_flow),
        leak_flow=leak_flow,
        mass_flow=flows.fan_mass_flow,
        suction=flows.fan_suction,
        flow=flows.fan_mass_flow / flows.density_out[-1],
        room_density=density,
        sealed_suction=per_variant(curve.sealed_in_room(density)),
        caught=per_variant(catch.rate(port_flow)),
        residual=flows.residual,
        passes=flows.passes,
    )


def _stations(ids: tuple[str, ...], kinds: tuple[str, ...], area_out: Array, flows: Flows) -> Stations:
    flow = flows.mass_flow / flows.density_out
    return Stations(
        ids=ids,
        kinds=kinds,
        mass_flow=flows.mass_flow,
        flow=flow,
        velocity=flow / area_out,
        loss=flows.loss,
        total_suction=flows.total_suction,
        static_suction=flows.static_suction,
        density_mean=flows.density_mean,
    )
