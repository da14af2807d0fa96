"""The holes of a line at which a gauge is read, over its drawing: what was read, and what it should show."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from markupsafe import Markup

from fenwick.drawing.canvas import Canvas
from fenwick.drawing.render import render, render_line, unlinked
from fenwick.drawing.scene import Scene
from fenwick.drawing.shapes import text_width

ABOVE = 74.0  #: room for the gauges over the line [px]
GAUGE_Y, STEM_FROM = 22.0, 60.0  #: of a gauge's middle, and where its stem begins [px]
BETWEEN = 16.0  #: least room between two gauges' words [px]
MARGIN = 6.0  #: to the edge of the picture [px]
TOOL, VACUUM = "tool", "vacuum"  #: places that are no hole in a wall


@dataclass(frozen=True)
class Hole:
    """A place where something can be read."""

    at: str  #: id of the part behind which it is, or TOOL, or VACUUM
    title: str  #: where that is, in words
    read: str  #: what was read there last; empty: nothing yet
    expected: str  #: what the line should show; empty: not known
    level: str  #: how far what was read is off: ok, watch or act; empty: nothing was read
    here: bool  #: whether the next reading is taken here
    best: str  #: that a reading here would tell most, in words; empty: another would
    link: str


@dataclass(frozen=True)
class PlacedHole:
    """A hole on the picture; all in [px]."""

    hole: Hole
    x: float  #: of the hole in the wall
    y: float
    gauge: float  #: x of its gauge
    half: float  #: half the width of its words


@dataclass(frozen=True)
class HolesScene:
    """The line with its gauges."""

    canvas: Canvas
    holes: tuple[PlacedHole, ...]
    description: str


def lay_out_holes(scene: Scene, holes: Sequence[Hole]) -> HolesScene:
    """Put a gauge over every hole; gauges whose words would meet move apart, their stems lean."""
    placed = [_placed(scene, hole) for hole in holes]
    placed.sort(key=lambda one: one.x)
    wide = scene.canvas.width
    gauges = _apart([one.x for one in placed], [one.half for one in placed], wide)
    said = "; ".join(_said(hole) for hole in holes)
    moved = tuple(replace(one, gauge=gauge) for one, gauge in zip(placed, gauges, strict=True))
    return HolesScene(replace(scene.canvas, height=scene.canvas.height + ABOVE), moved, said)


def render_holes(scene: Scene, holes: Sequence[Hole], name: str) -> Markup:
    """The line as SVG with its gauges over it; `name` makes its ids unique on a page."""
    laid = lay_out_holes(scene, holes)
    return render(
        "holes.svg.jinja",
        s=laid,
        above=ABOVE,
        line=unlinked(render_line(scene, name)),
        name=name,
        y=GAUGE_Y,
        stem=STEM_FROM,
    )


def _placed(scene: Scene, hole: Hole) -> PlacedHole:
    if hole.at == TOOL:
        x, y = scene.tool.outlet
    elif hole.at == VACUUM:
        x, y = scene.vacuum.inlet
    else:
        part = next((one for one in scene.parts if one.id == hole.at and one.curve is not None), None)
        stage = next((one for one in scene.stages if one.id == hole.at), None)
        if part is not None and part.curve is not None:
            x, y = part.curve.end
        elif stage is not None:
            x, y = stage.outlet
        else:
            x, y = scene.stations.get(hole.at, 0.0), scene.floor
    half = 0.5 * max(
        text_width(hole.read, 14.0),
        text_width(hole.best, 12.0),
        text_width(hole.expected, 12.0),
        26.0,
    )
    return PlacedHole(hole, x, y + ABOVE, x, half)


def _apart(places: Sequence[float], halves: Sequence[float], width: float) -> list[float]:
    """Places in their order, none whose words meet another's, as near to where they were as that allows.

    Parameters
    ----------
    places : from left to right [px]
    halves : half of what each takes [px]
    width : of the picture [px]
    """
    found: list[float] = []
    left = MARGIN
    for x, half in zip(places, halves, strict=True):
        found.append(max(x, left + half))
        left = found[-1] + half + BETWEEN
    right = width - MARGIN
    for i in range(len(found) - 1, -1, -1):
        found[i] = min(found[i], right - halves[i])
        right = found[i] - halves[i] - BETWEEN
    return found


def _said(hole: Hole) -> str:
    read = f"{hole.read} read" if hole.read else "not read yet"
    return f"{hole.title}: {read}{f', {hole.expected}' if hole.expected else ''}"
