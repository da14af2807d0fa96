"""The air of a room: its mass balance and limits; and how much dust a piece of work makes."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.formulas.room import air_changes, concentration, dose, falls_out
from fenwick.core.formulas.work import planed_volume, sawn_volume

RATES = st.floats(1e-5, 1e-2)
SOURCES = st.floats(1e-10, 1e-5)
VOLUMES = st.floats(10.0, 500.0)


@given(SOURCES, VOLUMES, RATES, st.floats(30.0, 7200.0))
def test_what_goes_in_is_in_the_air_or_has_left_it(source: float, volume: float, rate: float, duration: float) -> None:
    time = np.linspace(0.0, 2.0 * duration, 40_001)
    air = concentration(time, source, volume, rate, duration)
    left = np.trapezoid(air, time) * rate * volume
    assert air[-1] * volume + left == pytest.approx(source * duration, rel=2e-3)
    assert np.all(air >= 0.0)


@given(SOURCES, VOLUMES, RATES)
def test_a_long_job_comes_to_rest_where_gain_equals_loss(source: float, volume: float, rate: float) -> None:
    forever = 40.0 / rate
    assert float(concentration(forever, source, volume, rate, forever)) == pytest.approx(source / (volume * rate))


@given(SOURCES, VOLUMES, RATES, st.floats(1.1, 20.0))
def test_more_air_changes_never_make_it_worse(source: float, volume: float, rate: float, more: float) -> None:
    time = np.linspace(1.0, 7200.0, 50)
    slow, fast = (concentration(time, source, volume, r, 600.0) for r in (rate, rate * more))
    assert np.all(fast <= slow * (1.0 + 1e-12))
    assert float(dose(source, volume, rate * more, 600.0)) < float(dose(source, volume, rate, 600.0))


@given(SOURCES, VOLUMES, RATES, st.floats(30.0, 3600.0))
def test_a_dose_is_the_air_summed_over_all_time(source: float, volume: float, rate: float, duration: float) -> None:
    time = np.linspace(0.0, duration + 30.0 / rate, 400_001)
    summed = np.trapezoid(concentration(time, source, volume, rate, duration), time)
    assert float(dose(source, volume, rate, duration)) == pytest.approx(summed, rel=1e-3)


def test_a_shut_shop_holds_its_dust_for_hours_and_a_filter_clears_it_in_minutes() -> None:
    shut = air_changes(0.5 / 3600.0, 0.0, 43.2)
    filtered = air_changes(0.5 / 3600.0, 0.1, 43.2)
    assert float(np.log(10.0) / shut) / 3600.0 == pytest.approx(np.log(10.0) / 0.5)
    assert float(np.log(10.0) / filtered) / 60.0 == pytest.approx(15.64, rel=1e-3)


def test_coarse_grains_fall_out_sooner_than_air_is_renewed() -> None:
    assert float(falls_out(2e-3, 2.4)) * 3600.0 == pytest.approx(3.0)  # 10 µm of wood, three rooms an hour
    assert np.isinf(dose(1e-9, 40.0, 0.0, 60.0))
    assert float(dose(0.0, 40.0, 0.0, 60.0)) == 0.0


def test_a_board_and_a_cut_make_their_own_volume() -> None:
    assert planed_volume(0.2, 0.002, 1.5) == pytest.approx(6e-4)
    assert sawn_volume(0.0025, 0.025, 2.0) == pytest.approx(1.25e-4)
