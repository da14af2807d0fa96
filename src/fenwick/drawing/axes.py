"""The frame of a plot: where it stands on its picture, how figures become places, and round figures along an axis."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from math import floor, log10

from fenwick.units.convert import from_display, to_display

ToPage = Callable[[float], float]  #: from a figure to a place on the page


@dataclass(frozen=True)
class PlotFrame:
    """A picture and the margins of the plot in it; all in [px]."""

    width: float
    height: float
    left: float  #: where the plot begins
    right_margin: float
    top: float
    bottom_margin: float

    @property
    def right(self) -> float:
        """Where it ends."""
        return self.width - self.right_margin

    @property
    def bottom(self) -> float:
        """Its foot."""
        return self.height - self.bottom_margin

    @property
    def places(self) -> dict[str, float]:
        """What a picture's template calls its edges."""
        edges = {"left": self.left, "right": self.right, "top": self.top, "bottom": self.bottom}
        return {"width": self.width, "height": self.height, **edges}

    def across(self, low: float, high: float) -> ToPage:
        """From a figure to a place along the level axis, `low` at the left."""
        return lambda value: self.left + (self.right - self.left) * (value - low) / (high - low)

    def up(self, low: float, high: float) -> ToPage:
        """From a figure to a place along the upright axis, `low` at the foot."""
        return lambda value: self.bottom - (self.bottom - self.top) * (value - low) / (high - low)


def axis_ticks(most: float, quantity: str, system: str, steps: int = 3) -> list[float]:
    """Round figures in the user's unit from 0 to just past the largest, in some `steps`; stored units."""
    shown = max(to_display(most, quantity, system), 1e-9)
    raw = shown / steps
    power = 10.0 ** floor(log10(raw))
    step = next(m * power for m in (1.0, 2.0, 2.5, 5.0, 10.0) if m * power >= raw * (1.0 - 1e-9))
    count = int(shown / step * (1.0 - 1e-9)) + 1
    return [from_display(step * i, quantity, system) for i in range(count + 1)]


def span_ticks(low: float, high: float, quantity: str, system: str, steps: int = 4) -> list[float]:
    """Round figures in the user's unit from just below `low` to just past `high`, in some `steps`; stored units."""
    first, last = sorted((to_display(low, quantity, system), to_display(high, quantity, system)))
    raw = max(last - first, 1e-9) / steps
    power = 10.0 ** floor(log10(raw))
    step = next(m * power for m in (1.0, 2.0, 2.5, 5.0, 10.0) if m * power >= raw * (1.0 - 1e-9))
    start = floor(first / step + 1e-9)
    stop = max(-floor(-last / step + 1e-9), start + 1)
    return [from_display(step * i, quantity, system) for i in range(start, stop + 1)]
