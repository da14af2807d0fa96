"""What every printed page shares: letters, colours, tables, the foot."""

from __future__ import annotations

from typing import Any
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, letter
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.platypus import Paragraph, Table, TableStyle

INK, MUTED, RULE, AIR = (HexColor(code) for code in ("#22313a", "#5c6a70", "#d9d2c3", "#1f6f78"))
TEXT = ParagraphStyle("text", fontName="Helvetica", fontSize=9.5, leading=13, textColor=INK)
SMALL = ParagraphStyle("small", parent=TEXT, fontSize=8, leading=10.5, textColor=MUTED)
HEAD = ParagraphStyle("head", parent=TEXT, fontName="Helvetica-Bold", fontSize=12, leading=16, spaceBefore=9)
TITLE = ParagraphStyle("title", parent=HEAD, fontSize=17, leading=21, spaceBefore=0)
BIG = ParagraphStyle("big", parent=HEAD, fontSize=22, leading=26)
#: what the report's letters lack, written otherwise
SPELLED = {"−": "-", "≤": "at most ", "≥": "at least ", "→": "to", "√": "root ", "…": "...", "⌀": "Ø", "″": "in"}
PAPERS = {"a4": A4, "letter": letter}
FOOT = "An estimate for comparing lines, no certificate. Local codes and licensed practice come first."


def spelled(text: str) -> str:
    """A text in the letters that the page has."""
    for sign, words in SPELLED.items():
        text = text.replace(sign, words)
    return text.encode("cp1252", "replace").decode("cp1252")


def paragraph(text: str, style: ParagraphStyle = TEXT) -> Paragraph:
    """A paragraph of plain text."""
    return Paragraph(escape(spelled(text)), style)


def table_of(rows: list[list[str]], widths: list[float] | None = None) -> Table:
    """A table whose first row is its head."""
    cells = [[paragraph(cell, SMALL if i == 0 else TEXT) for cell in row] for i, row in enumerate(rows)]
    table = Table(cells, colWidths=widths, repeatRows=1, hAlign="LEFT", splitInRow=1)  # a long note flows over pages
    table.setStyle(
        TableStyle(
            [
                ("LINEBELOW", (0, 0), (-1, -1), 0.4, RULE),
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
                ("LEFTPADDING", (0, 0), (-1, -1), 0),
                ("TOPPADDING", (0, 0), (-1, -1), 2),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 2),
            ]
        )
    )
    return table


def foot(canvas: Any, document: Any) -> None:
    """What stands under every page."""
    canvas.saveState()
    canvas.setFont("Helvetica", 7.5)
    canvas.setFillColor(MUTED)
    canvas.drawString(20 * mm, 10 * mm, FOOT)
    canvas.drawRightString(document.pagesize[0] - 20 * mm, 10 * mm, f"page {document.page}")
    canvas.restoreState()
