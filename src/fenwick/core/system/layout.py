"""From parts to resistances: walks a line with the air and lays out its network.

Bores that do not match get a sudden change of bore by themselves; its row is called "a>b" after its neighbours.
"""

from __future__ import annotations

from dataclasses import replace
from typing import TypeAlias

import numpy as np

from fenwick.core.arrays import Array, Values
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
    Port,
    Reducer,
)
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

Bored: TypeAlias = Hose | Reducer | FixedLoss | Gate | Elbow | Plate | InlineFilter | SlottedDisc
JUNCTION_ID = "junction"
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
    joined = bore if bore is not None else next((_bore_in(e) for e in following if not isinstance(e, Leak)), last)
    layout.join(arriving, joined, name)


def _bore_in(element: Bored) -> Values:
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
    if branch.port is not None:
        port = branch.port
        k = entry_loss(port, layout.line.rules)
        layout.add(_plain(f"{branch.id}:entry", "entry", port.bore, k), port.bore, port.bore)
    else:
        _add_group(layout, branch.branches, branch.elements, branch.junction_bore, f"{branch.id}:junction")
    for element in branch.elements:
        _add_element(layout, element)
    if branch.gate_opening is not None:
        _add_element(layout, Gate(f"{branch.id}:gate", layout.bore, branch.gate_opening))


def entry_loss(port: Port, rules: RuleBook) -> Values:
    """K of a port's entry on its velocity head [-]."""
    if port.entry_loss is not None:
        return port.entry_loss
    loss = ENTRY_LOSS[port.entry]
    return rules[loss] if isinstance(loss, str) else loss


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
            k = fittings.gate_loss(
                element.opening, element.bore, layout.line.rules["gate.leak"], layout.line.rules["gate.body"]
            )
            layout.add(_plain(element.id, "gate", element.bore, k), element.bore, element.bore)
        case Elbow():
            layout.add(_elbow_row(element, layout.line.rules), element.bore, element.bore)
        case Plate():
            k = fittings.plate_loss(element.bore, element.open_area)
            layout.add(_plain(element.id, "plate", element.bore, k), element.bore, element.bore)
        case InlineFilter():
            row = _plain(element.id, "inline-filter", element.bore, 0.0)
            law = _filter_law(element.medium, layout.line, clean_too=True)
            layout.add(replace(row, law=law), element.bore, element.bore)
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


def _elbow_row(elbow: Elbow, rules: RuleBook) -> Row:
    row = _plain(elbow.id, "elbow", elbow.bore, 0.0)
    if elbow.style == "mitre":
        return replace(row, k0=fittings.mitre_loss(elbow.angle))
    if elbow.style == "short":
        return replace(row, k0=rules["elbow.short"] * elbow.angle / (np.pi / 2.0))
    ratio = rules["elbow.sweep"] if elbow.radius is None else elbow.radius / elbow.bore
    ratio = np.maximum(ratio, 0.5)
    fixed, per_friction = fittings.bend_turning_loss(elbow.angle, ratio)
    along = elbow.angle * ratio  # its own wall, which no hose's length includes
    smooth = rules["wall.pipe"] / elbow.bore
    return replace(row, k0=fixed, k1=per_friction + along, bore=elbow.bore, relative_roughness=smooth)


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
    for leaf in line.leaves:
        if leaf.port.dust_rate is not None:
            opening: Values = 1.0
            for branch in leaf.way:
                opening = np.minimum(opening, 1.0 if branch.gate_opening is None else branch.gate_opening)
            total = total + np.where(np.asarray(opening) > 0.0, leaf.port.dust_rate, 0.0)
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
            layout.add(replace(row, law=_filter_law(medium, layout.line, clean_too=name == "bag")), bore, bore)


def _cake_per_load(line: Line) -> Values:
    """K2 of the dust a filter holds [1/s]; that of 50 µm where the dust is not known."""
    if line.dust is None:
        return line.rules["filter.k2"]
    reaches = line.dust.weights * (1.0 - tank_drop_share(SIZES, line.rules["filter.tank-drop"]))
    cake = cake_coefficient(SIZES, *(line.rules[f"filter.{key}"] for key in ("k2", "k2-least", "k2-most")))
    return np.asarray(np.sum(cake * reaches, axis=0) / np.sum(reaches, axis=0))


def _filter_law(medium: FilterMedium, line: Line, *, clean_too: bool) -> SpecialLaw:
    """A cake, and with `clean_too` the clean medium as well; the fan curve holds the vacuum's own clean filter already.

    The cake is taken to have the sizes of the line's dust, the coarse ones dropped in the tank.
    """
    resistance = _cake_per_load(line) * np.minimum(medium.load, line.rules["filter.full"])
    if clean_too:
        resistance = resistance + line.rules[f"filter.k1-{medium.kind}"]

    def law(mass_flow: Array, density: Array) -> Array:
        flow = np.maximum(mass_flow, 1e-9) / density
        return np.asarray(cake_loss(resistance, flow / medium.area)) / np.square(np.maximum(mass_flow, 1e-9))

    return law
