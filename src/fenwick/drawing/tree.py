"""A line with several tools, whole: tools, branches and gates to the trunk, separator and vacuum.

Wide, the tools stand side by side on the floor and their hoses rise to the pipe over them; upright, they stand one
below the other and the pipe runs down beside them. Bores, separator and bin are to scale, lengths are not.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace

from fenwick.core.arrays import Array
from fenwick.core.judging.assess import Assessment
from fenwick.drawing.bodies import VacuumBody
from fenwick.drawing.canvas import Canvas
from fenwick.drawing.labels import place_labels
from fenwick.drawing.run import Piece, as_drawn, hung, part_boxes, pieces_of, widths_of
from fenwick.drawing.shapes import Box, Curve, DrawnPart, Label, Point, divided, straight
from fenwick.drawing.stages import StageBody, place_stage, size_of
from fenwick.drawing.states import part_levels
from fenwick.drawing.tools import HIGH, OUTLET, WIDE, symbol_of
from fenwick.rig import Rig
from fenwick.rig.format.elements import BranchPart
from fenwick.rig.format.separator import SeparatorPart, WetStagePart
from fenwick.wording.say import Voice

BEND = 16.0  #: radius of a hose that turns into the pipe [px]
GROUP_GAP = 0.55  #: behind tools that join one another first, in columns [-]
LEAST_COLUMN, WIDEST_COLUMN = 62.0, 118.0  #: [px]
MOST_SCALE = 330.0  #: [px/m]


@dataclass(frozen=True)
class TreeTool:
    """A tool on the tree."""

    id: str
    symbol: str
    at: Point  #: upper left of its symbol
    size: float  #: of its symbol, 1 is 60 by 72 px [-]
    mirrored: bool  #: the hose leaves it to the left
    name: tuple[str, ...]  #: in lines
    detail: str
    text_at: Point
    anchor: str
    level: str
    open: bool
    strong: bool
    title: str


@dataclass(frozen=True)
class TreeGate:
    """A gate where a branch joins."""

    branch: str
    at: Point
    turn: float  #: of the air [degrees]
    bore: float  #: [px]
    open: bool
    title: str
    strong: bool


@dataclass(frozen=True)
class TreePipe:
    """The pipe that branches join, drawn out so that each joins in a place of its own."""

    curve: Curve
    bore: float  #: [px]
    strong: bool


@dataclass(frozen=True)
class TreeScene:
    """A line with all its branches laid out."""

    canvas: Canvas
    floor: float
    title: str
    description: str
    tools: tuple[TreeTool, ...]
    gates: tuple[TreeGate, ...]
    pipes: tuple[TreePipe, ...]
    parts: tuple[DrawnPart, ...]
    stages: tuple[StageBody, ...]
    vacuum: VacuumBody
    labels: tuple[Label, ...]
    on_way: frozenset[str]
    link: Callable[[str], str]
    selected: str | None
    upright: bool

    @property
    def titled(self) -> frozenset[str]:
        """Ids of the parts whose label begins with their name; beside the others stands their air speed."""
        trunk = [part.id for part in self.parts if part.kind in ("separator", "vacuum")]
        return frozenset([*trunk, *(label.part for label in self.labels if "·" in label.name)])

    def stage(self, name: str) -> StageBody:
        """The stage of that id."""
        return next(stage for stage in self.stages if stage.id == name)


@dataclass(frozen=True)
class TreeFrame:
    """Where things go: along is the way of the pipe, across is from the pipe to the tools."""

    upright: bool
    first: float  #: along, of the first tool [px]
    column: float  #: along, for each tool [px]
    pipe: float  #: across, of the pipe to the trunk [px]
    deeper: float  #: across, for each pipe behind it [px]
    tools: float  #: across, where hoses leave the tools [px]

    def point(self, along: float, across: float) -> Point:
        """On the picture."""
        return (across, along) if self.upright else (along, across)

    def pipe_at(self, depth: int) -> float:
        """Across, of a pipe that many junctions from the trunk."""
        return self.pipe + depth * self.deeper


@dataclass
class _Laid:
    """What is laid out so far."""

    cursor: float
    tools: list[tuple[BranchPart, float]] = field(default_factory=list)  #: with its place along
    runs: list[tuple[BranchPart, Curve]] = field(default_factory=list)
    pipes: list[tuple[tuple[str, ...], Curve, float]] = field(default_factory=list)  #: ids on it, where, bore [m]


def lay_out_tree(
    rig: Rig, found: Assessment, voice: Voice, alone: Array, link: Callable[[str], str], selected: str | None,
    port: int = 0, *, upright: bool = False,
) -> TreeScene:  # fmt: skip
    """Lay a whole line out.

    Parameters
    ----------
    alone : air at every port, opened alone [m^3/s]
    link : from a part's id to the address that picks it
    selected : id of the part being edited
    port : place of the tool port whose way is looked at, among the rig's ways
    upright : whether the tools stand one below the other
    """
    parts = [e for e in rig.line.elements if isinstance(e, SeparatorPart | WetStagePart)]
    units = len(rig.line.ways) + GROUP_GAP * sum(1 for _, branch in rig.line.walk() if branch.port is None)
    frame, canvas, floor = _upright_frame(units) if upright else _wide_frame(units, len(parts))
    scale = _scale(parts, upright=upright)
    vacuum = _vacuum(rig, canvas, floor, scale, upright=upright)
    laid = _Laid(frame.first)
    trunk_bore = pieces_of(list(_runs(rig)[0]))[0].bore_in
    end = _lay(rig.line.branches, 0, frame, laid, trunk_bore)
    stages = _place_stages(parts, frame, end, vacuum, floor, scale, found)
    way = rig.line.ways[port]
    on_way = frozenset(
        [b.id for b in way] + [e.id for b in way for e in b.elements] + [e.id for e in rig.line.elements]
    )
    drawn = [part for branch, curve in laid.runs for part in _along(list(branch.elements), curve, scale)]
    if upright:  # clear of the gates
        drawn = [part if part.curve is None else replace(part, anchor=part.curve.at(0.3)) for part in drawn]
    trunk = _trunk(_runs(rig), frame.point(end, frame.pipe), stages, vacuum, scale)
    bodies = [_body(stage, floor) for stage in stages]
    listed = _numbered([*drawn, *trunk, *bodies, DrawnPart("vacuum", "vacuum", "", 0, vacuum.label_at)], found, voice)
    tools = tuple(_tool(branch, along, frame, floor, found, voice, alone, rig, on_way) for branch, along in laid.tools)
    pipes = tuple(
        TreePipe(curve, bore * scale, any(name in on_way for name in ids)) for ids, curve, bore in laid.pipes
    )  # fmt: skip
    texts = [_text_box(tool) for tool in tools]
    obstacles = [*part_boxes(trunk), vacuum.box, *(stage.box for stage in stages), *texts]
    obstacles += [box for branch, curve in laid.runs for box in _covered(curve, scale * _bore(branch))]
    obstacles += [box for pipe in pipes for box in _covered(pipe.curve, pipe.bore)]
    obstacles += [Box(tool.at[0], tool.at[1], WIDE * tool.size, HIGH * tool.size) for tool in tools]
    said = [part for part in listed if part.id in {one.id for one in (*trunk, *bodies)} or part.kind == "vacuum"]
    said = _over_the_pipe(said, trunk, pipes)
    labels = () if upright else place_labels(tuple(said), obstacles, rig, found, voice, canvas)
    speeds = [
        _speed(part, found, voice, on_way, upright=upright) for part in listed if part.id in {d.id for d in drawn}
    ]
    return TreeScene(
        canvas, floor, f"{rig.name}: every tool to {rig.vacuum.name}", _description(tools, listed), tools,
        tuple(_gates(laid.runs, scale, voice, on_way)), pipes, listed, stages, vacuum,
        (*labels, *(one for one in speeds if one is not None)), on_way, link, selected, upright,
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


def _wide_frame(units: float, stages: int) -> tuple[TreeFrame, Canvas, float]:
    room = 416.0
    column = max(LEAST_COLUMN, min(WIDEST_COLUMN, room / units))
    wide = 852.0 + max(0.0, column * units - room) + 120.0 * max(0, stages - 1)
    canvas = Canvas(wide, 284.0, True)
    floor = canvas.height - 50.0
    return TreeFrame(False, 12.0, column, 52.0, 36.0, floor - (HIGH - OUTLET[1])), canvas, floor


def _upright_frame(units: float) -> tuple[TreeFrame, Canvas, float]:
    column = 64.0
    high = column * units + 24.0 + 214.0
    return TreeFrame(True, 46.0, column, 20.0, 24.0, 302.0), Canvas(360.0, high, False), high - 16.0


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


def _lay(branches: Sequence[BranchPart], depth: int, frame: TreeFrame, laid: _Laid, bore: float) -> float:
    """Lay branches that join one another, each in its place; where their pipe ends, along."""
    pipe, joins = frame.pipe_at(depth), []
    for branch in branches:
        if branch.port is not None:
            along = laid.cursor
            laid.cursor += frame.column
            laid.tools.append((branch, along))
            curve, join = _riser(along, pipe, frame)
        else:
            inner = pieces_of(list(branch.elements))[0].bore_in
            end = _lay(branch.branches, depth + 1, frame, laid, inner)
            laid.cursor += GROUP_GAP * frame.column
            join = end + 0.5 * frame.column
            start, there = frame.point(end, frame.pipe_at(depth + 1)), frame.point(join, pipe)
            reach = 0.6 * (join - end)
            first = frame.point(end + reach, frame.pipe_at(depth + 1))
            curve = Curve(start, ((first, frame.point(join - reach, pipe), there),))
        laid.runs.append((branch, curve))
        joins.append(join)
    for i in range(len(branches) - 1):  # from join to join: what has joined so far passes
        first, last = frame.point(joins[i], pipe), frame.point(joins[i + 1], pipe)
        ids = tuple(way[0].id for branch in branches[: i + 1] for way in branch.ways)
        laid.pipes.append((ids, Curve(first, (straight(first, last),)), bore))
    return max(joins)


def _riser(along: float, pipe: float, frame: TreeFrame) -> tuple[Curve, float]:
    """A hose from a tool to the pipe that it joins, and where along that is."""
    if frame.upright:
        start, turn = frame.point(along, frame.tools), frame.point(along, pipe + BEND)
        join = along + BEND
        end = frame.point(join, pipe)
        bend = (frame.point(along, pipe + BEND / 2), frame.point(along + BEND / 2, pipe), end)
        return Curve(start, (straight(start, turn), bend)), join
    size = _tool_size(frame)
    start = frame.point(along + OUTLET[0] * size, frame.tools + (HIGH - OUTLET[1]) * (1 - size))
    up = start[0] + 15.0
    out = ((start[0] + 9.0, start[1]), (up, start[1]), (up, start[1] - 16.0))
    turn = (up, pipe + BEND)
    bend = ((up, pipe + BEND / 2), (up + BEND / 2, pipe), (up + BEND, pipe))
    return Curve(start, (out, straight(out[2], turn), bend)), up + BEND


def _tool_size(frame: TreeFrame) -> float:
    return 0.74 if frame.upright else min(1.0, (frame.column - 26.0) / WIDE)


def _along(elements: list[object], curve: Curve, scale: float) -> list[DrawnPart]:
    """The parts of a branch along its curve."""
    pieces: list[Piece] = pieces_of(elements)
    widths = widths_of(pieces, 150.0)
    return [
        as_drawn(piece, part, scale)
        for piece, part in zip(pieces, divided(curve, [one / sum(widths) for one in widths]), strict=True)
    ]


def _runs(rig: Rig) -> list[list[object]]:
    """The trunk's elements ahead of the first stage, between stages, and behind the last."""
    runs: list[list[object]] = [[]]
    for element in rig.line.elements:
        if isinstance(element, SeparatorPart | WetStagePart):
            runs.append([])
        else:
            runs[-1].append(element)
    return runs


