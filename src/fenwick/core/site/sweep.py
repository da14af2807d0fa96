"""Where a tool's head swings or travels over the floor, what snags there, and the side that is free for a hose."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array, one_value
from fenwick.core.formulas.route import Block
from fenwick.core.rules import RuleBook
from fenwick.core.site.floor import FloorPoint

#: sides of a tool as they are called on the plan, the way they look
SIDES: dict[str, FloorPoint] = {"front": (0.0, -1.0), "back": (0.0, 1.0), "left": (-1.0, 0.0), "right": (1.0, 0.0)}
STEP = 0.02  #: a hose is looked at in steps of that [m]
BODY = 0.18  #: half the side of a tool on the floor [m]


@dataclass(frozen=True)
class HeadSweep:
    """A head that moves along the way its tool faces, there and back behind it."""

    id: str
    place: FloorPoint  #: middle of the tool [m]
    faces: str  #: key of `SIDES`
    travel: float  #: along that way [m]
    swing: float  #: how far out it reaches when it turns [m]
    angle: float  #: to either side of that way [rad]

    @property
    def ahead(self) -> Array:
        """The way it faces, of length 1."""
        return np.array(SIDES[self.faces])

    def reaches(self, points: Array) -> npt.NDArray[np.bool_]:
        """Which of some points [m], shape (n, 2), the head can come to.

        Parameters
        ----------
        points : shape (n, 2) [m]
        """
        off = points - np.array(self.place)
        along, across = np.abs(off @ self.ahead), np.abs(off @ np.array([-self.ahead[1], self.ahead[0]]))
        far = np.hypot(along, across)
        travels = (self.travel > 0.0) & (across < BODY) & (along < BODY + self.travel)
        swings = (self.swing > 0.0) & (far < self.swing) & (np.arctan2(across, along) < self.angle)
        return np.asarray((travels | swings) & (far > BODY))


def snags(sweep: HeadSweep, way: Array) -> bool:
    """Whether a hose over the floor comes where a head moves; right at the tool itself it may.

    Parameters
    ----------
    way : points [m], shape (k, 2)
    """
    legs = [
        np.linspace(start, end, max(2, int(np.ceil(np.hypot(*(end - start)) / STEP)))) for start, end in pairwise(way)
    ]
    return bool(legs) and bool(np.any(sweep.reaches(np.concatenate(legs))))


def free_side(
    sweep: HeadSweep, spot: FloorPoint | None, room: FloorPoint, blocks: Sequence[Block], rules: RuleBook
) -> str | None:
    """The side of a tool at which a hose is out of the head's way, the one towards the separator first.

    Parameters
    ----------
    spot : of the separator [m]; None where it has no place yet
    room : its width and depth [m]
    blocks : what stands about; what the tool stands on is in nobody's way
    rules : for the room that a hose wants
    """
    here = np.array(sweep.place)
    under = [block for block in blocks if not block.holds(here[None, :])[0]]
    wanted = np.zeros(2) if spot is None else np.array(spot) - here
    found, clear = [], one_value(rules["floor.beside"])
    for name, side in SIDES.items():
        out = here + np.array(side) * (BODY + clear * np.linspace(0.05, 1.0, 20)[:, None])
        inside = bool(np.all((out > 0.0) & (out < np.array(room))))
        if inside and not np.any(sweep.reaches(out)) and not any(np.any(block.holds(out)) for block in under):
            found.append((-float(np.array(side) @ wanted), name))
    return min(found)[1] if found else None
