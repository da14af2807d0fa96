"""The tool ports of a line one at a time: which gates stand open, and what each port gets alone."""

from __future__ import annotations

from collections.abc import Callable, Collection
from dataclasses import replace

import numpy as np

from fenwick.core.arrays import Array, Values, one_value
from fenwick.core.components.dust import Dust, mixed
from fenwick.core.components.elements import Branch
from fenwick.core.line.line import Leaf, Line


def with_dust(line: Line) -> Line:
    """The line with the dust of its open ports, mixed by what each makes; its own dust where that cannot be told."""
    working = [leaf.port for leaf in line.leaves if leaf.open]
    usual = line.usual_dust or line.dust
    kinds = [port.dust or usual for port in working]
    if all(leaf.port.dust is None for leaf in line.leaves) or any(kind is None for kind in kinds) or not kinds:
        return line
    if all(kind is kinds[0] for kind in kinds):
        return replace(line, dust=kinds[0], usual_dust=usual)
    rates = [0.0 if port.dust_rate is None else one_value(port.dust_rate) for port in working]
    made = [(kind, rate) for kind, rate in zip(kinds, rates, strict=True) if kind is not None and rate > 0.0]
    if len(made) < len([port for port in working if port.dust_rate is not None or port.tool is None]):
        return replace(line, dust=usual, usual_dust=usual)
    return replace(line, dust=mixed(made), usual_dust=usual)


def with_grains(line: Line, change: Callable[[Dust], Dust]) -> Line:
    """The line with all its kinds of dust changed alike.

    Parameters
    ----------
    line : any
    change : from a dust to what it becomes
    """

    def changed(dust: Dust | None) -> Dust | None:
        return None if dust is None else change(dust)

    def at(branch: Branch) -> Branch:
        port = None if branch.port is None else replace(branch.port, dust=changed(branch.port.dust))
        return replace(branch, port=port, branches=tuple(at(inner) for inner in branch.branches))

    branches = tuple(at(branch) for branch in line.branches)
    return replace(line, dust=changed(line.dust), usual_dust=changed(line.usual_dust), branches=branches)


def with_openings(line: Line, openings: dict[str, Values]) -> Line:
    """The line with the gates of some branches set; a branch without a gate stays without one.

    Parameters
    ----------
    line : any
    openings : branch id to open share, 0 … 1 [-]
    """

    def turned(branch: Branch) -> Branch:
        opening = branch.gate_opening if branch.gate_opening is None else openings.get(branch.id, branch.gate_opening)
        return replace(branch, gate_opening=opening, branches=tuple(turned(inner) for inner in branch.branches))

    return with_dust(replace(line, branches=tuple(turned(branch) for branch in line.branches)))


def alone_openings(line: Line) -> dict[str, Array]:
    """Openings of every branch, shape (ports,): variant i has port i open alone, as far as there are gates to shut.

    Other ports of the same tool stay open with it.
    """
    leaves = line.leaves
    together = [[other for other in leaves if other is leaf or _same_tool(leaf, other)] for leaf in leaves]
    ways = [{branch.id for other in group for branch in other.way} for group in together]
    branches = {branch.id for leaf in line.leaves for branch in leaf.way}
    return {name: np.array([1.0 if name in way else 0.0 for way in ways]) for name in branches}


def _same_tool(leaf: Leaf, other: Leaf) -> bool:
    return leaf.port.tool is not None and leaf.port.tool == other.port.tool


def line_alone(line: Line, port: int) -> Line:
    """The line with one port open alone, by its place among the leaves.

    Parameters
    ----------
    port : its place among the leaves of the line [-]
    """
    return with_openings(line, {name: float(opening[port]) for name, opening in alone_openings(line).items()})


def line_together(line: Line, ports: Collection[str]) -> Line:
    """The line with some ports open, by their ids, and the others shut as far as there are gates."""
    way = {branch.id for leaf in line.leaves if leaf.id in ports for branch in leaf.way}
    every = {branch.id for leaf in line.leaves for branch in leaf.way}
    return with_openings(line, {name: float(name in way) for name in every})
