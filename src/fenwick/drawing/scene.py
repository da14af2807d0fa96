"""Where everything stands: bores, separator and bin to scale; tool and vacuum as symbols.

A hose that is longer than the room between its ends is drawn cut, as on any working drawing, and says its length.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from fenwick.core.judging.assess import Assessment
from fenwick.drawing.bodies import Tool, VacuumBody
from fenwick.drawing.canvas import NARROW, WIDE, Canvas
from fenwick.drawing.labels import place_labels
from fenwick.drawing.run import JOINS, GateMark, JunctionMark, draped, hung, part_boxes, pieces_of, trunk_runs
from fenwick.drawing.shapes import DrawnPart, Label
from fenwick.drawing.stages import StageBody, place_stage, size_of
from fenwick.drawing.states import free_at_watch, part_levels
from fenwick.rig import Rig
from fenwick.rig.format.elements import BranchPart
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.wording.say import Voice

__all__ = ["NARROW", "WIDE", "Canvas", "Scene", "lay_out_scene"]

MARKS = ("joint", "gate-mark", "junction")  #: drawn, but not parts to pick
FLOOR_MARGIN = 16.0
MOST_SCALE = 420.0  #: [px/m]


@dataclass(frozen=True)
class Scene:
    """A line laid out."""

    canvas: Canvas
    scale: float  #: [px/m]
    floor: float
    title: str
    description: str
    tool: Tool
    vacuum: VacuumBody
    stages: tuple[StageBody, ...]
    parts: tuple[DrawnPart, ...]
    labels: tuple[Label, ...]
    stations: dict[str, float]  #: x of the end of each part, for the ladder under the drawing
    on_way: frozenset[str]  #: ids of the parts, ports and gates on the way that is drawn
    link: Callable[[str], str]
    selected: str | None
    marks: Mapping[str, int] = field(default_factory=dict)  #: numbers of the parts that differ from another line's

    def stage(self, name: str) -> StageBody:
        """The stage of that id."""
        return next(stage for stage in self.stages if stage.id == name)


def lay_out_scene(
    rig: Rig,
    found: Assessment,
    voice: Voice,
    canvas: Canvas,
    link: Callable[[str], str],
    selected: str | None,
    port: int = 0,
    *,
    named: bool = True,
    most_scale: float = MOST_SCALE,
) -> Scene:
    """Lay the way from one tool port to the vacuum out on a canvas; other branches show where they join.

    Parameters
    ----------
    rig, found, voice : the line, its assessment, and whose words
    canvas : the picture
    link : from a part's id to the address that picks it
    selected : id of the part being edited
    port : place of the tool port among the rig's ways
    named : whether its parts get labels; not where only their places are wanted
    most_scale : of another line beside it, which this one is not to be larger than [px/m]
    """
    way = rig.line.ways[port]
    at_tool = way[0].port
    assert at_tool is not None
    parts = [e for e in rig.line.elements if isinstance(e, SeparatorPart | WetStagePart)]
    floor = canvas.height - FLOOR_MARGIN
    scale = min(most_scale, _scale(parts, canvas))
    tool = Tool.place(at_tool, canvas, floor, scale)
    vacuum = VacuumBody.place(rig.vacuum, canvas, floor, scale)
    runs = _runs(rig, way)
    free = free_at_watch(found)
    stages = tuple(
        place_stage(part, x, floor, scale, free.get(part.id, 0.0))
        for part, x in zip(parts, _stage_places(runs, parts, scale, tool, vacuum), strict=True)
    )
    between = _run_parts(runs, stages, tool, vacuum, floor, scale)
    numbered = _numbered(way[0].id, found, voice, tool, between, stages, vacuum)
    bodies = [tool.box, vacuum.box, *(stage.box for stage in stages)]
    along = [part for run in between for part in run]
    labelled = canvas.labels and named
    labels = place_labels(numbered, bodies + part_boxes(along), rig, found, voice, canvas) if labelled else ()
    return Scene(
        canvas=canvas,
        scale=scale,
        floor=floor,
        title=f"{rig.name}: from {at_tool.name} to {rig.vacuum.name}",
        description=_description(numbered),
        tool=tool,
        vacuum=vacuum,
        stages=stages,
        parts=numbered,
        labels=labels,
        stations=_stations(numbered, way, tool, stages, vacuum),
        on_way=frozenset(
            [b.id for b in way] + [e.id for b in way for e in b.elements] + [e.id for e in rig.line.elements]
        ),
        link=link,
        selected=selected,
    )


Stages = Sequence[SeparatorPart | WetStagePart]


def _runs(rig: Rig, way: tuple[BranchPart, ...]) -> list[list[object]]:
    """Elements ahead of the first stage, between stages, and behind the last, with marks for gates and junctions."""
    ahead: list[object] = []
    for i, branch in enumerate(way):
        ahead += branch.elements
        if branch.gate is not None:
            ahead.append(GateMark(branch.gate.opening))
        group = way[i + 1].branches if i + 1 < len(way) else rig.line.branches
        if len(group) > 1:
            others = [way_in[0] for other in group if other is not branch for way_in in other.ways]
            ahead.append(JunctionMark(f"{JOINS}{branch.id}", tuple(b.port.name for b in others if b.port)))
    runs = trunk_runs(rig)
    return [[*ahead, *runs[0]], *runs[1:]]


def _scale(parts: Stages, canvas: Canvas) -> float:
    """Pixels per metre: as large as the separators and the hose over them allow."""
    if not parts:
        return min(MOST_SCALE, canvas.height * 1.1)
    sizes = [size_of(part) for part in parts]
    tall, wide = max(high for high, _ in sizes), sum(width for _, width in sizes)
    room = canvas.height - FLOOR_MARGIN - 0.3 * canvas.height
    share = 0.22 if len(parts) == 1 else 0.34
    return min(MOST_SCALE, room / tall, share * canvas.width / wide)


def _stage_places(runs: list[list[object]], parts: Stages, scale: float, tool: Tool, vacuum: VacuumBody) -> list[float]:
    """Middles of the stages: the runs share the room between them by their number of parts."""
    start, end = tool.outlet[0], vacuum.inlet[0]
    weights = [1.0 + len(run) for run in runs]
    if len(parts) == 1:
        share = min(max(weights[0] / sum(weights), 0.5), 0.72)
        return [start + share * (end - start)]
    widths = [size_of(part)[1] * scale for part in parts]
    room = max(end - start - sum(widths), 0.0)
    weights = [max(weights[0], 0.4 * sum(weights)), *weights[1:]]
    places, here = [], start
    for weight, width in zip(weights, widths, strict=False):
        here += room * weight / sum(weights)
        places.append(here + width / 2)
        here += width
    return places


def _run_parts(
    runs: list[list[object]], stages: tuple[StageBody, ...], tool: Tool, vacuum: VacuumBody, floor: float, scale: float
) -> list[list[DrawnPart]]:
    """The parts of every run: draped from the tool, hung from each stage over to what follows."""
    if not stages:
        return [draped(pieces_of(runs[0]), tool.outlet, vacuum.side_inlet, floor, scale)]
    found = [draped(pieces_of(runs[0]), tool.outlet, stages[0].inlet, floor, scale)]
    ends = [*(stage.inlet for stage in stages[1:]), vacuum.inlet]
    for run, stage, end in zip(runs[1:], stages, ends, strict=True):
        found.append(hung(pieces_of(run), stage.outlet, end, scale))
    return found


def _numbered(
    port: str,
    found: Assessment,
    voice: Voice,
    tool: Tool,
    between: list[list[DrawnPart]],
    stages: tuple[StageBody, ...],
    vacuum: VacuumBody,
) -> tuple[DrawnPart, ...]:
    """Every part that can be picked, in the order of the air, with its state."""
    levels = part_levels(found)
    listed = [DrawnPart(port, "tool", "", 0, tool.label_at), *between[0]]
    for stage, run in zip(stages, between[1:], strict=True):
        listed += [DrawnPart(stage.id, "separator", "", 0, stage.label_at), *run]
    listed.append(DrawnPart("vacuum", "vacuum", "", 0, vacuum.label_at))
    named = [part for part in listed if part.kind not in MARKS]
    numbers = {part.id: i for i, part in enumerate(named, start=1)}
    return tuple(
        replace(part, number=numbers.get(part.id, 0), title=voice.name(part.id), level=levels.get(part.id, ""))
        for part in listed
    )


def _description(parts: tuple[DrawnPart, ...]) -> str:
    words = {"ok": "in order", "watch": "to watch", "act": "to act on", "": ""}
    said = [
        f"{part.title}{f' ({words[part.level]})' if words[part.level] else ''}"
        for part in parts
        if part.kind not in MARKS
    ]
    return "In the order of the air: " + ", ".join(said) + "."


def _stations(
    parts: tuple[DrawnPart, ...],
    way: tuple[BranchPart, ...],
    tool: Tool,
    stages: tuple[StageBody, ...],
    vacuum: VacuumBody,
) -> dict[str, float]:
    """x of each part's end; gates by the branch they close."""
    places: dict[str, float] = {}
    outlets = {stage.id: stage.outlet[0] for stage in stages}
    gated = iter(branch.id for branch in way if branch.gate is not None)
    for part in parts:
        if part.kind == "gate-mark" and part.curve is not None:
            places[f"{next(gated)}:gate"] = part.curve.end[0]
        elif part.curve is not None:
            places[part.id] = part.curve.end[0]
        elif part.kind == "tool":
            places[f"{part.id}:entry"] = tool.outlet[0]
        elif part.kind == "vacuum":
            places[part.id] = vacuum.inlet[0]
        else:
            places[part.id] = outlets[part.id]
    return places
