"""The fan curve: its ends, its peak, and where it meets a resistance."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.errors import OutsideDomainError
from fenwick.core.formulas import fan


@given(st.floats(0.5, 4.0))
def test_peak_air_power_is_the_largest_product(exponent: float) -> None:
    flow = np.linspace(0, 0.06, 20001)
    power = flow * fan.suction_nameplate(flow, 18e3, 0.06, exponent)
    assert np.max(power) == pytest.approx(18e3 * 0.06 * fan.peak_air_power_share(exponent), rel=1e-6)


@given(st.floats(0.55, 3.9))
def test_exponent_comes_back_from_its_air_power(exponent: float) -> None:
    power = 18e3 * 0.06 * float(fan.peak_air_power_share(exponent))
    assert fan.exponent_from_air_power(power, 18e3, 0.06) == pytest.approx(exponent, rel=1e-9)


@pytest.mark.parametrize(("power", "word"), [(10.0, "too low"), (2000.0, "too high")])
def test_air_power_that_contradicts_the_pair_is_refused(power: float, word: str) -> None:
    with pytest.raises(OutsideDomainError, match=word):
        fan.exponent_from_air_power(power, 18e3, 0.06)


@given(st.floats(1e-3, 1e12), st.sampled_from([0.5, 1.0, 1.7, 4.0]))
def test_fan_meets_the_line_where_both_suctions_agree(resistance: float, exponent: float) -> None:
    sealed, open_flow = np.array([18e3]), np.array([0.07])
    mass = fan.meeting_mass_flow(np.array([resistance]), sealed, open_flow, np.array([exponent]))
    made = sealed * (1 - (mass / open_flow) ** exponent)
    assert made[0] == pytest.approx(resistance * mass[0] ** 2, rel=1e-6, abs=1e-6 * sealed[0])
