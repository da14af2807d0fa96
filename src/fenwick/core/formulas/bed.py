"""The bed that dust at rest makes in a run. Rules of thumb; their constants are arguments."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values


def bed_share(velocity: Values, settles_below: Values, most: Values) -> Array:
    """Share of a bore that a bed fills, so that the rest carries [-]: min(most, 1 − v/v_settle), 0 where it carries.

    Parameters
    ----------
    velocity : v, in the empty bore [m/s]
    settles_below : lower end of the dust's conveying band [m/s]
    most : 0.9 by rule [-]
    """
    return np.asarray(np.clip(1.0 - np.asarray(velocity) / settles_below, 0.0, most))


def bore_left(bore: Values, share: Values) -> Array:
    """Round bore with the area that a bed leaves [m]: d √(1 − s).

    Parameters
    ----------
    bore : d, of the empty run [m]
    share : s, of it that is filled [-]
    """
    return np.asarray(np.asarray(bore) * np.sqrt(1.0 - np.asarray(share)))


def height_left(bore: Values, share: Values) -> Array:
    """Height over a bed [m]: d (1 − s).

    Parameters
    ----------
    bore : d, of the empty run [m]
    share : s, of it that is filled [-]
    """
    return np.asarray(np.asarray(bore) * (1.0 - np.asarray(share)))
