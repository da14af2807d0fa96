"""The table of single changes: to what each is made, its sensible values there, and the part with it made."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from typing import Any, TypeAlias

import numpy as np

from fenwick.core.arrays import Values, one_value
from fenwick.core.catalogue.parts import HOSE_BORES
from fenwick.core.components.elements import Branch, Elbow, Element, Hose, InlineFilter, Leak, Port, Reducer
from fenwick.core.components.hood import Enclosure, OpenHood, SlotHood
from fenwick.core.components.separator import Separator
from fenwick.core.components.vacuum import Vacuum
from fenwick.core.judging.check import Check
from fenwick.core.judging.strength import folding_suction
from fenwick.core.line.line import Leaf, Line
from fenwick.core.line.ports import with_openings
from fenwick.core.line.rows import RIBBED_WALLS, bend_factor, bin_leak_reading, entry_loss, wall_roughness
from fenwick.core.rules import ENTRY_LOSS, RULES, RuleBook

SHORTER = (0.5, 0.75)  #: of its length, what a hose is cut to [-]
TAPER = 0.1  #: length of a cone in the place of a step [m]
SHORTEST = 0.6  #: a hose is not cut below this [m]
NEARER = (0.5, 0.75)  #: of its distance, what a port is moved to [-]
NEAREST = 0.01  #: a port is not moved nearer than this [m]
OPENINGS = frozenset(rule.key for rule in RULES if rule.key.startswith("stock."))
CLOSED_IN = 0.5  #: of its open area, what a box is closed to [-]
SAME_SIZE = 0.002  #: bores closer than this are the same [m]
BETTER_ENTRIES = ("flanged", "tapered", "bellmouth")  #: what a plain or flanged port can become
VACUUM = "vacuum"  #: stands for the part
EXCHANGE = "vacuum"  #: of the vacuum for another one
STIFFEN, SHUT = "stiffen", "shut"
NARROWER, STEP_DOWN = "narrower", "step-down"
OF_OWN_BRANCH = (NARROWER, STEP_DOWN)  #: what is done to a whole branch, its own; of the others only `SHUT`
SIZES_DOWN = 3  #: narrower bores that are tried, the widest of them first


@dataclass(frozen=True)
class Candidate:
    """One change to one part."""

    kind: str  #: of KINDS, or EXCHANGE, whose part is the name of the other vacuum
    part: str  #: id of the part, port or branch it is made to
    value: float = 0.0  #: the new value, where there is one; SI


#: a value in every variant: its own, but in those of the change at hand the new one, or the one given here
Column: TypeAlias = Callable[..., Values]


@dataclass(frozen=True)
class ChangeKind:
    """One kind of change: to what it is made, its sensible values there, and how it is made.

    Of most only numbers change, which become columns of a batch. Where more does (other dust once a tool stands still,
    a flange that reaches farther), the whole line is made anew, `apart`; None where numbers will do.
    """

    to: type | tuple[type, ...]
    values: Callable[[Any, Line], Iterable[float]]
    make: Callable[[Any, Column, RuleBook], Any] = lambda part, _to, _rules: part
    apart: Callable[[Line, Candidate], Line | None] = lambda _line, _change: None


def _smaller(shares: tuple[float, ...], now: Values, least: float) -> list[float]:
    return [one_value(now) * share for share in shares if one_value(now) * share >= least]


def _when(holds: object, value: float = 0.0) -> tuple[float, ...]:
    return (value,) if holds else ()


def _bores(hose: Hose, _: Line) -> list[float]:
    return [size for size in HOSE_BORES if abs(size - one_value(hose.bore)) > SAME_SIZE]


def _smooth(hose: Hose, to: Column, rules: RuleBook) -> Hose:
    smooth = one_value(rules["wall.smooth"])
    bends = to(bend_factor(hose, rules), 1.0)
    return replace(hose, roughness=to(wall_roughness(hose, rules), smooth), bend_factor=bends)


def _straight(hose: Hose, to: Column, _: RuleBook) -> Hose:
    return replace(hose, bends=tuple(replace(bend, angle=to(bend.angle, 0.0)) for bend in hose.bends))


def _entries(port: Port, line: Line) -> list[float]:
    here = one_value(entry_loss(port, line.rules))
    losses = [ENTRY_LOSS[name] for name in BETTER_ENTRIES]
    better = [loss for loss in losses if isinstance(loss, float) and loss < here]
    return better if port.entry in ("plain", "flanged") else []


def _with_entry(line: Line, change: Candidate) -> Line | None:
    """The line with another entry, where a flange that comes or goes reaches into the open; None elsewhere."""
    kind = next(name for name in BETTER_ENTRIES if ENTRY_LOSS[name] == change.value)
    now = next(leaf.port for leaf in line.leaves if leaf.id == change.part)
    reaches = isinstance(now.hood, OpenHood) and not now.hood.built_in
    if not reaches or "flanged" not in (now.entry, kind):
        return None

    def entered(branch: Branch) -> Branch:
        port = branch.port
        if port is not None and branch.id == change.part:
            port = replace(port, entry=kind, entry_loss=None)
        return replace(branch, port=port, branches=tuple(entered(inner) for inner in branch.branches))

    return replace(line, branches=tuple(entered(branch) for branch in line.branches))


def _nearer(port: Port, _: Line) -> list[float]:
    hood = port.hood
    if isinstance(hood, SlotHood) or (isinstance(hood, OpenHood) and not hood.built_in):
        return _smaller(NEARER, hood.distance, NEAREST)
    return []


def stock_opening(machine: str | None, rules: RuleBook) -> float:
    """What a box must stay open by for the work and the cut to pass [m^2]; 0 where nothing is known of the machine."""
    key = f"stock.{machine}"
    return one_value(rules[key]) if key in OPENINGS else 0.0


def _closes_in(port: Port, line: Line) -> tuple[float, ...]:
    """Half the open area of a box, where the work still passes."""
    if not isinstance(port.hood, Enclosure):
        return ()
    widest = max(one_value(way.area) for way in port.hood.ways)
    return _when(CLOSED_IN * widest >= stock_opening(port.machine, line.rules), CLOSED_IN)


def _closed_in(port: Port, to: Column, _: RuleBook) -> Port:
    assert isinstance(port.hood, Enclosure)
    left = to(1.0)
    return replace(port, hood=replace(port.hood, ways=tuple(replace(w, area=w.area * left) for w in port.hood.ways)))


def _runs(branch: Branch) -> list[Hose | Elbow]:
    return [part for part in branch.elements if isinstance(part, Hose | Elbow)]


def _below(bore: float) -> list[float]:
    return [size for size in reversed(HOSE_BORES) if size < bore - SAME_SIZE][:SIZES_DOWN]


def _narrower_behind(branch: Branch, _: Line) -> list[float]:
    """Bores for all of a branch's runs; of a single one its own bore is changed."""
    runs = _runs(branch)
    if branch.port is None or len(runs) < 2:
        return []
    return _below(max(one_value(run.bore) for run in runs))


