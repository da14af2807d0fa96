"""Factors before and after tuning, on one logarithmic scale."""

from __future__ import annotations

from math import log

from markupsafe import Markup

from fenwick.core.tuning.fit import FittedFactor
from fenwick.drawing.render import render

WIDTH, HEIGHT, EDGE = 260.0, 26.0, 8.0
LEAST, MOST = 0.2, 5.0  #: of the scale


def place(factor: float) -> float:
    """Where a factor stands on the bar [px]."""
    share = (log(min(max(factor, LEAST), MOST)) - log(LEAST)) / (log(MOST) - log(LEAST))
    return EDGE + share * (WIDTH - 2.0 * EDGE)


def render_factor(one: FittedFactor) -> Markup:
    """What was believed of a factor, pale, and what the readings leave of it, dark, as SVG."""
    return render(
        "factor_bar.svg.jinja",
        width=WIDTH,
        height=HEIGHT,
        one=place(1.0),
        prior=(place(one.prior_low), place(one.prior_high)),
        after=(place(one.low), place(one.high)),
        value=place(one.value),
        fixed=one.fixed,
        description=f"between {one.low:.2f} and {one.high:.2f}; before between {one.prior_low:.2f} and "
        f"{one.prior_high:.2f}",
    )
