"""A stored value as words, where it is shown beside another."""

from __future__ import annotations

from fenwick.units import format_value
from fenwick.web.kit.words import choice_word


def shown_value(value: object, quantity: str | None, system: str, key: str = "") -> str:
    """A number with its unit, a choice by its word, yes or no.

    Parameters
    ----------
    value : as it is stored; None: not known
    quantity : key of QUANTITIES; None: a plain number, or no number
    system : of units
    key : where it stands, below its part
    """
    if value is None:
        return "not known"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float):
        return format_value(float(value), quantity or "number", system, field=True, unit=True)
    return choice_word(key, str(value))
