"""The table of tool ports: what each gets when it is open alone."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.system.assess import assess
from fenwick.core.system.checks import LEVEL_WORDS, carrying_check
from fenwick.core.system.line import Line
from fenwick.core.system.ports import line_alone
from fenwick.core.system.whatif import candidates, try_all
from fenwick.wording.say import Voice
from fenwick.wording.whatif import suggestion

UNKNOWN = "not known"


@dataclass(frozen=True)
class PortRow:
    """One tool port, alone."""

    id: str
    name: str
    flow: str
    port_speed: str
    slowest: str  #: speed and name of the slowest dust-laden run
    carrying: str  #: its level word; empty where the dust is not known
    inlet_speed: str
    caught: str
    kept: str
    in_bin: str  #: of 100 g made
    helps: str  #: the one change that would help most; empty where none would


def port_rows(line: Line, voice: Voice) -> list[PortRow]:
    """Every port alone, as far as there are gates to shut; a single variant."""
    return [_row(line_alone(line, i), i, voice) for i in range(len(line.leaves))]


def _row(line: Line, port: int, voice: Voice) -> PortRow:
    leaf, found = line.leaves[port], assess(line)
    way = leaf.parts | {part.id for part in line.trunk}
    slow = carrying_check(found.carrying, way) if found.carrying else []
    captures = {capture.id: capture for capture in found.captures}
    changes = try_all(line, port, candidates(line, port))
    best = suggestion(changes[0], voice) if changes else None
    return PortRow(
        id=leaf.id,
        name=leaf.port.name,
        flow=voice.figure(found.point.port_flow[port, 0], "flow"),
        port_speed=voice.figure(found.point.port_velocity[port, 0], "speed"),
        slowest=f"{voice.figure(slow[0].value[0], 'speed')}, {voice.name(slow[0].part)}" if slow else UNKNOWN,
        carrying=LEVEL_WORDS[int(slow[0].level[0])] if slow else "",
        inlet_speed=voice.figure(found.separations[0].inlet_velocity[0], "speed") if found.separations else "none",
        caught=voice.figure(captures[leaf.id].total[0], "share") if leaf.id in captures else UNKNOWN,
        kept=voice.figure(found.efficiency[0][0], "share") if found.efficiency else UNKNOWN,
        in_bin=f"{100.0 * float(found.fate.bin[0]):.0f} g" if found.fate else UNKNOWN,
        helps=f"{best.action}: {best.effect}" if best else "",
    )
