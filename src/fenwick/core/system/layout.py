"""From parts to resistances: walks a line with the air and lays out its network.

Bores that do not match get a sudden change of bore by themselves; its row is called "a>b" after its neighbours.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.elements import Branch, Element, FixedLoss, Gate, Hose, Leak, Reducer
from fenwick.core.components.separator import SlottedDisc
from fenwick.core.components.vacuum import FilterMedium
from fenwick.core.formulas import fittings
from fenwick.core.formulas.filtering import cake_coefficient, cake_loss, tank_drop_share
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.formulas.sizes import SIZES
from fenwick.core.formulas.swirl import loss_coefficient_orbit
from fenwick.core.rules import ENTRY_LOSS, RuleBook
from fenwick.core.system.line import Line
from fenwick.core.system.network import Network, Node, Row, Segment, SpecialLaw, stack_rows

RIBBED_WALLS = ("wire-helix", "corrugated")
VACUUM_ID = "vacuum"


def bin_leak_id(separator_id: str) -> str:
    """Name of the leak below a separator in the solution."""
    return f"{separator_id}:bin"


class _Layout:
    """Collects rows and segments while walking with the air."""

    def __init__(self, line: Line) -> None:
        self.line = line
        self.rows: list[Row] = []
        self.segments: list[Segment] = []
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
            self.rows.append(_bore_change(f"{self.at}>{row.id}", "step", self.bore, bore_in, 0.0))
        self.rows.append(row)
        self.bore, self.at = bore_out, row.id


def lay_out(line: Line) -> Network:
    """The network of a line, for all its variants at once."""
    layout = _Layout(line)
    arriving: list[tuple[int, Values]] = []
    for branch in line.branches:
        layout.begin_branch()
        _add_branch(layout, branch)
        if len(line.branches) > 1:
            arriving.append((layout.close(), branch.join_angle))
    if arriving:
        layout.join(arriving, _trunk_bore(line), "junction")
    for element in line.trunk:
        _add_element(layout, element)
    _add_vacuum(layout)
    layout.close()
    return stack_rows(layout.rows, layout.segments, line.variants)


def _trunk_bore(line: Line) -> Values:
    for element in line.trunk:
        if not isinstance(element, Leak):
            return _bore_in(element)
    return line.branches[0].port.bore


def _bore_in(element: Hose | Reducer | FixedLoss | Gate | SlottedDisc) -> Values:
    match element:
        case Reducer():
            return element.bore_in
        case SlottedDisc():
            return element.inlet_bore
        case _:
            return element.bore


def _plain(name: str, kind: str, bore: Values, k0: Values) -> Row:
    area = bore_area(bore)
    return Row(name, kind, area, area, area, k0)


def _add_branch(layout: _Layout, branch: Branch) -> None:
    port = branch.port
    loss = ENTRY_LOSS[port.entry]
    k = layout.line.rules[loss] if isinstance(loss, str) else loss
    layout.add(_plain(f"{branch.id}:entry", "entry", port.bore, k), port.bore, port.bore)
    for element in branch.elements:
        _add_element(layout, element)
    if branch.gate_opening is not None:
        _add_element(layout, Gate(f"{branch.id}:gate", layout.bore, branch.gate_opening))


def _add_element(layout: _Layout, element: Element) -> None:
    match element:
        case Hose():
            layout.add(_hose_row(element, layout.line.rules), element.bore, element.bore)
        case Reducer():
            row = _bore_change(element.id, "reducer", element.bore_in, element.bore_out, element.length)
            layout.add(row, element.bore_in, element.bore_out)
        case FixedLoss():
            layout.add(_plain(element.id, "loss", element.bore, element.k), element.bore, element.bore)
        case Gate():
            k = fittings.gate_loss(element.opening, element.bore, layout.line.rules["gate.leak"])
            layout.add(_plain(element.id, "gate", element.bore, k), element.bore, element.bore)
        case Leak():
            layout.leak(element.id, element.area)
        case SlottedDisc():
            layout.add(_disc_row(element, layout.line), element.inlet_bore, element.outlet_diameter)
            layout.leak(bin_leak_id(element.id), bin_leak_area(element, layout.line.rules))


def bin_leak_area(separator: SlottedDisc, rules: RuleBook) -> Values:
    """Leak below the separator: measured, or its closure's rule [m^2]."""
    measured = separator.bin.leak_area
    return rules[f"closure.{separator.bin.closure}"] if measured is None else measured


