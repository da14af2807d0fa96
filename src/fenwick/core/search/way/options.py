"""What a way is made of: changes with what each takes, and what may not be done together."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwick.core.rules import rule
from fenwick.core.search.changes import Candidate

EVENING, WEEKEND, USUAL_SPEND = (rule(f"way.{key}").value for key in ("evening", "weekend", "spend"))


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
    clears: int = 0  #: figures to act on that it clears, and that no air tells
    still: bool = False  #: whether it changes nothing in the air
    wide: bool = False  #: whether every port feels it, whatever part it is made to

    @property
    def apart(self) -> bool:
        """Whether the line is made anew for it."""
        return not self.candidates and not self.still


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


def excluded(options: Sequence[WayOption]) -> list[int]:
    """For each option those that cannot be done beside it, itself included, as bits at their places."""
    shut = []
    for mine in options:
        mask = 0
        for at, other in enumerate(options):
            if other.slot == mine.slot or not set(other.uses).isdisjoint(mine.uses):
                mask |= 1 << at
        shut.append(mask)
    return shut
