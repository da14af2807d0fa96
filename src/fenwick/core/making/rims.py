"""A bin's rim: how wide it is, the lid over it, what lies between."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from math import pi

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.bins import Bin
from fenwick.core.making.given import Making
from fenwick.core.making.parts import HAVE, Drill, MadePart, SawnHole, Stock, Trouble
from fenwick.core.making.pieces import bolt_circle, bought, disc, tube_outside


def bin_wall(bin_: Bin, making: Making) -> float:
    """Thickness of a bin's wall, by rule where it was not measured [m]."""
    return making.rule("bin-wall") if bin_.wall is None else one_value(bin_.wall)


def rim_width(bin_: Bin) -> float:
    """Inside width of a bin at its rim [m]."""
    return float(bin_.narrow_at(bin_.height))


def lid_part(bin_: Bin, making: Making, holes: Sequence[SawnHole], drills: tuple[Drill, ...]) -> MadePart:
    """The lid with its holes: the bin's own where it has a flat one, one that is made otherwise."""
    wide = rim_width(bin_) + 2.0 * bin_wall(bin_, making)
    stock = making.plate if bin_.lid is None else Stock(bin_.lid.material, one_value(bin_.lid.thickness))
    screws = bolt_circle(wide / 2.0 - making.rule("hole-land"), making.rule("bolt-pitch"), bolt_hole(making), "screw")
    plain = disc("lid", stock, wide, holes=holes, drills=(*drills, *(screws if bin_.lid is None else ())))
    return plain if bin_.lid is None else replace(plain, how=HAVE)


def bolt_hole(making: Making) -> float:
    """Of the bolts that hold it together [m]."""
    return making.rule("bolt") + making.rule("hole-play")


def holes_apart(holes: Sequence[SawnHole], lid: MadePart, making: Making) -> tuple[Trouble, ...]:
    """Holes of a lid that meet, or come too near to each other or to its edge."""
    land, found = making.rule("hole-land"), []
    for i, one in enumerate(holes):
        for other in holes[i + 1 :]:
            left = float(np.hypot(one.x - other.x, one.y - other.y)) - (one.d + other.d) / 2.0
            if left < land:
                found.append(Trouble("holes-meet" if left <= 0.0 else "holes-near", lid.id, left, land))
        edge = lid.dims["d_m"] / 2.0 - float(np.hypot(one.x, one.y)) - one.d / 2.0
        if edge < land - 1e-9:
            found.append(Trouble("hole-at-edge", lid.id, edge, land))
    return tuple(found)


def rim_hole(bin_: Bin, making: Making, bore: float) -> SawnHole:
    """The inlet's hole in a lid: as near to the wall as the bin allows, on the tangent generator.

    Parameters
    ----------
    bore : of the tube [m]
    """
    d = tube_outside(making, bore)
    return SawnHole("rim_hole", d, y=rim_width(bin_) / 2.0 - making.rule("hole-land") - d / 2.0)


def bin_and_gasket(bin_: Bin, making: Making) -> list[MadePart]:
    """What every separator stands on."""
    rim = rim_width(bin_)
    gasket = bought("gasket", "gasket", length_m=pi * rim, thickness_m=making.rule("gasket"))
    return [gasket, bought("bin", "bin", how=HAVE, rim_d_m=rim, height_m=bin_.height)]
