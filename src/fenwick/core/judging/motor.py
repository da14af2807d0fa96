"""What starves, fouls or wets a motor, who wired it, and what of it is not judged. The first variant."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.wet import WetStage
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import ACT, OK, WATCH, Check, fact, figure
from fenwick.core.line.line import Line

WIRED: dict[str | None, int] = {"rewired": ACT, "rewired-tested": OK}  #: how bad that is; the rest says nothing


def motor_checks(line: Line, found: Assessment) -> list[Check]:
    """Cooling air, dust through the motor, water, rain, wiring; how loud it is, is not judged."""
    air = [*_starved(line, found), *_dusty(line), *_fan_motors(line)]
    return [*air, *_wiring(line), *_water(line), *_rain(line), fact("noise-not-judged", OK, "vacuum")]


def _starved(line: Line, found: Assessment) -> list[Check]:
    """Air through the vacuum against its open flow; a motor with air of its own does not mind."""
    share = float(found.point.mass_flow[0] / found.point.room_density[0] / np.max(line.vacuum.curve.open_flow))
    least = one_value(line.rules["motor.cooling"])
    own = line.vacuum.own_cooling is True
    blocked = one_value(line.rules["motor.blocked"])
    near = one_value(line.rules["motor.near"]) * least
    return [figure("motor-starved", share < least and not own, share < near, share, least, "share", "vacuum", blocked)]


def _dusty(line: Line) -> list[Check]:
    """Neither filter nor bag before the motor: what passes the separator goes through it."""
    if line.vacuum.filter is not None or line.vacuum.bag is not None:
        return []
    return [fact("motor-dusty", WATCH if line.vacuum.own_cooling else ACT, "vacuum")]


def _fan_motors(line: Line) -> list[Check]:
    """An extra fan stands ahead of its own filter: whether its motor stands in that dusty air."""
    found = []
    for leaf in line.leaves:
        fan = leaf.port.hood.extra_fan if leaf.port.hood else None
        if fan is not None and leaf.open:
            level = {True: ACT, False: OK, None: WATCH}[fan.motor_in_air]
            found.append(fact("fan-motor", level, leaf.id))
    return found


def _wiring(line: Line) -> list[Check]:
    """Whatever was rewired, until somebody has tested it."""
    found = []
    if line.vacuum.wiring in WIRED:
        found.append(fact("rewired", WIRED[line.vacuum.wiring], "vacuum"))
    for leaf in line.leaves:
        fan = leaf.port.hood.extra_fan if leaf.port.hood else None
        if fan is not None and fan.wiring in WIRED:
            found.append(fact("rewired-fan", WIRED[fan.wiring], leaf.id))
    return found


def _water(line: Line) -> list[Check]:
    if not any(isinstance(stage, WetStage) for stage in line.stages):
        return []
    takes = line.vacuum.takes_water
    return [fact("water", OK if takes else WATCH if takes is None else ACT, "vacuum")]


def _rain(line: Line) -> list[Check]:
    outdoors = line.site.outdoors or any(leaf.port.outdoors for leaf in line.leaves if leaf.open)
    return [fact("rain", WATCH, "vacuum")] if outdoors else []
