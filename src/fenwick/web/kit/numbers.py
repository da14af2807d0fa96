"""Numbers that the application itself puts into addresses and forms: an id, a place in a list, a factor."""

from __future__ import annotations

import math

MOST_DIGITS = 18  #: of a whole number that the database can hold


def whole(text: str) -> int:
    """A whole number; ValueError for any other text, and for one that nothing here could be numbered by."""
    digits = text.removeprefix("-")
    if not digits.isascii() or not digits.isdigit() or len(digits) > MOST_DIGITS:
        raise ValueError(text[:MOST_DIGITS])
    return int(text)


def real(text: str) -> float:
    """A finite number with a decimal point; ValueError for any other text."""
    value = float(text) if len(text) <= 2 * MOST_DIGITS else math.nan
    if not math.isfinite(value):
        raise ValueError(text[:MOST_DIGITS])
    return value