def _place_stages(
    parts: Sequence[SeparatorPart | WetStagePart], frame: TreeFrame, end: float, vacuum: VacuumBody, floor: float,
    scale: float, found: Assessment,
) -> tuple[StageBody, ...]:  # fmt: skip
    """The stages between the end of the pipe and the vacuum, evenly."""
    free = {str(check.part): float(check.limit[0]) for check in found.checks if check.id == "bin-full"}
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
) -> list[DrawnPart]:
    """From the end of the pipe to the vacuum."""
    first = stages[0].inlet if stages else vacuum.side_inlet
    drop = first[1] - start[1]
    reach = max(0.55 * (first[0] - start[0]), 18.0)
    bends = ((start[0] + reach, start[1]), (first[0] - reach, first[1]), first)
    if abs(drop) > 2.5 * abs(first[0] - start[0]):  # upright: down first, then in
        bends = ((start[0], start[1] + 0.6 * drop), (first[0] - 40.0, first[1]), first)
    drawn = _along(runs[0], Curve(start, (bends,)), scale)
    ends = [*(stage.inlet for stage in stages[1:]), vacuum.inlet]
    for run, stage, end in zip(runs[1:], stages, ends, strict=True):
        drawn += hung(pieces_of(run), stage.outlet, end, scale)
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


