"""When a bin folds, how far its lid is drawn in, what tips it over."""

from __future__ import annotations

from collections.abc import Mapping
from itertools import pairwise

from fenwick.core.arrays import one_value
from fenwick.core.components.bins import MATERIALS, Bin
from fenwick.core.components.chambers import OneBody, OpenBin
from fenwick.core.components.cyclone import Cyclone
from fenwick.core.components.separator import Separator, SlottedDisc
from fenwick.core.formulas.shell import RIM_HELD, RIM_SLIDES
from fenwick.core.formulas.sizes import GRAVITY
from fenwick.core.judging.strength import folding_is_judged, most_suction
from fenwick.core.line.line import Line
from fenwick.core.line.operating import OperatingPoint
from fenwick.core.workings.room_air import sealed_suction
from fenwick.core.workings.sheet import CATALOGUE, GIVEN, RULE, Input, Sheet, WorkedStep

BUCKLING = "US Experimental Model Basin; long tube beyond"
PLATES = "Timoshenko & Woinowsky-Krieger, Theory of Plates and Shells"


def _elastic(sheet: Sheet, name: str, bin_: Bin) -> tuple[WorkedStep, WorkedStep]:
    """(Young's modulus, Poisson's ratio) of a bin's wall."""
    made_of = bin_.made_of
    assert made_of is not None
    kind = GIVEN if bin_.own_material else CATALOGUE
    told = made_of.label
    return (
        sheet.given(
            f"{name}.bin.youngs_modulus_pa", "E", f"Young's modulus of {told}", made_of.youngs_modulus, "Pa", kind
        ),
        sheet.given(f"{name}.bin.poisson_ratio", "ν", f"Poisson's ratio of {told}", made_of.poisson_ratio, "-", kind),
    )


def collapse_step(sheet: Sheet, line: Line, stage: Separator) -> WorkedStep | None:
    """Suction at which the bin folds; None where its wall is not known, or it is not judged."""
    bin_, name = stage.bin, stage.id
    if bin_.wall is None or bin_.made_of is None or not folding_is_judged(stage):
        return None
    with sheet.section(f"{name}: bin"):
        e, nu = _elastic(sheet, name, bin_)
        wall = sheet.given(f"{name}.bin.wall_m", "t", "Thickness of the wall", bin_.wall, "m")
        bays: dict[str, Input] = {}
        for i, (length, diameter) in enumerate(bin_.bays):
            if one_value(length) / diameter - 0.45 * (one_value(bin_.wall) / diameter) ** 0.5 <= 1e-12:
                continue  # too short a bay to fold
            bays[f"p{i}"] = _bay(sheet, f"{name}.bay-{i + 1}", length, diameter, wall, e, nu)
        if not bays:
            return None
        weakest = next(iter(bays)) if len(bays) == 1 else _least(list(bays))
        law, more = f"k * {weakest}", {}
        if bin_.nested:
            law, more = f"n * {law}", {"n": sheet.rule("shell.nested", "c_nested")}
        told = "Suction at which it folds"
        return sheet.step(
            f"{name}.collapse", "p_folds", told, law, "Pa", BUCKLING, RULE,
            k=sheet.rule("shell.knock-down", "c_real"), **bays, **more
        )  # fmt: skip


def _least(names: list[str]) -> str:
    found = names[0]
    for name in names[1:]:
        found = f"minimum({found}, {name})"
    return found


def _bay(
    sheet: Sheet, name: str, length: float, diameter: float, wall: WorkedStep, e: WorkedStep, nu: WorkedStep
) -> WorkedStep:
    long = sheet.given(f"{name}.length", "L", "Clear length between floor, rings and lid", length, "m")
    wide = sheet.given(f"{name}.diameter", "D", "Widest diameter there", diameter, "m")
    parts: Mapping[str, Input] = {"E": e, "t": wall, "D": wide, "L": long, "nu": nu}
    law = (
        "maximum(2.42 * E * (t / D) ** 2.5 / ((1 - nu ** 2) ** 0.75 * (L / D - 0.45 * sqrt(t / D))),"
        " 2 * E * (t / D) ** 3 / (1 - nu ** 2))"
    )
    return sheet.step(
        f"{name}.folds", "p_cr", "Suction at which a perfect shell of it folds", law, "Pa", BUCKLING, **parts
    )


