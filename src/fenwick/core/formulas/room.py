"""Fine dust in the air of a room, well mixed."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values


def air_changes(changes: Values, cleaned: Values, volume: Values) -> Array:
    """Rate at which dust leaves the air of a room, λ [1/s].

    Parameters
    ----------
    changes : air changes with the outside [1/s]
    cleaned : air that a filter cleans, or that is blown outdoors [m^3/s]
    volume : V of the room [m^3]
    """
    return np.asarray(changes + np.asarray(cleaned) / volume)


def concentration(time: Values, source: Values, volume: Values, rate: Values, duration: Values) -> Array:
    """Dust in the air [kg/m^3] while something gives it off, and afterwards.

    Parameters
    ----------
    time : since it began [s]
    source : S [kg/s], from 0 to `duration` [s]
    volume : V [m^3]
    rate : λ [1/s], above 0
    duration : for which the source gives off dust [s]

    Notes
    -----
    dC/dt = S/V − λC from clean air: S/(λV)·(1 − e^(−λt)), then e^(−λ(t − duration)).
    """
    time = np.asarray(time, dtype=float)
    rising = -np.expm1(-rate * np.minimum(time, duration))
    return np.asarray(source / (rate * volume) * rising * np.exp(-rate * np.maximum(time - duration, 0.0)))


def time_to_share(share: Values, rate: Values) -> Array:
    """Time until dust in the air is down to a share of itself [s]: ln(1/share)/λ, λ in [1/s].

    Parameters
    ----------
    share : of the dust now, above 0 and up to 1 [-]
    rate : λ, above 0 [1/s]
    """
    return np.asarray(-np.log(share) / np.asarray(rate))
