"""What the texts of a run mean: figures in SI by their keys, and what is wrong with the others."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fenwick.core.bench.trials.outcome import GRADES
from fenwick.core.bench.trials.plan import WAYS, Ask, Plan
from fenwick.units import SYSTEMS, BadNumberError, format_value, parse_value

#: most that can be read of a quantity; SI
MOST = {
    "weighed": 500.0, "bore": 5.0, "volume": 1.0, "suction": 60e3, "force": 5e3, "number": 1e5, "particles": 1.0,
    "share": 1.0,
}  # fmt: skip


@dataclass(frozen=True)
class Entry:
    """One text as it was typed, or as a device sent it."""

    text: str
    system: str  #: of units it was typed in
    source: str = ""  #: name of the device; empty: typed


def text_in(entry: Entry, ask: Ask, system: str) -> str:
    """An entry as this system of units shows it; as typed where it is the same one, or cannot be read."""
    if ask.choices or entry.system == system or entry.system not in SYSTEMS or not entry.text.strip():
        return entry.text
    try:
        value = parse_value(entry.text, ask.quantity, entry.system)
    except BadNumberError:
        return entry.text
    return format_value(value, ask.quantity, system, field=True)


def value_of(text: str, ask: Ask, system: str) -> float:
    """What a text means.

    Raises
    ------
    BadNumberError
        When it is no number, or one that cannot be.
    """
    if ask.choices:
        if text not in ask.choices:
            raise BadNumberError(text, "Choose one of the answers.")
        return float(ask.choices.index(text))
    value = parse_value(text, ask.quantity, system)
    if value < 0.0:
        raise BadNumberError(text, "Cannot be below 0.")
    if value > MOST[ask.quantity]:
        most = format_value(MOST[ask.quantity], ask.quantity, system, field=True, unit=True)
        raise BadNumberError(text, f"More than can be ({most}): check the figure and its unit.")
    if ask.key == "grade" and value not in range(GRADES[0], GRADES[1] + 1):
        raise BadNumberError(text, f"A whole grade from {GRADES[0]} (clean) to {GRADES[1]} (black).")
    return value


def run_values(plan: Plan, entries: Mapping[str, Entry]) -> tuple[dict[str, float], dict[str, str]]:
    """(figures in SI, what is wrong with the texts that are none), both by the keys of the way's asks."""
    values: dict[str, float] = {}
    wrong: dict[str, str] = {}
    for ask in WAYS[plan.way].asks:
        entry = entries.get(ask.key)
        if entry is None or not entry.text.strip():
            continue
        try:
            values[ask.key] = value_of(entry.text, ask, entry.system)
        except BadNumberError as error:
            wrong[ask.key] = str(error)
    return values, wrong
