"""Fine dust in the room's air over a job and after it, one curve for each way of airing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.hours.air import A_DAY, Session
from fenwick.drawing.axes import PlotFrame, axis_ticks
from fenwick.drawing.curves import DrawnCurve, labels_apart
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

FRAME = PlotFrame(430.0, 210.0, 34.0, 78.0, 14.0, 28.0)
MINUTE = 60.0  #: [s]


@dataclass(frozen=True)
class AirCurve:
    """One way of airing."""

    key: str
    words: str
    session: Session


def render_air(curves: Sequence[AirCurve], duration: float, voice: Voice, name: str) -> Markup:
    """The chart as SVG; `duration` of the job [s]."""
    span = float(curves[0].session.time[-1])
    most = max(max(float(np.max(curve.session.breathed)) for curve in curves), 1e-12)
    ticks = axis_ticks(most, "fog", voice.system)
    top = max(ticks[-1], most)
    x, y = FRAME.across(0.0, span), FRAME.up(0.0, top)
    lines = []
    for curve in curves:
        points = [(x(float(t)), y(float(c))) for t, c in zip(curve.session.time, curve.session.breathed, strict=True)]
        clear = duration + curve.session.clears
        off = None if clear > span or curve.session.clears == 0.0 else (x(clear), y(curve.session.level))
        lines.append(DrawnCurve(curve.key, curve.words, points, points[-1][1] + 4.0, off))
    return render(
        "air_chart.svg.jinja",
        name=name,
        **FRAME.places,
        job=x(min(duration, span)),
        lines=labels_apart(lines, FRAME.bottom + 6.0),
        ticks=[(y(t), voice.figure(t, "fog", unit=False)) for t in ticks],
        times=[(x(t), f"{t / MINUTE:.0f}") for t in np.linspace(0.0, span, 5)],
        description="; ".join(
            f"{curve.words}: at most {voice.figure(curve.session.peak, 'fog')}, {_down(curve.session)}"
            for curve in curves
        ),
    )


def _down(session: Session) -> str:
    if not session.clears < A_DAY:
        return "and not clear within a day"
    if session.clears == 0.0:
        return "which counts as clear"
    return f"clear {session.clears / MINUTE:.0f} minutes after the tool stops"
