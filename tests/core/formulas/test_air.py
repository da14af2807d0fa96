"""Air: published points of the standard atmosphere."""

import numpy as np
import pytest

from fenwick.core.formulas import air


@pytest.mark.parametrize(
    ("altitude", "pressure"),
    [(0.0, 101325.0), (1000.0, 89874.6), (2000.0, 79495.2)],  # published: ISA 1976 tables
)
def test_pressure_follows_the_standard_atmosphere(altitude: float, pressure: float) -> None:
    assert air.pressure_isa1976(altitude) == pytest.approx(pressure, rel=1e-4)


def test_density_at_sea_level_and_20_degrees() -> None:
    assert air.density_ideal_gas(101325.0, 293.15) == pytest.approx(1.204, rel=1e-3)  # published


def test_viscosity_rises_with_temperature() -> None:
    assert air.viscosity_sutherland(293.15) == pytest.approx(1.81e-5, rel=5e-3)  # published
    assert np.all(np.diff(air.viscosity_sutherland(np.linspace(250, 330, 9))) > 0)
