"""Operating points against published flows, and against an independent scalar calculation with `fluids`."""

from math import pi

import fluids
import numpy as np
import pytest
from scipy.optimize import brentq

from fenwick.core.components.elements import Bend, Branch, Elbow, Element, FixedLoss, Hose, Port, Reducer
from fenwick.core.components.vacuum import Nameplate, Vacuum
from fenwick.core.line.line import Line
from fenwick.core.line.operating import operating_point
from tests.lines import plain_line

TABLE = [  # published: (sealed suction, open flow, bore, length, roughness, flow in L/s)
    (18e3, 0.062, 0.027, 3.5, 1.0e-3, 23.7),
    (18e3, 0.062, 0.038, 3.0, 0.1e-3, 48.2),
    (16e3, 0.050, 0.032, 3.0, 0.1e-3, 34.9),
    (23e3, 0.062, 0.0635, 3.0, 1.2e-3, 59.6),
]


@pytest.mark.parametrize(("suction", "open_flow", "bore", "length", "roughness", "flow"), TABLE)
def test_published_flows_within_five_percent(
    suction: float, open_flow: float, bore: float, length: float, roughness: float, flow: float
) -> None:
    point = operating_point(plain_line(suction, open_flow, bore, length, roughness))
    assert point.port_flow[0, 0] * 1e3 == pytest.approx(flow, rel=0.05)


def test_all_published_flows_in_one_batch_are_those_solved_alone() -> None:
    smooth = [row for row in TABLE if row[4] < 5e-4]
    together = operating_point(plain_line(*[np.array(c) for c in zip(*smooth, strict=True)][:5]))
    alone = [operating_point(plain_line(*row[:5])).port_flow[0, 0] for row in smooth]
    assert together.port_flow[0] == pytest.approx(alone, rel=1e-6)


Spec = tuple[
    object, ...
]  #: ("hose", bore, length, roughness, bends of 90° at 4 bores), ("elbow", bore, style), ("loss", bore, k)

GAS, PRESSURE, TEMPERATURE = 287.05, 101325.0, 293.15
DENSITY = PRESSURE / (GAS * TEMPERATURE)
VISCOSITY = 1.458e-6 * TEMPERATURE**1.5 / (TEMPERATURE + 110.4)


class March:
    """Total suction along a line at one mass flow, part by part, with scalar coefficients of `fluids`."""

    def __init__(self, mass: float, entry: float, bore: float) -> None:
        self.mass, self.total, self.bore = mass, 0.0, bore
        self.part(entry, bore, bore, still=True)

    def local(self, total: float, bore: float) -> float:
        """Density at a station, by iteration."""
        area, rho = pi / 4 * bore**2, DENSITY
        for _ in range(60):
            rho = (PRESSURE - total - self.mass**2 / (2 * rho * area**2)) / (GAS * TEMPERATURE)
        return rho

    def part(self, k: float, bore_ref: float, bore_out: float, *, still: bool = False) -> None:
        """Lose K velocity heads of a bore at the mean density of the part's ends."""
        start = DENSITY if still else self.local(self.total, self.bore)
        after = self.total
        for _ in range(60):
            mean = 0.5 * (start + self.local(after, bore_out))
            after = self.total + k * self.mass**2 / (2 * mean * (pi / 4 * bore_ref**2) ** 2)
        self.total, self.bore = after, bore_out

    def step_to(self, bore: float) -> None:
        """A sharp change of bore."""
        if bore < self.bore:
            self.part(fluids.contraction_sharp(self.bore, bore), bore, bore)
        elif bore > self.bore:
            self.part(fluids.diffuser_sharp(self.bore, bore), self.bore, bore)

    def add(self, spec: Spec) -> None:
        """One element."""
        kind, bore = spec[0], float(spec[1])  # type: ignore[arg-type]
        self.step_to(bore)
        reynolds = 4 * self.mass / (pi * bore * VISCOSITY)
        if kind == "hose":
            length, roughness, bends = (float(x) for x in spec[2:])  # type: ignore[arg-type]
            f = fluids.friction_factor(reynolds, roughness / bore)
            bend = fluids.bend_rounded(Di=bore, angle=90, fd=f, rc=4 * bore, method="Rennels") - f * pi / 2 * 4
            self.part(f * length / bore + bends * bend, bore, bore)
        elif kind == "elbow":
            k = fluids.bend_miter(90.0, method="Rennels") if spec[2] == "mitre" else 0.9
            self.part(k, bore, bore)
        else:
            self.part(float(spec[2]), bore, bore)  # type: ignore[arg-type]


def scalar_flow(suction: float, open_flow: float, specs: list[Spec], entry: float) -> float:
    """Flow [m^3/s] at which the march meets a straight fan line, by scipy's bracketing root."""

    def surplus(flow: float) -> float:
        march = March(flow * DENSITY, entry, float(specs[0][1]))  # type: ignore[arg-type]
        for spec in specs:
            march.add(spec)
        return suction * DENSITY / 1.2 * (1 - flow / open_flow) - march.total

    return float(brentq(surplus, 1e-3, 0.985 * open_flow))


