"""Particle sizes: the grid, the log-normal mix, and how fast a grain falls."""

from __future__ import annotations

import numpy as np
from scipy.special import ndtr

from fenwick.core.arrays import Array, Values

GRAVITY = 9.80665  #: [m/s^2]
SIZE_RANGE = (0.5e-6, 20e-3)  #: [m]
SIZE_COUNT = 60
BREATHED, DEEP = 10e-6, 4e-6  #: that reach the throat, and the lungs' end: the usual conventions [m]
#: representative diameters, log-spaced [m], shape (60, 1): the axis before the variant
SIZES: Array = np.geomspace(*SIZE_RANGE, SIZE_COUNT)[:, None]
_STEP = np.log(SIZES[1, 0] / SIZES[0, 0])
_EDGES = np.concatenate([[-np.inf], np.log(SIZES[:-1, 0]) + 0.5 * _STEP, [np.inf]])[:, None]


def lognormal_weights(median: Values, geometric_sd: Values) -> Array:
    """Mass share of one log-normal mode in each size class [-], shape (60, 1 or n), columns adding up to 1.

    Parameters
    ----------
    median : by mass [m]
    geometric_sd : > 1 [-]

    Notes
    -----
    Differences of the cumulative distribution at the class edges; the end classes take the tails.
    """
    z = (_EDGES - np.log(np.atleast_1d(median))) / np.log(np.atleast_1d(geometric_sd))
    return np.asarray(np.diff(ndtr(z), axis=0))


def mass_median(mass: Array) -> Array:
    """Size that half of some dust is finer than [m], shape (n,); the smallest where there is none.

    Parameters
    ----------
    mass : in each size class, any unit, shape (60, n)
    """
    grown = np.cumsum(mass, axis=0)
    at = np.argmax(grown >= 0.5 * grown[-1], axis=0)
    return np.asarray(SIZES[np.where(grown[-1] > 0.0, at, 0), 0])


def terminal_velocity(diameter: Values, particle_density: Values, air_density: Values, viscosity: Values) -> Array:
    """Speed at which a grain falls in still air [m/s], broadcast shape.

    Parameters
    ----------
    diameter : of the equal-volume sphere [m]
    particle_density, air_density : [kg/m^3]
    viscosity : [Pa s]

    Notes
    -----
    Brown & Lawler, J. Environ. Eng. 129 (2003) 222, explicit form for spheres, Re up to 2e5:
    u* = [(18/d*²)^(0.898 (0.936 d* + 1)/(d* + 1)) + (0.317/d*)^0.449]^−1.114, d* = d (g ρ (ρp − ρ)/μ²)^(1/3).
    Within 8 % of the measured drag of spheres.
    """
    drive = GRAVITY * (np.asarray(particle_density) - air_density)
    d_star = diameter * np.cbrt(air_density * drive / np.square(viscosity))
    bend = 0.898 * (0.936 * d_star + 1.0) / (d_star + 1.0)
    u_star = (np.power(18.0 / d_star**2, bend) + np.power(0.317 / d_star, 0.449)) ** -1.114
    return np.asarray(u_star * np.cbrt(viscosity * drive / np.square(air_density)))
