"""Closed outlines of flat parts [m]: the outer one counter-clockwise, holes clockwise, curves within a hair.

A part is seen from the face that is marked. A right-hand swirl turns clockwise seen from above.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.formulas.unrolled import chord_angle, slot_end_angle

HAIR = 5e-6  #: how far the corners of an outline may cut a curve short [m]
Loop = Array  #: corners in their order, the last joined to the first, shape (n, 2) [m]


def arc(middle: tuple[float, float], radius: float, start: float, turn: float) -> Loop:
    """Points along an arc, its two ends included, shape (n, 2) [m].

    Parameters
    ----------
    middle : [m]
    radius : [m]
    start : angle of its first end, counter-clockwise from x [rad]
    turn : counter-clockwise above 0 [rad]
    """
    steps = max(2, int(np.ceil(abs(turn) / chord_angle(radius, HAIR)))) if radius > 0.0 else 1
    angles = start + turn * np.linspace(0.0, 1.0, steps + 1)
    return np.column_stack((middle[0] + radius * np.cos(angles), middle[1] + radius * np.sin(angles)))


def circle(radius: float, middle: tuple[float, float] = (0.0, 0.0)) -> Loop:
    """A circle, counter-clockwise; its first corner lies at angle 0.

    Parameters
    ----------
    radius : [m]
    middle : [m]
    """
    return arc(middle, radius, 0.0, 2.0 * np.pi)[:-1]


def rectangle(width: float, height: float, corner: tuple[float, float] = (0.0, 0.0)) -> Loop:
    """A rectangle, counter-clockwise from its lower left corner.

    Parameters
    ----------
    width : along x [m]
    height : along y [m]
    corner : its lower left [m]
    """
    x, y = corner
    return np.array([(x, y), (x + width, y), (x + width, y + height), (x, y + height)])


def hole(loop: Loop) -> Loop:
    """The same loop as a hole: clockwise."""
    return loop if area(loop) < 0.0 else loop[::-1]


def outer(loop: Loop) -> Loop:
    """The same loop as an outer one: counter-clockwise."""
    return loop if area(loop) > 0.0 else loop[::-1]


def area(loop: Loop) -> float:
    """Area that a loop encloses, below 0 where it runs clockwise [m^2]."""
    x, y = loop[:, 0], loop[:, 1]
    return 0.5 * float(np.sum(x * np.roll(y, -1) - np.roll(x, -1) * y))


def mirrored(loop: Loop, middle: float = 0.0) -> Loop:
    """A loop seen in a mirror, running the same way round.

    Parameters
    ----------
    middle : x of the mirror [m]
    """
    return np.column_stack((2.0 * middle - loop[:, 0], loop[:, 1]))[::-1]


def round_slot(radius: float, width: float, start: float, turn: float) -> Loop:
    """A slot whose ends are half circles within its arc, counter-clockwise.

    Parameters
    ----------
    radius : of its outer edge [m]
    width : [m]
    start : angle of its later end, counter-clockwise from x [rad]
    turn : between its ends [rad]
    """
    if turn >= 2.0 * np.pi - 1e-9:
        return circle(radius)
    in_, mid = radius - width, radius - width / 2.0
    end = float(slot_end_angle(radius, width))
    first, last = start + end, start + turn - end

    def bored(angle: float, begin: float) -> Loop:
        return arc((mid * np.cos(angle), mid * np.sin(angle)), width / 2.0, begin, np.pi)[1:-1]

    far, near = arc((0.0, 0.0), radius, first, last - first), arc((0.0, 0.0), in_, last, first - last)
    return np.vstack((far, bored(last, last), near, bored(first, first + np.pi)))


@dataclass(frozen=True)
class Notch:
    """A slot that is open to the edge of its disc."""

    width: float  #: [m]
    start: float  #: angle of its later end, counter-clockwise from x [rad]
    turn: float  #: between its ends [rad]


def notched_disc(radius: float, notches: Sequence[Notch], corner: float) -> Loop:
    """A disc with slots that are open to its edge, their inner corners rounded, counter-clockwise.

    Parameters
    ----------
    radius : of the disc [m]
    notches : they do not overlap
    corner : radius of the inner corners [m]
    """
    if not notches:
        return circle(radius)
    order = sorted(notches, key=lambda one: one.start % (2.0 * np.pi))
    pieces = []
    for i, one in enumerate(order):
        following, end = order[(i + 1) % len(order)].start, one.start + one.turn
        pieces.append(_notch(radius, one, min(corner, one.width)))
        gap = (following - end) % (2.0 * np.pi) if len(order) > 1 else 2.0 * np.pi - one.turn
        pieces.append(arc((0.0, 0.0), radius, end, gap)[1:-1])
    return np.vstack(pieces)


def _notch(radius: float, notch: Notch, corner: float) -> Loop:
    """From the disc's edge inwards, along the notch counter-clockwise, and out again."""
    start, turn = notch.start, notch.turn
    floor, end = radius - notch.width, start + turn
    lean = float(np.arcsin(corner / (floor + corner)))  # of the roundings' middles from the ends
    side = (floor + corner) * np.cos(lean)  # where they meet the ends
    bend = np.pi / 2.0 - lean

    def rounding(angle: float, first: float) -> Loop:
        middle = _polar(floor + corner, angle)[0]
        return arc((middle[0], middle[1]), corner, first, -bend)[1:]

    floor_arc = arc((0.0, 0.0), floor, start + lean, turn - 2.0 * lean)[1:]
    into = (_polar(radius, start), _polar(side, start), rounding(start + lean, start - np.pi / 2.0))
    return np.vstack((*into, floor_arc, rounding(end - lean, end - lean + np.pi), _polar(radius, end)))


def _polar(radius: float, angle: float) -> Loop:
    return np.array([(radius * np.cos(angle), radius * np.sin(angle))])


def ring_sector(wide: float, narrow: float, turn: float, flap: float) -> Loop:
    """A part of a flat ring, symmetric to the y axis, with a flap along its right straight edge, counter-clockwise.

    Parameters
    ----------
    wide : outer radius [m]
    narrow : inner radius [m]
    turn : its angle [rad]
    flap : width of the strip along one straight edge, for the seam [m]
    """
    begin = np.pi / 2.0 - turn / 2.0
    over, under = arc((0.0, 0.0), wide, begin, turn), arc((0.0, 0.0), narrow, begin + turn, -turn)
    pieces = [over, under]
    if flap > 0.0:
        aside = flap * np.array((np.sin(begin), -np.cos(begin)))
        pieces += [np.array([under[-1] + aside, over[0] + aside])]
    return np.vstack(pieces)
