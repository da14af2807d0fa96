"""The floor plan: the room to scale, what stands in it, and how the hoses run."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.site.sweep import BODY, HeadSweep
from fenwick.drawing.render import render
from fenwick.drawing.tools import symbol_of
from fenwick.shop.model import PlacePart, ShopFile
from fenwick.shop.plan import FloorPlan

WIDTH, MOST_HEIGHT, MARGIN = 640.0, 470.0, 26.0
TOOL_SIDE = 2.0 * BODY  #: of a tool's mark [m]


@dataclass(frozen=True)
class Item:
    """Something on the floor that can be moved."""

    id: str
    kind: str  #: tool, vacuum, separator, outlet, furniture or walkway
    name: str
    x: float
    y: float
    width: float
    height: float
    label_y: float
    symbol: str  #: of a tool's kind; empty for what is no tool


@dataclass(frozen=True)
class FloorRun:
    """A hose over the floor."""

    points: list[tuple[float, float]]
    name: str
    text: str


def render_floor(shop: ShopFile, plan: FloorPlan, lengths: dict[str, str], name: str) -> Markup:
    """The plan as SVG; `lengths` gives the words for each tool's hose."""
    room = shop.room
    scale = min((WIDTH - 2 * MARGIN) / room.width_m, (MOST_HEIGHT - 2 * MARGIN) / room.depth_m)
    height = room.depth_m * scale + 2 * MARGIN

    def at(x: float, y: float) -> tuple[float, float]:
        return MARGIN + x * scale, height - MARGIN - y * scale  # the front wall is at the bottom

    names = {tool.id: tool.ports[0].name for tool in shop.tools}
    runs = [
        FloorRun([at(x, y) for x, y in found.way.tolist()], names[found.id], lengths.get(found.id, ""))
        for found in plan.routes
    ]
    spot = at(*plan.spot.place) if plan.spot else None
    sweeps = [[at(x, y) for x, y in outline] for one in plan.sweeps for outline in sweep_outlines(one)]
    return render(
        "floor.svg.jinja",
        name=name,
        width=room.width_m * scale + 2 * MARGIN,
        height=height,
        scale=scale,
        margin=MARGIN,
        room=(MARGIN, MARGIN, room.width_m * scale, room.depth_m * scale),
        grid=_grid(room.width_m, room.depth_m, scale, height),
        items=[_item(thing, scale, at) for thing in _things(shop)],
        runs=runs,
        sweeps=sweeps,
        spot=spot,
        description="The shop from above: "
        + "; ".join(f"{run.name}, hose {run.text}" for run in runs)
        + ("." if runs else "no hoses yet."),
    )


@dataclass(frozen=True)
class _Thing:
    """Something that stands on the floor."""

    id: str
    kind: str
    name: str
    place: PlacePart
    width: float  #: [m]
    depth: float  #: [m]
    symbol: str = ""


def _things(shop: ShopFile) -> list[_Thing]:
    """Furniture first, so that what stands on it lies on top."""
    things: list[_Thing] = [
        _Thing(item.id, "walkway" if item.walked else "furniture", item.name, item.place, item.width_m, item.depth_m)
        for item in sorted(shop.furniture, key=lambda one: not one.walked)
    ]
    things += [_Thing(c.id, "outlet", c.name, c.place, 0.16, 0.16) for c in shop.circuits if c.place]
    things += [_Thing(v.id, "vacuum", v.name, v.place, 0.42, 0.42) for v in shop.vacuums if v.place]
    if shop.separator_place:
        things.append(_Thing("separator", "separator", "Separator", shop.separator_place, 0.4, 0.4))
    for tool in shop.tools:
        if tool.place:
            symbol = symbol_of(tool.ports[0], tool.kind)
            things.append(_Thing(tool.id, "tool", tool.ports[0].name, tool.place, TOOL_SIDE, TOOL_SIDE, symbol))
    return things


def _item(thing: _Thing, scale: float, at: Callable[[float, float], tuple[float, float]]) -> Item:
    x, y = at(thing.place.x_m, thing.place.y_m)
    w, h = thing.width * scale, thing.depth * scale
    name_y = y + h / 2 + 13.0
    if thing.kind in ("furniture", "walkway"):  # is named inside itself, for things stand around it
        name_y = y - h / 2 + 14.0 if w >= h else y + 4.0
    return Item(thing.id, thing.kind, thing.name, x, y, w, h, name_y, thing.symbol)


def sweep_outlines(sweep: HeadSweep) -> list[list[tuple[float, float]]]:
    """What a head comes to, as closed outlines on the floor [m]."""
    ahead, here = sweep.ahead, np.array(sweep.place)
    aside = np.array([-ahead[1], ahead[0]])
    found = []
    for side in (1.0, -1.0):
        if sweep.travel > 0.0:
            far = BODY + sweep.travel
            corners = [here + side * far * ahead + across * BODY * aside for across in (-1.0, 1.0)]
            near = [here + side * BODY * ahead + across * BODY * aside for across in (1.0, -1.0)]
            found.append([(float(x), float(y)) for x, y in (*corners, *near)])
        if sweep.swing > 0.0:
            turns = np.linspace(-sweep.angle, sweep.angle, 17)
            rim = [here + sweep.swing * (side * np.cos(turn) * ahead + np.sin(turn) * aside) for turn in turns]
            found.append([(float(x), float(y)) for x, y in (here, *rim)])
    return found


def _grid(width: float, depth: float, scale: float, height: float) -> list[tuple[float, float, float, float]]:
    lines = []
    for i in range(1, int(width) + 1):
        x = MARGIN + i * scale
        lines.append((x, MARGIN, x, height - MARGIN))
    for i in range(1, int(depth) + 1):
        y = height - MARGIN - i * scale
        lines.append((MARGIN, y, MARGIN + width * scale, y))
    return lines
