"""What is printed for measuring with a telephone: card, sheet of squares and strip, each 1:1 on a page of its own."""

from __future__ import annotations

from io import BytesIO

import numpy as np
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from fenwick.phone.light import encoded, reflectance
from fenwick.phone.targets import CARD, DOT, HOLE, RING, SHEET, STRIP, Target
from fenwick.sheets.paper import FOOT, INK, MUTED, PAPERS, spelled

BLACK = 12.0  #: lightness of ink, L*


def write_targets(paper: str = "a4") -> bytes:
    """All three as one PDF.

    Parameters
    ----------
    paper : a4 or letter
    """
    out = BytesIO()
    canvas = Canvas(out, pagesize=PAPERS[paper], invariant=True)
    canvas.setTitle("Card, sheet of squares and strip")
    for target in (CARD, SHEET, STRIP):
        _page(canvas, target, paper)
    canvas.save()
    return out.getvalue()


def _page(canvas: Canvas, target: Target, paper: str) -> None:
    wide, high = PAPERS[paper]
    if target.width > target.height and target.width * mm > 0.9 * wide:
        wide, high = high, wide
    canvas.setPageSize((wide, high))
    left, top = 0.5 * (wide - target.width * mm), 0.5 * (high + target.height * mm)
    _printed(canvas, target, left, top)
    if wide < high:  # the sheet of squares fills its page
        canvas.setDash(3, 3)
        canvas.setStrokeColor(MUTED)
        canvas.rect(left, top - target.height * mm, target.width * mm, target.height * mm)
        _title(canvas, target, high)
    canvas.showPage()


def _title(canvas: Canvas, target: Target, high: float) -> None:
    """What it is for, up the left edge of the page: there is room beside each."""
    canvas.saveState()
    canvas.translate(22.0 * mm, high / 2.0)
    canvas.rotate(90.0)
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica-Bold", 12)
    canvas.drawCentredString(0.0, 0.0, spelled(f"{target.title}. Cut along the dashes; print at 100 %."))
    canvas.setFont("Helvetica", 8)
    canvas.setFillColor(MUTED)
    canvas.drawCentredString(0.0, -6.0 * mm, spelled(FOOT))
    canvas.restoreState()


def _printed(canvas: Canvas, target: Target, left: float, top: float) -> None:
    """The target with its upper left corner at a place of the page, in points."""
    for one in target.black:
        _grey(canvas, one.lightness)
        x, y = left + one.left * mm, top - (one.top + one.height) * mm
        canvas.rect(x, y, one.width * mm, one.height * mm, stroke=0, fill=1)
    for (x, y), dot in zip(target.marks, target.dots, strict=True):
        for radius, ink in ((RING, True), (HOLE, False), *(((DOT, True),) if dot else ())):
            canvas.setFillGray(0.0 if ink else 1.0)
            canvas.circle(left + x * mm, top - y * mm, radius * mm, stroke=0, fill=1)
    canvas.setFillColor(MUTED)
    for words in target.words:
        canvas.setFont("Helvetica", words.size * mm * 1.39)
        canvas.drawString(left + words.x * mm, top - words.y * mm, spelled(words.text))


def _grey(canvas: Canvas, star: float) -> None:
    """A printer's grey of some lightness: its values follow the usual curve of screens."""
    share = float(encoded(reflectance(np.array(star)))) / 255.0
    canvas.setFillGray(max(min(share, 1.0), 0.0) if star > 0.0 else 0.0)
