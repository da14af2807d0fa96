"""The table of tool ports: what each gets when it is open alone."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.dust.fate import Fate
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.judging.checks import carrying_check
from fenwick.core.judging.passage import clearing_time, run_on_seconds
from fenwick.core.line.line import Leaf, Line
from fenwick.core.line.operating import OperatingPoint
from fenwick.core.search.whatif import ChangeOutcome
from fenwick.wording.causes import PortFound, cause_words
from fenwick.wording.say import Voice
from fenwick.wording.whatif import Suggestion, suggestion

UNKNOWN = "not known"
MOST_CLEARING = 600.0  #: a line that takes longer never clears [s]


@dataclass(frozen=True)
class PortRow:
    """One tool port, alone."""

    id: str
    name: str
    dust: str  #: made there
    flow: str
    port_speed: str
    slowest: str  #: speed and name of the slowest dust-laden run
    carrying: str  #: its level word; empty where the dust is not known
    suction: str  #: on the wall where the tool's own branch ends
    clears: str  #: time to run on until all dust is at the separator
    inlet_speed: str
    floating: str  #: of the floating dust, caught
    caught: str
    kept: str
    in_bin: str  #: of 100 g made
    past_filter: str  #: of 100 g made, back into the room through the filter
    escapes: str  #: of 100 g made, into the room's air
    helps: str  #: the one change that would help most; empty where none would
    cause: str  #: what is amiss that it mends


@dataclass(frozen=True)
class TogetherRow:
    """Several tools at once."""

    name: str
    flows: str
    slowest: str
    carrying: str
    suction: str  #: that the fan makes
    inlet_speed: str
    caught: str  #: floating and all, of the dust made at all of them
    kept: str
    in_bin: str  #: of 100 g made
    past_filter: str  #: of 100 g made
    escapes: str  #: of 100 g made


def grams(share: Array) -> str:
    """A share of 100 g, in grams; small ones to a tenth."""
    mass = 100.0 * float(share[0])
    return f"{mass:.0f} g" if mass >= 9.95 else f"{mass:.1f} g" if mass >= 0.05 else "under 0.1 g"


def _escaping(fate: Fate | None) -> tuple[str, str, str]:
    """(in the bin, past the filter, into the room's air), of 100 g."""
    return (UNKNOWN,) * 3 if fate is None else (grams(fate.bin), grams(fate.exhaust), grams(fate.room_air))


def _inlet(found: Assessment, voice: Voice) -> str:
    return voice.figure(found.separations[0].inlet_velocity[0], "speed") if found.separations else "none"


def clearing_words(seconds: Array) -> str:
    """A time to run on, in whole seconds rounded up."""
    first = float(seconds[0])
    return f"{run_on_seconds(first):.0f} s" if first < MOST_CLEARING else "never"


def branch_suction(point: OperatingPoint, leaf: Leaf) -> Array:
    """As a gauge on the wall reads it behind the last part of the tool's own branch, or behind its entry [Pa]."""
    own = [part.id for part in leaf.way[0].elements if part.id in point.stations.ids]
    row = point.stations.index(own[-1] if own else f"{leaf.id}:entry")
    return np.asarray(point.stations.static_suction[row])


def together_row(line: Line, found: Assessment, ports: Collection[str], voice: Voice) -> TogetherRow:
    """What each of some ports gets when they are open at once; a single variant, solved so."""
    flows = [
        (leaf.port.name, voice.figure(found.point.port_flow[i, 0], "flow"))
        for i, leaf in enumerate(line.leaves)
        if leaf.id in ports
    ]
    slow = carrying_check(found.carrying) if found.carrying else []
    in_bin, past, escapes = _escaping(found.fate)
    return TogetherRow(
        name=" + ".join(name for name, _ in flows),
        flows=", ".join(f"{name} {flow}" for name, flow in flows),
        slowest=f"{voice.figure(slow[0].value[0], 'speed')}, {voice.name(slow[0].part)}" if slow else UNKNOWN,
        carrying=LEVEL_WORDS[int(slow[0].level[0])] if slow else "",
        suction=voice.figure(found.point.suction[0], "suction"),
        inlet_speed=_inlet(found, voice),
        caught=voice.figure(found.fate.caught[0], "share") if found.fate else UNKNOWN,
        kept=UNKNOWN if found.kept is None else voice.figure(found.kept[0], "share"),
        in_bin=in_bin,
        past_filter=past,
        escapes=escapes,
    )


def helping(best: ChangeOutcome, here: PortFound) -> Suggestion:
    """The single change that would help a port most, with what is wrong there, in the words of its line."""
    return suggestion(best, here.voice, cause_words(best, here))


def port_row(line: Line, found: Assessment, port: int, best: ChangeOutcome | None, voice: Voice) -> PortRow:
    """A port at a place among the leaves of a single variant, open alone, with the change that would help it most."""
    leaf = line.leaves[port]
    way = leaf.parts | {part.id for part in line.trunk}
    slow = carrying_check(found.carrying, way) if found.carrying else []
    captures = {capture.id: capture for capture in found.captures}
    helps = helping(best, PortFound(line, found, port, voice)) if best else None
    in_bin, past, escapes = _escaping(found.fate)
    caught = captures.get(leaf.id)
    return PortRow(
        id=leaf.id,
        name=leaf.port.name,
        dust=line.dust.label if line.dust else UNKNOWN,
        flow=voice.figure(found.point.port_flow[port, 0], "flow"),
        port_speed=voice.figure(found.point.port_velocity[port, 0], "speed"),
        slowest=f"{voice.figure(slow[0].value[0], 'speed')}, {voice.name(slow[0].part)}" if slow else UNKNOWN,
        carrying=LEVEL_WORDS[int(slow[0].level[0])] if slow else "",
        suction=voice.figure(branch_suction(found.point, leaf)[0], "suction"),
        clears=clearing_words(clearing_time(line, found.point, port)),
        inlet_speed=_inlet(found, voice),
        floating=voice.figure(caught.airborne[0], "share") if caught else UNKNOWN,
        caught=voice.figure(caught.total[0], "share") if caught else UNKNOWN,
        kept=UNKNOWN if found.kept is None else voice.figure(found.kept[0], "share"),
        in_bin=in_bin,
        past_filter=past,
        escapes=escapes,
        helps=f"{helps.action}: {helps.told}" if helps else "",
        cause=helps.cause if helps else "",
    )
