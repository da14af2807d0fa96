"""From parts to resistances: walks a line with the air and lays out its network.

Bores that do not match get a sudden change of bore by themselves; its row is called "a>b" after its neighbours.
"""

from __future__ import annotations

from dataclasses import replace
from typing import TypeAlias

import numpy as np

from fenwick.core.arrays import Values
from fenwick.core.components.chambers import OneBody
from fenwick.core.components.elements import (
    Branch,
    Elbow,
    Element,
    FixedLoss,
    Gate,
    Hose,
    InlineFilter,
    Leak,
    Plate,
    Reducer,
)
from fenwick.core.components.separator import Separator
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas import fittings
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.line.catch import Catch
from fenwick.core.line.filters import BAG, OWN, filter_law
from fenwick.core.line.line import Line
from fenwick.core.line.network import Network, Node, Row, Segment, stack_rows
from fenwick.core.line.rows import (
    bin_leak_area,
    bin_leak_id,
    bore_change,
    entry_loss,
    plain_row,
    straight_row,
    swirl_row,
    wet_row,
    window_id,
)

Bored: TypeAlias = Hose | Reducer | FixedLoss | Gate | Elbow | Plate | InlineFilter | Separator
JUNCTION_ID = "junction"
VACUUM_ID = "vacuum"


class _Layout:
    """Collects rows and segments while walking with the air."""

    def __init__(self, line: Line, catch: Catch) -> None:
        self.line, self.catch = line, catch
        self.rows: list[Row] = []
        self.segments: list[Segment] = []
        self.entries: list[int] = []  #: rows of the ports' entries, in the order of the leaves
        self._open(None, 1.0)

    def _open(self, node: Node | None, bore: Values, at: str = "") -> None:
        self.start, self.node, self.bore, self.first_bore, self.at = len(self.rows), node, bore, bore, at

    def close(self) -> int:
        """End the segment in hand; its number."""
        areas = bore_area(self.first_bore), bore_area(self.bore)
        self.segments.append(Segment(self.start, len(self.rows), self.node, *areas))
        return len(self.segments) - 1

    def begin_branch(self) -> None:
        self._open(None, 1.0)

    def join(self, arriving: list[tuple[int, Values]], bore: Values, at: str) -> None:
        """Start the segment that leaves a junction."""
        node = Node(tuple(i for i, _ in arriving), tuple(np.cos(angle) for _, angle in arriving))
        self._open(node, bore, at)

    def leak(self, name: str, area: Values) -> None:
        """Hang a leak here; leaks at one joint share a node."""
        if self.node is None or len(self.rows) > self.start:
            self._open(Node((self.close(),), (1.0,)), self.bore, self.at)
        assert self.node is not None
        self.node = replace(self.node, leaks=(*self.node.leaks, (name, area)))

    def add(self, row: Row, bore_in: Values, bore_out: Values) -> None:
        """Append a row, with a change of bore before it where the bores differ."""
        if len(self.rows) == self.start and self.node is None:
            self.first_bore = bore_in
        elif np.any(np.not_equal(self.bore, bore_in)):
            self.rows.append(bore_change(f"{self.at}>{row.id}", "step", self.bore, bore_in, 0.0))
        self.rows.append(row)
        self.bore, self.at = bore_out, row.id


def lay_out(line: Line, catch: Catch) -> Network:
    """The network of a line, for all its variants at once; `catch` is what its hoods catch."""
    layout = _Layout(line, catch)
    _add_group(layout, line.branches, line.trunk, line.junction_bore, JUNCTION_ID)
    for element in line.trunk:
        _add_element(layout, element)
    _add_vacuum(layout)
    layout.close()
    return stack_rows(layout.rows, layout.segments, line.variants)


def _add_group(
    layout: _Layout, branches: tuple[Branch, ...], following: tuple[Element, ...], bore: Values | None, name: str
) -> None:
    """Branches that join, up to the start of what follows; a single one simply goes on."""
    if len(branches) == 1:
        layout.begin_branch()
        _add_branch(layout, branches[0])
        return
    arriving = []
    for branch in branches:
        layout.begin_branch()
        _add_branch(layout, branch)
        arriving.append((layout.close(), branch.join_angle))
    last = layout.bore
    joined = (
        bore if bore is not None else next((_bore_in(e) for e in following if not isinstance(e, Leak | WetStage)), last)
    )
    layout.join(arriving, joined, name)


def _bore_in(element: Bored) -> Values:
    match element:
        case Reducer():
            return element.bore_in
        case Separator():
            return element.hose_bore
        case _:
            return element.bore


def _add_branch(layout: _Layout, branch: Branch) -> None:
    if branch.port is not None:
        port = branch.port
        k = entry_loss(port, layout.line.rules) * layout.line.rules["entry.reading"]
        layout.entries.append(len(layout.rows))
        layout.add(plain_row(f"{branch.id}:entry", "entry", port.bore, k), port.bore, port.bore)
    else:
        _add_group(layout, branch.branches, branch.elements, branch.junction_bore, f"{branch.id}:junction")
    for element in branch.elements:
        _add_element(layout, element)
    if branch.gate_opening is not None:
        _add_element(layout, Gate(f"{branch.id}:gate", layout.bore, branch.gate_opening))


def _add_element(layout: _Layout, element: Element) -> None:
    match element:
        case Leak():
            layout.leak(element.id, element.area * layout.line.rules["leak.reading"])
        case Separator():
            _add_separator(layout, element)
        case WetStage():
            layout.add(wet_row(element, layout.bore), layout.bore, layout.bore)
        case Reducer():
            row = bore_change(element.id, "reducer", element.bore_in, element.bore_out, element.length)
            layout.add(row, element.bore_in, element.bore_out)
        case _:
            layout.add(straight_row(element, layout.line), element.bore, element.bore)


def _add_separator(layout: _Layout, separator: Separator) -> None:
    if isinstance(separator, OneBody) and separator.window_area is not None:
        k = fittings.plate_loss(separator.hose_bore, separator.window_area)
        window = plain_row(window_id(separator.id), "window", separator.hose_bore, k)
        layout.add(window, separator.hose_bore, separator.hose_bore)
    layout.add(
        swirl_row(separator, layout.line, layout.catch, layout.entries), separator.hose_bore, separator.outlet_bore
    )
    layout.leak(bin_leak_id(separator.id), bin_leak_area(separator, layout.line.rules))
    if isinstance(separator, OneBody):
        layout.leak(f"{separator.id}:deck", separator.deck_leak)


def _add_vacuum(layout: _Layout) -> None:
    vacuum, bore = layout.line.vacuum, layout.bore
    if vacuum.inlet_bore is not None:
        bore = vacuum.inlet_bore
        layout.add(plain_row(f"{VACUUM_ID}:inlet", "inlet", bore, 0.0), bore, bore)
    for place, medium in ((BAG, vacuum.bag), (OWN, vacuum.filter)):
        if medium is not None:
            row = plain_row(f"{VACUUM_ID}:{place}", "filter", bore, 0.0)
            layout.add(replace(row, law=filter_law(medium, layout.line, place)), bore, bore)
