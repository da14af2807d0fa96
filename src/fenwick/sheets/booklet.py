"""The booklet for the bench: parts, what to buy, sheets, cutter settings, every step, the first run."""

from __future__ import annotations

from dataclasses import dataclass
from io import BytesIO

from reportlab.graphics.shapes import Circle, Drawing, PolyLine
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether, PageBreak, Paragraph, SimpleDocTemplate, Spacer

from fenwick.core.making.outlines import Loop
from fenwick.sheets.flat import FlatDrawing
from fenwick.sheets.paper import (
    AIR,
    HEAD,
    INK,
    MUTED,
    PAPERS,
    SMALL,
    TITLE,
    foot,
    paragraph,
    spelled,
    table_of,
)

PICTURE_WIDE, PICTURE_HIGH = 62.0, 42.0  #: of a step's drawing [mm]
SHEET_WIDE, SHEET_HIGH = 165.0, 100.0  #: of the sheets [mm]
THIN = 300  #: corners that a small picture needs of a loop


@dataclass(frozen=True)
class StepPage:
    """One step in words."""

    number: int
    name: str
    time: str
    lines: tuple[str, ...]  #: what comes first and why, figures
    hold: str
    cautions: tuple[str, ...]
    drawings: tuple[FlatDrawing, ...]


@dataclass(frozen=True)
class Booklet:
    """All that the booklet says."""

    title: str
    where: str
    summary: str
    parts: tuple[tuple[str, ...], ...]  #: rows, the first the head
    buy: tuple[str, ...]
    sheets: FlatDrawing | None
    cuts: tuple[tuple[str, ...], ...]
    steps: tuple[StepPage, ...]
    first_run: tuple[str, ...]
    warnings: tuple[str, ...]


def write_booklet(booklet: Booklet, paper: str) -> bytes:
    """The booklet as a PDF.

    Parameters
    ----------
    paper : a4 or letter
    """
    out = BytesIO()
    document = SimpleDocTemplate(
        out, pagesize=PAPERS[paper], leftMargin=20 * mm, rightMargin=20 * mm, topMargin=18 * mm, bottomMargin=18 * mm,
        title=spelled(booklet.title), author="Fenwick", invariant=1,
    )  # fmt: skip
    document.build(_story(booklet), onFirstPage=foot, onLaterPages=foot)
    return out.getvalue()


def _story(booklet: Booklet) -> list[Flowable]:
    story: list[Flowable] = [
        paragraph(booklet.title, TITLE), paragraph(booklet.where, SMALL), Spacer(1, 4), paragraph(booklet.summary),
    ]  # fmt: skip
    if booklet.warnings:
        story += [paragraph("Look at first", HEAD), *_listed(booklet.warnings)]
    story += [paragraph("Parts", HEAD), table_of([list(row) for row in booklet.parts], _widths(36, 42, 58, 16, 14))]
    story += [paragraph("To buy", HEAD), *(_listed(booklet.buy) or [paragraph("Nothing.")])]
    if booklet.sheets is not None:
        story += [KeepTogether([paragraph("Sheets", HEAD), _picture(booklet.sheets, SHEET_WIDE, SHEET_HIGH)])]
    if len(booklet.cuts) > 1:
        story += [
            paragraph("Cutter table", HEAD),
            paragraph("The cutter runs in the waste. Measure from the pivot.", SMALL),
            table_of([list(row) for row in booklet.cuts], _widths(26, 46, 40, 54)),
        ]
    story += [PageBreak(), paragraph("Order of work", HEAD)]
    for step in booklet.steps:
        story.append(KeepTogether(_step(step)))
    story += [KeepTogether([paragraph("First switch-on", HEAD), *_listed(booklet.first_run)])]
    return story


def _widths(*millimetres: float) -> list[float]:
    return [one * mm for one in millimetres]


def _listed(lines: tuple[str, ...]) -> list[Paragraph]:
    return [paragraph(f"· {line}") for line in lines]


def _step(step: StepPage) -> list[Flowable]:
    found: list[Flowable] = [
        paragraph(f"{step.number}  {step.name}", HEAD),
        paragraph(step.time, SMALL),
        *[paragraph(line) for line in step.lines],
    ]
    if step.hold:
        found.append(paragraph(f"Go on only when: {step.hold}"))
    found += [paragraph(line, SMALL) for line in step.cautions]
    found += [_picture(drawing, PICTURE_WIDE, PICTURE_HIGH) for drawing in step.drawings[:2]]
    return [*found, Spacer(1, 5)]


def _picture(drawing: FlatDrawing, wide: float, high: float) -> Drawing:
    """A drawing made small, without its words."""
    loops = [*drawing.cut, *drawing.creases, *(drawing.marks if drawing.name == "sheets" else ())]
    low_x, low_y = min(float(one[:, 0].min()) for one in loops), min(float(one[:, 1].min()) for one in loops)
    size_x = max(float(one[:, 0].max()) for one in loops) - low_x
    size_y = max(float(one[:, 1].max()) for one in loops) - low_y
    scale = min(wide / max(size_x, 1.0), high / max(size_y, 1.0)) * mm
    picture = Drawing(size_x * scale, size_y * scale + 4.0)

    def points(loop: Loop, *, closed: bool) -> list[float]:
        thin = loop[:: max(1, len(loop) // THIN)].tolist()
        return [
            at for x, y in (*thin, *(thin[:1] if closed else ())) for at in ((x - low_x) * scale, (y - low_y) * scale)
        ]

    for loop in drawing.marks if drawing.name == "sheets" else ():
        picture.add(PolyLine(points(loop, closed=True), strokeColor=MUTED, strokeWidth=0.6))
    for loop in drawing.cut:
        picture.add(PolyLine(points(loop, closed=True), strokeColor=INK, strokeWidth=0.7))
    for line in drawing.creases:
        picture.add(PolyLine(points(line, closed=False), strokeColor=AIR, strokeWidth=0.5))
    for drill in drawing.drills:
        x, y, d = drill.x, drill.y, drill.d
        picture.add(Circle((x - low_x) * scale, (y - low_y) * scale, max(d / 2.0 * scale, 0.5), fillColor=None,
                           strokeColor=INK, strokeWidth=0.4))  # fmt: skip
    return picture
