"""Filters and bags: what they hold back and what they cost in suction."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values


def cake_coefficient(diameter: Values, base: Values, least: Values, most: Values) -> Array:
    """K2(d), resistance of a cake of one size [1/s]: base·(50 µm/d), held within least … most; `diameter` [m].

    Parameters
    ----------
    diameter : of a grain [m]
    base : resistance of a cake of 50 µm grains [1/s]
    least : lowest that is believed [1/s]
    most : highest that is believed [1/s]
    """
    return np.asarray(np.clip(base * 50e-6 / np.asarray(diameter), least, most))


def cake_loss(cake_resistance: Values, face_velocity: Values) -> Values:
    """Suction lost to the dust on a filter [Pa]: (K2 W)·V_f, K2 W [Pa s/m], V_f = flow over area [m/s].

    Parameters
    ----------
    cake_resistance : K2 W [Pa s/m]
    face_velocity : V_f, flow over area [m/s]
    """
    return cake_resistance * face_velocity


def buried_loss(clean: Values, load: Values, full: Values) -> Array:
    """What dust beyond full pleats adds to a filter by the area it takes [Pa s/m]: K1 (W/W_full − 1), at least 0.

    Parameters
    ----------
    clean : K1, of the clean medium [Pa s/m]
    load : W, dust held [kg/m^2]
    full : W_full, that fills the pleats [kg/m^2]
    """
    return np.asarray(clean * np.maximum(np.asarray(load) / full - 1.0, 0.0))


def cake_left(cleaning: Values, most: Values, over: Values) -> Array:
    """Share of a cake that stays after the n-th cleaning [-]: r∞ (1 − e^(−n/n0)).

    Parameters
    ----------
    cleaning : n [-]
    most : r∞ [-]
    over : n0 [-]
    """
    return np.asarray(most * -np.expm1(-np.asarray(cleaning) / over))


def clean_penetration(diameter: Values, base: Values, scale: Values, power: Values) -> Array:
    """Share of a size that passes a clean filter or bag [-].

    Parameters
    ----------
    diameter : [m]
    base : share that passes at the size `scale`; a bag 0.5, paper 0.1 [-]
    scale : a bag 2e-6, paper 1e-6 [m]
    power : of d/scale; a bag 0.7, paper 0.5 [-]
    """
    return np.asarray(np.power(base, np.power(np.asarray(diameter) / scale, power)))


def caked_penetration(clean: Values, load: Values, cake: Values) -> Array:
    """The same behind the dust it holds [-]: clean·e^(−W/cake).

    Parameters
    ----------
    clean : penetration of the clean medium [-]
    load : W, dust held [kg/m^2]
    cake : load that cuts the penetration to 1/e [kg/m^2]
    """
    return np.asarray(clean * np.exp(-np.asarray(load) / cake))


def tank_drop_share(diameter: Values, scale: Values) -> Array:
    """Share of a size that falls out in the vacuum's own tank before the filter [-]: 1/(1 + scale/d).

    Parameters
    ----------
    diameter : of a grain [m]
    scale : size of which half falls out [m]
    """
    return np.asarray(1.0 / (1.0 + scale / np.asarray(diameter)))
