"""What the vacuum's own page shows, prepared as plain values."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from fenwick.core.arrays import one_value
from fenwick.core.catalogue.vacuums import VACUUMS
from fenwick.core.doubt.doubts import Doubt, is_starved
from fenwick.core.formulas.air import REFERENCE_DENSITY
from fenwick.core.formulas.fan import hole_plate_flow
from fenwick.core.judging.alone import Alone, each_alone
from fenwick.core.judging.cases import solve_cases
from fenwick.core.line.line import Line
from fenwick.data.lines import LineState
from fenwick.drawing import FanChart, RunningPoint, render_fan_chart
from fenwick.rig import Rig, build_line, edit_rig
from fenwick.rig.format.curve import HolesPart, PointsPart
from fenwick.rig.voice import voice_for
from fenwick.services.solving import Solved, solve
from fenwick.web.kit.editor import Editor
from fenwick.web.line.curve_table import HOLES, POINTS, CurveTable, open_table
from fenwick.web.line.form import LABEL, open_editor
from fenwick.wording import check_sentence
from fenwick.wording.say import Voice
from fenwick.wording.vacuum import case_words, hole_plan
from fenwick.wording.warnings import warning

WAYS = {"label": "Label", POINTS: "Points", HOLES: "Hole plate", "class": "Class"}
CURVE_CHECKS = ("fan-believable",)


@dataclass(frozen=True)
class Running:
    """One tool on the chart, its port open alone."""

    number: int
    id: str
    name: str
    flow: str  #: air at the tool
    through: str  #: the vacuum
    suction: str  #: that it makes
    here: bool


@dataclass(frozen=True)
class ClassRow:
    """One generic class."""

    key: str
    label: str
    figures: str
    note: str


@dataclass(frozen=True)
class CaseRow:
    """One kind of day."""

    key: str
    words: str
    sealed: str  #: suction with everything shut
    flows: list[str]  #: at each port


@dataclass(frozen=True)
class VacuumView:
    """The page."""

    state: LineState
    rig: Rig
    way: str  #: of giving the curve, as opened
    given: str  #: of giving the curve, as stored
    chart: Markup
    running: list[Running]
    ports: list[str]  #: headings of the table of cases
    cases: list[CaseRow]
    notes: list[str]
    editor: Editor | None
    table: CurveTable | None
    plan: list[str]  #: plates worth trying
    classes: list[ClassRow]
    error: str = ""
    pasted: str = ""

    @property
    def ways(self) -> dict[str, str]:
        """The ways of giving a curve."""
        return WAYS


@dataclass(frozen=True)
class VacuumAttempt:
    """What was typed and is not saved."""

    editor: Editor | None = None
    table: CurveTable | None = None
    error: str = ""
    pasted: str = ""


def vacuum_view(state: LineState, system: str, way: str | None, attempt: VacuumAttempt | None = None) -> VacuumView:
    """Solve a line with each tool alone and prepare the page of its vacuum."""
    attempt = attempt or VacuumAttempt()
    given = {"nameplate": "label"}.get(state.rig.vacuum.curve.kind, state.rig.vacuum.curve.kind)
    way = way if way in WAYS else given
    table = attempt.table or (open_table(state.rig, way, system) if way in (POINTS, HOLES) else None)
    rig = table.rig if table and table.rig else state.rig
    line, voice = build_line(rig), voice_for(rig, system)
    alone = each_alone(line)
    running = _running(line, alone)
    figures = solve_cases(line)
    return VacuumView(
        state=state,
        rig=rig,
        way=way,
        given=given,
        chart=render_fan_chart(_chart(rig, line, running, table), voice, "fan-chart"),
        running=[
            Running(
                i,
                leaf.id,
                point.name,
                voice.figure(alone.flow[i - 1], "flow"),
                voice.figure(point.flow, "flow"),
                voice.figure(point.suction, "suction"),
                point.here,
            )
            for i, (leaf, point) in enumerate(zip(line.leaves, running, strict=True), start=1)
        ],
        ports=[leaf.port.name for leaf in line.leaves],
        cases=[
            CaseRow(
                case.key,
                case_words(case, voice),
                voice.figure(figures.sealed[c], "suction"),
                _flows(figures.flow[:, c], voice),
            )
            for c, case in enumerate(figures.cases)
        ],
        notes=_notes(solve(rig), running, voice),
        editor=attempt.editor or (open_editor(rig, LABEL, rig.vacuum.name, system) if way == "label" else None),
        table=table,
        plan=hole_plan(line, voice) if way == HOLES else [],
        classes=_classes(voice) if way == "class" else [],
        error=attempt.error,
        pasted=attempt.pasted,
    )


def _running(line: Line, alone: Alone) -> list[RunningPoint]:
    here = next((i for i, leaf in enumerate(line.leaves) if leaf.open), 0)
    return [
        RunningPoint(leaf.port.name, float(alone.through[i]), float(alone.suction[i]), i == here)
        for i, leaf in enumerate(line.leaves)
    ]


def _chart(rig: Rig, line: Line, running: list[RunningPoint], table: CurveTable | None) -> FanChart:
    density = one_value(line.site.density)
    curve, points = rig.vacuum.curve, []
    worn = rig.vacuum.motor_speed is not None and rig.vacuum.motor_speed != 1.0
    new = build_line(edit_rig(rig, {"vacuum.motor_speed": None})).vacuum.curve if worn else None
    reference = new or line.vacuum.curve
    ratio = one_value(reference.sealed_in_room(density)) / one_value(reference.sealed_suction)
    if isinstance(curve, PointsPart):
        points = [(p.flow_m3_s, p.suction_pa * ratio) for p in curve.points]
    if isinstance(curve, HolesPart):
        points = [(q, p * ratio) for q, p in curve.points(density)]
    if table is not None and table.rig is None:  # rows that do not make a curve yet
        points = [_draft(row, density) for row in table.values]
    return FanChart(line.vacuum.curve, density, points, running, new)


def _draft(row: dict[str, float], density: float) -> tuple[float, float]:
    """A row as typed: (flow [m^3/s], suction in this room [Pa])."""
    if "flow_m3_s" in row:
        return row["flow_m3_s"], row["suction_pa"] * density / REFERENCE_DENSITY
    flow = hole_plate_flow(row["hole_diameter_m"], row["holes"], row["suction_pa"], density)
    return float(flow), row["suction_pa"]


def _flows(flows: np.ndarray[tuple[int], np.dtype[np.float64]], voice: Voice) -> list[str]:
    return [voice.figure(float(flow), "flow") for flow in flows]


def _notes(solved: Solved, running: list[RunningPoint], voice: Voice) -> list[str]:
    said = [check_sentence(c, voice) for c in solved.found.checks if c.id in CURVE_CHECKS and int(c.level[0]) > 0]
    starving = next((point for point in running if is_starved(solved.line, point.flow)), None)
    return [*said, warning(Doubt("starved", "vacuum", starving.flow), voice)] if starving else said


def _classes(voice: Voice) -> list[ClassRow]:
    return [
        ClassRow(
            kind.key,
            kind.label,
            f"{voice.figure(kind.sealed_suction, 'suction')} · {voice.figure(kind.open_flow, 'flow')}"
            + (f" · {kind.electrical_power:.0f} W" if kind.electrical_power else ""),
            kind.note,
        )
        for kind in VACUUMS.values()
    ]
