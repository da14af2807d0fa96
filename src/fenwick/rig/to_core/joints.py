"""The joints of a rig along one tool's way, with the paths under which their ends are kept."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from fenwick.core.components.joint import End
from fenwick.core.line.joints import Joint
from fenwick.rig.format.elements import ElbowPart, GatePart, LeakPart, LossPart, ReducerPart
from fenwick.rig.format.ends import EndPart
from fenwick.rig.format.model import Rig

RIGID = (ReducerPart, ElbowPart, GatePart, LossPart)  #: fittings that hang on what they are put on


@dataclass(frozen=True)
class PlacedJoint:
    """A joint, and where its two ends are written."""

    joint: Joint
    leaving_path: str | None  #: None where this version keeps no end for the part
    entering_path: str | None


@dataclass(frozen=True)
class _Stop:
    part: str
    tool_side: tuple[str | None, EndPart | None]
    vacuum_side: tuple[str | None, EndPart | None]
    rigid: bool


def joints_of(rig: Rig, port: int) -> list[PlacedJoint]:
    """Every joint from a tool port, by its place among the leaves, to the vacuum."""
    stops = _stops(rig, port)
    found = []
    for before, after in pairwise(stops):
        leaving, entering = before.vacuum_side, after.tool_side
        joint = Joint(before.part, after.part, _end(leaving[1]), _end(entering[1]))
        found.append(PlacedJoint(joint, leaving[0], entering[0]))
    return found


def rigid_along(rig: Rig, port: int) -> list[tuple[str, bool]]:
    """(id, whether it is a rigid fitting) of every part from a tool port to the vacuum."""
    return [(stop.part, stop.rigid) for stop in _stops(rig, port)]


def _stops(rig: Rig, port: int) -> list[_Stop]:
    way = rig.line.ways[port]
    paths = {branch.id: f"line.{path}" for path, branch in rig.line.walk()}
    tool = way[0]
    assert tool.port is not None
    end = (f"{paths[tool.id]}.port.end", tool.port.end)
    stops = [_Stop(tool.id, end, end, rigid=False)]
    runs = [(paths[branch.id], branch.elements) for branch in way] + [("line", rig.line.elements)]
    for root, elements in runs:
        for i, element in enumerate(elements):
            if not isinstance(element, LeakPart):
                stops.append(_element_stop(f"{root}.elements[{i}]", element))
    inlet = ("vacuum.inlet_end", rig.vacuum.inlet_end)
    return [*stops, _Stop("vacuum", inlet, inlet, rigid=False)]


def _element_stop(path: str, element: Any) -> _Stop:
    if not hasattr(element, "tool_end"):
        return _Stop(element.id, (None, None), (None, None), isinstance(element, RIGID))
    return _Stop(
        element.id,
        (f"{path}.tool_end", element.tool_end),
        (f"{path}.vacuum_end", element.vacuum_end),
        isinstance(element, RIGID),
    )


def _end(part: EndPart | None) -> End:
    return End() if part is None else End(part.inside_d_m, part.outside_d_m, part.fit, part.plastic)
