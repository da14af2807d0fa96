"""How something that stands tips over."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.formulas.sizes import GRAVITY


def tipping_force(mass: Values, base: Values, height: Values) -> Array:
    """Sideways pull that tips something over its edge [N]: m g (b/2)/h.

    Parameters
    ----------
    mass : [kg]
    base : b, across what it stands on [m]
    height : h, at which it is pulled [m]
    """
    return np.asarray(mass * GRAVITY * 0.5 * np.asarray(base) / np.asarray(height))


CASTERS = 4  #: under a cart


def caster_share(mass: Values) -> Array:
    """What one of four casters must bear [kg]: on a floor that is not flat, three of them stand.

    Parameters
    ----------
    mass : of all that rolls [kg]
    """
    return np.asarray(mass) / (CASTERS - 1)


def tipping_angle(base: Values, centre: Values) -> Array:
    """Lean at which something tips by itself [rad]: atan((b/2)/h_c), h_c the height of its centre of mass [m].

    Parameters
    ----------
    base : b, width of what it stands on [m]
    centre : h_c, height of the centre of mass [m]
    """
    return np.asarray(np.arctan2(0.5 * np.asarray(base), centre))
