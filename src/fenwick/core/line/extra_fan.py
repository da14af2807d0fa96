"""The air that an extra fan at a hood moves."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.hood import ExtraFan
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.line.filters import medium_resistance
from fenwick.core.line.line import Line
from fenwick.core.rules import ENTRY_LOSS

STEPS = 50  #: of the bisection
DUCT_HEADS = float(ENTRY_LOSS["plain"]) + 1.0  #: lost at a duct's mouth, and where it blows out [-]


def extra_flow(fan: ExtraFan | None, line: Line) -> Values:
    """Air that an extra fan moves, at room density [m^3/s]; 0 without one.

    Given, or where its falling curve meets what its filter and its duct ask for.
    """
    if fan is None:
        return 0.0
    if fan.curve is None:
        return 0.0 if fan.flow is None else fan.flow
    density = line.site.density
    low = np.zeros(np.broadcast_shapes(np.shape(density), np.shape(fan.curve.open_flow)))
    high = low + fan.curve.open_flow
    for _ in range(STEPS):
        middle = 0.5 * (low + high)
        spare = fan.curve.suction(middle, density) > _asked(fan, middle, line)
        low, high = np.where(spare, middle, low), np.where(spare, high, middle)
    return np.asarray(0.5 * (low + high))


def _asked(fan: ExtraFan, flow: Array, line: Line) -> Values:
    """Suction that its filter and its duct ask for [Pa]."""
    asked: Values = 0.0
    if fan.medium is not None:
        asked = medium_resistance(fan.medium, line) * flow / fan.medium.area
    if fan.bore is not None:
        asked = asked + DUCT_HEADS * 0.5 * line.site.density * np.square(flow / bore_area(fan.bore))
    return asked
