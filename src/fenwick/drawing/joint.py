"""A joint in section: two ends to one scale, one inside the other, or butted under a sleeve."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.components.joint import End
from fenwick.core.line.joints import ADAPTER, SLEEVE, TAPE, UNKNOWN, FittedJoint
from fenwick.drawing.render import render

WIDTH, HEIGHT = 200.0, 76.0
TALLEST = 60.0  #: the widest end [px]
USUAL_WALL = 0.0025  #: drawn where only one diameter of an end is known [m]
OVERLAP = 46.0


@dataclass(frozen=True)
class Tube:
    """One end: from x to x, outside and inside half-heights."""

    left: float
    right: float
    outer: float
    inner: float
    known: bool


def render_joint(fitted: FittedJoint, name: str, description: str) -> Markup:
    """The section as SVG."""
    ends = (fitted.joint.leaving, fitted.joint.entering)
    widest = max((_outside(end) for end in ends), default=0.0) or 0.05
    scale = TALLEST / 2 / (widest / 2)
    overlap = OVERLAP / 2 if fitted.inner is not None and fitted.fix not in (SLEEVE, ADAPTER, UNKNOWN) else -3.0
    if fitted.fix == "fits" and fitted.inner is None:
        overlap = OVERLAP / 2
    if fitted.fix == ADAPTER:
        overlap = -16.0
    middle = WIDTH / 2
    tubes = [
        _tube(ends[0], 6.0, middle + overlap, scale),
        _tube(ends[1], middle - overlap, WIDTH - 6.0, scale),
    ]
    inner_first = fitted.inner == fitted.joint.before
    return render(
        "joint.svg.jinja",
        name=name,
        width=WIDTH,
        height=HEIGHT,
        axis=HEIGHT / 2,
        tubes=tubes[::-1] if inner_first else tubes,  # the outer one first, so that the inner one lies on top
        sleeve=(middle - 26.0, max(tube.outer for tube in tubes) + 3.0) if fitted.fix == SLEEVE else None,
        tape=(middle - OVERLAP / 2, min(tube.outer for tube in tubes)) if fitted.fix == TAPE else None,
        adapter=fitted.fix == ADAPTER,
        description=description,
    )


def _outside(end: End) -> float:
    if end.outside is not None:
        return end.outside
    return end.inside + 2 * USUAL_WALL if end.inside is not None else 0.0


def _tube(end: End, left: float, right: float, scale: float) -> Tube:
    known = end.inside is not None or end.outside is not None
    outside = _outside(end) or 0.05
    inside = end.inside if end.inside is not None else outside - 2 * USUAL_WALL
    return Tube(
        left, right, outside / 2 * scale if known else TALLEST / 2, inside / 2 * scale if known else 26.0, known
    )
