"""What is wrong with an entry, field by field; form, table and file are told the same."""

from __future__ import annotations

import math
from datetime import datetime, timedelta

from fenwick.core.logbook.entries import BOUNDS, FINDINGS, GRADED_AT, KINDS, MOST_WORDS, QUANTITIES, EntryKind
from fenwick.logged.entry import Logged
from fenwick.rig.format.problems import Problem

MOST_NAME = 60  #: characters of what an entry is about
LEEWAY = timedelta(minutes=10)  #: clocks of a phone and a shop may differ
LONG_AGO = timedelta(days=40 * 365)
NAMES = {
    "level": "the level", "volume": "the litres", "mass": "the weight", "hours": "the hours", "count": "the number",
    "money": "the sum", "suction": "the suction", "kept": "the share", "grade": "the grade",
    "pitch": "the pitch", "quiet": "the loudness", "words": "a few words",
}  # fmt: skip


def problems_of(entry: Logged, now: datetime) -> list[Problem]:
    """Everything that is wrong with an entry.

    Parameters
    ----------
    entry : as it was given
    now : by the shop's clock
    """
    kind = KINDS.get(entry.kind)
    if kind is None:
        return [Problem("kind", f"there is no such entry as “{entry.kind[:30]}”")]
    return [*_of_time(entry, now), *_of_words(entry, kind), *_of_amounts(entry, kind)]


def _of_time(entry: Logged, now: datetime) -> list[Problem]:
    if entry.at > now + LEEWAY:
        return [Problem("at", "lies in the future: the log says what was done")]
    if entry.at < now - LONG_AGO:
        return [Problem("at", "lies more than forty years back: was the year mistyped?")]
    return []


def _of_words(entry: Logged, kind: EntryKind) -> list[Problem]:
    found = []
    if len(entry.words) > MOST_WORDS:
        found.append(Problem("words", f"takes at most {MOST_WORDS} characters (got {len(entry.words)})"))
    if entry.kind == "wiped" and entry.thing and entry.thing not in GRADED_AT:
        found.append(Problem("thing", f"is no place that is graded: {', '.join(GRADED_AT)}"))
    for key in ("thing", "job"):
        if len(getattr(entry, key)) > MOST_NAME:
            found.append(Problem(key, f"takes at most {MOST_NAME} characters"))
    if entry.finding and entry.finding not in FINDINGS.get(kind.findings, {}):
        found.append(Problem("finding", f"is none of this entry: “{entry.finding[:30]}”"))
    if kind.needs == "words" and not entry.words.strip():
        found.append(Problem("words", "are missing: they are all that such an entry says"))
    return found


def _of_amounts(entry: Logged, kind: EntryKind) -> list[Problem]:
    found = []
    for key, (least, most) in BOUNDS.items():
        value = getattr(entry, key)
        if value is None:
            continue
        quantity = QUANTITIES[key]
        if key not in kind.amounts:
            found.append(Problem(key, "says nothing in such an entry"))
        elif not math.isfinite(value):
            found.append(Problem(key, "must be a number"))
        elif value < least:
            found.append(Problem(key, "must be {limit} or more", least, value, quantity))
        elif value > most:
            found.append(Problem(key, "must be {limit} or less", most, value, quantity))
    if kind.needs in BOUNDS and getattr(entry, kind.needs) is None:
        found.append(Problem(kind.needs, f"is missing: without {NAMES[kind.needs]} such an entry says nothing"))
    return found
