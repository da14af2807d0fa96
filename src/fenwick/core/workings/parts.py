"""What each part of a line costs: K on the velocity head of its bore, as K = k₀ + k₁ f."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Values, one_value
from fenwick.core.components.elements import Bend, Elbow, FixedLoss, Gate, Hose, Plate, Port, Reducer
from fenwick.core.formulas.fittings import LEAST_OPEN
from fenwick.core.formulas.friction import ROUGHEST, friction_factor_colebrook
from fenwick.core.formulas.orifice import DISCHARGE
from fenwick.core.line.line import Line
from fenwick.core.line.rows import RIBBED_WALLS
from fenwick.core.rules import ENTRY_LOSS
from fenwick.core.workings.room_air import viscosity
from fenwick.core.workings.sheet import Input, Sheet, WorkedStep

RENNELS = "Rennels & Hudson, Pipe Flow (2012)"
VENTILATION = "industrial ventilation practice"


@dataclass(frozen=True)
class Cost:
    """What a part costs, on the velocity head of an area."""

    fixed: WorkedStep | None  #: k₀
    per_friction: WorkedStep | None = None  #: k₁
    bore: WorkedStep | None = None  #: that its friction is reckoned on
    roughness: WorkedStep | None = None  #: of its wall


def area_of(sheet: Sheet, name: str, bore: Input, symbol: str = "A") -> WorkedStep:
    """Of a round bore.

    Parameters
    ----------
    name : id of the step
    bore : a step [m]
    """
    return sheet.step(name, symbol, "Area of the bore", "pi / 4 * d ** 2", "m²", "geometry", d=bore)


def bore_of(sheet: Sheet, part: str, bore: Values) -> WorkedStep:
    """Of a part, by its id.

    Parameters
    ----------
    bore : [m]
    """
    return sheet.given(f"{part}.bore_m", "d", "Bore", bore, "m")


def entry_cost(sheet: Sheet, line: Line, name: str, port: Port) -> Cost:
    """Of a port's mouth."""
    kind = ENTRY_LOSS[port.entry]
    if port.entry_loss is not None:
        own = sheet.given(f"{name}.entry_k", "K_own", "Velocity heads lost at the entry", port.entry_loss, "-")
    elif isinstance(kind, str):
        own = sheet.rule(kind, "K_own")
    else:
        own = sheet.published(f"entry.{port.entry}", "K_own", f"Loss of a {port.entry} entry", kind, "-", VENTILATION)
    told = "Velocity heads lost at the entry"
    law = sheet.step(f"{name}.K", "K", told, "K * c", "-", "", K=own, c=sheet.rule("entry.reading", "c_entry"))
    return Cost(law)


def hose_cost(sheet: Sheet, line: Line, hose: Hose) -> Cost:
    """Friction along it, and what its bends add."""
    name = hose.id
    bore = bore_of(sheet, name, hose.bore)
    length = sheet.given(f"{name}.length_m", "L", "Length, bends included", hose.length, "m")
    rough = (
        sheet.rule(f"wall.{hose.wall}", "ε")
        if hose.roughness is None
        else sheet.given(f"{name}.roughness_m", "ε", "Roughness of its wall", hose.roughness, "m")
    )
    fixed: WorkedStep | None = None
    along: dict[str, Input] = {}
    for i, bend in enumerate(hose.bends):
        one, per = _bend(sheet, f"{name}.bends[{i}]", bend, bore)
        before: dict[str, Input] = {} if fixed is None else {"before": fixed}
        law = "before + one" if before else "one"
        fixed = sheet.step(f"{name}.k0-{i}", f"k_0{i + 1}", "Fixed loss up to this bend", law, "-", one=one, **before)
        along[f"b{i}"] = per
    told = "Loss per friction factor: length over bore, and the bends"
    if fixed is None:
        return Cost(None, sheet.step(f"{name}.k1", "k_1", told, "L / d", "-", "Darcy", L=length, d=bore), bore, rough)
    factor = _bend_factor(sheet, hose)
    law = f"L / d + c * ({' + '.join(along)})"
    per_friction = sheet.step(f"{name}.k1", "k_1", told, law, "-", RENNELS, L=length, d=bore, c=factor, **along)
    whole = sheet.step(
        f"{name}.k0", "k_0", "Loss that its bends cost whatever its wall", "c * k", "-", c=factor, k=fixed
    )
    return Cost(whole, per_friction, bore, rough)


