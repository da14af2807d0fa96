"""What a stage keeps of each class of grains: thrown to the wall, and not given back by the bin."""

from __future__ import annotations

from fenwick.core.components.separator import Separator
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas.swirl import LEAST_SURPLUS_LOAD, TURNING_LOAD
from fenwick.core.line.line import Line
from fenwick.core.workings.dusts import Grains
from fenwick.core.workings.in_bin import BIN, AirInside, stays_in_bin
from fenwick.core.workings.sheet import RULE, Sheet, WorkedStep
from fenwick.core.workings.swirl import ORBIT, cut_size, turning


def kept_by_stage(
    sheet: Sheet, line: Line, stage: Separator | WetStage, grains: Grains, air: AirInside, prefix: str = ""
) -> WorkedStep:
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


def _wet(sheet: Sheet, stage: WetStage, grains: Grains, air: AirInside, prefix: str) -> WorkedStep:
    name = f"{prefix}{stage.id}"
    throat = sheet.given(f"{stage.id}.throat_d_m", "d_t", "Diameter of the throat", stage.throat_diameter, "m")
    speed = sheet.step(
        f"{name}.throat", "v_t", "Air speed in the throat", "Q / (pi / 4 * d ** 2)", "m/s", "geometry", Q=air.flow,
        d=throat
    )  # fmt: skip
    cut = sheet.step(
        f"{name}.cut", "d_50", "Cut size", "c * 20 / v", "m", BIN, RULE, c=sheet.rule("wet.cut", "d_20"), v=speed
    )
    return sheet.step(
        f"{name}.keeps", "η_i", "Of each class, kept", "1 / (1 + (c / d) ** 2)", "-", BIN, RULE, c=cut, d=grains.sizes
    )


def stage_cut(
    sheet: Sheet, line: Line, stage: Separator, grains: Grains, air: AirInside, prefix: str = ""
) -> WorkedStep:
    """The cut size that is told: that of the mean density.

    Parameters
    ----------
    prefix : of the ids, where a stage is looked at twice
    """
    turn = turning(sheet, stage, air.flow, air.load, prefix)
    return cut_size(sheet, line, stage, turn, air.flow, air.density, grains.mean_density, prefix)


def reaches_wall(sheet: Sheet, line: Line, stage: Separator, grains: Grains, air: AirInside, prefix: str) -> WorkedStep:
    """Share of each class that is thrown to the wall."""
    name = f"{prefix}{stage.id}"
    told = stage_cut(sheet, line, stage, grains, air, prefix)
    cut = told
    if grains.densities is not grains.mean_density:
        turn = turning(sheet, stage, air.flow, air.load, prefix)
        cut = cut_size(sheet, line, stage, turn, air.flow, air.density, grains.densities, f"each.{prefix}")
    steep = sheet.rule(stage.manner.steepness, "m")
    grade = sheet.step(
        f"{name}.grade", "η_wall", "Of each class, thrown to the wall", "1 / (1 + (c / d) ** m)", "-", ORBIT, c=cut,
        d=grains.sizes, m=steep
    )  # fmt: skip
    if air.median is not None:
        surplus = _surplus(sheet, name, told, air)
        grade = sheet.step(
            f"{name}.with-surplus", "η_wall", "Likewise, with the surplus that drops at once",
            "1 - (1 - s) * (1 - g)", "-", "Muschelknautz", s=surplus, g=grade
        )  # fmt: skip
    if stage.swapped:
        grade = sheet.step(
            f"{name}.swapped", "η_wall", "Likewise, with the hoses on each other's ports", "c * g", "-", BIN, RULE,
            c=sheet.rule("swirl.swapped", "c_swap"), g=grade
        )  # fmt: skip
    return grade


def _surplus(sheet: Sheet, name: str, cut: WorkedStep, air: AirInside) -> WorkedStep:
    """Share of the dust that is more than the swirl can carry."""
    assert air.median is not None
    law = f"maximum(c, {TURNING_LOAD!r})"
    followed = sheet.step(
        f"{name}.followed", "c_f", "Dust load, not below where the published law turns round", law, "kg/kg", "",
        c=air.load
    )  # fmt: skip
    law = "k * (d / m) * (10 * c) ** where(c >= 0.1, 0.15, -0.11 - 0.10 * log(c))"
    limit = sheet.step(
        f"{name}.limit", "c_0L", "Load that the swirl can carry", law, "kg/kg", "Muschelknautz",
        k=sheet.rule("swirl.limit-load", "k_L"), d=cut, m=air.median, c=followed
    )  # fmt: skip
    low = f"{LEAST_SURPLUS_LOAD!r}"
    law = f"maximum(1 - L / f, 0) * minimum(log(maximum(c, {low}) / {low}) / log({TURNING_LOAD!r} / {low}), 1)"
    return sheet.step(
        f"{name}.surplus", "s_drop", "Share that drops at once, whatever its size", law, "-",
        "Muschelknautz; fading out below it by our estimate", L=limit, f=followed, c=air.load
    )  # fmt: skip
