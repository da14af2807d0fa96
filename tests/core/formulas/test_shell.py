"""When a bin folds: worked shells, and what a ring does."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.bins import Bin
from fenwick.core.formulas.shell import (
    RIM_HELD,
    RIM_SLIDES,
    bending_stress,
    collapse_pressure,
    lid_deflection,
    plate_stiffness,
    relief_area,
    ring_carries,
    section_stiffness,
)
from fenwick.core.formulas.stand import tipping_angle, tipping_force


@pytest.mark.parametrize(
    ("diameter", "length", "wall", "modulus", "poisson", "kilopascal"),
    [
        (0.29, 0.36, 0.0023, 0.9e9, 0.42, 11.7),  # published: HDPE pail
        (0.29, 0.18, 0.0023, 0.9e9, 0.42, 24.3),  # published: the same with a ring at half height
        (0.29, 0.35, 0.0004, 200e9, 0.30, 30.8),  # published: steel pail
    ],
)
def test_worked_shells(
    diameter: float, length: float, wall: float, modulus: float, poisson: float, kilopascal: float
) -> None:
    assert float(collapse_pressure(diameter, length, wall, modulus, poisson)) / 1e3 == pytest.approx(
        kilopascal, rel=0.02
    )


def test_thicker_and_shorter_is_stronger_and_very_short_does_not_limit() -> None:
    walls = collapse_pressure(0.3, 0.4, np.linspace(0.001, 0.01, 9), 1e9, 0.4)
    bays = collapse_pressure(0.3, np.linspace(0.1, 2.0, 9), 0.003, 1e9, 0.4)
    assert np.all(np.diff(walls) > 0)
    assert np.all(np.diff(bays) <= 0)
    assert np.isinf(collapse_pressure(0.3, 0.001, 0.003, 1e9, 0.4))


def test_bin_volume_is_that_of_its_frusta_and_bays_take_the_widest_section() -> None:
    cone = Bin((0.0, 0.4), (0.2, 0.3), stiffeners=(0.2,))
    assert float(cone.volume_to(0.4)) == pytest.approx(np.pi / 12 * 0.4 * (0.04 + 0.06 + 0.09))  # hand
    assert cone.bays == ((0.2, pytest.approx(0.25)), (0.2, pytest.approx(0.3)))


def test_a_ring_a_valve_and_a_bent_sheet_by_hand() -> None:
    # steel flat, 20 mm outwards and 3 mm tall: I = 3·20³/12 = 2000 mm⁴
    stiffness = section_stiffness(200e9, 0.020, 0.003)
    assert stiffness == pytest.approx(400.0, rel=1e-3)
    assert float(ring_carries(stiffness, 0.35, 0.21)) == pytest.approx(1.0662e6, rel=1e-3)
    # 30 L/s at 8 kPa: 115.5 m/s through a sharp edge
    assert float(relief_area(0.030, 8000.0, 1.2)) == pytest.approx(4.259e-4, rel=1e-3)
    # polycarbonate, 1.5 mm to a radius of 75 mm
    assert float(bending_stress(2.35e9, 0.0015, 0.075)) == pytest.approx(23.5e6, rel=1e-6)


def test_a_lid_by_hand_and_at_its_limits() -> None:
    # 9 mm plywood, 380 mm wide, under 17.7 kPa: linear 3.669 mm, x + 0.26 x³ = 0.4077 gives 0.3921 of its thickness
    stiffness = plate_stiffness(6e9, 0.009, 0.3)
    assert float(np.asarray(stiffness)) == pytest.approx(400.5, rel=1e-3)
    drawn = float(lid_deflection(17.7e3, 0.19, stiffness, 0.009, 0.3, RIM_SLIDES))
    assert drawn / 0.009 + RIM_SLIDES * (drawn / 0.009) ** 3 == pytest.approx(0.4077, rel=1e-3)
    assert drawn == pytest.approx(3.53e-3, rel=5e-3)
    little = float(lid_deflection(1.0, 0.19, stiffness, 0.009, 0.3, RIM_SLIDES))
    assert little == pytest.approx(1.0 * 0.19**4 * 5.3 / (64 * 400.5 * 1.3), rel=1e-3)  # no stretching yet


@given(st.floats(1e3, 30e3), st.floats(0.1, 0.3), st.floats(0.001, 0.02))
def test_a_held_rim_and_a_thicker_lid_bend_less(pressure: float, radius: float, thickness: float) -> None:
    def bends(thick: float, rim: float) -> float:
        return float(lid_deflection(pressure, radius, plate_stiffness(2e9, thick, 0.35), thick, 0.35, rim))

    assert bends(thickness, RIM_HELD) <= bends(thickness, RIM_SLIDES)
    assert bends(1.2 * thickness, RIM_SLIDES) < bends(thickness, RIM_SLIDES)


def test_what_tips_by_hand() -> None:
    assert float(tipping_force(4.0, 0.32, 0.48)) == pytest.approx(13.08, rel=1e-3)
    assert float(tipping_angle(0.32, 0.16)) == pytest.approx(np.pi / 4)
    assert np.all(np.diff(tipping_force(np.linspace(2.0, 20.0, 5), 0.32, 0.48)) > 0)
