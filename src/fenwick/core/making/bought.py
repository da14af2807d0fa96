"""A separator that is bought: what has to be made to mount it."""

from __future__ import annotations

from dataclasses import replace

from fenwick.core.arrays import one_value
from fenwick.core.components.chambers import OneBody, OpenBin
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.making.chamber import seat_of
from fenwick.core.making.cyclone import lid_mounting
from fenwick.core.making.given import Making
from fenwick.core.making.in_bin import hung_parts, open_parts
from fenwick.core.making.one_body import one_body_parts
from fenwick.core.making.parts import Drill, MadePart, MadeParts, Trouble
from fenwick.core.making.pieces import bolts, bought
from fenwick.core.making.rims import bin_and_gasket, bolt_hole

KEPT = ("lid", "gasket", "bin", "wall-template", "head")  #: parts of a kit that one still makes or has


def bought_parts(stage: Separator, making: Making) -> MadeParts:
    """What is bought, and the lid, ring or paper that it is mounted with."""
    if isinstance(stage, Cyclone):
        return _cyclone(stage, making)
    if isinstance(stage, SlottedDisc) and not isinstance(stage, OneBody) and not stage.hung:
        return _chamber(stage, making)
    whole = _whole(stage, making)
    kept = tuple(part for part in whole.parts if part.id in KEPT)
    kit = bought("kit", "kit", inlet_bore_m=one_value(stage.hose_bore), outlet_bore_m=one_value(stage.outlet_bore))
    return MadeParts((kit, *kept), tuple(one for one in whole.troubles if one.part in KEPT))


def _whole(stage: Separator, making: Making) -> MadeParts:
    if isinstance(stage, OneBody):
        return one_body_parts(stage, making)
    if isinstance(stage, SlottedDisc):
        return hung_parts(stage, making)
    assert isinstance(stage, OpenBin)
    return open_parts(stage, making)


def _chamber(stage: SlottedDisc, making: Making) -> MadeParts:
    seat = seat_of(stage, making)
    body = bought("chamber", "chamber", d_m=one_value(stage.chamber_diameter), height_m=one_value(stage.chamber_height))
    return MadeParts((body, seat.ring, *bin_and_gasket(stage.bin, making)), seat.troubles)


def _cyclone(stage: Cyclone, making: Making) -> MadeParts:
    """A cyclone that is bought, on a lid that is made for it."""
    opening = one_value(stage.shape.dust_outlet)
    mounting, troubles = lid_mounting(stage, making, opening, flange=False)
    body = bought("cyclone", "cyclone", body_d_m=one_value(stage.shape.body), height_m=one_value(stage.shape.height))
    chosen = making.chosen
    if chosen.bolt_circle is None or chosen.bolts is None:  # nobody has measured it: its foot is traced
        troubles = (*troubles, Trouble("trace-it", "lid"))
    else:
        d = bolt_hole(making) if chosen.bolt_hole is None else chosen.bolt_hole
        circle = bolts(chosen.bolt_circle / 2.0, chosen.bolts, d, "bolt")
        mounting = [_with_bolts(part, circle, chosen.bolt_circle) for part in mounting]
    return MadeParts((body, *mounting, *bin_and_gasket(stage.bin, making)), troubles)


def _with_bolts(part: MadePart, circle: tuple[Drill, ...], circle_d: float) -> MadePart:
    if part.kind not in ("disc", "ring"):
        return replace(part, count=len(circle)) if part.id == "bolts" else part
    kept = tuple(one for one in part.drills if one.purpose != "bolt")
    return replace(part, drills=(*circle, *kept), dims={**part.dims, "bolt_circle_d_m": circle_d})