def element_of(spec: Spec, name: str) -> Element:
    """The same element for the solver."""
    match spec:
        case ("hose", float(bore), float(length), float(roughness), int(bends)):
            return Hose(name, bore, length, "smooth", (Bend(pi / 2, 4 * bore),) * bends, roughness)
        case ("elbow", float(bore), str(style)):
            return Elbow(name, bore, pi / 2, style)
        case (_, float(bore), float(k)):
            return FixedLoss(name, bore, k)
    raise AssertionError(spec)


def hose(bore: float, length: float, roughness: float = 1e-3, bends: int = 0) -> Spec:
    """A hose of a line below."""
    return ("hose", bore, length, roughness, bends)


#: (sealed suction, open flow, elements, entry); expected flows: the march above, an independent scalar calculation
ORACLE_LINES: list[tuple[float, float, list[Spec], str]] = [
    (18e3, 0.062, [hose(0.038, 3.0)], "plain"),
    (18e3, 0.062, [hose(0.038, 2.5), hose(0.063, 3.0), hose(0.05, 1.2, 5e-5)], "plain"),
    (18e3, 0.062, [hose(0.05, 4.0, 2e-3), hose(0.032, 1.0, 5e-5), hose(0.05, 2.0, 3e-4)], "plain"),
    (20e3, 0.035, [hose(0.032, 2.0, 5e-5, 2)], "flanged"),
    (17e3, 0.048, [hose(0.036, 3.5, 1e-3, 3), hose(0.05, 1.0, 5e-5, 1)], "plain"),
    (11e3, 0.044, [hose(0.038, 5.0, 2e-3)], "tapered"),
    (23e3, 0.062, [hose(0.027, 3.5, 1e-3, 1), hose(0.0635, 2.0, 1e-3)], "plain"),
    (21e3, 0.105, [hose(0.063, 3.0, 1e-3, 2), hose(0.076, 2.0, 3e-4)], "flanged"),
    (9e3, 0.028, [hose(0.032, 1.5, 5e-5)], "bellmouth"),
    (18e3, 0.062, [("elbow", 0.05, "mitre"), hose(0.05, 2.0, 1e-5)], "plain"),
    (18e3, 0.062, [hose(0.05, 2.0, 1e-5), ("elbow", 0.05, "short"), hose(0.05, 2.0, 1e-5)], "plain"),
    (18e3, 0.062, [hose(0.038, 1.0), ("loss", 0.038, 2.5), hose(0.038, 1.0)], "flanged"),
    (18e3, 0.062, [hose(0.1, 2.0, 3e-4), hose(0.05, 2.0)], "plain"),
    (18e3, 0.062, [hose(0.05, 8.0, 1e-3, 4)], "plain"),
    (18e3, 0.062, [hose(0.05, 15.0, 2e-3, 4)], "plain"),
    (16e3, 0.050, [hose(0.032, 3.0, 1e-4, 2), hose(0.038, 1.0, 1e-4), hose(0.05, 1.0, 1e-4)], "tapered"),
    (16e3, 0.050, [hose(0.05, 1.0, 1e-4), hose(0.038, 1.0, 1e-4), hose(0.032, 3.0, 1e-4, 2)], "tapered"),
    (23e3, 0.062, [("elbow", 0.063, "mitre"), ("elbow", 0.063, "mitre"), hose(0.063, 3.0, 1e-3)], "bellmouth"),
    (20e3, 0.035, [hose(0.019, 1.5, 5e-5)], "plain"),
    (21e3, 0.105, [hose(0.05, 3.0, 2e-3, 2), ("loss", 0.05, 1.0), hose(0.063, 1.0, 1e-3)], "flanged"),
]


@pytest.mark.parametrize("case", range(len(ORACLE_LINES)))
def test_agrees_with_a_scalar_march(case: int) -> None:
    suction, open_flow, specs, entry = ORACLE_LINES[case]
    k = {"plain": 0.93, "flanged": 0.49, "tapered": 0.25, "bellmouth": 0.04}[entry]
    parts = tuple(element_of(spec, f"e{i}") for i, spec in enumerate(specs))
    port = Port("T", float(specs[0][1]), entry)  # type: ignore[arg-type]
    line = Line(Vacuum(Nameplate(suction, open_flow)), None, (Branch("t", port),), parts)
    expected = scalar_flow(suction, open_flow, specs, k)  # oracle
    assert operating_point(line).port_flow[0, 0] == pytest.approx(expected, rel=2e-3)


def test_a_bend_and_a_taper_count() -> None:
    straight = plain_line(18e3, 0.062, 0.038, 3.0, 1e-4)
    bent = Hose("hose", 0.038, 3.0, "smooth", (Bend(pi / 2, 0.05),) * 6, 1e-4)
    flow = operating_point(Line(straight.vacuum, straight.dust, straight.branches, (bent,))).port_flow[0, 0]
    assert flow < operating_point(straight).port_flow[0, 0]
    step = Line(straight.vacuum, None, straight.branches, (Reducer("r", 0.038, 0.027), Hose("h", 0.027, 1.0)))
    taper = Line(straight.vacuum, None, straight.branches, (Reducer("r", 0.038, 0.027, 0.08), Hose("h", 0.027, 1.0)))
    assert operating_point(taper).port_flow[0, 0] > operating_point(step).port_flow[0, 0]
