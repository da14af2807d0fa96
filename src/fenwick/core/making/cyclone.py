"""A conical cyclone rolled from sheet over the lid of a bin; or one that is bought, and what it is mounted with."""

from __future__ import annotations

from dataclasses import replace
from math import ceil

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.making.given import Making
from fenwick.core.making.inlets import rectangular_inlet, round_inlet
from fenwick.core.making.outlines import hole
from fenwick.core.making.parts import Drill, MadePart, MadeParts, Round, SawnHole, Trouble
from fenwick.core.making.pieces import (
    bolt_circle,
    bought,
    cone,
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
from fenwick.core.making.rims import bin_and_gasket, bolt_hole, lid_part

BAND = 0.04  #: height of the band over the joint of barrel and cone [m]
MILLIMETRE = 1e-3


def cyclone_parts(stage: Cyclone, making: Making) -> MadeParts:
    """Roof, tube, barrel, inlet, cone, flange, the lid that it stands on with a ring under it."""
    s, t = stage.shape, making.cone.thickness
    body, narrow = one_value(s.body), one_value(s.dust_outlet)
    barrel_high, whole = one_value(s.cylinder), one_value(s.height)
    reach = one_value(s.outlet_length)
    parts: list[MadePart] = [
        tube(
            "outlet-tube", making, one_value(s.outlet), reach + making.plate.thickness + making.stub, "vacuum",
            reach_m=reach, stub_m=making.stub,
        ),
        cyclone_roof(making, body, one_value(s.outlet)),
        barrel(stage, making),
        *cyclone_inlet(stage, making),
    ]  # fmt: skip
    if whole - barrel_high > MILLIMETRE:
        parts += [
            wrap("band", making.cone, body + 2.0 * t, BAND, making.overlap),
            cone("cone", making.cone, body, narrow, whole - barrel_high, making.overlap),
        ]
    mounting, troubles = lid_mounting(stage, making, narrow + 2.0 * t, flange=True)
    return MadeParts((*parts, *mounting, *bin_and_gasket(stage.bin, making)), troubles)


def cyclone_roof(making: Making, body: float, outlet: float) -> MadePart:
    """The disc over the barrel, with its groove.

    Parameters
    ----------
    body : inside diameter of the barrel [m]
    outlet : bore of the outlet tube [m]
    """
    middle, half = (body + making.cone.thickness) / 2.0, _groove(making) / 2.0
    wide = ceil(round(2.0 * (middle + half + making.rule("land")) / MILLIMETRE, 6)) * MILLIMETRE
    grooves = (
        Round("groove-out", middle + half, "inside", through=False, depth=making.groove),
        Round("groove-in", middle - half, "outside", through=False, depth=making.groove),
    )
    dims = {"groove_radius_m": middle, "groove_width_m": 2.0 * half, "groove_depth_m": making.groove}
    holes = [SawnHole("centre_hole", tube_outside(making, outlet))]
    return disc("roof", making.plate, wide, holes=holes, rounds=grooves, dims=dims)


def _groove(making: Making) -> float:
    return making.cone.thickness + making.rule("groove-play")


def barrel(stage: Cyclone, making: Making) -> MadePart:
    """The upper, straight part, with the inlet's cut-out, seen from outside."""
    body, high = one_value(stage.shape.body), one_value(stage.shape.cylinder)
    flat = wrap("barrel", making.cone, body, high + making.groove, making.overlap, cylinder_height_m=high)
    tangent, t = flat.dims["wrap_m"] / 2.0, making.cone.thickness
    bore = making.chosen.round_bore
    if bore is None:
        size = inlet_size(stage)
        loop = rectangle_hole(body, t, size, (tangent, high - size[0]))
        dims = {"cut_out_m": float(np.ptp(loop[:, 0])), "cut_out_height_m": size[0]}
    else:
        radius, outside, offset = tube_outside(making, bore) / 2.0, body / 2.0 + t, (body - bore) / 2.0
        axis = max(high - radius, high / 2.0)
        loop = pipe_hole(outside, offset, radius, (tangent, axis))
        dims = {
            "cut_out_m": pipe_hole_length(outside, offset, radius), "cut_out_height_m": float(np.ptp(loop[:, 1])),
            "inlet_height_m": axis, "inlet_offset_m": offset,
        }  # fmt: skip
    sizes = {**flat.dims, **dims, "tangent_m": tangent}
    return handed(replace(flat, dims=sizes, outline=(*flat.outline, hole(loop)), side="tool"), making)


def inlet_size(stage: Cyclone) -> tuple[float, float]:
    """Height and width of a rectangular inlet [m]."""
    return one_value(stage.shape.inlet_height), one_value(stage.shape.inlet_width)


def cyclone_inlet(stage: Cyclone, making: Making) -> list[MadePart]:
    """Block and tube, or panels."""
    body = one_value(stage.shape.body)
    outside, bore = body / 2.0 + making.cone.thickness, making.chosen.round_bore
    if bore is None:
        return rectangular_inlet(making, inlet_size(stage), outside, body / 2.0)
    return round_inlet(making, outside, (body - bore) / 2.0, bore)


def lid_mounting(
    stage: Cyclone, making: Making, opening: float, *, flange: bool
) -> tuple[list[MadePart], tuple[Trouble, ...]]:
    """The lid with its hole and bolts, a ring under it that shares them, a flange over it, what is put between.

    Parameters
    ----------
    opening : diameter of the hole, the dust outlet's outside [m]
    """
    land, d = making.rule("hole-land"), bolt_hole(making)
    ring_wide = making.rule("ring")
    circle_d = opening + ring_wide + land
    drills: tuple[Drill, ...] = bolt_circle(circle_d / 2.0, making.rule("bolt-pitch"), d, "bolt", least=4)
    lid = lid_part(stage.bin, making, [SawnHole("centre_hole", opening)], drills)
    lid = replace(lid, dims={**lid.dims, "bolt_circle_d_m": circle_d})
    outer = circle_d + ring_wide + land
    troubles = [Trouble("hole-at-edge", "lid", lid.dims["d_m"] - outer, land)] if outer > lid.dims["d_m"] else []
    flange_parts = [ring("flange", making.plate, outer, opening, drills)] if flange else []
    backing = ring("backing-ring", making.plate, outer, opening, drills)
    seal = bought("flange-gasket", "gasket", length_m=np.pi * circle_d, thickness_m=making.rule("gasket"))
    screws = bought("bolts", "bolt", len(drills), d_m=making.rule("bolt"))
    return [*flange_parts, seal, lid, backing, screws], tuple(troubles)
