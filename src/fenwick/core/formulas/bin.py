"""What the bin under a separator gives back to the air. Rules of thumb throughout; their constants are arguments."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values


@dataclass(frozen=True)
class BinAir:
    """The air between chamber and bin; shape (n,) or shared."""

    flow: Values  #: through the separator [m^3/s]
    leak_flow: Values  #: drawn in below the separator [m^3/s]
    exchange: Values  #: x, share of the flow that dips into the bin [-]
    stir: Values  #: F, see `stirring` [-]
    bin_area: Values  #: at the dust's surface [m^2]
    opening: Values  #: between chamber and bin, A_o [m^2]


@dataclass(frozen=True)
class LedgeRules:
    """Constants of a ledge; rules of thumb."""

    per_10_mm: Values  #: added to x by 10 mm of it [-]
    zone: Values  #: in which the air still swirls, in bin widths [-]
    fade: Values  #: over which its effect fades, in bin widths [-]


def exchange_share(opening: Values, wall_velocity: Values, flow: Values, factor: Values, most: Values) -> Array:
    """x, share of the flow that dips into the bin and comes back [-]: min(most, k A_o v_θw / Q).

    Parameters
    ----------
    opening : between chamber and bin, A_o [m^2]
    wall_velocity : v_θw [m/s]
    flow : [m^3/s]
    factor : k, of the separator's kind [-]
    most : 0.9 by rule [-]
    """
    return np.asarray(np.minimum(most, factor * opening * wall_velocity / flow))


def ledge_exchange(depth: Values, below: Values, above_dust: Values, bin_diameter: Values, rules: LedgeRules) -> Array:
    """What a ledge adds to x [-]: all of it in the swirling zone, fading out below it and where dust buries it.

    Parameters
    ----------
    depth : δ, of the ledge [m]
    below : z, of the ledge under where dust leaves the swirl [m]
    above_dust : height of the ledge over the dust's surface [m]
    bin_diameter : D_bin [m]
    rules : its constants

    Notes
    -----
    0.05 (δ/10 mm)/(1 + e^((z − D_bin/2)/(0.1 D_bin))), times clip(above/(0.1 D_bin), 0, 1).
    """
    width = rules.fade * np.asarray(bin_diameter)
    inside = 1.0 / (1.0 + np.exp(np.clip((below - rules.zone * np.asarray(bin_diameter)) / width, -60.0, 60.0)))
    return np.asarray(rules.per_10_mm * depth / 0.010 * inside * np.clip(above_dust / width, 0.0, 1.0))


def heap_share(lean: Values) -> Array:
    """Of the height of the dust outlet, what a leaning heap leaves below it at its high side [-]: c.

    Parameters
    ----------
    lean : u = D_bin tan θ/(2H) [-]

    Notes
    -----
    1 − u up to ½, 1/(4u) beyond: a level heap under the rim, within 0.05 H.
    """
    u = np.asarray(lean, dtype=float)
    return np.asarray(np.where(u <= 0.5, 1.0 - u, 0.25 / np.maximum(u, 0.5)))


def slot_fall(width: Values, least: Values) -> Array:
    """Share of what reaches a slot that falls through it [-]: 1 − e^(−(w/8 mm)²).

    Parameters
    ----------
    width : w [m]
    least : 8 mm by rule [m]
    """
    return np.asarray(-np.expm1(-np.square(np.asarray(width) / least)))


def arc_fall(arc: Values, least: Values) -> Array:
    """Share of what turns over slots of some arc in all that finds them [-]: 1 − e^(−arc/30°).

    Parameters
    ----------
    arc : of all slots together [rad]
    least : 30° by rule [rad]
    """
    return np.asarray(-np.expm1(-np.asarray(arc) / least))


def stirring(free_height: Values, bin_diameter: Values, strength: Values, depth: Values) -> Array:
    """F, how much a full bin is stirred more than a deep empty one [-]: 1 + 5 e^(−free/(0.25 D_bin)).

    Parameters
    ----------
    free_height, bin_diameter : [m]
    strength : 5 by rule [-]
    depth : 0.25 by rule, in bin widths [-]
    """
    return np.asarray(1.0 + strength * np.exp(-np.maximum(free_height, 0.0) / (depth * bin_diameter)))


def retention(fall_velocity: Values, air: BinAir, leak_weight: Values, leak_jet: Values) -> Array:
    """r(d), share of a size that stays once it has fallen into the bin [-], broadcast shape (60, n).

    Parameters
    ----------
    fall_velocity : terminal velocity of the size, v_t [m/s], shape (60, 1 or n)
    air : what moves in the bin
    leak_weight : 7 by rule [-]
    leak_jet : 4 by rule [-]

    Notes
    -----
    [1 − x_e/(1 + (v_t/v_up)²)]·[1 − min(1, 7q)/(1 + (v_t/v_L)²)], v_up = x F² Q/A_bin, x_e = min(1, xF),
    q = Q_leak/Q, v_L = 4 Q_leak/A_o. Written without division by v, so that no leak and no exchange give 1.
    """
    vt2 = np.square(fall_velocity)
    up2 = np.square(air.exchange * np.square(air.stir) * air.flow / air.bin_area)
    jet2 = np.square(leak_jet * np.asarray(air.leak_flow) / air.opening)
    lifted = np.minimum(1.0, air.exchange * np.asarray(air.stir)) * up2 / np.maximum(up2 + vt2, 1e-300)
    blown = np.minimum(1.0, leak_weight * np.asarray(air.leak_flow) / air.flow) * jet2 / np.maximum(jet2 + vt2, 1e-300)
    return np.asarray((1.0 - lifted) * (1.0 - blown))


def brim_share(free_height: Values, bin_diameter: Values, brim: Values) -> Array:
    """What a nearly full bin can still take [-]: clip(free/(0.1 D_bin), 0, 1); `brim` 0.1 by rule, in bin widths.

    Parameters
    ----------
    free_height : between dust and rim [m]
    bin_diameter : [m]
    brim : free height from which nothing is lost, in bin diameters [-]
    """
    return np.asarray(np.clip(free_height / (brim * bin_diameter), 0.0, 1.0))


def tilt_share(tilt: Values, power: Values) -> Array:
    """Share kept when the separator leans by `tilt` [rad] from upright [-]: cos^k.

    Parameters
    ----------
    tilt : from upright [rad]
    power : k [-]
    """
    return np.asarray(np.power(np.cos(tilt), power))
