"""The equilibrium-orbit model with wall friction: what a swirl separates and what it costs.

Barth and Muschelknautz, as set out by Hoffmann & Stein, Gas Cyclones and Swirl Tubes (2008), chapter 6. Symbols follow
that chapter. One model serves the cone cyclone and the flat chambers; they differ in wall area and orbit height.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values


@dataclass(frozen=True)
class SwirlGeometry:
    """A body of revolution with a tangential inlet and a central outlet tube; all in metres, shape () or (n,)."""

    body_radius: Values  #: R [m]
    outlet_radius: Values  #: Rx [m]
    inlet_height: Values  #: a [m]
    inlet_width: Values  #: b [m]
    orbit_height: Values  #: H − S, of the cylinder on which a grain is held or lost [m]
    wall_area: Values  #: A, inside wall with the outlet tube's outside [m^2]


@dataclass(frozen=True)
class Swirl:
    """Result of the orbit model per volume flow, shape (n,)."""

    inlet_velocity: Array  #: [m/s]
    wall_velocity: Array  #: v_θw, tangential at the wall [m/s]
    core_velocity: Array  #: v_θcs, tangential at the outlet's radius [m/s]
    outlet_velocity: Array  #: v_x, axial in the outlet tube [m/s]
    friction: Array  #: f [-]


def swirl_velocities(
    geometry: SwirlGeometry, flow: Values, wall_friction: Values, dust_load: Values, swirl_factor: Values = 1.0
) -> Swirl:
    """Velocities of the swirl.

    Parameters
    ----------
    geometry : inlet_width <= body_radius
    flow : volume flow [m^3/s]
    wall_friction : f0, clean air [-]
    dust_load : c0 [kg dust per kg air]
    swirl_factor : of an inlet that is not tangential, on v_θw [-]

    Notes
    -----
    ξ = b/R; α = (1/ξ){1 − √(1 + 4[(ξ/2)² − ξ/2]·√(1 − (1−ξ²)(2ξ−ξ²)/(1+c0)))};
    v_θw = v_in (R − b/2)/(αR); f = f0(1 + 2√c0); v_θcs = v_θw (R/Rx)/[1 + f A v_θw √(R/Rx)/(2Q)].
    """
    g = geometry
    q = np.asarray(flow)
    xi = g.inlet_width / g.body_radius
    inner = np.sqrt(np.maximum(1.0 - (1.0 - xi**2) * (2.0 * xi - xi**2) / (1.0 + dust_load), 0.0))
    alpha = (1.0 - np.sqrt(np.maximum(1.0 + 4.0 * ((xi / 2.0) ** 2 - xi / 2.0) * inner, 0.0))) / xi
    inlet = q / (g.inlet_height * g.inlet_width)
    wall = swirl_factor * inlet * (g.body_radius - g.inlet_width / 2.0) / (alpha * g.body_radius)
    friction = wall_friction * (1.0 + 2.0 * np.sqrt(dust_load))
    ratio = g.body_radius / g.outlet_radius
    wall_per_flow = wall / q
    core = wall * ratio / (1.0 + friction * g.wall_area * wall_per_flow * np.sqrt(ratio) / 2.0)
    outlet = q / (np.pi * np.square(g.outlet_radius))
    return Swirl(*(np.asarray(v) for v in (inlet, wall, core, outlet, friction)))


def cut_size_orbit(
    geometry: SwirlGeometry,
    swirl: Swirl,
    flow: Values,
    particle_density: Values,
    air_density: Values,
    viscosity: Values,
) -> Array:
    """d50, the size kept by half [m]: √(18 μ 0.9Q/(2π(ρp−ρ) v_θcs² (H−S))).

    Parameters
    ----------
    flow : volume flow at room density [m^3/s]
    particle_density : [kg/m^3]
    air_density : [kg/m^3]
    viscosity : dynamic, of air [Pa s]
    """
    lift = 2.0 * np.pi * (np.asarray(particle_density) - air_density) * swirl.core_velocity**2 * geometry.orbit_height
    return np.asarray(np.sqrt(18.0 * viscosity * 0.9 * flow / lift))


def loss_coefficient_orbit(
    geometry: SwirlGeometry, wall_friction: Values, dust_load: Values, swirl_factor: Values = 1.0
) -> Array:
    """Pressure drop as K on the outlet tube's velocity head ½ρv_x² [-], shape (n,).

    Parameters
    ----------
    wall_friction : f0, clean air [-]
    dust_load : c0 [kg dust per kg air]
    swirl_factor : of an inlet that is not tangential, on v_θw [-]

    Notes
    -----
    Δp = f A ρ (v_θw v_θcs)^1.5/(2·0.9Q) + [2 + (v_θcs/v_x)² + 3(v_θcs/v_x)^(4/3)]·½ρv_x². Every velocity is
    proportional to Q at a given dust load, so K does not depend on the flow.
    """
    s = swirl_velocities(geometry, 1.0, wall_friction, dust_load, swirl_factor)
    head = 0.5 * s.outlet_velocity**2
    body = s.friction * geometry.wall_area * (s.wall_velocity * s.core_velocity) ** 1.5 / (2.0 * 0.9)
    ratio = s.core_velocity / s.outlet_velocity
    return np.asarray(body / head + 2.0 + ratio**2 + 3.0 * np.power(ratio, 4.0 / 3.0))


def grade_efficiency(diameter: Values, cut_size: Values, steepness: Values) -> Array:
    """Share of a size that reaches the wall [-]: 1/(1 + (d50/d)^m), m the steepness.

    Parameters
    ----------
    diameter : of a grain [m]
    cut_size : d50, the size kept by half [m]
    steepness : m [-]
    """
    return np.asarray(1.0 / (1.0 + np.power(cut_size / np.asarray(diameter), steepness)))


LEAST_SURPLUS_LOAD = 2e-5  #: dust load from which anything can be a surplus [kg/kg]
TURNING_LOAD = float(np.exp(-6.7))  #: below which the published limit load would call a larger share surplus [kg/kg]


def limit_load(dust_load: Values, cut_size: Values, median_size: Values, factor: Values) -> Array:
    """c0L, the dust load an air stream can carry round the swirl [kg dust per kg air]; above it the surplus drops.

    Parameters
    ----------
    dust_load : c0, at least `TURNING_LOAD` [kg dust per kg air]
    cut_size : d50, the size kept by half [m]
    median_size : d_med of the dust that enters, by mass [m]
    factor : 0.025 as published [-]

    Notes
    -----
    0.025 (d50/d_med)(10 c0)^k, k = 0.15 for c0 >= 0.1, else −0.11 − 0.10 ln c0 (Muschelknautz).
    """
    c0 = np.asarray(dust_load, dtype=float)
    k = np.where(c0 >= 0.1, 0.15, -0.11 - 0.10 * np.log(c0))
    return np.asarray(factor * (cut_size / median_size) * np.power(10.0 * c0, k))


def surplus_share(dust_load: Values, cut_size: Values, median_size: Values, factor: Values) -> Array:
    """Share of the dust that is more than the swirl can carry, and drops at once whatever its size [-].

    Parameters
    ----------
    dust_load : c0 [kg dust per kg air]
    cut_size : d50, the size kept by half [m]
    median_size : d_med of the dust that enters, by mass [m]
    factor : 0.025 as published [-]

    Notes
    -----
    1 − c0L/c0, never negative. Below c0* = e^(−6.7) the published limit would make it rise again as dust gets less;
    there it is that at c0* times ln(c0/2e-5)/ln(c0*/2e-5), 0 from 2e-5 down, so that more dust is never kept worse.
    """
    c0 = np.asarray(dust_load, dtype=float)
    followed = np.maximum(c0, TURNING_LOAD)
    share = np.maximum(1.0 - limit_load(followed, cut_size, median_size, factor) / followed, 0.0)
    fading = np.log(np.maximum(c0, LEAST_SURPLUS_LOAD) / LEAST_SURPLUS_LOAD)
    return np.asarray(share * np.minimum(fading / np.log(TURNING_LOAD / LEAST_SURPLUS_LOAD), 1.0))
