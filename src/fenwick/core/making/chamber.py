"""A flat chamber on top of a bin: roof, rolled wall, inlet block, slotted disc as its floor, a ring on the rim."""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import ceil

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.separator import SlottedDisc
from fenwick.core.making.given import Making
from fenwick.core.making.inlets import rectangular_inlet, round_inlet
from fenwick.core.making.outlines import hole
from fenwick.core.making.parts import Drill, MadePart, MadeParts, Round, SawnHole, Trouble
from fenwick.core.making.pieces import (
    bolt_circle,
    disc,
    handed,
    pipe_hole,
    pipe_hole_length,
    rectangle_hole,
    ring,
    tube,
    tube_outside,
    wrap,
)
from fenwick.core.making.rims import bin_and_gasket, bin_wall, bolt_hole, rim_width
from fenwick.core.making.slots import slot_area, slot_loops

MILLIMETRE = 1e-3


def chamber_parts(stage: SlottedDisc, making: Making) -> MadeParts:
    """Everything a chamber on top of its bin is made of, from the top down."""
    troubles: list[Trouble] = []
    seat = seat_of(stage, making)
    wide = max(plate_width(stage, making), seat.floor)
    parts = [
        outlet_tube(stage, making),
        roof(stage, making),
        wall(stage, making, troubles),
        *inlet(stage, making),
        slotted_floor(stage, making, wide, seat.bolts, troubles),
        seat.ring,
        *bin_and_gasket(stage.bin, making),
    ]
    return MadeParts(tuple(parts), (*troubles, *seat.troubles))


def groove_radius(stage: SlottedDisc, making: Making) -> float:
    """Mean radius of the wall, on which roof and floor have their groove [m]."""
    return (one_value(stage.chamber_diameter) + making.wall.thickness) / 2.0


def groove_width(making: Making) -> float:
    """Of the groove for the wall [m]."""
    return making.wall.thickness + making.rule("groove-play")


def plate_width(stage: SlottedDisc, making: Making) -> float:
    """Narrowest roof or floor that leaves land beside the groove, in whole millimetres [m]."""
    least = 2.0 * (groove_radius(stage, making) + groove_width(making) / 2.0 + making.rule("land"))
    return ceil(round(least / MILLIMETRE, 6)) * MILLIMETRE


def groove_rounds(stage: SlottedDisc, making: Making) -> tuple[Round, Round]:
    """The two edges of the groove."""
    middle, half = groove_radius(stage, making), groove_width(making) / 2.0
    return (
        Round("groove-out", middle + half, "inside", through=False, depth=making.groove),
        Round("groove-in", middle - half, "outside", through=False, depth=making.groove),
    )


def groove_dims(stage: SlottedDisc, making: Making) -> dict[str, float]:
    """Measures of the groove that roof and floor share."""
    return {
        "groove_radius_m": groove_radius(stage, making),
        "groove_width_m": groove_width(making),
        "groove_depth_m": making.groove,
    }


def outlet_tube(stage: SlottedDisc, making: Making) -> MadePart:
    """Its reach below the roof, the roof, and a stub for the hose's end."""
    reach = one_value(stage.outlet_length)
    long = reach + making.plate.thickness + making.stub
    bore = one_value(stage.outlet_diameter)
    return tube("outlet-tube", making, bore, long, side="vacuum", reach_m=reach, stub_m=making.stub)


def roof(stage: SlottedDisc, making: Making) -> MadePart:
    """A disc with the outlet's hole and the wall's groove."""
    hole_ = tube_outside(making, one_value(stage.outlet_diameter))
    holes = [SawnHole("centre_hole", hole_)]
    rounds = groove_rounds(stage, making)
    return disc(
        "roof", making.plate, plate_width(stage, making), holes=holes, rounds=rounds, dims=groove_dims(stage, making)
    )


def wall(stage: SlottedDisc, making: Making, troubles: list[Trouble]) -> MadePart:
    """The sheet that is rolled, with the inlet's cut-out, seen from outside."""
    inside, high = one_value(stage.chamber_diameter), one_value(stage.chamber_height)
    groove = making.groove
    flat = wrap("wall", making.wall, inside, high + 2.0 * groove, making.overlap, chamber_height_m=high)
    tangent = flat.dims["wrap_m"] / 2.0  # as far from the seam as can be
    outside = inside / 2.0 + making.wall.thickness
    if stage.inlet_rectangle is not None:
        size = (one_value(stage.inlet_rectangle[0]), one_value(stage.inlet_rectangle[1]))
        loop = rectangle_hole(inside, making.wall.thickness, size, (tangent, groove + high - size[0]))
        dims = {"cut_out_m": float(np.ptp(loop[:, 0])), "cut_out_height_m": size[0]}
    else:
        bore = one_value(stage.inlet_bore)
        radius = tube_outside(making, bore) / 2.0
        offset = inlet_offset(stage)
        axis = inlet_height(stage, making)
        loop = pipe_hole(outside, offset, radius, (tangent, groove + axis))
        if 2.0 * radius > high:
            troubles.append(Trouble("inlet-too-tall", "wall", 2.0 * radius, high))
        dims = {
            "cut_out_m": pipe_hole_length(outside, offset, radius), "cut_out_height_m": float(np.ptp(loop[:, 1])),
            "inlet_height_m": axis, "inlet_offset_m": offset,
        }  # fmt: skip
    sizes = {**flat.dims, **dims, "tangent_m": tangent}
    return handed(replace(flat, dims=sizes, outline=(*flat.outline, hole(loop)), side="tool"), making)


