"""Where a vacuum's cord runs along the walls' directions, and what rolls or walks over it there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.formulas.route import Block, crosses
from fenwick.core.site.floor import FloorPoint


@dataclass(frozen=True)
class Trodden:
    """A piece of floor that is walked or rolled over."""

    name: str
    block: Block
    wheels: bool  #: else people walk there


@dataclass(frozen=True)
class CordCrossing:
    """A cord that lies where it is walked or rolled over."""

    over: Trodden
    place: FloorPoint  #: middle of the stretch of floor [m]


def cord_crossing(vacuum: FloorPoint, outlet: FloorPoint, trodden: Sequence[Trodden]) -> CordCrossing | None:
    """What a cord cannot get round on either of its two ways along the walls; None where one of them is clear.

    Parameters
    ----------
    vacuum, outlet : where it begins and ends [m]
    trodden : pieces of floor
    """
    found: list[list[Trodden]] = []
    for corner in ((vacuum[0], outlet[1]), (outlet[0], vacuum[1])):
        way = np.array([vacuum, corner, outlet], dtype=float)
        over = [one for one in trodden if np.any(crosses(way[:-1], way[1:], one.block))]
        if not over:
            return None
        found.append(over)
    over = min(found, key=lambda way: (any(one.wheels for one in way), len(way)))
    worst = max(over, key=lambda one: one.wheels)
    return CordCrossing(worst, (worst.block.x, worst.block.y))
