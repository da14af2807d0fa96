"""A line in small: tool, hose, separator on its bin, vacuum; what is amiss is marked, and how full the bin is."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from fenwick.drawing.render import render

WIDTH, HEIGHT = 268.0, 112.0  #: [px]
FLOOR = 102.0  #: [px]
BIN_TOP, BIN_FOOT = 62.0, 100.0  #: [px]
CAKE_HIGH = 20.0  #: of a filter at the end of its life [px]
TOOL, HOSE, STAGE, BIN, VACUUM = "tool", "hose", "stage", "bin", "vacuum"
BODIES = ("cyclone", "disc", "lid", "wet")


@dataclass(frozen=True)
class SmallLine:
    """What is shown of a line."""

    name: str
    tool: str  #: symbol of the tool that stands for all
    tools: int
    stage: str | None  #: one of BODIES; None: no separator
    fill: float | None  #: of the bin's height [-]
    mark: float | None  #: up to which it may fill, of its height [-]
    cake: float | None  #: of the filter's life that is used [-]; None: not known
    amiss: str | None  #: TOOL, HOSE, STAGE, BIN or VACUUM
    level: str  #: how bad that is: act, watch or ok


def render_small_line(line: SmallLine) -> Markup:
    """The line as SVG; decoration beside the words that say the same."""
    depth = BIN_FOOT - BIN_TOP
    return render(
        "small_line.svg.jinja",
        line=line,
        width=WIDTH,
        height=HEIGHT,
        floor=FLOOR,
        top=BIN_TOP,
        foot=BIN_FOOT,
        fill=None if line.fill is None else BIN_FOOT - depth * min(max(line.fill, 0.0), 1.0),
        cake=None if line.cake is None else CAKE_HIGH * min(max(line.cake, 0.0), 1.0),
        mark=None if line.mark is None else BIN_FOOT - depth * line.mark,
    )


def body_of(kind: str) -> str:
    """Which body stands for a kind of separator."""
    if kind == "cyclone":
        return "cyclone"
    return "disc" if kind in ("slotted-disc", "hung-disc", "one-body") else "wet" if kind == "wet-stage" else "lid"
