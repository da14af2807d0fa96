"""The two sizes a picture comes in."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Canvas:
    """The picture's size [px] and whether there is room for labels."""

    width: float
    height: float
    labels: bool


WIDE = Canvas(852.0, 282.0, True)
NARROW = Canvas(360.0, 236.0, False)
