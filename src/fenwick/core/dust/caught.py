"""What all the open ports catch and miss together, size by size, shares of the dust made at them."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.dust.capture import Capture, tools_of
from fenwick.core.dust.vacuum_path import medium_penetration, passes_filters
from fenwick.core.formulas.capture import missed_by_all
from fenwick.core.line.line import Line


@dataclass(frozen=True)
class Caught:
    """Shares of each size [-], shape (60, n); with what is left over they add up to 1."""

    caught: Array  #: as it arrives where the branches join
    inline: Array  #: held by in-line filters on the way there
    missed_floating: Array  #: past every port, into the room's air
    on_floor: Array  #: flying, past every port
    in_hood: Array  #: flying, kept in by a box
    extra_held: Array  #: by the filters of extra fans
    extra_passed: Array  #: through them, back into the room


def caught_together(line: Line, captures: tuple[Capture, ...]) -> Caught | None:
    """All open ports weighted by the dust made at each tool; None where a hood, or with several tools a rate, is not
    known."""
    groups = tools_of(line)
    known = {capture.id: capture for capture in captures}
    if not captures or any(line.leaves[i].id not in known for group in groups for i in group):
        return None
    shares = _shares_made(line, groups)
    if shares is None:
        return None
    tools = [_at_tool(line, [(i, known[line.leaves[i].id]) for i in group]) for group in groups]

    def together(name: str) -> Array:
        return np.asarray(sum(share * getattr(tool, name) for share, tool in zip(shares, tools, strict=True)))

    return Caught(*(together(name) for name in Caught.__dataclass_fields__))


def tool_rate(line: Line, group: tuple[int, ...]) -> Array | None:
    """Dust a tool makes [kg/s], given at any of its ports; None where it is at none.

    Parameters
    ----------
    group : places of its ports among the leaves [-]
    """
    rates = [line.leaves[i].port.dust_rate for i in group]
    known = [np.asarray(rate, dtype=float) for rate in rates if rate is not None]
    return known[0] if known else None


def _shares_made(line: Line, groups: tuple[tuple[int, ...], ...]) -> list[Array] | None:
    """Each tool's share of all the dust made [-]; None where it cannot be told."""
    if len(groups) == 1:
        return [np.asarray(1.0)]
    rates = []
    for group in groups:
        rate = tool_rate(line, group)
        if rate is None:
            return None
        rates.append(rate)
    total = np.asarray(sum(rates))
    return [rate / total for rate in rates] if np.all(total > 0.0) else None


def _at_tool(line: Line, ports: list[tuple[int, Capture]]) -> Caught:
    """What the ports of one tool do with the dust it makes."""
    floats = ports[0][1].floating
    missed = missed_by_all(np.stack([1.0 - port.airborne for _, port in ports]))
    pulls = [port.airborne for _, port in ports]
    pull = np.maximum(np.asarray(sum(pulls)), 1e-300)
    aimed = np.asarray(sum(port.thrown for _, port in ports))
    thrown = np.minimum(1.0, aimed)
    nothing = np.zeros_like(floats * missed)
    arrives, inline, held, passed = nothing, nothing, nothing, nothing
    for i, port in ports:
        leaf = line.leaves[i]
        floating = floats * (1.0 - missed) * port.airborne / pull
        flying = (1.0 - floats) * port.thrown * thrown / np.maximum(aimed, 1e-300)
        stream = floating * port.to_line + flying
        through = stream * passes_filters([part for branch in leaf.way for part in branch.elements], line.rules)
        arrives, inline = arrives + through, inline + stream - through
        fan = leaf.port.hood.extra_fan if leaf.port.hood else None
        if fan is not None:
            taken = floating * (1.0 - port.to_line)
            past = taken if fan.medium is None else taken * medium_penetration(fan.medium, line.rules)
            held, passed = held + taken - past, passed + past
    boxed = any(hood.encloses for i, _ in ports if (hood := line.leaves[i].port.hood) is not None)
    box = np.asarray(line.rules["capture.box-holds"] if boxed else 0.0)
    flies_past = (1.0 - floats) * (1.0 - thrown)
    return Caught(
        caught=arrives,
        inline=inline,
        missed_floating=floats * missed,
        on_floor=flies_past * (1.0 - box),
        in_hood=flies_past * box,
        extra_held=held,
        extra_passed=passed,
    )
