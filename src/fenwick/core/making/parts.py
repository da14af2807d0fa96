"""What a design is made of: parts with their outlines and holes, what is amiss with them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

import numpy as np

from fenwick.core.making.outlines import Loop, hole, mirrored

MAKE, BUY, HAVE = "make", "buy", "have"
TOOL_SIDE, VACUUM_SIDE = "tool", "vacuum"
FLAT = ("disc", "ring", "wrap", "cone", "panel", "block")  #: kinds that have an outline


@dataclass(frozen=True)
class Stock:
    """What a part is cut from."""

    material: str
    thickness: float  #: of sheet; of a tube its wall [m]


@dataclass(frozen=True)
class Drill:
    """A hole that a bit makes."""

    x: float  #: [m]
    y: float  #: [m]
    d: float  #: [m]
    purpose: str  #: what goes through: bolt, rod, screw, air, relief, trace


@dataclass(frozen=True)
class SawnHole:
    """A round hole that is sawn or turned."""

    key: str  #: what it is for, a key of the edges
    d: float  #: [m]
    x: float = 0.0  #: [m]
    y: float = 0.0  #: [m]


@dataclass(frozen=True)
class Round:
    """A round edge that is turned on a pivot or sawn with a hole saw."""

    key: str  #: which of the part's edges
    radius: float  #: [m]
    waste: str  #: inside or outside of it
    through: bool = True
    depth: float = 0.0  #: of a groove or rabbet [m]
    x: float = 0.0  #: its pivot [m]
    y: float = 0.0  #: [m]


@dataclass(frozen=True)
class MadePart:
    """One part of a design."""

    id: str
    kind: str  #: disc, ring, wrap, cone, tube, block, panel or bought
    stock: Stock
    dims: Mapping[str, float]  #: named measures, in m, m^2, rad, or pieces
    outline: tuple[Loop, ...] = ()  #: the outer loop, then its holes
    creases: tuple[Loop, ...] = ()  #: lines to bend or to mark along
    drills: tuple[Drill, ...] = ()
    rounds: tuple[Round, ...] = ()
    count: int = 1
    how: str = MAKE
    swirl: str | None = None  #: left or right, where it has a hand
    side: str | None = None  #: which side of the line it is on: tool or vacuum
    stands_for: str | None = None  #: what a bought thing or a paper template is of

    def mirrored(self) -> MadePart:
        """The same part of the other hand."""
        middle = 0.0
        if self.kind in ("wrap", "panel", "block") and self.outline:
            middle = float(np.max(self.outline[0][:, 0]) + np.min(self.outline[0][:, 0])) / 2.0
        first, *holes = self.outline or (None,)
        loops = () if first is None else (mirrored(first, middle), *(hole(mirrored(one, middle)) for one in holes))
        return replace(
            self,
            outline=loops,
            creases=tuple(mirrored(line, middle) for line in self.creases),
            drills=tuple(replace(one, x=2.0 * middle - one.x) for one in self.drills),
            rounds=tuple(replace(one, x=2.0 * middle - one.x) for one in self.rounds),
        )


@dataclass(frozen=True)
class Trouble:
    """What is amiss with a part or a design, and how much."""

    key: str
    part: str | None = None
    value: float | None = None
    limit: float | None = None
    detail: str = ""
    stops: bool = False  #: whether the part is left out for it


@dataclass(frozen=True)
class MadeParts:
    """The parts of a design, in the order of the stack from the top down, and what is amiss."""

    parts: tuple[MadePart, ...]
    troubles: tuple[Trouble, ...] = field(default=())

    def get(self, name: str) -> MadePart | None:
        """The part of that id."""
        return next((part for part in self.parts if part.id == name), None)
