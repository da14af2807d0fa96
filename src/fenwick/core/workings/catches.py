"""What the ports of a tool catch together, and what of it goes on."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from fenwick.core.arrays import one_value
from fenwick.core.line.catch import ahead_of_stages, dust_at, tool_rate, tools_of
from fenwick.core.line.line import Line
from fenwick.core.workings.dusts import Grains, grains_of
from fenwick.core.workings.filters import passes_through
from fenwick.core.workings.hoods import AtPort, port_catch
from fenwick.core.workings.sheet import CATALOGUE, PUBLISHED, RULE, Input, Sheet, WorkedStep


@dataclass(frozen=True)
class AtTool:
    """What the ports of one tool do together."""

    ports: Mapping[int, AtPort]  #: by their place among the leaves
    grains: Grains
    floats: WorkedStep  #: share of each class that floats
    floating: WorkedStep  #: of what floats, caught by all
    flying: WorkedStep  #: of what flies, likewise


def tool_catch(sheet: Sheet, line: Line, group: Sequence[int], flows: Mapping[int, Input]) -> AtTool | None:
    """What the ports of a tool catch; None where a hood or the dust is not known.

    Parameters
    ----------
    group : places of its ports among the leaves [-]
    flows : through them, steps [m^3/s]
    """
    first = line.leaves[group[0]].id
    grains = _made(sheet, line, group, first)
    if grains is None or any(line.leaves[i].port.hood is None for i in group):
        return None
    ports = {i: port_catch(sheet, line, line.leaves[i], flows[i]) for i in group}
    told = "Share of each class that floats rather than flies"
    floats = sheet.step(
        f"{first}.floats", "φ", told, "1 / (1 + (d / s) ** 2)", "-", "our estimate", RULE, d=grains.sizes,
        s=sheet.rule("capture.airborne-size", "d_air")
    )  # fmt: skip
    drawn = {f"p{i}": port.drawn for i, port in ports.items()}
    missed = " * ".join(f"(1 - {name})" for name in drawn)
    told = "Of what floats, caught: a little gets past every hood"
    floating = sheet.step(
        f"{first}.floating", "η_air", told, f"(1 - o) * (1 - {missed})", "-", "our estimate", RULE,
        o=sheet.rule("capture.past", "o"), **drawn
    )  # fmt: skip
    thrown = {f"p{i}": port.thrown for i, port in ports.items()}
    law = f"minimum({' + '.join(thrown)}, 1)"
    flying = sheet.step(f"{first}.flying", "η_fly", "Of what flies, caught", law, "-", "", PUBLISHED, **thrown)
    return AtTool(ports, grains, floats, floating, flying)


def _made(sheet: Sheet, line: Line, group: Sequence[int], first: str) -> Grains | None:
    """A tool's dust by the classes of the line's, so that it can be added to that of other tools."""
    own = dust_at(line, tuple(group))
    if own is None:
        return None
    with sheet.section("The dust"):
        mine = None if line.dust is None else own.among(line.dust.densities)
        if line.dust is None or mine is None:
            return grains_of(sheet, own, f"{first}.dust")
        classes = grains_of(sheet, line.dust)
        if own is line.dust:
            return classes
        told = "Share of this tool's dust in each class"
        weights = sheet.given(f"{first}.dust.weights", "w", told, mine, "-", CATALOGUE, "log-normal modes by mass")
        return replace(classes, weights=weights)


def caught_share(sheet: Sheet, line: Line, tool: AtTool, name: str) -> WorkedStep:
    """Of all the dust a tool makes, caught by all its ports, by mass.

    Parameters
    ----------
    name : id of the step
    """
    told = "Caught of all the dust made there, by mass"
    return sheet.step(
        name, "η", told, "sum(w * (f * a + (1 - f) * t)) / sum(w)", "-", w=tool.grains.weights, f=tool.floats,
        a=tool.floating, t=tool.flying
    )  # fmt: skip


def stream_of(sheet: Sheet, line: Line, tool: AtTool, passes_trunk: bool = False) -> WorkedStep:
    """Of a tool's dust, what arrives where the branches join, class by class.

    Parameters
    ----------
    passes_trunk : whether the filters of the trunk ahead of its first stage are passed as well
    """
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
    stream = sheet.step(
        f"{first}.arrives", "s", "Of the dust made there, what arrives, class by class", " + ".join(laws), "-", **parts
    )
    if not passes_trunk:
        return stream
    ahead = passes_through(sheet, line, ahead_of_stages(line), tool.grains)
    if ahead is None:
        return stream
    told = "Likewise, past the filters ahead of the first stage"
    return sheet.step(f"{first}.enters", "s", told, "s * P", "-", s=stream, P=ahead)


def rate_caught(sheet: Sheet, line: Line, flows: Mapping[int, Input]) -> WorkedStep | None:
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


def made_at(sheet: Sheet, line: Line, group: Sequence[int]) -> WorkedStep:
    """Dust that a tool makes, given at one of its ports.

    Parameters
    ----------
    group : places of its ports among the leaves [-]
    """
    i = next(i for i in group if line.leaves[i].port.dust_rate is not None)
    rate = line.leaves[i].port.dust_rate
    assert rate is not None
    return sheet.given(f"{line.leaves[i].id}.port.dust_rate_kg_s", "ṁ_made", "Dust made by the tool", rate, "kg/s")
