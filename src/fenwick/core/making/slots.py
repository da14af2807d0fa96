"""Slots in a disc: as they are cut, and what is left between them."""

from __future__ import annotations

from collections.abc import Sequence
from math import pi

from fenwick.core.arrays import one_value
from fenwick.core.components.separator import Slot, slot_land
from fenwick.core.formulas.unrolled import round_slot_area
from fenwick.core.making.given import Making
from fenwick.core.making.outlines import Loop, round_slot
from fenwick.core.making.parts import Trouble

DISC = "slotted-disc"
WHOLE = 2.0 * pi - 1e-9  #: an arc that leaves nothing [rad]


def slot_area(slot: Slot, radius: float) -> float:
    """Of a slot as it is cut, its ends half circles [m^2].

    Parameters
    ----------
    radius : of its outer edge [m]
    """
    return float(round_slot_area(radius, one_value(slot.width), one_value(slot.arc)))


def slot_loops(slots: Sequence[Slot], radius: float, making: Making, troubles: list[Trouble]) -> list[Loop]:
    """Outlines of the slots for a right-hand swirl; those that cannot be are told and left out.

    Parameters
    ----------
    radius : of their outer edges [m]
    """
    loops = []
    for i, slot in enumerate(slots):
        trouble = slot_trouble(slots, i, radius, making)
        if trouble is not None:
            troubles.append(trouble)
        if trouble is None or not trouble.stops:
            loops.append(round_slot(radius, one_value(slot.width), *slot_span(slot)))
    return loops


def slot_span(slot: Slot) -> tuple[float, float]:
    """(angle of its later end counter-clockwise from x, turn) for a right-hand swirl [rad].

    A slot starts at the tangent generator, y, and turns with the swirl, clockwise.
    """
    turn = one_value(slot.arc)
    return pi / 2.0 - one_value(slot.start) - turn, turn


def slot_trouble(slots: Sequence[Slot], i: int, radius: float, making: Making) -> Trouble | None:
    """What is amiss with one of the slots; None: nothing.

    Parameters
    ----------
    i : its place among them [-]
    radius : of their outer edges [m]
    """
    slot = slots[i]
    width, turn = one_value(slot.width), one_value(slot.arc)
    if turn >= WHOLE:
        return Trouble("slot-all-round", DISC, stops=True)
    long = turn * (radius - width / 2.0)
    if long < width:
        return Trouble("slot-short", DISC, long, width, stops=True)
    others = (*slots[:i], *slots[i + 1 :])
    least = min([slot_land((slot,), radius), *(slot_land((slot, other), radius) for other in others)])
    if least <= 0.0:
        return Trouble("slots-overlap", DISC, -least, 0.0, stops=True)
    land = making.rule("slot-land")
    return Trouble("slot-land", DISC, least, land) if least < land else None
