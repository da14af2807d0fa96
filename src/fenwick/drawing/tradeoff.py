"""The trade-off plot: what designs keep against the suction they cost; those that another one beats are grey."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import ceil, floor

import numpy as np
from markupsafe import Markup

from fenwick.core.search.finder import Design
from fenwick.drawing.axes import PlotFrame, axis_ticks
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

FRAME = PlotFrame(852.0, 330.0, 46.0, 18.0, 16.0, 38.0)
STEP = 0.05  #: of the upright axis, or twice that where it is long [-]
ROOM = 1.25  #: of the axis, against the costliest design that nobody beats
#: marks by kind, so that colour is not alone
SHAPES = {
    "cyclone": "M 0 -6 L 5.5 4.5 H -5.5 Z",
    "slotted-disc": "M -4.5 -4.5 h 9 v 9 h -9 Z",
    "hung-disc": "M 0 -6 L 6 0 L 0 6 L -6 0 Z",
    "elbow-lid": "M -1.7 -5.5 h 3.4 v 3.8 h 3.8 v 3.4 h -3.8 v 3.8 h -3.4 v -3.8 h -3.8 v -3.4 h 3.8 Z",
    "rim-inlet": "M -5 0 a 5 5 0 1 0 10 0 a 5 5 0 1 0 -10 0",
}


@dataclass(frozen=True)
class PlotSpot:
    """A design on the plot."""

    x: float
    y: float
    kind: str
    title: str
    link: str  #: empty for those that are beaten
    picked: bool


def render_tradeoff(
    designs: Sequence[Design],
    today: tuple[float, float],
    picked: int | None,
    link: Callable[[int], str],
    voice: Voice,
    labels: dict[str, str],
) -> Markup:
    """The plot as SVG.

    Parameters
    ----------
    designs : that were found
    today : (kept [-], suction it costs [Pa]) of the separator that is there
    picked : place of the chosen design
    link : from a design's place to the address that picks it
    voice, labels : whose words; what each kind is called
    """
    front = [design for design in designs if not design.dominated]
    ticks = axis_ticks(ROOM * max([today[1], *(design.suction for design in front)]), "suction", voice.system, 6)
    shares = [today[0], *(design.kept for design in front)]
    low = max(0.0, floor(10.0 * (min(shares) - 0.02)) / 10.0)
    high = min(1.0, ceil(20.0 * (max(shares) + 0.005)) / 20.0)
    x, y = FRAME.across(0.0, ticks[-1]), FRAME.up(low, high)
    spots = [
        PlotSpot(
            x(design.suction),
            y(design.kept),
            design.kind,
            f"{labels[design.kind]}: keeps {voice.figure(design.kept, 'share')}, costs "
            f"{voice.figure(design.suction, 'suction')}, {voice.figure(design.height, 'bore')} high",
            "" if design.dominated and i != picked else link(i),
            i == picked,
        )
        for i, design in enumerate(designs)
    ]
    step = STEP if high - low <= 0.4 else 2.0 * STEP
    return render(
        "tradeoff.svg.jinja",
        **FRAME.places,
        beaten=[spot for spot in spots if not spot.link and spot.x <= FRAME.right and spot.y <= FRAME.bottom],
        best=sorted((spot for spot in spots if spot.link), key=lambda spot: spot.picked),
        shapes=SHAPES,
        today=(x(today[1]), y(today[0])),
        ticks=[(x(tick), voice.figure(tick, "suction", unit=False)) for tick in ticks],
        shares=[(y(share), f"{100 * share:.0f}") for share in np.arange(low, high + 1e-9, step).tolist()],
        unit=voice.figure(0.0, "suction").split(" ", 1)[1],
        description=f"{len(spots)} designs: kept against suction; {len(front)} of them nobody beats.",
    )
