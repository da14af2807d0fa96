"""A figure of the line over its working hours: as it is, without the separator, from today."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.arrays import Array
from fenwick.drawing.axes import PlotFrame, axis_ticks
from fenwick.drawing.curves import DrawnCurve, labels_apart
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

FRAME = PlotFrame(860.0, 300.0, 46.0, 150.0, 14.0, 40.0)
MOST_EMPTYINGS = 60  #: marks under the axis beyond which none are drawn


@dataclass(frozen=True)
class AgeingCurve:
    """One course of one figure."""

    key: str
    words: str
    hours: Array  #: [h]
    values: Array  #: stored units
    mark: float | None = None  #: hour at which the air is down by a quarter [h]


def render_ageing(
    curves: Sequence[AgeingCurve],
    span: float,
    quantity: str,
    limit: float | None,
    emptied: float | None,
    voice: Voice,
) -> Markup:
    """The chart as SVG.

    Parameters
    ----------
    curves : over the same hours or more
    span : shown [h]
    quantity : of the values
    limit : below which it is to clean, stored units; None: none
    emptied : how often the bin is emptied [h]; None: not known
    voice : words and units
    """
    sampled = [(curve, *_within(curve, span)) for curve in curves]
    most = max(max(float(np.max(values)) for _, _, values in sampled), 1e-12)
    ticks = [tick for tick in axis_ticks(most, quantity, voice.system, 4) if tick <= 1.04 * most]
    top = 1.0 if quantity == "share" and most > 0.3 else 1.04 * most
    x, y = FRAME.across(0.0, span), FRAME.up(0.0, top)
    drawn = []
    for curve, time, values in sampled:
        points = [(x(float(t)), y(float(v))) for t, v in zip(time, values, strict=True)]
        mark = None
        if curve.mark is not None and curve.mark <= span:
            mark = (x(curve.mark), y(float(_before(curve, curve.mark))))
        drawn.append(DrawnCurve(curve.key, curve.words, points, points[-1][1] + 4.0, mark))
    step = 0.0 if emptied is None else emptied
    often = step > 0.0 and span / step <= MOST_EMPTYINGS
    empties = [float(hour) for hour in np.arange(step, span, step)] if often else []
    return render(
        "ageing_chart.svg.jinja",
        **FRAME.places,
        lines=labels_apart(drawn, FRAME.bottom + 4.0),
        limit=None if limit is None else y(limit),
        ticks=[(y(t), voice.figure(t, quantity, unit=False).removesuffix(".0")) for t in ticks],
        times=[(x(t), f"{t:g}") for t in _round_hours(span)],
        empties=[x(hour) for hour in empties],
        description="; ".join(
            f"{curve.words}: {voice.figure(float(values[0]), quantity)} at first, "
            f"{voice.figure(float(values[-1]), quantity)} after {span:.0f} hours"
            for curve, _, values in sampled
        ),
    )


def _within(curve: AgeingCurve, span: float) -> tuple[Array, Array]:
    """The part of a curve that is shown, drawn to its edge."""
    inside = curve.hours <= span
    hours, values = curve.hours[inside], curve.values[inside]
    if inside.all() or hours.size == 0:
        return hours, values
    return np.append(hours, span), np.append(values, np.interp(span, curve.hours, curve.values))


def _before(curve: AgeingCurve, hour: float) -> float:
    """The value as a life ends, not as the next one begins."""
    at = int(np.searchsorted(curve.hours, hour - 1e-9))
    return float(curve.values[min(at, curve.values.size - 1)])


def _round_hours(span: float) -> list[float]:
    raw = span / 6.0
    power = 10.0 ** np.floor(np.log10(raw))
    step = next(m * power for m in (1.0, 2.0, 5.0, 10.0) if m * power >= raw)
    return [float(f"{hour:.4g}") for hour in np.arange(0.0, span + 1e-9, step)]
