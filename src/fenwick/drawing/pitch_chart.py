"""The pitch of a motor over a recording."""

from __future__ import annotations

from collections.abc import Sequence

from markupsafe import Markup

from fenwick.drawing.axes import PlotFrame
from fenwick.drawing.render import render

FRAME = PlotFrame(620.0, 190.0, 58.0, 18.0, 16.0, 30.0)
ROOM, LEAST = 0.15, 0.03  #: of the span, free above and below; of a pitch, that is shown at least [-]
LINES = 4


def render_pitch(at: Sequence[float], hertz: Sequence[float]) -> Markup:
    """The chart as SVG.

    Parameters
    ----------
    at : middle of each piece [s]
    hertz : its pitch [Hz]
    """
    low, high = min(hertz), max(hertz)
    span = max(high - low, LEAST * high)
    middle = 0.5 * (low + high)
    low, high = middle - (0.5 + ROOM) * span, middle + (0.5 + ROOM) * span
    x, y = FRAME.across(0.0, max(at[-1], 1.0)), FRAME.up(low, high)
    levels = [low + (high - low) * i / (LINES - 1) for i in range(LINES)]
    seconds = range(0, int(max(at[-1], 1.0)) + 1, max(int(at[-1] / 6.0), 1))
    return render(
        "pitch_chart.svg.jinja",
        **FRAME.places,
        levels=[(y(one), f"{one:.0f}") for one in levels],
        seconds=[(x(float(one)), f"{one} s") for one in seconds],
        points=" ".join(f"{x(a):.1f},{y(b):.1f}" for a, b in zip(at, hertz, strict=True)),
        description=f"Pitch over {at[-1]:.0f} s: {min(hertz):.0f} to {max(hertz):.0f} Hz.",
    )
