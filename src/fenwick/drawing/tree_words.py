"""The tools, gates and speeds of a whole line, with the words beside them."""

from __future__ import annotations

from collections.abc import Sequence

from fenwick.core.arrays import Array
from fenwick.core.judging.assess import Assessment
from fenwick.drawing.labels import carrying_word
from fenwick.drawing.run import pieces_of
from fenwick.drawing.shapes import Box, Curve, DrawnPart, Label
from fenwick.drawing.states import part_levels
from fenwick.drawing.tools import HIGH, OUTLET, symbol_of
from fenwick.drawing.tree_frame import TreeFrame, tool_size
from fenwick.drawing.tree_scene import TreeGate, TreeTool
from fenwick.rig import Rig
from fenwick.rig.format.elements import BranchPart
from fenwick.units.sentence import both_ends
from fenwick.wording.say import Voice


def told_tool(
    branch: BranchPart, along: float, frame: TreeFrame, floor: float, found: Assessment, voice: Voice, alone: Array,
    rig: Rig, on_way: frozenset[str],
) -> TreeTool:  # fmt: skip
    """A tool in its place, with its name and how it does.

    Parameters
    ----------
    along : its place [px]
    floor : y of it [px]
    """
    assert branch.port is not None
    place = [way[0].id for way in rig.line.ways].index(branch.id)
    caught = next((one for one in found.captures if one.id == branch.id), None)
    shut = any(b.gate is not None and b.gate.opening <= 0.0 for b in rig.line.ways[place])
    air = voice.figure(float(alone[place] if shut else found.point.port_flow[place, 0]), "flow")
    detail = f"shut · {air} alone" if shut else air
    if caught is not None and not shut:
        detail = f"{air} · {voice.figure(float(caught.tool_total[0]), 'share')} caught"
    level = part_levels(found).get(branch.id, "")
    name, size = voice.name(branch.id), tool_size(frame)
    lines: tuple[str, ...]
    if frame.upright:
        at = (frame.tools, along - OUTLET[1] * size)
        text_at, anchor, lines = (66.0, along - 30.0), "start", (both_ends(name, 30),)
    else:
        at = (along, floor - HIGH * size)
        text_at, anchor, lines = (
            (along + 0.42 * frame.column, floor + 17.0),
            "middle",
            _lines(name, int(frame.column / 6.4)),
        )
        detail = air if not shut else f"{air.split(' ')[0]} alone"  # its gate, in red, says that it is shut
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
            return (first, both_ends(" ".join(words[at:]), most))
    return (both_ends(name, most),)


def text_box(tool: TreeTool) -> Box:
    """What the words of a tool take, for labels to keep clear of."""
    wide = 6.4 * max(len(tool.detail), *(len(line) for line in tool.name))
    return Box(tool.text_at[0] - (wide / 2 if tool.anchor == "middle" else 0.0), tool.text_at[1] - 12.0, wide, 30.0)


def gates_of(
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


def speed_label(
    part: DrawnPart, found: Assessment, voice: Voice, on_way: frozenset[str], *, upright: bool
) -> Label | None:  # fmt: skip
    """Air speed and state beside a hose of a branch: of the way looked at, and wherever dust does not carry."""
    if part.kind != "hose" or part.curve is None or part.level == "" or upright:
        return None
    if part.id not in on_way and part.level == "ok":
        return None
    speed = voice.figure(found.point.stations.velocity[found.point.stations.index(part.id), 0], "speed")
    x, y = part.curve.at(0.42)
    return Label(speed, carrying_word(part.id, found), part.level, x + part.bore / 2 + 5.0, y - 2.0, "start", part.id)


def description_of(tools: Sequence[TreeTool], parts: Sequence[DrawnPart]) -> str:
    """What somebody hears who does not see the drawing."""
    words = {"ok": "in order", "watch": "to watch", "act": "to act on", "": ""}
    said = [tool.title for tool in tools]
    said += [f"{p.title}{f' ({words[p.level]})' if words[p.level] else ''}" for p in parts if p.id]
    return "Tools: " + "; ".join(said[: len(tools)]) + ". Parts: " + ", ".join(said[len(tools) :]) + "."