def lid_step(sheet: Sheet, line: Line, stage: Separator, point: OperatingPoint) -> WorkedStep | None:
    """How far a lid is drawn in with the hose blocked; None where it is not described."""
    bin_, name = stage.bin, stage.id
    if bin_.lid is None or not bin_.is_round:
        return None
    lid, made_of = bin_.lid, MATERIALS[bin_.lid.material]
    with sheet.section(f"{name}: lid"):
        suction = _stands(sheet, line, stage, point)
        wide = sheet.given(
            f"{name}.bin.profile.rim-width", "D", "Width of the bin at its rim", bin_.diameter_at(bin_.height), "m"
        )
        e = sheet.given(
            f"{name}.bin.lid.modulus", "E", f"Young's modulus of {made_of.label}", made_of.youngs_modulus, "Pa",
            CATALOGUE
        )  # fmt: skip
        nu = sheet.given(
            f"{name}.bin.lid.poisson", "ν", f"Poisson's ratio of {made_of.label}", made_of.poisson_ratio, "-", CATALOGUE
        )
        thick = sheet.given(f"{name}.bin.lid.thickness_m", "t", "Thickness of the lid", lid.thickness, "m")
        law = "E * t ** 3 / (12 * (1 - nu ** 2))"
        stiff = sheet.step(
            f"{name}.lid-stiff", "D_f", "Stiffness of the plate", law, "N m", PLATES, E=e, t=thick, nu=nu
        )
        if lid.stiffener is not None:
            glued = MATERIALS[lid.stiffener[0]]
            disc = {
                "E": sheet.given(
                    f"{name}.bin.lid.stiffener.modulus",
                    "E_2",
                    f"Young's modulus of {glued.label}",
                    glued.youngs_modulus,
                    "Pa",
                    CATALOGUE,
                ),
                "nu": sheet.given(
                    f"{name}.bin.lid.stiffener.poisson",
                    "ν_2",
                    f"Poisson's ratio of {glued.label}",
                    glued.poisson_ratio,
                    "-",
                    CATALOGUE,
                ),
                "t": sheet.given(
                    f"{name}.bin.lid.stiffener_m", "t_2", "Thickness of the disc glued on", lid.stiffener[1], "m"
                ),
            }
            stiff = sheet.step(
                f"{name}.lid-stiffer", "D_f", "Likewise, with the disc glued on", f"own + {law}", "N m", PLATES,
                own=stiff, **disc
            )  # fmt: skip
            told = "Thickness of both"
            thick = sheet.step(f"{name}.lid-thick", "t", told, "a + b", "m", a=thick, b=disc["t"])
        rim = RIM_HELD if lid.rim_held else RIM_SLIDES
        held = sheet.published(f"{name}.lid-rim", "c", "How its rim is held", rim, "-", PLATES)
        law = "p * (D / 2) ** 4 * (5 + nu) / (64 * S * (1 + nu)) / t"
        linear = sheet.step(
            f"{name}.lid-linear", "w_lin/t", "Small deflection over the thickness", law, "-", PLATES, p=suction,
            D=wide, nu=nu, S=stiff, t=thick
        )  # fmt: skip
        # the one real root of c x³ + x − linear = 0
        law = "t * 2 / sqrt(3 * c) * (y ** (1 / 3) - y ** (-1 / 3)) / 2"
        root = "1.5 * sqrt(3 * c) * l + sqrt(1 + (1.5 * sqrt(3 * c) * l) ** 2)"
        y = sheet.step(
            f"{name}.lid-root", "y", "Help for the root of c x³ + x = w_lin/t", root, "-", "Cardano", c=held, l=linear
        )
        told = "How far the middle of the lid is drawn in: w/t + c (w/t)³ = w_lin/t"
        return sheet.step(f"{name}.lid", "w", told, law, "m", PLATES, t=thick, c=held, y=y)


