"""How two round ends go together."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values


def diametral_gap(outer_inside: Values, inner_outside: Values) -> Values:
    """Play between two ends, one inside the other [m]: negative where the inner one is too thick.

    Parameters
    ----------
    outer_inside : inside diameter of the outer end [m]
    inner_outside : outside diameter of the inner end [m]
    """
    return outer_inside - inner_outside


def tape_wraps(gap: Values, thickness: Values) -> Array:
    """Wraps of tape that fill a gap [-]: each adds twice its thickness to the diameter.

    Parameters
    ----------
    gap : diametral [m]
    thickness : of the tape [m]
    """
    return np.asarray(np.ceil(np.maximum(np.asarray(gap), 0.0) / (2.0 * thickness) - 1e-9))


def stretch_needed(outer_inside: Values, inner_outside: Values) -> Values:
    """How far the outer end must be widened to go on, as a share of its diameter [-].

    Parameters
    ----------
    outer_inside : inside diameter of the end that goes over [m]
    inner_outside : outside diameter of the end that goes in [m]
    """
    return inner_outside / outer_inside - 1.0


def open_ring(outer_inside: Values, inner_outside: Values) -> Array:
    """Area left open between two ends that nothing seals [m^2], from their diameters [m].

    Parameters
    ----------
    outer_inside : inside diameter of the end that goes over [m]
    inner_outside : outside diameter of the end that goes in [m]
    """
    return np.asarray(np.pi / 4.0 * np.maximum(np.square(outer_inside) - np.square(inner_outside), 0.0))
