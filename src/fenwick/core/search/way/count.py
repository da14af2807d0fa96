"""By what a way is judged: the fewest figures to act on, then the dust that is lost, then what gets past the bin."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import TypeAlias

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.errors import CoreError
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone
from fenwick.core.search.batch import VariantBatch, with_rings
from fenwick.core.search.changes import VACUUM
from fenwick.core.search.figures import Figures, figures_at
from fenwick.core.search.way.options import WayOption

Combination: TypeAlias = frozenset[int]  #: places of the options that are done
NOTICED = 0.005  #: of the dust made, that one would notice [-]
LINE_WIDE = "folding"  #: a figure of the line, whichever tool runs


@dataclass(frozen=True)
class PortWork:
    """What is done at one tool port in a week."""

    port: int  #: its place among the leaves
    mass: float  #: of dust made [kg]


@dataclass(frozen=True)
class WayCount:
    """What a way comes to, the most important first: less is better in each."""

    acts: int  #: figures to act on, over all the work
    lost: float  #: dust that escapes or lies on the floor, a week [kg]
    past: float  #: dust that gets past the bin, a week [kg]
    cost: float  #: in the shop's money
    hours: float  #: [h]
    made: float  #: dust that the work makes, a week [kg]

    @property
    def rank(self) -> tuple[float, ...]:
        """To be sorted by while looking: every gram shows the way."""
        return self.acts, self.lost, self.past, self.cost, self.hours

    def as_good_as(self, other: WayCount) -> bool:
        """Whether nobody would notice that it is worse, if it is: money and time apart."""
        step = NOTICED * self.made
        return self.acts <= other.acts and self.lost <= other.lost + step and self.past <= other.past + step

    def better_than(self, other: WayCount) -> bool:
        """Whether one would notice that it is better: in the first thing that counts and differs."""
        step = NOTICED * self.made
        if self.acts != other.acts:
            return self.acts < other.acts
        if abs(self.lost - other.lost) > step:
            return self.lost < other.lost
        return self.past < other.past - step


@dataclass(frozen=True)
class _AtPort:
    """What one port adds."""

    acts: int
    folds: bool
    lost: float  #: of the dust made [-]
    past: float  #: [-]


class Counter:
    """Counts combinations of options; what a port does not see of one is worked out once for all that are alike.

    Parameters
    ----------
    line_with : the line with some options done that make it anew, by their places; None where it cannot be
    options : all there are
    works : at the ports that count
    """

    def __init__(
        self, line_with: Callable[[Combination], Line | None], options: Sequence[WayOption], works: Sequence[PortWork]
    ) -> None:
        self.line_with, self.options, self.works = line_with, options, works
        self.known: dict[tuple[int, Combination], _AtPort] = {}
        self.lines: dict[tuple[int, Combination], Line | None] = {}
        self.apart = frozenset(i for i, one in enumerate(options) if one.apart)
        self.counted: dict[Combination, WayCount | None] = {}
        self.feels: dict[tuple[int, Combination], Combination] = {}
        self.firsts: dict[Combination, Combination] = {}
        places: dict[str, int] = {}
        self.stands_for = [places.setdefault(one.alike or one.key, i) for i, one in enumerate(options)]

    def count(self, combinations: Sequence[Combination]) -> list[WayCount | None]:
        """What each comes to; None where a line cannot be made so."""
        new = [one for one in dict.fromkeys(combinations) if one not in self.counted]
        for work in self.works:
            self._work_out(work.port, new)
        self.counted |= {one: self._sum(one) for one in new}
        return [self.counted[one] for one in combinations]

    def _line(self, port: int, apart: Combination) -> Line | None:
        if (port, apart) not in self.lines:
            line = self.line_with(apart)
            self.lines[port, apart] = None if line is None else line_alone(line, port)
        return self.lines[port, apart]

    def _seen(self, port: int, one: Combination) -> Combination:
        """The options that a port feels; of those that make the line alike the first stands for all."""
        apart = self._first(one & self.apart)
        return (one & self._felt(port, apart)) - self.apart | (apart & self._felt(port, frozenset()))

    def _first(self, apart: Combination) -> Combination:
        if apart not in self.firsts:
            self.firsts[apart] = frozenset(self.stands_for[i] for i in apart)
        return self.firsts[apart]

    def _felt(self, port: int, apart: Combination) -> Combination:
        """Places of the options that are made to something on a port's way, trunk and vacuum included."""
        if (port, apart) not in self.feels:
            line = self._line(port, apart)
            parts: set[str] = set()
            if line is not None:
                way = line.leaves[port].way
                parts = {part.id for branch in way for part in branch.elements} | {branch.id for branch in way}
                parts |= {part.id for part in line.trunk} | {VACUUM}
            self.feels[port, apart] = frozenset(i for i, one in enumerate(self.options) if one.part in parts)
        return self.feels[port, apart]

    def _work_out(self, port: int, combinations: Sequence[Combination]) -> None:
        wanted: dict[Combination, list[Combination]] = {}
        for seen in dict.fromkeys(self._seen(port, one) for one in combinations):
            if (port, seen) not in self.known:
                wanted.setdefault(seen & self.apart, []).append(seen)
        for apart, alike in wanted.items():
            line = self._line(port, apart)
            if line is not None:
                self._solve(port, line, alike)

    def _solve(self, port: int, line: Line, alike: Sequence[Combination]) -> None:
        changes = [[change for i in one for change in self.options[i].candidates] for one in alike]
        batch = VariantBatch(line, changes).line()
        try:
            found = figures_at(batch, with_rings(batch, assess(batch), changes), port)
        except CoreError:  # one that does not settle takes none of the others with it
            if len(alike) > 1:
                for one in alike:
                    self._solve(port, line, [one])
            return
        for one, at in zip(alike, _at_port(found, len(alike)), strict=True):
            self.known[port, one] = at

    def _sum(self, one: Combination) -> WayCount | None:
        at = [self.known.get((work.port, self._seen(work.port, one))) for work in self.works]
        chosen = [self.options[i] for i in one]
        if any(port is None for port in at):
            return None
        there = [port for port in at if port is not None]
        return WayCount(
            acts=sum(port.acts for port in there) + any(port.folds for port in there),
            lost=sum(work.mass * port.lost for work, port in zip(self.works, there, strict=True)),
            past=sum(work.mass * port.past for work, port in zip(self.works, there, strict=True)),
            cost=sum(option.cost for option in chosen),
            hours=sum(option.hours for option in chosen),
            made=sum(work.mass for work in self.works),
        )


def _at_port(found: Figures, n: int) -> list[_AtPort]:
    """Every variant of a port's figures; dust of which nothing is known is judged by the air alone."""

    def each(values: Array | None, otherwise: Array) -> Array:
        return np.broadcast_to(otherwise if values is None else values, (n,))

    own = replace(found, acting={name: one for name, one in found.acting.items() if name != LINE_WIDE})
    nothing = 1.0 / (1.0 + 1e3 * np.asarray(found.flow))
    escapes, in_bin = each(found.lost, nothing), each(found.in_bin, np.zeros(1))
    acts = np.broadcast_to(own.acts, (n,))
    folds = np.broadcast_to(found.acting.get(LINE_WIDE, np.zeros(1, dtype=bool)), (n,))
    past = np.zeros(n) if found.in_bin is None else np.maximum(1.0 - in_bin - escapes, 0.0)
    return [_AtPort(int(acts[i]), bool(folds[i]), float(escapes[i]), float(past[i])) for i in range(n)]
