"""How the dust is brought in: a tube in a block, a box of panels, a hole through a bin's wall, an elbow."""

from __future__ import annotations

from math import pi

import numpy as np

from fenwick.core.components.bins import Bin
from fenwick.core.making.given import BLOCK, PAPER, Making
from fenwick.core.making.outlines import arc, hole, outer, rectangle
from fenwick.core.making.parts import MadePart, Stock
from fenwick.core.making.pieces import bought, handed, panel, pipe_hole, pipe_hole_length, tube, tube_outside
from fenwick.core.making.rims import bin_wall


def inlet_block(making: Making, wall_radius: float, offset: float, bore: float, long: float) -> MadePart:
    """A block that carries the inlet tube, hollowed to lie against the wall; seen from above.

    Parameters
    ----------
    wall_radius : outside, that it lies against [m]
    offset : of the tube's axis from the wall's [m]
    bore : inside diameter of the tube [m]
    long : how far its hole is from the wall's axis to its outer face [m]
    """
    outside = tube_outside(making, bore) / 2.0
    land = making.rule("block-land")
    low, high = offset - outside - land, offset + outside + land
    reach = min(high, wall_radius)
    start, end = (float(np.arccos(np.clip(y / wall_radius, -1.0, 1.0))) for y in (reach, max(low, -wall_radius)))
    # the pipe comes from -x; the hollow runs from its upper end down to its lower one
    hollow = arc((0.0, 0.0), wall_radius, pi / 2.0 + start, end - start)
    corners = [hollow, np.array([(-long, max(low, -wall_radius)), (-long, high)])]
    if high > reach:
        corners.append(np.array([(0.0, high)]))
    loop = np.vstack(corners)
    high_ = 2.0 * (outside + land)
    sizes = {
        "hole_d_m": 2.0 * outside, "hole_axis_m": offset, "saddle_radius_m": wall_radius, "height_m": high_,
        "length_m": float(np.ptp(loop[:, 0])), "width_m": float(np.ptp(loop[:, 1])),
    }  # fmt: skip
    axis = np.array([(-long, offset), (float(loop[:, 0].max()), offset)])
    return handed(
        MadePart("inlet-block", "block", Stock(BLOCK, high_), sizes, (outer(loop),), (axis,), side="tool"), making
    )


def round_inlet(making: Making, outside: float, offset: float, bore: float) -> list[MadePart]:
    """Block and tube of a tangential inlet.

    Parameters
    ----------
    outside : radius of the wall that it lies against [m]
    offset : of its axis from the wall's [m]
    bore : [m]
    """
    radius = tube_outside(making, bore) / 2.0
    block = inlet_block(making, outside, offset, bore, long=outside)
    # from the block's outer face to where the tube has passed the wall all round, at the tangent generator
    long = outside + making.stub
    return [block, tube("inlet-tube", making, bore, long, side="tool", stub_m=making.stub, saddle_m=radius)]


def rectangular_inlet(making: Making, size: tuple[float, float], outside: float, inside: float) -> list[MadePart]:
    """Top and bottom, outer and inner side of a rectangular inlet, as panels.

    Parameters
    ----------
    size : height and width inside [m]
    outside : radius of the wall outside [m]
    inside : radius of the wall inside [m]
    """
    high, wide = size
    t = making.plate.thickness
    low = inside - wide
    start = float(np.arccos(min(low / outside, 1.0)))
    hollow = arc((0.0, 0.0), outside, pi / 2.0, start)
    plan = np.vstack((hollow, np.array([(-outside, low - t), (-outside, outside)])))
    plan = np.vstack((plan[: len(hollow)], np.array([(float(hollow[-1, 0]), low - t)]), plan[len(hollow) :]))
    sizes = {"length_m": outside, "width_m": float(np.ptp(plan[:, 1])), "saddle_radius_m": outside}
    floor = MadePart("inlet-plate", "panel", making.plate, sizes, (outer(plan),), count=2, side="tool")
    inner_long = outside - float(np.sqrt(max(outside**2 - low**2, 0.0)))
    return [
        handed(floor, making),
        panel("inlet-inner-side", making, max(inner_long, 2.0 * t), high, side="tool"),
        panel("inlet-outer-side", making, outside, high, side="tool"),
    ]


def elbow(name: str, bore: float, side: str) -> MadePart:
    """An elbow, bought.

    Parameters
    ----------
    bore : [m]
    """
    return bought(name, "elbow", side=side, bore_m=bore)


def wall_inlet(bin_: Bin, making: Making, bore: float, below_rim: float) -> list[MadePart]:
    """Block, tube and the paper that is wrapped round the bin to mark the cut-out.

    Parameters
    ----------
    bore : [m]
    below_rim : of the tube's axis [m]
    """
    inside = float(bin_.narrow_at(bin_.height - below_rim)) / 2.0
    outside = inside + bin_wall(bin_, making)
    offset = inside - bore / 2.0
    radius = tube_outside(making, bore) / 2.0
    long = pipe_hole_length(outside, offset, radius)
    margin = making.rule("block-land")
    high = below_rim + radius + margin
    at = (margin, high - below_rim)
    sizes = {
        "cut_out_m": long, "cut_out_height_m": 2.0 * radius, "below_rim_m": below_rim, "wall_radius_m": outside,
        "width_m": long + 2.0 * margin, "height_m": high,
    }  # fmt: skip
    loop = pipe_hole(outside, offset, radius, at)
    tangent = np.array([(margin, 0.0), (margin, high)])
    paper = MadePart(
        "wall-template", "panel", Stock(PAPER, 0.0), sizes, (rectangle(sizes["width_m"], high), hole(loop)),
        (tangent,), side="tool", stands_for="bin",
    )  # fmt: skip
    return [handed(paper, making), *round_inlet(making, outside, offset, bore)]