def _stands(sheet: Sheet, line: Line, stage: Separator, point: OperatingPoint) -> WorkedStep:
    """What the bin has to stand with its hose blocked."""
    sealed, relief = sealed_suction(sheet, line), stage.bin.relief
    stands = one_value(most_suction(stage, line, point))
    if relief is None or stands >= one_value(sealed.value) * (1.0 - 1e-12):
        return sealed
    opens = sheet.given(
        f"{stage.id}.bin.relief.opens_at_pa", "p_opens", "Suction at which its valve opens", relief.opens_at, "Pa"
    )
    told = "Suction with the hose blocked, which its valve is wide enough to hold"
    return sheet.step(f"{stage.id}.stands", "p_blocked", told, "minimum(p, o)", "Pa", p=sealed, o=opens)


def tipping_step(sheet: Sheet, line: Line, stage: Separator) -> WorkedStep | None:
    """Pull at the inlet that tips the empty unit over; None where its weight is not known."""
    stand, bin_, name = stage.stand, stage.bin, stage.id
    if stand is None or bin_.shell_mass is None:
        return None
    with sheet.section(f"{name}: stand"):
        parts: dict[str, Input] = {"bin": shell_step(sheet, stage)}
        if stand.mass is not None:
            parts["top"] = sheet.given(
                f"{name}.stand.mass_kg", "m_top", "Of everything but the bin, empty", stand.mass, "kg"
            )
        if stand.carries_vacuum and stand.vacuum_mass is not None:
            key, told = f"{name}.stand.vacuum_mass_kg", "Of the vacuum under or beside it"
            parts["below"] = sheet.given(key, "m_vac", told, stand.vacuum_mass, "kg")
        weight = sheet.step(f"{name}.weight", "m", "All that tips together, empty", " + ".join(parts), "kg", **parts)
        if stand.base is None:
            floor = bin_.sides_at(0.0)
            base = _base(sheet, stage, float(min(floor.width, floor.depth)))
        else:
            base = sheet.given(f"{name}.stand.base_m", "b", "Across what it stands on", stand.base, "m")
        up = sheet.given(
            f"{name}.stand.base_height_m", "h_0", "Of the bin's floor over the ground", stand.base_height, "m"
        )
        high = sheet.given(f"{name}.bin.height", "H_bin", "Inside height of the bin", bin_.height, "m")
        rise = _rise(sheet, stage)
        told = "Height at which the hose pulls: half way up what stands on the bin"
        pulled = sheet.step(f"{name}.pulled-at", "h", told, "u + H + r / 2", "m", u=up, H=high, r=rise)
        gravity = sheet.published("gravity", "g", "Gravity", GRAVITY, "m/s²", "standard gravity")
        return sheet.step(
            f"{name}.tips", "F_tips", "Pull that tips it over, empty", "m * g * b / (2 * h)", "N", "statics",
            m=weight, g=gravity, b=base, h=pulled
        )  # fmt: skip


def _base(sheet: Sheet, stage: Separator, foot: float) -> WorkedStep:
    """Across the bin's floor, on a cart the tray round it."""
    name = stage.id
    floor = sheet.given(f"{name}.bin.profile.floor", "b", "Across the bin's floor", foot, "m")
    if stage.stand is None or stage.stand.on != "cart":
        return floor
    edge = sheet.rule("make.tray-edge", "e")
    return sheet.step(f"{name}.tray", "b_tray", "Across the tray", "f + 2 * e", "m", "", RULE, f=floor, e=edge)


