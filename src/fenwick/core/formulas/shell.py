"""When a bin folds under suction."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values


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
    long = 2.0 * youngs_modulus * thin**3 / (1.0 - poisson_ratio**2)
    return np.asarray(np.where(slender <= 1e-12, np.inf, np.maximum(short, long)))
