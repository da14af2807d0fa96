"""The table of tool ports as numbers: the unit in the heading, bare figures below, words in columns of their own."""

from __future__ import annotations

from collections.abc import Collection

from fenwick.core.arrays import Array
from fenwick.core.dust.fate import Fate
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.judging.checks import carrying_check
from fenwick.core.judging.passage import clearing_time, run_on_seconds
from fenwick.core.line.line import Line
from fenwick.units.convert import unit_label
from fenwick.wording.ports import MOST_CLEARING, branch_suction
from fenwick.wording.say import Voice

Cell = float | str | None  #: None: not known


def port_cells(line: Line, found: Assessment, port: int, helps: str, voice: Voice) -> dict[str, Cell]:
    """A port at a place among the leaves, open alone.

    Parameters
    ----------
    port : its place [-]
    helps : what would help most, in words
    """
    leaf = line.leaves[port]
    caught = next((one for one in found.captures if one.id == leaf.id), None)
    clears = float(clearing_time(line, found.point, port)[0])
    return {
        "id": leaf.id,
        "name": leaf.port.name,
        "dust": line.dust.label if line.dust else None,
        _with_unit("flow", "flow", voice): _number(found.point.port_flow[port], "flow", voice),
        _with_unit("port_speed", "speed", voice): _number(found.point.port_velocity[port], "speed", voice),
        **_slowest(line, found, leaf.parts | {part.id for part in line.trunk}, voice),
        _with_unit("suction", "suction", voice): _number(branch_suction(found.point, leaf), "suction", voice),
        "clears [s]": float(run_on_seconds(clears)) if clears < MOST_CLEARING else None,
        **_at_the_stage(found, voice),
        "floating [%]": None if caught is None else _number(caught.airborne, "share", voice),
        "caught [%]": None if caught is None else _number(caught.total, "share", voice),
        "kept [%]": None if found.kept is None else _number(found.kept, "share", voice),
        **_of_100(found.fate),
        "helps": helps or None,
    }


def together_cells(line: Line, found: Assessment, ports: Collection[str], voice: Voice) -> dict[str, Cell]:
    """Some ports open at once."""
    open_ = [(i, leaf) for i, leaf in enumerate(line.leaves) if leaf.id in ports]
    return {
        "name": " + ".join(leaf.port.name for _, leaf in open_),
        **{
            _with_unit(f"flow at {leaf.port.name}", "flow", voice): _number(found.point.port_flow[i], "flow", voice)
            for i, leaf in open_
        },
        **_slowest(line, found, None, voice),
        _with_unit("suction", "suction", voice): _number(found.point.suction, "suction", voice),
        **_at_the_stage(found, voice),
        "caught [%]": None if found.fate is None else _number(found.fate.caught, "share", voice),
        "kept [%]": None if found.kept is None else _number(found.kept, "share", voice),
        **_of_100(found.fate),
    }


def _with_unit(name: str, quantity: str, voice: Voice) -> str:
    return f"{name} [{unit_label(quantity, voice.system)}]"


def _number(values: Array, quantity: str, voice: Voice) -> float:
    """The figure that the pages show, bare."""
    return float(voice.figure(float(values[0]), quantity, unit=False))


def _slowest(line: Line, found: Assessment, along: frozenset[str] | None, voice: Voice) -> dict[str, Cell]:
    slow = carrying_check(found.carrying, along) if found.carrying else []
    heading = _with_unit("slowest_speed", "speed", voice)
    if not slow:
        return {heading: None, "slowest_run": None, "carrying": None}
    level = LEVEL_WORDS[int(slow[0].level[0])]
    return {heading: _number(slow[0].value, "speed", voice), "slowest_run": voice.name(slow[0].part), "carrying": level}


def _at_the_stage(found: Assessment, voice: Voice) -> dict[str, Cell]:
    inlet = found.separations[0].inlet_velocity if found.separations else None
    return {_with_unit("inlet_speed", "speed", voice): None if inlet is None else _number(inlet, "speed", voice)}


def _of_100(fate: Fate | None) -> dict[str, Cell]:
    """Where 100 g made end [g]."""
    ends = {"in_bin": "bin", "past_filter": "exhaust", "escapes": "room_air"}
    return {
        f"{name} [g of 100]": None if fate is None else round(100.0 * float(getattr(fate, key)[0]), 2)
        for name, key in ends.items()
    }
