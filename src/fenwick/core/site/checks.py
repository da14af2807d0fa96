"""What the floor plan says of a line: hoses that snag, cords that are walked or rolled over."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.judging.check import ACT, WATCH, Check, fact
from fenwick.core.site.cords import CordCrossing

NOWHERE = "nowhere"  #: no side of a tool is free


@dataclass(frozen=True)
class SnaggingHose:
    """A hose of a line that comes where a head moves."""

    port: str  #: id of the tool port that it is of
    hose: str  #: what that tool is called
    head: str  #: what the tool is called whose head it is
    side: str | None  #: where a hose is out of the way


def floor_checks(hoses: Sequence[SnaggingHose], cord: CordCrossing | None) -> list[Check]:
    """Checks of a line by the floor plan.

    Parameters
    ----------
    hoses : that snag
    cord : where that of its vacuum is walked or rolled over; None: nowhere
    """
    found = [fact("snags", WATCH, one.port, (one.hose, one.head, one.side or NOWHERE)) for one in hoses]
    if cord is not None:
        nothing, how = np.full(1, np.nan), "wheels" if cord.over.wheels else "feet"
        level = np.array([ACT if cord.over.wheels else WATCH], dtype=np.intp)
        about = (cord.over.name, how)
        found.append(Check("cord-crossed", level, nothing, nothing, "length", "vacuum", about, cord.place))
    return found
