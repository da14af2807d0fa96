"""The vacuum in words: other days, plates worth trying, and a fan that is starved."""

from __future__ import annotations

from fenwick.core.formulas.air import ZERO_CELSIUS
from fenwick.core.judging.cases import Day
from fenwick.core.line.line import Line
from fenwick.core.line.plates import HOLE, holes_worth_trying
from fenwick.units import format_value
from fenwick.wording.say import Voice


def case_words(case: Day, voice: Voice) -> str:
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
    """Plates worth trying, fewest holes first."""
    return [f"{count} × {voice.figure(HOLE, 'bore')}" for count in holes_worth_trying(line)]
