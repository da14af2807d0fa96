"""Whether the sheet of a part stands being bent as tight as the design wants it."""

from __future__ import annotations

from fenwick.core.arrays import one_value
from fenwick.core.components.bins import MATERIALS
from fenwick.core.formulas.shell import bending_stress
from fenwick.core.judging.sheets import BY_RADIUS, bent_limits
from fenwick.core.making.parts import MadePart, Trouble
from fenwick.core.rules import RuleBook

FREE = ("steel", "board", "paper")  #: bent as one likes
CORRUGATED = "board"


def bend_troubles(part: MadePart, rules: RuleBook) -> list[Trouble]:
    """A wrap or cone bent tighter than its sheet takes; of an unknown one it is said that it is not known."""
    d = part.dims.get("bottom_d_m", part.dims.get("inner_d_m"))
    if part.kind not in ("wrap", "cone") or d is None or part.stock.material in FREE:
        return []
    radius, material = d / 2.0, part.stock.material
    if material == BY_RADIUS:
        least = one_value(rules["sheet.plywood"]) * part.stock.thickness
        return [Trouble("wrap-tight", part.id, radius, least)] if radius < least else []
    limits = bent_limits(material, rules)
    if limits is None:
        return [Trouble("wrap-unknown", part.id)]
    stiff = MATERIALS[material].youngs_modulus
    stress = one_value(bending_stress(stiff, part.stock.thickness, radius))
    if stress <= limits[0]:
        return []
    return [Trouble("wrap-tight", part.id, radius, radius * stress / limits[0])]
