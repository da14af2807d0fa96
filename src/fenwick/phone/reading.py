"""What was read off a photo or a recording."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

import numpy as np

from fenwick.core.arrays import Array

GREY, SQUARES, DEPTH, TUBE, PITCH = "grey", "squares", "depth", "tube", "pitch"
UNITS = {GREY: "grade 0–5", SQUARES: "squares", DEPTH: "mm", TUBE: "mm", PITCH: "Hz"}


WATER_MM = 9.80665  #: pressure of a millimetre of water [Pa]


@dataclass(frozen=True)
class Overlay:
    """Something to draw over a picture, so that one sees what was seen."""

    points: Array  #: in the picture, shape (n, 2) [px]
    closed: bool = True
    role: str = "sheet"  #: sheet, thing or level


@dataclass(frozen=True)
class PhoneReading:
    """A reading with its band, or the sentence that says why there is none."""

    kind: str
    value: float | None
    low: float | None
    high: float | None
    seen: dict[str, Any] = field(default_factory=dict)
    drawn: tuple[Overlay, ...] = ()
    refused: str | None = None

    @property
    def unit(self) -> str:
        """Of value and band."""
        return UNITS[self.kind]


def refusal(kind: str, sentence: str, drawn: tuple[Overlay, ...] = ()) -> PhoneReading:
    """No reading, and why."""
    return PhoneReading(kind, None, None, None, {}, drawn, sentence)


def outline(middle: tuple[float, float], radius: float) -> Array:
    """A circle to draw, shape (32, 2) [px].

    Parameters
    ----------
    middle, radius : [px]
    """
    turns = np.linspace(0.0, 2.0 * np.pi, 32, endpoint=False)
    return np.asarray(middle) + radius * np.column_stack([np.cos(turns), np.sin(turns)])
