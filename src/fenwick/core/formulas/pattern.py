"""Flat patterns of cones and barrels, as far as they decide what sheet a design needs."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values


@dataclass(frozen=True)
class RingSector:
    """A part of a flat ring; shape (n,)."""

    outer: Array  #: radius [m]
    inner: Array  #: radius [m]
    angle: Array  #: [rad]


def cone_pattern(wide: Values, narrow: Values, height: Values, thickness: Values = 0.0) -> RingSector:
    """Flat pattern of a truncated cone, on the neutral axis of its sheet.

    Parameters
    ----------
    wide, narrow : inside diameters, wide > narrow [m]
    height : along the axis [m]
    thickness : t, of the sheet [m]

    Notes
    -----
    With the half-angle α, tan α = (D − B)/(2 height): radii (D + t)/(2 sin α) and (B + t)/(2 sin α), angle 2π sin α.
    """
    half = np.arctan2((np.asarray(wide) - narrow) / 2.0, np.asarray(height))
    sine = np.maximum(np.sin(half), 1e-6)
    angle = 2.0 * np.pi * np.sin(half)
    sheet = np.asarray(thickness)
    return RingSector((wide + sheet) / 2.0 / sine, (narrow + sheet) / 2.0 / sine, np.asarray(angle))


def sector_box(sector: RingSector) -> tuple[Array, Array]:
    """Width and height [m] of the rectangle round a ring sector that is laid symmetrically.

    Parameters
    ----------
    sector : one or many
    """
    outer, inner = sector.outer, sector.inner
    half = np.minimum(sector.angle / 2.0, np.pi)
    width = 2.0 * outer * np.sin(np.minimum(half, np.pi / 2.0))
    lowest = np.where(half <= np.pi / 2.0, inner * np.cos(half), outer * np.cos(half))
    return np.asarray(width), np.asarray(outer - lowest)


def fits_on(width: Values, height: Values, sheet_width: Values, sheet_height: Values) -> Array:
    """How large a rectangle is against a sheet, either way round [-]; up to 1 it fits.

    Parameters
    ----------
    width : of the rectangle [m]
    height : of the rectangle [m]
    sheet_width : [m]
    sheet_height : [m]
    """
    one = np.maximum(np.asarray(width) / sheet_width, np.asarray(height) / sheet_height)
    other = np.maximum(np.asarray(width) / sheet_height, np.asarray(height) / sheet_width)
    return np.asarray(np.minimum(one, other))
