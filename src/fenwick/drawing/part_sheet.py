"""A flat part to scale, with its measures: what is cut, creased and drilled."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.making.outlines import Loop
from fenwick.core.making.parts import MadePart
from fenwick.drawing.render import render
from fenwick.wording.say import Voice

WIDTH, LEFT, TOP = 820.0, 70.0, 34.0
WIDE, HIGH, LEAST_HIGH = 660.0, 390.0, 60.0  #: room of the part [px]
CORNERS = 600  #: of a loop on the screen


@dataclass(frozen=True)
class SheetMeasure:
    """A measure with its line, or a leader."""

    text: str
    start: tuple[float, float]
    end: tuple[float, float]
    at: tuple[float, float]
    anchor: str = "middle"
    leader: bool = False
    turned: bool = False  #: written upwards


@dataclass(frozen=True)
class SeenHole:
    """A drilled hole."""

    x: float
    y: float
    r: float


@dataclass(frozen=True)
class PartScene:
    """What the template asks for."""

    width: float
    height: float
    outline: str
    creases: tuple[str, ...]
    drills: tuple[SeenHole, ...]
    measures: tuple[SheetMeasure, ...]
    cross: tuple[float, float] | None  #: the pivot


def render_part(part: MadePart, voice: Voice, name: str) -> Markup:
    """The part as SVG.

    Parameters
    ----------
    voice : whose units
    name : makes its ids unique on a page
    """
    scene = part_scene(part, voice)
    said = ", ".join(measure.text for measure in scene.measures)
    return render("part_sheet.svg.jinja", s=scene, name=name, description=f"To scale: {said}.")


def part_scene(part: MadePart, voice: Voice) -> PartScene:
    """Where each line and figure is drawn."""
    low, high = part.outline[0].min(axis=0), part.outline[0].max(axis=0)
    size = high - low
    scale = min(WIDE / size[0], HIGH / size[1])
    wide, tall = float(size[0] * scale), float(size[1] * scale)
    left = LEFT + (WIDE - wide) / 2.0
    height = TOP + max(tall, LEAST_HIGH) + 52.0

    def at(point: Loop) -> tuple[float, float]:
        return left + float(point[0] - low[0]) * scale, TOP + float(high[1] - point[1]) * scale

    def path(loop: Loop) -> str:
        thin = loop[:: max(1, len(loop) // CORNERS)]
        return "M " + " ".join("{:.1f},{:.1f}".format(*at(point)) for point in thin)

    drills = [SeenHole(*at(np.array((d.x, d.y))), max(d.d / 2.0 * scale, 1.2)) for d in part.drills]
    measures = [*_overall(part, left, wide, tall, voice), *_holes(part, at, voice)]
    round_ = part.kind in ("disc", "ring", "cone")
    return PartScene(
        WIDTH, height, " ".join(f"{path(loop)} Z" for loop in part.outline), tuple(path(one) for one in part.creases),
        tuple(drills), tuple(measures), at(np.array((0.0, 0.0))) if round_ and part.kind != "cone" else None,
    )  # fmt: skip


def _overall(part: MadePart, left: float, wide: float, tall: float, voice: Voice) -> list[SheetMeasure]:
    size = part.outline[0].max(axis=0) - part.outline[0].min(axis=0)
    foot = TOP + tall + 22.0
    across = voice.cut(float(size[0]))
    sign = "⌀ " if part.kind in ("disc", "ring") else ""
    found = [
        SheetMeasure(f"{sign}{across}", (left, foot), (left + wide, foot), (left + wide / 2.0, foot + 16.0)),
    ]
    if not sign:
        x = left - 20.0
        text = voice.cut(float(size[1]))
        found.append(SheetMeasure(text, (x, TOP), (x, TOP + tall), (x - 6.0, TOP + tall / 2.0), turned=True))
    return found


def _holes(part: MadePart, at: Callable[[Loop], tuple[float, float]], voice: Voice) -> list[SheetMeasure]:
    """A leader to each hole, with its measure."""
    found = []
    for i, loop in enumerate(part.outline[1:]):
        low, high = loop.min(axis=0), loop.max(axis=0)
        middle = (low + high) / 2.0
        size = high - low
        is_round = abs(float(size[0] - size[1])) < 1e-4 and len(loop) > 12
        d = voice.cut(float(size[0]))
        tall = voice.cut(float(size[1]))
        text = f"⌀ {d}" if is_round else f"{d} × {tall}"
        if "slot_width_m" in part.dims and not is_round:
            text = f"slot {voice.cut(part.dims['slot_width_m'])} wide"
        start = at(np.array((float(high[0]), float(middle[1]))) if is_round else loop[0])
        end = (start[0] + 26.0, start[1] - 16.0 - 5.0 * i)
        found.append(SheetMeasure(text, start, end, (end[0] + 4.0, end[1] + 4.0), "start", leader=True))
    if part.drills:
        sizes = sorted({d.d for d in part.drills})
        first = at(np.array((part.drills[0].x, part.drills[0].y)))
        words = ", ".join(f"{sum(d.d == s for d in part.drills)} × ⌀ {voice.cut(s)}" for s in sizes)
        end = (first[0] + 24.0, first[1] + 20.0)
        found.append(SheetMeasure(words, first, end, (end[0] + 4.0, end[1] + 4.0), "start", leader=True))
    return found
