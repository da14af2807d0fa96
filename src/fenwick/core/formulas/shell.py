"""When a bin folds under suction, a ring gives way, a lid is drawn in; what lets the suction out; sheet bent cold."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.formulas.orifice import orifice_flow


def collapse_pressure(
    diameter: Values, bay_length: Values, wall: Values, youngs_modulus: Values, poisson_ratio: Values
) -> Array:
    """External pressure at which a plain cylinder of perfect shape buckles [Pa].

    Parameters
    ----------
    diameter : D [m]
    bay_length : L, clear between stiffeners or ends [m]
    wall : t [m]
    youngs_modulus : E [Pa]
    poisson_ratio : ν [-]

    Returns
    -------
    Infinite where L/D is so short that the formula does not limit.

    Notes
    -----
    The larger of 2.42 E (t/D)^2.5 / ((1−ν²)^0.75 (L/D − 0.45 √(t/D))) (US Experimental Model Basin) and the
    long-tube value 2 E (t/D)³/(1−ν²).
    """
    thin = np.asarray(wall / diameter)
    slender = bay_length / diameter - 0.45 * np.sqrt(thin)
    short = 2.42 * youngs_modulus * thin**2.5 / ((1.0 - poisson_ratio**2) ** 0.75 * np.maximum(slender, 1e-12))
    long = long_tube_collapse(diameter, wall, youngs_modulus, poisson_ratio)
    return np.asarray(np.where(slender <= 1e-12, np.inf, np.maximum(short, long)))


def long_tube_collapse(diameter: Values, wall: Values, youngs_modulus: Values, poisson_ratio: Values) -> Array:
    """Suction that flattens a long plain tube [Pa]: 2E(t/D)³/(1−ν²).

    Parameters
    ----------
    diameter : D [m]
    wall : t, thickness [m]
    youngs_modulus : E [Pa]
    poisson_ratio : ν [-]
    """
    slender = np.asarray(wall) / diameter
    return np.asarray(2.0 * youngs_modulus * slender**3 / (1.0 - np.square(poisson_ratio)))


def ring_carries(stiffness: Values, diameter: Values, share: Values) -> Array:
    """External pressure that a ring round a shell carries [Pa]: 24 EI/(D³ L_t).

    Parameters
    ----------
    stiffness : EI of the ring's section, bent outwards [N m^2]
    diameter : D [m]
    share : L_t, height of the shell that it holds up [m]
    """
    return np.asarray(24.0 * stiffness / (np.asarray(diameter) ** 3 * share))


def section_stiffness(youngs_modulus: Values, outwards: Values, tall: Values) -> Values:
    """EI of a rectangular ring [N m^2]: E·tall·outwards³/12; E [Pa], sizes [m].

    Parameters
    ----------
    youngs_modulus : [Pa]
    outwards : size away from the wall [m]
    tall : size along the wall [m]
    """
    return youngs_modulus * tall * np.asarray(outwards) ** 3 / 12.0


def plate_stiffness(youngs_modulus: Values, thickness: Values, poisson_ratio: Values) -> Values:
    """D_f of a flat plate [N m]: E t³/(12(1 − ν²)); E [Pa], t [m].

    Parameters
    ----------
    youngs_modulus : [Pa]
    thickness : t [m]
    poisson_ratio : ν [-]
    """
    return youngs_modulus * np.asarray(thickness) ** 3 / (12.0 * (1.0 - np.asarray(poisson_ratio) ** 2))


RIM_SLIDES, RIM_HELD = 0.26, 1.85  #: c of the large deflection of a round plate by how its rim is held [-]


def lid_deflection(
    pressure: Values, radius: Values, stiffness: Values, thickness: Values, poisson_ratio: Values, rim: Values
) -> Array:
    """How far the middle of a round flat lid is drawn in [m].

    Parameters
    ----------
    pressure : p [Pa]
    radius : R [m]
    stiffness : D_f, with that of a glued stiffener added [N m]
    thickness : t [m]
    poisson_ratio : ν [-]
    rim : c, from `RIM_SLIDES` to `RIM_HELD` [-]

    Notes
    -----
    w_lin = pR⁴(5+ν)/(64 D_f (1+ν)) for a simply supported plate; then w/t + c(w/t)³ = w_lin/t for large deflections
    (Timoshenko & Woinowsky-Krieger, Theory of Plates and Shells).
    """
    nu = np.asarray(poisson_ratio)
    linear = np.asarray(pressure * np.asarray(radius) ** 4 * (5.0 + nu) / (64.0 * stiffness * (1.0 + nu)) / thickness)
    # the one real root of c x³ + x − linear = 0, in the hyperbolic form that never cancels
    scale = np.sqrt(3.0 * np.asarray(rim))
    return np.asarray(thickness * 2.0 / scale * np.sinh(np.arcsinh(1.5 * scale * linear) / 3.0))


def relief_area(flow: Values, pressure: Values, density: Values) -> Array:
    """Opening of a relief valve that lets a fan's flow in at its set suction [m^2]: Q/(0.61 √(2p/ρ)).

    Parameters
    ----------
    flow : of the fan at that suction [m^3/s]
    pressure : at which it opens [Pa]
    density : of the air [kg/m^3]
    """
    return np.asarray(flow / orifice_flow(1.0, np.asarray(pressure), density))


def bending_stress(youngs_modulus: Values, thickness: Values, radius: Values) -> Array:
    """Stress in a flat sheet bent cold to a radius [Pa]: E t/(2R); E [Pa], sizes [m].

    Parameters
    ----------
    youngs_modulus : [Pa]
    thickness : t [m]
    radius : R, to which it is bent [m]
    """
    return np.asarray(youngs_modulus * np.asarray(thickness) / (2.0 * np.asarray(radius)))