def _bend_factor(sheet: Sheet, hose: Hose) -> WorkedStep:
    told = "Loss of its bends against smooth ones"
    if hose.bend_factor is not None:
        return sheet.given(f"{hose.id}.bend_factor", "c_bend", told, hose.bend_factor, "-")
    if hose.wall in RIBBED_WALLS:
        return sheet.rule("bend.corrugated", "c_bend")
    return sheet.published("bend.smooth", "c_bend", told, 1.0, "-", "a smooth wall")


def _bend(sheet: Sheet, name: str, bend: Bend, bore: WorkedStep) -> tuple[WorkedStep, WorkedStep]:
    """(fixed loss, loss per friction factor) of a rounded bend, its wall's own friction aside."""
    turn = sheet.angle(f"{name}.angle_deg", "α", "Angle of a bend", bend.angle)
    around = sheet.given(f"{name}.radius_m", "r", "Radius of a bend", bend.radius, "m")
    half = sheet.step(f"{name}.sine", "s", "Sine of half the angle", "sin(minimum(a, pi) / 2)", "-", a=turn)
    fixed = sheet.step(f"{name}.fixed", "k_0", "Fixed loss of a bend", "0.10 * s", "-", RENNELS, s=half)
    law = "2.4 * s + 6.6 * (sqrt(s) + s) / maximum(r / d, 0.5) ** (4 * a / pi)"
    per = sheet.step(
        f"{name}.per-friction", "k_1", "Loss of a bend per friction factor", law, "-", RENNELS, s=half, r=around,
        d=bore, a=turn
    )  # fmt: skip
    return fixed, per


def friction(sheet: Sheet, line: Line, name: str, cost: Cost, mass: Input, area: Input) -> WorkedStep:
    """Darcy's friction factor in a part.

    Parameters
    ----------
    name : id of the part
    cost : of it, with its bore and roughness
    mass : of air through it, a step [kg/s]
    area : of its bore, a step [m^2]
    """
    assert cost.bore is not None
    assert cost.roughness is not None
    law = "m * d / (A * mu)"
    reynolds = sheet.step(
        f"{name}.Re", "Re", "Reynolds number", law, "-", "", m=mass, d=cost.bore, A=area, mu=viscosity(sheet, line)
    )
    over = f"minimum(e / d, {ROUGHEST})"
    relative = sheet.step(f"{name}.rough", "ε/d", "Roughness over bore", over, "-", e=cost.roughness, d=cost.bore)
    re = one_value(reynolds.value)
    above = max(re, 4000.0)
    turbulent = sheet.step(
        f"{name}.Re-turbulent", "Re_t", "Reynolds number for the turbulent law", "maximum(Re, 2000)", "-", "",
        Re=reynolds
    )  # fmt: skip
    value = float(friction_factor_colebrook(np.array(4e3 if re < 4e3 else re), np.array(relative.value)))
    if re < 4e3:
        value = _turbulent(max(re, 2000.0), one_value(relative.value))
    residual = "1 + 2 * sqrt(value) * log(e / 3.7 + 2.51 / (Re * sqrt(value))) / log(10)"
    rough = sheet.solved(
        f"{name}.f", "f", "Friction factor", value, residual, "-", "Colebrook", Re=turbulent, e=relative
    )
    if above <= re:
        return rough
    law = "w * f + (1 - w) * 64 / Re"
    share = sheet.step(
        f"{name}.turbulent", "w", "How far the flow is turbulent", "clip(log(Re / 2000) / log(2), 0, 1)", "-", "",
        Re=reynolds
    )  # fmt: skip
    return sheet.step(
        f"{name}.f-mixed", "f", "Friction factor, partly laminar", law, "-", "Hagen–Poiseuille, Colebrook", w=share,
        f=rough, Re=reynolds
    )  # fmt: skip


