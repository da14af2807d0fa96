"""One change that a way may have: what it takes, in words, and as an edit of the rig."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from fenwick.core.errors import CoreError
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook
from fenwick.core.search.way.options import WayOption
from fenwick.rig import Rig, RigError, build_line
from fenwick.rig.voice import voice_for
from fenwick.services.shop_stock import prices_known
from fenwick.shop import ShopFile
from fenwick.units import METRIC
from fenwick.wording.say import Voice


@dataclass(frozen=True)
class Move:
    """One change that a way may have, as an edit of the rig."""

    option: WayOption
    tell: Callable[[Voice], str]  #: what to do, in the reader's units
    make: Callable[[Rig], Rig]


@dataclass(frozen=True)
class MoveGround:
    """What moves are looked for on."""

    rig: Rig
    shop: ShopFile | None
    line: Line
    ports: tuple[int, ...]  #: places among the leaves, of those that are worked at

    @property
    def rules(self) -> RuleBook:
        """The line's, with the shop's own prices before any rule of thumb."""
        return self.line.rules.with_values(dict(prices_known(self.shop)))

    @property
    def voice(self) -> Voice:
        """Names alone: units are the reader's."""
        return voice_for(self.rig, METRIC)

    @classmethod
    def of(cls, rig: Rig, shop: ShopFile | None, ports: Sequence[int]) -> MoveGround:
        """Of a rig in its shop.

        Parameters
        ----------
        ports : places among the leaves [-]
        """
        return cls(rig, shop, build_line(rig), tuple(ports))


def said(words: str) -> Callable[[Voice], str]:
    """Words that hold no figure."""
    return lambda _: words


def as_made(moves: Sequence[Move]) -> list[Move]:
    """Moves in the order they are made, whatever the order they were chosen in: what makes a line anew goes first."""
    return sorted(moves, key=lambda one: (not one.option.apart, one.option.key))


def with_moves(rig: Rig, moves: Sequence[Move]) -> Rig | None:
    """The rig with some moves made, whatever their order; None where they break a rule together."""
    try:
        for move in as_made(moves):
            rig = move.make(rig)
    except (RigError, KeyError, CoreError):
        return None
    return rig
