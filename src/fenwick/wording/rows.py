"""A figure of a verdict: what it is against what it should be, with one sentence why."""

from __future__ import annotations

from dataclasses import dataclass

MARK = 0.66  #: where on its bar the limit of a figure stands [-]


@dataclass(frozen=True)
class VerdictRow:
    """One line of the verdict."""

    id: str
    title: str
    value: str
    unit: str
    level: str  #: ok, watch, act; empty where there is nothing to judge by
    filled: float | None  #: share of the bar [-]; None: no bar
    mark: float | None  #: where the limit stands on the bar [-]
    sentence: str


def bar(value: float, limit: float) -> tuple[float, float]:
    """(filled share, where the limit stands) of a figure's bar."""
    return min(1.0, MARK * min(value / limit, 10.0)) if limit > 0 else 1.0, MARK


def times(ratio: float) -> str:
    """A ratio as people say it."""
    return f"{ratio:.1f} ×" if ratio < 100 else "100+ ×"


def split(text: str) -> tuple[str, str]:
    """(number, unit) of a figure as text."""
    number, _, unit = text.partition(" ")
    return number, unit
