"""The resistance of each part: one row of the network."""

from __future__ import annotations

from dataclasses import replace
from typing import TypeAlias

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.elements import Elbow, FixedLoss, Gate, Hose, InlineFilter, Plate, Port
from fenwick.core.components.separator import Separator
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas import fittings
from fenwick.core.formulas.fittings import bore_area
from fenwick.core.formulas.swirl import loss_coefficient_orbit
from fenwick.core.formulas.wet import wet_stage_drop
from fenwick.core.line.catch import Catch, dust_load
from fenwick.core.line.filters import INLINE, filter_law
from fenwick.core.line.line import Line
from fenwick.core.line.network import Row
from fenwick.core.rules import ENTRY_LOSS, RuleBook

RIBBED_WALLS = ("wire-helix", "corrugated")


def bin_leak_id(separator_id: str) -> str:
    """Name of the leak below a separator in the solution."""
    return f"{separator_id}:bin"


def plain_row(name: str, kind: str, bore: Values, k0: Values) -> Row:
    """A loss of K velocity heads [-] in one bore [m].

    Parameters
    ----------
    bore : inside diameter [m]
    k0 : velocity heads lost [-]
    """
    area = bore_area(bore)
    return Row(name, kind, area, area, area, k0)


def entry_loss(port: Port, rules: RuleBook) -> Values:
    """K of a port's entry on its velocity head, by its kind or as given, readings left aside [-]."""
    if port.entry_loss is not None:
        return port.entry_loss
    loss = ENTRY_LOSS[port.entry]
    return rules[loss] if isinstance(loss, str) else loss


def window_id(separator_id: str) -> str:
    """Name of a drop pipe's side window in the solution."""
    return f"{separator_id}:window"


def bin_leak_area(separator: Separator, rules: RuleBook) -> Values:
    """Leak below the separator: measured, or its closure's rule [m^2]."""
    measured = separator.bin.leak_area
    return rules[f"closure.{separator.bin.closure}"] if measured is None else measured * rules["bin.leak-reading"]


def bin_leak_reading(separator: Separator, rules: RuleBook) -> Values:
    """The area that, given for the leak below the separator, stands for what it is taken to be [m^2]."""
    measured = separator.bin.leak_area
    return bin_leak_area(separator, rules) / rules["bin.leak-reading"] if measured is None else measured


Straight: TypeAlias = Hose | FixedLoss | Gate | Elbow | Plate | InlineFilter


def straight_row(element: Straight, line: Line) -> Row:
    """A part as wide at its end as at its start."""
    rules = line.rules
    match element:
        case Hose():
            return hose_row(element, rules)
        case FixedLoss():
            return plain_row(element.id, "loss", element.bore, element.k)
        case Gate():
            k = fittings.gate_loss(element.opening, element.bore, rules["gate.leak"], rules["gate.body"])
            return plain_row(element.id, "gate", element.bore, k)
        case Elbow():
            return elbow_row(element, rules)
        case Plate():
            return plain_row(element.id, "plate", element.bore, fittings.plate_loss(element.bore, element.open_area))
        case InlineFilter():
            law = filter_law(element.medium, line, INLINE)
            return replace(plain_row(element.id, "inline-filter", element.bore, 0.0), law=law)


def wall_roughness(hose: Hose, rules: RuleBook) -> Values:
    """Of a hose's wall, measured or by its rule [m]."""
    return rules[f"wall.{hose.wall}"] if hose.roughness is None else hose.roughness


def bend_factor(hose: Hose, rules: RuleBook) -> Values:
    """Loss of a hose's bends against smooth ones [-]."""
    return bends_of_wall(hose.wall, rules) if hose.bend_factor is None else hose.bend_factor


def bends_of_wall(wall: str, rules: RuleBook) -> Values:
    """Loss of the bends of a hose with such a wall against smooth ones [-]."""
    return rules["bend.corrugated"] if wall in RIBBED_WALLS else 1.0


