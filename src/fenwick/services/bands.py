"""What is believable of the figures over hours and in the room, worked out once for each."""

from __future__ import annotations

from functools import lru_cache

from fenwick.core.hours.bands import AirBands, UpkeepBands, air_bands, upkeep_bands
from fenwick.rig import Rig
from fenwick.rig.to_core.prices import prices_of
from fenwick.services.air import made_while
from fenwick.services.solving import solve
from fenwick.shop import ShopFile
from fenwick.shop.work import room_of_shop


@lru_cache(maxsize=32)
def upkeep_bands_of(rig: Rig, port: int) -> UpkeepBands | None:
    """Of how a rig ages at a port, its gates as they stand; None where that is not known.

    Parameters
    ----------
    port : place among the leaves
    """
    return upkeep_bands(solve(rig).line, port, prices_of(rig))


@lru_cache(maxsize=32)
def air_bands_of(rig: Rig, port: str, shop: ShopFile, duration: float) -> AirBands | None:
    """Of a room's air over a job at a port, its gates as they stand; None where that is not known.

    Parameters
    ----------
    port : id of the port
    duration : of the job [s]
    """
    line = solve(rig).line
    rate = made_while(line, port)
    return None if rate is None else air_bands(line, room_of_shop(shop, line.rules), duration, rate)
