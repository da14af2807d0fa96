"""One line on other days: a hotter room, thinner air, a worn motor, a dirtier filter; all in one batch."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from fenwick.core.arrays import Array, one_value
from fenwick.core.components.vacuum import FilterMedium, MeasuredCurve, Nameplate
from fenwick.core.dust.cakes import settled_point
from fenwick.core.formulas.air import REFERENCE_DENSITY
from fenwick.core.line.line import Line
from fenwick.core.line.ports import alone_openings, with_openings


@dataclass(frozen=True)
class Day:
    """A day unlike today."""

    key: str
    temperature: float | None = None  #: of the room instead of today's [K]
    altitude: float | None = None  #: instead of the site's [m]
    speed: float = 1.0  #: of the motor against today's [-]
    filter_load: float | None = None  #: dust on the filter instead of today's [kg/m^2]


CASES = (
    Day("today"),
    Day("hot", temperature=308.15),
    Day("high", altitude=1500.0),
    Day("worn", speed=0.85),
    Day("caked", filter_load=0.3),
)


@dataclass(frozen=True)
class CaseFigures:
    """What the cases come to; arrays of shape (cases,) or (ports, cases)."""

    cases: tuple[Day, ...]
    sealed: Array  #: suction with everything shut [Pa]
    flow: Array  #: at each port when it is open alone, room density [m^3/s], shape (ports, cases)


def solve_cases(line: Line, cases: tuple[Day, ...] = CASES) -> CaseFigures:
    """Every case of a single-variant line, each port alone.

    Cases and ports are one batch: variant p·cases + c is case c with port p open alone.
    """
    ports = len(line.leaves)

    def spread(values: list[float]) -> Array:
        return np.tile(np.array(values), ports)

    here, up = one_value(line.site.temperature), one_value(line.site.altitude)
    site = replace(
        line.site,
        temperature=spread([here if case.temperature is None else case.temperature for case in cases]),
        altitude=spread([up if case.altitude is None else case.altitude for case in cases]),
    )
    openings = {name: np.repeat(opening, len(cases)) for name, opening in alone_openings(line).items()}
    curve = line.vacuum.curve
    batch = replace(
        with_openings(line, {**openings}),
        site=site,
        vacuum=replace(
            line.vacuum,
            curve=curve.at_speed(spread([case.speed for case in cases])) if isinstance(curve, Nameplate) else curve,
            filter=_filter(line.vacuum.filter, cases, ports),
        ),
    )
    flow = _flows(batch, cases, ports)
    sealed = np.asarray(curve.sealed_suction * site.density / REFERENCE_DENSITY)[: len(cases)]
    speeds = np.array([case.speed for case in cases])
    if isinstance(curve, MeasuredCurve):  # its points have no variant axis: slower motors are solved apart
        for c, case in enumerate(cases):
            if case.speed != 1.0:
                slow = replace(batch, vacuum=replace(batch.vacuum, curve=curve.at_speed(case.speed)))
                flow[:, c] = _flows(slow, cases, ports)[:, c]
    return CaseFigures(cases, sealed * speeds**2, flow)


def _flows(batch: Line, cases: tuple[Day, ...], ports: int) -> Array:
    solved = settled_point(batch).port_flow
    everything = np.broadcast_to(solved, (ports, ports * len(cases))).reshape(ports, ports, len(cases))
    return np.array([everything[p, p] for p in range(ports)])


def _filter(held: FilterMedium | None, cases: tuple[Day, ...], ports: int) -> FilterMedium | None:
    if held is None:
        return None
    area, mass = one_value(held.area), one_value(held.held)
    loads = [mass if case.filter_load is None else max(mass, case.filter_load * area) for case in cases]
    return replace(held, held=np.tile(np.array(loads), ports))
