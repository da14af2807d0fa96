"""Separators inside their bin: a hung disc, elbows through a lid, an inlet through the wall at the rim."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.bins import Bin
from fenwick.core.components.chambers import OpenBin, RimInlet
from fenwick.core.components.separator import SlottedDisc
from fenwick.core.making.given import Making
from fenwick.core.making.inlets import elbow, wall_inlet
from fenwick.core.making.outlines import Notch, notched_disc
from fenwick.core.making.parts import Drill, MadePart, MadeParts, Round, SawnHole, Stock, Trouble
from fenwick.core.making.pieces import bolts, bought, disc, handed, tube, tube_outside
from fenwick.core.making.rims import bin_and_gasket, bolt_hole, holes_apart, lid_part, rim_hole, rim_width
from fenwick.core.making.slots import slot_span, slot_trouble

RODS = 3  #: that a disc hangs from
PASSES = 25  #: heights at which a bin is looked at for a neck
ROD_MORE = 0.03  #: of a rod for nuts and washers [m]


def hung_parts(stage: SlottedDisc, making: Making) -> MadeParts:
    """Lid, tube, rods and the disc that hangs from them."""
    troubles = _neck(stage)
    bore, radius = one_value(stage.outlet_diameter), one_value(stage.chamber_diameter) / 2.0
    rods = _rods(stage, making, radius)
    holes = [SawnHole("centre_hole", tube_outside(making, bore))]
    arriving: list[MadePart] = []
    if stage.elbow:
        holes.append(rim_hole(stage.bin, making, one_value(stage.inlet_bore)))
        arriving = [elbow("inlet-elbow", one_value(stage.inlet_bore), "tool")]
    else:
        arriving = wall_inlet(stage.bin, making, one_value(stage.inlet_bore), _axis_below_rim(stage, making))
    lid = handed(lid_part(stage.bin, making, holes, rods), making)
    deep = one_value(stage.chamber_height)
    rod = deep + lid.stock.thickness + making.plate.thickness + ROD_MORE
    hang = one_value(stage.outlet_length)
    parts = [
        tube(
            "outlet-tube", making, bore, hang + lid.stock.thickness + making.stub, "vacuum",
            reach_m=hang, stub_m=making.stub,
        ),
        lid,
        *arriving,
        bought("rods", "rod", RODS, length_m=rod, d_m=making.rule("bolt")),
        hung_disc(stage, making, rods, troubles),
        *bin_and_gasket(stage.bin, making),
    ]  # fmt: skip
    return MadeParts(tuple(parts), tuple(troubles))


def _axis_below_rim(stage: SlottedDisc, making: Making) -> float:
    high = one_value(stage.chamber_height)
    return min(tube_outside(making, one_value(stage.inlet_bore)) / 2.0 + making.rule("hole-land"), high / 2.0)


def _rods(stage: SlottedDisc, making: Making, radius: float) -> tuple[Drill, ...]:
    """Between the outlet and the slots."""
    inner = tube_outside(making, one_value(stage.outlet_diameter)) / 2.0
    slots = radius - max(one_value(slot.width) for slot in stage.slots)
    return bolts((inner + slots) / 2.0, RODS, bolt_hole(making), "rod")


def hung_disc(stage: SlottedDisc, making: Making, rods: tuple[Drill, ...], troubles: list[Trouble]) -> MadePart:
    """A disc whose slots are open to its edge: there the bin's own wall is their outer side."""
    radius = one_value(stage.chamber_diameter) / 2.0
    notches = []
    for i, slot in enumerate(stage.slots):
        trouble = slot_trouble(stage.slots, i, radius, making)
        if trouble is not None:
            troubles.append(trouble)
        if trouble is None or not trouble.stops:
            notches.append(Notch(one_value(slot.width), *slot_span(slot)))
    first = stage.slots[0]
    width = one_value(first.width)
    dims = {
        "d_m": 2.0 * radius, "depth_m": one_value(stage.chamber_height), "gap_m": one_value(stage.gap),
        "slot_radius_m": radius, "slot_width_m": width, "slot_arc_deg": float(np.degrees(one_value(first.arc))),
        "slot_area_m2": sum(one_value(stage.slot_area(slot)) for slot in stage.slots),
    }  # fmt: skip
    rounds = (Round("edge", radius, "outside"), Round("slot-in", radius - width, "outside"))
    loop = notched_disc(radius, notches, min(making.rule("cutter"), width / 2.0))
    shape = MadePart("slotted-disc", "disc", making.plate, dims, (loop,), drills=rods, rounds=rounds, side="tool")
    return handed(shape, making)


def _neck(stage: SlottedDisc) -> list[Trouble]:
    """A bin that is narrower above the disc than the disc is wide."""
    bin_, wide = stage.bin, one_value(stage.chamber_diameter)
    low = bin_.height - one_value(stage.chamber_height)
    narrowest = min(float(bin_.narrow_at(at)) for at in np.linspace(low, bin_.height, PASSES))
    return [Trouble("disc-past-rim", "slotted-disc", wide, narrowest)] if wide > narrowest + 5e-4 else []


def open_parts(stage: OpenBin, making: Making) -> MadeParts:
    """Lid and tubes of a bin without a disc: elbows through the lid, or an inlet through the wall."""
    outlet, inlet = one_value(stage.outlet_diameter), one_value(stage.inlet_bore)
    hang = one_value(stage.outlet_length)
    holes = [SawnHole("centre_hole", tube_outside(making, outlet))]
    if isinstance(stage, RimInlet):
        axis = tube_outside(making, inlet) / 2.0 + making.rule("hole-land")
        arriving = wall_inlet(stage.bin, making, inlet, axis)
        leaving: list[MadePart] = []
    else:
        holes.append(rim_hole(stage.bin, making, inlet))
        arriving = [elbow("inlet-elbow", inlet, "tool")]
        leaving = [elbow("outlet-elbow", outlet, "vacuum")]
    lid = handed(lid_part(stage.bin, making, holes, ()), making)
    out = tube(
        "outlet-tube", making, outlet, hang + lid.stock.thickness + making.stub, "vacuum",
        reach_m=hang, stub_m=making.stub,
    )  # fmt: skip
    stiff = [] if isinstance(stage, RimInlet) else _stiffener(stage.bin, making, lid, holes)
    parts = [*leaving, out, *arriving, lid, *stiff, *bin_and_gasket(stage.bin, making)]
    return MadeParts(tuple(parts), holes_apart(holes, lid, making))


def _stiffener(bin_: Bin, making: Making, lid: MadePart, holes: Sequence[SawnHole]) -> list[MadePart]:
    """A disc under the lid that shares its holes, where the bin has one."""
    if bin_.lid is None or bin_.lid.stiffener is None:
        return []
    material, thick = bin_.lid.stiffener
    wide = rim_width(bin_) - making.rule("push-fit")
    plain = disc("stiffener", Stock(material, one_value(thick)), wide, holes=holes)
    return [handed(plain, making)]
