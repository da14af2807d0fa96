"""What was spent and saved, in words."""

from __future__ import annotations

import math

from fenwick.wording.logbook import span
from fenwick.wording.upkeep import money


def about(value: float, sign: str) -> str:
    """A sum that is only known about.

    Parameters
    ----------
    value : in the shop's money
    sign : of the shop's money
    """
    return money(value, sign) if abs(value) < 20.0 else f"{round(value, -1 if value >= 200.0 else 0):.0f} {sign}"


def paid_words(likely: float, low: float, high: float, days: float) -> str:
    """When the separator has paid for itself.

    Parameters
    ----------
    likely, low, high : from the log's beginning [d]; inf: never
    days : that the log covers so far [d]
    """
    if math.isnan(likely):
        return "Whether the separator has paid for itself cannot be told yet."
    if math.isinf(likely):
        return "At this rate the separator does not pay for itself: what filters and bags cost is too little to save."
    late = "it may never" if math.isinf(high) else f"{span(max(high, 1.0))} at the latest"
    band = (
        f"between {span(max(low, 1.0))} and {span(high)}" if math.isfinite(high) else f"{span(max(low, 1.0))}; {late}"
    )
    if likely <= days:
        return f"The separator paid for itself {span(max(likely, 1.0))} after the log begins (nine in ten: {band})."
    return (
        f"The separator will have paid for itself in {span(likely - days)} (nine in ten, from the beginning: {band})."
    )


def one_off_words(emptyings: float | None, litres: str, cleanings: float) -> str:
    """A job that comes once.

    Parameters
    ----------
    emptyings : of the bin [-]; None: that cannot be told
    litres : in the bin, in the user's units
    cleanings : of the filter, or new bags [-]
    """
    bins = "" if emptyings is None else f"{litres} in the bin: {_times(emptyings, 'emptying', 'emptyings')}; "
    return f"{bins}{_times(cleanings, 'cleaning of the filter', 'cleanings of the filter')}"


def _times(count: float, one: str, many: str) -> str:
    if count < 0.15:
        return f"hardly any {many}"
    if count < 0.75:
        return f"{100 * count:.0f} % of one {one}"
    whole = round(count)
    return f"about {whole} {one if whole == 1 else many}"
