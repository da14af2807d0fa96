"""A flat world in light, point by point: paper, printed sheets, dust and cloth."""

from __future__ import annotations

import cv2
import numpy as np

from fenwick.core.arrays import Array
from fenwick.phone.light import reflectance
from fenwick.phone.targets import DOT, HOLE, PAPER, RING, Patch, Target

FINE = 6.0  #: points for a millimetre of a world [px/mm]
ROUND = 64  #: parts of a point, in which circles are drawn
SHIFT = 6  #: of 2, the same


class FlatWorld:
    """A canvas in millimetres with its origin anywhere; its points are light, shape (high, wide, 3)."""

    def __init__(self, left: float, top: float, width: float, height: float) -> None:
        self.left, self.top = left, top
        self.light: Array = np.zeros((round(height * FINE), round(width * FINE), 3), dtype=np.float32)

    def fill(self, light: Array) -> None:
        """Everything in one colour.

        Parameters
        ----------
        light : of red, green and blue [-]
        """
        self.light[:] = light

    def place(self, x: Array, y: Array) -> tuple[Array, Array]:
        """Points of the canvas.

        Parameters
        ----------
        x, y : [mm]
        """
        return (np.asarray(x) - self.left) * FINE, (np.asarray(y) - self.top) * FINE

    def patch(self, one: Patch, light: Array | None = None) -> None:
        """A rectangle, of its own lightness or in a colour.

        Parameters
        ----------
        one : where
        light : of red, green and blue [-]; None: grey of its lightness
        """
        (x0, x1), (y0, y1) = self.place(
            np.array([one.left, one.left + one.width]), np.array([one.top, one.top + one.height])
        )
        i, j = (
            slice(max(round(float(y0)), 0), max(round(float(y1)), round(float(y0)) + 1)),
            slice(max(round(float(x0)), 0), max(round(float(x1)), round(float(x0)) + 1)),
        )
        self.light[i, j] = np.full(3, float(reflectance(np.array(one.lightness)))) if light is None else light

    def disc(self, x: float, y: float, radius: float, star: float) -> None:
        """A disc of one lightness.

        Parameters
        ----------
        x, y, radius : [mm]
        star : its L* [unit of L*]
        """
        (px,), (py,) = self.place(np.array([x]), np.array([y]))
        grey = float(reflectance(np.array(star)))
        middle = (round((px - 0.5) * ROUND), round((py - 0.5) * ROUND))
        cv2.circle(self.light, middle, round(radius * FINE * ROUND), (grey, grey, grey), -1, cv2.LINE_AA, SHIFT)

    def printed(self, target: Target) -> None:
        """A printed sheet with its upper left corner at the origin; what its window shows stays."""
        self.patch(Patch(0.0, 0.0, target.width, target.height, PAPER))
        for one in target.black:
            self.patch(one)
        for (x, y), dot in zip(target.marks, target.dots, strict=True):
            self.disc(x, y, RING, 12.0)
            self.disc(x, y, HOLE, PAPER)
            if dot:
                self.disc(x, y, DOT, 12.0)


def grainy(chance: np.random.Generator, shape: tuple[int, int], size: float, amount: float) -> Array:
    """A cloudy pattern about 1, for cloth, dust and wood.

    Parameters
    ----------
    chance : draws it
    shape : high, wide [px]
    size : of its clouds [px]
    amount : standard deviation [-]
    """
    small = (max(int(shape[0] / size) + 2, 2), max(int(shape[1] / size) + 2, 2))
    rough = chance.normal(0.0, 1.0, small)
    smooth = cv2.resize(rough, (shape[1], shape[0]), interpolation=cv2.INTER_CUBIC)
    return np.clip(1.0 + amount * smooth / max(float(smooth.std()), 1e-9), 0.2, 2.0)
