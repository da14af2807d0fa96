"""Rigs solved once each, however many ask."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from fenwick.core.doubt.uncertainty import LineSureness, sureness
from fenwick.core.judging.alone import Alone, each_alone
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.line.line import Line
from fenwick.rig import Rig, build_line


@dataclass(frozen=True)
class Solved:
    """A rig as the core has it, and what it comes to; a single variant."""

    line: Line
    found: Assessment

    @property
    def first_open(self) -> int:
        """Place among the leaves of the port to look at first."""
        return next((i for i, leaf in enumerate(self.line.leaves) if leaf.open), 0)


@lru_cache(maxsize=128)
def solve(rig: Rig) -> Solved:
    """What a rig comes to, worked out once for each: rigs are immutable, and every page asks for the same few.

    Raises
    ------
    CoreError
        When it cannot be solved.
    """
    line = build_line(rig)
    return Solved(line, assess(line))


@lru_cache(maxsize=64)
def alone_of(rig: Rig) -> Alone:
    """Every port of a rig open alone, likewise."""
    return each_alone(solve(rig).line)


@lru_cache(maxsize=64)
def sureness_of(rig: Rig) -> LineSureness:
    """The bands of what a rig's stages keep, likewise."""
    return sureness(solve(rig).line)
