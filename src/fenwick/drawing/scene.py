"""Where everything stands: bores, separator and bin to scale; tool and vacuum as symbols.

A hose that is longer than the room between its ends is drawn cut, as on any working drawing, and says its length.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from fenwick.core.system.assess import Assessment
from fenwick.drawing.bodies import Separator, Tool, Vacuum, place_separator
from fenwick.drawing.canvas import NARROW, WIDE, Canvas
from fenwick.drawing.labels import place_labels
from fenwick.drawing.run import JOINS, GateMark, JunctionMark, draped, hung, part_boxes, pieces_of
from fenwick.drawing.shapes import Label, Part
from fenwick.drawing.states import part_levels
from fenwick.rig import Rig
from fenwick.rig.elements import BranchPart
from fenwick.rig.separator import SlottedDiscPart
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
    vacuum: Vacuum
    separator: Separator | None
    parts: tuple[Part, ...]
    labels: tuple[Label, ...]
    stations: dict[str, float]  #: x of the end of each part, for the ladder under the drawing
    on_way: frozenset[str]  #: ids of the parts, ports and gates on the way that is drawn
    link: Callable[[str], str]
    selected: str | None


def lay_out_scene(
    rig: Rig,
    found: Assessment,
    voice: Voice,
    canvas: Canvas,
    link: Callable[[str], str],
    selected: str | None,
    port: int = 0,
) -> Scene:
    """Lay the way from one tool port to the vacuum out on a canvas; other branches show where they join.

    Parameters
    ----------
    rig, found, voice : the line, its assessment, and whose words
    canvas : the picture
    link : from a part's id to the address that picks it
    selected : id of the part being edited
    port : place of the tool port among the rig's ways
    """
    way = rig.line.ways[port]
    at_tool = way[0].port
    assert at_tool is not None
    disc = next((e for e in rig.line.elements if isinstance(e, SlottedDiscPart)), None)
    floor = canvas.height - FLOOR_MARGIN
    scale = _scale(disc, canvas)
    tool = Tool.place(at_tool, canvas, floor, scale)
    vacuum = Vacuum.place(rig.vacuum, canvas, floor, scale)
    before, after = _runs(rig, way, disc)
    separator = None
    if disc:
        x = _separator_x(before, after, canvas, tool, vacuum)
        separator = place_separator(disc, x, floor, scale, _free_at_watch(found))
    if separator is None:
        ahead, behind = draped(pieces_of(before + after), tool.outlet, vacuum.side_inlet, floor, scale), []
    else:
        ahead = draped(pieces_of(before), tool.outlet, separator.inlet, floor, scale)
        behind = hung(pieces_of(after), separator.outlet, vacuum.inlet, scale)
    numbered = _numbered(way[0].id, found, voice, tool, ahead, separator, behind, vacuum)
    bodies = [tool.box, vacuum.box, *([separator.box] if separator else [])]
    labels = (
        place_labels(numbered, bodies + part_boxes(ahead + behind), rig, found, voice, canvas) if canvas.labels else ()
    )
    return Scene(
        canvas=canvas,
        scale=scale,
        floor=floor,
        title=f"{rig.name}: from {at_tool.name} to {rig.vacuum.name}",
        description=_description(numbered),
        tool=tool,
        vacuum=vacuum,
        separator=separator,
        parts=numbered,
        labels=labels,
        stations=_stations(numbered, way, tool, separator, vacuum),
        on_way=frozenset(
            [b.id for b in way] + [e.id for b in way for e in b.elements] + [e.id for e in rig.line.elements]
        ),
        link=link,
        selected=selected,
    )


def _free_at_watch(found: Assessment) -> float:
    """Free height from which the check on a full bin warns [m]."""
    return next((float(check.limit[0]) for check in found.checks if check.id == "bin-full"), 0.0)


def _runs(rig: Rig, way: tuple[BranchPart, ...], disc: SlottedDiscPart | None) -> tuple[list[object], list[object]]:
    """Elements ahead of the separator and behind it, with marks for gates and junctions on the way."""
    ahead: list[object] = []
    for i, branch in enumerate(way):
        ahead += branch.elements
        if branch.gate is not None:
            ahead.append(GateMark(branch.gate.opening))
        group = way[i + 1].branches if i + 1 < len(way) else rig.line.branches
        if len(group) > 1:
            others = [way_in[0] for other in group if other is not branch for way_in in other.ways]
            ahead.append(JunctionMark(f"{JOINS}{branch.id}", tuple(b.port.name for b in others if b.port)))
    trunk: list[object] = list(rig.line.elements)
    at = trunk.index(disc) if disc else 0
    return ahead + trunk[:at], trunk[at + 1 :] if disc else trunk


def _scale(disc: SlottedDiscPart | None, canvas: Canvas) -> float:
    """Pixels per metre: as large as the separator and the hose over it allow."""
    if disc is None:
        return min(MOST_SCALE, canvas.height * 1.1)
    tall = disc.bin.profile[-1].height_m + disc.chamber_height_m
    wide = max(disc.chamber_d_m, *(point.d_m for point in disc.bin.profile))
    room = canvas.height - FLOOR_MARGIN - 0.3 * canvas.height
    return min(MOST_SCALE, room / tall, 0.22 * canvas.width / wide)


def _separator_x(before: list[object], after: list[object], canvas: Canvas, tool: Tool, vacuum: Vacuum) -> float:
    """Middle of the separator: the runs share the room by their number of parts."""
    ahead, behind = 1.0 + len(before), 1.0 + len(after)
    share = min(max(ahead / (ahead + behind), 0.5), 0.72)
    return tool.outlet[0] + share * (vacuum.inlet[0] - tool.outlet[0])


def _numbered(
    port: str,
    found: Assessment,
    voice: Voice,
    tool: Tool,
    ahead: list[Part],
    separator: Separator | None,
    behind: list[Part],
    vacuum: Vacuum,
) -> tuple[Part, ...]:
    """Every part that can be picked, in the order of the air, with its state."""
    levels = part_levels(found)
    listed = [Part(port, "tool", "", 0, tool.label_at), *ahead]
    if separator:
        listed.append(Part(separator.id, "separator", "", 0, separator.label_at))
    listed += [*behind, Part("vacuum", "vacuum", "", 0, vacuum.label_at)]
    named = [part for part in listed if part.kind not in MARKS]
    numbers = {part.id: i for i, part in enumerate(named, start=1)}
    return tuple(
        replace(part, number=numbers.get(part.id, 0), title=voice.name(part.id), level=levels.get(part.id, ""))
        for part in listed
    )


def _description(parts: tuple[Part, ...]) -> str:
    words = {"ok": "in order", "watch": "to watch", "act": "to act on", "": ""}
    said = [
        f"{part.title}{f' ({words[part.level]})' if words[part.level] else ''}"
        for part in parts
        if part.kind not in MARKS
    ]
    return "In the order of the air: " + ", ".join(said) + "."


def _stations(
    parts: tuple[Part, ...], way: tuple[BranchPart, ...], tool: Tool, separator: Separator | None, vacuum: Vacuum
) -> dict[str, float]:
    """x of each part's end; gates by the branch they close."""
    places: dict[str, float] = {}
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
        elif separator is not None:
            places[part.id] = separator.outlet[0]
    return places
