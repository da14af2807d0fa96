"""Rings that no sheet at hand takes whole: sawn in segments that lap each other by half their thickness."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from math import cos, degrees, pi, sin

import numpy as np

from fenwick.core.making.bonds import WOOD
from fenwick.core.making.given import Making
from fenwick.core.making.layout import SheetStock, box_of, fits, of_stock
from fenwick.core.making.outlines import Loop, ring_sector
from fenwick.core.making.parts import MAKE, MadePart

FEWEST, MOST = 2, 8
SEGMENT = "-segment"  #: what the id of a ring's segment ends with


def with_segments(parts: Sequence[MadePart], at_hand: Sequence[SheetStock], making: Making) -> tuple[MadePart, ...]:
    """The parts, each ring followed by its segments where sheets at hand take those and not the whole ring.

    The ring stays: its template trues the glued-up segments.
    """
    found: list[MadePart] = []
    for part in parts:
        segment = _segment_of(part, at_hand, making)
        if segment is None:
            found.append(part)
        else:
            found += [replace(part, dims={**part.dims, "segments": float(segment.count)}), segment]
    return tuple(found)


def _segment_of(part: MadePart, at_hand: Sequence[SheetStock], making: Making) -> MadePart | None:
    """The segment that the fewest pieces of a ring need; None where it is cut whole, or a sheet must be bought."""
    if part.kind != "ring" or part.how != MAKE or part.stock.material not in WOOD:
        return None
    own, margin = of_stock(at_hand, part.stock), making.rule("margin")
    if not own or any(fits(part, sheet, margin) for sheet in own):
        return None
    pieces = (segment(part, n, making) for n in range(FEWEST, MOST + 1))
    return next((one for one in pieces if one and any(fits(one, sheet, margin) for sheet in own)), None)


def segment(ring: MadePart, count: int, making: Making) -> MadePart | None:
    """One of a ring's segments, with a line where each lap begins; None where the laps would meet.

    Parameters
    ----------
    count : of the ring [-]
    """
    far, near = ring.dims["d_m"] / 2.0, ring.dims["inner_d_m"] / 2.0
    lap = making.rule("splice") * ring.stock.thickness
    lapped = 2.0 * lap / (far + near)
    turn = 2.0 * pi / count + lapped
    if lapped >= pi / count:
        return None
    outline = (ring_sector(far, near, turn, 0.0),)
    marks = tuple(_across(far, near, pi / 2.0 + side * (turn / 2.0 - lapped)) for side in (-1.0, 1.0))
    plain = MadePart(f"{ring.id}{SEGMENT}", "panel", ring.stock, {}, outline, creases=marks, count=count)
    wide, high = box_of(plain)
    dims = {"width_m": wide, "height_m": high, "segment_deg": degrees(turn), "lap_m": lap}
    return replace(plain, dims=dims)


def _across(far: float, near: float, angle: float) -> Loop:
    return np.array([(r * cos(angle), r * sin(angle)) for r in (near, far)])