def _turbulent(reynolds: float, relative: float) -> float:
    """Colebrook's factor where the flow is not turbulent any more, by repeated substitution."""
    root = 0.02**-0.5
    for _ in range(60):
        root = -2.0 * np.log10(relative / 3.7 + 2.51 * root / reynolds)
    return float(root**-2)


def change_cost(
    sheet: Sheet, name: str, bore_in: WorkedStep, bore_out: WorkedStep, length: WorkedStep | None
) -> tuple[Cost, WorkedStep]:
    """(what a change of bore costs, the narrower bore that its velocity head is taken at)."""
    narrows = one_value(bore_out.value) < one_value(bore_in.value)
    wide, narrow = (bore_in, bore_out) if narrows else (bore_out, bore_in)
    beta = sheet.step(f"{name}.beta", "β", "Narrower over wider bore", "d / D", "-", d=narrow, D=wide)
    long: Input = 0.0 if length is None else length
    sharp = one_value(0.0 if length is None else length.value) <= 0.0
    law = "pi" if sharp else "2 * atan((D - d) / (2 * L))"
    inputs: dict[str, Input] = {} if sharp else {"D": wide, "d": narrow, "L": long}
    angle = sheet.step(f"{name}.angle", "α", "Full angle of the cone, π for a sharp step", law, "rad", **inputs)
    if narrows:
        jet = sheet.step(
            f"{name}.jet", "λ", "How much the jet is narrower than the bore",
            "1 + 0.622 * (a / pi) ** 0.8 * (1 - 0.215 * b ** 2 - 0.785 * b ** 5)", "-", RENNELS, a=angle, b=beta
        )  # fmt: skip
        law = "0.0696 * sin(a / 2) * (1 - b ** 5) * j ** 2 + (j - 1) ** 2"
        fixed = sheet.step(f"{name}.K", "K", "Loss of the contraction", law, "-", RENNELS, a=angle, b=beta, j=jet)
    else:
        law = "where(a <= pi / 4, minimum(2.6 * sin(a / 2), 1), 1) * (1 - b ** 2) ** 2"
        source = "Borda–Carnot; Crane TP-410 for cones"
        fixed = sheet.step(f"{name}.K", "K", "Loss of the expansion", law, "-", source, a=angle, b=beta)
    if sharp or one_value(bore_in.value) == one_value(bore_out.value):
        return Cost(fixed), narrow
    law = "(1 - b ** 4) / (8 * sin(a / 2))"
    per = sheet.step(f"{name}.k1", "k_1", "Loss per friction factor of the cone", law, "-", RENNELS, a=angle, b=beta)
    wall = sheet.published("cone.wall", "ε", "Roughness of a cone", 0.05e-3, "m", "drawn or moulded")
    return Cost(fixed, per, narrow, wall), narrow


@dataclass(frozen=True)
class TaperSizes:
    """The sizes of a reducer."""

    before: WorkedStep  #: bore there
    behind: WorkedStep
    length: WorkedStep


def taper_of(sheet: Sheet, part: Reducer) -> TaperSizes:
    """The sizes of a reducer."""
    return TaperSizes(
        sheet.given(f"{part.id}.bore_in_m", "d_in", "Bore before", part.bore_in, "m"),
        sheet.given(f"{part.id}.bore_out_m", "d_out", "Bore behind", part.bore_out, "m"),
        sheet.given(f"{part.id}.length_m", "L", "Length of the taper, 0 for a step", part.length, "m"),
    )


