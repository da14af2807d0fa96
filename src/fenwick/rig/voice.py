"""What the parts of a rig are called, for everything that is said of it."""

from __future__ import annotations

from collections.abc import Mapping

from fenwick.rig.format.model import Rig
from fenwick.rig.to_core.line import build_line
from fenwick.wording.say import Voice


def part_names(rig: Rig) -> dict[str, str]:
    """What to call each part: its name, or its id in words."""
    parts = [(e.id, e.name) for e in rig.line.elements]
    for _, branch in rig.line.walk():
        parts.append((branch.id, branch.port.name if branch.port else None))
        parts += [(e.id, e.name) for e in branch.elements]
    named = {key: name or key.replace("-", " ").replace("_", " ").capitalize() for key, name in parts}
    return {**named, "vacuum": rig.vacuum.name}


def voice_for(rig: Rig, system: str, owned: Mapping[str, str] | None = None) -> Voice:
    """Words and units for this rig; `owned` names what the shop has besides."""
    machines = {b.id: b.port.machine for _, b in rig.line.walk() if b.port and b.port.machine}
    dust = build_line(rig).dust
    return Voice(system, part_names(rig), dust.label if dust else None, machines, owned)
