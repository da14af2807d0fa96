"""One change at a time: every sensible single change of a line, tried in one batch and ranked for one tool port.

Variant 0 is the line as it stands; variant i is it with candidate i − 1 made and nothing else.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.catalogue.parts import HOSE_BORES
from fenwick.core.components.elements import Element, Hose, InlineFilter, Leak, Reducer
from fenwick.core.components.hood import Enclosure, OpenHood, SlotHood
from fenwick.core.components.separator import Separator
from fenwick.core.components.vacuum import Vacuum
from fenwick.core.rules import ENTRY_LOSS
from fenwick.core.system.assess import assess
from fenwick.core.system.figures import Figures, blocked_suction, figures_at, figures_of_each
from fenwick.core.system.line import Leaf, Line
from fenwick.core.system.rows import RIBBED_WALLS, bin_leak_area, entry_loss
from fenwick.core.system.strength import folding_suction
from fenwick.core.system.whatif_batch import Batch

SHORTER = (0.5, 0.75)  #: of its length, what a hose is cut to [-]
TAPER = 0.1  #: length of a cone in the place of a step [m]
SHORTEST = 0.6  #: a hose is not cut below this [m]
NEARER = (0.5, 0.75)  #: of its distance, what a port is moved to [-]
NEAREST = 0.01  #: a port is not moved nearer than this [m]
CLOSED_IN = 0.5  #: of its open area, what a box is closed to [-]
LEAST_AIR_GAIN = 0.01  #: share of the flow from which a gain in air alone is worth a line [-]
LEAST_STRENGTH_GAIN = 1.2  #: ratio from which a bin that still folds is worth stiffening [-]
LEAST_KEPT_GAIN = 0.005  #: share of the dust made from which a gain is worth a line [-]


@dataclass(frozen=True)
class Candidate:
    """One change to one part."""

    #: bore, shorter, smooth, straight, entry, taper, nearer, close-in, shut, seal, seal-bin, clean, clean-bag,
    #: clean-inline, empty, upright, stiffen, or vacuum, whose part is the name of the other one
    kind: str
    part: str  #: id of the part, port or branch it is made to
    value: float = 0.0  #: the new value, where there is one; SI


@dataclass(frozen=True)
class Outcome:
    """What a candidate comes to at the port, beside the line as it stands."""

    candidate: Candidate
    flow: tuple[float, float]  #: air at the tool, before and after [m^3/s]
    speed: tuple[float, float] | None  #: slowest dust-laden hose, before and after [m/s]
    kept: tuple[float, float] | None  #: of what enters the separator, before and after [-]
    in_bin: tuple[float, float] | None  #: of the dust made, before and after [-]
    folding: tuple[float, float] | None  #: folding over blocked suction, before and after [-]
    acts: tuple[int, int]  #: figures to act on, before and after


def candidates(line: Line, port: int) -> tuple[Candidate, ...]:
    """Every sensible single change for the port at a place among the leaves."""
    leaf = line.leaves[port]
    parts = [part for branch in leaf.way for part in branch.elements] + list(line.trunk)
    found: list[Candidate] = []
    for part in parts:
        found += _part_candidates(part, line)
    here = float(np.max(entry_loss(leaf.port, line.rules)))
    if leaf.port.entry in ("plain", "flanged"):
        better = ("flanged", "tapered", "bellmouth")
        losses = [ENTRY_LOSS[name] for name in better]
        found += [Candidate("entry", leaf.id, loss) for loss in losses if isinstance(loss, float) and loss < here]
    hood = leaf.port.hood
    if isinstance(hood, SlotHood) or (isinstance(hood, OpenHood) and not hood.built_in):
        nearer = [float(np.max(hood.distance)) * share for share in NEARER]
        found += [Candidate("nearer", leaf.id, distance) for distance in nearer if distance >= NEAREST]
    if isinstance(hood, Enclosure):
        found.append(Candidate("close-in", leaf.id, CLOSED_IN))
    found += _gate_candidates(line, leaf)
    for kind, medium in (("clean", line.vacuum.filter), ("clean-bag", line.vacuum.bag)):
        if medium is not None and np.max(medium.held) > 0.0:
            found.append(Candidate(kind, "vacuum"))
    return tuple(found)


def _part_candidates(part: Element, line: Line) -> list[Candidate]:
    match part:
        case Hose():
            return _hose_candidates(part)
        case Leak() if np.max(part.area) > 0.0:
            return [Candidate("seal", part.id)]
        case Reducer() if np.max(part.length) < TAPER and np.any(part.bore_in != part.bore_out):
            return [Candidate("taper", part.id, TAPER)]
        case InlineFilter() if np.max(part.medium.held) > 0.0:
            return [Candidate("clean-inline", part.id)]
        case Separator():
            return _bin_candidates(part, line)
        case _:
            return []


def _hose_candidates(hose: Hose) -> list[Candidate]:
    bore, length = float(np.max(hose.bore)), float(np.max(hose.length))
    found = [Candidate("bore", hose.id, size) for size in HOSE_BORES if abs(size - bore) > 0.002]
    found += [Candidate("shorter", hose.id, length * share) for share in SHORTER if length * share >= SHORTEST]
    if hose.wall in RIBBED_WALLS and hose.roughness is None:
        found.append(Candidate("smooth", hose.id))
    if hose.bends:
        found.append(Candidate("straight", hose.id))
    return found


def _bin_candidates(disc: Separator, line: Line) -> list[Candidate]:
    found = []
    if np.max(bin_leak_area(disc, line.rules)) > 0.0:
        found.append(Candidate("seal-bin", disc.id))
    if np.max(disc.bin.fill_height) > 0.0:
        found.append(Candidate("empty", disc.id))
    if np.max(disc.tilt) > 0.0:
        found.append(Candidate("upright", disc.id))
    longest, _ = max(disc.bin.bays)
    at = next(i for i, bay in enumerate(disc.bin.bays) if bay[0] == longest)
    if folding_suction(disc, line) is not None:
        found.append(Candidate("stiffen", disc.id, sum(bay[0] for bay in disc.bin.bays[:at]) + longest / 2))
    return found


def _gate_candidates(line: Line, leaf: Leaf) -> list[Candidate]:
    own = {branch.id for branch in leaf.way}
    others = [other for other in line.leaves if other.id != leaf.id and other.open]
    return [
        Candidate("shut", other.id) for other in others if other.way[0].gate_opening is not None and other.id not in own
    ]


def try_all(line: Line, port: int, changes: tuple[Candidate, ...]) -> tuple[Outcome, ...]:
    """What each change alone comes to, the most useful first; those that gain nothing are left out.

    Ranked by how many figures stop being to act on, then by the gain in dust that ends in the bin, then by the gain in
    air at the tool.

    Parameters
    ----------
    line : a single variant
    port : place among the leaves
    changes : from `candidates`
    """
    if not changes:
        return ()
    batch = Batch(line, changes).line()
    found = figures_at(batch, assess(batch), port, _folding(line, changes))

    def pair(values: Array | None, i: int) -> tuple[float, float] | None:
        return None if values is None else (float(values[0]), float(values[i]))

    outcomes = [
        Outcome(
            change,
            (float(found.flow[0]), float(found.flow[i])),
            pair(found.speed, i),
            pair(found.kept, i),
            pair(found.in_bin, i),
            pair(found.folding, i),
            (int(found.acts[0]), int(found.acts[i])),
        )
        for i, change in enumerate(changes, start=1)
    ]
    return ranked(outcomes)


def try_vacuums(line: Line, port: int, others: Mapping[str, Vacuum], now: Figures | None = None) -> tuple[Outcome, ...]:
    """What each of some other vacuums in the place of the line's own comes to; those that gain nothing are left out.

    Parameters
    ----------
    line : a single variant
    port : place among the leaves
    others : by the name that its candidate bears
    now : figures of the line as it stands, where they are known already
    """
    now = now or figures_at(line, assess(line), port)
    figures = figures_of_each([replace(line, vacuum=other) for other in others.values()], port)

    def pair(before: Array | None, after: Array | None) -> tuple[float, float] | None:
        return None if before is None or after is None else (float(before[0]), float(after[0]))

    return ranked(
        [
            Outcome(
                Candidate("vacuum", name),
                (float(now.flow[0]), float(new.flow[0])),
                pair(now.speed, new.speed),
                pair(now.kept, new.kept),
                pair(now.in_bin, new.in_bin),
                pair(now.folding, new.folding),
                (int(now.acts[0]), int(new.acts[0])),
            )
            for name, new in zip(others, figures, strict=True)
        ]
    )


def ranked(outcomes: Iterable[Outcome]) -> tuple[Outcome, ...]:
    """Those that gain something, the most useful first."""
    return tuple(sorted((outcome for outcome in outcomes if _worth(outcome)), key=_rank))


def _gain(pair: tuple[float, float] | None) -> float:
    return pair[1] - pair[0] if pair else 0.0


def _worth(outcome: Outcome) -> bool:
    if outcome.acts[1] != outcome.acts[0]:
        return outcome.acts[1] < outcome.acts[0]
    folding = outcome.folding
    if folding is not None and folding[0] < 1.0 and folding[1] > LEAST_STRENGTH_GAIN * folding[0]:
        return True  # a first step, where one is not enough
    if outcome.in_bin is not None:
        return _gain(outcome.in_bin) > LEAST_KEPT_GAIN
    return _gain(outcome.flow) > LEAST_AIR_GAIN * outcome.flow[0]


def _rank(outcome: Outcome) -> tuple[int, float, float]:
    return outcome.acts[1] - outcome.acts[0], -_gain(outcome.in_bin), -_gain(outcome.flow)


def _folding(line: Line, changes: tuple[Candidate, ...]) -> Array | None:
    """Folding over blocked suction of every variant [-], shape (n,); only a ring changes it."""
    if not line.separators:
        return None
    disc = line.separators[0]
    folds = folding_suction(disc, line)
    if folds is None:
        return None
    blocked = float(np.max(blocked_suction(line)))
    ratios = np.full(len(changes) + 1, float(np.max(folds)) / blocked)
    for i, change in enumerate(changes, start=1):
        if change.kind == "stiffen":
            ringed = disc.changed(bin=replace(disc.bin, stiffeners=(*disc.bin.stiffeners, change.value)))
            strong = folding_suction(ringed, line)
            assert strong is not None
            ratios[i] = float(np.max(strong)) / blocked
    return ratios
