"""What the bin under a stage gives back: how it is stirred, what leaks in, how full it is, how it leans."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.components.chambers import OpenBin
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.line.line import Line
from fenwick.core.workings.dusts import Grains, falling
from fenwick.core.workings.openings import falls_through, opening_of
from fenwick.core.workings.sheet import RULE, Input, Sheet, WorkedStep
from fenwick.core.workings.swirl import bin_height, fill_of, turning

BIN = "our estimate"


@dataclass(frozen=True)
class AirInside:
    """The air in a stage, as steps."""

    flow: Input  #: [m^3/s]
    density: Input  #: [kg/m^3]
    load: Input  #: c0 [kg/kg]
    leak: Input  #: below it [m^3/s]
    median: Input | None = None  #: of what enters it [m]; None where its load is 0


@dataclass(frozen=True)
class Surface:
    """The dust's surface in a bin, as steps."""

    fill: WorkedStep
    width: WorkedStep  #: diameter there, of a rectangular bin its hydraulic one
    area: WorkedStep


def _surface(sheet: Sheet, stage: Separator, prefix: str) -> Surface:
    name, bin_ = stage.id, stage.bin
    fill = fill_of(sheet, stage, prefix)
    heights = sheet.given(
        f"{name}.bin.profile[].height_m", "h_i", "Heights at which the bin was measured", np.array(bin_.heights), "m"
    )
    if bin_.sides:
        wide, deep = (
            sheet.given(
                f"{name}.bin.profile[].{key}",
                symbol,
                f"{told} at those heights",
                np.array([getattr(one, attribute) for one in bin_.sides]),
                "m",
            )
            for key, symbol, told, attribute in (
                ("width_m", "w_i", "Width", "width"),
                ("depth_m", "t_i", "Depth", "depth"),
            )
        )
        parts = {"f": fill, "h": heights, "w": wide, "t": deep}
        w, t = "interp(f, h, w)", "interp(f, h, t)"
        return Surface(
            fill,
            sheet.step(
                f"{prefix}{name}.surface",
                "D_bin",
                "Hydraulic width at the dust's surface",
                f"2 * {w} * {t} / ({w} + {t})",
                "m",
                "4 A/P",
                **parts,
            ),
            sheet.step(f"{prefix}{name}.surface-area", "A_bin", "Area there", f"{w} * {t}", "m²", "geometry", **parts),
        )
    widths = sheet.given(f"{name}.bin.profile[].d_m", "D_i", "Diameter at those heights", np.array(bin_.diameters), "m")
    width = sheet.step(
        f"{prefix}{name}.surface", "D_bin", "Width of the bin at the dust's surface", "interp(f, h, D)", "m", "",
        f=fill, h=heights, D=widths
    )  # fmt: skip
    area = sheet.step(
        f"{prefix}{name}.surface-area", "A_bin", "Area there", "pi / 4 * D ** 2", "m²", "geometry", D=width
    )
    return Surface(fill, width, area)


def _drop(sheet: Sheet, stage: Separator) -> WorkedStep | None:
    """How far below the rim the dust leaves the swirl; None where it is at the rim."""
    name = stage.id
    if isinstance(stage, SlottedDisc) and stage.hung:
        return sheet.given(f"{name}.chamber_height_m", "H_c", "Height of the chamber", stage.chamber_height, "m")
    if isinstance(stage, OpenBin):
        return sheet.given(
            f"{name}.outlet_length_m", "S", "Length of the tube below the roof", stage.outlet_length, "m"
        )
    return None


def free_height(sheet: Sheet, stage: Separator, prefix: str = "") -> WorkedStep:
    """From where dust leaves the swirl to its surface; at the high side of a heap that leans.

    Parameters
    ----------
    prefix : of the ids, where a stage is looked at twice
    """
    name = f"{prefix}{stage.id}"
    surface, drop, rim = _surface(sheet, stage, prefix), _drop(sheet, stage), bin_height(sheet, stage)
    outlet = rim
    if drop is not None:
        outlet = sheet.step(
            f"{stage.id}.outlet", "H_out", "Height of the dust outlet over the floor", "H - d", "m", "", H=rim, d=drop
        )
    if one_value(stage.tilt) == 0.0:
        return sheet.step(
            f"{name}.free", "h_free", "Free height over the dust", "H - f", "m", "", H=outlet, f=surface.fill
        )
    tilt = sheet.angle(f"{stage.id}.tilt_deg", "θ", "Lean from upright", stage.tilt)
    lean = sheet.step(
        f"{name}.lean", "u", "Half the bin's width by the slope, over the outlet's height",
        "D * tan(t) / (2 * maximum(H, 1e-6))", "-", BIN, RULE, D=surface.width, t=tilt, H=outlet
    )  # fmt: skip
    law = "H * where(u <= 0.5, 1 - u, 0.25 / maximum(u, 0.5)) - f"
    return sheet.step(
        f"{name}.free", "h_free", "Free height at the high side of the heap", law, "m", BIN, RULE, H=outlet, u=lean,
        f=surface.fill
    )  # fmt: skip


