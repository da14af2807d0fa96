"""Bodies bent cold from flat sheet: by the stress that plastic holds for years, by the radius that plywood takes.

The first variant.
"""

from __future__ import annotations

from fenwick.core.arrays import one_value
from fenwick.core.components.bins import MATERIALS
from fenwick.core.components.separator import Separator, SlottedDisc, slot_land
from fenwick.core.formulas.shell import bending_stress
from fenwick.core.judging.check import OK, Check, fact, figure
from fenwick.core.rules import RuleBook

FREE = "steel"  #: bends as one likes
BY_RADIUS = "plywood"
BY_RULE = ("acrylic", "hdpe")  #: plastics whose limit for years is a rule, `sheet.NAME`


def sheet_checks(stage: Separator, rules: RuleBook) -> list[Check]:
    """Whether the body of a stage stands being bent; a material of which nothing is known is said not to be judged."""
    radius = stage.bent_radius
    if stage.body is None or radius is None or stage.body[0] == FREE:
        return []
    material, thickness = stage.body[0], one_value(stage.body[1])
    bent = one_value(radius)
    if material == BY_RADIUS:
        least = one_value(rules["sheet.plywood"]) * thickness
        return [figure("sheet-radius", False, bent < least, bent, least, "bore", stage.id)]
    limits = bent_limits(material, rules)
    if limits is None:
        return [fact("sheet-not-judged", OK, stage.id, (material,))]
    holds, cracks = limits
    stress = one_value(bending_stress(MATERIALS[material].youngs_modulus, thickness, bent))
    return [figure("sheet-bends", stress > cracks, stress > holds, stress, holds, "stress", stage.id)]


def land_checks(stage: Separator, rules: RuleBook) -> list[Check]:
    """Slots that leave too little of their disc between them; nothing is said where they leave enough."""
    if not isinstance(stage, SlottedDisc):
        return []
    left = slot_land(stage.slots, one_value(stage.chamber_diameter) / 2.0)
    land = one_value(rules["make.slot-land"])
    return [figure("slot-land", left <= 0.0, True, left, land, "length", stage.id)] if left < land else []


def bent_limits(material: str, rules: RuleBook) -> tuple[float, float] | None:
    """Stress that a sheet holds for years, and that at which it cracks or buckles [Pa]; None: not known."""
    made_of = MATERIALS.get(material)
    if made_of is None:
        return None
    if made_of.holds_bent is not None and made_of.cracks_bent is not None:
        return made_of.holds_bent, made_of.cracks_bent
    if material not in BY_RULE:
        return None
    holds = one_value(rules[f"sheet.{material}"])
    return holds, holds * one_value(rules["sheet.breaks"])
