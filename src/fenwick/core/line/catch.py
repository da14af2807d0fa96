"""What the hoods of a line catch at the air their ports draw: the tools' dust on its way into the hoses.

Used while the line is solved, since a separator's loss follows the dust that enters it, and afterwards, when what is
caught is told port by port.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.components.dust import Dust
from fenwick.core.components.elements import Element
from fenwick.core.components.hood import Hood
from fenwick.core.components.separator import Separator
from fenwick.core.components.wet import WetStage
from fenwick.core.formulas.capture import (
    airborne_share,
    captured_airborne_share,
    entering_share,
    missed_by_all,
    narrower_mouth_share,
)
from fenwick.core.line.extra_fan import extra_flow
from fenwick.core.line.filters import passes_filters
from fenwick.core.line.line import Leaf, Line
from fenwick.core.rules import RELEASE_VELOCITY, RuleBook

MOST_LOAD = 10.0  #: dust per air that is followed [kg/kg]


@dataclass(frozen=True)
class HoodAir:
    """The air at a hood and what it draws in; arrays of shape (n,)."""

    through: Array  #: hood and extra fan together [m^3/s]
    velocity: tuple[Array, ...]  #: at the dust, in each way of working [m/s]
    drawn: tuple[Array, ...]  #: share of the floating dust drawn in, likewise, what gets past every hood aside [-]
    drawn_in: Array  #: over all ways of working [-]
    mouth: Array  #: air speed in the mouth that chips are thrown at [m/s]
    thrown: Array  #: share of the flying dust that goes into it [-]
    to_line: Array  #: of what floats and is drawn in, the share the hose takes; an extra fan takes the rest [-]


def needed_velocity(hood: Hood, rules: RuleBook) -> Values:
    """Air speed at the dust that its release wants: the geometric middle of the published band [m/s].

    The rule leads to the ends of the band: 0.5 to the lower, 2 to the upper one.
    """
    low, high = RELEASE_VELOCITY[hood.release]
    return np.asarray(np.sqrt(low * high) * np.power(high / low, 0.5 * np.log2(rules["capture.release"])))


class HoodLaw:
    """What a hood does at any air its port draws; all that does not hang on the air is worked out once."""

    def __init__(self, leaf: Leaf, hood: Hood, line: Line) -> None:
        flanged = leaf.port.entry == "flanged"
        self.rules, self.openings = line.rules, hood.openings(leaf.port.bore)
        total = sum(opening.share for opening in self.openings)
        self.often = tuple(opening.share / total for opening in self.openings)
        # the speed before an opening goes with the air through it
        self.speeds = tuple(hood.speed(1.0, opening, flanged) for opening in self.openings)
        self.needed = needed_velocity(hood, line.rules)
        self.mouth = np.asarray(hood.mouth(leaf.port.bore))
        self.aimed = _aimed(hood, leaf, line)
        self.extra = extra_flow(hood.extra_fan, line)

    def at(self, flow: Array) -> HoodAir:
        """At a flow through the port, at room density, shape (n,) [m^3/s].

        Parameters
        ----------
        flow : through the port, at room density, shape (n,) [m^3/s]
        """
        rules, through = self.rules, flow + self.extra
        velocity = tuple(through * speed for speed in self.speeds)
        drawn = tuple(
            captured_airborne_share(speed, self.needed, rules["capture.missed"], rules["capture.power"])
            for speed in velocity
        )
        mouth = flow / self.mouth
        return HoodAir(
            through,
            velocity,
            drawn,
            np.asarray(sum(share * one for share, one in zip(self.often, drawn, strict=True))),
            mouth,
            self.aimed * entering_share(mouth, rules["capture.enters"]),
            flow / np.maximum(through, 1e-300),
        )


def _aimed(hood: Hood, leaf: Leaf, line: Line) -> Array:
    """Share of the flying dust that is aimed at the mouth, a plate behind the tool included [-]."""
    own = leaf.port.bore if hood.thrown_bore is None else hood.thrown_bore
    aimed = hood.thrown_share * narrower_mouth_share(leaf.port.bore, own, line.rules["capture.narrower"])
    return np.asarray(aimed + line.rules["capture.rebound"] * (1.0 - aimed)) if hood.rebound else aimed


def dust_at(line: Line, group: tuple[int, ...]) -> Dust | None:
    """The dust that a tool makes: named at any of its ports, or the usual one; None where that is not known.

    Parameters
    ----------
    group : places of its ports among the leaves [-]
    """
    own = next((line.leaves[i].port.dust for i in group if line.leaves[i].port.dust is not None), None)
    return own or line.usual_dust or line.dust


def floating_share(dust: Dust, line: Line) -> Array:
    """Share of each class of grains that floats rather than flies [-], shape (60 k, 1 or n)."""
    return airborne_share(dust.sizes, line.rules["capture.airborne-size"])


def floating_caught(drawn: Sequence[Array], line: Line) -> Array:
    """Share of the floating dust that the ports of one tool catch together [-]: what gets past every hood does so once.

    Parameters
    ----------
    drawn : by each of them, at least one, each of shape (n,) [-]
    line : for its rules
    """
    missed = missed_by_all(1.0 - np.stack(tuple(drawn)))
    return np.asarray((1.0 - line.rules["capture.past"]) * (1.0 - missed))


def thrown_caught(thrown: Sequence[Array]) -> Array:
    """Share of the flying dust that the ports of one tool get together [-].

    Parameters
    ----------
    thrown : into each of them, at least one, each of shape (n,) [-]
    """
    return np.asarray(np.minimum(1.0, sum(thrown)))


def tools_of(line: Line) -> tuple[tuple[int, ...], ...]:
    """Places of the open ports among the leaves, those of one tool together, in the order of the file."""
    groups: dict[str, list[int]] = {}
    for i, leaf in enumerate(line.leaves):
        if leaf.open:
            groups.setdefault(f"tool {leaf.port.tool}" if leaf.port.tool else f"port {leaf.id}", []).append(i)
    return tuple(tuple(group) for group in groups.values())


def tool_rate(line: Line, group: tuple[int, ...]) -> Array | None:
    """Dust a tool makes [kg/s], given at any of its ports, while one of them is open; None where it is at none.

    Parameters
    ----------
    group : places of its ports among the leaves [-]
    """
    known = [rate for i in group if (rate := line.leaves[i].port.dust_rate) is not None]
    if not known:
        return None
    widest: Values = 0.0
    for i in group:
        widest = np.maximum(widest, opening_of(line.leaves[i]))
    return np.asarray(np.where(np.asarray(widest) > 0.0, known[0], 0.0))


def opening_of(leaf: Leaf) -> Values:
    """How far the gates on a port's way stand open, the least of them [-]."""
    opening: Values = 1.0
    for branch in leaf.way:
        opening = np.minimum(opening, 1.0 if branch.gate_opening is None else branch.gate_opening)
    return opening