def _hose_row(hose: Hose, rules: RuleBook) -> Row:
    roughness = rules[f"wall.{hose.wall}"] if hose.roughness is None else hose.roughness
    factor = rules["bend.corrugated"] if hose.wall in RIBBED_WALLS else 1.0
    k0: Values = 0.0
    k1 = hose.length / np.asarray(hose.bore)
    for bend in hose.bends:
        fixed, per_friction = fittings.bend_turning_loss(bend.angle, np.maximum(bend.radius / hose.bore, 0.5))
        k0, k1 = k0 + factor * fixed, k1 + factor * per_friction
    area = bore_area(hose.bore)
    return Row(hose.id, "hose", area, area, area, k0, k1, hose.bore, roughness / hose.bore)


def _bore_change(name: str, kind: str, bore_in: Values, bore_out: Values, length: Values) -> Row:
    narrow, wide = np.minimum(bore_in, bore_out), np.maximum(bore_in, bore_out)
    narrows = np.less(bore_out, bore_in)
    k0 = np.where(
        narrows, fittings.contraction_loss(wide, narrow, length), fittings.expansion_loss(narrow, wide, length)
    )
    k1 = fittings.cone_friction(bore_in, bore_out, length)
    smooth = 0.05e-3 / narrow
    return Row(name, kind, bore_area(bore_in), bore_area(bore_out), bore_area(narrow), k0, k1, narrow, smooth)


def dust_rate(line: Line) -> Values:
    """Dust made at all open ports [kg/s]; 0 where it is not known."""
    total: Values = 0.0
    for branch in line.branches:
        if branch.port.dust_rate is not None:
            opening = 1.0 if branch.gate_opening is None else branch.gate_opening
            total = total + np.where(np.asarray(opening) > 0.0, branch.port.dust_rate, 0.0)
    return total


def dust_load(line: Line, mass_flow: Values) -> Array:
    """c0, dust per air at the separator [kg/kg]."""
    return np.asarray(np.minimum(dust_rate(line) / np.maximum(mass_flow, 1e-9), 10.0))


def _disc_row(disc: SlottedDisc, line: Line) -> Row:
    area = bore_area(disc.outlet_diameter)
    friction = line.rules["swirl.friction-shop"]
    geometry = disc.geometry
    if not np.any(dust_rate(line)):
        k = loss_coefficient_orbit(geometry, friction, 0.0)
        return Row(disc.id, "separator", bore_area(disc.inlet_bore), area, area, k)

    def law(mass_flow: Array, density: Array) -> Array:
        k = loss_coefficient_orbit(geometry, friction, dust_load(line, mass_flow))
        return k / (2.0 * density * np.square(area))

    return Row(disc.id, "separator", bore_area(disc.inlet_bore), area, area, law=law)


def _add_vacuum(layout: _Layout) -> None:
    vacuum, bore = layout.line.vacuum, layout.bore
    if vacuum.inlet_bore is not None:
        bore = vacuum.inlet_bore
        layout.add(_plain(f"{VACUUM_ID}:inlet", "inlet", bore, 0.0), bore, bore)
    for name, medium in (("bag", vacuum.bag), ("filter", vacuum.filter)):
        if medium is not None:
            row = _plain(f"{VACUUM_ID}:{name}", "filter", bore, 0.0)
            layout.add(replace(row, law=_filter_law(medium, layout.line)), bore, bore)


def _cake_per_load(line: Line) -> Values:
    """K2 of the dust a filter holds [1/s]; that of 50 µm where the dust is not known."""
    if line.dust is None:
        return line.rules["filter.k2"]
    reaches = line.dust.weights * (1.0 - tank_drop_share(SIZES, line.rules["filter.tank-drop"]))
    cake = cake_coefficient(SIZES, *(line.rules[f"filter.{key}"] for key in ("k2", "k2-least", "k2-most")))
    return np.asarray(np.sum(cake * reaches, axis=0) / np.sum(reaches, axis=0))


def _filter_law(medium: FilterMedium, line: Line) -> SpecialLaw:
    """Only what the fan curve does not hold already: a filter's cake, and all of a bag.

    The cake is taken to have the sizes of the line's dust, the coarse ones dropped in the tank.
    """
    resistance = _cake_per_load(line) * np.minimum(medium.load, line.rules["filter.full"])
    if medium.kind == "bag":
        resistance = resistance + line.rules["filter.k1-bag"]

    def law(mass_flow: Array, density: Array) -> Array:
        flow = np.maximum(mass_flow, 1e-9) / density
        return np.asarray(cake_loss(resistance, flow / medium.area)) / np.square(np.maximum(mass_flow, 1e-9))

    return law
