"""The best line that the parts in a drawer make: every sensible assignment, solved in one batch for each vacuum."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import permutations
from math import pi

import numpy as np

from fenwick.core.arrays import Values, one_value
from fenwick.core.catalogue.parts import ADAPTER_PRICE
from fenwick.core.components.elements import Bend, Branch, Element, Hose, Reducer
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.line.ports import with_dust
from fenwick.core.search.figures import Figures, figures_at

SAME_BORE = 0.0025  #: ends closer than this go on one another with tape [m]
NO_LENGTH = 1e-4  #: of the second hose where one does [m]
BEND_RADIUS = 4.0  #: of a hose as it lies, in bores [-]
MOST_ASSIGNMENTS = 40_000  #: a drawer too full to try everything is refused above this


@dataclass(frozen=True)
class StockHose:
    """A hose that may be used."""

    id: str
    bore: float  #: [m]
    length: float  #: [m]
    roughness: float  #: [m]
    bend_factor: float = 1.0  #: loss of its bends against smooth ones [-]
    price: float = 0.0  #: 0 where it is owned


@dataclass(frozen=True)
class StockFitting:
    """An adapter that may be used, either way round."""

    id: str
    one_bore: float  #: [m]
    other_bore: float  #: [m]
    length: float  #: of its taper [m]


@dataclass(frozen=True)
class Task:
    """What the line has to do."""

    reach: float  #: of the hose from tool to separator [m]
    link_reach: float  #: of the hose from separator to vacuum [m]
    spend: float = 0.0  #: at most, in the shop's money


@dataclass(frozen=True)
class Assignment:
    """Which parts go where."""

    run: tuple[StockHose, ...]  #: from the tool to the separator, one or two
    link: StockHose | None  #: from separator to vacuum; None on a line without one
    joints: tuple[
        StockFitting | None, ...
    ]  #: at every joint in the order of the air; None: goes on as it is, or bought
    bought: int  #: adapters to buy
    vacuum: str
    price: float


@dataclass(frozen=True)
class DrawerLine:
    """An assignment with what it comes to at the tool."""

    assignment: Assignment
    figures: Figures


class _Fittings:
    """Finds an owned fitting between two bores."""

    def __init__(self, fittings: Sequence[StockFitting]) -> None:
        self.fittings = fittings
        self.known: dict[tuple[float, float], list[StockFitting]] = {}

    def between(self, a: float, b: float) -> list[StockFitting]:
        """Fittings that join two bores, the longest taper first."""
        if (a, b) not in self.known:
            near = [f for f in self.fittings if _joins(f, a, b)]
            self.known[a, b] = sorted(near, key=lambda f: -f.length)
        return self.known[a, b]


def _joins(fitting: StockFitting, a: float, b: float) -> bool:
    ways = ((fitting.one_bore, fitting.other_bore), (fitting.other_bore, fitting.one_bore))
    return any(abs(x - a) <= SAME_BORE and abs(y - b) <= SAME_BORE for x, y in ways)


def assignments(
    line: Line,
    port: int,
    hoses: Sequence[StockHose],
    fittings: Sequence[StockFitting],
    vacuum: str,
    task: Task,
) -> list[Assignment]:
    """Every assignment that reaches, joins up and costs no more than allowed.

    Each owned part is used once; a hose that is bought may only be the one bought hose.

    Parameters
    ----------
    port : its place among the leaves of the line [-]
    """
    runs = _runs(hoses, task.reach, task.spend)
    stages = line.separators
    links: list[StockHose | None] = (
        [h for h in hoses if h.length >= task.link_reach - 1e-9 and h.price <= task.spend] if stages else [None]
    )
    ends, stock = _ends(line, port), _Fittings(fittings)
    found = []
    for run in runs:
        for link in links:
            if link is not None and (link in run or (link.price > 0.0 and any(h.price > 0.0 for h in run))):
                continue
            found += _joined(ends, run, link, vacuum, stock, task.spend)
    return found


def _runs(hoses: Sequence[StockHose], reach: float, spend: float) -> list[tuple[StockHose, ...]]:
    singles = [(h,) for h in hoses if h.length >= reach - 1e-9 and h.price <= spend]
    owned = [h for h in hoses if h.price == 0.0]
    pairs = [pair for pair in permutations(owned, 2) if _is_worth_joining(pair, reach)]
    return [*singles, *pairs]


def _is_worth_joining(pair: tuple[StockHose, ...], reach: float) -> bool:
    """Two hoses are only joined where neither reaches alone."""
    return sum(h.length for h in pair) >= reach - 1e-9 and all(h.length < reach - 1e-9 for h in pair)


@dataclass(frozen=True)
class _Ends:
    """What stays where it is: bores that the hoses have to meet [m]."""

    port: float
    stage_inlet: float
    stage_outlet: float
    vacuum: float | None  #: None: as wide as the hose


def _ends(line: Line, port: int) -> _Ends:
    stage = next(iter(line.separators), None)
    inlet, outlet = (0.0, 0.0) if stage is None else (one_value(stage.hose_bore), one_value(stage.outlet_bore))
    own = line.vacuum.inlet_bore
    return _Ends(one_value(line.leaves[port].port.bore), inlet, outlet, None if own is None else one_value(own))


def _joined(
    ends: _Ends,
    run: tuple[StockHose, ...],
    link: StockHose | None,
    vacuum: str,
    stock: _Fittings,
    spend: float,
) -> list[Assignment]:
    bores = [ends.port]
    for hose in run:
        bores += [hose.bore, hose.bore]
    if link is not None:
        bores += [ends.stage_inlet, ends.stage_outlet, link.bore, link.bore]
    bores.append(bores[-1] if ends.vacuum is None else ends.vacuum)
    used: set[str] = set()
    chosen: list[StockFitting | None] = []
    bought = 0
    for a, b in zip(bores[::2], bores[1::2], strict=True):
        fitting = None
        if abs(a - b) > SAME_BORE:
            fitting = next((f for f in stock.between(a, b) if f.id not in used), None)
            if fitting is None:
                bought += 1
            else:
                used.add(fitting.id)
        chosen.append(fitting)
    price = sum(h.price for h in run) + (link.price if link else 0.0) + bought * ADAPTER_PRICE
    if price > spend + 1e-9:
        return []
    return [Assignment(run, link, tuple(chosen), bought, vacuum, price)]


def best_lines(
    lines: Mapping[str, Line],
    port: int,
    hoses: Sequence[StockHose],
    fittings: Sequence[StockFitting],
    task: Task,
) -> list[DrawerLine]:
    """Every line the drawer makes for a tool, the best first.

    Ranked by how many figures are to act on, then by the dust that ends in the bin, then by the air at the tool.

    Parameters
    ----------
    lines : the line with each vacuum, by its name, single variants; port, separator, dust and site are kept
    port : place of the tool among the leaves [-]
    hoses, fittings : that may be used
    task : what it has to reach, and what may be spent

    Raises
    ------
    ValueError
        When the drawer allows more assignments than are tried.
    """
    solved: list[DrawerLine] = []
    for name, line in lines.items():
        options = assignments(line, port, hoses, fittings, name, task)
        if len(options) > MOST_ASSIGNMENTS:
            raise ValueError(f"{len(options)} assignments are more than are tried")
        if not options:
            continue
        batch = _batch(line, port, options)
        figures = figures_at(batch, assess(batch), 0)
        solved += [DrawerLine(option, figures.variant(i)) for i, option in enumerate(options)]
    return sorted(solved, key=_rank)


def _rank(found: DrawerLine) -> tuple[int, float, float, float]:
    figures = found.figures
    in_bin = round(float(figures.in_bin[0]), 3) if figures.in_bin is not None else 0.0
    return int(figures.acts[0]), -in_bin, -float(figures.flow[0]), found.assignment.price


def _batch(line: Line, port: int, options: Sequence[Assignment]) -> Line:
    """One line whose variants are the assignments: a second hose of no length stands where one does."""
    leaf = line.leaves[port]
    stages = line.separators

    first = _hose("run-1", options, lambda o: o.run[0])
    second = _hose("run-2", options, lambda o: o.run[-1])
    short = np.array([NO_LENGTH if len(o.run) == 1 else o.run[1].length for o in options])
    second = replace(second, length=short, bends=())
    at_port = np.full(len(options), one_value(leaf.port.bore))
    elements: list[Element] = [
        _step("j-1", options, at_port, first.bore, lambda o: o.joints[0]),
        first,
        _step("j-2", options, first.bore, second.bore, lambda o: o.joints[1] if len(o.run) == 2 else None),
        second,
    ]
    trunk: list[Element] = []
    before = second.bore
    if stages:
        stage = stages[0]
        inlet = np.full(len(options), one_value(stage.hose_bore))
        outlet = np.full(len(options), one_value(stage.outlet_bore))
        link = _hose("link", options, _link)
        elements.append(_step("j-3", options, before, inlet, lambda o: o.joints[-3]))
        trunk = [stage, _step("j-4", options, outlet, link.bore, lambda o: o.joints[-2]), replace(link, bends=())]
        before = link.bore
    if line.vacuum.inlet_bore is not None:
        mouth = np.full(len(options), one_value(line.vacuum.inlet_bore))
        trunk.append(_step("j-5", options, before, mouth, lambda o: o.joints[-1]))
    else:
        trunk.append(Reducer("j-5", before, before))
    branch = Branch(leaf.id, leaf.port, tuple(elements))
    return with_dust(replace(line, branches=(branch,), trunk=tuple(trunk), junction_bore=None))


def _link(option: Assignment) -> StockHose:
    assert option.link is not None
    return option.link


def _hose(name: str, options: Sequence[Assignment], pick: Callable[[Assignment], StockHose]) -> Hose:
    rows = [(h.bore, h.length, h.roughness, h.bend_factor) for h in map(pick, options)]
    bore, length, rough, bends = np.array(rows).T
    return Hose(name, bore, length, "smooth", (Bend(pi / 2.0, BEND_RADIUS * bore),), rough, bend_factor=bends)


def _step(
    name: str,
    options: Sequence[Assignment],
    before: Values,
    after: Values,
    pick: Callable[[Assignment], StockFitting | None],
) -> Reducer:
    """A joint: a cone where a fitting has length, else a step; nothing where the bores agree."""
    lengths = np.array([fitting.length if (fitting := pick(option)) else 0.0 for option in options])
    a, b = np.asarray(before, dtype=float), np.asarray(after, dtype=float)
    near = np.abs(a - b) <= SAME_BORE
    return Reducer(name, a, np.where(near, a, b), np.where(near, 0.0, lengths))
