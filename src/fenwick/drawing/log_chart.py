"""A particle monitor's log: dust over time, its baseline, its cuts, and when the air was back."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
from markupsafe import Markup

from fenwick.core.arrays import Array
from fenwick.core.bench.trials.monitor import BACK, Log, Monitored
from fenwick.drawing.axes import PlotFrame, axis_ticks, span_ticks
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

FRAME = PlotFrame(860.0, 260.0, 46.0, 16.0, 22.0, 30.0)
MOST_POINTS = 800  #: drawn; of more, the highest and lowest of each step
MINUTE = 60.0  #: [s]


def render_log(log: Log, found: Monitored, voice: Voice) -> Markup:
    """The chart as SVG; empty where nothing was read."""
    if log.time.size < 2:
        return Markup()
    start, stop = float(log.time[0]), float(log.time[-1])
    most = max(float(np.max(log.value)), 1e-12)
    ticks = axis_ticks(most, "particles", voice.system)
    top = max(ticks[-1], most)
    within, y = FRAME.across(start, max(stop, start + 1e-9)), FRAME.up(0.0, top)

    def x(seconds: float) -> float:
        return within(min(max(seconds, start), stop))

    time, value = _thinned(log.time, log.value)
    ground = found.baseline
    return render(
        "log_chart.svg.jinja",
        **FRAME.places,
        points=[(x(float(t)), y(float(v))) for t, v in zip(time, value, strict=True)],
        baseline=None if ground is None else y(ground),
        normal=None if ground is None else y(BACK * ground),
        cuts=[
            (i, x(cut.start), x(cut.stop), None if cut.back_after is None else x(cut.stop + cut.back_after))
            for i, cut in enumerate(found.cuts, start=1)
        ],
        jumps=[x(at) for at in log.jumps],
        ticks=[(y(t), voice.figure(t, "particles", unit=False)) for t in ticks],
        times=[
            (x(t * MINUTE), f"{t:g}")
            for t in span_ticks(start / MINUTE, stop / MINUTE, "number", voice.system, 6)
            if start / MINUTE - 1e-6 <= t <= stop / MINUTE + 1e-6
        ],
        description=f"{log.time.size} readings over {(stop - start) / MINUTE:.0f} minutes, at most "
        f"{voice.figure(most, 'particles')}",
    )


def _thinned(time: Array, value: Array) -> tuple[Array, Array]:
    """What the eye sees of a long log: of each step its lowest and its highest, in order."""
    if time.size <= MOST_POINTS:
        return time, value
    edges = np.linspace(0, time.size, MOST_POINTS // 2 + 1).astype(int)
    kept: list[int] = []
    for a, b in pairwise(edges):
        part = value[a:b]
        kept += sorted({int(a + np.argmin(part)), int(a + np.argmax(part))})
    return time[kept], value[kept]
