"""The air of the room, and the suction a fan makes in it."""

from __future__ import annotations

import numpy as np

from fenwick.core.components.vacuum import Curve, MeasuredCurve
from fenwick.core.formulas.air import GAS_CONSTANT, REFERENCE_DENSITY, STANDARD_PRESSURE, ZERO_CELSIUS
from fenwick.core.line.line import Line
from fenwick.core.workings.sheet import GIVEN, MEASURED, Input, Sheet, WorkedStep

GAS = "ideal gas"
ROOM = "The room"
ISA = "U.S. Standard Atmosphere 1976"


def gas_constant(sheet: Sheet) -> WorkedStep:
    """Of dry air."""
    with sheet.section(ROOM):
        return sheet.published("air.gas-constant", "R", "Gas constant of dry air", GAS_CONSTANT, "J/(kg K)", ISA)


def temperature(sheet: Sheet, line: Line) -> WorkedStep:
    """Of the room."""
    with sheet.section(ROOM):
        celsius = sheet.given(
            "site.temperature_c", "t", "Temperature of the room", line.site.temperature - ZERO_CELSIUS, "°C"
        )
        return sheet.step(
            "room.temperature", "T", "Likewise, from absolute zero", f"t + {ZERO_CELSIUS}", "K", t=celsius
        )


def room_pressure(sheet: Sheet, line: Line) -> WorkedStep:
    """Air pressure at the room's altitude."""
    with sheet.section(ROOM):
        level = sheet.published("air.sea-level", "p_sea", "Pressure at sea level", STANDARD_PRESSURE, "Pa", ISA)
        above = sheet.given("site.altitude_m", "h_sea", "Height above sea level", line.site.altitude, "m")
        law = "sea * (1 - 2.25577e-5 * h) ** 5.25588"
        return sheet.step("room.pressure", "p_room", "Air pressure in the room", law, "Pa", ISA, sea=level, h=above)


def room_density(sheet: Sheet, line: Line) -> WorkedStep:
    """Of the air that the tools draw."""
    with sheet.section(ROOM):
        parts = {"p": room_pressure(sheet, line), "R": gas_constant(sheet), "T": temperature(sheet, line)}
        return sheet.step("room.density", "ρ_room", "Density of the room's air", "p / (R * T)", "kg/m³", GAS, **parts)


def viscosity(sheet: Sheet, line: Line) -> WorkedStep:
    """Of the air, everywhere in the line."""
    with sheet.section(ROOM):
        law = "1.458e-6 * T ** 1.5 / (T + 110.4)"
        there = temperature(sheet, line)
        return sheet.step("room.viscosity", "μ", "Viscosity of the air", law, "Pa s", "Sutherland", T=there)


def reference_density(sheet: Sheet) -> WorkedStep:
    """That fan figures are stated at."""
    told = "Density that fan figures are stated at"
    return sheet.published("air.reference-density", "ρ_ref", told, REFERENCE_DENSITY, "kg/m³", "test standards of fans")


VACUUM_CURVE = "vacuum.curve"


def sealed_suction(sheet: Sheet, line: Line) -> WorkedStep:
    """With everything shut, in the room's air."""
    label = _sealed(sheet, line.vacuum.curve, VACUUM_CURVE)
    parts = {"p0": label, "rho": room_density(sheet, line), "ref": reference_density(sheet)}
    told = "Suction of the fan with everything shut, in the room's air"
    return sheet.step("vacuum.sealed", "p_sealed", told, "p0 * rho / ref", "Pa", "fan laws", **parts)


def _sealed(sheet: Sheet, curve: Curve, key: str) -> WorkedStep:
    kind = MEASURED if isinstance(curve, MeasuredCurve) else GIVEN
    told = "Sealed suction, at the reference density"
    return sheet.given(f"{key}.sealed_suction_pa", "p_0", told, curve.sealed_suction, "Pa", kind)


