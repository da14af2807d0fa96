"""Opening and shutting the gates of a rig."""

from __future__ import annotations

from typing import Any

from fenwick.rig.edits.edit import edit_rig
from fenwick.rig.format.model import Rig


def turned(rig: Rig, branch: str) -> Rig | None:
    """The rig with a branch's gate shut if it stands open, else open; None where the branch has none."""
    for path, one in rig.line.walk():
        if one.id == branch and one.gate is not None:
            return edit_rig(rig, {f"line.{path}.gate.opening": 0.0 if branch in open_gates(rig) else 1.0})
    return None


def alone(rig: Rig, port: str) -> Rig | None:
    """The rig with one tool port open and the others shut, as far as they have gates; None without such a port.

    Other ports of the same tool stay open with it.
    """
    own = next((way[0].port for way in rig.line.ways if way[0].id == port), None)
    if own is None:
        return None
    tool = own.tool
    ways = [w for w in rig.line.ways if w[0].id == port or (tool and w[0].port and w[0].port.tool == tool)]
    on_way = {branch.id for way in ways for branch in way}
    changes: dict[str, Any] = {}
    for path, branch in rig.line.walk():
        if branch.gate is not None:
            changes[f"line.{path}.gate.opening"] = 1.0 if branch.id in on_way else 0.0
    return edit_rig(rig, changes)


def open_gates(rig: Rig) -> frozenset[str]:
    """Ids of the branches whose gates stand open, a little or wide."""
    return frozenset(one.id for _, one in rig.line.walk() if one.gate is not None and one.gate.opening > 0.0)
