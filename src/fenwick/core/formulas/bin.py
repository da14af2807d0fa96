"""What the bin under a separator gives back to the air. Rules of thumb throughout; their constants are arguments."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values


def exchange_share(opening: Values, wall_velocity: Values, flow: Values, factor: Values, ledge_depth: Values) -> Array:
    """x, share of the flow that dips into the bin and comes back [-].

    Parameters
    ----------
    opening : between chamber and bin, A_o [m^2]
    wall_velocity : v_θw [m/s]
    flow : [m^3/s]
    factor : of the separator's kind [-]
    ledge_depth : summed depth of the ledges in the swirling zone [m]

    Notes
    -----
    x = min(0.9, k A_o v_θw / Q) + 0.05 per 10 mm of ledge, never above 1.
    """
    return np.asarray(np.minimum(np.minimum(0.9, factor * opening * wall_velocity / flow) + 5.0 * ledge_depth, 1.0))


def stirring(free_height: Values, bin_diameter: Values) -> Array:
    """F, how much a full bin is stirred more than a deep empty one [-]: 1 + 5 e^(−free/(0.25 D_bin))."""
    return np.asarray(1.0 + 5.0 * np.exp(-np.maximum(free_height, 0.0) / (0.25 * bin_diameter)))


def retention(
    fall_velocity: Values,
    exchange: Values,
    stir: Values,
    flow: Values,
    bin_area: Values,
    leak_flow: Values,
    opening: Values,
) -> Array:
    """r(d), share of a size that stays once it has fallen into the bin [-], broadcast shape (60, n).

    Parameters
    ----------
    fall_velocity : terminal velocity of the size, v_t [m/s], shape (60, 1 or n)
    exchange : x [-]
    stir : F [-]
    flow : through the separator [m^3/s]
    bin_area : at the dust's surface [m^2]
    leak_flow : drawn in below the separator [m^3/s]
    opening : between chamber and bin, A_o [m^2]

    Notes
    -----
    [1 − x_e/(1 + (v_t/v_up)²)]·[1 − min(1, 7q)/(1 + (v_t/v_L)²)], v_up = x F² Q/A_bin, x_e = min(1, xF),
    q = Q_leak/Q, v_L = 4 Q_leak/A_o. Written without division by v, so that no leak and no exchange give 1.
    """
    vt2 = np.square(fall_velocity)
    up2 = np.square(exchange * stir**2 * flow / bin_area)
    jet2 = np.square(4.0 * np.asarray(leak_flow) / opening)
    lifted = np.minimum(1.0, exchange * stir) * up2 / np.maximum(up2 + vt2, 1e-300)
    blown = np.minimum(1.0, 7.0 * np.asarray(leak_flow) / flow) * jet2 / np.maximum(jet2 + vt2, 1e-300)
    return np.asarray((1.0 - lifted) * (1.0 - blown))


def brim_share(free_height: Values, bin_diameter: Values) -> Array:
    """What a nearly full bin can still take [-]: clip(free/(0.1 D_bin), 0, 1)."""
    return np.asarray(np.clip(free_height / (0.1 * bin_diameter), 0.0, 1.0))


def tilt_share(tilt: Values, power: Values) -> Array:
    """Share kept when the separator leans by `tilt` [rad] from upright [-]: cos^k."""
    return np.asarray(np.power(np.cos(tilt), power))
