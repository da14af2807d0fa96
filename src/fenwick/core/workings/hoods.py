"""What the ports of a tool catch of its dust, at the air they draw."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from fenwick.core.arrays import one_value
from fenwick.core.components.hood import Enclosure, ExtraFan, FloorNozzle, Hood, OpenHood, SlotHood
from fenwick.core.formulas.capture import FLANGE_GAIN, SLOT_FLANGED, SLOT_PLAIN
from fenwick.core.line.catch import ahead_of_stages, dust_at, tool_rate, tools_of
from fenwick.core.line.extra_fan import DUCT_HEADS, extra_flow
from fenwick.core.line.filters import INLINE
from fenwick.core.line.line import Leaf, Line
from fenwick.core.rules import RELEASE_VELOCITY
from fenwick.core.workings.dusts import Grains, grains_of
from fenwick.core.workings.filters import medium_loss, passes_through
from fenwick.core.workings.room_air import fan_suction, room_density
from fenwick.core.workings.sheet import CATALOGUE, PUBLISHED, RULE, Input, Sheet, Step

DALLA_VALLE = "Dalla Valle (1939)"
SILVERMAN = "Silverman (1942)"


@dataclass(frozen=True)
class AtPort:
    """What one port does."""

    drawn: Step  #: of what floats, drawn in
    thrown: Step  #: of what flies, in the mouth
    to_line: Step  #: of what floats and is drawn in, into the hose


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
        caught = sheet.step(f"{tag}.drawn", "η", "Share of the floating dust drawn in", "1 - m ** ((v / n) ** k)", "-",
                            "our estimate", RULE, v=speed, n=needed, **rules)  # fmt: skip
        pulls[f"w{i + 1}"] = caught
        law.append(f"{opening.share / total:.12g} * w{i + 1}" if len(openings) > 1 else f"w{i + 1}")
    told = "Share of the floating dust drawn in, over all ways of working"
    drawn = sheet.step(f"{name}.drawn", "η_drawn", told, " + ".join(law), "-", **pulls)
    return AtPort(drawn, _thrown(sheet, line, leaf, hood, flow), to_line)


def _with_extra(sheet: Sheet, line: Line, leaf: Leaf, flow: Input) -> tuple[Input, Step]:
    """(air at the hood with its extra fan, share of it that the hose takes)."""
    name, hood = leaf.id, leaf.port.hood
    fan = None if hood is None else hood.extra_fan
    if fan is None:
        return flow, sheet.published(f"{name}.to-line", "s_hose", "Of the air at the hood, into the hose", 1.0, "-", "")
    extra = _extra(sheet, line, f"{name}.port.hood.extra_fan", fan)
    through = sheet.step(f"{name}.through", "Q_hood", "Air at the hood, both together", "Q + x", "m³/s", Q=flow, x=extra)
    told = "Of the air at the hood, into the hose"
    return through, sheet.step(f"{name}.to-line", "s_hose", told, "Q / H", "-", Q=flow, H=through)


def _extra(sheet: Sheet, line: Line, key: str, fan: ExtraFan) -> Step:
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
        heads = sheet.published("duct.heads", "K_x", "Lost at a duct's mouth, and where it blows out", DUCT_HEADS, "-", "")
        asked["duct"] = sheet.step(f"{key}.duct", "Δp_x", "Suction that its duct asks for", law, "Pa", "", heads=heads,
                                   rho=room_density(sheet, line), Q=flow, d=bore)  # fmt: skip
    made = fan_suction(sheet, line, flow, fan.curve, f"{key}.curve")
    sealed = sheet.steps.get(f"{key}.curve.sealed_suction_pa", made)
    residual = f"(fan - ({' + '.join(asked) or '0'})) / p0"
    source = "where its curve meets what is asked of it"
    return sheet.solved(f"{key}.moves", "Q_x", told, flow, residual, "m³/s", source, fan=made, p0=sealed, **asked)


def _needed(sheet: Sheet, hood: Hood, name: str) -> Step:
    low, high = RELEASE_VELOCITY[hood.release]
    told = f"Air speed that a {hood.release} release wants"
    source = "industrial ventilation practice"
    ends = {
        "lo": sheet.published(f"release.{hood.release}.low", "v_low", f"{told}, least", low, "m/s", source),
        "hi": sheet.published(f"release.{hood.release}.high", "v_high", f"{told}, most", high, "m/s", source),
    }
    law = "sqrt(lo * hi) * (hi / lo) ** (log(c) / log(2) / 2)"
    told = "Air speed wanted at the dust: the geometric middle"
    return sheet.step(f"{name}.needed", "v_need", told, law, "m/s", source, c=sheet.rule("capture.release", "c_rel"), **ends)


def _speed(sheet: Sheet, hood: Hood, leaf: Leaf, tag: str, flow: Input, at: int, flanged: bool) -> Step:
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
            area = sheet.given(f"{name}.port.hood.openings[{at}].area_m2", "A", f"Open area {opening.name}".strip(),
                               opening.area, "m²")  # fmt: skip
            return sheet.step(f"{tag}.speed", "v", told, "Q / A", "m/s", "geometry", Q=flow, A=area)
        case FloorNozzle():
            return sheet.step(f"{tag}.speed", "v", told, "Q / A", "m/s", "geometry", Q=flow, A=_mouth(sheet, leaf, hood))
        case _:
            raise TypeError(f"no known hood: {hood!r}")


def _mouth(sheet: Sheet, leaf: Leaf, hood: Hood) -> Step:
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


def _thrown(sheet: Sheet, line: Line, leaf: Leaf, hood: Hood, flow: Input) -> Step:
    """Of what flies, the share that goes into the mouth."""
    name = leaf.id
    share = sheet.given(f"{name}.port.hood.thrown_share", "s_thrown", "Of what flies, aimed at the mouth", hood.thrown_share, "-")
    aimed = share
    if hood.thrown_bore is not None:
        bore = sheet.given(f"{name}.port.bore_m", "d", "Bore", leaf.port.bore, "m")
        own = sheet.given(f"{name}.port.hood.thrown_bore_m", "d_own", "Bore that this share belongs to", hood.thrown_bore, "m")
        told = "Likewise, at a mouth of this bore"
        aimed = sheet.step(f"{name}.aimed", "s_aimed", told, "s * minimum(d / o, 1) ** k", "-", "our estimate", RULE,
                           s=share, d=bore, o=own, k=sheet.rule("capture.narrower", "k_d"))  # fmt: skip
    if hood.rebound:
        told = "Likewise, with what a plate turns back"
        aimed = sheet.step(f"{name}.turned", "s_aimed", told, "s + c * (1 - s)", "-", "shop practice", RULE,
                           s=aimed, c=sheet.rule("capture.rebound", "c_plate"))  # fmt: skip
    mouth = sheet.step(f"{name}.face", "v_face", "Air speed in the mouth", "Q / A", "m/s", "geometry",
                       Q=flow, A=_mouth(sheet, leaf, hood))  # fmt: skip
    return sheet.step(f"{name}.thrown", "η_thrown", "Of what flies, into the mouth", "s * (1 - exp(-v / e))", "-",
                      "our estimate", RULE, s=aimed, v=mouth, e=sheet.rule("capture.enters", "v_e"))  # fmt: skip


@dataclass(frozen=True)
class AtTool:
    """What the ports of one tool do together."""

    ports: Mapping[int, AtPort]  #: by their place among the leaves
    grains: Grains
    floats: Step  #: share of each class that floats
    floating: Step  #: of what floats, caught by all
    flying: Step  #: of what flies, likewise


def tool_catch(sheet: Sheet, line: Line, group: Sequence[int], flows: Mapping[int, Input]) -> AtTool | None:
    """What the ports of a tool catch; None where a hood or the dust is not known.

    Parameters
    ----------
    group : places of its ports among the leaves
    flows : through them, steps [m^3/s]
    """
    first = line.leaves[group[0]].id
    grains = _made(sheet, line, group, first)
    if grains is None or any(line.leaves[i].port.hood is None for i in group):
        return None
    ports = {i: port_catch(sheet, line, line.leaves[i], flows[i]) for i in group}
    told = "Share of each class that floats rather than flies"
    floats = sheet.step(f"{first}.floats", "φ", told, "1 / (1 + (d / s) ** 2)", "-", "our estimate", RULE,
                        d=grains.sizes, s=sheet.rule("capture.airborne-size", "d_air"))  # fmt: skip
    drawn = {f"p{i}": port.drawn for i, port in ports.items()}
    missed = " * ".join(f"(1 - {name})" for name in drawn)
    told = "Of what floats, caught: a little gets past every hood"
    floating = sheet.step(f"{first}.floating", "η_air", told, f"(1 - o) * (1 - {missed})", "-", "our estimate", RULE,
                          o=sheet.rule("capture.past", "o"), **drawn)  # fmt: skip
    thrown = {f"p{i}": port.thrown for i, port in ports.items()}
    law = f"minimum({' + '.join(thrown)}, 1)"
    flying = sheet.step(f"{first}.flying", "η_fly", "Of what flies, caught", law, "-", kind=PUBLISHED, **thrown)
    return AtTool(ports, grains, floats, floating, flying)


def _made(sheet: Sheet, line: Line, group: Sequence[int], first: str) -> Grains | None:
    """A tool's dust by the classes of the line's, so that it can be added to that of other tools."""
    own = dust_at(line, tuple(group))
    if own is None or line.dust is None or own is line.dust:
        return None if own is None else grains_of(sheet, own)
    mine = own.among(line.dust.densities)
    if mine is None:
        return grains_of(sheet, own, f"{first}.dust")
    classes = grains_of(sheet, line.dust)
    told = "Share of this tool's dust in each class"
    weights = sheet.given(f"{first}.dust.weights", "w", told, mine, "-", CATALOGUE, "log-normal modes by mass")
    return replace(classes, weights=weights)


def caught_share(sheet: Sheet, line: Line, tool: AtTool, name: str) -> Step:
    """Of all the dust a tool makes, caught by all its ports, by mass.

    Parameters
    ----------
    name : id of the step
    """
    told = "Caught of all the dust made there, by mass"
    return sheet.step(name, "η", told, "sum(w * (f * a + (1 - f) * t)) / sum(w)", "-",
                      w=tool.grains.weights, f=tool.floats, a=tool.floating, t=tool.flying)  # fmt: skip


def stream_of(sheet: Sheet, line: Line, tool: AtTool, passes_trunk: bool = False) -> Step:
    """Of a tool's dust, what arrives where the branches join, class by class; past the trunk's first filters if asked."""
    first = line.leaves[min(tool.ports)].id
    parts: dict[str, Input] = {}
    pulls = {f"u{i}": port.drawn for i, port in tool.ports.items()}
    throws = {f"y{i}": port.thrown for i, port in tool.ports.items()}
    laws = []
    for i, port in tool.ports.items():
        leaf = line.leaves[i]
        passes = passes_through(sheet, line, [part for branch in leaf.way for part in branch.elements], tool.grains)
        if len(tool.ports) == 1:
            law, more = "f * a * q + (1 - f) * t", {"a": tool.floating, "t": tool.flying}
        else:
            law = f"f * a * u{i} / ({' + '.join(pulls)}) * q + (1 - f) * t * y{i} / ({' + '.join(throws)})"
            more = {"a": tool.floating, "t": tool.flying, **pulls, **throws}
        law, more = f"w * ({law})", {**more, "w": tool.grains.weights, "f": tool.floats, "q": port.to_line}
        if passes is not None:
            law, more = f"{law} * P", {**more, "P": passes}
        told = "Of the dust made, what this port's hose brings, class by class"
        parts[f"p{i}"] = sheet.step(f"{leaf.id}.stream", "s", told, law, "-", **more)
        laws.append(f"p{i}")
    stream = sheet.step(f"{first}.arrives", "s", "Of the dust made there, what arrives, class by class",
                        " + ".join(laws), "-", **parts)  # fmt: skip
    if not passes_trunk:
        return stream
    ahead = passes_through(sheet, line, ahead_of_stages(line), tool.grains)
    if ahead is None:
        return stream
    told = "Likewise, past the filters ahead of the first stage"
    return sheet.step(f"{first}.enters", "s", told, "s * P", "-", s=stream, P=ahead)


def rate_caught(sheet: Sheet, line: Line, flows: Mapping[int, Input]) -> Step | None:
    """Dust that enters the first stage; None where none is known to be made.

    Parameters
    ----------
    flows : through the ports, by their place among the leaves; steps [m^3/s]
    """
    parts: dict[str, Input] = {}
    for group in tools_of(line):
        rate = tool_rate(line, group)
        if rate is None or one_value(rate) <= 0.0:
            continue
        made = made_at(sheet, line, group)
        tool = tool_catch(sheet, line, group, flows)
        first = line.leaves[group[0]].id
        if tool is None:
            parts[f"p{group[0]}"] = made
            continue
        share = stream_of(sheet, line, tool, passes_trunk=True)
        told = "Dust of this tool that enters the separator"
        parts[f"p{group[0]}"] = sheet.step(f"{first}.rate", "ṁ_dust", told, "m * sum(s)", "kg/s", m=made, s=share)
    if not parts:
        return None
    return sheet.step("caught.rate", "ṁ_dust", "Dust that enters the first stage", " + ".join(parts), "kg/s", **parts)


def made_at(sheet: Sheet, line: Line, group: Sequence[int]) -> Step:
    """Dust that a tool makes, given at one of its ports."""
    i = next(i for i in group if line.leaves[i].port.dust_rate is not None)
    rate = line.leaves[i].port.dust_rate
    assert rate is not None
    return sheet.given(f"{line.leaves[i].id}.port.dust_rate_kg_s", "ṁ_made", "Dust made by the tool", rate, "kg/s")
