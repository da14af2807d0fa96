"""Hoses and cords over the floor of a shop: how long they must be, and where everything is reached from."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, one_value
from fenwick.core.formulas.route import Block, distances_from, shortest_way, turns, way_length
from fenwick.core.rules import RuleBook

STEP = 0.1  #: grid on which the best spot is looked for, and on which things snap [m]
LEAST_TURN = 0.17  #: a way that turns less than this makes no bend [rad]

FloorPoint = tuple[float, float]


@dataclass(frozen=True)
class Reach:
    """Something a hose must reach."""

    id: str
    place: FloorPoint  #: [m]
    height: float  #: of its port above the floor [m]
    travel: float = 0.0  #: of a head that swings or moves [m]


@dataclass(frozen=True)
class Route:
    """A hose over the floor."""

    id: str
    way: Array  #: points [m], shape (k, 2)
    length: float  #: of the hose, with rise, travel and slack [m]
    bends: tuple[float, ...]  #: turns along it, those up and down at its ends included [rad]


@dataclass(frozen=True)
class Spot:
    """A place that reaches every tool with the shortest hose."""

    place: FloorPoint  #: [m]
    length: float  #: of the hose that reaches the farthest tool [m]


def route(target: Reach, spot: FloorPoint, inlet_height: float, blocks: Sequence[Block], rules: RuleBook) -> Route:
    """The hose from a tool to a spot, over the floor and round what stands there.

    Parameters
    ----------
    target : the tool
    spot : where the hose ends [m]
    inlet_height : above the floor, where it ends [m]
    blocks : in the way
    rules : gives the slack
    """
    way = shortest_way(target.place, spot, blocks)
    corners = [float(turn) for turn in turns(way) if turn > LEAST_TURN]
    drop = target.height > 0.0 or inlet_height > 0.0
    ends = [np.pi / 2.0] * ((target.height > 0.0) + (inlet_height > 0.0)) if drop else []
    return Route(target.id, way, way_length(way) + _extra(target, inlet_height, rules), (*ends, *corners))


def _extra(target: Reach, inlet_height: float, rules: RuleBook) -> float:
    """What a hose takes beyond its way over the floor [m]."""
    return target.height + inlet_height + target.travel + one_value(rules["hose.slack"])


def best_spot(
    room: FloorPoint, targets: Sequence[Reach], inlet_height: float, blocks: Sequence[Block], rules: RuleBook
) -> Spot | None:
    """Where one hose, moved from tool to tool, can be shortest; None without tools or without room.

    Parameters
    ----------
    room : its width and depth [m]
    targets : the tools
    inlet_height : of the separator above the floor [m]
    blocks : places that are taken
    rules : give the slack and the room that a separator needs
    """
    if not targets:
        return None
    margin = one_value(rules["floor.footprint"]) / 2.0
    axes = [np.arange(round(margin / STEP) * STEP, side - margin + 1e-9, STEP) for side in room]
    if min(len(axis) for axis in axes) == 0:
        return None
    grid = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1).reshape(-1, 2)
    for block in blocks:
        grid = grid[~Block(block.x, block.y, block.width + 2 * margin, block.depth + 2 * margin).holds(grid)]
    if not len(grid):
        return None
    needed = np.stack(
        [distances_from(t.place, grid, blocks) + _extra(t, inlet_height, rules) for t in targets]
    )  # shape (tools, places)
    longest = needed.max(axis=0)
    best = np.lexsort((needed.sum(axis=0), longest))[0]
    if not np.isfinite(longest[best]):
        return None
    x, y = np.round(grid[best], 3).tolist()
    return Spot((x, y), float(longest[best]))


def cord_reach(vacuum: FloorPoint, outlets: Sequence[tuple[str, FloorPoint]]) -> tuple[str, float] | None:
    """(outlet, length of cord it takes along the walls' directions [m]) of the nearest outlet; None without any."""
    if not outlets:
        return None
    lengths = [(name, abs(vacuum[0] - x) + abs(vacuum[1] - y)) for name, (x, y) in outlets]
    return min(lengths, key=lambda found: found[1])
