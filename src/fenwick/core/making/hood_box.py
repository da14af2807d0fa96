"""A box round a tool: panels with their openings, doors that slide in rails, the hole for the port."""

from __future__ import annotations

import numpy as np

from fenwick.core.components.box import SIDES, BoxDoor, HoodBox
from fenwick.core.making.given import Making
from fenwick.core.making.outlines import Loop, circle, hole, rectangle
from fenwick.core.making.parts import MadePart, MadeParts, Trouble
from fenwick.core.making.pieces import bought, panel, tube, tube_outside

PORT_SIDE = "back"


def hood_parts(box: HoodBox, bore: float, making: Making) -> MadeParts:
    """Panels, doors, rails, the port's tube.

    Parameters
    ----------
    bore : of the port [m]
    """
    troubles: list[Trouble] = []
    walls = [_wall(box, side, bore, making, troubles) for side in SIDES]
    doors = [part for i, door in enumerate(box.doors) for part in _door(door, i, making)]
    port = tube("port-tube", making, bore, making.plate.thickness + 2.0 * making.stub, "vacuum", stub_m=making.stub)
    seal = [bought("door-seal", "brush-strip", length_m=sum(2.0 * (d.width + d.height) for d in box.doors))]
    return MadeParts((*walls, *doors, port, *(seal if box.doors else [])), tuple(troubles))


def _wall(box: HoodBox, side: str, bore: float, making: Making, troubles: list[Trouble]) -> MadePart:
    """One side with what is cut out of it, side by side along its lower edge; the top and the sides lap the rest."""
    t = making.plate.thickness
    wide, high = box.face(side)
    wide += 2.0 * t if side in ("front", "back", "top") else 0.0
    high += 2.0 * t if side == "top" else 0.0
    openings = [(p.width, p.height) for p in box.passages if p.side == side]
    openings += [(d.width, d.height) for d in box.doors if d.side == side]
    holes, at = [], 0.0
    land = making.rule("hole-land")
    total = sum(w for w, _ in openings) + land * max(len(openings) - 1, 0)
    name = f"{side}-panel"
    if total > wide - 2.0 * (t + land) + 1e-9 or any(h > high - t - land + 1e-9 for _, h in openings):
        troubles.append(Trouble("openings-too-wide", name, total, wide - 2.0 * (t + land)))
        openings = []
    at = (wide - total) / 2.0
    for w, h in openings:
        holes.append(rectangle(w, h, (at, t)))
        at += w + land
    if side == PORT_SIDE:
        holes += _port_hole(holes, wide, high, tube_outside(making, bore), land, name, troubles)
    plain = panel(name, making, wide, high)
    return MadePart(name, "panel", plain.stock, plain.dims, (*plain.outline, *(hole(loop) for loop in holes)))


def _port_hole(
    others: list[Loop], wide: float, high: float, d: float, land: float, name: str, troubles: list[Trouble]
) -> list[Loop]:
    """In the middle, above what else is cut out."""
    over = max((float(np.max(loop[:, 1])) for loop in others), default=0.0)
    room = high - over - 2.0 * land
    if room < d:
        troubles.append(Trouble("no-room-for-port", name, room, d))
        return []
    return [circle(d / 2.0, (wide / 2.0, over + land + room / 2.0))]


def _door(door: BoxDoor, i: int, making: Making) -> list[MadePart]:
    """The door laps its opening all round and slides sideways between two rails."""
    lap, rail = making.rule("door-lap"), making.rule("rail")
    wide, high = door.width + 2.0 * lap, door.height + 2.0 * lap
    return [
        panel(f"door-{i + 1}", making, wide, high),
        panel(f"rail-{i + 1}", making, 2.0 * wide, rail, count=2, lap_m=lap),
    ]
