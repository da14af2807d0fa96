"""Where the tools and branches of a whole line go: side by side under the pipe, or one below the other beside it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from fenwick.drawing.canvas import Canvas
from fenwick.drawing.run import pieces_of
from fenwick.drawing.shapes import Curve, Point, straight
from fenwick.drawing.tools import HIGH, OUTLET, WIDE
from fenwick.rig.format.elements import BranchPart

BEND = 16.0  #: radius of a hose that turns into the pipe [px]
GROUP_GAP = 0.55  #: behind tools that join one another first, in columns [-]
USUAL_WIDTH, BESIDE_TOOLS = 852.0, 436.0  #: of the picture, and of it for trunk, separator and vacuum [px]
LEAST_COLUMN, WIDEST_COLUMN = 62.0, 118.0  #: [px]


@dataclass(frozen=True)
class TreeFrame:
    """Where things go: along is the way of the pipe, across is from the pipe to the tools."""

    canvas: Canvas
    floor: float  #: y of it [px]
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


@dataclass(frozen=True)
class LaidPipe:
    """A piece of pipe from where one branch joins to where the next does."""

    ports: tuple[str, ...]  #: whose air passes it
    curve: Curve
    bore: float  #: [m]


@dataclass
class LaidBranches:
    """What is laid out so far."""

    cursor: float
    tools: list[tuple[BranchPart, float]] = field(default_factory=list)  #: with its place along
    runs: list[tuple[BranchPart, Curve]] = field(default_factory=list)
    pipes: list[LaidPipe] = field(default_factory=list)


def wide_frame(units: float, stages: int, width: float = USUAL_WIDTH) -> TreeFrame:
    """Tools side by side; six fit a picture of the usual width, more make it wider.

    Parameters
    ----------
    units : columns that the tools take [-]
    stages : of separation [-]
    width : of the picture, as far as the tools fit it [px]
    """
    room = width - BESIDE_TOOLS
    column = max(LEAST_COLUMN, min(WIDEST_COLUMN, room / units))
    wide = width + max(0.0, column * units - room) + 120.0 * max(0, stages - 1)
    canvas = Canvas(wide, 284.0, True)
    floor = canvas.height - 50.0
    return TreeFrame(canvas, floor, False, 12.0, column, 52.0, 36.0, floor - (HIGH - OUTLET[1]))


def upright_frame(units: float) -> TreeFrame:
    """Tools one below the other.

    Parameters
    ----------
    units : rows that the tools take [-]
    """
    column = 64.0
    high = column * units + 24.0 + 214.0
    return TreeFrame(Canvas(360.0, high, False), high - 16.0, True, 46.0, column, 20.0, 24.0, 302.0)


def lay_branches(
    branches: Sequence[BranchPart], depth: int, frame: TreeFrame, laid: LaidBranches, bore: float
) -> float:
    """Lay branches that join one another, each in its place; where their pipe ends, along.

    Parameters
    ----------
    depth : junctions between them and the trunk [-]
    bore : of the pipe that they join [m]
    """
    pipe, joins = frame.pipe_at(depth), []
    for branch in branches:
        if branch.port is not None:
            along = laid.cursor
            laid.cursor += frame.column
            laid.tools.append((branch, along))
            curve, join = _riser(along, pipe, frame)
        else:
            inner = pieces_of(list(branch.elements))[0].bore_in
            end = lay_branches(branch.branches, depth + 1, frame, laid, inner)
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
        laid.pipes.append(LaidPipe(ids, straight(first, last), bore))
    return max(joins)


def _riser(along: float, pipe: float, frame: TreeFrame) -> tuple[Curve, float]:
    """A hose from a tool to the pipe that it joins, and where along that is."""
    if frame.upright:
        start, turn = frame.point(along, frame.tools), frame.point(along, pipe + BEND)
        join = along + BEND
        end = frame.point(join, pipe)
        bend = (frame.point(along, pipe + BEND / 2), frame.point(along + BEND / 2, pipe), end)
        return Curve(start, (*straight(start, turn).pieces, bend)), join
    size = tool_size(frame)
    start = frame.point(along + OUTLET[0] * size, frame.tools + (HIGH - OUTLET[1]) * (1 - size))
    up = start[0] + 15.0
    out = ((start[0] + 9.0, start[1]), (up, start[1]), (up, start[1] - 16.0))
    turn = (up, pipe + BEND)
    bend = ((up, pipe + BEND / 2), (up + BEND / 2, pipe), (up + BEND, pipe))
    return Curve(start, (out, *straight(out[2], turn).pieces, bend)), up + BEND


def tool_size(frame: TreeFrame) -> float:
    """Of a tool's symbol, 1 is as it is drawn [-]."""
    return 0.74 if frame.upright else min(1.0, (frame.column - 26.0) / WIDE)
