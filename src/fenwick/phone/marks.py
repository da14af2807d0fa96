"""The marks of a printed sheet in a picture: rings, some with a dot."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from fenwick.core.arrays import Array
from fenwick.phone.targets import DOT, HOLE, RING

Outline = NDArray[Any]  #: points of one, as they come from the finder of outlines
LEAST_POINTS, LEAST_AREA = 12, 60.0  #: of an outline that may be a mark [px]
ROUND = (0.86, 1.12)  #: area of an outline over that of its ellipse [-]
FLATTEST = 0.45  #: of a ring seen aslant, its axes [-]
OFF_CENTRE = 0.15  #: between outer and inner outline, in diameters [-]
INNER, INNER_OFF = HOLE / RING, 0.16  #: radius of the hole over that of the ring, and how far off it may seem
DOTTED = (0.4 * DOT / RING, 1.8 * DOT / RING)  #: radius of a dot over that of the ring


@dataclass(frozen=True)
class SeenMark:
    """A mark as it was seen."""

    x: float  #: [px]
    y: float
    area: float  #: of its outline [px²]
    dot: bool


def marks_in(grey: Array) -> list[SeenMark]:
    """Every mark in a grey picture, the largest first.

    Parameters
    ----------
    grey : 0 … 255 [unit of a picture]
    """
    picture = np.asarray(grey, dtype=np.uint8)
    side = max(picture.shape)
    found: list[SeenMark] = []
    for block in (side // 8 | 1, side // 24 | 1):
        ink = cv2.adaptiveThreshold(picture, 255, cv2.ADAPTIVE_THRESH_MEAN_C, cv2.THRESH_BINARY_INV, max(block, 15), 8)
        found += [one for one in _rings(ink) if not any(_same(one, other) for other in found)]
    return sorted(found, key=lambda one: -one.area)


def _same(one: SeenMark, other: SeenMark) -> bool:
    return bool(np.hypot(one.x - other.x, one.y - other.y) < 0.5 * np.sqrt(max(one.area, other.area)))


def _rings(ink: Outline) -> list[SeenMark]:
    outlines, tree = cv2.findContours(ink, cv2.RETR_TREE, cv2.CHAIN_APPROX_NONE)
    if tree is None:
        return []
    inside: dict[int, list[int]] = {}
    for i, row in enumerate(tree[0]):
        inside.setdefault(int(row[3]), []).append(i)
    found = []
    for i, outline in enumerate(outlines):
        outer = _ellipse(outline)
        if outer is None:
            continue
        for j in inside.get(i, []):
            hole = _ellipse(outlines[j])
            if hole is not None and _concentric(outer, hole):
                dots = [outlines[k] for k in inside.get(j, [])]
                found.append(_mark(outer, hole, dots))
                break
    return found


@dataclass(frozen=True)
class _Ellipse:
    x: float
    y: float
    long: float
    short: float

    @property
    def area(self) -> float:
        return 0.25 * float(np.pi) * self.long * self.short


def _ellipse(outline: Outline) -> _Ellipse | None:
    """The ellipse of an outline that is one."""
    area = cv2.contourArea(outline)
    if len(outline) < LEAST_POINTS or area < LEAST_AREA / 6.0:
        return None
    (x, y), axes, _ = cv2.fitEllipseDirect(outline)
    long, short = max(axes), min(axes)
    if not np.isfinite(long) or short < FLATTEST * long:
        return None
    found = _Ellipse(x, y, long, short)
    return found if ROUND[0] < area / found.area < ROUND[1] else None


def _concentric(outer: _Ellipse, hole: _Ellipse) -> bool:
    off = np.hypot(outer.x - hole.x, outer.y - hole.y)
    ratio = np.sqrt(hole.area / outer.area)
    return bool(off < OFF_CENTRE * outer.long and abs(ratio - INNER) < INNER_OFF and outer.area >= LEAST_AREA)


def _mark(outer: _Ellipse, hole: _Ellipse, dots: list[Outline]) -> SeenMark:
    def is_dot(outline: Outline) -> bool:
        size = np.sqrt(max(cv2.contourArea(outline), 1e-9) / outer.area)
        middle = outline.reshape(-1, 2).mean(axis=0)
        near = np.hypot(middle[0] - hole.x, middle[1] - hole.y) < 0.25 * hole.long
        return bool(DOTTED[0] < size < DOTTED[1] and near)

    x, y = 0.5 * (outer.x + hole.x), 0.5 * (outer.y + hole.y)
    return SeenMark(x, y, outer.area, any(is_dot(one) for one in dots))
