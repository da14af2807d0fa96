"""How loud two lines are to one telephone, in words: a difference only, never a level."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.rules import rule


@dataclass(frozen=True)
class Heard:
    """What a motor sounded like."""

    quiet: float  #: below the most that the telephone takes [dB]
    pitch: float | None  #: [Hz]
    day: str


def heard_words(first: str, second: str, one: Heard | None, other: Heard | None) -> str:
    """The second line beside the first; empty where not both were heard."""
    if one is None or other is None:
        return ""
    days = one.day if one.day == other.day else f"{one.day} and {other.day}"
    more = one.quiet - other.quiet
    if abs(more) < rule("phone.heard").value:
        said = f"“{second}” is as loud as “{first}”"
    else:
        said = f"“{second}” is {abs(more):.0f} dB {'louder' if more > 0.0 else 'quieter'} than “{first}”"
    if one.pitch is not None and other.pitch is not None:
        said += f", its motor at {other.pitch:.0f} Hz against {one.pitch:.0f}"
    return f"{said} ({days}). That holds for one telephone in one place; it is no sound level."