def _rise(sheet: Sheet, stage: Separator) -> WorkedStep:
    """How far what stands on a bin reaches over its rim."""
    name = stage.id
    if isinstance(stage, Cyclone):
        return sheet.given(f"{name}.total_height_m", "H", "Height from roof to dust outlet", stage.shape.height, "m")
    if isinstance(stage, OpenBin):
        bore = sheet.given(f"{name}.inlet_bore_m", "d_in", "Bore of the inlet", stage.inlet_bore, "m")
        return sheet.step(f"{name}.elbows", "r", "Height of its elbows", "1.5 * d", "m", "", RULE, d=bore)
    assert isinstance(stage, SlottedDisc)
    told = "Height of the chamber over the rim"
    if stage.hung:
        own = sheet.published(f"{name}.hung", "r", f"{told}: it hangs in the bin", 0.0, "m", "geometry")
    else:
        own = sheet.given(f"{name}.chamber_height_m", "H_c", "Height of the chamber", stage.chamber_height, "m")
    if not isinstance(stage, OneBody):
        return own
    head = (
        sheet.rule("stand.head", "h_head")
        if stage.head_height is None
        else sheet.given(
            f"{name}.head_height_m", "h_head", "Of the vacuum's head over the deck", stage.head_height, "m"
        )
    )
    return sheet.step(f"{name}.rise", "r", "What stands over the rim, the head included", "c + h", "m", c=own, h=head)


def shell_step(sheet: Sheet, stage: Separator) -> WorkedStep:
    """Mass of an empty bin with its lid."""
    name, bin_ = stage.id, stage.bin
    if bin_.mass is not None:
        return sheet.given(f"{name}.bin.mass_kg", "m_bin", "Of the empty bin, with its lid", bin_.mass, "kg")
    made_of = bin_.made_of
    assert made_of is not None
    assert made_of.density is not None
    assert bin_.wall is not None
    sides = zip(pairwise(bin_.heights), pairwise(bin_.girths), strict=True)
    walls = sum(0.5 * (under + over) * (high - low) for (low, high), (under, over) in sides)
    wall = sheet.given(f"{name}.bin.wall_m", "t", "Thickness of the wall", bin_.wall, "m")
    rho = sheet.given(f"{name}.bin.density", "ρ", f"Density of {made_of.label}", made_of.density, "kg/m³", CATALOGUE)
    side = sheet.given(f"{name}.bin.profile.wall-area", "A_side", "Area of its side, by its profile", walls, "m²")
    floor = sheet.given(f"{name}.bin.profile.floor-area", "A_floor", "Area of its floor", bin_.area_at(0.0), "m²")
    top = sheet.given(f"{name}.bin.profile.top-area", "A_top", "Area of its lid", bin_.area_at(bin_.height), "m²")
    parts: dict[str, Input] = {"t": wall, "r": rho, "s": side, "f": floor, "l": top}
    told = "Of the empty bin, by its wall, floor and lid"
    if bin_.lid is None:
        return sheet.step(f"{name}.shell", "m_bin", told, "(s + f + l) * t * r", "kg", **parts)
    lid = bin_.lid
    thick = sheet.given(f"{name}.bin.lid.thickness_m", "t_lid", "Thickness of the lid", lid.thickness, "m")
    dense = sheet.given(
        f"{name}.bin.lid.density", "ρ_lid", f"Density of {MATERIALS[lid.material].label}",
        MATERIALS[lid.material].density or 0.0, "kg/m³", CATALOGUE
    )  # fmt: skip
    law, parts = "(s + f) * t * r + l * a * d", {**parts, "a": thick, "d": dense}
    if lid.stiffener is not None:
        glued = MATERIALS[lid.stiffener[0]]
        parts["b"] = sheet.given(
            f"{name}.bin.lid.stiffener_m", "t_2", "Thickness of the disc glued on", lid.stiffener[1], "m"
        )
        parts["e"] = sheet.given(
            f"{name}.bin.lid.stiffener.density", "ρ_2", f"Density of {glued.label}", glued.density or 0.0, "kg/m³",
            CATALOGUE
        )  # fmt: skip
        law += " + l * b * e"
    return sheet.step(f"{name}.shell", "m_bin", told, law, "kg", **parts)
