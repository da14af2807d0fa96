"""The shop's floor as the core reckons with it: what stands in the way, what must be reached, and from where."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.formulas.route import Block
from fenwick.core.rules import RuleBook
from fenwick.core.site.floor import FloorPoint, Reach, Route, Spot, best_spot, cord_reach, route
from fenwick.shop.model import OwnedTool, PlacePart, ShopFile

INLET_HEIGHT = 0.5  #: of a separator's inlet above the floor [m]


@dataclass(frozen=True)
class Cord:
    """Whether a vacuum's cord reaches."""

    vacuum: str
    outlet: str
    needed: float  #: [m]
    length: float  #: [m]

    @property
    def reaches(self) -> bool:
        """Whether it is long enough."""
        return self.length >= self.needed


@dataclass(frozen=True)
class FloorPlan:
    """What the floor plan comes to."""

    routes: tuple[Route, ...]  #: from every placed tool to the separator; empty until that is placed
    spot: Spot | None  #: the best place for the separator
    cords: tuple[Cord, ...]

    @property
    def longest(self) -> float | None:
        """The hose that reaches the farthest tool from where the separator stands [m]."""
        return max((found.length for found in self.routes), default=None)


def blocks_of(shop: ShopFile) -> list[Block]:
    """The furniture."""
    return [Block(f.place.x_m, f.place.y_m, f.width_m, f.depth_m) for f in shop.furniture]


def lay_floor(shop: ShopFile, rules: RuleBook | None = None) -> FloorPlan:
    """Routes, the best spot and the cords of a shop."""
    rules, blocks = rules or RuleBook(), blocks_of(shop)
    targets = [_reach(tool) for tool in shop.tools if tool.place is not None]
    here = shop.separator_place
    routes = tuple(route(target, _point(here), INLET_HEIGHT, blocks, rules) for target in targets) if here else ()
    room = (shop.room.width_m, shop.room.depth_m)
    return FloorPlan(routes, best_spot(room, targets, INLET_HEIGHT, blocks, rules), _cords(shop))


def _reach(tool: OwnedTool) -> Reach:
    assert tool.place is not None
    return Reach(tool.id, _point(tool.place), tool.port_height_m, tool.travel_m)


def _point(place: PlacePart) -> FloorPoint:
    return place.x_m, place.y_m


def _cords(shop: ShopFile) -> tuple[Cord, ...]:
    outlets = [(circuit.id, _point(circuit.place)) for circuit in shop.circuits if circuit.place is not None]
    found = []
    for vacuum in shop.vacuums:
        if vacuum.place is None or vacuum.cord_m is None:
            continue
        own = [outlet for outlet in outlets if outlet[0] == vacuum.circuit] or outlets
        nearest = cord_reach(_point(vacuum.place), own)
        if nearest is not None:
            found.append(Cord(vacuum.id, nearest[0], nearest[1], vacuum.cord_m))
    return tuple(found)
