"""What a check is: a figure against its limit, and how bad that is."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array

OK, WATCH, ACT = 0, 1, 2
LEVEL_WORDS = ("ok", "watch", "act")


@dataclass(frozen=True)
class Check:
    """One judgement; arrays of shape (n,). A check of facts alone has neither value nor limit: both are nan."""

    id: str
    level: npt.NDArray[np.intp]  #: index into LEVEL_WORDS
    value: Array
    limit: Array
    quantity: str  #: of value and limit, a key of the quantities; length is that of parts
    part: str | None = None  #: element it concerns
    about: tuple[str, ...] = ()  #: keys of what it is about, such as kinds of dust
    notes: tuple[float, ...] = ()  #: further figures for its words, SI


def graded(bad: npt.NDArray[np.bool_], doubtful: npt.NDArray[np.bool_]) -> npt.NDArray[np.intp]:
    """ACT where bad, WATCH where doubtful, OK elsewhere."""
    return np.where(bad, ACT, np.where(doubtful, WATCH, OK)).astype(np.intp)


def fact(name: str, level: int, part: str | None = None, about: tuple[str, ...] = ()) -> Check:
    """A check of facts alone.

    Parameters
    ----------
    level : OK, WATCH or ACT
    """
    nothing = np.full(1, np.nan)
    return Check(name, np.array([level], dtype=np.intp), nothing, nothing, "number", part, about)


def figure(
    name: str, bad: bool, doubtful: bool, value: float, limit: float, quantity: str, part: str | None = None,
    *notes: float,
) -> Check:  # fmt: skip
    """A check of one variant.

    Parameters
    ----------
    value : of the figure, in SI of its quantity
    limit : that it is held to, in the same unit
    notes : further figures that the sentence tells, in SI
    """
    level = graded(np.array([bad]), np.array([doubtful]))
    return Check(name, level, np.array([value]), np.array([limit]), quantity, part, notes=notes)