def _narrowed(branch: Branch, to: Column, _: RuleBook) -> Branch:
    """All runs no wider than that; a step at the port's mouth changes nothing in it."""

    def narrow(part: Element) -> Element:
        return replace(part, bore=np.minimum(part.bore, to(part.bore))) if isinstance(part, Hose | Elbow) else part

    return replace(branch, elements=tuple(narrow(part) for part in branch.elements))


def _narrower_ports(branch: Branch, _: Line) -> list[float]:
    port = branch.port
    return [] if port is None or port.hood is None else _below(one_value(port.bore))


def _stepped_down(branch: Branch, to: Column, rules: RuleBook) -> Branch:
    """A narrower mouth, and the runs behind it as narrow; what is thrown was aimed at the mouth that it has."""
    port = branch.port
    assert port is not None
    assert port.hood is not None
    own = port.bore if port.hood.thrown_bore is None else port.hood.thrown_bore
    mouth = replace(port, bore=to(port.bore), hood=replace(port.hood, thrown_bore=own))
    return replace(_narrowed(branch, to, rules), port=mouth)


def _rings(stage: Separator, line: Line) -> tuple[float, ...]:
    """Half way up the longest bay, where the wall is known."""
    longest = max(stage.bin.bays)[0]
    at = next(i for i, bay in enumerate(stage.bin.bays) if bay[0] == longest)
    half_way = sum(bay[0] for bay in stage.bin.bays[:at]) + longest / 2
    return _when(folding_suction(stage, line) is not None, half_way)


def _sealed(stage: Separator, to: Column, rules: RuleBook) -> Separator:
    return stage.changed(bin=replace(stage.bin, leak_area=to(bin_leak_reading(stage, rules), 0.0)))


def _emptied(stage: Separator, to: Column, _: RuleBook) -> Separator:
    return stage.changed(bin=replace(stage.bin, fill_height=to(stage.bin.fill_height, 0.0)))


def _cleaned(key: str) -> ChangeKind:
    def values(vacuum: Vacuum, _: Line) -> tuple[float, ...]:
        medium = getattr(vacuum, key)
        return _when(medium is not None and np.max(medium.held) > 0.0)

    def make(vacuum: Vacuum, to: Column, _: RuleBook) -> Vacuum:
        medium = getattr(vacuum, key)
        if medium is None:  # another vacuum has come in its place
            return vacuum
        return replace(vacuum, **{key: replace(medium, held=to(medium.held, 0.0))})

    return ChangeKind(Vacuum, values, make)


