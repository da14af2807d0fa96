"""Opening and shutting the gates of a rig."""

from __future__ import annotations

from typing import Any

from fenwick.rig.edits.edit import edit_rig
from fenwick.rig.format.model import Rig


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
