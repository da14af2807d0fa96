"""A hose's length and bends as the floor plan has them, put into a line."""

from __future__ import annotations

from math import degrees
from typing import Any

from fenwick.rig.edits.edit import edit_rig
from fenwick.rig.format.elements import HosePart
from fenwick.rig.format.model import Rig
from fenwick.rig.format.problems import Problem, RigError
from fenwick.rig.format.separator import SeparatorPart, WetStagePart

LEAST_HOSE = 0.3  #: what a hose keeps when the others reach already [m]
BEND_RADIUS = 4.0  #: of a hose lying on a floor, in bores [-]


def lay_hose(rig: Rig, tool: str, length: float, bends: tuple[float, ...]) -> Rig:
    """A rig whose hoses from a tool to the separator are as long in all as a route, and bend as it does.

    The longest hose of the tool's own branch takes up the difference and the bends.

    Parameters
    ----------
    rig : any
    tool : id of the tool's branch
    length : of the route [m]
    bends : turns along it [rad]

    Raises
    ------
    RigError
        When the branch has no hose of its own to change.
    """
    way = next((way for way in rig.line.ways if way[0].id == tool), None)
    if way is None:
        raise RigError((Problem("", "that is no tool of this line"),))
    path = next(f"line.{p}" for p, branch in rig.line.walk() if branch.id == tool)
    own = [(i, e) for i, e in enumerate(way[0].elements) if isinstance(e, HosePart)]
    if not own:
        raise RigError((Problem("", "its branch has no hose of its own: add one first"),))
    at, hose = max(own, key=lambda item: item[1].length_m)
    others = sum(e.length_m for e in _ahead_of_separator(rig, tool) if e.id != hose.id)
    changes: dict[str, Any] = {
        f"{path}.elements[{at}].length_m": round(max(LEAST_HOSE, length - others), 2),
        f"{path}.elements[{at}].bends": [
            {"angle_deg": round(degrees(turn), 1), "radius_m": round(BEND_RADIUS * hose.bore_m, 3)} for turn in bends
        ],
    }
    return edit_rig(rig, changes)


def _ahead_of_separator(rig: Rig, tool: str) -> list[HosePart]:
    """Every hose from a tool to the separator, or to the vacuum where there is none."""
    way = next(way for way in rig.line.ways if way[0].id == tool)
    parts: list[Any] = [element for branch in way for element in branch.elements]
    for element in rig.line.elements:
        if isinstance(element, SeparatorPart | WetStagePart):
            break
        parts.append(element)
    return [part for part in parts if isinstance(part, HosePart)]


def route_length(rig: Rig, tool: str) -> float:
    """Length of all hoses from a tool to the separator [m]."""
    return sum(hose.length_m for hose in _ahead_of_separator(rig, tool))
