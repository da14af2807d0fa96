"""What the ports of a tool catch of its dust, at the air they draw."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.arrays import one_value
from fenwick.core.components.hood import Enclosure, ExtraFan, FloorNozzle, Hood, OpenHood, SlotHood
from fenwick.core.formulas.capture import FLANGE_GAIN, SLOT_FLANGED, SLOT_PLAIN
from fenwick.core.line.extra_fan import DUCT_HEADS, extra_flow
from fenwick.core.line.filters import INLINE
from fenwick.core.line.line import Leaf, Line
from fenwick.core.rules import RELEASE_VELOCITY
from fenwick.core.workings.filters import medium_loss
from fenwick.core.workings.room_air import fan_suction, room_density
from fenwick.core.workings.sheet import RULE, Input, Sheet, WorkedStep

DALLA_VALLE = "Dalla Valle (1939)"
SILVERMAN = "Silverman (1942)"


@dataclass(frozen=True)
class AtPort:
    """What one port does."""

    drawn: WorkedStep  #: of what floats, drawn in
    thrown: WorkedStep  #: of what flies, in the mouth
    to_line: WorkedStep  #: of what floats and is drawn in, into the hose


def port_catch(sheet: Sheet, line: Line, leaf: Leaf, flow: Input) -> AtPort:
    """What a port with a described hood draws in.

    Parameters
    ----------
    flow : through it at room density, a step [m^3/s]
    """
    hood, name = leaf.port.hood, leaf.id
    assert hood is not None
    through, to_line = _with_extra(sheet, line, leaf, flow)
    needed = _needed(sheet, hood, name)
    flanged = leaf.port.entry == "flanged"
    pulls: dict[str, Input] = {}
    law = []
    openings = hood.openings(leaf.port.bore)
    total = sum(opening.share for opening in openings)
    for i, opening in enumerate(openings):
        tag = f"{name}.way{i + 1}"
        speed = _speed(sheet, hood, leaf, tag, through, i, flanged)
        rules = {"m": sheet.rule("capture.missed", "m"), "k": sheet.rule("capture.power", "k_r")}
        caught = sheet.step(
            f"{tag}.drawn", "η", "Share of the floating dust drawn in", "1 - m ** ((v / n) ** k)", "-",
            "our estimate", RULE, v=speed, n=needed, **rules
        )  # fmt: skip
        pulls[f"w{i + 1}"] = caught
        law.append(f"{opening.share / total:.12g} * w{i + 1}" if len(openings) > 1 else f"w{i + 1}")
    told = "Share of the floating dust drawn in, over all ways of working"
    drawn = sheet.step(f"{name}.drawn", "η_drawn", told, " + ".join(law), "-", **pulls)
    return AtPort(drawn, _thrown(sheet, line, leaf, hood, flow), to_line)


def _with_extra(sheet: Sheet, line: Line, leaf: Leaf, flow: Input) -> tuple[Input, WorkedStep]:
    """(air at the hood with its extra fan, share of it that the hose takes)."""
    name, hood = leaf.id, leaf.port.hood
    fan = None if hood is None else hood.extra_fan
    if fan is None:
        return flow, sheet.published(f"{name}.to-line", "s_hose", "Of the air at the hood, into the hose", 1.0, "-", "")
    extra = _extra(sheet, line, f"{name}.port.hood.extra_fan", fan)
    through = sheet.step(
        f"{name}.through", "Q_hood", "Air at the hood, both together", "Q + x", "m³/s", Q=flow, x=extra
    )
    told = "Of the air at the hood, into the hose"
    return through, sheet.step(f"{name}.to-line", "s_hose", told, "Q / H", "-", Q=flow, H=through)


def _extra(sheet: Sheet, line: Line, key: str, fan: ExtraFan) -> WorkedStep:
    """Air that an extra fan moves: given, or where its curve meets what its filter and its duct ask for."""
    told, moved = "Air that the extra fan moves", extra_flow(fan, line)
    if fan.curve is None:
        return sheet.given(f"{key}.flow_m3_s", "Q_x", told, moved, "m³/s")
    flow = one_value(moved)
    asked: dict[str, Input] = {}
    if fan.medium is not None:
        asked["filter"] = medium_loss(sheet, line, key, fan.medium, INLINE, flow, None)
    if fan.bore is not None:
        bore = sheet.given(f"{key}.bore_m", "d_x", "Bore of its duct", fan.bore, "m")
        law = "heads * rho / 2 * (Q / (pi / 4 * d ** 2)) ** 2"
        heads = sheet.published(
            "duct.heads", "K_x", "Lost at a duct's mouth, and where it blows out", DUCT_HEADS, "-", ""
        )
        asked["duct"] = sheet.step(
            f"{key}.duct", "Δp_x", "Suction that its duct asks for", law, "Pa", "", heads=heads,
            rho=room_density(sheet, line), Q=flow, d=bore
        )  # fmt: skip
    made = fan_suction(sheet, line, flow, fan.curve, f"{key}.curve")
    sealed = sheet.steps.get(f"{key}.curve.sealed_suction_pa", made)
    residual = f"(fan - ({' + '.join(asked) or '0'})) / p0"
    source = "where its curve meets what is asked of it"
    return sheet.solved(f"{key}.moves", "Q_x", told, flow, residual, "m³/s", source, fan=made, p0=sealed, **asked)


def _needed(sheet: Sheet, hood: Hood, name: str) -> WorkedStep:
    low, high = RELEASE_VELOCITY[hood.release]
    told = f"Air speed that a {hood.release} release wants"
    source = "industrial ventilation practice"
    ends = {
        "lo": sheet.published(f"release.{hood.release}.low", "v_low", f"{told}, least", low, "m/s", source),
        "hi": sheet.published(f"release.{hood.release}.high", "v_high", f"{told}, most", high, "m/s", source),
    }
    law = "sqrt(lo * hi) * (hi / lo) ** (log(c) / log(2) / 2)"
    told = "Air speed wanted at the dust: the geometric middle"
    return sheet.step(
        f"{name}.needed", "v_need", told, law, "m/s", source, c=sheet.rule("capture.release", "c_rel"), **ends
    )


def _speed(sheet: Sheet, hood: Hood, leaf: Leaf, tag: str, flow: Input, at: int, flanged: bool) -> WorkedStep:
    """Air speed where the dust is made, in one way of working."""
    name, told = leaf.id, "Air speed where the dust is made"
    match hood:
        case OpenHood():
            bore = sheet.given(f"{name}.port.bore_m", "d", "Bore", leaf.port.bore, "m")
            area = sheet.step(f"{name}.A", "A", "Area of the bore", "pi / 4 * d ** 2", "m²", "geometry", d=bore)
            x = sheet.given(f"{name}.port.hood.distance_m", "x", "From the port to the dust", hood.distance, "m")
            gain = FLANGE_GAIN if flanged or hood.built_in else 1.0
            law = f"minimum({gain} * Q / (10 * x ** 2 + A), Q / A)"
            return sheet.step(f"{tag}.speed", "v", told, law, "m/s", DALLA_VALLE, Q=flow, x=x, A=area)
        case SlotHood():
            long = sheet.given(f"{name}.port.hood.length_m", "L", "Length of the slot", hood.length, "m")
            wide = sheet.given(f"{name}.port.hood.width_m", "w", "Width of the slot", hood.width, "m")
            x = sheet.given(f"{name}.port.hood.distance_m", "x", "From the slot to the dust", hood.distance, "m")
            reach = SLOT_FLANGED if hood.flanged else SLOT_PLAIN
            law = f"Q / (L * maximum({reach} * x, w))"
            return sheet.step(f"{tag}.speed", "v", told, law, "m/s", SILVERMAN, Q=flow, L=long, x=x, w=wide)
        case Enclosure():
            opening = hood.ways[at]
            area = sheet.given(
                f"{name}.port.hood.openings[{at}].area_m2", "A", f"Open area {opening.name}".strip(), opening.area, "m²"
            )
            return sheet.step(f"{tag}.speed", "v", told, "Q / A", "m/s", "geometry", Q=flow, A=area)
        case FloorNozzle():
            return sheet.step(
                f"{tag}.speed", "v", told, "Q / A", "m/s", "geometry", Q=flow, A=_mouth(sheet, leaf, hood)
            )
        case _:
            raise TypeError(f"no known hood: {hood!r}")


def _mouth(sheet: Sheet, leaf: Leaf, hood: Hood) -> WorkedStep:
    """Area of the mouth that chips are thrown at."""
    name = leaf.id
    match hood:
        case SlotHood():
            long = sheet.given(f"{name}.port.hood.length_m", "L", "Length of the slot", hood.length, "m")
            wide = sheet.given(f"{name}.port.hood.width_m", "w", "Width of the slot", hood.width, "m")
            return sheet.step(f"{name}.mouth", "A_m", "Area of the mouth", "L * w", "m²", "geometry", L=long, w=wide)
        case FloorNozzle():
            wide = sheet.given(f"{name}.port.hood.width_m", "L", "Width of the nozzle", hood.width, "m")
            gap = sheet.given(f"{name}.port.hood.gap_m", "w", "Gap under its lips", hood.gap, "m")
            told = "Area under both lips"
            return sheet.step(f"{name}.mouth", "A_m", told, "2 * L * w", "m²", "geometry", L=wide, w=gap)
        case _:
            bore = sheet.given(f"{name}.port.bore_m", "d", "Bore", leaf.port.bore, "m")
            return sheet.step(f"{name}.A", "A", "Area of the bore", "pi / 4 * d ** 2", "m²", "geometry", d=bore)


def _thrown(sheet: Sheet, line: Line, leaf: Leaf, hood: Hood, flow: Input) -> WorkedStep:
    """Of what flies, the share that goes into the mouth."""
    name = leaf.id
    share = sheet.given(
        f"{name}.port.hood.thrown_share", "s_thrown", "Of what flies, aimed at the mouth", hood.thrown_share, "-"
    )
    aimed = share
    if hood.thrown_bore is not None:
        bore = sheet.given(f"{name}.port.bore_m", "d", "Bore", leaf.port.bore, "m")
        own = sheet.given(
            f"{name}.port.hood.thrown_bore_m", "d_own", "Bore that this share belongs to", hood.thrown_bore, "m"
        )
        told = "Likewise, at a mouth of this bore"
        aimed = sheet.step(
            f"{name}.aimed", "s_aimed", told, "s * minimum(d / o, 1) ** k", "-", "our estimate", RULE, s=share,
            d=bore, o=own, k=sheet.rule("capture.narrower", "k_d")
        )  # fmt: skip
    if hood.rebound:
        told = "Likewise, with what a plate turns back"
        aimed = sheet.step(
            f"{name}.turned", "s_aimed", told, "s + c * (1 - s)", "-", "shop practice", RULE, s=aimed,
            c=sheet.rule("capture.rebound", "c_plate")
        )  # fmt: skip
    mouth = sheet.step(
        f"{name}.face", "v_face", "Air speed in the mouth", "Q / A", "m/s", "geometry", Q=flow,
        A=_mouth(sheet, leaf, hood)
    )  # fmt: skip
    return sheet.step(
        f"{name}.thrown", "η_thrown", "Of what flies, into the mouth", "s * (1 - exp(-v / e))", "-", "our estimate",
        RULE, s=aimed, v=mouth, e=sheet.rule("capture.enters", "v_e")
    )  # fmt: skip
