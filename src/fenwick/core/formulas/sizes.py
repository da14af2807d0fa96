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


def all_densities(mass: Array) -> Array:
    """Mass in each size class, whatever the density of its grains [any unit], shape (60, n).

    Parameters
    ----------
    mass : in each class of grains, any unit, shape (60 k, n)
    """
    return np.asarray(mass.reshape(-1, SIZE_COUNT, mass.shape[-1]).sum(axis=0)) if len(mass) > SIZE_COUNT else mass


def over_densities(share: Array, mass: Array) -> Array:
    """A share of each size whatever the density of its grains [-], shape (60, n): the mean by mass, where there is any.

    Parameters
    ----------
    share : of each class of grains, shape (60 k, n) [-]
    mass : in each class, any unit, shape (60 k, n)
    """
    if len(share) == SIZE_COUNT:
        return share
    heavier = np.maximum(mass, 1e-300)  # where there is none, all densities count alike
    return np.asarray(all_densities(np.asarray(share * heavier)) / all_densities(heavier))


def mass_median(mass: Array) -> Array:
    """Size that half of some dust is finer than [m], shape (n,); the smallest where there is none.

    Parameters
    ----------
    mass : in each class of grains, any unit, shape (60 k, n)

    Notes
    -----
    Within the class that holds it, dust is taken to lie evenly over the logarithm of its size.
    """
    each = all_densities(mass)
    grown = np.cumsum(each, axis=0)
    half = 0.5 * grown[-1]
    at = np.argmax(grown >= half, axis=0)
    column = np.arange(each.shape[-1])
    inside = (half - grown[at, column]) / np.maximum(each[at, column], 1e-300) + 1.0
    median = SIZES[at, 0] * np.exp((np.clip(inside, 0.0, 1.0) - 0.5) * _STEP)
    return np.asarray(np.where(half > 0.0, median, SIZES[0, 0]))


def share_below(limit: float) -> Array:
    """Share of each size class that is finer than a limit [-], shape (60, 1): the class that holds it is cut there.

    Parameters
    ----------
    limit : within the grid [m]
    """
    return np.asarray(np.clip((np.log(limit / SIZES) / _STEP) + 0.5, 0.0, 1.0))


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
