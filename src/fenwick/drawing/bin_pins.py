"""A bin in section, photos pinned to their heights, and what is kept with dust up to each height."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.arrays import Array
from fenwick.drawing.axes import PlotFrame, ToPage, axis_ticks
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

WIDTH, HEIGHT = 520.0, 330.0  #: [px]
LEFT, RIGHT, TOP, BOTTOM = 52.0, 20.0, 16.0, 34.0  #: [px]
BIN, PLOT = 220.0, 250.0  #: where the bin ends, and where the plot beside it begins [px]
NEAR = 22.0  #: two pins nearer than that share a place: the later one steps aside [px]


@dataclass(frozen=True)
class Pin:
    """A photo's place."""

    number: int
    height: float  #: over the floor [m]


@dataclass(frozen=True)
class PlacedPin:
    """A photo's place on the picture [px]."""

    number: int
    x: float
    y: float


def render_bin_pins(
    heights: Array, widths: Array, kept: Array, pins: Sequence[Pin], fill: float | None, voice: Voice
) -> Markup:
    """The bin and the curve as SVG.

    Parameters
    ----------
    heights, widths : of the bin, from the floor to the rim, shape (k,) [m]
    kept : with dust up to there, likewise [-]
    pins : the photos
    fill : where the dust stands now [m]; None: not known
    """
    top = float(heights[-1])
    frame = PlotFrame(WIDTH, HEIGHT, PLOT, RIGHT, TOP, BOTTOM)
    y, x = frame.up(0.0, top), frame.across(0.0, 1.0)
    scale = min((frame.bottom - frame.top) / top, (BIN - LEFT) / float(np.max(widths)))
    middle = 0.5 * (LEFT + BIN)
    left = [(middle - 0.5 * scale * w, y(h)) for h, w in zip(heights, widths, strict=True)]
    right = [(middle + 0.5 * scale * w, y(h)) for h, w in zip(heights, widths, strict=True)]
    dust = _below(heights, widths, fill)
    outline = [*reversed(left), *right]
    curve = [(x(float(k)), y(float(h))) for h, k in zip(heights, kept, strict=True)]
    ticks = [(y(t), voice.figure(t, "bore", unit=False)) for t in axis_ticks(top, "bore", voice.system) if t <= top]
    return render(
        "bin_pins.svg.jinja",
        **frame.places,
        outline=_path(outline),
        dust=None if dust is None else _path([(middle + 0.5 * scale * w, y(h)) for h, w in dust]) + " Z",
        curve=_path(curve),
        ticks=ticks,
        shares=[(x(s), f"{100.0 * s:.0f}") for s in (0.0, 0.5, 1.0)],
        pins=_placed(pins, middle, y),
        bin_left=LEFT,
        bin_right=BIN,
    )


def _below(heights: Array, widths: Array, fill: float | None) -> list[tuple[float, float]] | None:
    """The dust's outline: (height, width to either side, signed)."""
    if fill is None or fill <= 0.0:
        return None
    at = np.append(heights[heights < fill], fill)
    wide = np.interp(at, heights, widths)
    up = list(zip(at, wide, strict=True))
    return [*((float(h), float(w)) for h, w in up), *((float(h), -float(w)) for h, w in reversed(up))]


def _path(points: Sequence[tuple[float, float]]) -> str:
    return "M " + " L ".join(f"{x:.1f} {y:.1f}" for x, y in points)


def _placed(pins: Sequence[Pin], middle: float, y: ToPage) -> list[PlacedPin]:
    found: list[PlacedPin] = []
    for pin in pins:
        at = y(pin.height)
        beside = sum(abs(at - other.y) < NEAR for other in found)
        found.append(PlacedPin(pin.number, middle + 24.0 * ((beside + 1) // 2) * (1 if beside % 2 else -1), at))
    return found
