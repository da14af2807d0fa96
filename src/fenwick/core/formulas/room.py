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
    rate : λ [1/s]; 0 where nothing renews the air
    duration : for which the source gives off dust [s]

    Notes
    -----
    dC/dt = S/V − λC from clean air: S/(λV)·(1 − e^(−λt)), then e^(−λ(t − duration)); S·t/V where λ is 0.
    """
    time, rate = np.asarray(time, dtype=float), np.asarray(rate, dtype=float)
    given_off = np.minimum(time, duration)
    turns = rate * given_off
    kept = np.divide(-np.expm1(-turns), turns, out=np.ones_like(turns), where=turns > 0.0)
    return np.asarray(source / volume * given_off * kept * np.exp(-rate * np.maximum(time - duration, 0.0)))


def time_to_share(share: Values, rate: Values) -> Array:
    """Time until dust in the air is down to a share of itself [s]: ln(1/share)/λ, λ in [1/s].

    Parameters
    ----------
    share : of the dust now, above 0 and below 1 [-]
    rate : λ [1/s]; 0 where nothing renews the air: then it never clears, inf
    """
    wanted, rate = np.broadcast_arrays(-np.log(share), np.asarray(rate, dtype=float))
    return np.asarray(np.divide(wanted, rate, out=np.full(rate.shape, np.inf), where=rate > 0.0))
