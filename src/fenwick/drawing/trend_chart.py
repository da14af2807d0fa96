"""A figure over the months, with what happened meanwhile as dashed lines."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.arrays import Array
from fenwick.drawing.axes import PlotFrame, ToPage
from fenwick.drawing.render import render

FRAMES = {
    "wide": PlotFrame(590.0, 150.0, 58.0, 16.0, 28.0, 24.0),
    "narrow": PlotFrame(360.0, 170.0, 54.0, 12.0, 40.0, 24.0),
    "card": PlotFrame(326.0, 122.0, 50.0, 14.0, 26.0, 22.0),
}
LETTER = 6.2  #: a letter of a mark's words, about [px]
ROOM = 0.12  #: of the span, left free above and below [-]
LEAST_SPAN = 0.05  #: of its own size, that a figure's axis shows at least [-]
MONTH = 30.4  #: [d]


@dataclass(frozen=True)
class TrendMark:
    """Something that happened."""

    day: float  #: from today [d]
    words: str
    level: str  #: act for what went wrong, ok for what was mended


@dataclass(frozen=True)
class TrendPlot:
    """What is drawn."""

    day: Array  #: from today, in order [d]
    value: Array
    labels: tuple[tuple[float, str], ...]  #: (value, words) along the upright axis
    good: float | None  #: as it is on its good days
    marks: tuple[TrendMark, ...]
    level: str  #: of its latest values
    description: str


def render_trend_chart(plot: TrendPlot, size: str = "wide", *, since: float | None = None) -> Markup:
    """The chart as SVG.

    Parameters
    ----------
    plot : the figure, two values or more are joined by a line
    size : wide, narrow or card
    since : first day that is shown, from today [d]; None: that of the first value
    """
    frame = FRAMES[size]
    first = min(float(plot.day[0]), since if since is not None else 0.0, -7.0)
    x = frame.across(first, 0.0)
    told = [*plot.value.tolist(), *([] if plot.good is None else [plot.good])]
    low, high = min(told), max(told)
    span = max(high - low, LEAST_SPAN * max(abs(high), 1e-9))
    middle = 0.5 * (low + high)
    y = frame.up(middle - (0.5 + ROOM) * span, middle + (0.5 + ROOM) * span)
    spots = [(x(float(day)), y(float(value))) for day, value in zip(plot.day, plot.value, strict=True)]
    return render(
        "trend_chart.svg.jinja",
        **frame.places,
        size=size,
        plot=plot,
        points=" ".join(f"{a:.1f},{b:.1f}" for a, b in spots),
        spots=spots,
        good=None if plot.good is None else y(plot.good),
        labels=[(y(value), words) for value, words in plot.labels if frame.top - 6 <= y(value) <= frame.bottom + 6],
        marks=_marks(plot.marks, x, frame, first, rows=3 if size == "narrow" else 2),
        months=_months(first, x, frame),
    )


@dataclass(frozen=True)
class PlacedMark:
    """A mark with its place [px]."""

    at: float
    words_at: float
    up: float  #: of its words
    mark: TrendMark


def _marks(marks: Sequence[TrendMark], x: ToPage, frame: PlotFrame, first: float, rows: int) -> list[PlacedMark]:
    """Marks, their words one above the other where they would meet; those without room are bare."""
    found, ends = [], [-np.inf] * rows
    for mark in sorted(marks, key=lambda one: one.day):
        if mark.day < first:
            continue
        at, width = x(mark.day), LETTER * len(mark.words)
        start = min(at + 3.0, frame.right - width)
        row = next((i for i in range(rows) if ends[i] < start), None)
        if row is None or start < frame.left:
            found.append(PlacedMark(at, at, 0.0, TrendMark(mark.day, "", mark.level)))
            continue
        ends[row] = start + width + 4.0
        found.append(PlacedMark(at, start, 11.0 + 12.0 * row, mark))
    return found


def _months(first: float, x: ToPage, frame: PlotFrame) -> list[tuple[float, str]]:
    """Places of months counted back from today; the farthest says what is counted."""
    months = int(-first / MONTH)
    step = max(1, -(-months // (6 if frame.width > 400 else 3)))
    back = range(step, months + 1, step)
    words = [f"{n} month{'' if n == 1 else 's'} ago" if n == back[-1] else str(n) for n in back]
    return [(frame.right, "today"), *zip((x(-MONTH * n) for n in back), words, strict=True)]
