"""An entry of the log in words."""

from __future__ import annotations

from fenwick.core.logbook.entries import FINDINGS, GRADED_AT, GRADES, KINDS, PIECES, SPENT_ON
from fenwick.logged.entry import Logged
from fenwick.units import format_value
from fenwick.wording.upkeep import hours, money

PLAIN = {"mass": "heap", "volume": "volume", "level": "bore", "suction": "suction", "kept": "share"}


def title_of(entry: Logged) -> str:
    """What was done."""
    if entry.kind in ("inspected", "renewed") and entry.thing in PIECES:
        return f"{KINDS[entry.kind].label}: {PIECES[entry.thing].lower()}"
    if entry.kind == "worked" and (entry.job or entry.thing):
        return entry.job or f"Worked at the {entry.thing[:1].lower()}{entry.thing[1:]}"
    if entry.kind == "spent" and entry.thing in SPENT_ON:
        return f"Spent money: {SPENT_ON[entry.thing].lower()}"
    if entry.kind == "wiped" and entry.thing in ("", "tank"):
        return "Wiped the vacuum's tank"
    if entry.kind == "wiped" and entry.thing in GRADED_AT:
        return f"Graded: {GRADED_AT[entry.thing].lower()}"
    return KINDS[entry.kind].label if entry.kind in KINDS else entry.kind


def details_of(entry: Logged, system: str, sign: str) -> list[str]:
    """What is said of it: figures in the units of a system, what was found."""
    found = []
    if entry.count is not None:
        found.append(f"{entry.count:g} times")
    if entry.hours is not None:
        found.append(hours(entry.hours))
    for key, quantity in PLAIN.items():
        value = getattr(entry, key)
        if value is not None:
            found.append(format_value(value, quantity, system, unit=True))
    found += _heard(entry)
    if entry.grade is not None and 0 <= entry.grade < len(GRADES):
        found.append(GRADES[round(entry.grade)])
    if entry.money is not None:
        found.append(money(entry.money, sign))
    finding = FINDINGS.get(KINDS[entry.kind].findings, {}).get(entry.finding) if entry.kind in KINDS else None
    if finding:
        found.append(f"{finding[:1].lower()}{finding[1:]}")
    if entry.kind in ("suction", "kept") and entry.thing:
        found.append(f"at {entry.thing}")
    return found


def _heard(entry: Logged) -> list[str]:
    found = [] if entry.pitch is None else [f"{entry.pitch:.1f} Hz"]
    return found if entry.quiet is None else [*found, f"{entry.quiet:.0f} dB below full"]