#: every kind but the exchange of the vacuum, which differs in more than numbers
KINDS: dict[str, ChangeKind] = {
    "bore": ChangeKind(Hose, _bores, lambda hose, to, _: replace(hose, bore=to(hose.bore))),
    "shorter": ChangeKind(
        Hose,
        lambda hose, _: _smaller(SHORTER, hose.length, SHORTEST),
        lambda hose, to, _: replace(hose, length=to(hose.length)),
    ),
    "smooth": ChangeKind(Hose, lambda hose, _: _when(hose.wall in RIBBED_WALLS and hose.roughness is None), _smooth),
    "straight": ChangeKind(Hose, lambda hose, _: _when(hose.bends), _straight),
    "seal": ChangeKind(
        Leak,
        lambda leak, _: _when(np.max(leak.area) > 0.0),
        lambda leak, to, _: replace(leak, area=to(leak.area, 0.0)),
    ),
    "taper": ChangeKind(
        Reducer,
        lambda step, _: _when(np.max(step.length) < TAPER and np.any(step.bore_in != step.bore_out), TAPER),
        lambda step, to, _: replace(step, length=to(step.length)),
    ),
    "clean-inline": ChangeKind(
        InlineFilter,
        lambda part, _: _when(np.max(part.medium.held) > 0.0),
        lambda part, to, _: replace(part, medium=replace(part.medium, held=to(part.medium.held, 0.0))),
    ),
    "seal-bin": ChangeKind(
        Separator,
        lambda stage, line: _when(np.max(bin_leak_reading(stage, line.rules)) > 0.0),
        _sealed,
    ),
    "empty": ChangeKind(Separator, lambda stage, _: _when(np.max(stage.bin.fill_height) > 0.0), _emptied),
    "upright": ChangeKind(
        Separator,
        lambda stage, _: _when(np.max(stage.tilt) > 0.0),
        lambda stage, to, _: stage.changed(tilt=to(stage.tilt, 0.0)),
    ),
    STIFFEN: ChangeKind(Separator, _rings),  # its strength is worked out for the figures alone
    "entry": ChangeKind(
        Port,
        _entries,
        lambda port, to, rules: replace(port, entry_loss=to(entry_loss(port, rules))),
        apart=_with_entry,
    ),
    "nearer": ChangeKind(
        Port, _nearer, lambda port, to, _: replace(port, hood=replace(port.hood, distance=to(port.hood.distance)))
    ),
    "close-in": ChangeKind(Port, _closes_in, _closed_in),
    NARROWER: ChangeKind(Branch, _narrower_behind, _narrowed),
    STEP_DOWN: ChangeKind(Branch, _narrower_ports, _stepped_down),
    SHUT: ChangeKind(
        Branch,
        lambda branch, _: _when(branch.port is not None and branch.gate_opening is not None),
        apart=lambda line, change: with_openings(line, {change.part: 0.0}),
    ),
    "clean": _cleaned("filter"),
    "clean-bag": _cleaned("bag"),
}


#: what a hose in the place of another brings besides its bore and length; never advised by itself
OF_ANOTHER_HOSE: dict[str, ChangeKind] = {
    "roughness": ChangeKind(
        Hose, lambda _hose, _line: (), lambda hose, to, rules: replace(hose, roughness=to(wall_roughness(hose, rules)))
    ),
    "bends": ChangeKind(
        Hose, lambda _hose, _line: (), lambda hose, to, rules: replace(hose, bend_factor=to(bend_factor(hose, rules)))
    ),
}


def candidates(line: Line, port: int) -> tuple[Candidate, ...]:
    """Every sensible single change of a single variant for the port at a place among the leaves.

    Parameters
    ----------
    port : its place among the leaves of the line [-]
    """
    leaf = line.leaves[port]
    parts = [part for branch in leaf.way for part in branch.elements] + list(line.trunk)
    found: list[Candidate] = list(_of_part(leaf.way[0], leaf.id, line, OF_OWN_BRANCH))
    for part in parts:
        found += _of_part(part, part.id, line)
    found += _of_part(leaf.port, leaf.id, line)
    for other in _open_beside(line, leaf):
        found += _of_part(other.way[0], other.id, line, (SHUT,))
    return (*found, *_of_part(line.vacuum, VACUUM, line))


def _of_part(part: object, name: str, line: Line, only: tuple[str, ...] = ()) -> Iterator[Candidate]:
    for key, kind in KINDS.items():
        if isinstance(part, kind.to) and (not only or key in only):
            yield from (Candidate(key, name, value) for value in kind.values(part, line))


def _open_beside(line: Line, leaf: Leaf) -> list[Leaf]:
    own = {branch.id for branch in leaf.way}
    return [other for other in line.leaves if other.id not in own and other.open]


#: check to the kind of change that mends it; of the others it is a matter of taste
MENDS = {"bin-collapse": STIFFEN, "bin-leak": "seal-bin", "bin-full": "empty"}


def mending(line: Line, check: Check) -> Candidate | None:
    """The single change that mends a check of a single variant; None where there is none."""
    kind = MENDS.get(check.id)
    if kind is None:
        return None
    return next((one for one in candidates(line, 0) if one.kind == kind and one.part == check.part), None)
