"""One change at a time: every sensible single change of a line, tried in one batch and ranked for one tool port.

Variant 0 is the line as it stands; variant i is it with candidate i − 1 made and nothing else.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.catalogue.parts import HOSE_BORES
from fenwick.core.components.elements import Branch, Element, Hose, Leak, Port
from fenwick.core.components.separator import SlottedDisc
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.rules import ENTRY_LOSS
from fenwick.core.system.assess import assess
from fenwick.core.system.checks import folding_suction
from fenwick.core.system.figures import blocked_suction, figures_at
from fenwick.core.system.layout import RIBBED_WALLS, bin_leak_area, entry_loss
from fenwick.core.system.line import Leaf, Line

SHORTER = 0.5  #: of its length, what a hose is cut to [-]
SHORTEST = 0.6  #: a hose is not cut below this [m]
NEARER = 0.5  #: of its distance, what a port is moved to [-]
NEAREST = 0.01  #: a port is not moved nearer than this [m]
LEAST_AIR_GAIN = 0.01  #: share of the flow from which a gain in air alone is worth a line [-]
LEAST_KEPT_GAIN = 0.005  #: share of the dust made from which a gain is worth a line [-]


@dataclass(frozen=True)
class Candidate:
    """One change to one part."""

    #: bore, shorter, smooth, straight, entry, nearer, shut, seal, seal-bin, clean, clean-bag, empty, upright or stiffen
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
        better = ("flanged", "bellmouth") if leaf.port.entry == "plain" else ("bellmouth",)
        losses = [ENTRY_LOSS[name] for name in better]
        found += [Candidate("entry", leaf.id, loss) for loss in losses if isinstance(loss, float) and loss < here]
    hood = leaf.port.hood
    if hood is not None and np.max(hood.distance) * NEARER >= NEAREST:
        found.append(Candidate("nearer", leaf.id, float(np.max(hood.distance)) * NEARER))
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
        case SlottedDisc():
            return _bin_candidates(part, line)
        case _:
            return []


def _hose_candidates(hose: Hose) -> list[Candidate]:
    bore, length = float(np.max(hose.bore)), float(np.max(hose.length))
    found = [Candidate("bore", hose.id, size) for size in HOSE_BORES if abs(size - bore) > 0.002]
    if length * SHORTER >= SHORTEST:
        found.append(Candidate("shorter", hose.id, length * SHORTER))
    if hose.wall in RIBBED_WALLS and hose.roughness is None:
        found.append(Candidate("smooth", hose.id))
    if hose.bends:
        found.append(Candidate("straight", hose.id))
    return found


def _bin_candidates(disc: SlottedDisc, line: Line) -> list[Candidate]:
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
    batch = _Batch(line, changes).line()
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
    return tuple(sorted((o for o in outcomes if _worth(o)), key=_rank))


def _gain(pair: tuple[float, float] | None) -> float:
    return pair[1] - pair[0] if pair else 0.0


def _worth(outcome: Outcome) -> bool:
    if outcome.acts[1] != outcome.acts[0]:
        return outcome.acts[1] < outcome.acts[0]
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
            ringed = replace(disc, bin=replace(disc.bin, stiffeners=(*disc.bin.stiffeners, change.value)))
            strong = folding_suction(ringed, line)
            assert strong is not None
            ratios[i] = float(np.max(strong)) / blocked
    return ratios


class _Batch:
    """Builds the batch: every value that some change touches becomes an array over variants."""

    def __init__(self, line: Line, changes: tuple[Candidate, ...]) -> None:
        self.given, self.changes = line, changes

    def column(self, base: Values, kind: str, part: str, new: float | None = None) -> Values:
        """`base` in every variant but those of this kind at this part, which take `new` or their own value."""
        hits = [i for i, c in enumerate(self.changes, start=1) if (c.kind, c.part) == (kind, part)]
        if not hits:
            return base
        values = np.full(len(self.changes) + 1, float(np.max(base)))
        for i in hits:
            values[i] = self.changes[i - 1].value if new is None else new
        return values

    def line(self) -> Line:
        """The whole batch."""
        given = self.given
        return replace(
            given,
            vacuum=replace(
                given.vacuum,
                filter=self.medium(given.vacuum.filter, "clean"),
                bag=self.medium(given.vacuum.bag, "clean-bag"),
            ),
            branches=tuple(self.branch(part) for part in given.branches),
            trunk=tuple(self.element(part) for part in given.trunk),
        )

    def medium(self, part: FilterMedium | None, kind: str) -> FilterMedium | None:
        """A filter or bag, cleaned in some variant."""
        return replace(part, held=self.column(part.held, kind, "vacuum", 0.0)) if part else None

    def branch(self, part: Branch) -> Branch:
        """A branch with everything on it."""
        opening = part.gate_opening
        return replace(
            part,
            port=self.port(part.port, part.id) if part.port else None,
            elements=tuple(self.element(inner) for inner in part.elements),
            gate_opening=None if opening is None else self.column(opening, "shut", part.id, 0.0),
            branches=tuple(self.branch(inner) for inner in part.branches),
        )

    def port(self, part: Port, name: str) -> Port:
        """A port with another entry, or nearer to the dust."""
        hood = part.hood
        if hood is not None:
            hood = replace(hood, distance=self.column(hood.distance, "nearer", name))
        return replace(part, hood=hood, entry_loss=self.column(entry_loss(part, self.given.rules), "entry", name))

    def element(self, part: Element) -> Element:
        """Any element; those that no change touches stay as they are."""
        match part:
            case Hose():
                return self.hose(part)
            case Leak():
                return replace(part, area=self.column(part.area, "seal", part.id, 0.0))
            case SlottedDisc():
                return self.disc(part)
            case _:
                return part

    def hose(self, part: Hose) -> Hose:
        """A hose in another bore, shorter, smoother or straighter."""
        rules, name = self.given.rules, part.id
        wall = part.roughness if part.roughness is not None else rules[f"wall.{part.wall}"]
        smooth = float(np.max(rules["wall.smooth"]))
        return replace(
            part,
            bore=self.column(part.bore, "bore", name),
            length=self.column(part.length, "shorter", name),
            roughness=self.column(wall, "smooth", name, smooth),
            bends=tuple(replace(b, angle=self.column(b.angle, "straight", name, 0.0)) for b in part.bends),
        )

    def disc(self, part: SlottedDisc) -> SlottedDisc:
        """A separator sealed below, emptied or set upright."""
        leak = self.column(bin_leak_area(part, self.given.rules), "seal-bin", part.id, 0.0)
        fill = self.column(part.bin.fill_height, "empty", part.id, 0.0)
        tilt = self.column(part.tilt, "upright", part.id, 0.0)
        return replace(part, bin=replace(part.bin, leak_area=leak, fill_height=fill), tilt=tilt)
