"""Faults of a line, each as a change of it; and the words of a user that point to them."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.elements import Branch, Element, FixedLoss, Hose, Leak
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.line.line import Line
from fenwick.core.line.rows import bin_leak_reading, entry_loss

HEALTHY = "healthy"
FaultChange = Callable[[Line, float], Line | None]


@dataclass(frozen=True)
class Fault:
    """One fault, in some degrees."""

    key: str
    prior: float  #: how often it is the one, against the others [-]
    degrees: tuple[float, ...]  #: what it means goes with the fault
    change: FaultChange  #: None where the line cannot have it


@dataclass(frozen=True)
class FaultyLine:
    """A line with one fault in one degree."""

    fault: str  #: key of it
    degree: float  #: what it means goes with the fault
    line: Line


def _caked(line: Line, load: float) -> Line | None:
    own = line.vacuum.filter
    if own is None:
        return None
    held = np.asarray(own.held) + load * np.asarray(own.area)
    return replace(line, vacuum=replace(line.vacuum, filter=replace(own, held=held)))


def _full_bag(line: Line, load: float) -> Line | None:
    bag: FilterMedium | None = line.vacuum.bag
    if bag is None:
        return None
    return replace(line, vacuum=replace(line.vacuum, bag=replace(bag, held=np.asarray(bag.held) + load * bag.area)))


def _worn(line: Line, speed: float) -> Line | None:
    return replace(line, vacuum=replace(line.vacuum, curve=line.vacuum.curve.at_speed(speed)))


def _insert(line: Line, ahead: bool, make: Callable[[Hose], Element]) -> Line | None:
    """The line with a part behind its first hose ahead of the separator, or behind its last one."""
    if ahead:
        branch = next((leaf.way[0] for leaf in line.leaves if leaf.open), line.leaves[0].way[0])
        hose = next((part for part in branch.elements if isinstance(part, Hose)), None)
        if hose is not None:
            return _in_branch(line, branch.id, hose, make(hose))
        hose = next((part for part in line.trunk if isinstance(part, Hose)), None)
        return None if hose is None else _in_trunk(line, hose, make(hose))
    behind = [part for part in line.trunk[_first_stage(line) :] if isinstance(part, Hose)]
    return _in_trunk(line, behind[-1], make(behind[-1])) if behind else None


def _first_stage(line: Line) -> int:
    return next((i for i, part in enumerate(line.trunk) if isinstance(part, Separator)), 0)


def _in_trunk(line: Line, hose: Hose, part: Element) -> Line:
    at = next(i for i, one in enumerate(line.trunk) if one is hose)
    return replace(line, trunk=(*line.trunk[: at + 1], part, *line.trunk[at + 1 :]))


def _in_branch(line: Line, name: str, hose: Hose, part: Element) -> Line:
    def changed(branch: Branch) -> Branch:
        elements = branch.elements
        if branch.id == name:
            at = next(i for i, one in enumerate(elements) if one is hose)
            elements = (*elements[: at + 1], part, *elements[at + 1 :])
        return replace(branch, elements=elements, branches=tuple(changed(one) for one in branch.branches))

    return replace(line, branches=tuple(changed(branch) for branch in line.branches))


def _blocked_hose(line: Line, k: float) -> Line | None:
    return _insert(line, True, lambda hose: FixedLoss("fault", hose.bore, k))


def _leaking_hose(line: Line, area: float) -> Line | None:
    return _insert(line, True, lambda hose: Leak("fault", area))


def _leaking_link(line: Line, area: float) -> Line | None:
    return _insert(line, False, lambda hose: Leak("fault", area))


def _blocked_port(line: Line, k: float) -> Line | None:
    def changed(branch: Branch) -> Branch:
        port = branch.port
        if port is not None:
            port = replace(port, entry_loss=np.asarray(entry_loss(port, line.rules)) + k)
        return replace(branch, port=port, branches=tuple(changed(one) for one in branch.branches))

    return replace(line, branches=tuple(changed(branch) for branch in line.branches))


def _gate_open(line: Line, opening: float) -> Line | None:
    shut = next((leaf for leaf in line.leaves if not leaf.open and leaf.way[0].gate_opening is not None), None)
    if shut is None:
        return None
    on = {branch.id for branch in shut.way}

    def changed(branch: Branch) -> Branch:
        gate = opening if branch.id in on and branch.gate_opening is not None else branch.gate_opening
        return replace(branch, gate_opening=gate, branches=tuple(changed(one) for one in branch.branches))

    return replace(line, branches=tuple(changed(branch) for branch in line.branches))


def _stage(line: Line, change: Callable[[Separator], Separator | None]) -> Line | None:
    """The line with its first separator changed."""
    stage = next(iter(line.separators), None)
    changed = None if stage is None else change(stage)
    if stage is None or changed is None:
        return None
    return replace(line, trunk=tuple(changed if part is stage else part for part in line.trunk))


def _overfull(line: Line, share: float) -> Line | None:
    def fill(stage: Separator) -> Separator | None:
        deep = stage.bin.height - one_value(stage.drop_below_rim)
        height = share * deep
        now = one_value(stage.bin.fill_height)
        return stage.changed(bin=replace(stage.bin, fill_height=height)) if height > now else None

    return _stage(line, fill)


def _leaking_lid(line: Line, area: float) -> Line | None:
    def leak(stage: Separator) -> Separator:
        more = np.asarray(bin_leak_reading(stage, line.rules)) + area
        return stage.changed(bin=replace(stage.bin, leak_area=more))

    return _stage(line, leak)


def _bridged(line: Line, left: float) -> Line | None:
    """Chips over most of the slot: what has been thrown to the wall lies on the disc, and is stirred up again.

    Told by the rule of the brim: as if the bin were so full that only a share of what falls stays.
    """
    stage = next(iter(line.separators), None)
    if not isinstance(stage, SlottedDisc):
        return None
    surface = one_value(stage.bin.diameter_at(stage.bin.fill_height))
    brim = max(one_value(stage.free_height), 1e-3) / (left * surface)
    return replace(line, rules=line.rules.with_values({"bin.brim": brim}))


def _swapped(line: Line, _: float) -> Line | None:
    return _stage(line, lambda stage: None if stage.swapped else stage.changed(swapped=True))


def _folded(line: Line, left: float) -> Line | None:
    """A bin drawn in: less room above the dust, and a lid that no longer sits."""

    def fold(stage: Separator) -> Separator:
        bin_ = stage.bin
        risen = bin_.height - left * (bin_.height - np.asarray(bin_.fill_height))
        leak = np.asarray(bin_leak_reading(stage, line.rules)) + 60e-6
        return stage.changed(bin=replace(bin_, fill_height=risen, leak_area=leak))

    return _stage(line, fold)


def _tilted(line: Line, degrees: float) -> Line | None:
    return _stage(line, lambda stage: stage.changed(tilt=np.asarray(stage.tilt) + np.radians(degrees)))


FAULTS: dict[str, Fault] = {
    fault.key: fault
    for fault in (
        Fault(HEALTHY, 1.0, (1.0,), lambda line, _: line),
        Fault("caked-filter", 1.5, (0.08, 0.2, 0.5), _caked),
        Fault("full-bag", 1.0, (0.3, 0.8), _full_bag),
        Fault("blocked-hose", 1.0, (6.0, 20.0, 80.0), _blocked_hose),
        Fault("blocked-port", 0.7, (6.0, 20.0, 80.0), _blocked_port),
        Fault("overfull-bin", 1.2, (0.93, 0.99), _overfull),
        Fault("slot-bridged", 0.5, (0.2, 0.5), _bridged),
        Fault("leak-lid", 1.2, (40e-6, 120e-6, 300e-6), _leaking_lid),
        Fault("leak-link", 0.7, (60e-6, 200e-6, 500e-6), _leaking_link),
        Fault("leak-hose", 0.7, (60e-6, 200e-6, 500e-6), _leaking_hose),
        Fault("swapped-hoses", 0.5, (1.0,), _swapped),
        Fault("gate-open", 0.8, (0.5, 1.0), _gate_open),
        Fault("worn-motor", 0.7, (0.9, 0.8, 0.7), _worn),
        Fault("folded-bin", 0.3, (0.5, 0.2), _folded),
        Fault("tilted", 0.4, (20.0, 35.0), _tilted),
    )
}


def possible(line: Line) -> Iterator[FaultyLine]:
    """Every fault that the line can have in each of its degrees, the healthy line first."""
    for fault in FAULTS.values():
        for degree in fault.degrees:
            changed = fault.change(line, degree)
            if changed is not None:
                yield FaultyLine(fault.key, degree, changed)


#: what a look tells at once, nearly for sure: what to look at, by the fault that it shows
LOOKS = ("overfull-bin", "slot-bridged", "swapped-hoses", "gate-open", "folded-bin", "tilted", "full-bag")

#: what a user notices, and how likely that is with each fault; what is not named is at `ELSE`
SYMPTOMS: dict[str, dict[str, float]] = {
    "weak": {
        "caked-filter": 0.8, "full-bag": 0.8, "blocked-hose": 0.9, "blocked-port": 0.9, "leak-link": 0.7,
        "leak-hose": 0.7, "gate-open": 0.8, "worn-motor": 0.7, "leak-lid": 0.3, "healthy": 0.05,
    },
    "pitch-high": {"caked-filter": 0.6, "full-bag": 0.6, "blocked-hose": 0.8, "blocked-port": 0.7, "healthy": 0.03},
    "dust-in-vacuum": {
        "overfull-bin": 0.9, "slot-bridged": 0.8, "leak-lid": 0.9, "swapped-hoses": 0.9, "folded-bin": 0.8,
        "tilted": 0.6, "healthy": 0.05,
    },
    "filter-grey-soon": {
        "overfull-bin": 0.7, "leak-lid": 0.7, "slot-bridged": 0.6, "swapped-hoses": 0.7, "tilted": 0.5,
        "folded-bin": 0.6, "healthy": 0.1,
    },
    "whistle": {"leak-lid": 0.5, "leak-link": 0.6, "leak-hose": 0.6, "gate-open": 0.3, "healthy": 0.03},
    "dust-at-tool": {
        "blocked-hose": 0.7, "blocked-port": 0.8, "caked-filter": 0.5, "gate-open": 0.6, "worn-motor": 0.5,
        "leak-hose": 0.5, "healthy": 0.1,
    },
    "hose-lies-full": {"caked-filter": 0.4, "worn-motor": 0.4, "blocked-hose": 0.6, "gate-open": 0.5, "healthy": 0.05},
    "bin-moves": {"folded-bin": 0.9, "blocked-hose": 0.3, "healthy": 0.02},
}  # fmt: skip
ELSE = 0.08  #: likelihood of a symptom with a fault that does not cause it [-]


def symptom_likelihood(symptom: str, fault: str) -> float:
    """How likely a symptom is noticed with a fault [-]."""
    return SYMPTOMS[symptom].get(fault, ELSE)
