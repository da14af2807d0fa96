"""What could be done at a tool's hood, each as a changed rig with what it comes to."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from fenwick.core.catalogue.tools import IN_HAND
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.rules import RuleBook
from fenwick.core.search.changes import CLOSED_IN, NEARER, stock_opening
from fenwick.core.search.whatif import TOLD_KEPT
from fenwick.rig.edits.edit import edit_rig
from fenwick.rig.format.elements import BranchPart, PortPart
from fenwick.rig.format.hood import BuiltInPart, EnclosurePart, OpenHoodPart, SlotHoodPart, boxed_area
from fenwick.rig.format.model import Rig
from fenwick.rig.format.places import path_of
from fenwick.rig.to_core.line import build_line

NEAR = min(NEARER)  #: of its distance, what a port is moved to [-]


@dataclass(frozen=True)
class HoodOption:
    """One thing to do at a hood; shares are of the dust made there."""

    id: str  #: nearer, flange, plate, box, close-in or outdoors
    value: float  #: the new size, where there is one; SI
    rig: Rig
    in_bin: float  #: [-]
    gain: float  #: less in the room's air and on the floor than now [-]


@dataclass(frozen=True)
class HoodChange:
    """One thing that could be done at a hood, not yet done."""

    id: str  #: nearer, flange, plate, box, close-in or outdoors
    value: float  #: the new size, where there is one; SI
    keys: dict[str, Any]  #: below the port, to be set


def hood_options(rig: Rig, port: str, now: Assessment) -> list[HoodOption]:
    """Everything that would keep more dust out of the room at a port open alone, the best first; outdoors last."""
    branch = next(way[0] for way in rig.line.ways if way[0].id == port)
    if branch.port is None or branch.port.hood is None or now.fate is None:
        return []
    before = float(now.fate.room_air[0] + now.fate.floor[0])
    found = []
    for change in hood_changes(branch, build_line(rig).rules):
        path = path_of(rig.model_dump(mode="json"), port)
        changed = edit_rig(rig, {f"{path}.port.{name}": new for name, new in change.keys.items()})
        after = assess(build_line(changed)).fate
        if after is None:
            continue
        gain = before - float(after.room_air[0] + after.floor[0])
        if gain > TOLD_KEPT or change.id == "outdoors":
            found.append(HoodOption(change.id, change.value, changed, float(after.bin[0]), gain))
    return sorted(found, key=lambda option: (option.id == "outdoors", -option.gain))


def hood_changes(branch: BranchPart, rules: RuleBook) -> Iterator[HoodChange]:
    """Everything that could be done at a port with a hood."""
    port = branch.port
    assert port is not None
    hood = port.hood
    if isinstance(hood, OpenHoodPart | BuiltInPart | SlotHoodPart):
        yield from _at_an_opening(port, hood, max(boxed_area(port.bore_m), stock_opening(port.machine, rules)))
    if isinstance(hood, EnclosurePart) and hood.box is None:  # one with sizes is changed by them
        least = stock_opening(port.machine, rules)
        ways = [{**way.model_dump(mode="json"), "area_m2": way.area_m2 * CLOSED_IN} for way in hood.openings]
        if max(way["area_m2"] for way in ways) >= least:
            yield HoodChange("close-in", max(way["area_m2"] for way in ways), {"hood.openings": ways})
    if hood is not None and not hood.rebound and hood.kind != "floor" and port.machine not in IN_HAND:
        yield HoodChange("plate", 0.0, {"hood.rebound": True})
    if not port.outdoors:
        yield HoodChange("outdoors", 0.0, {"outdoors": True})


def _at_an_opening(
    port: PortPart, hood: OpenHoodPart | BuiltInPart | SlotHoodPart, area: float
) -> Iterator[HoodChange]:
    if not isinstance(hood, BuiltInPart):
        yield HoodChange("nearer", hood.distance_m * NEAR, {"hood.distance_m": hood.distance_m * NEAR})
    if isinstance(hood, OpenHoodPart) and port.entry == "plain":
        yield HoodChange("flange", 0.0, {"entry": "flanged"})
    if isinstance(hood, SlotHoodPart) and not hood.flanged:
        yield HoodChange("flange", 0.0, {"hood.flanged": True})
    if port.machine in IN_HAND:
        return
    way = {"name": "In use", "area_m2": area, "share": 1.0}
    common = {"release": hood.release, "thrown_share": hood.thrown_share, "rebound": hood.rebound}
    fan = hood.extra_fan.model_dump(mode="json") if hood.extra_fan else None
    yield HoodChange("box", area, {"hood": {"kind": "enclosure", "openings": [way], "extra_fan": fan, **common}})