def _tool(
    branch: BranchPart, along: float, frame: TreeFrame, floor: float, found: Assessment, voice: Voice, alone: Array,
    rig: Rig, on_way: frozenset[str],
) -> TreeTool:  # fmt: skip
    assert branch.port is not None
    place = [way[0].id for way in rig.line.ways].index(branch.id)
    caught = next((one for one in found.captures if one.id == branch.id), None)
    shut = any(b.gate is not None and b.gate.opening <= 0.0 for b in rig.line.ways[place])
    air = voice.figure(float(alone[place] if shut else found.point.port_flow[place, 0]), "flow")
    detail = f"shut · {air} alone" if shut else air
    if caught is not None and not shut:
        detail = f"{air} · {voice.figure(float(caught.tool_total[0]), 'share')} caught"
    level = part_levels(found).get(branch.id, "")
    name, size = voice.name(branch.id), _tool_size(frame)
    lines: tuple[str, ...]
    if frame.upright:
        at = (frame.tools, along - OUTLET[1] * size)
        text_at, anchor, lines = (66.0, along - 30.0), "start", (_short(name, 30),)
    else:
        at = (along, floor - HIGH * size)
        text_at, anchor, lines = (
            (along + 0.42 * frame.column, floor + 17.0),
            "middle",
            _lines(name, int(frame.column / 6.4)),
        )
        detail = air if not shut else "shut"
    return TreeTool(
        branch.id, symbol_of(branch.port), at, size, frame.upright, lines, detail, text_at, anchor,
        "" if shut else level, not shut, branch.id in on_way, f"{name}, {'shut' if shut else 'open'}, {air}",
    )  # fmt: skip


