"""The circuit that a tool and the vacuum hang on: for judging, never for wiring."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.core.arrays import one_value
from fenwick.core.judging.check import Check, figure
from fenwick.core.judging.passage import run_on_seconds
from fenwick.core.rules import RuleBook


@dataclass(frozen=True)
class Supply:
    """One tool at work with the vacuum."""

    port: str  #: id of the tool's port
    circuit: str | None  #: name of the circuit both hang on; None: on different ones, or not known
    tool: float | None  #: current [A]
    vacuum: float | None  #: current [A]
    breaker: float | None = None  #: [A]
    switch: float | None = None  #: the outlet or switch that starts the vacuum [A]
    run_on: float | None = None  #: how long that lets the vacuum run on [s]
    clears: float | None = None  #: what the line takes to clear [s]
    fan: float | None = None  #: current of an extra fan at its hood [A]; None: there is none, or not known


def supply_checks(supplies: tuple[Supply, ...], rules: RuleBook) -> list[Check]:
    """The worst tool by each measure; what is not known is left out."""
    found: dict[str, Check] = {}
    for supply in supplies:
        for check in _of_one(supply, rules):
            worst = found.get(check.id)
            if worst is None or _excess(check) > _excess(worst):
                found[check.id] = check
    return list(found.values())


def _excess(check: Check) -> tuple[int, float]:
    value, limit = float(check.value[0]), float(check.limit[0])
    ratio = limit / max(value, 1e-9) if check.id == "run-on" else value / max(limit, 1e-9)
    return int(check.level[0]), ratio


def _of_one(supply: Supply, rules: RuleBook) -> list[Check]:
    found = []
    if supply.circuit is not None and supply.tool is not None and supply.vacuum is not None:
        found += _currents(supply, supply.tool, supply.vacuum, rules)
    if supply.run_on is not None and supply.clears is not None:
        clears = run_on_seconds(supply.clears)
        found.append(figure("run-on", False, supply.run_on < clears, supply.run_on, clears, "seconds", supply.port))
    return found


def _currents(supply: Supply, tool: float, vacuum: float, rules: RuleBook) -> list[Check]:
    fan = supply.fan or 0.0
    total, found = tool + vacuum + fan, []
    if supply.breaker is not None:
        long = one_value(rules["circuit.continuous"]) * supply.breaker
        over = total > supply.breaker
        found.append(figure("circuit", over, total > long, total, long, "current", supply.port, supply.breaker))
        starts = tool + fan + one_value(rules["circuit.start"]) * vacuum
        trips = one_value(rules["circuit.trip"]) * supply.breaker
        found.append(figure("start-up", False, starts > trips, starts, trips, "current", supply.port))
    if supply.switch is not None:
        found.append(figure("switch", total > supply.switch, False, total, supply.switch, "current", supply.port))
    return found
