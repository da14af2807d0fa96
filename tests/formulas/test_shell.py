"""When a bin folds: worked shells, and what a ring does."""

import numpy as np
import pytest

from fenwick.core.components.bins import Bin
from fenwick.core.formulas.shell import collapse_pressure


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
