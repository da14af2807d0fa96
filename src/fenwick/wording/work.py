"""Jobs in words: what they make, what they leave in the bin, and when it is full."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.hours.work import Done, Week, room_in_bin
from fenwick.wording.say import Voice

UNKNOWN = "not known"


@dataclass(frozen=True)
class JobWords:
    """A job in words."""

    makes: str  #: a week
    in_bin: str  #: left there each time
    full: str  #: how often until the bin is full


def job_words(one: Done, voice: Voice) -> JobWords:
    """What a job makes, leaves in the bin, and when that is full."""
    mass = one.mass_a_week
    makes = f"{voice.figure(mass, 'heap' if mass >= 0.995 else 'mass')} a week"
    in_bin = UNKNOWN if one.heap is None else f"{voice.figure(one.heap, 'volume')} {EACH[one.job.unit]}"
    return JobWords(makes, in_bin, _often(one))


EACH = {"hour": "an hour", "board": "a board", "cut": "a cut"}
MANY = {"hour": "h", "board": "boards", "cut": "cuts"}


def _often(one: Done) -> str:
    if one.until_full is None:
        return UNKNOWN
    count = f"{one.until_full:.1f}" if one.until_full < 99.5 else f"{one.until_full:.0f}"
    return f"{count} {MANY[one.job.unit]}"


def full_words(total: Week, voice: Voice) -> str:
    """When the bin is full to its mark; empty where that cannot be told."""
    line = next((one.line for one in total.jobs), None)
    left = room_in_bin(line) if line is not None else None
    if left is None or total.heap is None:
        return ""
    lasts = "" if total.bin_lasts is None else f" Emptied to the floor it lasts {total.bin_lasts:.1f} weeks."
    if left <= 0.0:
        return f"The bin is past the line to empty it by.{lasts}"
    return (
        f"The week leaves {voice.figure(total.heap, 'volume')} in the bin; {voice.figure(left, 'volume')} are left up "
        f"to the line to empty it by.{lasts}"
    )
