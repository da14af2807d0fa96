"""A figure of two lines with what is believable of each: two bars on one scale that begins at nothing."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from fenwick.core.search.apart import DrawnFigure, FigureApart
from fenwick.drawing.render import render

LONG, EDGE = 64.0, 3.0  #: of the scale, and beside it [px]
HIGH = 36.0  #: of the picture [px]


@dataclass(frozen=True)
class BandBar:
    """One bar."""

    side: str  #: left or right
    y: float
    low: float
    high: float
    now: float


def render_band_pair(found: FigureApart) -> Markup:
    """Both bars as SVG; what they say stands beside them as text."""
    sides = [("left", found.left, 9.0), ("right", found.right, 27.0)]
    most = max((max(one.high, one.now) for _, one, _ in sides if one is not None), default=0.0)
    bars = [_bar(side, one, y, most) for side, one, y in sides if one is not None]
    return render("band_pair.svg.jinja", bars=bars, width=LONG + 2 * EDGE, height=HIGH, edge=EDGE, long=LONG)


def _bar(side: str, one: DrawnFigure, y: float, most: float) -> BandBar:
    def place(value: float) -> float:
        return EDGE + (LONG * value / most if most > 0.0 else 0.0)

    return BandBar(side, y, place(one.low), place(one.high), place(one.now))