def hose_row(hose: Hose, rules: RuleBook) -> Row:
    """Friction along a hose, and what its bends add."""
    roughness, factor = wall_roughness(hose, rules), bend_factor(hose, rules)
    k0: Values = 0.0
    k1 = hose.length / np.asarray(hose.bore)
    for bend in hose.bends:
        fixed, per_friction = fittings.bend_turning_loss(bend.angle, np.maximum(bend.radius / hose.bore, 0.5))
        k0, k1 = k0 + factor * fixed, k1 + factor * per_friction
    area = bore_area(hose.bore)
    return Row(hose.id, "hose", area, area, area, k0, k1, hose.bore, roughness / hose.bore)


def elbow_row(elbow: Elbow, rules: RuleBook) -> Row:
    """A rigid elbow by its style."""
    row = plain_row(elbow.id, "elbow", elbow.bore, 0.0)
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


def bore_change(name: str, kind: str, bore_in: Values, bore_out: Values, length: Values) -> Row:
    """A step or a cone between two bores [m].

    Parameters
    ----------
    bore_in : upstream [m]
    bore_out : downstream [m]
    length : of the cone; 0 for a step [m]
    """
    narrow, wide = np.minimum(bore_in, bore_out), np.maximum(bore_in, bore_out)
    narrows = np.less(bore_out, bore_in)
    k0 = np.where(
        narrows, fittings.contraction_loss(wide, narrow, length), fittings.expansion_loss(narrow, wide, length)
    )
    k1 = fittings.cone_friction(bore_in, bore_out, length)
    smooth = 0.05e-3 / narrow
    return Row(name, kind, bore_area(bore_in), bore_area(bore_out), bore_area(narrow), k0, k1, narrow, smooth)


def swirl_factor(separator: Separator, rules: RuleBook) -> Values:
    """Swirl of a separator's inlet against a tangential one [-]."""
    key = separator.manner.swirl
    return 1.0 if key is None else rules[key]


def stage_load(stage: Separator, line: Line, caught: Values, mass_flow: Values) -> Values:
    """c0 at a stage [kg/kg]; behind the first one hardly any dust is left, and the air counts as clean.

    Parameters
    ----------
    caught : dust that enters the first stage [kg/s]
    mass_flow : of air [kg/s]
    """
    return dust_load(caught, mass_flow) if line.stages[0].id == stage.id else 0.0


def swirl_row(separator: Separator, line: Line, catch: Catch, entries: list[int]) -> Row:
    """A separator, by the orbit model.

    Parameters
    ----------
    catch : what its hoods catch
    entries : rows of the ports' entries, in the order of the leaves [-]
    """
    area_in, area = bore_area(separator.hose_bore), bore_area(separator.outlet_bore)
    friction, swirl = line.rules[separator.manner.friction], swirl_factor(separator, line.rules)
    geometry = separator.geometry
    if not catch.tools or line.stages[0].id != separator.id:
        k = loss_coefficient_orbit(geometry, friction, 0.0, swirl)
        return Row(separator.id, "separator", area_in, area, area, k)

    def law(mass_flow: Array, density: Array, every: Array) -> Array:
        caught = catch.rate(every[entries] / line.site.density)
        k = loss_coefficient_orbit(geometry, friction, dust_load(caught, mass_flow), swirl)
        return k / (2.0 * density * np.square(area))

    return Row(separator.id, "separator", area_in, area, area, law=law)


def wet_row(stage: WetStage, bore: Values) -> Row:
    """A wet stage between hoses of a bore [m]: the water over its throat, and the throat itself.

    Parameters
    ----------
    bore : of the hoses beside it [m]
    """
    area, around = bore_area(stage.throat_diameter), bore_area(bore)

    def law(mass_flow: Array, density: Array, _: Array) -> Array:
        mass = np.maximum(mass_flow, 1e-9)
        return wet_stage_drop(stage.immersion, mass, area, density) / np.square(mass)

    return Row(stage.id, "wet-stage", around, around, area, law=law)
