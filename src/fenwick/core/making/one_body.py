"""The one-body build: the vacuum's head on a deck over the chamber, its filter inside, a drop pipe with a window."""

from __future__ import annotations

from dataclasses import replace
from math import ceil, pi, sqrt

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.chambers import OneBody
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.making.chamber import groove_dims, groove_rounds, plate_width, seat_of, slotted_floor
from fenwick.core.making.given import PAPER, Making
from fenwick.core.making.outlines import hole, rectangle
from fenwick.core.making.parts import HAVE, Drill, MadePart, MadeParts, SawnHole, Stock, Trouble
from fenwick.core.making.pieces import bought, disc, handed, tube, tube_outside, wrap
from fenwick.core.making.rims import bin_and_gasket, holes_apart

PITCH = 1.5  #: between the holes of a seat, in their diameters [-]
OPEN = pi / (2.0 * sqrt(3.0) * PITCH**2)  #: share of a plate that such holes open [-]


def one_body_parts(stage: OneBody, making: Making) -> MadeParts:
    """Head, deck, filter seat, wall, drop pipe, slotted disc, ring, bin."""
    troubles: list[Trouble] = [*_filter_room(stage, making)]
    seat = seat_of(stage, making)
    deck = deck_part(stage, making, troubles)
    high = one_value(stage.chamber_height)
    body = wrap("wall", making.wall, one_value(stage.chamber_diameter), high + 2.0 * making.groove, making.overlap)
    head = bought("head", "head", how=HAVE, side="vacuum")
    if stage.head_width is not None:
        head = replace(head, dims={"d_m": one_value(stage.head_width)})
    parts = [
        head,
        bought("head-gasket", "gasket", length_m=pi * deck.dims["d_m"], thickness_m=making.rule("gasket")),
        deck,
        filter_seat(stage, making, troubles),
        replace(body, side="tool"),
        *drop_pipe(stage, making, troubles),
        slotted_floor(stage, making, max(plate_width(stage, making), seat.floor), seat.bolts, troubles),
        seat.ring,
        *bin_and_gasket(stage.bin, making),
    ]
    return MadeParts(tuple(parts), (*troubles, *seat.troubles))


def _filter_room(stage: OneBody, making: Making) -> list[Trouble]:
    """A chamber that the filter hangs down to the disc in."""
    hangs, high = one_value(stage.outlet_length), one_value(stage.chamber_height)
    wanted = hangs + making.rule("filter-room")
    return [Trouble("filter-too-long", "wall", high, wanted)] if high < wanted else []


def deck_part(stage: OneBody, making: Making, troubles: list[Trouble]) -> MadePart:
    """The roof that carries the head: the filter goes through its middle, the drop pipe beside it."""
    pipe = tube_outside(making, one_value(stage.inlet_bore))
    chamber = one_value(stage.chamber_diameter)
    beside = chamber / 2.0 - making.rule("hole-land") - pipe / 2.0
    holes = [SawnHole("centre_hole", one_value(stage.outlet_diameter)), SawnHole("pipe_hole", pipe, y=beside)]
    head = 0.0 if stage.head_width is None else one_value(stage.head_width) + 2.0 * making.rule("land")
    wide = max(plate_width(stage, making), head)
    dims = groove_dims(stage, making)
    deck = disc("deck", making.plate, wide, holes=holes, rounds=groove_rounds(stage, making), dims=dims)
    troubles += holes_apart(holes, deck, making)
    return handed(deck, making)


def filter_seat(stage: OneBody, making: Making, troubles: list[Trouble]) -> MadePart:
    """A plate that the filter sits on, drilled with more open area than the hose has."""
    d, bore = making.rule("seat-hole"), one_value(stage.outlet_diameter)
    hose = float(bore_area(stage.inlet_bore))
    each = pi / 4.0 * d**2
    wanted = ceil(making.rule("seat-area") * hose / each)
    places = _hexagons(bore / 2.0 - d / 2.0 - making.rule("land") / 2.0, PITCH * d)[:wanted]
    area = len(places) * each
    if len(places) < wanted:
        needs = sqrt(wanted * each / OPEN / (pi / 4.0)) + d + making.rule("land")
        troubles.append(Trouble("seat-narrow", "filter-seat", bore, needs))
    drills = tuple(Drill(x, y, d, "air") for x, y in places)
    dims = {"holes": float(len(places)), "hole_d_m": d, "open_area_m2": area, "hose_area_m2": hose}
    return disc("filter-seat", making.plate, bore + 2.0 * making.rule("ring"), drills=drills, dims=dims)


def _hexagons(radius: float, pitch: float) -> list[tuple[float, float]]:
    """Places of a triangular grid within a circle, from the middle outwards."""
    reach = int(max(radius, 0.0) / pitch * 1.3) + 1
    rows, across = range(-reach, reach + 1), range(-2 * reach, 2 * reach + 1)
    places = [(pitch * (i + 0.5 * j), pitch * j * sqrt(3.0) / 2.0) for i in across for j in rows]
    inside = [at for at in places if np.hypot(*at) <= radius]
    return sorted(inside, key=lambda at: (round(float(np.hypot(*at)), 9), round(float(np.arctan2(at[1], at[0])), 9)))


def drop_pipe(stage: OneBody, making: Making, troubles: list[Trouble]) -> list[MadePart]:
    """The pipe that brings the dust in, and the paper that marks its side window, which looks along the wall."""
    bore, high = one_value(stage.inlet_bore), one_value(stage.chamber_height)
    outside = tube_outside(making, bore)
    area = float(bore_area(bore)) if stage.window_area is None else one_value(stage.window_area)
    wide = min(bore, 0.9 * outside)
    tall = area / wide
    turn = 2.0 * float(np.arcsin(wide / outside))  # of the pipe's outside that the window takes
    round_ = pi * outside
    long = high + making.plate.thickness + making.stub
    pipe = tube(
        "drop-pipe", making, bore, long, "tool", stub_m=making.stub, window_width_m=wide, window_height_m=tall,
        window_area_m2=area,
    )  # fmt: skip
    arc_long = turn * outside / 2.0
    land = making.rule("hole-land")
    if tall > high - 2.0 * land:
        troubles.append(Trouble("window-tall", "drop-pipe", tall, high - 2.0 * land))
    window = rectangle(arc_long, tall, ((round_ - arc_long) / 2.0, land))
    high = max(high, tall + 2.0 * land)
    sizes = {"width_m": round_, "height_m": high, "window_arc_m": arc_long, "window_height_m": tall}
    paper = MadePart(
        "window-template", "panel", Stock(PAPER, 0.0), sizes, (rectangle(round_, high), hole(window)), side="tool",
        stands_for="drop-pipe",
    )  # fmt: skip
    return [pipe, paper]
