"""What a stage keeps of each class of grains: thrown to the wall, and not given back by the bin."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.chambers import OpenBin
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas.swirl import LEAST_SURPLUS_LOAD, TURNING_LOAD
from fenwick.core.line.line import Line
from fenwick.core.workings.dusts import Grains, falling
from fenwick.core.workings.sheet import RULE, Input, Sheet, Step
from fenwick.core.workings.swirl import ORBIT, bin_height, cut_size, fill_of, turning

BIN = "our estimate"


@dataclass(frozen=True)
class AirInside:
    """The air in a stage, as steps."""

    flow: Input  #: [m^3/s]
    density: Input  #: [kg/m^3]
    load: Input  #: c0 [kg/kg]
    leak: Input  #: below it [m^3/s]
    median: Input | None = None  #: of what enters it [m]; None where its load is 0


def kept_by_stage(
    sheet: Sheet, line: Line, stage: Separator | WetStage, grains: Grains, air: AirInside, prefix: str = ""
) -> Step:
    """Share of each class that a stage keeps.

    Parameters
    ----------
    prefix : of the ids, where a stage is looked at twice
    """
    if isinstance(stage, WetStage):
        return _wet(sheet, stage, grains, air, prefix)
    name = f"{prefix}{stage.id}"
    wall = reaches_wall(sheet, line, stage, grains, air, prefix)
    stays = stays_in_bin(sheet, line, stage, grains, air, prefix)
    return sheet.step(f"{name}.keeps", "η_i", "Of each class, kept", "w * r", "-", w=wall, r=stays)


def _wet(sheet: Sheet, stage: WetStage, grains: Grains, air: AirInside, prefix: str) -> Step:
    name = f"{prefix}{stage.id}"
    throat = sheet.given(f"{stage.id}.throat_d_m", "d_t", "Diameter of the throat", stage.throat_diameter, "m")
    speed = sheet.step(f"{name}.throat", "v_t", "Air speed in the throat", "Q / (pi / 4 * d ** 2)", "m/s", "geometry",
                       Q=air.flow, d=throat)  # fmt: skip
    cut = sheet.step(f"{name}.cut", "d_50", "Cut size", "c * 20 / v", "m", BIN, RULE, c=sheet.rule("wet.cut", "d_20"), v=speed)
    return sheet.step(f"{name}.keeps", "η_i", "Of each class, kept", "1 / (1 + (c / d) ** 2)", "-", BIN, RULE,
                      c=cut, d=grains.sizes)  # fmt: skip


def stage_cut(sheet: Sheet, line: Line, stage: Separator, grains: Grains, air: AirInside, prefix: str = "") -> Step:
    """The cut size that is told: that of the mean density.

    Parameters
    ----------
    prefix : of the ids, where a stage is looked at twice
    """
    turn = turning(sheet, stage, air.flow, air.load, prefix)
    return cut_size(sheet, line, stage, turn, air.flow, air.density, grains.mean_density, prefix)


def reaches_wall(sheet: Sheet, line: Line, stage: Separator, grains: Grains, air: AirInside, prefix: str) -> Step:
    """Share of each class that is thrown to the wall."""
    name = f"{prefix}{stage.id}"
    told = stage_cut(sheet, line, stage, grains, air, prefix)
    cut = told
    if grains.densities is not grains.mean_density:
        turn = turning(sheet, stage, air.flow, air.load, prefix)
        cut = cut_size(sheet, line, stage, turn, air.flow, air.density, grains.densities, f"each.{prefix}")
    steep = sheet.rule(stage.manner.steepness, "m")
    grade = sheet.step(f"{name}.grade", "η_wall", "Of each class, thrown to the wall", "1 / (1 + (c / d) ** m)", "-",
                       ORBIT, c=cut, d=grains.sizes, m=steep)  # fmt: skip
    if air.median is not None:
        surplus = _surplus(sheet, name, told, air)
        grade = sheet.step(f"{name}.with-surplus", "η_wall", "Likewise, with the surplus that drops at once",
                           "1 - (1 - s) * (1 - g)", "-", "Muschelknautz", s=surplus, g=grade)  # fmt: skip
    if stage.swapped:
        grade = sheet.step(f"{name}.swapped", "η_wall", "Likewise, with the hoses on each other's ports", "c * g", "-",
                           BIN, RULE, c=sheet.rule("swirl.swapped", "c_swap"), g=grade)  # fmt: skip
    return grade


def _surplus(sheet: Sheet, name: str, cut: Step, air: AirInside) -> Step:
    """Share of the dust that is more than the swirl can carry."""
    assert air.median is not None
    law = f"maximum(c, {TURNING_LOAD!r})"
    followed = sheet.step(f"{name}.followed", "c_f", "Dust load, not below where the published law turns round",
                          law, "kg/kg", "", c=air.load)  # fmt: skip
    law = "k * (d / m) * (10 * c) ** where(c >= 0.1, 0.15, -0.11 - 0.10 * log(c))"
    limit = sheet.step(f"{name}.limit", "c_0L", "Load that the swirl can carry", law, "kg/kg", "Muschelknautz",
                       k=sheet.rule("swirl.limit-load", "k_L"), d=cut, m=air.median, c=followed)  # fmt: skip
    low = f"{LEAST_SURPLUS_LOAD!r}"
    law = (
        f"maximum(1 - L / f, 0) * minimum(log(maximum(c, {low}) / {low}) / log({TURNING_LOAD!r} / {low}), 1)"
    )
    return sheet.step(f"{name}.surplus", "s_drop", "Share that drops at once, whatever its size", law, "-",
                      "Muschelknautz; fading out below it by our estimate", L=limit, f=followed, c=air.load)  # fmt: skip


@dataclass(frozen=True)
class _Surface:
    """The dust's surface in a bin, as steps."""

    fill: Step
    width: Step  #: diameter there, of a rectangular bin its hydraulic one
    area: Step