def _lines(name: str, most: int) -> tuple[str, ...]:
    """A name in one line or two, each of so many characters at most; what is left over is cut in its middle."""
    if len(name) <= most:
        return (name,)
    words = name.split()
    for at in range(len(words) - 1, 0, -1):
        first = " ".join(words[:at])
        if len(first) <= most:
            return (first, _short(" ".join(words[at:]), most))
    return (_short(name, most),)


def _bore(branch: BranchPart) -> float:
    """The widest of its parts [m]."""
    return max(piece.bore_in for piece in pieces_of(list(branch.elements)))


def _covered(curve: Curve, bore: float) -> list[Box]:
    """Small boxes along a hose, close enough for no label to slip between."""
    half = bore / 2 + 2.0
    points = [curve.at(step / 48) for step in range(49)]
    return [Box(x - half, y - half, 2 * half, 2 * half) for x, y in points]


def _short(name: str, most: int) -> str:
    """A name that fits; told apart at its end, too."""
    if len(name) <= most:
        return name
    keep = most - 1
    return f"{name[: keep - keep // 3].rstrip()}…{name[-(keep // 3) :].lstrip()}"


def _text_box(tool: TreeTool) -> Box:
    wide = 6.4 * max(len(tool.detail), *(len(line) for line in tool.name))
    return Box(tool.text_at[0] - (wide / 2 if tool.anchor == "middle" else 0.0), tool.text_at[1] - 12.0, wide, 30.0)


def _gates(
    runs: Sequence[tuple[BranchPart, Curve]], scale: float, voice: Voice, on_way: frozenset[str]
) -> list[TreeGate]:
    """On every branch that has one, just ahead of where it joins."""
    found = []
    for branch, curve in runs:
        if branch.gate is None:
            continue
        tail = curve.pieces[-1]
        start = curve.pieces[-2][2] if len(curve.pieces) > 1 else curve.at(0.72)
        at = start if len(curve.pieces) > 1 else curve.at(0.6)
        vertical = abs(at[0] - tail[0][0]) < 1.0
        bore = pieces_of(list(branch.elements))[-1].bore_out * scale
        is_open = branch.gate.opening > 0.0
        words = f"Gate at {voice.name(branch.id)}: {'open' if is_open else 'shut'}"
        found.append(TreeGate(branch.id, at, 90.0 if vertical else 0.0, bore, is_open, words, branch.id in on_way))
    return found


def _speed(
    part: DrawnPart, found: Assessment, voice: Voice, on_way: frozenset[str], *, upright: bool
) -> Label | None:  # fmt: skip
    """Air speed and state beside a hose of a branch: of the way looked at, and wherever dust does not carry."""
    if part.kind != "hose" or part.curve is None or part.level == "" or upright:
        return None
    if part.id not in on_way and part.level == "ok":
        return None
    speed = voice.figure(found.point.stations.velocity[found.point.stations.index(part.id), 0], "speed")
    word = {"ok": "carries", "watch": "just carries", "act": "settles"}[part.level]
    x, y = part.curve.at(0.42)
    return Label(speed, word, part.level, x + part.bore / 2 + 5.0, y - 2.0, "start", part.id)


def _description(tools: Sequence[TreeTool], parts: Sequence[DrawnPart]) -> str:
    words = {"ok": "in order", "watch": "to watch", "act": "to act on", "": ""}
    said = [tool.title for tool in tools]
    said += [f"{p.title}{f' ({words[p.level]})' if words[p.level] else ''}" for p in parts if p.id]
    return "Tools: " + "; ".join(said[: len(tools)]) + ". Parts: " + ", ".join(said[len(tools) :]) + "."
