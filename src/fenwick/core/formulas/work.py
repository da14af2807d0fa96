"""How much dust a piece of work makes."""

from __future__ import annotations

from fenwick.core.arrays import Values


def planed_volume(width: Values, depth: Values, length: Values) -> Values:
    """Solid wood planed or sanded off a board [m^3]: width × depth × length [m].

    Parameters
    ----------
    width : of the board [m]
    depth : taken off [m]
    length : of the board [m]
    """
    return width * depth * length


def sawn_volume(kerf: Values, thickness: Values, length: Values) -> Values:
    """Solid wood that one cut turns into dust [m^3]: kerf × thickness × length [m].

    Parameters
    ----------
    kerf : width of the cut [m]
    thickness : of the board [m]
    length : of the cut [m]
    """
    return kerf * thickness * length
