"""Filters, the tank, and what a hood catches: limits and order."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.formulas import capture, filtering
from fenwick.core.formulas.bin import BinAir, retention, tilt_share


def test_penetration_falls_with_size_and_with_the_cake() -> None:
    size = np.geomspace(0.5e-6, 1e-3, 30)
    passes = filtering.clean_penetration(size, 0.1, 1e-6, 0.5)
    assert np.all(np.diff(passes) < 0)
    assert passes[0] <= 1
    loaded = filtering.caked_penetration(passes, 0.05, 0.05)
    assert np.allclose(loaded, passes / np.e)


def test_cake_coefficient_stays_within_its_limits() -> None:
    k2 = filtering.cake_coefficient(np.array([1e-7, 50e-6, 1.0]), 1e5, 2e4, 1e6)
    assert k2.tolist() == [1e6, 1e5, 2e4]


@given(st.floats(1e-4, 0.1), st.floats(0.02, 0.1), st.booleans())
def test_hood_speed_falls_with_distance_and_never_exceeds_the_opening(flow: float, bore: float, flanged: bool) -> None:
    area = np.pi / 4 * bore**2
    speed = capture.velocity_at_distance(flow, area, np.linspace(0, 0.5, 20), flanged)
    assert np.all(np.diff(speed) <= 0)
    assert speed[0] == pytest.approx(flow / area)


def test_nine_tenths_are_caught_at_the_needed_speed() -> None:
    assert float(capture.captured_airborne_share(1.5, 1.5, 0.1, 1.5)) == pytest.approx(0.9)
    assert float(capture.captured_airborne_share(0.0, 1.5, 0.1, 1.5)) == pytest.approx(0.0, abs=1e-15)


def test_bin_keeps_everything_without_leak_and_exchange_and_leans_away_its_share() -> None:
    falls = np.array([[1e-4], [0.1], [2.0]])
    assert np.all(retention(falls, BinAir(0.04, 0.0, 0.0, 1.0, 0.09, 0.02), 7.0, 4.0) == 1.0)
    assert float(tilt_share(0.0, 1.5)) == 1.0
    assert float(tilt_share(np.pi / 3, 1.0)) == pytest.approx(0.5)