def inlet_offset(stage: SlottedDisc) -> float:
    """Of the inlet's axis from the chamber's: its inside grazes the wall's [m]."""
    return one_value(stage.chamber_diameter) / 2.0 - one_value(stage.inlet_bore) / 2.0


def inlet_height(stage: SlottedDisc, making: Making) -> float:
    """Of the inlet's axis over the disc: as near to the roof as the tube goes [m]."""
    high = one_value(stage.chamber_height)
    return max(high - tube_outside(making, one_value(stage.inlet_bore)) / 2.0, high / 2.0)


def inlet(stage: SlottedDisc, making: Making) -> list[MadePart]:
    """The tube that brings the dust in, with its block; of a rectangle four panels."""
    outside = one_value(stage.chamber_diameter) / 2.0 + making.wall.thickness
    if stage.inlet_rectangle is not None:
        size = (one_value(stage.inlet_rectangle[0]), one_value(stage.inlet_rectangle[1]))
        return rectangular_inlet(making, size, outside, one_value(stage.chamber_diameter) / 2.0)
    return round_inlet(making, outside, inlet_offset(stage), one_value(stage.inlet_bore))


def slotted_floor(
    stage: SlottedDisc, making: Making, wide: float, drills: tuple[Drill, ...], troubles: list[Trouble]
) -> MadePart:
    """The disc under the chamber: groove for the wall, slots inside it.

    Parameters
    ----------
    wide : its diameter [m]
    """
    radius = one_value(stage.chamber_diameter) / 2.0
    loops = slot_loops(stage.slots, radius, making, troubles)
    plain = disc("slotted-disc", making.plate, wide, drills=drills, rounds=groove_rounds(stage, making))
    area_ = sum(slot_area(slot, radius) for slot in stage.slots)
    first = stage.slots[0]
    dims = {
        **plain.dims, **groove_dims(stage, making), "slot_radius_m": radius, "slot_width_m": one_value(first.width),
        "slot_arc_deg": float(np.degrees(one_value(first.arc))),
        **({"bevel_deg": float(np.degrees(making.bevel))} if making.bevel > 0.0 else {}), "slot_area_m2": float(area_),
    }  # fmt: skip
    edges = tuple(
        Round(f"slot-{key}", r, waste)
        for key, r, waste in (("out", radius, "inside"), ("in", radius - one_value(first.width), "outside"))
    )
    shape = MadePart(
        plain.id, plain.kind, plain.stock, dims, (plain.outline[0], *(hole(loop) for loop in loops)),
        drills=drills, rounds=(*plain.rounds, *edges), side="tool",
    )  # fmt: skip
    return handed(shape, making)


@dataclass(frozen=True)
class Seat:
    """How a chamber sits on its bin's rim."""

    floor: float  #: least diameter of the disc over it [m]
    ring: MadePart
    bolts: tuple[Drill, ...]  #: through disc and ring
    troubles: tuple[Trouble, ...]


def seat_of(stage: SlottedDisc, making: Making) -> Seat:
    """A ring under the disc, inside the rim where the slot leaves room for it, round the rim otherwise."""
    rim = rim_width(stage.bin)
    outside = rim + 2.0 * bin_wall(stage.bin, making)
    chamber = one_value(stage.chamber_diameter)
    inner_most = rim - making.rule("push-fit")
    wide, least = making.rule("ring"), making.rule("ring-least")
    troubles = [Trouble("slot-over-rim", "slotted-disc", chamber, rim)] if chamber > rim + MILLIMETRE else []
    d = bolt_hole(making)
    room = (inner_most - chamber) / 2.0
    if room >= least:
        inner = max(chamber, inner_most - 2.0 * wide)
        holes = bolt_circle((inner_most + inner) / 4.0, making.rule("bolt-pitch"), d, "bolt")
        part = ring("seat-ring", making.plate, inner_most, inner, holes, rim_m=rim)
        return Seat(outside, part, holes, tuple(troubles))
    inner = outside + making.rule("push-fit")
    holes = bolt_circle((inner + wide) / 2.0, making.rule("bolt-pitch"), d, "bolt")
    part = ring("seat-ring", making.plate, inner + 2.0 * wide, inner, holes, rim_m=rim)
    return Seat(inner + 2.0 * wide, part, holes, tuple(troubles))
