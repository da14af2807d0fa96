"""By what a way is judged: the fewest figures to act on, then the dust that is lost, then what gets past the bin."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import TypeAlias

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.errors import CoreError
from fenwick.core.judging.assess import Assessment, assess
from fenwick.core.judging.check import ACT
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone
from fenwick.core.rules import rule
from fenwick.core.search.batch import VariantBatch, with_rings
from fenwick.core.search.changes import VACUUM
from fenwick.core.search.figures import Figures, figures_at
from fenwick.core.search.way.options import WayOption
from fenwick.core.search.work import PortWork

Combination: TypeAlias = int  #: of options: the bit at an option's place is set where it is done
NOTHING: Combination = 0
NOTICED = rule("way.noticed").value  #: of the dust made, that one would notice [-]
LINE_WIDE, FOLDS = "folding", "bin-collapse"  #: the figure of the line and its check, whichever tool runs


@dataclass(frozen=True)
class WayCount:
    """What a way comes to, the most important first: less is better in each."""

    acts: int  #: figures to act on, over all the work
    lost: float  #: dust that escapes or lies on the floor, a week [kg]
    past: float  #: dust that gets past the bin, a week [kg]
    cost: float  #: in the shop's money
    hours: float  #: [h]
    made: float  #: dust that the work makes, a week [kg]
    known: bool = True  #: whether it is known where all of it goes; else what is lost counts the rest alone

    @property
    def figures(self) -> tuple[float, ...]:
        """Checks to act on, what is lost, what gets past the bin."""
        return self.acts, self.lost, self.past

    @property
    def rank(self) -> tuple[float, ...]:
        """To be sorted by: what nobody would notice decides only where nothing else does, and shows the way there."""
        step = NOTICED * self.made if self.made > 0.0 else 1.0
        return self.acts, round(self.lost / step), round(self.past / step), self.lost, self.past, self.cost, self.hours

    @property
    def worth(self) -> tuple[float, ...]:
        """To be chosen by at the end: of those that nobody could tell apart, the cheapest and quickest."""
        return *self.rank[:3], self.cost, self.hours

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

    acts: frozenset[str]  #: checks at level act; one of the trunk is told alike at every port
    lost: float  #: of the dust made [-]
    past: float  #: [-]


def combination(places: Iterable[int]) -> Combination:
    """The options at some places, as one.

    Parameters
    ----------
    places : among the options [-]
    """
    found = NOTHING
    for at in places:
        found |= 1 << at
    return found


def places_of(one: Combination) -> tuple[int, ...]:
    """The places of a combination's options, the least first."""
    found = []
    while one:
        least = one & -one
        found.append(least.bit_length() - 1)
        one ^= least
    return tuple(found)


