"""The opening between a swirl and its bin: slots, gaps, a cone's end, a whole rim."""

from __future__ import annotations

from fenwick.core.components.chambers import OpenBin
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.workings.sheet import RULE, Input, Sheet, WorkedStep


def opening_of(sheet: Sheet, stage: Separator) -> WorkedStep:
    """Between the swirl and the bin."""
    name, told = stage.id, "Opening to the bin"
    if isinstance(stage, Cyclone):
        dust = sheet.given(f"{name}.dust_outlet_d_m", "B", "Diameter of the dust outlet", stage.shape.dust_outlet, "m")
        return sheet.step(f"{name}.opening", "A_o", told, "pi / 4 * B ** 2", "m²", "geometry", B=dust)
    if isinstance(stage, OpenBin):
        area = stage.bin.area_at(stage.bin.height)
        return sheet.given(f"{name}.bin.profile.rim", "A_o", f"{told}: the whole rim", area, "m²")
    assert isinstance(stage, SlottedDisc)
    parts: dict[str, Input] = {}
    for i in range(len(stage.slots)):
        parts[f"s{i}"] = _slot_area(sheet, stage, i)
    if stage.hung:
        parts["g"] = _gap(sheet, stage)[1]
    return sheet.step(f"{name}.opening", "A_o", f"{told}: slots and gaps", " + ".join(parts), "m²", "geometry", **parts)


def _slot(sheet: Sheet, stage: SlottedDisc, i: int) -> tuple[WorkedStep, WorkedStep]:
    """(width, arc) of a slot."""
    key, slot = f"{stage.id}.slots[{i}]", stage.slots[i]
    return (
        sheet.given(f"{key}.width_m", "w", "Width of a slot", slot.width, "m"),
        sheet.angle(f"{key}.arc_deg", "φ", "Arc of a slot", slot.arc),
    )


def _slot_area(sheet: Sheet, stage: SlottedDisc, i: int) -> WorkedStep:
    width, arc = _slot(sheet, stage, i)
    d = sheet.given(f"{stage.id}.chamber_d_m", "D", "Diameter of the chamber", stage.chamber_diameter, "m")
    return sheet.step(
        f"{stage.id}.slots[{i}].area", "A_s", "Area of a slot", "w * a * (D - w) / 2", "m²", "geometry", w=width,
        a=arc, D=d
    )  # fmt: skip


def _gap(sheet: Sheet, stage: SlottedDisc) -> tuple[WorkedStep, WorkedStep]:
    """(width, area) of the gap round a hung disc."""
    name = stage.id
    there = sheet.given(
        f"{name}.bin.profile.at-disc", "D_there", "Width of the bin where the disc hangs",
        stage.bin.narrow_at(stage.bin.height - stage.chamber_height), "m"
    )  # fmt: skip
    d = sheet.given(f"{name}.chamber_d_m", "D", "Diameter of the chamber", stage.chamber_diameter, "m")
    wide = sheet.step(f"{name}.gap", "g", "Gap round the disc", "maximum((W - D) / 2, 0)", "m", "", W=there, D=d)
    return wide, sheet.step(f"{name}.gap-area", "A_g", "Area of that gap", "pi * D * g", "m²", "geometry", D=d, g=wide)


def falls_through(sheet: Sheet, stage: SlottedDisc) -> WorkedStep:
    """Of what the swirl throws out, what finds a slot and falls through it."""
    name = stage.id
    least = sheet.rule("slot.falls", "w_0")
    weighted, area, arc = [], [], []
    parts: dict[str, Input] = {"w0": least}
    for i in range(len(stage.slots)):
        width, turn = _slot(sheet, stage, i)
        parts |= {f"w{i + 1}": width, f"a{i + 1}": _slot_area(sheet, stage, i), f"t{i + 1}": turn}
        weighted.append(f"(1 - exp(-(w{i + 1} / w0) ** 2)) * a{i + 1}")
        area.append(f"a{i + 1}")
        arc.append(f"t{i + 1}")
    if stage.hung:
        wide, gap = _gap(sheet, stage)
        parts |= {"g": wide, "ag": gap}
        weighted.append("(1 - exp(-(g / w0) ** 2)) * ag")
        area.append("ag")
        arc.append("2 * pi * (1 - exp(-(g / w0) ** 2))")
    law = f"({' + '.join(weighted)}) / maximum({' + '.join(area)}, 1e-12)"
    law += f" * (1 - exp(-({' + '.join(arc)}) / (p * pi / 180)))"
    told = "Of what reaches the disc, what finds a slot and falls through"
    return sheet.step(
        f"{name}.falls-through", "s", told, law, "-", "our estimate", RULE, p=sheet.rule("slot.arc", "φ_0"), **parts
    )