def dust_rate(line: Line) -> Values:
    """Dust made at all open ports [kg/s]; 0 where it is not known."""
    rates = [rate for group in tools_of(line) if (rate := tool_rate(line, group)) is not None]
    return sum(rates, start=np.asarray(0.0))


class Catch:
    """What enters the first stage of a line, as a function of the air its ports draw."""

    def __init__(self, line: Line) -> None:
        self.line = line
        rated = [(group, tool_rate(line, group)) for group in tools_of(line)]
        self.tools = [(group, rate) for group, rate in rated if rate is not None and np.any(rate > 0.0)]
        self.shares: dict[int, tuple[Array, Array]] = {}
        leaves = [(i, line.leaves[i]) for group, _ in self.tools for i in group]
        self.hoods = {i: HoodLaw(leaf, leaf.port.hood, line) for i, leaf in leaves if leaf.port.hood}
        for group, _ in self.tools:
            dust = dust_at(line, group)
            if dust is not None:
                self.shares |= self._shares_by_mass(group, dust)

    def _shares_by_mass(self, group: tuple[int, ...], dust: Dust) -> dict[int, tuple[Array, Array]]:
        """(of a tool's dust, floating and past the filters of a port's way; flying and past them), by port [-]."""
        floats, sizes, rules = floating_share(dust, self.line), dust.sizes, self.line.rules
        trunk = passes_filters(ahead_of_stages(self.line), sizes, rules)
        shares = {}
        for i in group:
            parts = [part for branch in self.line.leaves[i].way for part in branch.elements]
            arrives = dust.weights * passes_filters(parts, sizes, rules) * trunk
            floating = np.sum(arrives * floats, axis=0)
            shares[i] = floating, np.sum(arrives, axis=0) - floating
        return shares

    def rate(self, port_flow: Array) -> Values:
        """Dust that enters [kg/s], shape (n,) or shared; all that is made at a tool whose hood is not described.

        Parameters
        ----------
        port_flow : at room density, shape (ports, n) [m^3/s]
        """
        return sum((self._of_tool(group, rate, port_flow) for group, rate in self.tools), start=np.asarray(0.0))

    def _of_tool(self, group: tuple[int, ...], rate: Array, port_flow: Array) -> Array:
        if group[0] not in self.shares or any(i not in self.hoods for i in group):
            return rate
        air = {i: self.hoods[i].at(port_flow[i]) for i in group}
        if len(air) == 1:
            (i, one), past = next(iter(air.items())), self.line.rules["capture.past"]
            floats, flies = self.shares[i]
            return rate * (floats * (1.0 - past) * one.drawn_in * one.to_line + flies * one.thrown)
        pulls = sum((one.drawn_in for one in air.values()), start=np.asarray(1e-300))
        aimed = sum((one.thrown for one in air.values()), start=np.asarray(1e-300))
        floating = floating_caught([one.drawn_in for one in air.values()], self.line) / pulls
        flying = thrown_caught([one.thrown for one in air.values()]) / aimed
        caught = np.asarray(0.0)
        for i, one in air.items():
            floats, flies = self.shares[i]
            caught = caught + floats * floating * one.drawn_in * one.to_line + flies * flying * one.thrown
        return np.asarray(rate * caught)


def ahead_of_stages(line: Line) -> list[Element]:
    """The parts of the trunk ahead of its first stage; all of them where there is none."""
    parts: list[Element] = []
    for part in line.trunk:
        if isinstance(part, Separator | WetStage):
            break
        parts.append(part)
    return parts


def dust_load(caught: Values, mass_flow: Values) -> Array:
    """c0, dust per air [kg/kg].

    Parameters
    ----------
    caught : dust that enters with it [kg/s]
    mass_flow : of air [kg/s]
    """
    return np.asarray(np.minimum(caught / np.maximum(mass_flow, 1e-9), MOST_LOAD))
