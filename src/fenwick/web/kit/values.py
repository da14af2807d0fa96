"""A stored value as words, where it is shown beside another."""

from __future__ import annotations

from fenwick.units import format_value
from fenwick.web.kit.words import choice_word

WORDED = ("wall", "entry", "closure", "material", "machine", "dust.kind", "filter.kind", "style", "medium", "release")


def shown_value(value: object, quantity: str | None, system: str) -> str:
    """A number with its unit, a choice by its word, yes or no.

    Parameters
    ----------
    value : as it is stored; None: not known
    quantity : key of QUANTITIES; None: a plain number, or no number
    system : of units
    """
    if value is None:
        return "not known"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float):
        return format_value(float(value), quantity or "number", system, field=True, unit=True)
    words = (choice_word(key, str(value)) for key in WORDED)
    return next((word for word in words if word != value), str(value))
