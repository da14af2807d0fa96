"""What each tool of a line and its vacuum hang on, from the shop's circuits."""

from __future__ import annotations

from math import isfinite

from fenwick.core.dust.cakes import settled_point
from fenwick.core.judging.passage import clearing_time
from fenwick.core.judging.supply import Supply
from fenwick.core.line.line import Line
from fenwick.core.line.ports import line_alone
from fenwick.rig import Rig
from fenwick.shop.model import CircuitPart, OwnedVacuum, ShopFile
from fenwick.shop.work import tool_of_port


def supplies_of(shop: ShopFile | None, rig: Rig, line: Line) -> tuple[Supply, ...]:
    """One for every tool port that is open, or that can be opened alone."""
    if shop is None:
        return ()
    vacuum = next((v for v in shop.vacuums if v.name.lower() == rig.vacuum.name.lower()), None)
    circuits = {circuit.id: circuit for circuit in shop.circuits}
    found = []
    for at, leaf in enumerate(line.leaves):
        tool = tool_of_port(shop, rig, at)
        if tool is None:
            continue
        same = vacuum is not None and tool.circuit is not None and tool.circuit == vacuum.circuit
        circuit = circuits.get(tool.circuit or "") if same else None
        found.append(_supply(leaf.id, tool.current_a, vacuum, circuit, rig, line, at))
    return tuple(found)


def _supply(
    port: str,
    current: float | None,
    vacuum: OwnedVacuum | None,
    circuit: CircuitPart | None,
    rig: Rig,
    line: Line,
    at: int,
) -> Supply:
    clears = None
    if circuit is not None and circuit.run_on_s is not None:
        alone = line_alone(line, at)
        seconds = float(clearing_time(alone, settled_point(alone), at)[0])
        clears = seconds if isfinite(seconds) else None
    hood = line.leaves[at].port.hood
    return Supply(
        port,
        circuit.name if circuit else None,
        tool=current,
        vacuum=_vacuum_current(vacuum, rig, circuit),
        fan=hood.extra_fan.current if hood and hood.extra_fan else None,
        breaker=circuit.rating_a if circuit else None,
        switch=circuit.switch_a if circuit else None,
        run_on=circuit.run_on_s if circuit else None,
        clears=clears,
    )


def _vacuum_current(vacuum: OwnedVacuum | None, rig: Rig, circuit: CircuitPart | None) -> float | None:
    """As its label says, else its power over the voltage [A]."""
    given = rig.vacuum.current_a or (vacuum.current_a if vacuum else None)
    power = rig.vacuum.electrical_power_w or (vacuum.electrical_power_w if vacuum else None)
    if given is not None:
        return given
    return power / circuit.voltage_v if power is not None and circuit is not None else None
