"""Parts that many designs share: discs and rings with their holes, tubes, wraps, cones, blocks, bins."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from math import ceil, cos, pi, sin

import numpy as np

from fenwick.core.formulas.pattern import cone_pattern
from fenwick.core.formulas.unrolled import pipe_cut_out, rectangle_cut_out, wall_angle, wrap_length
from fenwick.core.making.given import LEFT, Making
from fenwick.core.making.outlines import HAIR, Loop, circle, hole, rectangle, ring_sector
from fenwick.core.making.parts import BUY, Drill, MadePart, Round, SawnHole, Stock

HOLE_STEPS = 512  #: corners of an unrolled hole
MORE = 1e-9  #: below which lengths are alike [m]


def bolt_circle(radius: float, pitch: float, d: float, purpose: str, least: int = 3) -> tuple[Drill, ...]:
    """Holes evenly round a circle, the first at angle 0, no further apart than a pitch.

    Parameters
    ----------
    radius : of the circle [m]
    pitch : the furthest apart [m]
    d : of the holes [m]
    least : holes [-]
    """
    return bolts(radius, max(least, ceil(2.0 * pi * radius / pitch)), d, purpose)


def bolts(radius: float, count: int, d: float, purpose: str) -> tuple[Drill, ...]:
    """A number of holes evenly round a circle, the first at angle 0.

    Parameters
    ----------
    radius : of the circle [m]
    count : holes [-]
    d : of the holes [m]
    """
    turns = (2.0 * pi * i / count for i in range(count))
    return tuple(Drill(radius * cos(turn), radius * sin(turn), d, purpose) for turn in turns)


def disc(
    name: str,
    stock: Stock,
    diameter: float,
    *,
    holes: Sequence[SawnHole] = (),
    drills: tuple[Drill, ...] = (),
    rounds: tuple[Round, ...] = (),
    dims: Mapping[str, float] | None = None,
) -> MadePart:
    """A round disc with round holes.

    Parameters
    ----------
    diameter : [m]
    dims : measures besides its diameters [m]
    """
    edge = Round("edge", diameter / 2.0, "outside")
    sawn = tuple(Round(one.key, one.d / 2.0, "inside", x=one.x, y=one.y) for one in holes)
    sizes = {f"{one.key}_d_m": one.d for one in holes}
    loops = (circle(diameter / 2.0), *(hole(circle(one.d / 2.0, (one.x, one.y))) for one in holes))
    measures = {"d_m": diameter, **sizes, **(dims or {})}
    return MadePart(name, "disc", stock, measures, loops, drills=drills, rounds=(edge, *sawn, *rounds))


def ring(
    name: str, stock: Stock, wide: float, narrow: float, drills: tuple[Drill, ...] = (), **dims: float
) -> MadePart:
    """A flat ring.

    Parameters
    ----------
    wide : outer diameter [m]
    narrow : inner diameter [m]
    dims : measures besides its diameters [m]

    Raises
    ------
    ValueError
        When nothing is left between the two.
    """
    if narrow >= wide:
        raise ValueError(f"{name}: {narrow} m inside, {wide} m outside")
    rounds = (Round("edge", wide / 2.0, "outside"), Round("mouth", narrow / 2.0, "inside"))
    sizes = {"d_m": wide, "inner_d_m": narrow, **dims}
    loops = (circle(wide / 2.0), hole(circle(narrow / 2.0)))
    return MadePart(name, "ring", stock, sizes, loops, drills=drills, rounds=rounds)


def tube(name: str, making: Making, bore: float, length: float, side: str | None = None, **dims: float) -> MadePart:
    """A tube cut to length.

    Parameters
    ----------
    bore : inside diameter [m]
    length : [m]
    dims : measures besides its own [m]
    """
    sizes = {"length_m": length, "outer_d_m": tube_outside(making, bore), "bore_m": bore, **dims}
    return MadePart(name, "tube", making.tube, sizes, how=BUY, side=side)


def tube_outside(making: Making, bore: float) -> float:
    """Outside diameter of a tube [m].

    Parameters
    ----------
    bore : inside diameter [m]
    """
    return bore + 2.0 * making.tube.thickness


def bought(
    name: str, stands_for: str, count: int = 1, how: str = BUY, side: str | None = None, **dims: float
) -> MadePart:
    """Something that is bought or at hand.

    Parameters
    ----------
    count : pieces [-]
    dims : its measures, each in the unit that its name ends with [m]
    """
    return MadePart(name, "bought", Stock("", 0.0), dims, count=count, how=how, side=side, stands_for=stands_for)


def wrap(name: str, stock: Stock, inside: float, height: float, overlap: float, **dims: float) -> MadePart:
    """A sheet that is rolled to a cylinder, seen from what will be its outside.

    Parameters
    ----------
    inside : diameter [m]
    height : of the sheet [m]
    overlap : at its seam [m]
    dims : measures besides its own [m]
    """
    once = float(wrap_length(inside, stock.thickness))
    long = once + overlap
    sizes = {"length_m": long, "wrap_m": once, "overlap_m": overlap, "height_m": height, "inner_d_m": inside, **dims}
    creases = (np.array([(once, 0.0), (once, height)]),)
    return MadePart(name, "wrap", stock, sizes, (rectangle(long, height),), creases)


def cone(name: str, stock: Stock, wide: float, narrow: float, height: float, overlap: float) -> MadePart:
    """A sheet that is rolled to a cone; as wide below as above it is a cylinder.

    Parameters
    ----------
    wide : inside diameter above [m]
    narrow : inside diameter below [m]
    height : along its axis [m]
    overlap : at its seam [m]
    """
    if wide - narrow <= 2.0 * HAIR:
        return wrap(name, stock, wide, height, overlap)
    flat = cone_pattern(wide, narrow, height, stock.thickness)
    far, near, turn = float(flat.outer), float(flat.inner), float(flat.angle)
    sizes = {
        "top_d_m": wide, "bottom_d_m": narrow, "height_m": height, "overlap_m": overlap,
        "outer_radius_m": far, "inner_radius_m": near, "sector_deg": float(np.degrees(turn)), "slant_m": far - near,
        "half_angle_deg": float(np.degrees(np.arcsin(turn / (2.0 * pi)))),
    }  # fmt: skip
    begin = pi / 2.0 - turn / 2.0
    seam = np.array([(r * cos(begin), r * sin(begin)) for r in (near, far)])
    rounds = (Round("edge", far, "outside"), Round("mouth", near, "inside"))
    return MadePart(name, "cone", stock, sizes, (ring_sector(far, near, turn, overlap),), (seam,), rounds=rounds)


def panel(
    name: str, making: Making, width: float, height: float, *, side: str | None = None, count: int = 1, **dims: float
) -> MadePart:
    """A plain rectangle of sheet.

    Parameters
    ----------
    width : [m]
    height : [m]
    count : pieces [-]
    dims : measures besides its own [m]
    """
    sizes = {"width_m": width, "height_m": height, **dims}
    return MadePart(name, "panel", making.plate, sizes, (rectangle(width, height),), count=count, side=side)


def pipe_hole(outside_radius: float, offset: float, pipe_radius: float, at: tuple[float, float]) -> Loop:
    """The cut-out of a tangential pipe for a right-hand swirl, counter-clockwise.

    Parameters
    ----------
    outside_radius : of the wall, on which it is unrolled [m]
    offset : of the pipe's axis from the wall's [m]
    pipe_radius : outside [m]
    at : where the tangent generator meets the pipe's axis [m]
    """
    along, up = pipe_cut_out(outside_radius, offset, pipe_radius, _round_the_pipe(outside_radius, offset, pipe_radius))
    return np.column_stack((at[0] + along, at[1] + up))[::-1]


def _round_the_pipe(outside_radius: float, offset: float, pipe_radius: float) -> Loop:
    """Angles round the pipe at which its cut-out has a corner: where it meets the tangent generator it has one."""
    share = (outside_radius - offset) / pipe_radius
    if share >= 1.0:
        return np.asarray(np.linspace(-pi, pi, HOLE_STEPS, endpoint=False))
    meets = float(np.arccos(max(share, -1.0)))
    return np.asarray(np.linspace(meets, 2.0 * pi - meets, HOLE_STEPS))


def pipe_hole_length(outside_radius: float, offset: float, pipe_radius: float) -> float:
    """How far such a cut-out reaches along the wall [m].

    Parameters
    ----------
    outside_radius : of the wall [m]
    offset : of the pipe's axis from the wall's [m]
    pipe_radius : outside [m]
    """
    first, last = (float(wall_angle(outside_radius, offset, sign * pipe_radius)) for sign in (-1.0, 1.0))
    return outside_radius * (last - first)


def rectangle_hole(inside: float, thickness: float, size: tuple[float, float], at: tuple[float, float]) -> Loop:
    """The cut-out of a rectangular tangential inlet for a right-hand swirl, counter-clockwise.

    Parameters
    ----------
    inside : diameter of the wall [m]
    thickness : of the wall [m]
    size : height and width of the inlet [m]
    at : where the tangent generator meets the inlet's lower edge [m]
    """
    length = float(rectangle_cut_out(inside / 2.0 + thickness, inside, size[1]))
    return rectangle(length, size[0], at)


def handed(part: MadePart, making: Making) -> MadePart:
    """A part drawn for a right-hand swirl, as the hand that is wanted."""
    turned = part.mirrored() if making.swirl == LEFT else part
    return replace(turned, swirl=making.swirl)
