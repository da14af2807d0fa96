"""A printed sheet found in a picture, and laid flat; or a sentence that says what is in the way."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import combinations

import cv2
import numpy as np

from fenwick.core.arrays import Array
from fenwick.phone.light import LUMA, linear
from fenwick.phone.marks import SeenMark, marks_in
from fenwick.phone.targets import RING, TARGETS, Target

MOST_MARKS = 12  #: looked at, the largest ones
SIZE_OFF = 0.25  #: of a mark's area against what its place says [-]
HALF_RING = 4.6  #: within the ring, where its outer edge is looked for [mm]
LEAST_PX = 1.7  #: of a picture, a millimetre [px]
LIGHT = linear(np.arange(256.0))  #: of each value of a picture [-]
DARK, GLARE = 70.0, 252.0  #: of white paper in a picture, 0 … 255


class RefusedError(ValueError):
    """What cannot be read, in a sentence; `marks` are what was found of it."""

    def __init__(self, sentence: str, marks: tuple[SeenMark, ...] = ()) -> None:
        super().__init__(sentence)
        self.marks = marks


@dataclass(frozen=True)
class FlatPicture:
    """A sheet laid flat, with what lies round it."""

    target: Target
    rgb: Array  #: light of each point [-], shape (high, wide, 3)
    scale: float  #: points for a millimetre
    left: float  #: how much is shown left of the sheet and right of it [mm]
    way: Array  #: from the sheet to the picture, shape (3, 3)
    softness: float  #: width of an edge [mm]

    def in_picture(self, points: Array) -> Array:
        """Points of the sheet as they lie in the picture, shape (n, 2) [px].

        Parameters
        ----------
        points : on the sheet, shape (n, 2) [mm]
        """
        return _through(self.way, points)

    @property
    def corners(self) -> Array:
        """Of the sheet in the picture, shape (4, 2) [px]."""
        wide, high = self.target.width, self.target.height
        return self.in_picture(np.array([[0.0, 0.0], [wide, 0.0], [wide, high], [0.0, high]]))

    def at(self, left: float, top: float, width: float, height: float) -> Array:
        """The points of a rectangle, shape (m, n, 3).

        Parameters
        ----------
        left, top, width, height : on the sheet [mm]
        """
        x, y = (left + self.left) * self.scale, top * self.scale
        wide, high = max(round(width * self.scale), 1), max(round(height * self.scale), 1)
        i, j = max(round(y), 0), max(round(x), 0)
        return self.rgb[i : i + high, j : j + wide]


def found_in(rgb: Array, key: str, *, scale: float, beside: float = 0.0) -> FlatPicture:
    """The sheet of a kind in a picture.

    Parameters
    ----------
    rgb : 0 … 255, shape (high, wide, 3) [unit of a picture]
    key : of TARGETS
    scale : points for a millimetre of the flat picture [px/mm]
    beside : how much is shown on either side of the sheet [mm]

    Raises
    ------
    RefusedError
    """
    target = TARGETS[key]
    grey = np.clip(np.asarray(rgb, dtype=float) @ LUMA, 0.0, 255.0)
    seen = marks_in(grey)[:MOST_MARKS]
    fits = _fits(seen, target)
    if not fits:
        raise RefusedError(_why_none(seen, target), tuple(seen))
    if len(fits) > 1:
        raise RefusedError(f"There are two of the printed {key}s in the picture: leave one.", tuple(seen))
    to_picture, used = fits[0]
    _large_enough(to_picture, target, used)
    _lit(grey, to_picture, target, used)
    flat = _flattened(rgb, to_picture, target, scale, beside)
    soft = _softness(flat, target, scale, beside)
    if soft > target.soft:
        raise RefusedError("The picture is blurred: hold still, or tap on the sheet to focus.", used)
    return FlatPicture(target, LIGHT[flat], scale, beside, to_picture, soft)


def _through(matrix: Array, points: Array) -> Array:
    told = np.column_stack([points, np.ones(len(points))]) @ matrix.T
    return np.asarray(told[:, :2] / told[:, 2:])


def _fits(seen: list[SeenMark], target: Target) -> list[tuple[Array, tuple[SeenMark, ...]]]:
    """Every way in which four marks are those of the sheet, no mark twice: (from sheet to picture, marks)."""
    found: list[tuple[float, Array, tuple[SeenMark, ...]]] = []
    for four in combinations(seen, 4):
        if sum(one.dot for one in four) != sum(target.dots):
            continue
        middle = np.mean([[one.x, one.y] for one in four], axis=0)
        turned = sorted(four, key=lambda one: np.arctan2(one.y - middle[1], one.x - middle[0]))
        for start in range(4):
            placed = tuple(turned[(start + i) % 4] for i in range(4))
            if tuple(one.dot for one in placed) == target.dots:
                matrix = _matrix(placed, target)
                off = _size_off(matrix, placed, target)
                if off < SIZE_OFF:
                    found.append((off, matrix, placed))
    found.sort(key=lambda one: one[0])
    kept: list[tuple[Array, tuple[SeenMark, ...]]] = []
    for _, matrix, placed in found:
        if not any(set(placed) & set(other) for _, other in kept):
            kept.append((matrix, placed))
    return kept


def _matrix(placed: tuple[SeenMark, ...], target: Target) -> Array:
    there = np.array([[one.x, one.y] for one in placed], dtype=np.float32)
    return np.asarray(cv2.getPerspectiveTransform(target.marks.astype(np.float32), there))


def _size_off(matrix: Array, placed: tuple[SeenMark, ...], target: Target) -> float:
    """How far the marks' sizes are off from what their places say, the worst of them [-]."""
    turns = np.linspace(0.0, 2.0 * np.pi, 24, endpoint=False)
    round_it = RING * np.column_stack([np.cos(turns), np.sin(turns)])
    worst = 0.0
    for mark, middle in zip(placed, target.marks, strict=True):
        outline = _through(matrix, middle + round_it).astype(np.float32)
        if not np.all(np.isfinite(outline)) or np.abs(outline).max() > 1e6:
            return np.inf
        area = cv2.contourArea(outline)
        worst = max(worst, abs(float(np.log(max(area, 1e-9) / mark.area))))
    return worst


