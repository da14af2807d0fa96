"""What all the open ports catch and miss together, size by size, shares of the dust made at them."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from fenwick.core.arrays import Array
from fenwick.core.components.dust import Dust
from fenwick.core.dust.capture import Capture
from fenwick.core.line.catch import dust_at, floating_caught, floating_share, thrown_caught, tool_rate, tools_of
from fenwick.core.line.filters import medium_penetration, passes_filters
from fenwick.core.line.line import Line


@dataclass(frozen=True)
class Caught:
    """Shares of all the dust made, by class of grains [-], each of shape (60 k, n); they add up to its weights."""

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
    if line.dust is None or not captures or any(line.leaves[i].id not in known for group in groups for i in group):
        return None
    shares = _shares_made(line, groups)
    if shares is None:
        return None
    tools = [
        _at_tool(line, line.dust, _made_at(line, line.dust, group), [(i, known[line.leaves[i].id]) for i in group])
        for group in groups
    ]

    def together(name: str) -> Array:
        return np.asarray(sum(share * getattr(tool, name) for share, tool in zip(shares, tools, strict=True)))

    return Caught(*(together(name) for name in Caught.__dataclass_fields__))


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


def _made_at(line: Line, dust: Dust, group: tuple[int, ...]) -> Array:
    """A tool's dust, by the classes of the line's [-], shape (60 k, 1 or n)."""
    own = dust_at(line, group)
    mine = None if own is None else own.among(dust.densities)
    return dust.weights if mine is None else mine


def arriving_by_port(line: Line, captures: tuple[Capture, ...]) -> dict[str, Array]:
    """What each open port sends to where the branches join, per dust made at its tool, by class of grains [-].

    Empty where the dust or a hood is not known. Each of shape (60 k, n).
    """
    groups = tools_of(line)
    known = {capture.id: capture for capture in captures}
    found: dict[str, Array] = {}
    if line.dust is None:
        return found
    for group in groups:
        ports = [(i, known[line.leaves[i].id]) for i in group if line.leaves[i].id in known]
        if len(ports) == len(group):
            made = _made_at(line, line.dust, group)
            for i, _ in ports:
                found[line.leaves[i].id] = _at_tool(line, line.dust, made, ports, only=i).caught
    return found


def _at_tool(line: Line, dust: Dust, made: Array, ports: list[tuple[int, Capture]], only: int | None = None) -> Caught:
    """What the ports of one tool do with the dust it makes; what arrives, of one of them alone where it is named."""
    sizes = dust.sizes
    floats = made * floating_share(dust, line)
    flies = made - floats
    taken_in = floating_caught([port.drawn for _, port in ports], line)
    pulls = [port.drawn for _, port in ports]
    pull = np.maximum(np.asarray(sum(pulls)), 1e-300)
    aimed = np.asarray(sum(port.thrown for _, port in ports))
    thrown = thrown_caught([port.thrown for _, port in ports])
    nothing = np.zeros_like(floats * taken_in)
    arrives, inline, held, passed = nothing, nothing, nothing, nothing
    for i, port in ports:
        leaf = line.leaves[i]
        floating = floats * taken_in * port.drawn / pull
        flying = flies * port.thrown * thrown / np.maximum(aimed, 1e-300)
        stream = floating * port.to_line + flying
        through = stream * passes_filters([part for branch in leaf.way for part in branch.elements], sizes, line.rules)
        if only is None or only == i:
            arrives, inline = arrives + through, inline + stream - through
        fan = leaf.port.hood.extra_fan if leaf.port.hood else None
        if fan is not None:
            taken = floating * (1.0 - port.to_line)
            past = taken if fan.medium is None else taken * medium_penetration(fan.medium, sizes, line.rules)
            held, passed = held + taken - past, passed + past
    boxed = any(hood.encloses for i, _ in ports if (hood := line.leaves[i].port.hood) is not None)
    box = np.asarray(line.rules["capture.box-holds"] if boxed else 0.0)
    flies_past = flies * (1.0 - thrown)
    return Caught(
        caught=arrives,
        inline=inline,
        missed_floating=floats * (1.0 - taken_in),
        on_floor=flies_past * (1.0 - box),
        in_hood=flies_past * box,
        extra_held=held,
        extra_passed=passed,
    )


@dataclass(frozen=True)
class Arriving:
    """The dust that arrives where the branches join."""

    together: Caught | None  #: at the ports; None where a hood, or with several tools a rate, is not known
    #: by class of grains, per dust made [-], shape (60 k, n): what the ports catch, or the dust as made where that is
    #: not known or nothing is caught, so that it can be told what a separator would keep of it
    entering: Array
    real: npt.NDArray[np.bool_]  #: whether that is caught indeed, shape (n,) or shared


def arriving(line: Line, captures: tuple[Capture, ...]) -> Arriving | None:
    """What arrives where the branches join; None where the dust is not known.

    Parameters
    ----------
    line : with known dust
    captures : at its open ports
    """
    if line.dust is None:
        return None
    together = caught_together(line, captures)
    if together is None:
        return Arriving(None, line.dust.weights, np.zeros(1, dtype=bool))
    some = np.sum(together.caught, axis=0) > 0.0
    if np.all(some):
        return Arriving(together, together.caught, some)
    return Arriving(together, np.asarray(np.where(some, together.caught, line.dust.weights)), some)
