"""What keeps bin, hose, cord and nozzles on a stand."""

from __future__ import annotations

from math import pi

from fenwick.core.arrays import one_value
from fenwick.core.components.separator import Separator
from fenwick.core.making.given import Making
from fenwick.core.making.outlines import circle, hole
from fenwick.core.making.parts import MadePart, Round
from fenwick.core.making.pieces import bought, panel, tube_outside

STRAPS, HOOKS, CLEATS, NOZZLES = 2, 2, 2, 3


def holders(stage: Separator, making: Making, foot: float) -> list[MadePart]:
    """Straps round the bin, hooks for the hose, cleats for the cord, a board with a hole for each nozzle.

    Parameters
    ----------
    foot : outside width of the bin's foot [m]
    """
    found = [
        bought("straps", "strap", STRAPS, length_m=pi * foot),
        bought("hose-holder", "hook", HOOKS),
        bought("cord-cleats", "hook", CLEATS),
    ]
    stand = stage.stand
    nozzles = NOZZLES if stand is None or stand.nozzles is None else stand.nozzles
    return [*found, nozzle_board(making, one_value(stage.hose_bore), nozzles)] if nozzles else found


def nozzle_board(making: Making, bore: float, nozzles: int) -> MadePart:
    """A strip with a row of holes that nozzles hang in by their ends.

    Parameters
    ----------
    bore : of the hose that they go on [m]
    nozzles : [-]
    """
    d, land = tube_outside(making, bore) + making.rule("hole-play"), making.rule("hole-land")
    wide, high = nozzles * (d + land) + land, d + 2.0 * land
    at = [(land + d / 2.0 + i * (d + land), high / 2.0) for i in range(nozzles)]
    plain = panel("nozzle-board", making, wide, high, hole_d_m=d, holes=float(nozzles))
    loops = (*plain.outline, *(hole(circle(d / 2.0, one)) for one in at))
    rounds = tuple(Round("nozzle_hole", d / 2.0, "inside", x=x, y=y) for x, y in at)
    return MadePart(plain.id, plain.kind, plain.stock, plain.dims, loops, rounds=rounds)
