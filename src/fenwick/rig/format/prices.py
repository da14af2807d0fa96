"""Prices given as ranges."""

from __future__ import annotations

from fenwick.rig.format.problems import refuse


def price_range(key: str, low: float | None, high: float | None) -> None:
    """Refuse, beside its key, the upper end of a price that has no lower end, or lies below it."""
    if high is None:
        return
    if low is None:
        refuse(key, "must be left out until the price itself is given")
    if high < low:
        refuse(key, "must not be below the price itself")