def _why_none(seen: list[SeenMark], target: Target) -> str:
    if len(seen) >= 4:
        return f"What is in the picture is not the printed {target.key}, or it is creased: lay it flat."
    if len(seen) >= 2:
        return (
            f"Only {len(seen)} of the four corner marks of the {target.key} are seen: "
            "all four must be in the picture, none cut off or covered."
        )
    return f"No {target.key} is seen: lay the printed {target.key} beside it, its four corner marks in the picture."


def _large_enough(matrix: Array, target: Target, used: tuple[SeenMark, ...]) -> None:
    corners = _through(matrix, target.marks)
    across = np.linalg.norm(corners - np.roll(corners, -1, axis=0), axis=1)
    there = np.linalg.norm(target.marks - np.roll(target.marks, -1, axis=0), axis=1)
    if float(np.min(across / there)) < LEAST_PX:
        raise RefusedError("The picture is taken from too far, or too much from the side: go nearer.", used)


def _lit(grey: Array, matrix: Array, target: Target, used: tuple[SeenMark, ...]) -> None:
    """Whether white paper is neither dark nor burnt out."""
    middles = np.array([[one.left + 0.5 * one.width, one.top + 0.5 * one.height] for one in target.white])
    points = np.round(_through(matrix, middles)).astype(int)
    high, wide = grey.shape
    there = [grey[y, x] for x, y in points if 0 <= x < wide and 0 <= y < high]
    if there and float(np.median(there)) < DARK:
        raise RefusedError("The picture is too dark: more light, or a longer exposure.", used)
    if there and float(np.max(there)) > GLARE:
        raise RefusedError("The paper is burnt out: less light, or no flash.", used)


def _flattened(rgb: Array, matrix: Array, target: Target, scale: float, beside: float) -> Array:
    to_flat = np.array([[scale, 0.0, beside * scale], [0.0, scale, 0.0], [0.0, 0.0, 1.0]])
    size = (round((target.width + 2.0 * beside) * scale), round(target.height * scale))
    way = to_flat @ np.linalg.inv(matrix)
    return np.asarray(cv2.warpPerspective(np.asarray(rgb, dtype=np.uint8), way, size, flags=cv2.INTER_AREA))


def _softness(flat: Array, target: Target, scale: float, beside: float) -> float:
    """Width of the outer edge of the marks, from a tenth to nine tenths of it, the middle of the four [mm]."""
    grey = np.asarray(flat, dtype=float) @ LUMA
    radii = np.arange(HALF_RING, RING + 1.9, 0.5 / scale)
    turns = np.linspace(0.0, 2.0 * np.pi, 72, endpoint=False)
    widths = []
    for x, y in target.marks:
        xs = ((x + beside + np.outer(radii, np.cos(turns))) * scale - 0.5).astype(np.float32)
        ys = ((y + np.outer(radii, np.sin(turns))) * scale - 0.5).astype(np.float32)
        around = cv2.remap(grey.astype(np.float32), xs, ys, cv2.INTER_LINEAR)
        widths.append(_edge_width(np.median(around, axis=1), radii))
    return float(np.median(widths))


def _edge_width(profile: Array, radii: Array) -> float:
    low, high = float(profile[:3].mean()), float(profile[-3:].mean())
    if high - low < 20.0:
        return np.inf
    share = np.maximum.accumulate((profile - low) / (high - low))
    start, end = np.interp([0.1, 0.9], share + 1e-9 * np.arange(share.size), radii)
    return float(end - start)
