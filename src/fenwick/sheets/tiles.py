"""Templates on paper, 1:1: each drawing cut into pages with marks to join them by, a map, a bar and a square."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from io import BytesIO
from math import ceil
from typing import Any

from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from fenwick.core.making.outlines import Loop
from fenwick.sheets.flat import SQUARE, FlatDrawing
from fenwick.sheets.paper import FOOT, INK, MUTED, PAPERS, spelled

MARGIN, LAP = 12.0, 10.0  #: that no printer reaches, and by which pages overlap [mm]
HEAD = 8.0  #: for a page's own words [mm]
CROSS = 5.0  #: half a registration mark [mm]


@dataclass(frozen=True)
class Tiling:
    """How a drawing is cut into pages; [mm]."""

    columns: int
    rows: int
    step_x: float
    step_y: float
    room_x: float  #: of one page
    room_y: float

    @property
    def pages(self) -> int:
        """How many it takes."""
        return self.columns * self.rows


def tiling(width: float, height: float, paper: str) -> Tiling:
    """Pages for a drawing.

    Parameters
    ----------
    width, height : of the drawing [mm]
    paper : a4 or letter
    """
    wide, high = (side / mm for side in PAPERS[paper])
    room_x, room_y = wide - 2.0 * MARGIN, high - 2.0 * MARGIN - HEAD
    step_x, step_y = room_x - LAP, room_y - LAP
    columns = 1 if width <= room_x else 1 + ceil((width - room_x) / step_x - 1e-9)
    rows = 1 if height <= room_y else 1 + ceil((height - room_y) / step_y - 1e-9)
    return Tiling(columns, rows, step_x, step_y, room_x, room_y)


def write_templates(drawings: Sequence[FlatDrawing], titles: Sequence[str], heading: str, paper: str) -> bytes:
    """All templates as one PDF.

    Parameters
    ----------
    titles : what each drawing is called
    heading : what the first page says
    paper : a4 or letter
    """
    out = BytesIO()
    canvas = Canvas(out, pagesize=PAPERS[paper], invariant=True)
    canvas.setTitle(spelled(heading))
    canvas.setAuthor("Fenwick")
    tilings = [tiling(drawing.width, drawing.height, paper) for drawing in drawings]
    _first_page(canvas, drawings, titles, tilings, heading, paper)
    for drawing, title, tiles in zip(drawings, titles, tilings, strict=True):
        for i in range(tiles.pages):
            _page(canvas, drawing, title, tiles, i, paper)
    canvas.save()
    return out.getvalue()


def _first_page(
    canvas: Canvas,
    drawings: Sequence[FlatDrawing],
    titles: Sequence[str],
    tilings: Sequence[Tiling],
    heading: str,
    paper: str,
) -> None:
    """What to measure before anything is cut, and which pages belong to what."""
    wide, high = (side / mm for side in PAPERS[paper])
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica-Bold", 15)
    canvas.drawString(MARGIN * mm, (high - 20.0) * mm, spelled(heading))
    canvas.setFont("Helvetica", 9.5)
    words = (
        "Print at 100 %, “actual size”. Then measure: the bar and the square are 100 mm long, both ways.",
        "Join pages by their crosses: neighbours overlap by 10 mm, and each cross is on both.",
    )
    for i, line in enumerate(words):
        canvas.drawString(MARGIN * mm, (high - 28.0 - 5.0 * i) * mm, spelled(line))
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.5)
    top = high - 45.0
    _bar(canvas, MARGIN, top)
    canvas.rect(MARGIN * mm, (top - 10.0 - SQUARE) * mm, SQUARE * mm, SQUARE * mm)
    _map(canvas, drawings, titles, tilings, MARGIN + SQUARE + 10.0, top - 10.0, wide)
    canvas.setFillColor(MUTED)
    canvas.setFont("Helvetica", 7.5)
    canvas.drawString(MARGIN * mm, 7.0 * mm, FOOT)
    canvas.showPage()


def _bar(canvas: Canvas, x: float, y: float) -> None:
    canvas.line(x * mm, y * mm, (x + 100.0) * mm, y * mm)
    for i in range(11):
        tick = 3.0 if i % 5 == 0 else 1.5
        canvas.line((x + 10.0 * i) * mm, y * mm, (x + 10.0 * i) * mm, (y + tick) * mm)
    canvas.setFont("Helvetica", 8)
    canvas.drawString((x + 102.0) * mm, y * mm, "100 mm")


def _map(
    canvas: Canvas,
    drawings: Sequence[FlatDrawing],
    titles: Sequence[str],
    tilings: Sequence[Tiling],
    x: float,
    top: float,
    wide: float,
) -> None:
    """Each drawing small, with its pages numbered as they lie."""
    first = 2
    cell = 5.0
    for drawing, title, tiles in zip(drawings, titles, tilings, strict=True):
        high = tiles.rows * cell + 6.0
        if top - high < 15.0:
            break
        canvas.setFillColor(INK)
        canvas.setFont("Helvetica", 8)
        last = first + tiles.pages - 1
        pages = f"page {first}" if tiles.pages == 1 else f"pages {first} to {last}"
        canvas.drawString(x * mm, (top - 3.0) * mm, spelled(f"{title}: {pages}")[: int((wide - x) / 1.5)])
        canvas.setFont("Helvetica", 6)
        for i in range(tiles.pages):
            column, row = i % tiles.columns, i // tiles.columns
            left, foot = x + column * cell * 1.3, top - 5.0 - (row + 1) * cell
            canvas.rect(left * mm, foot * mm, cell * 1.3 * mm, cell * mm)
            canvas.drawString((left + 1.5) * mm, (foot + 1.5) * mm, str(first + i))
        first, top = last + 1, top - high - 3.0
        del drawing


def _page(canvas: Canvas, drawing: FlatDrawing, title: str, tiles: Tiling, i: int, paper: str) -> None:
    """One page: rows from the top down, so that page numbers follow the map."""
    column, row = i % tiles.columns, i // tiles.columns
    low_x, low_y = column * tiles.step_x, (tiles.rows - 1 - row) * tiles.step_y
    _, high = (side / mm for side in PAPERS[paper])
    canvas.saveState()
    clip = canvas.beginPath()
    clip.rect(MARGIN * mm, MARGIN * mm, tiles.room_x * mm, tiles.room_y * mm)
    canvas.clipPath(clip, stroke=0, fill=0)
    canvas.translate((MARGIN - low_x) * mm, (MARGIN - low_y) * mm)
    _draw(canvas, drawing)
    canvas.restoreState()
    _crosses(canvas, tiles)
    canvas.setFillColor(MUTED)
    canvas.setFont("Helvetica", 8)
    words = f"{title}, column {column + 1} of {tiles.columns}, row {row + 1} of {tiles.rows}"
    canvas.drawString(MARGIN * mm, (high - MARGIN - HEAD / 2.0) * mm, spelled(words))
    canvas.drawRightString((MARGIN + tiles.room_x) * mm, 6.0 * mm, f"page {canvas.getPageNumber()}")
    canvas.showPage()


def _draw(canvas: Canvas, drawing: FlatDrawing) -> None:
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.6)
    for loop in drawing.cut:
        _line(canvas, loop, closed=True)
    canvas.setLineWidth(0.3)
    for loop in drawing.marks:
        _line(canvas, loop, closed=True)
    for drill in drawing.drills:
        x, y, d = drill.x, drill.y, drill.d
        canvas.circle(x * mm, y * mm, d / 2.0 * mm)
        canvas.line((x - d) * mm, y * mm, (x + d) * mm, y * mm)
        canvas.line(x * mm, (y - d) * mm, x * mm, (y + d) * mm)
    canvas.setDash(4, 2)
    for line in drawing.creases:
        _line(canvas, line, closed=False)
    canvas.setDash()
    canvas.setFillColor(INK)
    for words in drawing.words:
        canvas.setFont("Helvetica", words.height * mm * 0.8)
        canvas.drawString(words.x * mm, words.y * mm, spelled(words.text))


def _line(canvas: Canvas, loop: Loop, *, closed: bool) -> None:
    path: Any = canvas.beginPath()
    (x, y), *rest = loop.tolist()
    path.moveTo(x * mm, y * mm)
    for px, py in rest:
        path.lineTo(px * mm, py * mm)
    if closed:
        path.close()
    canvas.drawPath(path, stroke=1, fill=0)


def _crosses(canvas: Canvas, tiles: Tiling) -> None:
    """In the middle of each overlap, at the same place of the drawing on both pages."""
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.3)
    half = LAP / 2.0
    for x in (half, tiles.room_x - half):
        for y in (half, tiles.room_y - half):
            at_x, at_y = MARGIN + x, MARGIN + y
            canvas.line((at_x - CROSS) * mm, at_y * mm, (at_x + CROSS) * mm, at_y * mm)
            canvas.line(at_x * mm, (at_y - CROSS) * mm, at_x * mm, (at_y + CROSS) * mm)
