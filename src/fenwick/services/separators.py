"""A separator of a line studied: what each thing about it costs or would gain; worked out once for each line."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from fenwick.core.search.effects import Effect, Sweep, effects, sweeps
from fenwick.rig import Rig
from fenwick.services.solving import solve


@dataclass(frozen=True)
class SeparatorStudy:
    """One separator; empty where the dust is not known."""

    faults: tuple[Effect, ...] = ()  #: what each costs, the worst first
    sizes: tuple[Effect, ...] = ()  #: what others would gain or lose, the best first
    sweeps: tuple[Sweep, ...] = ()  #: against fill, tilt and leak


@lru_cache(maxsize=32)
def study_of(rig: Rig, part: str) -> SeparatorStudy:
    """The separator of a rig with that id, studied."""
    solved = solve(rig)
    if solved.line.dust is None:
        return SeparatorStudy()
    stage = next(one for one in solved.line.separators if one.id == part)
    faults, sizes = effects(solved.line, stage)
    return SeparatorStudy(faults, sizes, sweeps(solved.line, stage))
