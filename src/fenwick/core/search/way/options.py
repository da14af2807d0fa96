"""What a way is made of: changes with what each takes, and what may not be done together."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from fenwick.core.search.changes import Candidate


@dataclass(frozen=True)
class WayOption:
    """One change that a way may have."""

    key: str  #: that it is known by
    part: str  #: id of what it is made to
    slot: str  #: of the options in one slot at most one is done
    cost: float  #: in the shop's money
    hours: float  #: hands-on [h]
    candidates: tuple[Candidate, ...] = ()  #: as numbers of a line; empty: the line is made anew for it
    uses: tuple[str, ...] = ()  #: things of the shop that it takes
    tools: tuple[str, ...] = ()  #: for making it, that the shop has not
    alike: str = ""  #: options for which the line is made anew alike, such as one that is made or bought

    @property
    def apart(self) -> bool:
        """Whether the line is made anew for it."""
        return not self.candidates


@dataclass(frozen=True)
class WayLimits:
    """What a way must keep to; None: no limit."""

    cost: float | None = None  #: in the shop's money
    hours: float | None = None  #: [h]
    changes: int = 6  #: at most

    def allows(self, cost: float, hours: float) -> bool:
        """Whether so much money and time is within them.

        Parameters
        ----------
        cost : [money]
        hours : [h]
        """
        return (self.cost is None or cost <= self.cost + 1e-9) and (self.hours is None or hours <= self.hours + 1e-9)


def go_together(options: Sequence[WayOption], chosen: Iterable[int], new: int) -> bool:
    """Whether an option can be done beside those chosen, by their places.

    Parameters
    ----------
    chosen : places of options [-]
    new : place of the one that is added [-]
    """
    mine = options[new]
    for at in chosen:
        other = options[at]
        if other.slot == mine.slot or set(other.uses) & set(mine.uses):
            return False
    return True
