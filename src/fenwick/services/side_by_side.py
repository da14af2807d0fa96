"""Two lines side by side: every figure of both with its band, and which of them does better; once for each pair."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from fenwick.core.arrays import Array, one_value
from fenwick.core.catalogue.parts import hose_price
from fenwick.core.components.separator import Separator
from fenwick.core.dust.separation import fill_mark
from fenwick.core.judging.standing import stands_tall
from fenwick.core.line.line import Line
from fenwick.core.rules import RuleBook
from fenwick.core.search.apart import (
    BETTER,
    CANNOT_TELL,
    LINE_FIGURES,
    SAME,
    WORSE,
    DrawnPort,
    FigureApart,
    apart,
    drawn_port,
    figures_apart,
)
from fenwick.rig import Rig
from fenwick.rig.format.elements import HosePart
from fenwick.rig.format.separator import SeparatorPart
from fenwick.services.checks import acts_of
from fenwick.services.making import price_whole
from fenwick.services.solving import solve
from fenwick.services.way import works_of
from fenwick.shop import ShopFile


@dataclass(frozen=True)
class ComparedPort:
    """A tool port of two lines, open alone in each; the place is None where a line has no such port."""

    name: str
    left: int | None
    right: int | None
    figures: Mapping[str, FigureApart]  #: by their names among `PORT_FIGURES`


@dataclass(frozen=True)
class SideBySide:
    """Two lines compared."""

    ports: tuple[ComparedPort, ...]
    whole: Mapping[str, FigureApart]  #: of the lines as a whole, by name
    weighed: bool  #: whether the week's work counts, every tool by the dust it makes

    @property
    def tally(self) -> Mapping[str, int]:
        """How many figures of the right line are better, worse, the same, not to be told apart [-]."""
        figures = [one for port in self.ports for one in port.figures.values()] + list(self.whole.values())
        counted = Counter(one.verdict for one in figures)
        return {word: counted[word] for word in (BETTER, WORSE, SAME, CANNOT_TELL)}


@lru_cache(maxsize=16)
def side_by_side(left: Rig, right: Rig, shop: ShopFile | None) -> SideBySide:
    """Compare two lines of a shop.

    Raises
    ------
    CoreError
        When one of them cannot be solved.
    """
    lines = solve(left).line, solve(right).line
    pairs = matched_ports(left, right)
    drawn = [(_drawn(lines[0], at_left), _drawn(lines[1], at_right)) for at_left, at_right in pairs]
    apart_by_port = [figures_apart(one, other) for one, other in drawn]
    ports = tuple(
        ComparedPort(_name(left, right, pair), *pair, {k: v for k, v in found.items() if k not in LINE_FIGURES})
        for pair, found in zip(pairs, apart_by_port, strict=True)
    )
    both = [i for i, pair in enumerate(pairs) if None not in pair]
    masses = {work.port: work.mass for work in works_of(left, shop, lines[0])}
    week = _week([_Weighed(masses.get(pairs[i][0] or 0, 0.0), drawn[i]) for i in both])
    poorest = min(both, key=lambda i: _kept(drawn[i]), default=None)
    shown = {} if poorest is None else {k: v for k, v in apart_by_port[poorest].items() if k in LINE_FIGURES}
    plain = {name: _plain(tell, (left, right), more) for name, (tell, more) in _plain_figures(shop).items()}
    plain["price"] = _prices(line_price(left), line_price(right), solve(left).line.rules)
    known = {name: one for name, one in plain.items() if one.left is not None or one.right is not None}
    return SideBySide(ports, {**week, **shown, **known}, bool(week))


def matched_ports(left: Rig, right: Rig) -> tuple[tuple[int | None, int | None], ...]:
    """Places of the ports of two lines that are the same tool: by id, by name, or because each has but one."""
    ours, theirs = _ports(left), _ports(right)
    if len(ours) == len(theirs) == 1:
        return ((0, 0),)
    free = dict(enumerate(theirs))
    pairs: list[tuple[int | None, int | None]] = []
    for i, (id_, name) in enumerate(ours):
        same = next((j for j, other in free.items() if other[0] == id_), None)
        if same is None:
            same = next((j for j, other in free.items() if other[1].casefold() == name.casefold()), None)
        pairs.append((i, same))
        if same is not None:
            del free[same]
    return (*pairs, *((None, j) for j in free))


def _ports(rig: Rig) -> list[tuple[str, str]]:
    """Id and name of the port of every way."""
    return [(way[0].id, "" if way[0].port is None else way[0].port.name) for way in rig.line.ways]


def _name(left: Rig, right: Rig, pair: tuple[int | None, int | None]) -> str:
    at_left, at_right = pair
    return _ports(left)[at_left][1] if at_left is not None else _ports(right)[at_right or 0][1]


def _drawn(line: Line, port: int | None) -> DrawnPort | None:
    return None if port is None else drawn_port(line, port)


def _kept(pair: tuple[DrawnPort | None, ...]) -> float:
    values = [side.figures.kept for side in pair if side is not None and side.figures.kept is not None]
    return min((one_value(one[0]) for one in values), default=1.0)


@dataclass(frozen=True)
class _Weighed:
    """A port that both lines have."""

    mass: float  #: of dust made there in a week [kg]
    sides: tuple[DrawnPort | None, ...]


def _week(ports: list[_Weighed]) -> dict[str, FigureApart]:
    """What of the week's dust is lost and what gets into the bin, each tool by what it makes."""
    if sum(port.mass > 0.0 for port in ports) < 2:
        return {}  # of a single tool they are its own figures
    found = {}
    for name, more in (("lost", False), ("in_bin", True)):
        left, right = (_of_all(ports, at, name) for at in (0, 1))
        if left is not None and right is not None:
            found[f"week_{name}"] = apart(left, right, more_is_better=more)
    return found


