"""What creeps is helped on, what swings is held back, and each value by itself."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwick.core.line.relaxation import Relaxation

STEPS = 12


def put_in(shares: np.ndarray, end: np.ndarray, start: np.ndarray) -> np.ndarray:
    """Where the values are after some steps, each of which leaves a share of the way to its end."""
    relaxation, value = Relaxation(), start
    for _ in range(STEPS):
        value = relaxation.next(value, end + shares * (value - end))
    return value


@given(st.lists(st.floats(-2.0, 0.6), min_size=1, max_size=6), st.floats(-5.0, 5.0))
def test_what_creeps_and_what_swings_both_arrive(shares: list[float], end: float) -> None:
    factors = np.array(shares)
    found = put_in(factors, np.full(factors.shape, end), np.full(factors.shape, end + 1.0))
    assert found == pytest.approx(np.full(factors.shape, end), abs=1e-6)


def test_a_path_that_halves_its_error_is_there_at_the_third_step() -> None:
    relaxation, value = Relaxation(), np.array([16.0])
    for _ in range(3):
        value = relaxation.next_positive(value, np.sqrt(value))  # of a logarithm, half is left each time
    assert value == pytest.approx(1.0, rel=1e-9)
    plain = 16.0
    for _ in range(3):
        plain = plain**0.5
    assert plain > 1.4


def test_what_only_ratios_can_tell_stays_above_nothing() -> None:
    relaxation, value = Relaxation(), np.array([1e6, 0.0, 0.0])
    for _ in range(4):
        value = relaxation.next_positive(value, np.array([1.0, 0.0, 2.0]))
        assert np.all(value >= 0.0)
    assert value == pytest.approx([1.0, 0.0, 2.0])


def test_values_that_stand_still_stay() -> None:
    relaxation, value = Relaxation(), np.array([3.0, 0.0])
    for _ in range(5):
        value = relaxation.next(value, value)
    assert value.tolist() == [3.0, 0.0]