def elbow_cost(sheet: Sheet, line: Line, part: Elbow) -> Cost:
    """Of a rigid elbow, by its style."""
    name = part.id
    bore = bore_of(sheet, name, part.bore)
    turn = sheet.angle(f"{name}.angle_deg", "α", "Angle of the elbow", part.angle)
    if part.style == "mitre":
        half = sheet.step(f"{name}.sine", "s", "Sine of half the angle", "sin(minimum(a, pi) / 2)", "-", a=turn)
        return Cost(sheet.step(f"{name}.K", "K", "Loss of a mitre", "0.42 * s + 2.56 * s ** 3", "-", RENNELS, s=half))
    if part.style == "short":
        law, right = "k * a / (pi / 2)", sheet.rule("elbow.short", "K_90")
        return Cost(sheet.step(f"{name}.K", "K", "Loss of a short elbow", law, "-", k=right, a=turn))
    if part.radius is None:
        around = sheet.step(
            f"{name}.radius", "r", "Radius of its centre line", "k * d", "m", k=sheet.rule("elbow.sweep", "r/d"), d=bore
        )
    else:
        around = sheet.given(f"{name}.radius_m", "r", "Radius of its centre line", part.radius, "m")
    half = sheet.step(f"{name}.sine", "s", "Sine of half the angle", "sin(minimum(a, pi) / 2)", "-", a=turn)
    fixed = sheet.step(f"{name}.K", "k_0", "Fixed loss of the elbow", "0.10 * s", "-", RENNELS, s=half)
    law = "2.4 * s + 6.6 * (sqrt(s) + s) / maximum(r / d, 0.5) ** (4 * a / pi) + a * maximum(r / d, 0.5)"
    told = "Loss per friction factor, along its wall included"
    per = sheet.step(f"{name}.k1", "k_1", told, law, "-", RENNELS, s=half, r=around, d=bore, a=turn)
    return Cost(fixed, per, bore, sheet.rule("wall.pipe", "ε"))


def gate_cost(sheet: Sheet, part: Gate) -> Cost:
    """Of a blast gate as far as it is open."""
    name = part.id
    area = area_of(sheet, f"{name}.A", bore_of(sheet, name, part.bore))
    opening = sheet.given(f"{name}.opening", "θ_0", "Open share of the gate", part.opening, "-")
    law = "clip(o, leak / A, 1)"
    told = "Open share, never less than what a shut gate leaks"
    theta = sheet.step(f"{name}.theta", "θ", told, law, "-", o=opening, leak=sheet.rule("gate.leak", "A_leak"), A=area)
    law = "b + (1 / ((0.63 + 0.37 * t ** 3) * t) - 1) ** 2"
    body = sheet.rule("gate.body", "K_body")
    return Cost(sheet.step(f"{name}.K", "K", "Loss of the gate", law, "-", "Borda–Carnot", b=body, t=theta))


def plate_cost(sheet: Sheet, name: str, bore: WorkedStep, open_area: WorkedStep) -> Cost:
    """Of a plate with holes, or a side window."""
    law = f"(A / ({DISCHARGE} * maximum(S, {LEAST_OPEN}))) ** 2"
    area = area_of(sheet, f"{name}.A", bore)
    return Cost(sheet.step(f"{name}.K", "K", "Loss of the holes", law, "-", "sharp edges", A=area, S=open_area))


def simple_cost(sheet: Sheet, line: Line, part: object) -> Cost:
    """Of a part as wide at its end as at its start.

    Raises
    ------
    TypeError
        For any other part.
    """
    match part:
        case Hose():
            return hose_cost(sheet, line, part)
        case Elbow():
            return elbow_cost(sheet, line, part)
        case Gate():
            return gate_cost(sheet, part)
        case Plate():
            holes = sheet.given(f"{part.id}.open_area_m2", "S", "Area of all its holes", part.open_area, "m²")
            return plate_cost(sheet, part.id, bore_of(sheet, part.id, part.bore), holes)
        case FixedLoss():
            return Cost(sheet.given(f"{part.id}.k", "K", "Velocity heads lost", part.k, "-"))
        case _:
            raise TypeError(f"no simple part: {part!r}")
