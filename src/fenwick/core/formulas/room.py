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


def falls_out(fall_velocity: Values, height: Values) -> Array:
    """Rate at which grains fall out of well-mixed air [1/s]: v_t/H.

    Parameters
    ----------
    fall_velocity : v_t [m/s]
    height : H, of the room [m]
    """
    return np.asarray(np.asarray(fall_velocity) / height)


def dose(source: Values, volume: Values, rate: Values, duration: Values) -> Array:
    """Concentration summed over a job and all the time after it [kg s/m^3]: S D/(V λ); inf where nothing takes it away.

    Parameters
    ----------
    source : S [kg/s]
    volume : V [m^3]
    rate : λ [1/s]
    duration : D, for which the source gives off dust [s]
    """
    given, rate = np.broadcast_arrays(source * np.asarray(duration) / volume, np.asarray(rate, dtype=float))
    return np.asarray(np.divide(given, rate, out=np.where(given > 0.0, np.inf, 0.0), where=rate > 0.0))
