"""Sizes: the mix adds up, and grains fall as measured."""

import fluids
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.components.dust import DUSTS
from fenwick.core.formulas.sizes import SIZES, lognormal_weights, terminal_velocity


@pytest.mark.parametrize("dust", DUSTS.values(), ids=lambda dust: dust.kind)
def test_every_mix_adds_up_and_has_its_median(dust) -> None:  # type: ignore[no-untyped-def]
    weights = dust.weights
    assert weights.shape == (60, 1)
    assert np.sum(weights) == pytest.approx(1.0)
    middle = np.interp(0.5, np.cumsum(weights), SIZES[:, 0])
    assert middle == pytest.approx(dust.median, rel=0.25)  # the grid's step is 20 %, and the fine mode pulls


@given(st.floats(1e-6, 5e-3), st.floats(1.3, 3.0))
def test_weights_are_shares(median: float, spread: float) -> None:
    weights = lognormal_weights(median, spread)
    assert np.all(weights >= 0)
    assert np.sum(weights) == pytest.approx(1.0)


@given(st.floats(1e-6, 5e-3), st.sampled_from([400.0, 650.0, 7800.0]))
def test_terminal_velocity_is_near_measured_drag(diameter: float, density: float) -> None:
    ours = float(terminal_velocity(diameter, density, 1.2, 1.81e-5))
    theirs = fluids.v_terminal(D=diameter, rhop=density, rho=1.2, mu=1.81e-5)  # oracle
    assert ours == pytest.approx(theirs, rel=0.08)


def test_small_grains_fall_by_stokes() -> None:
    d = 2e-6
    stokes = 9.80665 * d**2 * (650 - 1.2) / (18 * 1.81e-5)  # hand
    assert float(terminal_velocity(d, 650.0, 1.2, 1.81e-5)) == pytest.approx(stokes, rel=0.03)
