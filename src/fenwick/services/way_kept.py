"""The way that a line is on: its steps on the line as it stands today, and what some of them make of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from fenwick.core.judging.line_figures import LineFigures
from fenwick.core.search.way.count import WayCount
from fenwick.rig import Rig, build_line
from fenwick.services.moves import Move, moves_for, with_moves
from fenwick.services.way import week_today, works_of
from fenwick.services.way_steps import WayStep, as_it_stands, steps_of
from fenwick.shop import ShopFile
from fenwick.way_kept.model import KeptStep


@dataclass(frozen=True)
class ResumedWay:
    """The steps that are to do, on the line as it stands."""

    today: LineFigures
    count: WayCount  #: today, over the week's work
    steps: tuple[WayStep, ...]
    gone: tuple[str, ...]  #: keys of steps that this line does not take any more

    @property
    def end(self) -> WayStep | None:
        """The last of them."""
        return self.steps[-1] if self.steps else None


@lru_cache(maxsize=32)
def moves_of(rig: Rig, shop: ShopFile | None) -> dict[str, Move]:
    """Every move that a line has, by its key."""
    ports = [work.port for work in works_of(rig, shop, build_line(rig))]
    return {move.option.key: move for move in moves_for(rig, shop, ports)}


@lru_cache(maxsize=32)
def resumed(rig: Rig, shop: ShopFile | None, keys: tuple[str, ...]) -> ResumedWay:
    """The steps of a way in their order; those that the line does not take any more are named.

    Raises
    ------
    CoreError
        When the line does not settle as it stands.
    """
    works, today = week_today(rig, shop)
    known = moves_of(rig, shop) if keys else {}
    steps = steps_of(rig, [known[key] for key in keys if key in known], works, shop)
    left = {step.move.option.key for step in steps}
    return ResumedWay(as_it_stands(rig), today.count, steps, tuple(key for key in keys if key not in left))


def with_steps(rig: Rig, shop: ShopFile | None, keys: Sequence[str]) -> Rig | None:
    """The line with some steps made; None where it does not take them all."""
    if not keys:
        return None
    known = moves_of(rig, shop)
    if any(key not in known for key in keys):
        return None
    return with_moves(rig, [known[key] for key in keys])


def kept_steps(steps: Sequence[WayStep], words: Sequence[str]) -> tuple[KeptStep, ...]:
    """The steps of a way that was found, to be kept."""
    return tuple(
        KeptStep(key=step.move.option.key, words=told[:300], cost=step.move.option.cost, hours=step.move.option.hours)
        for step, told in zip(steps, words, strict=True)
    )
