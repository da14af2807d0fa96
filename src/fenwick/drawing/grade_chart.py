"""The grade curve over the sizes of the dust: which get past, and how much of the dust they are."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.arrays import Array
from fenwick.core.formulas.sizes import SIZES
from fenwick.drawing.axes import PlotFrame
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

FRAME = PlotFrame(852.0, 196.0, 46.0, 16.0, 18.0, 34.0)
TICKS = (1e-6, 2e-6, 5e-6, 10e-6, 20e-6, 50e-6, 100e-6, 200e-6, 500e-6, 1e-3, 2e-3, 5e-3, 10e-3)


@dataclass(frozen=True)
class GradeChart:
    """What the chart shows; arrays of shape (60,)."""

    entering: Array  #: share of the dust that enters, by size [-]
    kept: Array  #: share of each size that stays in the bin [-]
    reaches_wall: Array  #: share of each size thrown to the wall [-]
    models: dict[str, Array]  #: likewise by further models
    cut_size: float  #: [m]
    past: float  #: of what enters, by mass [-]
    past_median: float  #: size that half of that is finer than [m]


def render_grade_chart(chart: GradeChart, voice: Voice, name: str) -> Markup:
    """The chart as SVG: curves above, the dust's sizes as columns, those that get past in another colour."""
    sizes = SIZES[:, 0]
    low, high = np.log(sizes[0]), np.log(sizes[-1])
    along, y = FRAME.across(low, high), FRAME.up(0.0, 1.0)

    def x(size: float) -> float:
        return float(along(np.log(size)))

    def curve(shares: Array) -> list[tuple[float, float]]:
        return [(x(size), y(share)) for size, share in zip(sizes.tolist(), shares.tolist(), strict=True)]

    total = float(chart.entering.sum()) or 1.0
    entering = chart.entering / total
    tallest = float(entering.max()) or 1.0
    step = (FRAME.right - FRAME.left) / (len(sizes) - 1)
    columns = []
    for size, share, kept in zip(sizes.tolist(), entering.tolist(), chart.kept.tolist(), strict=True):
        high_px = 0.82 * (FRAME.bottom - FRAME.top) * share / tallest
        columns.append((x(size) - 0.42 * step, high_px * kept, high_px * (1.0 - kept)))
    return render(
        "grade_chart.svg.jinja",
        name=name,
        **FRAME.places,
        column=0.84 * step,
        columns=columns,
        kept=curve(chart.kept),
        wall=curve(chart.reaches_wall),
        models=[(key, curve(shares)) for key, shares in chart.models.items()],
        cut=(x(chart.cut_size), voice.figure(chart.cut_size, "grain")),
        ticks=[(x(size), voice.figure(size, "grain", unit=False).removesuffix(".0")) for size in TICKS],
        shares=[(y(share), f"{100 * share:.0f}") for share in (0.0, 0.5, 1.0)],
        description=(
            f"Of the dust that enters, {100 * chart.past:.1f} % by mass gets past; half of that is finer than "
            f"{voice.figure(chart.past_median, 'grain')}. "
            f"Half of the grains of {voice.figure(chart.cut_size, 'grain')} reach the wall."
        ),
    )
