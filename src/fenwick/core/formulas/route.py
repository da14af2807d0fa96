"""The shortest way of a hose over a floor with things standing on it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.sparse.csgraph import dijkstra

from fenwick.core.arrays import Array

CLEARANCE = 0.05  #: a hose keeps from a corner [m]
SAME = 1e-12  #: nearer than this is one place [m]


@dataclass(frozen=True)
class Block:
    """A rectangle that no hose goes through, its sides along the room's."""

    x: float  #: of its middle [m]
    y: float  #: of its middle [m]
    width: float  #: along x [m]
    depth: float  #: along y [m]

    def corners(self, clearance: float) -> Array:
        """Its corners, moved outwards by a clearance [m], shape (4, 2).

        Parameters
        ----------
        clearance : kept from the block [m]
        """
        w, d = self.width / 2 + clearance, self.depth / 2 + clearance
        return np.array([[self.x + i * w, self.y + j * d] for i in (-1, 1) for j in (-1, 1)])

    def holds(self, points: Array) -> npt.NDArray[np.bool_]:
        """Which of some points [m], shape (n, 2), lie inside it.

        Parameters
        ----------
        points : shape (n, 2) [m]
        """
        inside = np.abs(points - np.array([self.x, self.y])) < np.array([self.width, self.depth]) / 2
        return np.asarray(inside.all(axis=-1))


def crosses(starts: Array, ends: Array, block: Block) -> npt.NDArray[np.bool_]:
    """Which straight lines run through a block (touching its edge does not count).

    Parameters
    ----------
    starts, ends : points [m], shapes that broadcast to (..., 2)
    block : in the way
    """
    low = np.array([block.x - block.width / 2, block.y - block.depth / 2]) + 1e-9
    high = np.array([block.x + block.width / 2, block.y + block.depth / 2]) - 1e-9
    way = ends - starts
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        first, second = (low - starts) / way, (high - starts) / way
    along = np.abs(way) < SAME
    beside = along & ((starts <= low) | (starts >= high))
    enter = np.where(along, -np.inf, np.minimum(first, second)).max(axis=-1)
    leave = np.where(along, np.inf, np.maximum(first, second)).min(axis=-1)
    return np.asarray((np.maximum(enter, 0.0) < np.minimum(leave, 1.0)) & ~beside.any(axis=-1))


def _free(starts: Array, ends: Array, blocks: Sequence[Block]) -> npt.NDArray[np.bool_]:
    free = np.ones(np.broadcast_shapes(starts.shape, ends.shape)[:-1], dtype=bool)
    for block in blocks:
        free &= ~crosses(starts, ends, block)
    return free


def shortest_way(start: tuple[float, float], end: tuple[float, float], blocks: Sequence[Block]) -> Array:
    """The shortest way round some blocks, as points from start to end [m], shape (k, 2).

    A block that holds the start or the end (a tool standing on a bench) is not in the way. Without any way round, the
    straight line.

    Parameters
    ----------
    start : x and y [m]
    end : x and y [m]
    """
    ends = np.array([start, end], dtype=float)
    in_way = [block for block in blocks if not block.holds(ends).any()]
    nodes = _nodes(ends, in_way)
    lengths = _lengths(nodes, in_way)
    _, back = dijkstra(lengths, indices=0, return_predecessors=True)
    if back[1] < 0:
        return ends
    way = [1]
    while way[-1] != 0:
        way.append(int(back[way[-1]]))
    return np.asarray(nodes[way[::-1]])


def distances_from(target: tuple[float, float], places: Array, blocks: Sequence[Block]) -> Array:
    """Length of the shortest way from a target to every place [m], shape (n,); infinite where there is none.

    Parameters
    ----------
    target : [m]
    places : [m], shape (n, 2)
    blocks : in the way, but for those that hold the target
    """
    here = np.array([target], dtype=float)
    in_way = [block for block in blocks if not block.holds(here).any()]
    nodes = _nodes(here, in_way)
    to_node = dijkstra(_lengths(nodes, in_way), indices=0)
    steps = np.linalg.norm(places[:, None, :] - nodes[None, :, :], axis=-1)
    free = _free(places[:, None, :], nodes[None, :, :], in_way)
    return np.asarray(np.min(np.where(free, steps + to_node, np.inf), axis=1))


def _nodes(ends: Array, blocks: Sequence[Block]) -> Array:
    corners = [block.corners(CLEARANCE) for block in blocks]
    nodes = np.concatenate([ends, *corners])
    free = np.ones(len(nodes), dtype=bool)
    for block in blocks:
        free &= ~block.holds(nodes)
    free[: len(ends)] = True
    return np.asarray(nodes[free])


def _lengths(nodes: Array, blocks: Sequence[Block]) -> Array:
    """Distance between every two nodes that see each other [m]; 0 where they do not (no edge, to the graph)."""
    apart = np.linalg.norm(nodes[:, None, :] - nodes[None, :, :], axis=-1)
    apart = np.maximum(apart, 1e-6)  # to the graph, a length of nothing is no edge
    return np.where(_free(nodes[:, None, :], nodes[None, :, :], blocks), apart, 0.0)


def turns(way: Array) -> Array:
    """Angle by which a way turns at each of its inner points [rad], shape (k − 2,); the points in [m].

    Parameters
    ----------
    way : points from start to end, shape (k, 2) [m]
    """
    steps = np.diff(way, axis=0)
    headings = np.arctan2(steps[:, 1], steps[:, 0])
    return np.asarray(np.abs((np.diff(headings) + np.pi) % (2.0 * np.pi) - np.pi))


def way_length(way: Array) -> float:
    """Length of a way through points [m].

    Parameters
    ----------
    way : points from start to end, shape (k, 2) [m]
    """
    return float(np.sum(np.linalg.norm(np.diff(way, axis=0), axis=1)))
