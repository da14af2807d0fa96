"""The floor plan: the room to scale, what stands in it, and how the hoses run."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from markupsafe import Markup

from fenwick.drawing.render import render
from fenwick.shop.model import PlacePart, ShopFile
from fenwick.shop.plan import FloorPlan

WIDTH, MOST_HEIGHT, MARGIN = 640.0, 470.0, 26.0
TOOL_SIDE = 0.36  #: of a tool's mark [m]


@dataclass(frozen=True)
class Item:
    """Something on the floor that can be moved."""

    id: str
    kind: str  #: tool, vacuum, separator, outlet or furniture
    name: str
    x: float
    y: float
    width: float
    height: float
    label_y: float


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
    return render(
        "floor.svg.jinja",
        name=name,
        width=room.width_m * scale + 2 * MARGIN,
        height=height,
        scale=scale,
        margin=MARGIN,
        room=(MARGIN, MARGIN, room.width_m * scale, room.depth_m * scale),
        grid=_grid(room.width_m, room.depth_m, scale, height),
        items=[_item(*thing, scale, at) for thing in _things(shop)],
        runs=runs,
        spot=spot,
        description="The shop from above: "
        + "; ".join(f"{run.name}, hose {run.text}" for run in runs)
        + ("." if runs else "no hoses yet."),
    )


Thing = tuple[str, str, str, PlacePart, float, float]


def _things(shop: ShopFile) -> list[Thing]:
    """Furniture first, so that what stands on it lies on top."""
    things: list[Thing] = [
        (item.id, "furniture", item.name, item.place, item.width_m, item.depth_m) for item in shop.furniture
    ]
    things += [(c.id, "outlet", c.name, c.place, 0.16, 0.16) for c in shop.circuits if c.place]
    things += [(v.id, "vacuum", v.name, v.place, 0.42, 0.42) for v in shop.vacuums if v.place]
    if shop.separator_place:
        things.append(("separator", "separator", "Separator", shop.separator_place, 0.4, 0.4))
    things += [(t.id, "tool", t.ports[0].name, t.place, TOOL_SIDE, TOOL_SIDE) for t in shop.tools if t.place]
    return things


def _item(
    item_id: str,
    kind: str,
    name: str,
    place: PlacePart,
    width: float,
    depth: float,
    scale: float,
    at: Callable[[float, float], tuple[float, float]],
) -> Item:
    x, y = at(place.x_m, place.y_m)
    w, h = width * scale, depth * scale
    return Item(
        item_id,
        kind,
        name,
        x,
        y,
        w,
        h,
        y - h / 2 + 14.0 if kind == "furniture" and w >= h else y + (4.0 if kind == "furniture" else h / 2 + 13.0),
    )


def _grid(width: float, depth: float, scale: float, height: float) -> list[tuple[float, float, float, float]]:
    lines = []
    for i in range(1, int(width) + 1):
        x = MARGIN + i * scale
        lines.append((x, MARGIN, x, height - MARGIN))
    for i in range(1, int(depth) + 1):
        y = height - MARGIN - i * scale
        lines.append((MARGIN, y, MARGIN + width * scale, y))
    return lines