def fan_suction(
    sheet: Sheet, line: Line, flow: Input, curve: Curve | None = None, key: str = VACUUM_CURVE
) -> WorkedStep:
    """That a fan makes in the room's air at a flow.

    Parameters
    ----------
    flow : through it, at room density; a step [m^3/s]
    curve : of the fan; None: that of the vacuum
    key : of the curve in the rig
    """
    curve = line.vacuum.curve if curve is None else curve
    told, name = "Suction that the fan makes at that flow", f"{key}.suction"
    parts: dict[str, Input] = {"rho": room_density(sheet, line), "ref": reference_density(sheet)}
    if isinstance(curve, MeasuredCurve):
        law = "(y0 * (1 + 2 * t) * (1 - t) ** 2 + h * d0 * t * (1 - t) ** 2 + y1 * t ** 2 * (3 - 2 * t)"
        law += " + h * d1 * t ** 2 * (t - 1)) * rho / ref"
        parts |= _piece(sheet, curve, key, flow)
        return sheet.step(name, "p_fan", told, law, "Pa", "Fritsch & Carlson 1980 (PCHIP)", **parts)
    parts |= {"p0": _sealed(sheet, curve, key), "Q": flow}
    parts["Q0"] = sheet.given(f"{key}.open_flow_m3_s", "Q_0", "Open flow", curve.open_flow, "m³/s")
    parts["n"] = sheet.given(
        f"{key}.exponent", "n", "Bulge of the fan curve, 1 for a straight line", curve.exponent, "-"
    )
    return sheet.step(name, "p_fan", told, "p0 * (1 - (Q / Q0) ** n) * rho / ref", "Pa", "label", **parts)


def _piece(sheet: Sheet, curve: MeasuredCurve, key: str, flow: Input) -> dict[str, Input]:
    """The two measured points beside a flow, the slopes there, and how far it lies between them."""
    at_flow = float(np.ravel(np.asarray(flow.value if isinstance(flow, WorkedStep) else flow))[0])
    last = len(curve.flows) - 2
    i = int(np.clip(np.searchsorted(np.array(curve.flows), at_flow) - 1, 0, last))
    (x0, y0), (x1, y1) = _point(sheet, curve, key, i), _point(sheet, curve, key, i + 1)
    wide = sheet.step(f"{key}.piece", "ΔQ", "Between the points beside it", "x1 - x0", "m³/s", x1=x1, x0=x0)
    along = sheet.step(f"{key}.along", "t", "Way from one to the other", "(Q - x0) / h", "-", Q=flow, x0=x0, h=wide)
    slopes = {"d0": _slope(sheet, curve, key, i), "d1": _slope(sheet, curve, key, i + 1)}
    return {"y0": y0, "y1": y1, **slopes, "h": wide, "t": along}


def _point(sheet: Sheet, curve: MeasuredCurve, key: str, k: int) -> tuple[WorkedStep, WorkedStep]:
    """(flow, suction) of a point of the curve; its ends may be drawn out along the last secants."""
    flow, suction = (f"{key}.points[{k}].{name}" for name in ("flow_m3_s", "suction_pa"))
    told = f"of point {k + 1} of the measured curve, its ends drawn out straight"
    return (
        sheet.given(flow, f"Q_{k + 1}", f"Flow {told}", curve.flows[k], "m³/s", MEASURED),
        sheet.given(suction, f"p_{k + 1}", f"Suction {told}", curve.suctions[k], "Pa", MEASURED),
    )


def _slope(sheet: Sheet, curve: MeasuredCurve, key: str, k: int) -> WorkedStep:
    """Of the curve at one of its points: the weighted harmonic mean of both sides, at an end the three-point rule."""
    last = len(curve.flows) - 1
    before, at, after = (k - 1, k, k + 1) if 0 < k < last else (k, k + 1, k + 2) if k == 0 else (k, k - 1, k - 2)
    points = {}
    for name, place in (("a", before), ("b", at), ("c", after)):
        points[f"x{name}"], points[f"y{name}"] = _point(sheet, curve, key, place)
    near = "((yb - ya) / (xb - xa))"
    far = "((yc - yb) / (xc - xb))"
    if 0 < k < last:
        one, two = "(2 * (xc - xb) + xb - xa)", "(xc - xb + 2 * (xb - xa))"
        law = f"({one} + {two}) / ({one} / {near} + {two} / {far})"
    else:
        law = f"minimum(((2 * (xb - xa) + xc - xb) * {near} - (xb - xa) * {far}) / (xc - xa), 0)"
    told, source = f"Slope of the curve at point {k + 1}", "Fritsch & Carlson 1980 (PCHIP)"
    return sheet.step(f"{key}.slope-{k}", f"s_{k + 1}", told, law, "Pa s/m³", source, **points)
