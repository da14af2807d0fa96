"""Operating points against published flows, and against an independent scalar calculation with `fluids`."""

from math import pi

import fluids
import numpy as np
import pytest
from scipy.optimize import brentq

from fenwick.core.components.dust import DUSTS
from fenwick.core.components.elements import Bend, Branch, Hose, Port, Reducer
from fenwick.core.components.vacuum import Nameplate, Vacuum
from fenwick.core.system.line import Line
from fenwick.core.system.operating import operating_point
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
    columns = [np.array(column) for column in zip(*TABLE, strict=True)]
    smooth = [row for row in TABLE if row[4] < 5e-4]
    together = operating_point(plain_line(*[np.array(c) for c in zip(*smooth, strict=True)][:5]))
    alone = [operating_point(plain_line(*row[:5])).port_flow[0, 0] for row in smooth]
    assert columns[0].size == 4
    assert together.port_flow[0] == pytest.approx(alone, rel=1e-6)


def scalar_flow(suction: float, open_flow: float, hoses: list[tuple[float, float, float]], entry: float) -> float:
    """Flow [m^3/s] by marching: hoses (bore, length, roughness) joined by sharp steps, scalar `fluids` coefficients."""
    pressure, temperature = 101325.0, 293.15
    gas = 287.05 * temperature
    density, viscosity = pressure / gas, 1.458e-6 * temperature**1.5 / (temperature + 110.4)

    def part(lost: float, mass: float, k: float, bore_ref: float, bore_in: float, bore_out: float, room: bool) -> float:
        """Total suction after a part whose density is the mean of its ends."""

        def local(total: float, bore: float) -> float:
            area, rho = pi / 4 * bore**2, density
            for _ in range(60):
                rho = (pressure - total - mass**2 / (2 * rho * area**2)) / gas
            return rho

        start = density if room else local(lost, bore_in)
        after = lost
        for _ in range(60):
            mean = 0.5 * (start + local(after, bore_out))
            after = lost + k * mass**2 / (2 * mean * (pi / 4 * bore_ref**2) ** 2)
        return after

    def demand(flow: float) -> float:
        mass, bore = flow * density, hoses[0][0]
        total = part(0.0, mass, entry, bore, bore, bore, True)
        for wide, length, roughness in hoses:
            if wide < bore:
                total = part(total, mass, fluids.contraction_sharp(bore, wide), wide, bore, wide, False)
            elif wide > bore:
                total = part(total, mass, fluids.diffuser_sharp(bore, wide), bore, bore, wide, False)
            bore = wide
            f = fluids.friction_factor(4 * mass / (pi * bore * viscosity), roughness / bore)
            total = part(total, mass, f * length / bore, bore, bore, bore, False)
        return total

    most = suction * density / 1.2
    return float(brentq(lambda q: most * (1 - q / open_flow) - demand(q), 1e-3, 0.9 * open_flow))


@pytest.mark.parametrize(
    "hoses",
    [
        [(0.038, 3.0, 1e-3)],
        [(0.038, 2.5, 1e-3), (0.063, 3.0, 1e-3), (0.05, 1.2, 5e-5)],
        [(0.05, 4.0, 2e-3), (0.032, 1.0, 5e-5), (0.05, 2.0, 3e-4)],
    ],
)
def test_agrees_with_a_scalar_march(hoses: list[tuple[float, float, float]]) -> None:
    parts = tuple(Hose(f"h{i}", bore, length, roughness=rough) for i, (bore, length, rough) in enumerate(hoses))
    line = Line(Vacuum(Nameplate(18e3, 0.062)), DUSTS["saw"], (Branch("t", Port("T", hoses[0][0])),), parts)
    expected = scalar_flow(18e3, 0.062, hoses, 0.93)  # oracle: scipy's brentq over fluids' scalar coefficients
    assert operating_point(line).port_flow[0, 0] == pytest.approx(expected, rel=1e-3)


def test_a_bend_and_a_taper_count() -> None:
    straight = plain_line(18e3, 0.062, 0.038, 3.0, 1e-4)
    bent = Hose("hose", 0.038, 3.0, "smooth", (Bend(pi / 2, 0.05),) * 6, 1e-4)
    flow = operating_point(Line(straight.vacuum, straight.dust, straight.branches, (bent,))).port_flow[0, 0]
    assert flow < operating_point(straight).port_flow[0, 0]
    step = Line(straight.vacuum, None, straight.branches, (Reducer("r", 0.038, 0.027), Hose("h", 0.027, 1.0)))
    taper = Line(straight.vacuum, None, straight.branches, (Reducer("r", 0.038, 0.027, 0.08), Hose("h", 0.027, 1.0)))
    assert operating_point(taper).port_flow[0, 0] > operating_point(step).port_flow[0, 0]
