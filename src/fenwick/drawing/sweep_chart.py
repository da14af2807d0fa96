"""What is kept as one thing runs through its range: a small chart with where the line stands."""

from __future__ import annotations

from math import degrees

import numpy as np
from markupsafe import Markup

from fenwick.core.search.effects import Sweep
from fenwick.drawing.axes import PlotFrame
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

FRAME = PlotFrame(268.0, 132.0, 30.0, 8.0, 10.0, 22.0)
MOST_TICKS = 4


def render_sweep(sweep: Sweep, voice: Voice, name: str, mark: float | None = None) -> Markup:
    """The chart as SVG; `mark` is where to stop, in the sweep's own unit."""
    most = float(np.max(sweep.value)) or 1.0
    x, y = FRAME.across(0.0, most), FRAME.up(0.0, 1.0)
    kept_now = float(np.interp(sweep.now, sweep.value, sweep.kept))
    return render(
        "sweep_chart.svg.jinja",
        name=name,
        **FRAME.places,
        points=[(x(float(v)), y(float(k))) for v, k in zip(sweep.value, sweep.kept, strict=True)],
        now=(x(min(sweep.now, most)), y(kept_now)),
        mark=None if mark is None else x(min(mark, most)),
        ticks=[(x(tick), _words(sweep.id, tick, voice)) for tick in _ticks(sweep.id, most)],
        shares=[(y(share), f"{100 * share:.0f}") for share in (0.0, 0.5, 1.0)],
        description=f"Kept share against {sweep.id}: {100 * float(sweep.kept[0]):.0f} % at the start, "
        f"{100 * float(sweep.kept[-1]):.0f} % at {_words(sweep.id, most, voice)}; now {100 * kept_now:.0f} %.",
    )


def _ticks(kind: str, most: float) -> list[float]:
    step = {"tilt": np.pi / 12.0, "leak": 0.05}.get(kind, most / MOST_TICKS)
    return [float(value) for value in np.arange(0.0, most + 1e-9, step)]


def _words(kind: str, value: float, voice: Voice) -> str:
    if kind == "tilt":
        return f"{degrees(value):.0f}°"
    if kind == "leak":
        return f"{100.0 * value:.0f} %"
    return voice.figure(value, "bore", unit=False).removesuffix(".0")