def stays_in_bin(sheet: Sheet, line: Line, stage: Separator, grains: Grains, air: AirInside, prefix: str) -> WorkedStep:
    """Share of each class that the bin does not give back."""
    name = f"{prefix}{stage.id}"
    surface, free = _surface(sheet, stage, prefix), free_height(sheet, stage, prefix)
    stir = sheet.step(
        f"{name}.stir", "F", "How much a full bin is stirred more than a deep one",
        "1 + s * exp(-maximum(f, 0) / (k * D))", "-", BIN, RULE, s=sheet.rule("bin.stir", "c_F"), f=free,
        k=sheet.rule("bin.stir-depth", "k_F"), D=surface.width
    )  # fmt: skip
    x = exchange(sheet, line, stage, air, prefix)
    fall = falling(sheet, line, grains, air.density, f"{name}.falls")
    up = sheet.step(
        f"{name}.up", "v_up", "Air that rises in the bin", "x * F ** 2 * Q / A", "m/s", BIN, RULE, x=x, F=stir,
        Q=air.flow, A=surface.area
    )  # fmt: skip
    law = "1 - minimum(1, x * F) * u ** 2 / maximum(u ** 2 + v ** 2, 1e-300)"
    lifted = sheet.step(
        f"{name}.not-lifted", "r_1", "Of each class, not lifted by it", law, "-", BIN, RULE, x=x, F=stir, u=up, v=fall
    )
    opening = opening_of(sheet, stage)
    jet = sheet.step(
        f"{name}.jet", "v_L", "Air that a leak below blows up through the opening", "k * L / A", "m/s", BIN, RULE,
        k=sheet.rule("bin.leak-jet", "k_jet"), L=air.leak, A=opening
    )  # fmt: skip
    law = "1 - minimum(1, k * L / Q) * j ** 2 / maximum(j ** 2 + v ** 2, 1e-300)"
    blown = sheet.step(
        f"{name}.not-blown", "r_2", "Of each class, not blown up by the leak", law, "-", BIN, RULE,
        k=sheet.rule("bin.leak-weight", "k_leak"), L=air.leak, Q=air.flow, j=jet, v=fall
    )  # fmt: skip
    law, more = "a * b * clip(f / (k * D), 0, 1)", {}
    if one_value(stage.tilt) != 0.0:
        tilt = sheet.angle(f"{stage.id}.tilt_deg", "θ", "Lean from upright", stage.tilt)
        law, more = f"{law} * cos(t) ** c", {"t": tilt, "c": sheet.rule(stage.manner.tilt, "k_tilt")}
    if not isinstance(stage, SlottedDisc):
        return sheet.step(
            f"{name}.stays", "r", "Of each class, what stays in the bin", law, "-", BIN, RULE, a=lifted, b=blown,
            f=free, k=sheet.rule("bin.brim", "k_brim"), D=surface.width, **more
        )  # fmt: skip
    through = falls_through(sheet, stage)
    law = f"1 - minimum(l * (1 - {law} * s), 1)"
    return sheet.step(
        f"{name}.stays", "r", "Of each class, what falls through and stays in the bin", law, "-", BIN, RULE,
        a=lifted, b=blown, f=free, k=sheet.rule("bin.brim", "k_brim"), D=surface.width, s=through,
        l=sheet.rule("slot.loss", "c_slot"), **more
    )  # fmt: skip


def exchange(sheet: Sheet, line: Line, stage: Separator, air: AirInside, prefix: str) -> WorkedStep:
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
            "A": opening_of(sheet, stage),
            "v": turn.wall,
            "Q": air.flow,
        }
        if manner.swirl is not None:  # what an elbow's air lacks in swirl it has in turbulence
            law, parts["s"] = "minimum(m, k * A * v / s / Q)", sheet.rule(manner.swirl, "c_swirl")
    if manner.exchange_more is not None:
        law, parts = f"c * {law}", {**parts, "c": sheet.rule(manner.exchange_more, "c_x")}
    for i in range(len(stage.bin.ledges)):
        law, parts = f"{law} + l{i}", {**parts, f"l{i}": _ledge(sheet, stage, i, prefix)}
    told = "Share of the air that dips into the bin and comes back"
    return sheet.step(f"{name}.exchange", "x", told, f"minimum({law}, 1)", "-", BIN, RULE, **parts)


def _ledge(sheet: Sheet, stage: Separator, i: int, prefix: str) -> WorkedStep:
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