class Counter:
    """Counts combinations of options; what a port does not see of one is worked out once for all that are alike.

    Parameters
    ----------
    line_with : the line with some options done that make it anew, by their places; None where it cannot be
    options : all there are
    works : at the ports that count
    still : checks to act on today that no air tells, such as one that tips over [-]
    """

    def __init__(
        self, line_with: Callable[[tuple[int, ...]], Line | None], options: Sequence[WayOption],
        works: Sequence[PortWork], still: int = 0,
    ) -> None:  # fmt: skip
        self.line_with, self.options, self.works, self.still = line_with, options, tuple(works), still
        self.counted: dict[Combination, WayCount | None] = {}
        self._known: dict[tuple[int, Combination], _AtPort] = {}
        self._lines: dict[tuple[int, Combination], Line | None] = {}
        self._made: dict[Combination, Line | None] = {}
        self._feels: dict[tuple[int, Combination], Combination] = {}
        self._firsts: dict[Combination, Combination] = {}
        self._apart = combination(i for i, one in enumerate(options) if one.apart)
        places: dict[str, int] = {}
        self._stands_for = [places.setdefault(one.alike or one.key, i) for i, one in enumerate(options)]

    def count(self, combinations: Sequence[Combination]) -> list[WayCount | None]:
        """What each comes to; None where a line cannot be made so."""
        new = [one for one in dict.fromkeys(combinations) if one not in self.counted]
        seen = [[self._seen(work.port, one) for one in new] for work in self.works]
        for work, keys in zip(self.works, seen, strict=True):
            self._work_out(work.port, keys)
        for i, one in enumerate(new):
            self.counted[one] = self._sum(one, [keys[i] for keys in seen])
        return [self.counted[one] for one in combinations]

    def _line(self, port: int, apart: Combination) -> Line | None:
        if (port, apart) not in self._lines:
            if apart not in self._made:
                self._made[apart] = self.line_with(places_of(apart))
            line = self._made[apart]
            self._lines[port, apart] = None if line is None else line_alone(line, port)
        return self._lines[port, apart]

    def _seen(self, port: int, one: Combination) -> Combination:
        """The options that a port feels; of those that make the line alike the first stands for all."""
        apart = one & self._apart
        if apart:
            apart = self._first(apart)
        numbers = one & self._felt(port, apart) & ~self._apart
        return numbers | (apart & self._felt(port, NOTHING))

    def _first(self, apart: Combination) -> Combination:
        if apart not in self._firsts:
            self._firsts[apart] = combination(self._stands_for[i] for i in places_of(apart))
        return self._firsts[apart]

    def _felt(self, port: int, apart: Combination) -> Combination:
        """The options that are made to something on a port's way, trunk and vacuum included."""
        found = self._feels.get((port, apart))
        if found is None:
            line = self._line(port, apart)
            parts: set[str] = set()
            if line is not None:
                way = line.leaves[port].way
                parts = {part.id for branch in way for part in branch.elements} | {branch.id for branch in way}
                parts |= {part.id for part in line.trunk} | {VACUUM}
            found = combination(
                i for i, one in enumerate(self.options) if (one.part in parts or one.wide) and not one.still
            )
            self._feels[port, apart] = found
        return found

    def _work_out(self, port: int, seen: Sequence[Combination]) -> None:
        wanted: dict[Combination, list[Combination]] = {}
        for one in dict.fromkeys(seen):
            if (port, one) not in self._known:
                wanted.setdefault(one & self._apart, []).append(one)
        for apart, alike in wanted.items():
            line = self._line(port, apart)
            if line is not None:
                self._solve(port, line, alike)

    def _solve(self, port: int, line: Line, alike: Sequence[Combination]) -> None:
        changes = [[change for i in places_of(one) for change in self.options[i].candidates] for one in alike]
        batch = VariantBatch(line, changes).line()
        try:
            found = with_rings(batch, assess(batch), changes)
            figures = figures_at(batch, found, port)
        except CoreError:  # one that does not settle takes none of the others with it
            if len(alike) > 1:
                for one in alike:
                    self._solve(port, line, [one])
            return
        acts = _acts(batch, found, figures, port, len(alike))
        for one, at in zip(alike, _at_port(figures, acts), strict=True):
            self._known[port, one] = at

    def _sum(self, one: Combination, seen: Sequence[Combination]) -> WayCount | None:
        there = [self._known.get((work.port, key)) for work, key in zip(self.works, seen, strict=True)]
        chosen = [self.options[i] for i in places_of(one)]
        at = [port for port in there if port is not None]
        if len(at) < len(there):
            return None
        return WayCount(
            acts=len(frozenset().union(*(port.acts for port in at)))
            + max(0, self.still - sum(option.clears for option in chosen)),
            lost=sum(work.mass * port.lost for work, port in zip(self.works, at, strict=True)),
            past=sum(work.mass * port.past for work, port in zip(self.works, at, strict=True)),
            cost=sum(option.cost for option in chosen),
            hours=sum(option.hours for option in chosen),
            made=sum(work.mass for work in self.works),
        )


def _acts(batch: Line, found: Assessment, figures: Figures, port: int, n: int) -> list[frozenset[str]]:
    """The checks to act on of every variant; that a bin folds is told by the figures, which know of new rings."""
    trunk = {part.id for part in batch.trunk}
    rows: dict[str, Array] = {}
    for check in found.checks:
        if check.id != FOLDS:
            key = f"{check.id} {check.part if check.part in trunk else port}"
            rows[key] = rows.get(key, np.zeros(n, dtype=bool)) | np.broadcast_to(check.level == ACT, (n,))
    rows[FOLDS] = np.broadcast_to(figures.acting.get(LINE_WIDE, np.zeros(1, dtype=bool)), (n,))
    told = [(key, row) for key, row in rows.items() if row.any()]
    return [frozenset(key for key, row in told if row[i]) for i in range(n)]


def _at_port(found: Figures, acts: Sequence[frozenset[str]]) -> list[_AtPort]:
    """Every variant of a port's figures; dust of which nothing is known is judged by the air alone."""
    n = len(acts)

    def each(values: Array | None, otherwise: Array) -> Array:
        return np.broadcast_to(otherwise if values is None else values, (n,))

    nothing = 1.0 / (1.0 + 1e3 * np.asarray(found.flow))
    lost, in_bin = each(found.lost, nothing), each(found.in_bin, np.zeros(1))
    past = np.zeros(n) if found.in_bin is None else np.maximum(1.0 - in_bin - lost, 0.0)
    return [_AtPort(acts[i], float(lost[i]), float(past[i])) for i in range(n)]
