"""The orbit model: the worked case of a high-efficiency cyclone, and its limits."""

from math import hypot, pi

import numpy as np
import pytest

from fenwick.core.formulas import swirl

FLOW, DENSITY, VISCOSITY, GRAIN = 0.035, 1.2, 1.81e-5, 700.0


def high_efficiency(diameter: float = 0.15) -> swirl.SwirlGeometry:
    """The published proportions a, b, De, S, h, H, B = .5 .2 .5 .5 1.5 4 .375 of the body."""
    a, b, de, s, h, total, outlet = (x * diameter for x in (0.5, 0.2, 0.5, 0.5, 1.5, 4.0, 0.375))
    roof = pi / 4 * (diameter**2 - de**2)
    cone = pi * (diameter + outlet) / 2 * hypot(total - h, (diameter - outlet) / 2)
    height = total - s  # as in the worked case, although its orbit would meet the cone above its end
    return swirl.SwirlGeometry(diameter / 2, de / 2, a, b, height, roof + pi * diameter * h + cone + pi * de * s)


def test_the_worked_cyclone() -> None:
    g = high_efficiency()
    velocities = swirl.swirl_velocities(g, FLOW, 0.005, 0.0)
    assert float(velocities.inlet_velocity) == pytest.approx(15.6, rel=0.01)  # published
    cut = swirl.cut_size_orbit(g, velocities, FLOW, GRAIN, DENSITY, VISCOSITY)
    assert float(cut) == pytest.approx(2.54e-6, rel=0.02)  # published
    k = swirl.loss_coefficient_orbit(g, 0.005, 0.0)
    drop = float(k) * 0.5 * DENSITY * float(velocities.outlet_velocity) ** 2
    assert drop == pytest.approx(1347.0, rel=0.02)  # published


def test_cut_size_falls_with_flow_and_loss_coefficient_does_not_know_it() -> None:
    g = high_efficiency()
    flow = np.linspace(0.01, 0.08, 8)
    cut = swirl.cut_size_orbit(g, swirl.swirl_velocities(g, flow, 0.005, 0.0), flow, GRAIN, DENSITY, VISCOSITY)
    assert np.all(np.diff(cut) < 0)
    assert cut[0] / cut[-1] == pytest.approx(np.sqrt(8.0))  # Δ ~ 1/√Q at a constant friction factor


def test_rough_walls_cut_coarser_and_cost_less() -> None:
    g = high_efficiency()
    rough = np.array([0.005, 0.01, 0.02, 0.04])
    velocities = swirl.swirl_velocities(g, FLOW, rough, 0.0)
    assert np.all(np.diff(swirl.cut_size_orbit(g, velocities, FLOW, GRAIN, DENSITY, VISCOSITY)) > 0)
    assert np.all(np.diff(velocities.core_velocity) < 0)


def test_grade_is_one_half_at_the_cut_and_rises() -> None:
    size = np.geomspace(1e-7, 1e-3, 40)
    grade = swirl.grade_efficiency(size, 5e-6, 2.5)
    assert float(swirl.grade_efficiency(5e-6, 5e-6, 2.5)) == pytest.approx(0.5)
    assert np.all(np.diff(grade) > 0)
    assert 0 < grade[0] < 1e-4
    assert grade[-1] < 1


def test_no_dust_is_a_surplus_where_it_is_thin_and_nearly_all_where_it_is_thick() -> None:
    load = np.array([0.0, 1e-6, 1.9e-5, 2e-5, 1e-3, 0.1, 5.0])
    surplus = swirl.surplus_share(load, 5e-6, 50e-6, 0.025)
    assert np.all(surplus[:4] == 0.0)
    assert np.all((surplus >= 0.0) & (surplus < 1.0))
    assert surplus[-1] > 0.99
    at = 0.1
    assert float(swirl.surplus_share(at, 5e-6, 50e-6, 0.025)) == pytest.approx(1.0 - 0.025 * 0.1 / at, rel=1e-9)


def test_more_dust_never_makes_a_smaller_surplus_and_there_is_no_step() -> None:
    load = np.geomspace(1e-6, 10.0, 4000)
    for factor in (0.01, 0.025, 0.06):
        for ratio in (0.002, 0.02, 0.2, 1.0):
            surplus = swirl.surplus_share(load, ratio * 1e-4, 1e-4, factor)
            assert np.all(np.diff(surplus) >= -1e-6)  # k is 0.15 from 0.1 on, and 0.120 just below
            assert np.max(np.abs(np.diff(surplus))) < 0.02
