"""The trade-off plot: what designs keep against the suction they cost; those that another one beats are grey."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import log10

from markupsafe import Markup

from fenwick.core.search.finder import Design
from fenwick.drawing.axes import PlotFrame, axis_ticks
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

FRAMES = {
    "wide": PlotFrame(852.0, 330.0, 52.0, 18.0, 16.0, 38.0),
    "narrow": PlotFrame(360.0, 330.0, 46.0, 10.0, 14.0, 38.0),
}
#: named on the upright axis, as far as there is room [-]
SHARES = (
    0.0, 0.2, 0.4, 0.5, 0.6, 0.7, 0.8, 0.85, 0.9, 0.93, 0.95, 0.96, 0.97, 0.98, 0.985, 0.99, 0.995, 0.998, 0.999,
)  # fmt: skip
LEAST_PAST = 5e-4  #: where that axis ends [-]
ROOM = 1.25  #: of the axis, against the costliest design that nobody beats
SPREAD = 0.08  #: of the axis beyond the good ones, to either side [-]
LEAST_APART = 20.0  #: between two names of that axis [px]
LEAST_SPAN = 0.2  #: that the axis shows [-]
#: marks by kind, so that colour is not alone
SHAPES = {
    "cyclone": "M 0 -6 L 5.5 4.5 H -5.5 Z",
    "slotted-disc": "M -4.5 -4.5 h 9 v 9 h -9 Z",
    "hung-disc": "M 0 -6 L 6 0 L 0 6 L -6 0 Z",
    "one-body": "M -5.5 4.5 V -0.5 L -2.5 -5 H 2.5 L 5.5 -0.5 V 4.5 Z",
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
    frame: PlotFrame = FRAMES["wide"],
) -> Markup:
    """The plot as SVG; its upright axis goes with the logarithm of what gets past, so that the good ones are spread.

    Parameters
    ----------
    designs : that were found
    today : (kept [-], suction it costs [Pa]) of the separator that is there
    picked : place of the chosen design
    link : from a design's place to the address that picks it
    voice, labels : whose words; what each kind is called
    frame : of the plot
    """
    front = [design for design in designs if not design.dominated]
    steps = 6 if frame is FRAMES["wide"] else 3
    ticks = axis_ticks(ROOM * max([today[1], *(design.suction for design in front)]), "suction", voice.system, steps)
    good = [_held(share) for share in (today[0], *(design.kept for design in front))]
    room = SPREAD * max(max(good) - min(good), LEAST_SPAN)
    x, y = frame.across(0.0, ticks[-1]), frame.up(max(0.0, min(good) - room), max(good) + room)
    spots = [
        PlotSpot(
            x(design.suction),
            y(_held(design.kept)),
            design.kind,
            f"{labels[design.kind]}: keeps {voice.figure(design.kept, 'share')}, costs "
            f"{voice.figure(design.suction, 'suction')}, {voice.figure(design.height, 'bore')} high",
            "" if design.dominated and i != picked else link(i),
            i == picked,
        )
        for i, design in enumerate(designs)
    ]
    named = [(y(_held(share)), f"{100 * share:g}") for share in SHARES]
    return render(
        "tradeoff.svg.jinja",
        **frame.places,
        beaten=[spot for spot in spots if not spot.link and _within(spot, frame)],
        best=sorted((spot for spot in spots if spot.link), key=lambda spot: spot.picked),
        shapes=SHAPES,
        today=(x(today[1]), y(_held(today[0]))),
        ticks=[(x(tick), voice.figure(tick, "suction", unit=False)) for tick in ticks],
        shares=_apart([(at, text) for at, text in named if frame.top <= at <= frame.bottom]),
        unit=voice.figure(0.0, "suction").split(" ", 1)[1],
        description=f"{len(spots)} designs: kept against suction; {len(front)} of them nobody beats.",
    )


def _held(kept: float) -> float:
    """What is kept on the upright axis: 0 where all gets past, one more for each tenth that gets past of it."""
    return -log10(max(1.0 - kept, LEAST_PAST))


def _apart(named: list[tuple[float, str]]) -> list[tuple[float, str]]:
    """From the foot up, those that stand clear of the one before."""
    kept: list[tuple[float, str]] = []
    for at, text in named:
        if not kept or kept[-1][0] - at >= LEAST_APART:
            kept.append((at, text))
    return kept


def _within(spot: PlotSpot, frame: PlotFrame) -> bool:
    return spot.x <= frame.right and frame.top <= spot.y <= frame.bottom
