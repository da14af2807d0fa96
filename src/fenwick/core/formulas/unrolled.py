"""Lengths and angles of what is rolled, cut out and turned: exact geometry, no rule of thumb."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values


def wrap_length(inside: Values, thickness: Values) -> Array:
    """Length of the sheet that goes once round a cylinder, on its neutral axis and without overlap [m]: π(D + t).

    Parameters
    ----------
    inside : D, diameter [m]
    thickness : t, of the sheet [m]
    """
    return np.asarray(np.pi * (np.asarray(inside) + thickness))


def inside_of_wrap(length: Values, thickness: Values) -> Array:
    """Inside diameter that a wrap of a measured length has [m]: L/π − t.

    Parameters
    ----------
    length : once round, without overlap [m]
    thickness : t, of the sheet [m]
    """
    return np.asarray(np.asarray(length) / np.pi - thickness)


def wall_angle(outside_radius: Values, offset: Values, reach: Values) -> Array:
    """Where a line parallel to a pipe's axis meets a cylinder: θ from the radius parallel to that axis [rad].

    Parameters
    ----------
    outside_radius : Ro, of the cylinder [m]
    offset : of the pipe's axis from the cylinder's [m]
    reach : of the line from the pipe's axis, away from the cylinder's [m]

    Returns
    -------
    asin(y/Ro), y = offset + reach; a line that passes outside ends on the tangent generator, π/2.
    """
    y = np.asarray(offset) + reach
    return np.asarray(np.arcsin(np.clip(y / np.asarray(outside_radius), -1.0, 1.0)))


def pipe_cut_out(outside_radius: float, offset: float, pipe_radius: float, angles: Array) -> tuple[Array, Array]:
    """Cut-out of a tangential pipe in a wall unrolled on its outside: along the wall, and up from the pipe's axis [m].

    Parameters
    ----------
    outside_radius : Ro, of the wall [m]
    offset : e, of the pipe's axis from the cylinder's [m]
    pipe_radius : ro, outside [m]
    angles : φ round the pipe, 0 away from the cylinder's axis, shape (n,) [rad]

    Returns
    -------
    Along the wall against the air from the tangent generator, Ro (π/2 − θ), θ = asin((e + ro cos φ)/Ro); ro sin φ.
    """
    theta = wall_angle(outside_radius, offset, pipe_radius * np.cos(angles))
    return outside_radius * (np.pi / 2.0 - theta), pipe_radius * np.sin(angles)


def rectangle_cut_out(outside_radius: Values, inside: Values, width: Values) -> Array:
    """Length of a rectangular tangential inlet's cut-out in the unrolled wall [m]: Ro (π/2 − asin((D/2 − b)/Ro)).

    Parameters
    ----------
    outside_radius : Ro, of the wall [m]
    inside : D, diameter of the wall [m]
    width : b, of the inlet [m]
    """
    theta = wall_angle(outside_radius, np.asarray(inside) / 2.0, -np.asarray(width))
    return np.asarray(np.asarray(outside_radius) * (np.pi / 2.0 - theta))


def slot_end_angle(radius: Values, width: Values) -> Array:
    """Angle between a slot's end and the middle of the half circle that ends it [rad]: asin(w/2 / (R − w/2)).

    Parameters
    ----------
    radius : R, of its outer edge [m]
    width : w [m]
    """
    return np.asarray(np.arcsin(np.clip(np.asarray(width) / 2.0 / (radius - np.asarray(width) / 2.0), 0.0, 1.0)))


def round_slot_area(radius: Values, width: Values, arc: Values) -> Array:
    """Area of a slot whose ends are half circles within its arc [m^2]: w Rm (arc − 2δ) + π w²/4, Rm = R − w/2.

    Parameters
    ----------
    radius : R, of its outer edge [m]
    width : w [m]
    arc : between its ends [rad]
    """
    middle = np.asarray(radius) - np.asarray(width) / 2.0
    straight = np.asarray(arc) - 2.0 * slot_end_angle(radius, width)
    return np.asarray(width * middle * straight + np.pi / 4.0 * np.square(width))


def pivot_to_cutter(edge_radius: Values, cutter: Values, *, waste_outside: bool) -> Array:
    """From the pivot of a trammel to the middle of its cutter, which runs in the waste [m].

    Parameters
    ----------
    edge_radius : of the edge that is left [m]
    cutter : its diameter [m]
    waste_outside : whether what is cut away lies outside the edge
    """
    half = np.asarray(cutter) / 2.0
    return np.asarray(edge_radius + half if waste_outside else edge_radius - half)


def chord_angle(radius: float, sagitta: float) -> float:
    """Largest step along a circle whose chord stays that close to it [rad].

    Parameters
    ----------
    radius : [m]
    sagitta : between chord and circle [m]
    """
    return float(2.0 * np.arccos(max(1.0 - sagitta / radius, 0.5)))
