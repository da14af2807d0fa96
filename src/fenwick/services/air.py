"""The room's air over a job at one port of a solved line."""

from __future__ import annotations

from fenwick.core.arrays import one_value
from fenwick.core.hours.air import USUAL_JOB, DustSource, clearing, fine_source
from fenwick.core.line.catch import dust_rate, tool_rate, tools_of
from fenwick.core.line.line import Line
from fenwick.services.solving import Solved
from fenwick.shop import ShopFile
from fenwick.shop.work import room_of_shop


def source_at(solved: Solved, port: str) -> DustSource | None:
    """Fine dust that gets into the room from all open tools while one of them works; None where that cannot be told.

    Parameters
    ----------
    solved : with that tool at work
    port : id of one of its ports
    """
    rate = made_while(solved.line, port)
    return None if rate is None else fine_source(solved.line, solved.found, rate)


def made_while(line: Line, port: str) -> float | None:
    """Dust made at all open tools while the one at a port works [kg/s]; None where that one's is not known.

    Parameters
    ----------
    port : id of one of its ports
    """
    group = next((group for group in tools_of(line) if port in [line.leaves[i].id for i in group]), None)
    known = group is not None and tool_rate(line, group) is not None
    return one_value(dust_rate(line)) if known else None


def masked_for(solved: Solved, port: str, shop: ShopFile | None) -> float | None:
    """How long to stay masked in the shop's room after a usual job there [s]; None where that cannot be told."""
    source = source_at(solved, port)
    if shop is None or source is None:
        return None
    rules = solved.line.rules
    found = clearing(room_of_shop(shop, rules), source, USUAL_JOB, rules["room.clear"])
    return float(found.clears[0])
