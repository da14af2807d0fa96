"""Curves over time with their names at the right: shared by the charts of air and ageing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

LINE = 15.5  #: between two names [px]


@dataclass(frozen=True)
class DrawnCurve:
    """A curve on the page; all in [px]."""

    key: str
    words: str
    points: list[tuple[float, float]]
    label: float  #: height of its name
    mark: tuple[float, float] | None  #: where something happens to it


def labels_apart(curves: Sequence[DrawnCurve], lowest: float) -> list[DrawnCurve]:
    """Curves whose names keep a line's distance, from the bottom up; none stands below `lowest` [px]."""
    labels: dict[str, float] = {}
    for curve in sorted(curves, key=lambda one: -one.label):
        labels[curve.key] = min(curve.label, lowest)
        lowest = labels[curve.key] - LINE
    return [replace(curve, label=labels[curve.key]) for curve in curves]