def _surface(sheet: Sheet, stage: Separator, prefix: str) -> _Surface:
    name, bin_ = stage.id, stage.bin
    fill = fill_of(sheet, stage, prefix)
    heights = sheet.given(f"{name}.bin.profile[].height_m", "h_i", "Heights at which the bin was measured",
                          np.array(bin_.heights), "m")  # fmt: skip
    if bin_.sides:
        wide, deep = (
            sheet.given(f"{name}.bin.profile[].{key}", symbol, f"{told} at those heights",
                        np.array([getattr(one, attribute) for one in bin_.sides]), "m")  # fmt: skip
            for key, symbol, told, attribute in (("width_m", "w_i", "Width", "width"), ("depth_m", "t_i", "Depth", "depth"))
        )
        parts = {"f": fill, "h": heights, "w": wide, "t": deep}
        w, t = "interp(f, h, w)", "interp(f, h, t)"
        return _Surface(
            fill,
            sheet.step(f"{prefix}{name}.surface", "D_bin", "Hydraulic width at the dust's surface",
                       f"2 * {w} * {t} / ({w} + {t})", "m", "4 A/P", **parts),
            sheet.step(f"{prefix}{name}.surface-area", "A_bin", "Area there", f"{w} * {t}", "m²", "geometry", **parts),
        )  # fmt: skip
    widths = sheet.given(f"{name}.bin.profile[].d_m", "D_i", "Diameter at those heights", np.array(bin_.diameters), "m")
    width = sheet.step(f"{prefix}{name}.surface", "D_bin", "Width of the bin at the dust's surface", "interp(f, h, D)",
                       "m", "", f=fill, h=heights, D=widths)  # fmt: skip
    area = sheet.step(f"{prefix}{name}.surface-area", "A_bin", "Area there", "pi / 4 * D ** 2", "m²", "geometry", D=width)
    return _Surface(fill, width, area)


def _drop(sheet: Sheet, stage: Separator) -> Step | None:
    """How far below the rim the dust leaves the swirl; None where it is at the rim."""
    name = stage.id
    if isinstance(stage, SlottedDisc) and stage.hung:
        return sheet.given(f"{name}.chamber_height_m", "H_c", "Height of the chamber", stage.chamber_height, "m")
    if isinstance(stage, OpenBin):
        return sheet.given(f"{name}.outlet_length_m", "S", "Length of the tube below the roof", stage.outlet_length, "m")
    return None


def free_height(sheet: Sheet, stage: Separator, prefix: str = "") -> Step:
    """From where dust leaves the swirl to its surface; at the high side of a heap that leans.

    Parameters
    ----------
    prefix : of the ids, where a stage is looked at twice
    """
    name = f"{prefix}{stage.id}"
    surface, drop, rim = _surface(sheet, stage, prefix), _drop(sheet, stage), bin_height(sheet, stage)
    outlet = rim
    if drop is not None:
        outlet = sheet.step(f"{stage.id}.outlet", "H_out", "Height of the dust outlet over the floor", "H - d", "m", "",
                            H=rim, d=drop)  # fmt: skip
    if one_value(stage.tilt) == 0.0:
        return sheet.step(f"{name}.free", "h_free", "Free height over the dust", "H - f", "m", "", H=outlet, f=surface.fill)
    tilt = sheet.angle(f"{stage.id}.tilt_deg", "θ", "Lean from upright", stage.tilt)
    lean = sheet.step(f"{name}.lean", "u", "Half the bin's width by the slope, over the outlet's height",
                      "D * tan(t) / (2 * maximum(H, 1e-6))", "-", BIN, RULE, D=surface.width, t=tilt, H=outlet)  # fmt: skip
    law = "H * where(u <= 0.5, 1 - u, 0.25 / maximum(u, 0.5)) - f"
    return sheet.step(f"{name}.free", "h_free", "Free height at the high side of the heap", law, "m", BIN, RULE,
                      H=outlet, u=lean, f=surface.fill)  # fmt: skip


