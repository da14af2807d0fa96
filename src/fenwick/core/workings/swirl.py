"""A separator's swirl by the orbit model: its geometry, its speeds, its cut, what it costs."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.components.chambers import OpenBin
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.line.line import Line
from fenwick.core.workings.room_air import viscosity
from fenwick.core.workings.sheet import Input, Sheet, WorkedStep

ORBIT = "Barth & Muschelknautz, after Hoffmann & Stein (2008), ch. 6"


@dataclass(frozen=True)
class Body:
    """What the orbit model needs of a separator."""

    radius: WorkedStep  #: R
    outlet: WorkedStep  #: Rx
    inlet_height: WorkedStep  #: a
    inlet_width: WorkedStep  #: b
    orbit: WorkedStep  #: height of the orbit
    wall: WorkedStep  #: A


@dataclass(frozen=True)
class Turning:
    """The speeds of a swirl."""

    inlet: WorkedStep
    wall: WorkedStep
    core: WorkedStep
    outlet: WorkedStep
    friction: WorkedStep


def body_of(sheet: Sheet, stage: Separator, prefix: str = "") -> Body:
    """The geometry of a separator.

    Parameters
    ----------
    prefix : of the ids, where an emptied stage is looked at besides

    Raises
    ------
    TypeError
        For a kind that has no working.
    """
    match stage:
        case Cyclone():
            return _cyclone(sheet, stage)
        case SlottedDisc():
            return _chamber(sheet, stage)
        case OpenBin():
            return _open_bin(sheet, stage, prefix)
        case _:
            raise TypeError(f"no known separator: {stage!r}")


def _half(sheet: Sheet, name: str, symbol: str, meaning: str, width: WorkedStep) -> WorkedStep:
    return sheet.step(name, symbol, meaning, "d / 2", "m", d=width)


def _cyclone(sheet: Sheet, stage: Cyclone) -> Body:
    name, shape = stage.id, stage.shape

    def size(key: str, symbol: str, meaning: str, value: object) -> WorkedStep:
        return sheet.given(f"{name}.{key}", symbol, meaning, value, "m")  # type: ignore[arg-type]

    a = size("inlet_height_m", "a", "Height of the inlet", shape.inlet_height)
    b = size("inlet_width_m", "b", "Width of the inlet", shape.inlet_width)
    d = size("body_d_m", "D", "Diameter of the body", shape.body)
    de = size("outlet_d_m", "D_e", "Diameter of the outlet tube", shape.outlet)
    s = size("outlet_length_m", "S", "Length of the outlet tube below the roof", shape.outlet_length)
    h = size("cylinder_height_m", "h", "Height of the cylinder", shape.cylinder)
    tall = size("total_height_m", "H", "Height from roof to dust outlet", shape.height)
    dust = size("dust_outlet_d_m", "B", "Diameter of the dust outlet", shape.dust_outlet)
    law = "maximum(where(E > B, (D - E) * (H - h) / maximum(D - B, 1e-9) + h - S, H - S), E / 4)"
    orbit = sheet.step(
        f"{name}.orbit", "H−S", "Height of the orbit on which a grain is held or lost", law, "m", ORBIT, E=de,
        B=dust, D=d, H=tall, h=h, S=s
    )  # fmt: skip
    slant = "sqrt((H - h) ** 2 + ((D - B) / 2) ** 2)"
    law = f"pi / 4 * (D ** 2 - E ** 2) + pi * D * h + pi / 2 * (D + B) * {slant} + pi * E * S"
    told = "Inside wall: roof ring, cylinder, cone, and the outlet tube's outside"
    wall = sheet.step(f"{name}.wall", "A_w", told, law, "m²", "geometry", D=d, E=de, h=h, B=dust, H=tall, S=s)
    return Body(
        _half(sheet, f"{name}.R", "R", "Radius of the body", d),
        _half(sheet, f"{name}.Rx", "R_x", "Radius of the outlet tube", de),
        *(a, b, orbit, wall),
    )


def _inlet(sheet: Sheet, stage: Separator) -> tuple[WorkedStep, WorkedStep]:
    """Height and width of an inlet; a round one counts as the square of equal area."""
    name = stage.id
    if isinstance(stage, SlottedDisc) and stage.inlet_rectangle is not None:
        high, wide = stage.inlet_rectangle
        return (
            sheet.given(f"{name}.inlet_height_m", "a", "Height of the inlet", high, "m"),
            sheet.given(f"{name}.inlet_width_m", "b", "Width of the inlet", wide, "m"),
        )
    assert isinstance(stage, SlottedDisc | OpenBin)
    bore = sheet.given(f"{name}.inlet_bore_m", "d_in", "Bore of the inlet", stage.inlet_bore, "m")
    told = "Side of the square as large as the round inlet"
    side = sheet.step(f"{name}.side", "a", told, "sqrt(pi) / 2 * d", "m", "geometry", d=bore)
    return side, side


def _flat(
    sheet: Sheet,
    stage: Separator,
    d: WorkedStep,
    high: WorkedStep,
    tube: tuple[WorkedStep, WorkedStep],
    most: WorkedStep | None = None,
    prefix: str = "",
) -> Body:
    name, (de, s) = f"{prefix}{stage.id}", tube
    a, b = _inlet(sheet, stage)
    law = "maximum(H - S, E / 4)" if most is None else "minimum(maximum(H - S, E / 4), E)"
    told = "Height of the orbit on which a grain is held or lost"
    orbit = sheet.step(f"{name}.orbit", "H−S", told, law, "m", ORBIT, H=high, S=s, E=de)
    law = "pi * D * H + 2 * pi * ((D / 2) ** 2 - (E / 2) ** 2) + pi * E * S"
    told = "Inside wall: round, floor and roof, and the outlet tube's outside"
    wall = sheet.step(f"{name}.wall", "A_w", told, law, "m²", "geometry", D=d, H=high, E=de, S=s)
    return Body(
        _half(sheet, f"{name}.R", "R", "Radius of the chamber", d),
        _half(sheet, f"{name}.Rx", "R_x", "Radius of the outlet tube", de),
        *(a, b, orbit, wall),
    )


def _tube(sheet: Sheet, stage: SlottedDisc | OpenBin) -> tuple[WorkedStep, WorkedStep]:
    name = stage.id
    return (
        sheet.given(f"{name}.outlet_d_m", "D_e", "Diameter of the outlet tube", stage.outlet_diameter, "m"),
        sheet.given(f"{name}.outlet_length_m", "S", "Length of the tube below the roof", stage.outlet_length, "m"),
    )


def _chamber(sheet: Sheet, stage: SlottedDisc) -> Body:
    name = stage.id
    d = sheet.given(f"{name}.chamber_d_m", "D", "Diameter of the chamber", stage.chamber_diameter, "m")
    high = sheet.given(f"{name}.chamber_height_m", "H_c", "Height of the chamber", stage.chamber_height, "m")
    return _flat(sheet, stage, d, high, _tube(sheet, stage))


def _open_bin(sheet: Sheet, stage: OpenBin, prefix: str) -> Body:
    name, bin_ = stage.id, stage.bin
    de, s = _tube(sheet, stage)
    top = sheet.given(f"{name}.bin.profile.top", "D", "Width of the bin at its rim", bin_.narrow_at(bin_.height), "m")
    told = "Height of the room over the dust, which is the chamber"
    room = sheet.step(
        f"{prefix}{name}.room", "H_c", told, "maximum(H - f, S)", "m", "", H=bin_height(sheet, stage),
        f=fill_of(sheet, stage, prefix), S=s
    )  # fmt: skip
    return _flat(sheet, stage, top, room, (de, s), de, prefix)


def fill_of(sheet: Sheet, stage: Separator, prefix: str = "") -> WorkedStep:
    """Height of the dust in a bin.

    Parameters
    ----------
    prefix : of the id, where an emptied stage is looked at besides
    """
    if prefix:
        told = "Height of the dust, in an empty bin"
        return sheet.published(f"{prefix}{stage.id}.fill", "h_fill", told, stage.bin.fill_height, "m", "as laid down")
    key = f"{stage.id}.bin.fill_height_m"
    return sheet.given(key, "h_fill", "Height of the dust in the bin", stage.bin.fill_height, "m")


def bin_height(sheet: Sheet, stage: Separator) -> WorkedStep:
    """Inside height of a bin."""
    return sheet.given(f"{stage.id}.bin.height", "H_bin", "Inside height of the bin", stage.bin.height, "m")


def turning(sheet: Sheet, stage: Separator, flow: Input, load: Input, prefix: str = "") -> Turning:
    """The speeds of a swirl at a flow.

    Parameters
    ----------
    flow : at the density in the separator, a step [m^3/s]
    load : c0, dust per air, a step [kg/kg]
    prefix : of the ids, where a stage is looked at twice
    """
    name, body = f"{prefix}{stage.id}", body_of(sheet, stage, prefix)
    inlet = sheet.step(
        f"{name}.inlet-speed", "v_in", "Air speed in the inlet", "Q / (a * b)", "m/s", "geometry", Q=flow,
        a=body.inlet_height, b=body.inlet_width
    )  # fmt: skip
    xi = sheet.step(
        f"{stage.id}.xi", "ξ", "Width of the inlet over the radius", "b / R", "-", ORBIT, b=body.inlet_width,
        R=body.radius
    )  # fmt: skip
    law = (
        "(1 - sqrt(maximum(1 + 4 * ((x / 2) ** 2 - x / 2)"
        " * sqrt(maximum(1 - (1 - x ** 2) * (2 * x - x ** 2) / (1 + c), 0)), 0))) / x"
    )
    alpha = sheet.step(f"{name}.alpha", "α", "How far the jet is pressed to the wall", law, "-", ORBIT, x=xi, c=load)
    law, more = "v * (R - b / 2) / (al * R)", {}
    key = stage.manner.swirl
    if key is not None:
        law, more = f"s * {law}", {"s": sheet.rule(key, "c_swirl")}
    wall = sheet.step(
        f"{name}.wall-speed", "v_θw", "Speed of the swirl at the wall", law, "m/s", ORBIT, v=inlet, R=body.radius,
        b=body.inlet_width, al=alpha, **more
    )  # fmt: skip
    law = "f0 * (1 + 2 * sqrt(c))"
    friction = sheet.step(
        f"{name}.friction", "f_w", "Friction at the wall, with the dust", law, "-", ORBIT,
        f0=sheet.rule(stage.manner.friction, "f_0"), c=load
    )  # fmt: skip
    law = "v * (R / Rx) / (1 + f * A * v * sqrt(R / Rx) / (2 * Q))"
    core = sheet.step(
        f"{name}.core-speed", "v_θcs", "Speed of the swirl under the outlet tube", law, "m/s", ORBIT, v=wall,
        R=body.radius, Rx=body.outlet, f=friction, A=body.wall, Q=flow
    )  # fmt: skip
    outlet = sheet.step(
        f"{name}.outlet-speed", "v_x", "Speed in the outlet tube", "Q / (pi * Rx ** 2)", "m/s", "geometry", Q=flow,
        Rx=body.outlet
    )  # fmt: skip
    return Turning(inlet, wall, core, outlet, friction)


def swirl_loss(sheet: Sheet, stage: Separator, flow: Input, load: Input) -> WorkedStep:
    """K on the outlet tube's velocity head.

    Parameters
    ----------
    flow : at the density in the separator, a step [m^3/s]
    load : c0, a step [kg/kg]
    """
    turn, body = turning(sheet, stage, flow, load), body_of(sheet, stage)
    law = "f * A * (w * c) ** 1.5 / (1.8 * Q) / (x ** 2 / 2) + 2 + (c / x) ** 2 + 3 * (c / x) ** (4 / 3)"
    told = "Loss of the separator, on the head in its outlet tube"
    return sheet.step(
        f"{stage.id}.K", "K", told, law, "-", ORBIT, f=turn.friction, A=body.wall, w=turn.wall, c=turn.core, Q=flow,
        x=turn.outlet
    )  # fmt: skip


def cut_size(
    sheet: Sheet,
    line: Line,
    stage: Separator,
    turn: Turning,
    flow: Input,
    density: Input,
    grain: Input,
    prefix: str = "",
) -> WorkedStep:
    """d50 of grains of a density.

    Parameters
    ----------
    turn : its swirl
    flow : at the density in the separator, a step [m^3/s]
    density : of the air in it, a step [kg/m^3]
    grain : their density, a step or one for each class of grains [kg/m^3]
    prefix : of the id, where a stage is looked at twice
    """
    law = "k * sqrt(18 * mu * 0.9 * Q / (2 * pi * (rp - rho) * v ** 2 * H))"
    body = body_of(sheet, stage, prefix)
    return sheet.step(
        f"{prefix}{stage.id}.cut", "d_50", "Cut size: half of such grains are kept", law, "m", ORBIT,
        k=sheet.rule("swirl.cut", "c_cut"), mu=viscosity(sheet, line), Q=flow, rp=grain, rho=density, v=turn.core,
        H=body.orbit
    )  # fmt: skip
