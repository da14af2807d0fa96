"""A line with several tools, whole: tools, branches and gates to the trunk, separator and vacuum.

Wide, the tools stand side by side on the floor and their hoses rise to the pipe over them; upright, they stand one
below the other and the pipe runs down beside them. Bores, separator and bin are to scale, lengths are not.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace

from fenwick.core.arrays import Array
from fenwick.core.judging.assess import Assessment
from fenwick.drawing.bodies import VacuumBody
from fenwick.drawing.canvas import Canvas
from fenwick.drawing.labels import place_labels
from fenwick.drawing.run import Piece, as_drawn, hung, part_boxes, pieces_of, trunk_runs, widths_of
from fenwick.drawing.shapes import Box, Curve, DrawnPart, Point, divided
from fenwick.drawing.stages import StageBody, place_stage, size_of
from fenwick.drawing.states import free_at_watch, part_levels
from fenwick.drawing.tools import HIGH, WIDE
from fenwick.drawing.tree_frame import (
    GROUP_GAP,
    USUAL_WIDTH,
    LaidBranches,
    TreeFrame,
    lay_branches,
    upright_frame,
    wide_frame,
)
from fenwick.drawing.tree_scene import TreePipe, TreeScene
from fenwick.drawing.tree_words import description_of, gates_of, speed_label, text_box, told_tool
from fenwick.rig import Rig
from fenwick.rig.format.elements import BranchPart
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.wording.say import Voice

MOST_SCALE = 330.0  #: [px/m]


def lay_out_tree(
    rig: Rig, found: Assessment, voice: Voice, alone: Array, link: Callable[[str], str], selected: str | None,
    port: int = 0, *, upright: bool = False, width: float = USUAL_WIDTH, most_scale: float = MOST_SCALE,
) -> TreeScene:  # fmt: skip
    """Lay a whole line out.

    Parameters
    ----------
    alone : air at every port, opened alone [m^3/s]
    link : from a part's id to the address that picks it
    selected : id of the part being edited
    port : place of the tool port whose way is looked at, among the rig's ways
    upright : whether the tools stand one below the other
    width : of the picture, as far as its tools fit it [px]
    most_scale : of another line beside it, which this one is not to be larger than [px/m]
    """
    parts = [e for e in rig.line.elements if isinstance(e, SeparatorPart | WetStagePart)]
    units = len(rig.line.ways) + GROUP_GAP * sum(1 for _, branch in rig.line.walk() if branch.port is None)
    frame = upright_frame(units) if upright else wide_frame(units, len(parts), width)
    canvas, floor = frame.canvas, frame.floor
    scale = min(most_scale, _scale(parts, upright=upright))
    vacuum = _vacuum(rig, canvas, floor, scale, upright=upright)
    laid = LaidBranches(frame.first)
    trunk_bore = pieces_of(list(trunk_runs(rig)[0]))[0].bore_in
    end = lay_branches(rig.line.branches, 0, frame, laid, trunk_bore)
    stages = _place_stages(parts, frame, end, vacuum, floor, scale, found)
    way = rig.line.ways[port]
    on_way = frozenset(
        [b.id for b in way] + [e.id for b in way for e in b.elements] + [e.id for e in rig.line.elements]
    )
    drawn = [part for branch, curve in laid.runs for part in _along(list(branch.elements), curve, scale)]
    if upright:  # clear of the gates
        drawn = [part if part.curve is None else replace(part, anchor=part.curve.at(0.3)) for part in drawn]
    runs = _trunk(trunk_runs(rig), frame.point(end, frame.pipe), stages, vacuum, scale)
    trunk = [part for run in runs for part in run]
    bodies = [_body(stage, floor) for stage in stages]
    behind = [part for body, run in zip(bodies, runs[1:], strict=True) for part in (body, *run)]
    last = DrawnPart("vacuum", "vacuum", "", 0, vacuum.label_at)
    listed = _numbered([*drawn, *runs[0], *behind, last], found, voice)
    tools = tuple(
        told_tool(branch, along, frame, floor, found, voice, alone, rig, on_way) for branch, along in laid.tools
    )
    pipes = tuple(
        TreePipe(one.curve, one.bore * scale, any(name in on_way for name in one.ports)) for one in laid.pipes
    )  # fmt: skip
    texts = [text_box(tool) for tool in tools]
    obstacles = [*part_boxes(trunk), vacuum.box, *(stage.box for stage in stages), *texts]
    obstacles += [box for branch, curve in laid.runs for box in _covered(curve, scale * _bore(branch))]
    obstacles += [box for pipe in pipes for box in _covered(pipe.curve, pipe.bore)]
    obstacles += [Box(tool.at[0], tool.at[1], WIDE * tool.size, HIGH * tool.size) for tool in tools]
    said = [part for part in listed if part.id in {one.id for one in (*trunk, *bodies)} or part.kind == "vacuum"]
    said = _over_the_pipe(said, trunk, pipes)
    labels = () if upright else place_labels(tuple(said), obstacles, rig, found, voice, canvas)
    speeds = [
        speed_label(part, found, voice, on_way, upright=upright) for part in listed if part.id in {d.id for d in drawn}
    ]
    return TreeScene(
        canvas, floor, f"{rig.name}: every tool to {rig.vacuum.name}", description_of(tools, listed), tools,
        tuple(gates_of(laid.runs, scale, voice, on_way)), pipes, listed, stages, vacuum,
        (*labels, *(one for one in speeds if one is not None)), on_way, link, selected, upright, scale,
    )  # fmt: skip


def _body(stage: StageBody, floor: float) -> DrawnPart:
    """A stage, whose label may stand beside its bin where the pipe takes the room over it."""
    right = stage.x + stage.half + 14.0
    aside = tuple((right, floor - up) for up in (96.0, 82.0, 68.0, 54.0, 40.0, 26.0))
    return DrawnPart(stage.id, "separator", "", 0, stage.label_at, aside=aside)


def _over_the_pipe(
    parts: list[DrawnPart], trunk: Sequence[DrawnPart], pipes: Sequence[TreePipe]
) -> list[DrawnPart]:  # fmt: skip
    """The first hose of the trunk is named over the pipe that leads to it: beside it there is no room."""
    first = next((part.id for part in trunk if part.kind == "hose"), None)
    if not pipes:
        return parts
    start, end = pipes[0].curve.start, pipes[-1].curve.end
    middle = (0.5 * (start[0] + end[0]), min(start[1], end[1]))
    return [replace(part, anchor=middle, turn=90.0) if part.id == first else part for part in parts]


def _on_way(rig: Rig, port: int) -> frozenset[str]:
    """Ids of everything that the air of a port passes."""
    way = rig.line.ways[port]
    return frozenset(
        [b.id for b in way] + [e.id for b in way for e in b.elements] + [e.id for e in rig.line.elements]
    )  # fmt: skip


def _scale(parts: Sequence[SeparatorPart | WetStagePart], *, upright: bool) -> float:
    """Pixels per metre: as large as the separators allow."""
    if not parts:
        return 250.0
    sizes = [size_of(part) for part in parts]
    tall, wide = max(high for high, _ in sizes), sum(width for _, width in sizes)
    high, broad = (140.0, 120.0) if upright else (186.0, 140.0 * max(1.0, 0.75 * len(parts)))
    return min(MOST_SCALE, high / tall, broad / wide)


def _vacuum(rig: Rig, canvas: Canvas, floor: float, scale: float, *, upright: bool) -> VacuumBody:
    """At the right of the picture, as large as on one of the usual width."""
    usual = Canvas(360.0 if upright else 852.0, 236.0 if upright else 282.0, canvas.labels)
    body = VacuumBody.place(rig.vacuum, usual, floor, scale)
    by = canvas.width - usual.width
    return replace(
        body, x=body.x + by, inlet=(body.inlet[0] + by, body.inlet[1]),
        side_inlet=(body.side_inlet[0] + by, body.side_inlet[1]),
    )  # fmt: skip


def _along(elements: list[object], curve: Curve, scale: float) -> list[DrawnPart]:
    """The parts of a branch along its curve."""
    pieces: list[Piece] = pieces_of(elements)
    widths = widths_of(pieces, 150.0)
    return [
        as_drawn(piece, part, scale)
        for piece, part in zip(pieces, divided(curve, [one / sum(widths) for one in widths]), strict=True)
    ]


def _place_stages(
    parts: Sequence[SeparatorPart | WetStagePart], frame: TreeFrame, end: float, vacuum: VacuumBody, floor: float,
    scale: float, found: Assessment,
) -> tuple[StageBody, ...]:  # fmt: skip
    """The stages between the end of the pipe and the vacuum, evenly."""
    free = free_at_watch(found)
    left = 34.0 if frame.upright else end
    widths = [size_of(part)[1] * scale for part in parts]
    gap = max(vacuum.inlet[0] - left - sum(widths), 0.0) / (len(parts) + 1) if parts else 0.0
    here, found_ = left, []
    for part, width in zip(parts, widths, strict=True):
        here += gap
        found_.append(place_stage(part, here + width / 2, floor, scale, free.get(part.id, 0.0)))
        here += width
    return tuple(found_)


def _trunk(
    runs: list[list[object]], start: Point, stages: Sequence[StageBody], vacuum: VacuumBody, scale: float
) -> list[list[DrawnPart]]:
    """From the end of the pipe to the vacuum, ahead of, between and behind the stages."""
    first = stages[0].inlet if stages else vacuum.side_inlet
    drop = first[1] - start[1]
    reach = max(0.55 * (first[0] - start[0]), 18.0)
    bends = ((start[0] + reach, start[1]), (first[0] - reach, first[1]), first)
    if abs(drop) > 2.5 * abs(first[0] - start[0]):  # upright: down first, then in
        bends = ((start[0], start[1] + 0.6 * drop), (first[0] - 40.0, first[1]), first)
    drawn = [_along(runs[0], Curve(start, (bends,)), scale)]
    ends = [*(stage.inlet for stage in stages[1:]), vacuum.inlet] if stages else []
    for run, stage, end in zip(runs[1:], stages, ends, strict=True):
        drawn.append(hung(pieces_of(run), stage.outlet, end, scale))
    return drawn


def _numbered(parts: list[DrawnPart], found: Assessment, voice: Voice) -> tuple[DrawnPart, ...]:
    levels = part_levels(found)
    named = {part.id: i for i, part in enumerate((one for one in parts if one.id), start=1)}
    return tuple(
        replace(part, number=named.get(part.id, 0), title=voice.name(part.id), level=levels.get(part.id, ""))
        if part.id
        else part
        for part in parts
    )


def _bore(branch: BranchPart) -> float:
    """The widest of its parts [m]."""
    return max(piece.bore_in for piece in pieces_of(list(branch.elements)))


def _covered(curve: Curve, bore: float) -> list[Box]:
    """Small boxes along a hose, close enough for no label to slip between."""
    half = bore / 2 + 2.0
    points = [curve.at(step / 48) for step in range(49)]
    return [Box(x - half, y - half, 2 * half, 2 * half) for x, y in points]