def opening_of(sheet: Sheet, stage: Separator) -> Step:
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
    for i, slot in enumerate(stage.slots):
        parts[f"s{i}"] = _slot_area(sheet, stage, i)
        del slot
    if stage.hung:
        parts["g"] = _gap(sheet, stage)[1]
    return sheet.step(f"{name}.opening", "A_o", f"{told}: slots and gaps", " + ".join(parts), "m²", "geometry", **parts)


def _slot(sheet: Sheet, stage: SlottedDisc, i: int) -> tuple[Step, Step]:
    """(width, arc) of a slot."""
    key, slot = f"{stage.id}.slots[{i}]", stage.slots[i]
    return (
        sheet.given(f"{key}.width_m", "w", "Width of a slot", slot.width, "m"),
        sheet.angle(f"{key}.arc_deg", "φ", "Arc of a slot", slot.arc),
    )


def _slot_area(sheet: Sheet, stage: SlottedDisc, i: int) -> Step:
    width, arc = _slot(sheet, stage, i)
    d = sheet.given(f"{stage.id}.chamber_d_m", "D", "Diameter of the chamber", stage.chamber_diameter, "m")
    return sheet.step(f"{stage.id}.slots[{i}].area", "A_s", "Area of a slot", "w * a * (D - w) / 2", "m²", "geometry",
                      w=width, a=arc, D=d)  # fmt: skip


def _gap(sheet: Sheet, stage: SlottedDisc) -> tuple[Step, Step]:
    """(width, area) of the gap round a hung disc."""
    name = stage.id
    there = sheet.given(f"{name}.bin.profile.at-disc", "D_there", "Width of the bin where the disc hangs",
                        stage.bin.narrow_at(stage.bin.height - stage.chamber_height), "m")  # fmt: skip
    d = sheet.given(f"{name}.chamber_d_m", "D", "Diameter of the chamber", stage.chamber_diameter, "m")
    wide = sheet.step(f"{name}.gap", "g", "Gap round the disc", "maximum((W - D) / 2, 0)", "m", "", W=there, D=d)
    return wide, sheet.step(f"{name}.gap-area", "A_g", "Area of that gap", "pi * D * g", "m²", "geometry", D=d, g=wide)