def _of_all(ports: list[_Weighed], at: int, name: str) -> Array | None:
    """A share of all the dust that the tools make."""
    total = np.zeros(1)
    for port in ports:
        side = port.sides[at]
        value = None if side is None else getattr(side.figures, name)
        if port.mass > 0.0 and value is None:
            return None
        total = total + (0.0 if value is None else port.mass * value)
    return np.asarray(total / sum(port.mass for port in ports))


TellRig = Callable[[Rig], float | None]


def _plain_figures(shop: ShopFile | None) -> dict[str, tuple[TellRig, bool | None]]:
    """Figures that have no band, and whether more is better; None: neither is."""
    return {
        "acts": (lambda rig: float(acts_of(rig, shop)), False),
        "mark": (_mark, True),
        "height": (_height, None),
        "loudness": (lambda rig: rig.vacuum.loudness_dba, False),
    }


def _plain(tell: TellRig, rigs: tuple[Rig, Rig], more: bool | None) -> FigureApart:
    values = [None if one is None else np.array([one]) for one in map(tell, rigs)]
    found = apart(values[0], values[1], more_is_better=bool(more))
    return found if more is not None else FigureApart(found.left, found.right, None, None)


def _prices(left: float, right: float, rules: RuleBook) -> FigureApart:
    """Two prices, of which rules of thumb tell no more than their round sum."""
    found = apart(np.array([left]), np.array([right]), more_is_better=False)
    unsure = one_value(rules["price.unsure"]) * max(left, right)
    if found.verdict != SAME and abs(left - right) <= unsure:
        return FigureApart(found.left, found.right, CANNOT_TELL, None)
    return found


def _first_separator(rig: Rig) -> tuple[Separator, Line] | None:
    line = solve(rig).line
    return next(((stage, line) for stage in line.separators), None)


def _mark(rig: Rig) -> float | None:
    """What the bin under the first separator takes up to where it is to be emptied [m^3]."""
    first = _first_separator(rig)
    return None if first is None else fill_mark(first[0], first[1].rules)[1]


def _height(rig: Rig) -> float | None:
    """Of the first separator with its bin, over the floor [m]."""
    first = _first_separator(rig)
    return None if first is None else stands_tall(*first)


def line_price(rig: Rig) -> float:
    """What the hoses and separators of a line cost to buy, in the shop's money; what the line says goes first."""
    hoses = [*rig.line.elements, *(part for _, branch in rig.line.walk() for part in branch.elements)]
    line = solve(rig).line
    stages = {stage.id: stage for stage in line.separators}
    bought = sum(
        price_whole(part, stages[part.id], line.rules) for part in rig.line.elements if isinstance(part, SeparatorPart)
    )
    priced = (hose_price(one.bore_m, one.length_m, one.wall) for one in hoses if isinstance(one, HosePart))
    return bought + sum(priced)
