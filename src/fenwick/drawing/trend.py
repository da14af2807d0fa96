"""A list of values as a small line, to see how it runs."""

from __future__ import annotations

import numpy as np
from markupsafe import Markup

from fenwick.core.arrays import Array

WIDTH, HEIGHT, EDGE = 120.0, 26.0, 2.0


def render_trend(values: Array) -> Markup:
    """The values evenly along a line, from their least to their most; no axes.

    Parameters
    ----------
    values : two or more, any unit
    """
    low, high = float(np.min(values)), float(np.max(values))
    across = np.linspace(EDGE, WIDTH - EDGE, values.size)
    share = np.full(values.size, 0.5) if high <= low else (values - low) / (high - low)
    up = HEIGHT - EDGE - share * (HEIGHT - 2.0 * EDGE)
    points = " ".join(f"{x:.1f},{y:.1f}" for x, y in zip(across, up, strict=True))
    return Markup(
        '<svg class="trend" viewBox="0 0 {:g} {:g}" role="img" aria-label="{} values"><polyline points="{}"/></svg>'
    ).format(WIDTH, HEIGHT, values.size, points)
