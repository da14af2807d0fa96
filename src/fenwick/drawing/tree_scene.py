"""What the drawing of a whole line is made of."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from fenwick.drawing.bodies import VacuumBody
from fenwick.drawing.canvas import Canvas
from fenwick.drawing.shapes import Curve, DrawnPart, Label, Point
from fenwick.drawing.stages import StageBody


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
    scale: float  #: of separators and bores [px/m]
    marks: Mapping[str, int] = field(default_factory=dict)  #: numbers of the parts that differ from another line's

    @property
    def titled(self) -> frozenset[str]:
        """Ids of the parts whose label begins with their name; beside the others stands their air speed."""
        trunk = [part.id for part in self.parts if part.kind in ("separator", "vacuum")]
        return frozenset([*trunk, *(label.part for label in self.labels if "·" in label.name)])

    def stage(self, name: str) -> StageBody:
        """The stage of that id."""
        return next(stage for stage in self.stages if stage.id == name)