def stays_in_bin(sheet: Sheet, line: Line, stage: Separator, grains: Grains, air: AirInside, prefix: str) -> Step:
    """Share of each class that the bin does not give back."""
    name = f"{prefix}{stage.id}"
    surface, free = _surface(sheet, stage, prefix), free_height(sheet, stage, prefix)
    stir = sheet.step(f"{name}.stir", "F", "How much a full bin is stirred more than a deep one",
                      "1 + s * exp(-maximum(f, 0) / (k * D))", "-", BIN, RULE,
                      s=sheet.rule("bin.stir", "c_F"), f=free, k=sheet.rule("bin.stir-depth", "k_F"), D=surface.width)  # fmt: skip
    x = exchange(sheet, line, stage, air, prefix)
    fall = falling(sheet, line, grains, air.density, f"{name}.falls")
    up = sheet.step(f"{name}.up", "v_up", "Air that rises in the bin", "x * F ** 2 * Q / A", "m/s", BIN, RULE,
                    x=x, F=stir, Q=air.flow, A=surface.area)  # fmt: skip
    law = "1 - minimum(1, x * F) * u ** 2 / maximum(u ** 2 + v ** 2, 1e-300)"
    lifted = sheet.step(f"{name}.not-lifted", "r_1", "Of each class, not lifted by it", law, "-", BIN, RULE,
                        x=x, F=stir, u=up, v=fall)  # fmt: skip
    opening = opening_of(sheet, stage)
    jet = sheet.step(f"{name}.jet", "v_L", "Air that a leak below blows up through the opening", "k * L / A", "m/s", BIN,
                     RULE, k=sheet.rule("bin.leak-jet", "k_jet"), L=air.leak, A=opening)  # fmt: skip
    law = "1 - minimum(1, k * L / Q) * j ** 2 / maximum(j ** 2 + v ** 2, 1e-300)"
    blown = sheet.step(f"{name}.not-blown", "r_2", "Of each class, not blown up by the leak", law, "-", BIN, RULE,
                       k=sheet.rule("bin.leak-weight", "k_leak"), L=air.leak, Q=air.flow, j=jet, v=fall)  # fmt: skip
    law, more = "a * b * clip(f / (k * D), 0, 1)", {}
    if one_value(stage.tilt) != 0.0:
        tilt = sheet.angle(f"{stage.id}.tilt_deg", "θ", "Lean from upright", stage.tilt)
        law, more = f"{law} * cos(t) ** c", {"t": tilt, "c": sheet.rule(stage.manner.tilt, "k_tilt")}
    if not isinstance(stage, SlottedDisc):
        return sheet.step(f"{name}.stays", "r", "Of each class, what stays in the bin", law, "-", BIN, RULE,
                          a=lifted, b=blown, f=free, k=sheet.rule("bin.brim", "k_brim"), D=surface.width, **more)  # fmt: skip
    through = _falls_through(sheet, stage)
    law = f"1 - minimum(l * (1 - {law} * s), 1)"
    return sheet.step(f"{name}.stays", "r", "Of each class, what falls through and stays in the bin", law, "-", BIN, RULE,
                      a=lifted, b=blown, f=free, k=sheet.rule("bin.brim", "k_brim"), D=surface.width,
                      s=through, l=sheet.rule("slot.loss", "c_slot"), **more)  # fmt: skip


def exchange(sheet: Sheet, line: Line, stage: Separator, air: AirInside, prefix: str) -> Step:
    """Share of the flow that dips into the bin and comes back."""
    name, manner = f"{prefix}{stage.id}", stage.manner
    parts: dict[str, Input]
    if manner.exchange_fixed:
        law, parts = "k", {"k": sheet.rule(manner.exchange, "x")}
    else:
        turn = turning(sheet, stage, air.flow, air.load, prefix)
        law = "minimum(m, k * A * v / Q)"
        parts = {
            "m": sheet.rule("bin.exchange-most", "x_most"),
            "k": sheet.rule(manner.exchange, "k_x"),
            **{"A": opening_of(sheet, stage), "v": turn.wall, "Q": air.flow},
        }
    if manner.exchange_more is not None:
        law, parts = f"c * {law}", {**parts, "c": sheet.rule(manner.exchange_more, "c_x")}
    for i in range(len(stage.bin.ledges)):
        law, parts = f"{law} + l{i}", {**parts, f"l{i}": _ledge(sheet, stage, i, prefix)}
    told = "Share of the air that dips into the bin and comes back"
    return sheet.step(f"{name}.exchange", "x", told, f"minimum({law}, 1)", "-", BIN, RULE, **parts)


def _ledge(sheet: Sheet, stage: Separator, i: int, prefix: str) -> Step:
    ledge, name = stage.bin.ledges[i], f"{stage.id}.bin.ledges[{i}]"
    surface, drop, rim = _surface(sheet, stage, prefix), _drop(sheet, stage), bin_height(sheet, stage)
    high = sheet.given(f"{name}.height_m", "h_l", "Height of a ledge over the floor", ledge.height, "m")
    deep = sheet.given(f"{name}.depth_m", "δ", "Depth of the ledge", ledge.depth, "m")
    law = "k * d / 0.010 / (1 + exp(clip((H - h - z * D) / (f * D), -60, 60))) * clip((h - s) / (f * D), 0, 1)"
    parts: dict[str, Input] = {"k": sheet.rule("bin.ledge", "k_l"), "d": deep, "H": rim, "h": high, "D": surface.width}
    parts |= {"z": sheet.rule("bin.swirl-zone", "k_z"), "f": sheet.rule("bin.ledge-fades", "k_f"), "s": surface.fill}
    if drop is not None:
        law, parts = law.replace("(H - h", "(H - e - h"), {**parts, "e": drop}
    return sheet.step(f"{prefix}{name}.exchange", "x_l", "What a ledge adds", law, "-", BIN, RULE, **parts)


def _falls_through(sheet: Sheet, stage: SlottedDisc) -> Step:
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
    return sheet.step(f"{name}.falls-through", "s", told, law, "-", BIN, RULE, p=sheet.rule("slot.arc", "φ_0"), **parts)
