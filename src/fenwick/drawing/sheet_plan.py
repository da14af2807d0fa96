"""One sheet to scale with the parts that are cut from it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.making.layout import Layout, Placed
from fenwick.core.making.outlines import Loop
from fenwick.core.making.parts import MadePart
from fenwick.drawing.render import render

WIDEST, TALLEST = 560.0, 360.0  #: room of a sheet [px]
EDGE = 6.0  #: round it [px]
CORNERS = 200  #: of a loop, seen small


@dataclass(frozen=True)
class LaidPart:
    """A part on its sheet."""

    path: str
    x: float  #: of its name
    y: float
    name: str


def render_sheet(layout: Layout, i: int, parts: Sequence[MadePart], names: Mapping[str, str], name: str) -> Markup:
    """A sheet as SVG.

    Parameters
    ----------
    i : its place among the sheets
    names : of the parts
    name : makes its ids unique on a page
    """
    sheet, by_id = layout.sheets[i], {part.id: part for part in parts}
    scale = min(WIDEST / sheet.width, TALLEST / sheet.height)
    laid = [
        _laid(one, by_id[one.part], names[one.part], sheet.height, scale) for one in layout.placed if one.sheet == i
    ]
    said = ", ".join(part.name for part in laid)
    return render(
        "sheet_plan.svg.jinja", width=sheet.width * scale, height=sheet.height * scale, edge=EDGE, laid=laid, name=name,
        description=f"On this sheet: {said}.",
    )  # fmt: skip


def _laid(placed: Placed, part: MadePart, name: str, tall: float, scale: float) -> LaidPart:
    low, high = part.outline[0].min(axis=0), part.outline[0].max(axis=0)

    def at(loop: Loop) -> Loop:
        moved = loop - low
        if placed.turned:
            moved = np.column_stack((float(high[1] - low[1]) - moved[:, 1], moved[:, 0]))
        flat = moved + np.array((placed.x, placed.y))
        return np.column_stack((EDGE + flat[:, 0] * scale, EDGE + (tall - flat[:, 1]) * scale))

    paths = []
    for loop in part.outline:
        thin = at(loop)[:: max(1, len(loop) // CORNERS)]
        paths.append("M " + " ".join(f"{x:.1f},{y:.1f}" for x, y in thin.tolist()) + " Z")
    outer = at(part.outline[0])
    middle = (outer.min(axis=0) + outer.max(axis=0)) / 2.0
    foot = float(outer[:, 1].min()) + 16.0 if part.kind == "ring" else float(middle[1])
    return LaidPart(" ".join(paths), float(middle[0]), foot, name)
