"""What a tool port catches."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values

FLANGE_GAIN = 1.33  #: of a flanged over a plain round opening (Dalla Valle) [-]
SLOT_PLAIN, SLOT_FLANGED = 3.7, 2.6  #: of Q/(C L x) in front of a slot (Silverman) [-]


def velocity_at_distance(flow: Values, opening_area: Values, distance: Values, flanged: bool) -> Array:
    """Air speed on the axis in front of a round opening [m/s].

    Parameters
    ----------
    flow : [m^3/s]
    opening_area : A [m^2]
    distance : x, from the opening's face [m]
    flanged : with a flange at least as wide as the opening

    Notes
    -----
    Q/(10 x² + A), 1.33 times that when flanged (Dalla Valle 1939), never above Q/A.
    """
    plain = flow / (10.0 * np.square(distance) + opening_area)
    return np.asarray(np.minimum(plain * (FLANGE_GAIN if flanged else 1.0), flow / np.asarray(opening_area)))


def slot_velocity(flow: Values, length: Values, width: Values, distance: Values, flanged: bool) -> Array:
    """Air speed in front of a slot's middle [m/s].

    Parameters
    ----------
    flow : [m^3/s]
    length, width : L and w of the slot [m]
    distance : x, from the slot [m]
    flanged : with a flange along both sides

    Notes
    -----
    Q/(3.7 L x), flanged Q/(2.6 L x) (Silverman 1942), never above Q/(L w).
    """
    reach = (SLOT_FLANGED if flanged else SLOT_PLAIN) * np.asarray(distance)
    return np.asarray(flow / (length * np.maximum(reach, width)))


def reach_of_opening(flow: Values, opening_area: Values, velocity: Values, flanged: bool) -> Array:
    """Distance up to which the air before a round opening moves as fast as `velocity` [m]; 0 where nowhere.

    The inverse of `velocity_at_distance`; `flow` [m^3/s], `opening_area` [m^2], `velocity` [m/s].

    Parameters
    ----------
    flow : volume flow at room density [m^3/s]
    opening_area : [m^2]
    velocity : wanted there [m/s]
    """
    squared = ((FLANGE_GAIN if flanged else 1.0) * np.asarray(flow) / velocity - opening_area) / 10.0
    return np.asarray(np.sqrt(np.where(flow / np.asarray(opening_area) >= velocity, np.maximum(squared, 0.0), 0.0)))


def reach_of_slot(flow: Values, length: Values, width: Values, velocity: Values, flanged: bool) -> Array:
    """The same before a slot [m], the inverse of `slot_velocity`; sizes [m], `flow` [m^3/s], `velocity` [m/s].

    Parameters
    ----------
    flow : volume flow at room density [m^3/s]
    length : of the slot [m]
    width : of the slot [m]
    velocity : wanted there [m/s]
    """
    reach = np.asarray(flow) / ((SLOT_FLANGED if flanged else SLOT_PLAIN) * np.asarray(length) * velocity)
    return np.asarray(np.where(np.asarray(flow) / (np.asarray(length) * width) >= velocity, reach, 0.0))


def face_velocity(flow: Values, open_area: Values) -> Array:
    """Air speed in the openings of an enclosure [m/s]: Q/A, `flow` [m^3/s], `open_area` [m^2].

    Parameters
    ----------
    flow : volume flow at room density [m^3/s]
    open_area : of all openings [m^2]
    """
    return np.asarray(flow / np.asarray(open_area))


def missed_by_all(missed: Array) -> Array:
    """Share that several ports of one tool all miss [-]: the product of their own shares, along the first axis.

    Parameters
    ----------
    missed : share that each port misses, shape (ports, …) [-]
    """
    return np.asarray(np.prod(missed, axis=0))


def airborne_share(diameter: Values, scale: Values) -> Array:
    """Share of a size that floats rather than flies [-]: 1/(1 + (d/scale)²), `scale` 100 µm by rule.

    Parameters
    ----------
    diameter : of a grain [m]
    scale : size of which half floats [m]
    """
    return np.asarray(1.0 / (1.0 + np.square(np.asarray(diameter) / scale)))


def entering_share(mouth_velocity: Values, scale: Values) -> Array:
    """Share of what is thrown at a mouth that enters it [-]: 1 − e^(−v/scale), `scale` 1 m/s by rule.

    Parameters
    ----------
    mouth_velocity : air speed in the mouth itself [m/s]
    scale : speed at which 63 % enter [m/s]
    """
    return np.asarray(-np.expm1(-np.asarray(mouth_velocity) / scale))


def narrower_mouth_share(bore: Values, own_bore: Values, power: Values) -> Array:
    """What a mouth narrower than the one that chips are aimed at still gets of them [-]: (d/d_own)^k, at most 1.

    Parameters
    ----------
    bore : d, of the mouth [m]
    own_bore : d_own, of the mouth that the thrown share belongs to [m]
    power : k, 1 by rule [-]
    """
    return np.asarray(np.power(np.minimum(np.asarray(bore) / own_bore, 1.0), power))


def captured_airborne_share(velocity: Values, needed: Values, missed: Values, power: Values) -> Array:
    """Share of the floating dust caught [-]: 1 − 0.1^(r^1.5), r = velocity/needed; 0.1 and 1.5 by rule.

    Parameters
    ----------
    velocity : air speed at the dust [m/s]
    needed : speed that catches it [m/s]
    missed : share that escapes at the speed needed [-]
    power : of the ratio of the speeds [-]
    """
    ratio = np.maximum(np.asarray(velocity) / needed, 1e-12)  # logarithms are quicker than powers
    return np.asarray(-np.expm1(np.log(np.maximum(missed, 1e-300)) * np.exp(power * np.log(ratio))))
