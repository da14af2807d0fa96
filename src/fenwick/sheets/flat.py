"""A flat part as it is drawn 1:1: what is cut, creased, drilled and written, in millimetres, y upwards."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.making.layout import Layout
from fenwick.core.making.outlines import Loop
from fenwick.core.making.parts import MadePart

MM = 1000.0  #: in a metre
SQUARE = 100.0  #: side of the square that is measured [mm]
GAP, LINE, LETTERS = 12.0, 7.0, 4.5  #: between part and words, between lines, height of letters [mm]


@dataclass(frozen=True)
class Words:
    """A line of text."""

    x: float  #: of its left end [mm]
    y: float  #: of its foot [mm]
    text: str
    height: float = LETTERS  #: [mm]


@dataclass(frozen=True)
class DrillMark:
    """A drilled hole; [mm]."""

    x: float
    y: float
    d: float


@dataclass(frozen=True)
class FlatDrawing:
    """What goes on a sheet, its lower left corner at the origin; [mm]."""

    name: str
    width: float
    height: float
    cut: tuple[Loop, ...]  #: closed
    creases: tuple[Loop, ...] = ()  #: open
    drills: tuple[DrillMark, ...] = ()
    marks: tuple[Loop, ...] = ()  #: closed, neither cut nor creased: the square that is measured
    words: tuple[Words, ...] = ()


def draw_part(part: MadePart, lines: Sequence[str]) -> FlatDrawing:
    """A part with its words and the square that is measured, under it.

    Parameters
    ----------
    lines : what is written on the sheet
    """
    low = part.outline[0].min(axis=0)
    high = part.outline[0].max(axis=0)
    block = max(SQUARE, LINE * len(lines)) + GAP
    shift = np.array((0.0, block)) - low * MM

    def at(loop: Loop) -> Loop:
        return np.asarray(loop * MM + shift)

    size = (high - low) * MM
    square = np.array([(0.0, 0.0), (SQUARE, 0.0), (SQUARE, SQUARE), (0.0, SQUARE)])
    beside = SQUARE + GAP
    words = [Words(beside, SQUARE - LINE * (i + 1), text) for i, text in enumerate(lines)]
    words.append(Words(6.0, SQUARE / 2.0, f"{SQUARE:g} mm both ways?"))
    widest = beside + max((len(text) for text in lines), default=0) * LETTERS * 0.62
    return FlatDrawing(
        part.id,
        max(float(size[0]), widest),
        float(size[1]) + block,
        tuple(at(loop) for loop in part.outline),
        tuple(at(line) for line in part.creases),
        tuple(DrillMark(float(d.x * MM + shift[0]), float(d.y * MM + shift[1]), d.d * MM) for d in part.drills),
        (square,),
        tuple(words),
    )


def draw_layout(layout: Layout, parts: Sequence[MadePart], named: Sequence[str], titles: Sequence[str]) -> FlatDrawing:
    """Every sheet with the parts on it, one beside the other.

    Parameters
    ----------
    named : what each part is called
    titles : what is written over each sheet
    """
    by_id, names = {part.id: part for part in parts}, dict(zip((p.id for p in parts), named, strict=True))
    cut: list[Loop] = []
    marks: list[Loop] = []
    drills: list[DrillMark] = []
    words: list[Words] = []
    left, tall = 0.0, 0.0
    for i, sheet in enumerate(layout.sheets):
        w, h = sheet.width * MM, sheet.height * MM
        marks.append(np.array([(left, 0.0), (left + w, 0.0), (left + w, h), (left, h)]))
        words.append(Words(left, h + GAP, titles[i], 2.0 * LETTERS))
        for one in (placed for placed in layout.placed if placed.sheet == i):
            part = by_id[one.part]
            loops, holes = _on_sheet(part, one.x, one.y, left, turned=one.turned)
            cut += loops
            drills += holes
            middle = (loops[0].min(axis=0) + loops[0].max(axis=0)) / 2.0
            words.append(Words(float(middle[0]) - 20.0, float(middle[1]), names[part.id], 1.6 * LETTERS))
        left, tall = left + w + 4.0 * GAP, max(tall, h)
    width = max(left - 4.0 * GAP, SQUARE)
    return FlatDrawing("sheets", width, tall + 4.0 * GAP, tuple(cut), (), tuple(drills), tuple(marks), tuple(words))


def _on_sheet(part: MadePart, x: float, y: float, left: float, *, turned: bool) -> tuple[list[Loop], list[DrillMark]]:
    low, high = part.outline[0].min(axis=0), part.outline[0].max(axis=0)

    def at(points: Loop) -> Loop:
        moved = points - low
        if turned:
            moved = np.column_stack((float(high[1] - low[1]) - moved[:, 1], moved[:, 0]))
        return np.asarray((moved + np.array((x, y))) * MM + np.array((left, 0.0)))

    middles = [at(np.array([(d.x, d.y)]))[0] for d in part.drills]
    holes = [DrillMark(float(m[0]), float(m[1]), d.d * MM) for m, d in zip(middles, part.drills, strict=True)]
    return [at(loop) for loop in part.outline], holes
