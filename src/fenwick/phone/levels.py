"""Levels beside the strip: of dust behind a clear wall, or on a dip rod; of water in the legs of a U."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fenwick.core.arrays import Array
from fenwick.phone.found import FlatPicture, RefusedError, found_in
from fenwick.phone.light import LUMA
from fenwick.phone.reading import DEPTH, TUBE, WATER_MM, Overlay, PhoneReading
from fenwick.phone.targets import STRIP, TALL, WIDE

SCALE, BESIDE = 4.0, 34.0  #: of the flat picture [px/mm], and what is shown beside the strip [mm]
OFF_WALL, BAND = 2.0, 22.0  #: from the strip's edge, and how wide a band is looked at [mm]
COLOUR, SHADE = 2.5, 0.06  #: weight of a colour beside brightness, and how uneven the paper may be [-]
LEAST_CLEAR = 0.35  #: of an edge, how much of the scatter beside the strip it explains [-]
LEAST_STEP = 0.16  #: in the logarithm of a colour's light, across an edge [-]
WORST_SLOPE = 18.0  #: how far the edge may scatter over the band [mm]
ENDS = 6.0  #: at the strip's ends, where no edge is looked for [mm]
AT, LEAST_SURE = 15.0, 1.5  #: from the strip's edge, where the level is told, and how sure it is at best [mm]
TUBE_LEAST = 2.5  #: width of a column of water that is believed [mm]


@dataclass(frozen=True)
class Edges:
    """The best edge in each column of a band."""

    x: Array  #: of the columns [mm]
    up: Array  #: over the strip's lower end [mm]
    explained: Array  #: share of the column's scatter that the edge explains [-]
    step: Array  #: across it, in the colour that shows it best [-]


def read_depth(rgb: Array) -> PhoneReading:
    """How high dust stands over the strip's lower end, by the edge on either side of it.

    Parameters
    ----------
    rgb : 0 … 255, shape (high, wide, 3) [unit of a picture]

    Raises
    ------
    RefusedError
    """
    flat = found_in(rgb, STRIP.key, scale=SCALE, beside=BESIDE)
    both = (_sure(_edges(flat, left)) for left in (-OFF_WALL - BAND, WIDE + OFF_WALL))
    sides = [one for one in both if one is not None]
    if not sides:
        raise RefusedError("No level is seen beside the strip: wipe the wall from inside, or light it from behind.")
    x, up = np.concatenate([one.x for one in sides]), np.concatenate([one.up for one in sides])
    slope, at_wall = (float(one) for one in np.polyfit(x - WIDE, up, 1))
    left = up - (at_wall + slope * (x - WIDE))
    scatter = float(np.median(np.abs(left))) * 1.4826
    if scatter > WORST_SLOPE:
        raise RefusedError("What is beside the strip has no one level: level the dust, or wipe the wall.")
    value = at_wall + slope * AT
    sure = max(2.0 * scatter / np.sqrt(max(len(x) / SCALE / 3.0, 1.0)), LEAST_SURE)
    seen = {"slope": round(float(slope), 3), "scatter_mm": round(scatter, 2), "sides": len(sides)}
    across = np.array([-OFF_WALL - BAND, WIDE + OFF_WALL + BAND])
    level = np.column_stack([across, TALL - (at_wall + slope * (across - WIDE))])
    drawn = (Overlay(flat.corners), Overlay(flat.in_picture(level), closed=False, role="level"))
    return PhoneReading(DEPTH, value, max(value - sure, 0.0), value + sure, seen, drawn)


def read_tube(rgb: Array) -> PhoneReading:
    """Between the levels of the two legs of a U of water, one on each side of the strip.

    Parameters
    ----------
    rgb : 0 … 255, shape (high, wide, 3) [unit of a picture]

    Raises
    ------
    RefusedError
    """
    flat = found_in(rgb, STRIP.key, scale=SCALE, beside=BESIDE)
    left = _leg(_edges(flat, -OFF_WALL - BAND), "left")
    right = _leg(_edges(flat, WIDE + OFF_WALL), "right")
    legs = [
        Overlay(flat.in_picture(np.array([[x0, TALL - leg.up], [x1, TALL - leg.up]])), closed=False, role="level")
        for leg, x0, x1 in ((left, -OFF_WALL - BAND, 0.0), (right, WIDE, WIDE + OFF_WALL + BAND))
    ]
    value = abs(left.up - right.up)
    sure = float(np.hypot(left.sure, right.sure))
    seen = {
        "left_mm": round(left.up, 2), "right_mm": round(right.up, 2),
        "higher": "left" if left.up > right.up else "right", "pa": round(value * WATER_MM, 1),
    }  # fmt: skip
    return PhoneReading(TUBE, value, max(value - sure, 0.0), value + sure, seen, (Overlay(flat.corners), *legs))


@dataclass(frozen=True)
class _Leg:
    up: float
    sure: float


def _leg(edges: Edges, side: str) -> _Leg:
    """The level in a tube: the columns that show one best, the middle of them."""
    clear = (edges.explained > 0.8) & (edges.step > LEAST_STEP)
    runs = _runs(clear)
    if not runs or (runs[0][1] - runs[0][0]) / SCALE < TUBE_LEAST:
        raise RefusedError(f"No water is seen {side} of the strip: a drop of ink in it, the tube within 20 mm of it.")
    start, end = runs[0]
    third = (end - start) // 3
    inner = edges.up[start + third : end - third]
    return _Leg(float(np.median(inner)), max(float(np.std(inner)), 0.7))


def _runs(which: NDArray[np.bool_]) -> list[tuple[int, int]]:
    """Unbroken runs, the longest first."""
    edges = np.flatnonzero(np.diff(np.concatenate([[0], which.astype(int), [0]])))
    pairs = [(int(a), int(b)) for a, b in zip(edges[::2], edges[1::2], strict=True)]
    return sorted(pairs, key=lambda one: one[0] - one[1])


def _sure(edges: Edges) -> Edges | None:
    """Columns whose edge is clear, and near that of the others; None where they are too few."""
    clear = (edges.explained > LEAST_CLEAR) & (edges.step > LEAST_STEP)
    if clear.mean() < 0.4:
        return None
    middle = float(np.median(edges.up[clear]))
    near = clear & (np.abs(edges.up - middle) < 12.0)
    if near.sum() < 0.3 * clear.size:
        return None
    return Edges(*(values[near] for values in (edges.x, edges.up, edges.explained, edges.step)))


def _edges(flat: FlatPicture, left: float) -> Edges:
    """In each column of a band, the place that parts it best into two evenly coloured pieces."""
    light = np.log(np.maximum(flat.at(left, 0.0, BAND, TALL), 1e-3))
    points = np.stack([_bright(light) - _white(flat)[:, None], *(COLOUR * one for one in _colours(light))], axis=-1)
    high = points.shape[0]
    cut = round(ENDS * SCALE)
    total, square = np.cumsum(points, axis=0), np.cumsum(points**2, axis=0)
    n = np.arange(1, high + 1, dtype=float)[:, None, None]
    above = square - total**2 / n
    rest, rest_square, m = total[-1] - total, square[-1] - square, np.maximum(high - n, 1.0)
    below = rest_square - rest**2 / m
    spread = (square[-1] - total[-1] ** 2 / high).sum(axis=-1)
    within = (above + below).sum(axis=-1)
    within[:cut], within[high - cut :] = np.inf, np.inf
    best = np.argmin(within, axis=0)
    columns = np.arange(points.shape[1])
    step = np.abs(rest[best, columns] / m[best, 0] - total[best, columns] / n[best, 0]).max(axis=-1)
    explained = 1.0 - within[best, columns] / np.maximum(spread, 1e-9)
    x = left + columns / SCALE
    return Edges(x, TALL - (best + 0.5) / SCALE, explained, step)


def _bright(light: Array) -> Array:
    return np.asarray(light.mean(axis=-1))


def _colours(light: Array) -> tuple[Array, Array]:
    """Red and blue against green: shadows and clouds leave them as they are."""
    return light[..., 0] - light[..., 1], light[..., 2] - light[..., 1]


def _white(flat: FlatPicture) -> Array:
    """The light down the strip, from its white paper, as a logarithm."""
    strip = np.concatenate([flat.at(3.0, 0.0, 10.0, TALL), flat.at(WIDE - 13.0, 0.0, 10.0, TALL)], axis=1)
    white = np.log(np.maximum(np.quantile(strip @ LUMA, 0.6, axis=1), 1e-3))
    place = np.linspace(-1.0, 1.0, white.size)
    inner = np.abs(place) < 0.86  # between the marks
    smooth = np.polyval(np.polyfit(place[inner], white[inner], 3), place)
    if float(np.std((white - smooth)[inner])) > SHADE:
        raise RefusedError("A shadow lies on the strip: turn, so that the light falls evenly.")
    return np.asarray(smooth)
