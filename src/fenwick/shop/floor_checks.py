"""What a shop's floor plan says of a line: which of its hoses snag, where its vacuum's cord is crossed."""

from __future__ import annotations

from functools import lru_cache

from fenwick.core.judging.check import Check
from fenwick.core.site.checks import SnaggingHose, floor_checks
from fenwick.rig.format.model import Rig
from fenwick.shop.model import ShopFile
from fenwick.shop.plan import FloorPlan, lay_floor
from fenwick.shop.work import tool_of_port


@lru_cache(maxsize=8)
def plan_of_floor(shop: ShopFile) -> FloorPlan:
    """A shop's floor, laid once for each: every line of the shop asks for the same."""
    return lay_floor(shop)


def checks_of_floor(shop: ShopFile | None, rig: Rig) -> list[Check]:
    """The checks of a line by the floor plan of its shop; none without one."""
    if shop is None:
        return []
    plan = plan_of_floor(shop)
    names = {tool.id: tool.ports[0].name for tool in shop.tools}
    hoses = []
    for at, way in enumerate(rig.line.ways):
        tool = tool_of_port(shop, rig, at)
        for snag in plan.snags:
            if tool is not None and snag.hose == tool.id:
                hoses.append(SnaggingHose(way[0].id, names[snag.hose], names[snag.tool], snag.side))
    vacuum = next((one for one in shop.vacuums if one.name.casefold() == rig.vacuum.name.casefold()), None)
    cord = next((one for one in plan.cords if vacuum is not None and one.vacuum == vacuum.id), None)
    return floor_checks(hoses, cord.crossing if cord is not None else None)
