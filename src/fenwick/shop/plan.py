"""The shop's floor as the core reckons with it: what stands in the way, what must be reached, and from where."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.catalogue.tools import IN_HAND, TOOLS
from fenwick.core.formulas.route import Block
from fenwick.core.rules import RuleBook
from fenwick.core.site.cords import CordCrossing, Trodden, cord_crossing
from fenwick.core.site.floor import FloorPoint, Reach, Route, Spot, best_spot, cord_reach, route
from fenwick.core.site.sweep import HeadSweep, free_side, snags
from fenwick.shop.model import FurniturePart, OwnedTool, PlacePart, ShopFile

INLET_HEIGHT = 0.5  #: of a separator's inlet above the floor [m]


@dataclass(frozen=True)
class Cord:
    """Whether a vacuum's cord reaches."""

    vacuum: str
    outlet: str
    needed: float  #: [m]
    length: float  #: [m]
    crossing: CordCrossing | None = None  #: where it is walked or rolled over

    @property
    def reaches(self) -> bool:
        """Whether it is long enough."""
        return self.length >= self.needed


@dataclass(frozen=True)
class Snag:
    """A hose that comes where a tool's head swings or travels."""

    tool: str  #: whose head it is
    hose: str  #: tool whose hose snags
    side: str | None  #: where a hose is out of the way: front, back, left or right; None: nowhere


@dataclass(frozen=True)
class FloorPlan:
    """What the floor plan comes to."""

    routes: tuple[Route, ...]  #: from every placed tool to the separator; empty until that is placed
    spot: Spot | None  #: the best place for the separator
    cords: tuple[Cord, ...]
    sweeps: tuple[HeadSweep, ...] = ()  #: of the tools whose head moves
    snags: tuple[Snag, ...] = ()

    @property
    def longest(self) -> float | None:
        """The hose that reaches the farthest tool from where the separator stands [m]."""
        return max((found.length for found in self.routes), default=None)


def blocks_of(shop: ShopFile) -> list[Block]:
    """The furniture; over a walkway a hose can be laid."""
    return [_block(one) for one in shop.furniture if not one.walked]


def _block(one: FurniturePart) -> Block:
    return Block(one.place.x_m, one.place.y_m, one.width_m, one.depth_m)


def lay_floor(shop: ShopFile, rules: RuleBook | None = None) -> FloorPlan:
    """Routes, the best spot and the cords of a shop."""
    rules, blocks = rules or RuleBook(), blocks_of(shop)
    targets = [_reach(tool) for tool in shop.tools if tool.place is not None]
    here = shop.separator_place
    routes = tuple(route(target, _point(here), INLET_HEIGHT, blocks, rules) for target in targets) if here else ()
    room = (shop.room.width_m, shop.room.depth_m)
    spot = best_spot(room, targets, INLET_HEIGHT, blocks, rules)
    sweeps = tuple(_sweeps(shop, rules))
    caught = tuple(
        Snag(sweep.id, found.id, free_side(sweep, _point(here) if here else None, room, blocks, rules))
        for sweep in sweeps
        for found in routes
        if snags(sweep, found.way)
    )
    return FloorPlan(routes, spot, _cords(shop), sweeps, caught)


def _sweeps(shop: ShopFile, rules: RuleBook) -> Iterator[HeadSweep]:
    angle = float(np.radians(one_value(rules["floor.swing"])))
    for tool in shop.tools:
        moves = tool.travel_m > 0.0 or tool.swing_m > 0.0
        by_hand = tool.kind is not None and TOOLS[tool.kind].machine in IN_HAND  # it takes its hose along
        if tool.place is not None and moves and not by_hand:
            yield HeadSweep(tool.id, _point(tool.place), tool.faces, tool.travel_m, tool.swing_m, angle)


def _reach(tool: OwnedTool) -> Reach:
    assert tool.place is not None
    return Reach(tool.id, _point(tool.place), tool.port_height_m, tool.travel_m)


def _point(place: PlacePart) -> FloorPoint:
    return place.x_m, place.y_m


def _cords(shop: ShopFile) -> tuple[Cord, ...]:
    outlets = [(circuit.id, _point(circuit.place)) for circuit in shop.circuits if circuit.place is not None]
    trodden = [Trodden(one.name, _block(one), one.wheels) for one in shop.furniture if one.walked or one.wheels]
    found = []
    for vacuum in shop.vacuums:
        if vacuum.place is None or vacuum.cord_m is None:
            continue
        own = [outlet for outlet in outlets if outlet[0] == vacuum.circuit] or outlets
        nearest = cord_reach(_point(vacuum.place), own)
        if nearest is not None:
            crossing = cord_crossing(_point(vacuum.place), dict(outlets)[nearest[0]], trodden)
            found.append(Cord(vacuum.id, nearest[0], nearest[1], vacuum.cord_m, crossing))
    return tuple(found)
