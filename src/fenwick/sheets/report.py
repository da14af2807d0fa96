"""A test as a report to print: what was asked, what was found, how surely, and every run it rests on."""

from __future__ import annotations

from dataclasses import dataclass
from io import BytesIO
from typing import Any

from reportlab.graphics.shapes import Circle, Drawing, Line, Rect, String
from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether, SimpleDocTemplate, Spacer, Table

from fenwick.drawing.runs_chart import RunsScene
from fenwick.sheets.paper import (
    AIR,
    BIG,
    HEAD,
    INK,
    MUTED,
    RULE,
    SMALL,
    TITLE,
    foot,
    paragraph,
    spelled,
    table_of,
)

KEY = "Each dot a run, hollow where kept apart; the bar holds the mean in 95 of 100 such tests; pale: the model."


@dataclass(frozen=True)
class ReportedRun:
    """One run, in words."""

    number: int
    variant: str
    came: str  #: what it came to
    stands: str  #: whether it counts, and why not


@dataclass(frozen=True)
class Budget:
    """What the uncertainty of one state is made of."""

    of: str  #: the state; empty where there is only one
    sources: tuple[tuple[str, str], ...]  #: (source, standard uncertainty)


@dataclass(frozen=True)
class Report:
    """All that a report says, in words and one picture."""

    title: str
    kind: str
    where: str  #: shop, line, day and instrument
    headline: str  #: empty where nothing counts yet
    of_what: str
    verdicts: tuple[str, ...]
    states: tuple[tuple[str, str], ...]  #: (state, what it came to)
    held: tuple[str, ...]  #: what the model expected, how far off it was, and what that says
    scene: RunsScene | None
    runs: tuple[ReportedRun, ...]
    budgets: tuple[Budget, ...]
    resets: tuple[str, ...]  #: what is set back before every run
    caution: str


def write_report(report: Report) -> bytes:
    """The report as a PDF."""
    out = BytesIO()
    document = SimpleDocTemplate(
        out, pagesize=A4, leftMargin=20 * mm, rightMargin=20 * mm, topMargin=18 * mm, bottomMargin=18 * mm,
        title=spelled(report.title), author="Fenwick", subject=spelled(report.kind),
    )  # fmt: skip
    document.build(list(_story(report)), onFirstPage=foot, onLaterPages=foot)
    return out.getvalue()


def _story(report: Report) -> list[Flowable]:
    story: list[Flowable] = [paragraph(report.title, TITLE), paragraph(report.where, SMALL), Spacer(1, 5)]
    if report.headline:
        story += [paragraph(report.headline, BIG), paragraph(report.of_what)]
    else:
        story.append(paragraph("Nothing that counts yet."))
    story += [paragraph(words) for words in report.verdicts]
    story += [paragraph("States", HEAD), *[paragraph(f"{name}: {words}") for name, words in report.states]]
    if report.held:
        story += [paragraph("Beside the model", HEAD), *[paragraph(words) for words in report.held]]
    if report.scene is not None:
        story += [Spacer(1, 6), _chart(report.scene), paragraph(KEY, SMALL)]
    story += [paragraph("Runs", HEAD), _runs(report.runs)]
    for budget in report.budgets:
        title = "What the uncertainty is made of" + (f": {budget.of}" if budget.of else "")
        rows = [["source", "standard uncertainty"], *[[source, f"± {figure}"] for source, figure in budget.sources]]
        story.append(KeepTogether([paragraph(title, HEAD), table_of(rows)]))
    resets = [paragraph(f"· {words}") for words in report.resets]
    story.append(
        KeepTogether(
            [paragraph("Set back before every run", HEAD), *resets, Spacer(1, 4), paragraph(report.caution, SMALL)]
        )
    )
    return story


def _runs(runs: tuple[ReportedRun, ...]) -> Table:
    rows = [["run", "state", "what it came to", "stands"]]
    rows += [[str(run.number), run.variant, run.came, run.stands] for run in runs]
    return table_of(rows, [12 * mm, 34 * mm, 76 * mm, 48 * mm])


def _chart(scene: RunsScene) -> Drawing:
    """The same picture as on the page; its origin is below."""
    shrink = 170 * mm / scene.width
    drawing = Drawing(scene.width * shrink, scene.height * shrink)
    parts: list[Any] = []

    def y(down: float) -> float:
        return scene.height - down

    for x, text in scene.ticks:
        parts.append(Line(x, y(scene.top), x, y(scene.bottom), strokeColor=RULE, strokeWidth=0.7))
        parts.append(String(x, y(scene.bottom + 17), text, textAnchor="middle", fontSize=11, fillColor=MUTED))
    for row in scene.rows:
        if row.believed is not None and row.expected is not None:
            wide = max(row.believed[1] - row.believed[0], 2.0)
            parts.append(
                Rect(row.believed[0], y(row.y + 18), wide, 38, rx=4, fillColor=HexColor("#f0ece2"), strokeColor=None)
            )
            parts.append(
                Line(
                    row.expected, y(row.y - 20), row.expected, y(row.y + 18), strokeColor=MUTED, strokeDashArray=[4, 3]
                )
            )
        name = spelled(row.name)
        parts.append(String(scene.left - 18, y(row.y - 28), name, fontSize=11, fillColor=INK))
        if row.ends:
            width = max(row.ends[1] - row.ends[0], 1.0)
            parts.append(
                Rect(row.ends[0], y(row.y + 13), width, 8, rx=4, fillColor=HexColor("#a5c5c8"), strokeColor=None)
            )
        if row.mean is not None:
            parts.append(Rect(row.mean - 1.5, y(row.y + 17), 3, 16, fillColor=AIR, strokeColor=None))
        for dot in row.dots:
            fill = AIR if dot.counts else HexColor("#ffffff")
            parts.append(Circle(dot.x, y(dot.y), 4.5, fillColor=fill, strokeColor=AIR, strokeWidth=1.4))
    for part in parts:
        drawing.add(part)
    drawing.scale(shrink, shrink)
    return drawing
