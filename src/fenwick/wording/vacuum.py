"""The vacuum in words: other days, plates worth trying, and a fan that is starved."""

from __future__ import annotations

import numpy as np

from fenwick.core.formulas.air import ZERO_CELSIUS
from fenwick.core.formulas.fan import hole_plate_flow
from fenwick.core.line.cases import Case
from fenwick.core.line.line import Line
from fenwick.units import format_value
from fenwick.wording.say import Voice

HOLE = 0.02  #: a hole that every drill box can make [m]
PLAN_SHARES = (0.15, 0.35, 0.55, 0.75)  #: of the open flow, where a reading tells most


def case_words(case: Case, voice: Voice) -> str:
    """A case as the heading of its row."""
    match case.key:
        case "hot" if case.temperature is not None:
            return f"A hot day, {format_value(case.temperature - ZERO_CELSIUS, 'temperature', voice.system, unit=True)}"
        case "high" if case.altitude is not None:
            return f"At {voice.figure(case.altitude, 'altitude')}"
        case "worn":
            return f"A worn motor, {100 * case.speed:.0f} % of its speed"
        case "caked" if case.filter_load is not None:
            return f"A caked filter, {1000 * case.filter_load:.0f} g on each m²"
        case _:
            return "As it is today"


def hole_plan(line: Line, voice: Voice) -> list[str]:
    """Plates that spread the readings over the curve as it is believed to be, fewest holes first."""
    density = float(np.max(line.site.density))
    curve = line.vacuum.curve
    said = []
    seen: set[int] = set()
    for share in PLAN_SHARES:
        flow = share * float(np.max(curve.open_flow))
        suction = float(np.max(curve.suction(flow, density)))
        count = round(flow / float(hole_plate_flow(HOLE, 1, suction, density)))
        if count >= 1 and count not in seen:
            seen.add(count)
            said.append(f"{count} × {voice.figure(HOLE, 'bore')}")
    return said
